"""One pair of quotes round a word of which parts are quoted."""

from __future__ import annotations

import shlex

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dowsing.model.quoting import joined_quotes, word


@pytest.mark.parametrize(
    ("line", "joined"),
    [
        ("sed -i s/';'/,/g a.txt", "sed -i 's/;/,/g' a.txt"),
        ("grep '^'A a.txt", "grep '^A' a.txt"),
        ("ls 'a b'/c", "ls 'a b/c'"),
        ("tar --exclude='*.bak' -cf a.tar b", "tar --exclude='*.bak' -cf a.tar b"),
        ("NAME='a b' run", "NAME='a b' run"),
        ("cat ~/'a b'", "cat ~/'a b'"),
        ("echo \"$x\"'a'b", "echo \"$x\"'a'b"),
        ("echo $(ls 'a'b)", "echo $(ls 'a'b)"),
        ("echo 'it'\\''s'", "echo 'it'\\''s'"),
        ("a b", "a b"),
    ],
)
def test_joining(line: str, joined: str) -> None:
    assert joined_quotes(line) == joined


@given(st.lists(st.text(st.characters(codec="ascii", exclude_characters="\0"), max_size=6)))
def test_the_words_stay_the_same(parts: list[str]) -> None:
    line = " ".join(f"s/{word(one)}/x" for one in parts)
    assert shlex.split(joined_quotes(line)) == shlex.split(line)
