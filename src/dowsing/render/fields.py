"""What is told of the fields of a form: what each takes, the text of its page, what it holds."""

from __future__ import annotations

from dowsing.composing.field import SCHEDULE, SWITCH, Field, FieldKind
from dowsing.model.markup import BOLD, CODE, ITALIC, ROMAN, clean_line
from dowsing.render.cell_width import display_width
from dowsing.render.expectations import brief
from dowsing.render.layout import block_lines, section_lines
from dowsing.render.line_marks import FAINT
from dowsing.render.piece_text import KINDS
from dowsing.render.wrap import wrap
from dowsing.search.passages import passage_of, passages_with, value_meanings

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.composing.sheet import Sheet
    from dowsing.model.document import Document

_FORMS = "A command may be written in several ways; what is asked for depends on the one chosen."
MOST_EXAMPLES = 2
_SEPARATORS = {",": "commas", " ": "blanks", ":": "colons"}


def field_says(field: Field) -> str:
    """What is said of a field: by its page, or by us where it stands for the forms of a command."""
    return _FORMS if field.what == FieldKind.FORM else field.says


def facts_of(sheet: Sheet, field: Field) -> str:
    """What kind of value a field takes, its range, its default, and what it may not be without, in
    one line.
    """
    told = [_taken(field)]
    if len(field.limits) == 2:
        told.append(f"from {field.limits[0]} to {field.limits[1]}")
    if field.separator:
        told.append(f"several are parted by {_SEPARATORS.get(field.separator, field.separator)}")
    if field.repeats and field.takes:
        told.append("may be repeated")
    if field.default is not None and field.what != FieldKind.FORM:
        told.append(f"{clean_line(field.default)} if it is not given")
    if field.bare:
        told.append("the value may be left out")
    if field.exists:
        told.append("must be there")
    out = sheet.ruled_out().get(field.key)
    if out:
        told.append(f"not together with {out}")
    return ", ".join(one for one in told if one)


def _taken(field: Field) -> str:
    """What is given for the field; empty if nothing is known of it."""
    if not field.takes:
        return "on or off" if not field.repeats else "on or off, may be repeated"
    if field.strict and field.values:
        return "one of these"
    if field.kind == SCHEDULE:
        return "a number, *, a range, a list or a step"
    return KINDS.get(field.kind, "")


def help_lines(sheet: Sheet, field: Field, document: Document | None, width: int) -> list[str]:
    """All that is told of a field: what it takes, then the whole text of the page on it."""
    blocks = passage_of(document, field.flags) if document is not None and field.flags else []
    head = f"{BOLD}{clean_line(field.label)}{ROMAN}"
    if field.placeholder and field.placeholder != field.label:
        head += f" {ITALIC}{clean_line(field.placeholder)}{ROMAN}"
    lines = [] if blocks else wrap(head, width)  # an entry begins with its spelling
    facts = facts_of(sheet, field)
    if facts:
        lines += [f"{FAINT}{line}" for line in wrap(facts, width)]
    if field.values:
        lines += _value_lines(sheet, field, document, width)
    text = block_lines(blocks, width, 0) if blocks else _told(field, document, width)
    if text:
        lines += ["", *text] if lines and not blocks else text
    examples = sheet.examples(field)[:MOST_EXAMPLES]
    if examples:
        lines += ["", f"{FAINT}For example", *(f"  {CODE}{clean_line(e)}{ROMAN}" for e in examples)]
    if field.page:
        lines += ["", f"{FAINT}From {clean_line(field.page)}."]
    return lines


def meanings_of(sheet: Sheet, field: Field, document: Document | None) -> dict[str, str]:
    """Each value that a field may have, with what it is for, "" where that is not known."""
    values = field.values or []
    listed = value_meanings(document, field.flags, values) if document and field.flags else {}
    return {
        value: clean_line(brief(sheet.means(field, value) or listed.get(value, "")))
        for value in values
    }


def _value_lines(sheet: Sheet, field: Field, document: Document | None, width: int) -> list[str]:
    """The values that there are, each with what it is for where that is known; the one that is held
    is marked.
    """
    values = field.values or []
    held = (sheet.values(field) or [field.default or ""])[0]
    told = meanings_of(sheet, field, document)
    if not any(told.values()) and field.what != FieldKind.FORM:
        shown = [f"{BOLD}{clean_line(v)}{ROMAN}" if v == held else clean_line(v) for v in values]
        return wrap("values: " + ", ".join(shown), width)
    column = min(max(display_width(clean_line(value)) for value in values), max(width // 2, 16))
    lines: list[str] = []
    for value, says in told.items():
        mark = "▸" if value == held else " "
        name = clean_line(value)
        pad = "\xa0" * max(column - display_width(name) + 2, 2)
        lines += wrap(
            f"{mark}\xa0{BOLD}{name}{ROMAN}{pad}{says}".rstrip("\xa0"), width, 0, column + 4
        )
    return lines


def _told(field: Field, document: Document | None, width: int) -> list[str]:
    if field.what == FieldKind.FORM:
        return wrap(clean_line(field_says(field)), width)
    own = wrap(clean_line(field_says(field)), width) if field_says(field) else []
    if (
        document is not None
        and field.what in (FieldKind.OPERAND, FieldKind.COLUMN)
        and len(field.placeholder) > 1
    ):
        around = section_lines(passages_with(document, field.placeholder), width)
        if around:
            return [*own, *([""] if own else []), *around]
    return own


def shown_value(sheet: Sheet, field: Field) -> str:
    """What a field holds, for people to read."""
    values = sheet.values(field)
    if not field.takes:
        return "yes" + (f" ×{len(values)}" if len(values) > 1 else "") if values else ""
    texts = ["yes" if value == SWITCH and field.bare else value for value in values]
    return clean_line(", ".join(texts))
