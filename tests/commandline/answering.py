"""Whole answers about lines, as they are kept in `answers.jsonl`."""

from __future__ import annotations

import json
from collections.abc import Callable
from pathlib import Path

from dowsing.commandline.expecting import what_next
from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.commandline.rewriting.rewrite import kept, long_form, short_form, tidied
from dowsing.commandline.scripts.script import read_script
from dowsing.model.markup import plain
from dowsing.render.expectations import expected_lines
from dowsing.render.line_json import next_json, unpicked_json
from dowsing.render.phrases import words
from dowsing.render.piece_text import unpicked_lines
from dowsing.render.script_json import script_json
from dowsing.render.script_text import script_lines

KEPT = Path(__file__).parent / "answers.jsonl"
WIDTH = 80


def _fields(row: object, names: str) -> list[str]:
    """The fields of each thing in a JSON array, those that say something, a line each."""
    assert isinstance(row, list)
    return [
        " | ".join(
            f"{name}={one[name]}"
            for name in names.split()
            if one.get(name) not in ("", None, [], {})
        )
        for one in row
    ]


def _unpicked(line: str, finder: CommandFinder) -> list[str]:
    found = unpick(line, finder)
    data = unpicked_json(found)
    return [
        *(plain(one).rstrip() for one in unpicked_lines(found, WIDTH, "dowsing", False)),
        *_fields(
            data["pieces"],
            "text role start end flags value here nearest word of inside builtin grade",
        ),
        *_fields(data["effects"], "does words look"),
        f"mistaken={found.mistaken} problem={data['problem']}",
    ]


def _next(line: str, finder: CommandFinder) -> list[str]:
    found = what_next(line, finder, None)
    return [
        *(plain(one).rstrip() for one in expected_lines(found, WIDTH, "dowsing", 14, False)),
        json.dumps(next_json(found))[:400],
    ]


def _script(text: str, finder: CommandFinder) -> list[str]:
    script = read_script("sample", text, finder)
    data = script_json(script)
    return [
        *(plain(one).rstrip() for one in script_lines(script, WIDTH, "", "dowsing")),
        *_fields(data["problems"], "line grade says"),
        *_fields(data["effects"], "line does words look"),
    ]


def _rewritten(line: str, finder: CommandFinder) -> list[str]:
    found = unpick(line, finder)
    short, needless = tidied(found)
    return [
        f"long: {long_form(found)}",
        *(f"kept: {flag}: {words(reason)}" for flag, reason in kept(found, True)),
        f"short: {short_form(found)}",
        *(f"kept: {flag}: {words(reason)}" for flag, reason in kept(found, False)),
        f"tidy: {short}",
        *(f"left out: {text}: {words(reason)}" for text, reason in needless),
    ]


#: What is asked, and who answers it.
ASKS: dict[str, Callable[[str, CommandFinder], list[str]]] = {
    "unpick": _unpicked,
    "next": _next,
    "script": _script,
    "rewrite": _rewritten,
}
