"""What the shell puts in before a command gets its words."""

from __future__ import annotations

import pytest

from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.render.pieces import pieces_of


@pytest.mark.parametrize(
    ("line", "words"),
    [
        ("crate x{,.bak}", ["x", "x.bak"]),
        ("crate {a,b}/c", ["a/c", "b/c"]),
        ('crate "{a,b}"', ["{a,b}"]),
        ("crate {1..30}", ["{1..30}"]),  # too many to tell
        ('f=/srv/x; crate "$f"', ["/srv/x"]),
        ('f=/srv/x; crate "$f"/y ${f}z', ["/srv/x/y", "/srv/xz"]),
        ("f='a b'; crate $f", ["a", "b"]),
        ("f='a b'; crate \"$f\"", ["a b"]),
        ('f=(a b c); crate "${f[@]}"', ["a", "b", "c"]),
        ("f=(a b c); crate $f", ["a"]),
        ("crate $f; f=a", ["$f"]),  # not set yet
        ("f=a; f=b; crate $f", ["$f"]),  # set twice
        ("f=a crate $f", ["$f"]),  # set for that command alone
        ("f=$(lamp); crate $f", ["$f"]),
        ("for f in a; do f=b; crate $f; done", ["$f"]),
        ("f=a; crate ${f%x} '$f'", ["${f%x}", "$f"]),
        ("crate *.{jpg,png}", ["*.jpg", "*.png"]),
        ('crate "$f"{,.bak}', ['"$f"', '"$f".bak']),
    ],
)
def test_the_words_that_a_command_gets(line: str, words: list[str], finder: CommandFinder) -> None:
    node = next(one for one in unpick(line, finder).commands if one.name.value == "crate")
    got = [use.word.text if use.word.dynamic else use.word.value for use in node.operands]
    assert got == words


def test_options_may_be_put_in(finder: CommandFinder) -> None:
    node = unpick("o=-pv; crate $o a", finder).commands[0]
    assert [use.flag for use in node.used] == ["-p", "-v"]


def test_a_word_is_one_piece_whatever_it_becomes(finder: CommandFinder) -> None:
    found = pieces_of(unpick("crate x{,.bak}", finder))
    assert [(one.text, one.start, one.end) for one in found[1:]] == [("x{,.bak}", 6, 14)]
