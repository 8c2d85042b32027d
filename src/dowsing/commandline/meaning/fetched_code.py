"""Lines that fetch code and run it unseen: `curl … | bash -s`, `eval "$(curl …)"`, `source <(curl
…)`, `curl -O … && sh …`. What only reads what was fetched (`| python3 -m json.tool`) is none.
"""

from __future__ import annotations

import os
import re
from functools import cache

from dowsing.commandline.grammar.shell_words import SimpleCommand
from dowsing.commandline.judging.certainty import tells_only
from dowsing.commandline.model.tree import CommandNode
from dowsing.knowledge.command_classes import CommandClass, members_of
from dowsing.knowledge.effects import Interpreter, interpreter, saving_of
from dowsing.model.roles import Role

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Mark
    from dowsing.commandline.model.tree import Line, Pipeline

_STDIN = frozenset(("-", "/dev/stdin"))
_VERSION = re.compile(r"[\d.]+\Z")


class Found:
    """A line that runs what it fetched: its commands as they are told, and where they stand."""

    def __init__(self, words: str, place: int) -> None:
        self.words, self.place = words, place


def fetched_and_run(line: Line) -> list[Found]:
    """What runs fetched code in a line; lines within its words are looked at by themselves."""
    found: list[Found] = []
    files: dict[str, str] = {}  # that were fetched, with what fetched them
    for pipeline in line.pipelines:
        one = _of_pipeline(pipeline) or _of_files(pipeline, files)
        if one is not None:
            found.append(one)
        files |= _fetched_files(pipeline)
    for part in line.parts:
        if isinstance(part, SimpleCommand) and part.words and _fetched().match(part.words[0].text):
            found.append(Found("$(…)", part.words[0].start))
    return found


def _inmost(node: CommandNode) -> CommandNode:
    """The command that is run in the end: of `sudo env bash` that is bash."""
    while node.carried:
        node = node.carried[-1]
    return node


def _runs_text(name: str) -> bool:
    return name in members_of(CommandClass.RUNS_TEXT)


def _runs_file(name: str) -> bool:
    return name in members_of(CommandClass.RUNS_FILE)


@cache
def _fetched() -> re.Pattern[str]:
    """A substitution that fetches something."""
    fetchers = "|".join(map(re.escape, sorted(members_of(CommandClass.FETCHES))))
    return re.compile(rf"(?:[$<]\(|`)(?:[^()`]*[\s;&|])?(?:{fetchers})\b")


def _name(node: CommandNode) -> str:
    return os.path.basename(node.known.words.split(" ")[0])


def _of_pipeline(pipeline: Pipeline) -> Found | None:
    """What of one pipeline runs what was fetched."""
    fetched = "here-string" if _is_fed(pipeline.redirections) else ""
    for node in pipeline.commands:
        last = _inmost(node)
        name = _name(last)
        place = node.name.start
        if name in members_of(CommandClass.FETCHES) and not tells_only(last):
            fetched = name
        elif _runs_words(last, name):
            return Found(name, place)
        elif fetched and _runs_input(last, name):
            return Found(name if fetched == "here-string" else f"{fetched} | {name}", place)
    return None


def _is_fed(redirections: list[Mark]) -> bool:
    """Whether a command's input is what a substitution fetches."""
    return any(
        mark.role == Role.REDIRECTION and mark.text.startswith("<") and _fetched().search(mark.text)
        for mark in redirections
    )


def _texts(node: CommandNode) -> list[str]:
    """The words of a command with the values that stand apart, as they are written."""
    if node.written:
        return [word.text for word in node.written[1:]]
    found = [use.word.text for use in node.uses]
    return found + [word.text for use in node.used for word in use.value_words]


def _runs_words(node: CommandNode, name: str) -> bool:
    """Whether it runs what stands in its words, and these hold what a substitution fetches."""
    fetched = [text for text in _texts(node) if _fetched().search(text)]
    if not fetched:
        return False
    if _runs_text(name) or _runs_file(name):
        return True
    return _interpreter(name) is not None and not _only_checks(node, name)


def _runs_input(node: CommandNode, name: str) -> bool:
    """Whether it runs what comes on its input."""
    operands = [use.word.value for use in node.operands]
    if _runs_file(name):
        return operands[:1] == ["/dev/stdin"]
    known = _interpreter(name)
    if known is None or tells_only(node) or _only_checks(node, name):
        return False
    if _has(node, known.code, known.long):
        return False
    reads = bool(known.reads) and _has(node, known.reads, [])
    return reads or not operands or operands[0] in _STDIN or (known.ends and node.ended)


def _only_checks(node: CommandNode, name: str) -> bool:
    known = _interpreter(name)
    return known is not None and bool(known.checks) and _has(node, known.checks, [])


def _has(node: CommandNode, letters: str, long: list[str]) -> bool:
    """Whether one of these options is there: letters in a bundle before the first operand, or a
    long one.
    """
    for use in node.uses:
        word = use.word.value
        if word == "--" or not word.startswith("-") or word == "-":
            if word in long or word == "--":
                return word in long
            continue
        if word.startswith("--"):
            if word.partition("=")[0] in long:
                return True
        elif set(word[1:]) & set(letters):
            return True
    return False


def _interpreter(name: str) -> Interpreter | None:
    return interpreter(_VERSION.sub("", name))


def _fetched_files(pipeline: Pipeline) -> dict[str, str]:
    """The files that a pipeline fetches, by their last names."""
    found: dict[str, str] = {}
    nodes = [_inmost(node) for node in pipeline.commands]
    fetchers = [node for node in nodes if node.is_of(CommandClass.FETCHES)]
    for node in fetchers:
        name = _name(node)
        saving = saving_of(name)
        named = [use.value for use in node.used if use.flag in saving.named and use.value]
        if not named and (saving.always or _has(node, saving.letters, saving.kept)):
            named = [use.word.value.partition("?")[0] for use in node.operands]
        found |= {os.path.basename(one): name for one in named}
    if fetchers:
        targets = [mark.emptied for mark in pipeline.redirections if mark.emptied]
        found |= {os.path.basename(one): _name(fetchers[0]) for one in targets}
    return {file: name for file, name in found.items() if file}


def _of_files(pipeline: Pipeline, files: dict[str, str]) -> Found | None:
    """What of a pipeline runs a file that was fetched before."""
    for node in pipeline.commands if files else []:
        last = _inmost(node)
        name = _name(last)
        called = last.name.value
        if "/" in called and os.path.basename(called) in files:
            return Found(f"{files[os.path.basename(called)]}, {called}", node.name.start)
        known = _interpreter(name)
        scripts = [use.word.value for use in last.operands[:1]]
        is_run = known is not None and not _has(last, known.code + known.checks, known.long)
        if scripts and (is_run or _runs_file(name)):
            file = os.path.basename(scripts[0])
            if file in files:
                return Found(f"{files[file]}, {name}", node.name.start)
    return None
