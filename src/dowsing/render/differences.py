"""The differences of texts as lines: what is compared, contradictions, then what is in one text and
not in another, group by group.
"""

from __future__ import annotations

from dowsing.comparing.differences import Difference, DifferenceKind
from dowsing.comparing.things import LeftOut, Text, Thing, ThingKind, Things
from dowsing.model.markup import BOLD, ITALIC, ROMAN, clean_line
from dowsing.render.cell_width import display_width
from dowsing.render.clause_text import listed_words
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.wrap import first_sentence, wrap

INDENT = 3
WIDEST_ITEM = 30
MOST_ROWS = 40  # of one group; of more only the names are told
_CONTRADICTIONS = (DifferenceKind.MEANING, DifferenceKind.DEFAULT)
_ROWS = (DifferenceKind.OPTION, DifferenceKind.ARGUMENT)
_PLURAL = {
    DifferenceKind.SPELLING: "other spellings",
    DifferenceKind.ESCAPE: "escapes",
    DifferenceKind.VARIABLE: "variables",
    DifferenceKind.SETTING: "settings of the shell",
    DifferenceKind.FILE: "files",
    DifferenceKind.EXIT_STATUS: "exit statuses",
}
_OF_A_CONTRADICTION = {
    DifferenceKind.MEANING: "means two things",
    DifferenceKind.DEFAULT: "has two defaults",
}
_REASONS = {
    LeftOut.SAME_TEXT: "the same text as another",
    LeftOut.OTHER_SHELL: "another shell's",
    LeftOut.OTHER_SECTION: "another section",
    LeftOut.STANDARD: "a standard's page",
    LeftOut.PACKAGE: "texts about the whole package",
    LeftOut.OTHER_PACKAGE: "of another package",
}


def compared_lines(found: Things, width: int) -> list[str]:
    """Which texts are compared, by what they are about, and which are not."""
    lines: list[str] = []
    column = max((len(t.source) for thing in found.things for t in thing.texts), default=0)
    for thing in found.things:
        lines += ["", f"{HEADING}{_about(thing).upper()[:1]}{_about(thing)[1:]}"]
        for text in thing.texts:
            lines += wrap(f"{text.source:<{column}}  {_place(text)}", width, INDENT, column + 2)
    if found.left_out:
        reasons: dict[LeftOut, list[str]] = {}
        for row, reason in found.left_out:
            reasons.setdefault(reason, []).append(clean_line(row.where.split(" /")[0]))
        said = "; ".join(f"{', '.join(w)} ({_REASONS[r]})" for r, w in reasons.items())
        lines += ["", *(f"{FAINT}{line}" for line in wrap(f"Not compared: {said}", width, 0, 2))]
    return lines


def _about(thing: Thing) -> str:
    name = clean_line(thing.name)
    after = f" ({clean_line(thing.version)})" if thing.version else ""
    if thing.kind == ThingKind.BUILTIN:
        return f"the builtin of {name}{after}"
    if thing.kind == ThingKind.PROGRAM:
        return f"the program {name}{after}" if name else f"the texts{after}"
    if thing.kind == ThingKind.OTHER_PACKAGE:
        return f"what the package {name} has under that name{after}"
    return "the texts that were named"


def _short(thing: Thing) -> str:
    """The thing in a heading."""
    if thing.kind == ThingKind.BUILTIN:
        return f"the builtin of {clean_line(thing.name)}"
    if thing.kind == ThingKind.OTHER_PACKAGE:
        return f"the program of {clean_line(thing.name)}"
    return f"the program {clean_line(thing.name.rpartition('/')[2])}".rstrip()


def _place(text: Text) -> str:
    """Where the text is and what it was cut from."""
    place = clean_line(text.where)
    titles = [section.title for section in text.document.sections if section.title]
    if text.source == "shell-manual" and len(titles) > 1:
        place += f", the entry in {clean_line(titles[1])}"
    if text.document.cut:
        place += f"; {clean_line(text.document.cut)}"
    if text.partial:
        place += "; it says itself that it is not all"
    return place


