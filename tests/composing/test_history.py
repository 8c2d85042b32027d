"""Steps back and forward of a form."""

from __future__ import annotations

from dowsing.composing.field import Field, FieldKind
from dowsing.composing.history import MOST_STEPS, History
from dowsing.composing.sheet import Sheet


def make_sheet() -> tuple[Sheet, Field, Field]:
    sheet = Sheet()
    sheet.fields = [Field(key, FieldKind.OPERAND, key) for key in ("bed", "depth")]
    return sheet, sheet.fields[0], sheet.fields[1]


def test_back_and_forward() -> None:
    sheet, bed, depth = make_sheet()
    history = History(sheet)
    assert (history.undo(), history.redo()) == (None, None)
    sheet.put(bed, ["north"])
    history.note("bed")
    sheet.put(depth, ["3"])
    history.note("depth")
    assert (history.undo(), sheet.values(depth), sheet.values(bed)) == ("depth", [], ["north"])
    assert (history.undo(), sheet.values(bed)) == ("bed", [])
    assert (history.redo(), sheet.values(bed)) == ("bed", ["north"])
    sheet.put(bed, ["south"])
    history.note("bed")
    assert history.redo() is None
    assert (history.undo(), sheet.values(bed)) == ("bed", ["north"])


def test_letters_of_one_field_are_one_step() -> None:
    sheet, bed, depth = make_sheet()
    history = History(sheet)
    for text in ("n", "no", "nor"):
        sheet.put(bed, [text])
        history.note("bed", typed=True)
    history.rest()
    sheet.put(bed, ["norw"])
    history.note("bed", typed=True)
    sheet.put(depth, ["1"])
    history.note("depth", typed=True)
    assert (history.undo(), sheet.values(bed)) == ("depth", ["norw"])
    assert (history.undo(), sheet.values(bed)) == ("bed", ["nor"])
    assert (history.undo(), sheet.values(bed)) == ("bed", [])


def test_what_changes_nothing_is_no_step() -> None:
    sheet, bed, _ = make_sheet()
    history = History(sheet)
    history.note("bed")
    sheet.put(bed, ["x"])
    history.note("bed")
    history.note("bed")
    assert history.undo() == "bed" and history.undo() is None


def test_no_more_than_so_many_steps() -> None:
    sheet, bed, _ = make_sheet()
    history = History(sheet)
    for n in range(MOST_STEPS + 50):
        sheet.put(bed, [str(n)])
        history.note("bed")
    steps = 0
    while history.undo():
        steps += 1
    assert (steps, sheet.values(bed)) == (MOST_STEPS - 1, ["50"])
