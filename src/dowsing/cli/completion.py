"""What may complete a command line of our own: commands, options and their values, names of
entries.
"""

from __future__ import annotations

import argparse
from importlib import import_module

from dowsing.cli.main import COMMANDS, Parser, add_global_options, split_command
from dowsing.index.command_rows import commands_beginning, names_beginning
from dowsing.model.markup import clean_line, has_unsafe
from dowsing.session.session import Session

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterable

MOST = 60
#: Commands whose words are names of entries; those whose words are a command line.
_NAMES = frozenset("card read options examples syntax sources resolve near note browse".split())
_LINES = frozenset(("unpick", "next", "compose", "save"))
#: Options whose values the index knows, by what they are called in it.
_VOCABULARY = {"--package": "package", "--family": "family", "--kind": "kind"}


def candidates(session: Session, words: list[str]) -> dict[str, str]:
    """The words that the last of `words` may become, each with what it is; `words` follow the
    program's name.
    """
    typed = words[-1] if words else ""
    before = words[:-1]
    command, rest = split_command(before)
    if not command:
        if typed.startswith("-"):
            return _options(None, typed)
        found = {name: says for name, says in COMMANDS.items() if name.startswith(typed)}
        return (
            {**found, **_names(session, typed)}
            if not [w for w in before if not w.startswith("-")]
            else {}
        )
    if "--" in rest:
        return _operands(session, command, [], typed)
    module = import_module(f"dowsing.cli.commands.{command}")
    parser = Parser(prog=command)
    module.add_arguments(parser)
    add_global_options(parser)
    actions = parser._option_string_actions
    last = actions.get(rest[-1]) if rest else None
    if last is not None and last.nargs is None:
        return _values(session, last, rest[-1], typed)
    flag, equals, part = typed.partition("=")
    if equals and flag in actions:
        return {
            f"{flag}={value}": says
            for value, says in _values(session, actions[flag], flag, part).items()
        }
    if typed.startswith("-"):
        return _options(parser, typed)
    plain = [word for word in rest if not word.startswith("-")]
    return _operands(session, command, plain, typed)


def _options(parser: argparse.ArgumentParser | None, typed: str) -> dict[str, str]:
    if parser is None:
        parser = Parser(prog="dowsing")
        add_global_options(parser)
    return {
        flag: action.help or ""
        for flag, action in parser._option_string_actions.items()
        if flag.startswith(typed) and action.help != argparse.SUPPRESS
    }


def _values(session: Session, action: argparse.Action, flag: str, typed: str) -> dict[str, str]:
    """The values of an option of ours."""
    if action.choices is not None:
        values = [str(choice) for choice in action.choices]
    elif flag in _VOCABULARY:
        values = [value for value, _ in session.store.vocabulary(_VOCABULARY[flag])]
    elif flag in ("--does", "--what"):
        values = [
            value for value, _ in session.store.vocabulary("verbs" if flag == "--does" else "nouns")
        ]
    elif flag == "--from":
        from dowsing.sources.catalogue import SOURCES

        values = [*SOURCES, "all"]
    elif flag == "--line":
        from dowsing.composing.line_kinds import line_kinds

        values = list(line_kinds(session.settings))
    else:
        return {}
    return _typable((value, "") for value in values if value.startswith(typed))


def _operands(session: Session, command: str, before: list[str], typed: str) -> dict[str, str]:
    if command == "words":
        return {
            one: ""
            for one in ("verbs", "nouns", "packages", "families", "kinds")
            if one.startswith(typed)
        }
    if command == "shell":
        from dowsing.shell.snippets import SHELLS

        return {one: "" for one in SHELLS if one.startswith(typed)}
    if command in _NAMES and not before:
        return _names(session, typed)
    if command in _LINES and not before and typed:
        return _typable(
            (one.name, one.summary) for one in commands_beginning(session.store, typed, MOST)
        )
    return {}


def _typable(found: Iterable[tuple[str, str]]) -> dict[str, str]:
    """The words with what each is, without those that hold what cannot be seen: they could not be
    typed either.
    """
    return {name: clean_line(says) for name, says in found if not has_unsafe(name)}


def _names(session: Session, typed: str) -> dict[str, str]:
    """The names of entries that begin so, commands first."""
    if not typed:
        return {}
    commands = [(one.name, one.summary) for one in commands_beginning(session.store, typed, MOST)]
    found = _typable(commands)
    for name, summary in _typable(names_beginning(session.store, typed, MOST)).items():
        found.setdefault(name, summary)
    return dict(list(found.items())[:MOST])
