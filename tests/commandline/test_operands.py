"""Which place of a form each operand takes."""

from __future__ import annotations

import pytest

from dowsing.commandline.model.command import Command
from dowsing.commandline.model.operands import best_fit, fit_of, role_of, slots_of
from dowsing.commandline.model.tree import Slot
from dowsing.facts.forms import Notation, parse_form
from dowsing.knowledge.command_facts import facts_of
from dowsing.model.values import OperandRole

NOTATION = Notation(["sow"], ["now", "later"], ["-t"])


def slots(line: str) -> list[Slot]:
    return slots_of(Command("sow", "sow"), parse_form(line, NOTATION))


def short(found: list[Slot]) -> list[str]:
    """Slots in short: a name, `?` if it may be left out, `+` if it repeats."""
    return [one.name + "?" * (not one.required) + "+" * one.repeats for one in found]


@pytest.mark.parametrize(
    ("form", "expected"),
    [
        ("sow [OPTION]... SEED... BED", ["SEED+", "BED"]),
        ("sow [BED]", ["BED?"]),
        ("sow [BED [ROW]]...", ["BED?+", "ROW?+"]),
        ("sow [BED]...", ["BED?+"]),
        ("sow MODE[,MODE]... BED", ["MODE", "BED"]),
        ("sow {now|later} BED", ["now | later", "BED"]),
        ("sow [-a | BED]", ["BED?"]),
        ("sow [garden options] BED", ["BED"]),
        ("sow (BED : --row=N)", ["BED"]),
        ("sow {A|b}[cd] BED", ["BED"]),
    ],
)
def test_the_places_of_a_form(form: str, expected: list[str]) -> None:
    assert short(slots(form)) == expected


@pytest.mark.parametrize(
    ("form", "count", "taken", "lacking"),
    [
        ("sow SEED... BED", 1, ["SEED"], ["BED"]),
        ("sow SEED... BED", 2, ["SEED", "BED"], []),
        ("sow SEED... BED", 4, ["SEED", "SEED", "SEED", "BED"], []),
        ("sow SEED [BED]...", 1, ["SEED"], []),
        ("sow SEED [BED]...", 3, ["SEED", "BED", "BED"], []),
        ("sow [SEED] BED", 1, ["BED"], []),
        ("sow BED", 2, ["BED", "-"], []),
        ("sow BED", 0, [], ["BED"]),
    ],
)
def test_how_operands_are_shared_out(
    form: str, count: int, taken: list[str], lacking: list[str]
) -> None:
    fit = fit_of(slots(form), count)
    assert [one.name if one else "-" for one in fit.slots] == taken
    assert [one.name for one in fit.lacking] == lacking


def test_the_form_that_fits_best() -> None:
    known = Command("sow", "sow")
    known.facts = facts_of(
        {
            "forms": ["sow SEED... BED", "sow -t BED SEED...", "sow ONE"],
            "operands": {"BED": "target folder", "SEED": "source file"},
            "options": {"-t": {"value": "folder"}},
        }
    )

    def names(count: int, used: set[str]) -> list[str]:
        return [one.name if one else "-" for one in best_fit(known, count, used).slots]

    assert names(1, set()) == ["ONE"]
    assert names(2, set()) == ["SEED", "BED"]
    assert names(2, {"-t"}) == ["SEED", "SEED"]
    assert best_fit(known, 2, set()).slots[1] == Slot("BED", "folder", OperandRole.TARGET)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("name", "role"),
    [
        ("<source>", OperandRole.SOURCE),
        ("SRC", OperandRole.SOURCE),
        ("dest_path", None),
        ("target", OperandRole.TARGET),
        ("remote-host", OperandRole.HOST),
        ("patterns", OperandRole.PATTERN),
        ("bed", None),
    ],
)
def test_the_role_that_a_placeholder_tells(name: str, role: OperandRole | None) -> None:
    assert role_of(name) is role
