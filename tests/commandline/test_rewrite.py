"""Lines with long options, with short ones, and without what is the default anyway."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.commandline.rewriting.rewrite import (
    Kept,
    Needless,
    kept,
    long_form,
    short_form,
    tidied,
)
from dowsing.index.store import Store
from dowsing.machine.settings import Settings
from dowsing.model.told import told
from dowsing.render.pieces import pieces_of


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("crate -pv a", "crate --pack --verbose a"),
        ("crate -pvf x a", "crate --pack --verbose --file x a"),
        ("crate -pfx a", "crate --pack --file=x a"),
        ("crate -C 'a b' -p", "crate --directory 'a b' --pack"),
        ("crate --fi x", "crate --file x"),
        ("crate -p | crate -u", "crate --pack | crate --unpack"),
        ("later 5 crate -p", "later 5 crate --pack"),
        ("whirl -flip x", "whirl -flip x"),
        ("crate -pz a", "crate -pz a"),
        ("crate -pf'a b'", "crate --pack --file='a b'"),
        ('crate -pf"$x"', 'crate --pack --file="$x"'),
        ("sh -c 'crate -p a'", "sh -c 'crate --pack a'"),
        ('sh -c "echo \\"$(crate -p)\\""', 'sh -c "echo \\"$(crate --pack)\\""'),
        ("crate -f", "crate -f"),
    ],
)
def test_long(finder: CommandFinder, line: str, expected: str) -> None:
    assert long_form(unpick(line, finder)) == expected


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("crate --pack --verbose a", "crate -pv a"),
        ("crate --pack --file x a", "crate -pf x a"),
        ("crate --pack --file=x a", "crate -p -f x a"),
        ("crate --fast --pack", "crate --fast -p"),
        ("crate --color=never --pack", "crate --color=never -p"),
        ("crate -pv", "crate -pv"),
        ("crate --file=12 --pack --verbose a", "crate -f12 -pv a"),
        ("crate --file=12 a", "crate -f12 a"),
    ],
)
def test_short(finder: CommandFinder, line: str, expected: str) -> None:
    assert short_form(unpick(line, finder)) == expected


@pytest.mark.parametrize(
    "line", ["crate -pv -C attic a", "crate --unpack --file x.crate", "later 5 crate -u a"]
)
def test_rewriting_keeps_what_the_line_means(finder: CommandFinder, line: str) -> None:
    def meant(text: str) -> list[tuple[str, list[str] | None, str | None]]:
        found = [p for p in pieces_of(unpick(text, finder)) if p.role != "value"]
        return [
            (p.role, p.flags, p.value) if p.role == "option" else (p.role, None, p.text)
            for p in found
        ]

    found = unpick(line, finder)
    assert meant(long_form(found)) == meant(line) == meant(short_form(found))


def test_tidy_leaves_out_defaults_and_repetitions_and_says_so(finder: CommandFinder) -> None:
    line, said = tidied(unpick("crate -p --fast --level 6 -p --verbose a", finder))
    assert line == "crate -p --verbose a"
    assert said == [
        ("--fast", told(Needless.DEFAULT)),
        ("--level 6", told(Needless.DEFAULT)),
        ("-p", told(Needless.REPEATED)),
    ]
    assert tidied(unpick("crate -p --level 9 -v -v", finder)) == ("crate -p --level 9 -v -v", [])


SIEVE = """.TH SIEVE 1
.SH NAME
sieve \\- sort earth
.SH OPTIONS
.TP
\\-a, \\-\\-all
Same as \\-fm \\-\\-stones.
.TP
\\-f, \\-\\-fine
Fine earth.
.TP
\\-m
Moist earth.
.TP
\\-\\-stones
Stones too.
.TP
\\-\\-wash, \\-\\-no\\-wash
Wash them.
.TP
\\-\\-least, \\-\\-most, \\-\\-plain
How it is done: least is the least (the default).
.TP
\\-q
Implies \\-m unless it rains.
"""


@pytest.mark.parametrize(
    ("line", "tidy"),
    [
        ("sieve -a -f", "sieve -a"),
        ("sieve -mqa x", "sieve -qa x"),
        ("sieve --stones --all", "sieve --all"),
        ("sieve -q -m", "sieve -q -m"),
        ("sieve --wash --no-wash", "sieve --wash --no-wash"),
        ("sieve --wash --no-wash --wash", "sieve --wash --no-wash --wash"),
        ("sieve --no-wash --no-wash", "sieve --no-wash"),
        ("sieve --least --most", "sieve --least --most"),
        ("sieve --most --most", "sieve --most"),
    ],
)
def test_tidying_keeps_what_counts(make_store: Callable[..., Store], line: str, tidy: str) -> None:
    found = unpick(
        line, CommandFinder(make_store({"sieve.1": SIEVE}), Settings("", "", "", "", []))
    )
    assert tidied(found)[0] == tidy


def test_what_another_option_stands_for(make_store: Callable[..., Store]) -> None:
    finder = CommandFinder(make_store({"sieve.1": SIEVE}), Settings("", "", "", "", []))
    assert tidied(unpick("sieve -a -f", finder))[1] == [("-f", told(Needless.IMPLIED, "-a"))]
    assert long_form(unpick("sieve --no-wash -m", finder)) == "sieve --no-wash -m"


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("head -n 10 f", "head f"),
        ("head -n 5 f", "head -n 5 f"),
        ("head -n 10 -n 5 f", "head -n 10 -n 5 f"),
        ("watch -n 2 crate", "watch crate"),
        ("gzip -6 f", "gzip f"),
        ("gzip -9 f", "gzip -9 f"),
    ],
)
def test_what_our_facts_know_to_be_the_default(
    finder: CommandFinder, line: str, expected: str
) -> None:
    assert tidied(unpick(line, finder))[0] == expected


@pytest.mark.parametrize(
    ("line", "in_long", "expected"),
    [
        ("crate -pz a", True, [("-pz", told(Kept.UNKNOWN))]),
        ("crate -p -q a", True, [("-q", told(Kept.UNKNOWN))]),
        ("crate --fast --pack", False, [("--fast", told(Kept.NO_SHORT, "crate(1)"))]),
        ("crate --pack -v", False, []),
    ],
)
def test_what_is_left_as_it_is(
    finder: CommandFinder, line: str, in_long: bool, expected: list[tuple[str, object]]
) -> None:
    assert kept(unpick(line, finder), in_long) == expected
