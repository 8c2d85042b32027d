"""Lines with long options, with short ones, and without what is the default anyway."""

from __future__ import annotations

import pytest

from dowsing.commandline.command_finder import CommandFinder
from dowsing.commandline.line import unpick
from dowsing.commandline.rewrite import Needless, long_form, short_form, tidied


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
    ],
)
def test_short(finder: CommandFinder, line: str, expected: str) -> None:
    assert short_form(unpick(line, finder)) == expected


@pytest.mark.parametrize(
    "line", ["crate -pv -C attic a", "crate --unpack --file x.crate", "later 5 crate -u a"]
)
def test_rewriting_keeps_what_the_line_means(finder: CommandFinder, line: str) -> None:
    def meant(text: str) -> list[tuple[str, list[str] | None, str | None]]:
        found = [p for p in unpick(text, finder).pieces if p.role != "value"]
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
        ("--fast", Needless.DEFAULT),
        ("--level 6", Needless.DEFAULT),
        ("-p", Needless.REPEATED),
    ]
    assert tidied(unpick("crate -p --level 9 -v -v", finder)) == ("crate -p --level 9 -v -v", [])
