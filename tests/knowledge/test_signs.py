"""Signs, variables and files that are known as they are written."""

from __future__ import annotations

import re
import tomllib
from pathlib import Path

import pytest

import dowsing.knowledge.signs as signs
from dowsing.knowledge.signs import SignFact, SignKind, sign_fact


def test_what_is_known_of_each_kind() -> None:
    assert sign_fact(SignKind.SIGN, "]]") == SignFact(
        "ends the test that [[ begins", [], ["bash", "zsh"]
    )
    variable = sign_fact(SignKind.VARIABLE, "TZ")
    assert variable is not None
    assert variable.see == ["tzset(3)", "timezone(3)", "date(1)"]
    assert sign_fact(SignKind.FILE, "TZ") is None


def test_every_row_is_whole() -> None:
    tables = tomllib.loads(Path(signs.__file__).with_name("signs.toml").read_text())
    assert set(tables) == set(SignKind)
    for kind, rows in tables.items():
        assert len(rows) > 30
        for name, row in rows.items():
            assert set(row) <= {"says", "see", "shells"}, name
            assert not row["says"].endswith("."), name
            assert row.get("see") or kind == "sign", name
            assert set(row.get("shells", [])) <= {"bash", "zsh", "fish"}, name
            if kind == "variable":
                assert re.fullmatch(r"[A-Z][A-Z0-9_]+|[a-z]+_proxy", name)


@pytest.mark.parametrize("name", ["/etc/nothing", "VENT_PATH", "%%"])
def test_what_nothing_is_known_of(name: str) -> None:
    assert [sign_fact(kind, name) for kind in SignKind] == [None, None, None]
