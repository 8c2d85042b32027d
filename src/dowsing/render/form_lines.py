"""The forms of a name in words, as lines."""

from __future__ import annotations

import re

from dowsing.facts.forms import ElementKind
from dowsing.model.markup import BOLD, ITALIC, ROMAN, clean_line
from dowsing.render.cell_width import display_width
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.phrases import words as phrase
from dowsing.render.piece_text import KINDS
from dowsing.render.typed import typed
from dowsing.render.wrap import first_sentence, groups_kept, unbroken, wrap

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.reading.form_words import FormPart, Spelled, Syntax
    from dowsing.model.entry import Entry

INDENT = 3
WIDEST_LABEL = 30
MOST_SAID = 150
_ANY = re.compile(r"[<\[]?options?[>\]]?|[<\[]?flags?[>\]]?", re.IGNORECASE)


def syntax_lines(syntax: Syntax, entry: Entry, width: int, program: str) -> list[str]:
    """Each form with its elements, one a line; then what does not go together."""
    lines = [f"{BOLD}{entry.label}{ROMAN}  {clean_line(entry.summary)}"]
    told: set[str] = set()
    number = 0
    for form in syntax.forms:
        number += not form.defines
        title = f"WHERE {form.defines} IS" if form.defines else f"FORM {number}"
        lines += [
            "",
            f"{HEADING}{title}",
            *wrap(groups_kept(clean_line(form.line)), width, INDENT, 4),
        ]
        for twin in form.twins:
            lines += wrap(f"{FAINT}or {groups_kept(clean_line(twin))}{ROMAN}", width, INDENT, 4)
        lines.append("")
        if form.problem:
            lines += [
                f"{FAINT}{line}"
                for line in wrap(f"as far as it can be read: {form.problem}", width, INDENT)
            ]
        lines += _rows(form, told, width)
    lines += _together(syntax, width)
    name = typed(entry.name)
    steps = unbroken([f"{program} options {name}", f"{program} card {name}"])
    return [
        *lines,
        "",
        *(f"{FAINT}{line}" for line in wrap(f"From {syntax.page}. Next: {steps}", width)),
    ]


def _rows(form: Spelled, told: set[str], width: int) -> list[str]:
    rows: list[tuple[int, str, str]] = []

    def walk(parts: list[FormPart], depth: int, chosen: bool = False) -> None:
        for part in parts:
            if part.what in (ElementKind.GROUP, ElementKind.CHOICE):
                count = (
                    f"one of {len(part.elements)}"
                    if part.what == ElementKind.CHOICE
                    else "together"
                )
                rows.append((depth, f"{ITALIC}{count}{ROMAN}", _duty(part)))
                walk(part.elements, depth + 1, part.what == ElementKind.CHOICE)
            elif part.what != ElementKind.COMMAND or depth:
                rows.append((depth, _label(part), _says(part, told, chosen)))

    walk(form.elements, 0)
    if not rows:
        return [f"{' ' * INDENT}nothing else is given"]
    fitting = [display_width(label) + 2 * depth for depth, label, _ in rows]
    column = max([size for size in fitting if size <= WIDEST_LABEL] or [WIDEST_LABEL])
    indent = INDENT + column + 2
    lines: list[str] = []
    for depth, label, says in rows:
        left = " " * (INDENT + 2 * depth) + label
        body = wrap(says, width, indent)
        if display_width(left) + 2 <= indent:
            lines += [left + " " * (indent - display_width(left)) + body[0][indent:], *body[1:]]
        else:
            lines += [*wrap(label, width, INDENT + 2 * depth, 2), *body]
    return lines


def _label(part: FormPart) -> str:
    text = clean_line(part.text)
    return (
        f"{BOLD}{text}{ROMAN}"
        if part.what in (ElementKind.OPTION, ElementKind.LITERAL, ElementKind.COMMAND)
        else f"{ITALIC}{text}{ROMAN}"
    )


def _duty(part: FormPart) -> str:
    words = ["required" if part.required else "may be left out"]
    if part.repeats:
        words.append("may be repeated")
    return ", ".join(words)


def _says(part: FormPart, told: set[str], chosen: bool) -> str:
    """Whether it must be given, its kind, and what is said of it: at its first place in full.
    `chosen`: in a choice.
    """
    words = [] if chosen and part.required and not part.repeats else [_duty(part)]
    if _ANY.fullmatch(part.text):
        words.append("any of the options")
    kind = KINDS.get(part.value_kind, "")
    if kind and part.what == ElementKind.OPERAND:
        words.append(kind)
    if part.what == ElementKind.LITERAL:
        words.append("typed as it stands")
    if part.note is not None:
        words.append(phrase(part.note))
    text = ", ".join(words)
    says = clean_line(first_sentence(part.says))
    if says and part.text not in told:
        told.add(part.text)
        if len(says) > MOST_SAID:
            says = says[:MOST_SAID].rpartition(" ")[0] + " …"
        text = f"{says}  {FAINT}{text}{ROMAN}" if text else says
    return text


def _together(syntax: Syntax, width: int) -> list[str]:
    lines: list[str] = []
    if syntax.apart:
        lines += ["", f"{HEADING}ONE OR THE OTHER"]
        for flags in syntax.apart:
            lines += wrap(
                " or ".join(f"{BOLD}{clean_line(flag)}{ROMAN}" for flag in flags), width, INDENT, 2
            )
    by_form: dict[str, list[str]] = {}
    for flag, forms in syntax.own.items():
        by_form.setdefault(", ".join(map(str, dict.fromkeys(forms))), []).append(flag)
    if by_form:
        lines += ["", f"{HEADING}IN SOME FORMS ONLY"]
        for numbers, flags in by_form.items():
            listed = ", ".join(f"{BOLD}{clean_line(flag)}{ROMAN}" for flag in flags)
            lines += wrap(f"form {numbers}: {listed}", width, INDENT, 2)
    return lines
