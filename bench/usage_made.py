"""How truly the help of made-up programs is read, against the definition they were made of.

    python bench/usage_made.py DIR [--misses]

DIR has `NAME.help.txt` and `NAME.SUB.help.txt`, what programs print that were made with real
libraries for arguments, and `NAME.truth.json`, their definition: name, library, summary, options
(flags, argument, choices, default, text), subcommands of the same kind. A line for each library:
the share of spellings found and of those that are right, and of options found the share whose
spellings, argument, choices, default and text are right; of subcommands the share found, and of
summaries.
"""

from __future__ import annotations

import argparse
import collections
import json
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from dowsing.facts import with_facts
from dowsing.readers.usage.usage_text import read_usage

COLUMNS = "found right whole argument choices default text subcommands summary".split()


def parts(
    known: dict[str, Any], above: tuple[str, ...] = ()
) -> Iterator[tuple[tuple[str, ...], dict[str, Any]]]:
    """A program and all its subcommands, with the words of each."""
    words = (*above, known["name"])
    yield words, known
    for one in known["subcommands"]:
        if "listed_only" not in one:
            yield from parts(one, words)


def bare(text: str) -> str:
    """A text without what differs only by its layout."""
    return "".join(text.split()).rstrip(".").lower()


def judge(
    text: str, words: tuple[str, ...], known: dict[str, Any]
) -> Iterator[tuple[str, bool, object]]:
    """What is right and what is not, by column."""
    document = with_facts(read_usage(text, " ".join(words), "usage"))
    found = {flag: one for one in document.options for flag in one.flags}
    wanted = {flag for one in known["options"] for flag in one["flags"]}
    yield from (("found", flag in found, flag) for flag in sorted(wanted))
    yield from (("right", flag in wanted, flag) for flag in sorted(found))
    for one in known["options"]:
        option = next((found[flag] for flag in one["flags"] if flag in found), None)
        if option is None:
            continue
        yield "whole", set(one["flags"]) == set(option.flags), option.flags
        yield "argument", bool(option.argument) == bool(one["argument"]), option.flags
        if one["choices"] or option.values:
            yield "choices", set(option.values or []) == set(one["choices"] or []), option.flags
        if one["default"] is not None:
            yield "default", option.default == one["default"], option.flags
        yield "text", bare(one["text"]) in bare(option.text), option.flags
    listed = {one.name for one in document.subcommands}
    for sub in known["subcommands"]:
        yield "subcommands", sub["name"] in listed, sub["name"]
    if known["summary"] and known.get("headed", True):
        yield "summary", bare(document.summary) == bare(known["summary"]), document.summary


def main() -> int:
    """Judge all of a folder."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("folder", type=Path)
    parser.add_argument("--misses", action="store_true")
    asked = parser.parse_args()
    counts: dict[str, collections.Counter[str]] = collections.defaultdict(collections.Counter)
    for path in sorted(asked.folder.glob("*.truth.json")):
        whole = json.loads(path.read_text("utf-8"))
        for words, known in parts(whole):
            file = asked.folder / f"{'.'.join(words)}.help.txt"
            if not file.exists():
                continue
            text = file.read_text("utf-8")
            if text.startswith("Traceback"):
                continue  # a program that its library does not print the help of
            counts[whole["library"]]["texts"] += 1
            for column, is_right, which in judge(text, words, known):
                counts[whole["library"]].update({column: is_right, f"{column} of": 1})
                if asked.misses and not is_right:
                    print(f"{whole['library']}: {' '.join(words)}: {column}: {which}")
    print(f"{'library':12}{'texts':>6}" + "".join(f"{one:>12}" for one in COLUMNS))
    counts["all"] = sum(counts.values(), collections.Counter())
    for library, count in counts.items():
        shares = (
            f"{count[one] / count[f'{one} of']:.3f}" if count[f"{one} of"] else "-"
            for one in COLUMNS
        )
        print(f"{library:12}{count['texts']:>6}" + "".join(f"{one:>12}" for one in shares))
    total = counts["all"]
    return 0 if total["found"] >= 0.98 * total["found of"] else 1


if __name__ == "__main__":
    sys.exit(main())
