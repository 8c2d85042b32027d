"""Lines that nest or go on without end: they are read as far as it makes sense, and it is said
where that ends.
"""

from __future__ import annotations

import pytest

from dowsing.commandline.expecting import what_next
from dowsing.commandline.grammar.sayings import Meaning, ProblemCode
from dowsing.commandline.grammar.shell_grammar import MOST_STATEMENTS
from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.commandline.reading.option_words import MOST_LETTERS
from dowsing.commandline.reading.word_roles import MOST_CARRIED, MOST_SUGGESTED
from dowsing.facts.forms import Notation, parse_form
from dowsing.model.told import told
from dowsing.render.pieces import pieces_of

DEEP = "from here on it is nested too deep to be taken apart"
LONG = "from here on it is too long to be taken apart"


@pytest.mark.parametrize(
    "line",
    [
        '"$(' * 300,
        '"$("' * 300,
        "echo " + "$(" * 300 + "ls" + ")" * 300,
        "( " * 400,
        "{ " * 400,
        "if true; then " * 300,
    ],
)
def test_nesting_without_end(finder: CommandFinder, line: str) -> None:
    found = unpick(line, finder)
    assert len(pieces_of(found)) < 2000
    assert all(0 <= piece.start <= piece.end <= len(line) for piece in pieces_of(found))
    what_next(line, finder)


def test_where_nesting_ends_is_said(finder: CommandFinder) -> None:
    found = unpick("echo " + "$(" * 300 + "ls" + ")" * 300, finder)
    assert found.problem is not None and found.problem.reason.code is ProblemCode.TOO_DEEP
    assert unpick("echo $(crate $(crate $(crate -p)))", finder).problem is None


def test_a_line_of_very_many_commands(finder: CommandFinder) -> None:
    found = unpick("crate -p;" * MOST_STATEMENTS, finder)
    assert found.problem is not None and found.problem.reason.code is ProblemCode.TOO_LONG
    assert 2 * MOST_STATEMENTS > len(pieces_of(found)) > MOST_STATEMENTS
    assert unpick("crate -p;" * 1000, finder).problem is None


def test_commands_that_carry_commands_without_end(finder: CommandFinder) -> None:
    found = unpick("nohup " * 300 + "crate -p", finder)
    assert sum(piece.role == "command" for piece in pieces_of(found)) == MOST_CARRIED + 1
    assert pieces_of(found)[-1].meaning == told(Meaning.TOO_DEEP)
    assert (
        pieces_of(unpick("nohup " * 5 + "crate -p", finder))[-1].says
        == "Pack files into a crate. Files may be folders."
    )


def test_names_like_unknown_ones_are_looked_for_few_times(
    finder: CommandFinder, monkeypatch: pytest.MonkeyPatch
) -> None:
    asked: list[str] = []
    finder.suggested.clear()
    monkeypatch.setattr(
        "dowsing.index.nearest_names.nearest_names", lambda store, name: asked.append(name) or []
    )
    unpick("; ".join(f"cratx{n}" for n in range(50)) + "; cratx0" * 50, finder)
    assert asked == [f"cratx{n}" for n in range(MOST_SUGGESTED)]
    finder.suggested.clear()


def test_every_place_of_an_unknown_name_has_its_nearest(finder: CommandFinder) -> None:
    finder.suggested.clear()
    found = unpick("crqte; crqte", finder)
    assert [piece.nearest for piece in pieces_of(found) if piece.role == "command"] == [
        ["crate"],
        ["crate"],
    ]


def test_a_cluster_of_very_many_letters_is_none(finder: CommandFinder) -> None:
    assert len(pieces_of(unpick("crate -" + "v" * (MOST_LETTERS - 1), finder))) == MOST_LETTERS
    assert len(pieces_of(unpick("crate -" + "v" * 5000, finder))) == 2


def test_brackets_of_a_form_that_never_close() -> None:
    form = parse_form("a " + "[-a " * 400, Notation(["a"]))
    assert form.problem == "its brackets are nested too deep"
    assert parse_form("a " + "[-a " * 30 + "]" * 30, Notation(["a"])).problem == ""
    assert parse_form("a [b [c] d", Notation(["a"])).problem == "“]” is missing"
