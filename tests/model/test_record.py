"""Frozen records."""

from __future__ import annotations

import pytest

from dowsing.model.record import Record, dump


class Pot(Record):
    name: str
    size: int = 10
    plants: list[str] = []  # noqa: RUF012


class Labelled(Pot):
    label: str = ""


def test_fields_by_place_by_name_and_by_default() -> None:
    assert Pot("clay") == Pot(name="clay", size=10, plants=[])
    assert Pot("clay", 12).size == 12
    assert Labelled("clay", label="fern").label == "fern"
    assert repr(Pot("clay", 3)) == "Pot(name='clay', size=3, plants=[])"


def test_missing_unknown_and_too_many_fields() -> None:
    for wrong in (lambda: Pot(), lambda: Pot("a", colour="red"), lambda: Pot("a", 1, [], 2)):
        with pytest.raises(TypeError):
            wrong()


def test_records_are_immutable_and_comparable() -> None:
    pot = Pot("clay")
    with pytest.raises(AttributeError, match="Pot is immutable"):
        pot.size = 3  # type: ignore[misc]
    assert pot != Pot("tin")
    assert pot != Labelled("clay")
    assert len({pot, Pot("clay"), Pot("tin")}) == 2


def test_dump_is_plain_data() -> None:
    value = {"pots": [Pot("clay", 3, ["fern"])], "pair": (1, None)}
    assert dump(value) == {
        "pots": [{"name": "clay", "size": 3, "plants": ["fern"]}],
        "pair": [1, None],
    }
