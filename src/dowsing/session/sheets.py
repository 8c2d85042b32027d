"""The sheet that a command line of ours asks for, what is told of its fields, and handing its line out."""

from __future__ import annotations

from dowsing.commandline.tables import Tables
from dowsing.composing.command_sheet import CommandSheet
from dowsing.composing.field import SWITCH, Field
from dowsing.composing.line_kinds import line_kinds, read_kind
from dowsing.composing.line_sheet import LineSheet
from dowsing.composing.sheet import Sheet
from dowsing.model.document import Document
from dowsing.model.errors import BadDescription, Failure, NotComposable
from dowsing.model.markup import BOLD, ITALIC, ROMAN, clean_line
from dowsing.render.layout import block_lines, section_lines
from dowsing.render.line_marks import FAINT
from dowsing.render.piece_text import KINDS
from dowsing.render.typed import typed
from dowsing.render.wrap import wrap
from dowsing.search.passages import passage_of, passages_with
from dowsing.session.session import Session
from dowsing.tasks.examples import as_shown, recipes_for


def command_sheet(session: Session, line: str, at: int | None = None) -> CommandSheet:
    """The sheet of the command at a place of a line. Raises Failure."""
    tables = Tables(session.store, session.settings, ask=True)
    words = line[:at].replace("|", " ").split()

    def uses(name: str) -> list[str]:
        return [as_shown(recipe) for recipe in recipes_for(session.store, [name])]

    try:
        return CommandSheet(line, tables, at, uses)
    except NotComposable as error:
        hint = ""
        if words and not session.store.named(words[0]):
            from dowsing.index.nearest_names import nearest_names

            near = nearest_names(session.store, words[0])
            if near:
                raise Failure(f"{error}; nearest names", nearest=near) from None
            hint = f"; search with: {session.program} find {typed(words[0][:40])}"
        raise Failure(f"{error}{hint}") from None


def line_sheet(session: Session, name: str, text: str) -> LineSheet:
    """The sheet of a structured line of that kind. Raises Failure."""
    kinds = line_kinds(session.settings)
    if name not in kinds:
        raise Failure(
            f"there is no kind of line named {clean_line(name)[:40]}; there are: {', '.join(kinds)}", status=2
        )
    try:
        return LineSheet(read_kind(kinds[name]), text)
    except BadDescription as error:
        raise Failure(str(error), status=3) from None


def facts_of(sheet: Sheet, field: Field) -> str:
    """What kind of value a field takes, its range, its default, and what it may not be without, in one line."""
    told = []
    if not field.takes:
        told.append("on or off" if not field.repeats else "on or off, may be repeated")
    elif field.strict and field.values:
        told.append("one of these")
    elif field.kind in KINDS:
        told.append(KINDS[field.kind])
    elif field.kind == "schedule":
        told.append("a number, *, a range, a list or a step")
    if len(field.limits) == 2:
        told.append(f"from {field.limits[0]} to {field.limits[1]}")
    if field.separator:
        told.append(
            "several are parted by "
            + {",": "commas", " ": "blanks", ":": "colons"}.get(field.separator, field.separator)
        )
    if field.repeats and field.takes:
        told.append("may be repeated")
    if field.default is not None and field.what != "form":
        told.append(f"{clean_line(field.default)} if it is not given")
    if field.bare:
        told.append("the value may be left out")
    if field.exists:
        told.append("must be there")
    out = sheet.ruled_out().get(field.key)
    if out:
        told.append(f"not together with {out}")
    return ", ".join(told)


def help_lines(sheet: Sheet, field: Field, document: Document | None, width: int) -> list[str]:
    """All that is told of a field: what it takes, then the whole text of the page on it."""
    head = f"{BOLD}{clean_line(field.label)}{ROMAN}"
    if field.placeholder and field.placeholder != field.label:
        head += f" {ITALIC}{clean_line(field.placeholder)}{ROMAN}"
    lines = wrap(head, width)
    facts = facts_of(sheet, field)
    if facts:
        lines += [f"{FAINT}{line}" for line in wrap(facts, width)]
    if field.values and field.what != "form":
        lines += wrap("values: " + clean_line(", ".join(field.values)), width)
    text = _told(field, document, width)
    if text:
        lines += ["", *text]
    if field.page:
        lines += ["", f"{FAINT}From {clean_line(field.page)}."]
    return lines


def _told(field: Field, document: Document | None, width: int) -> list[str]:
    if field.what == "form":
        return wrap(clean_line(field.says), width)
    if document is not None and field.flags:
        blocks = passage_of(document, field.flags)
        if blocks:
            return block_lines(blocks, width, 0)
    own = wrap(clean_line(field.says), width) if field.says else []
    if document is not None and field.what in ("operand", "column") and len(field.placeholder) > 1:
        around = section_lines(passages_with(document, field.placeholder), width)
        if around:
            return [*own, *([""] if own else []), *around]
    return own


def documents_of(session: Session, sheet: Sheet) -> Document | None:
    """The document that tells of the fields, None if it cannot be read."""
    from dowsing.search.lookup import look_up
    from dowsing.session.naming import open_found

    if not sheet.page:
        return None
    page = sheet.page.removesuffix("(builtin)")
    found = look_up(session.store, [page], session.settings, nearest=False)
    if found.entry is None:
        return None
    try:
        return open_found(session, found)
    except Failure:
        return None


def shown_value(sheet: Sheet, field: Field) -> str:
    """What a field holds, for people to read."""
    values = sheet.values(field)
    if not field.takes:
        return "yes" + (f" ×{len(values)}" if len(values) > 1 else "") if values else ""
    texts = ["yes" if value == SWITCH and field.bare else value for value in values]
    return clean_line(", ".join(texts))


def as_json(sheet: Sheet) -> dict[str, object]:
    """A sheet as plain values: the line as it stands, its fields, what is missing and wrong."""
    ruled_out = sheet.ruled_out()
    fields = [
        {
            "label": one.label, "what": one.what, "step": one.step, "flags": one.flags, "placeholder": one.placeholder,
            "kind": one.kind or None, "takes": one.takes, "required": one.required, "repeats": one.repeats,
            "values": one.values, "limits": one.limits, "default": one.default, "says": one.says, "page": one.page,
            "group": one.group, "holds": sheet.values(one), "ruled_out_by": ruled_out.get(one.key),
        }
        for one in sheet.fields
    ]  # fmt: skip
    return {
        "name": sheet.title,
        "line": sheet.line(),
        "summary": sheet.summary,
        "page": sheet.page,
        "steps": sheet.counts(),
        "fields": fields,
        "missing": [one.says for one in sheet.missing()],
        "faults": [{"field": one.field.label, "value": one.value, "says": one.says} for one in sheet.faults()],
    }
