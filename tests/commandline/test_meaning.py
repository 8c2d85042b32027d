"""What a line means: its statements, the act of each command, what goes into the act's words."""

from __future__ import annotations

import pytest

from dowsing.commandline.line import unpick
from dowsing.commandline.meaning.binding import Operands, Text, Values
from dowsing.commandline.meaning.nodes import (
    Branch,
    Cases,
    Compared,
    Doing,
    Function,
    Group,
    Over,
    Sequence,
    Simple,
    Statement,
    Sum,
    While,
)
from dowsing.commandline.reading.command_finder import CommandFinder


def drawn(sequence: Sequence) -> str:
    """Statements in short."""
    return " ".join(
        f"{step.sign}{'!' * step.pipeline.negated}"
        f"{'|'.join(drawn_one(one) for one in step.pipeline.statements)}{'&' * step.is_behind}"
        for step in sequence.steps
    )


def drawn_one(one: Statement) -> str:
    """One statement in short, its redirections behind it."""
    marks = "".join(mark.operator for mark in one.redirections)
    if isinstance(one, Simple):
        sets = "".join(f"{mark.text}," for mark in one.sets)
        name = one.doing.node.name.text if one.doing else ""
        name = one.unnamed.words[0].text if one.unnamed else name
        return f"{sets}{name}{marks}"
    if isinstance(one, Branch):
        cases = "".join(f"if[{drawn(c.sequence)}][{drawn(body)}]" for c, body in one.cases)
        return cases + (f"else[{drawn(one.otherwise.sequence)}]" if one.otherwise else "") + marks
    if isinstance(one, Over):
        return f"for {one.name}({len(one.values)})[{drawn(one.body)}]{marks}"
    if isinstance(one, While):
        word = "until" if one.until else "while"
        return f"{word}[{drawn(one.condition)}][{drawn(one.body)}]{marks}"
    if isinstance(one, Cases):
        cases = "".join(
            f"{'|'.join(m.text for m in c.patterns)}[{drawn(c.body)}]" for c in one.cases
        )
        return f"case {one.subject.text if one.subject else ''} {cases}{marks}"
    if isinstance(one, Compared):
        return f"[[{' '.join(one.words)}]]{marks}"
    if isinstance(one, Function):
        return f"{one.name}()[{drawn(one.body)}]{marks}"
    if isinstance(one, Group):
        return f"{'(' if one.own_shell else '{'}{drawn(one.body)}{marks}"
    assert isinstance(one, Sum)
    return f"sum {one.text}{marks}"


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("a && b || c; d & e", "a &&b ||c ;d& &e"),
        ("! a | b >x 2>&1", "!a|b>2>&"),
        ("X=1 Y=2 a <f", "X=1,Y=2,a<"),
        ("X=1\na", "X=1, a"),
        ("$run it", "$run"),
        ("if a; then b; elif c; then d; else e; fi >x", "if[a][b]if[c][d]else[e]>"),
        ("for x in 1 2; do a; done", "for x(2)[a]"),
        ("while a; do b; c; done <f", "while[a][b ;c]<"),
        ("until a; do b; done", "until[a][b]"),
        ("case $x in a|b) c;; *) d;; esac", "case $x a|b[c]*[d]"),
        ("[[ -f x && -r y ]] && a", "[[-f x && -r y]] &&a"),
        ("f() { a; b; }", "f()[a ;b]"),
        ("(a; b) | { c; }", "(a ;b|{c"),
        ("(( n + 1 ))", "sum (( n + 1 ))"),
        ("a # b", "a"),
        ("", ""),
    ],
)
def test_the_statements_of_a_line(line: str, expected: str, finder: CommandFinder) -> None:
    assert drawn(unpick(line, finder).meaning.statements) == expected


def first(line: str, finder: CommandFinder) -> Doing:
    """What the first command of a line does."""
    found = unpick(line, finder)
    return found.meaning.of(found.commands[0])


@pytest.mark.parametrize(
    ("line", "says", "untold"),
    [
        ("rm -r old", "removes {in}", []),
        ("sleep 5 now", "waits {*}", []),
        ("crate a", None, []),  # of which our facts say nothing
    ],
)
def test_the_act_of_a_command(
    line: str, says: str | None, untold: list[str], finder: CommandFinder
) -> None:
    doing = first(line, finder)
    assert (doing.act and doing.act.says.replace("[", "").replace("]", "")) == says
    assert [use.word.text for use in doing.untold] == untold


def test_what_is_given_is_no_text_to_be_filled(finder: CommandFinder) -> None:
    said = first("mv 'a{1}' 'stash@{2}'", finder).said
    operands = [use.word.value for one in said if isinstance(one, Operands) for use in one.uses]
    assert operands == ["a{1}", "stash@{2}"]
    assert all("{" not in one.text for one in said if isinstance(one, Text))


def test_what_options_add_is_bound_once(finder: CommandFinder) -> None:
    doing = first("sort -k 2 -u names", finder)
    values = [
        use.value
        for one in doing.added
        for v in one.said
        if isinstance(v, Values)
        for use in v.uses
    ]
    assert values == ["2"]
    assert [one.use.word.text for one in doing.added] == ["-k", "-u"]


def test_a_carried_command_is_done_by_its_carrier(finder: CommandFinder) -> None:
    doing = first("sudo rm -r old", finder)
    assert [one.node.name.text for one in doing.carried] == ["rm"]
    assert doing.carried[0].act is not None and doing.carried[0].act.effect is not None


def test_a_line_that_the_shell_cannot_read_has_a_meaning(finder: CommandFinder) -> None:
    found = unpick("[[ -f a && -r b ] && rm c", finder)
    assert all(found.meaning.of(node).node is node for node in found.commands)
