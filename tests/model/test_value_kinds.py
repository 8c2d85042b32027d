"""Kinds of values, and values that cannot be of a kind."""

from __future__ import annotations

import pytest

from dowsing.model.value_kinds import WrongValue, value_kind, wrong_kind


@pytest.mark.parametrize(
    ("placeholder", "says", "kind"),
    [
        ("FILE", "", "file"),
        ("configfile", "", "file"),
        ("DIR", "", "folder"),
        ("path", "", "path"),
        ("NUM", "", "number"),
        ("num_threads", "", "number"),
        ("max-args", "", "number"),
        ("n", "", "number"),
        ("SIZE", "in bytes", "size"),
        ("SIZE", "of the font", "text"),
        ("seconds", "", "duration"),
        ("date", "", "date"),
        ("USER", "", "user"),
        ("grp", "", "group"),
        ("hostname", "", "host"),
        ("port", "", "port"),
        ("URL", "", "url"),
        ("PATTERN", "", "pattern"),
        ("MODE", "file mode bits", "mode"),
        ("MODE", "of work", "text"),
        ("command", "", "command"),
        ("UNIT|PATTERN", "", "text"),
        ("header/@file", "", "text"),
        ("ID_OR_NUMBER", "", "text"),
        ("file_name", "", "file"),
        ("column_families", "", "text"),
        ("word", "", "text"),
    ],
)
def test_kinds(placeholder: str, says: str, kind: str) -> None:
    assert value_kind(placeholder, says) == kind


def test_allowed_values_make_a_choice() -> None:
    assert value_kind("FILE", "", ["a", "b"]) == "choice"


@pytest.mark.parametrize(
    ("kind", "value", "wrong"),
    [
        ("number", "x", True),
        ("number", "12", False),
        ("number", "-3k", False),
        ("number", "infinity", False),
        ("size", "10M", False),
        ("size", "big", True),
        ("size", "M", False),
        ("duration", "5m", False),
        ("duration", "soon", True),
        ("port", "70000", True),
        ("port", "22", False),
        ("port", "nowhere", True),
        ("signal", "TERM", False),
        ("signal", "sigterm", False),
        ("signal", "FOO", True),
        ("signal", "400", True),
        ("mode", "750", False),
        ("mode", "u+rw,o=", False),
        ("mode", "999", True),
        ("mode", "u+q", True),
        ("file", "anything", False),
        ("text", "", False),
    ],
)
def test_wrong_kinds(kind: str, value: str, wrong: bool) -> None:
    assert bool(wrong_kind(kind, value)) is wrong


def test_a_word_that_the_text_speaks_of_is_never_wrong() -> None:
    assert wrong_kind("number", "all", "the number of beds, or all") is None
    assert wrong_kind("number", "all", "the number of beds") is WrongValue.NO_NUMBER