def difference_lines(things: Things, found: list[Difference], width: int) -> list[str]:
    """The differences, contradictions first."""
    lines = _contradiction_lines(found, width)
    names = {thing.kind: _short(thing) for thing in things.things}
    owners = {text.source: thing for thing in things.things for text in thing.texts}
    groups: dict[str, list[Difference]] = {}
    for one in found:
        if one.not_said_by and one.between:
            first = names[owners[one.said_by[0]].kind]
            title = f"{first} has it, {names[ThingKind(one.between)]} has not"
            groups.setdefault(title, []).append(one)
        elif one.not_said_by:
            title = f"in {listed_words(one.said_by)}, not in {listed_words(one.not_said_by)}"
            groups.setdefault(title, []).append(one)
    for title, members in groups.items():
        lines += ["", HEADING + title[:1].upper() + title[1:]]
        lines += group_lines(members, width)
    lines += _aside_lines(found, width)
    if lines:
        return lines
    return ["", "   No text has an option or a fact that another leaves out."]


def _contradiction_lines(found: list[Difference], width: int) -> list[str]:
    chosen = [one for one in found if one.what in _CONTRADICTIONS]
    if not chosen:
        return []
    lines = ["", f"{HEADING}Contradictions"]
    for one in chosen:
        said = _OF_A_CONTRADICTION[one.what]
        lines += wrap(f"{BOLD}{clean_line(one.item)}{ROMAN} {said}", width, INDENT, 2)
        column = max(len(source) for source in one.otherwise)
        for source, text in one.otherwise.items():
            lines += wrap(f"{source:<{column}}  {clean_line(text)}", width, INDENT + 2, column + 2)
    return lines


def group_lines(members: list[Difference], width: int) -> list[str]:
    """Differences of one kind of texts: options a row each, all else by what it is."""
    rows = [one for one in members if one.what in _ROWS]
    if len(rows) <= MOST_ROWS:
        lines = _rows(rows, width)
    else:
        listed = ", ".join(clean_line(one.item).replace(" ", "\xa0") for one in rows)
        lines = wrap(f"{len(rows)} options: {listed}", width, INDENT, 2)
    for kind, plural in _PLURAL.items():
        named = [clean_line(one.item) for one in members if one.what == kind]
        if named:
            lines += wrap(f"{plural}: {', '.join(named)}", width, INDENT, 2)
    return lines


def _rows(rows: list[Difference], width: int) -> list[str]:
    """One option a row, with the beginning of what is said of it beside."""
    items = [_item(one) for one in rows]
    column = min(max((display_width(item) for item in items), default=0), WIDEST_ITEM)
    lines: list[str] = []
    for one, item in zip(rows, items, strict=True):
        size = display_width(item)
        text = first_sentence(clean_line(one.says)) if one.says else ""
        head = f"{BOLD}{item}{ROMAN}"
        if size > column:
            lines.append(" " * INDENT + head)
            lines += wrap(text, width, INDENT + column + 2) if text else []
            continue
        pad = "\xa0" * (column - size + 2)
        lines += wrap(f"{head}{pad}{text}".rstrip(), width, INDENT, column + 2)
    return lines


def _item(one: Difference) -> str:
    item = clean_line(one.item)
    return f"{item} (as an argument)" if one.what == DifferenceKind.ARGUMENT else item


def _aside_lines(found: list[Difference], width: int) -> list[str]:
    """What a text says in passing only, or in another part of its manual, by text and part."""
    asides: dict[str, dict[str, list[str]]] = {}
    for one in found:
        item = clean_line(one.item).replace(" ", "\xa0")
        for source, title in one.in_prose.items():
            asides.setdefault(f"{source}, in passing only", {}).setdefault(title, []).append(item)
        for source, title in one.elsewhere.items():
            asides.setdefault(f"{source}, in another part", {}).setdefault(title, []).append(item)
    lines: list[str] = []
    for source, places in asides.items():
        said = "; ".join(
            f"{', '.join(members)} ({clean_line(title)})" if title else ", ".join(members)
            for title, members in places.items()
        )
        lines += wrap(f"{ITALIC}{source}{ROMAN}: {said}", width, INDENT, 2)
    return ["", f"{HEADING}Told, but not in a list of options of its own", *lines] if lines else []
