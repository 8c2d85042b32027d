"""Forms in words: what each element is, whether it must be given, what it stands for; and what does
not go together.
"""

from __future__ import annotations

import re

from dowsing.commandline.model.exclusion import flag_of
from dowsing.commandline.model.form_facts import is_options_place
from dowsing.facts.forms import Element, ElementKind, Form
from dowsing.model.record import Record
from dowsing.model.told import Code, Told, told
from dowsing.model.value_kinds import value_kind

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.model.command import Command

_LETTERS = re.compile(r"-[A-Za-z0-9?]{2,}\Z")


#: Letters of options that tar and its like take without a dash: `{A|c|d}[GnS]`.
_BUNDLE = re.compile(r"\{[A-Za-z](?:\|[A-Za-z])*\}\[[A-Za-z]+\]\Z")


class PartNote(Code):
    """What is known of an element without a text that says it."""

    BUNDLE = "bundle"  # letters of options in one word
    KEYS = "keys"  # of KEY=VALUE, the keys


class FormPart(Record):
    """An element of a form with what is known of it. `what` is command, option, operand, literal,
    choice or group. `says` is what a text says of it, `note` what is known without one.
    """

    text: str
    what: ElementKind
    required: bool
    repeats: bool
    value_kind: str
    says: str
    elements: list[FormPart] = []  # noqa: RUF012 - a record is immutable
    note: Told | None = None


class Spelled(Record):
    """A form in words. `defines`: the placeholder that it spells out; `problem`: what could not be
    read of it. `twins`: forms that are the same with other spellings of their options.
    """

    line: str
    elements: list[FormPart]
    defines: str = ""
    problem: str = ""
    twins: list[str] = []  # noqa: RUF012 - a record is immutable


class Syntax(Record):
    """All forms of a name. `apart`: options of which one rules the others out; `own`: the forms
    (from 1) that an option belongs to, where it belongs to some only.
    """

    name: str
    page: str
    forms: list[Spelled]
    apart: list[list[str]]
    own: dict[str, list[int]]


def syntax_of(known: Command, name: str) -> Syntax:
    """The forms of a command in words."""
    every = [form for table in known.tables for form in table.forms]
    twins = _twins(known, every)
    forms = [form for form in every if form.line in twins]
    return Syntax(
        name,
        known.page,
        [
            Spelled(
                form.line,
                _parts(known, form.elements),
                form.defines,
                form.problem,
                twins[form.line],
            )
            for form in forms
        ],
        _apart(known, forms),
        _own(known, forms),
    )


def _twins(known: Command, forms: list[Form]) -> dict[str, list[str]]:
    """The forms, each with those after it that say the same with other spellings of options."""
    first: dict[str, str] = {}
    found: dict[str, list[str]] = {}
    for form in forms:
        key = f"{form.defines} {form.problem} {_signature(known, form.elements)}"
        if key not in first:
            first[key] = form.line
            found[form.line] = []
        elif form.line != first[key]:
            found[first[key]].append(form.line)
    return found


def _signature(known: Command, elements: list[Element]) -> str:
    """Elements with each option under one name, whatever its spelling."""
    found = []
    for element in elements:
        one = _spelled(known, element) or element
        name = one.text
        if one.what == ElementKind.OPTION:
            spelling = known.spelling(flag_of(one))
            inner = _signature(known, one.elements)
            name = f"{spelling.option.flags[0] if spelling else flag_of(one)} {inner}"
        elif one.elements:
            name = _signature(known, one.elements)
        found.append(f"{one.what}{one.required:d}{one.repeats:d}({name})")
    return " ".join(found)


def _parts(known: Command, elements: list[Element]) -> list[FormPart]:
    parts: list[FormPart] = []
    for element in elements:
        spelled = _spelled(known, element)
        if spelled is not None:
            parts.append(_part(known, spelled))
            continue
        letters = _letters(known, element)
        if letters:
            parts += letters
            continue
        parts.append(_part(known, element))
    return parts


def _spelled(known: Command, element: Element) -> Element | None:
    """The option whose spellings a choice consists of, as one element; None if they are several
    options.
    """
    if element.what != ElementKind.CHOICE or len(element.elements) < 2:
        return None
    first = element.elements[0]
    owners = []
    for one in element.elements:
        spelling = known.spelling(flag_of(one)) if one.what == ElementKind.OPTION else None
        owners.append(spelling.option if spelling else None)
    if owners[0] is None or any(owner is not owners[0] for owner in owners):
        return None
    text = ", ".join(one.text for one in element.elements)
    return Element(text, ElementKind.OPTION, element.required, element.repeats, first.elements)


def _letters(known: Command, element: Element) -> list[FormPart]:
    """Options of one letter that a form writes together, `[-abc]`, each for itself."""
    flag = element.text
    if (
        element.what != ElementKind.OPTION
        or not _LETTERS.match(flag)
        or known.spelling(flag) is not None
    ):
        return []
    found = [known.spelling("-" + letter) for letter in flag[1:]]
    if not all(found):
        return []
    return [
        FormPart("-" + letter, ElementKind.OPTION, element.required, False, "", one.option.text)
        for letter, one in zip(flag[1:], found, strict=True)
        if one is not None
    ]


def _part(known: Command, element: Element) -> FormPart:
    says = kind = ""
    if element.what == ElementKind.OPTION:
        spelling = known.spelling(flag_of(element))
        if spelling is not None:
            says = spelling.option.text
            if spelling.option.argument is not None:
                kind = value_kind(spelling.option.argument, says, spelling.option.values)
        elif element.elements:
            kind = value_kind(element.elements[0].text.strip("<>[]"))
    elif element.what == ElementKind.OPERAND:
        kind = value_kind(re.split(r"[\[,]", element.text.strip("<>[]"))[0] or element.text)
    elif element.what == ElementKind.COMMAND:
        says = known.summary
    elif element.what == ElementKind.LITERAL:
        says = known.subcommands.get(element.text, "")
        spelling = known.spelling(element.text)
        says = says or (spelling.option.text if spelling else "")
    return FormPart(
        element.text,
        element.what,
        element.required,
        element.repeats,
        kind,
        says,
        _parts(known, element.elements),
        _note(known, element),
    )


def _note(known: Command, element: Element) -> Told | None:
    """What is to be said of an operand that is no name of a value."""
    if element.what != ElementKind.OPERAND:
        return None
    if _BUNDLE.match(element.text):
        return told(PartNote.BUNDLE)
    if known.facts.keyed and not is_options_place(element.text):
        keys = [flag for flag in known.spellings if flag[:1].isalpha()]
        return told(PartNote.KEYS, ", ".join(keys))
    return None


def _apart(known: Command, forms: list[Form]) -> list[list[str]]:
    """The options of each choice that consists of options alone."""
    found: list[list[str]] = []

    def walk(elements: list[Element]) -> None:
        for element in elements:
            if (
                element.what == ElementKind.CHOICE
                and not element.repeats
                and _spelled(known, element) is None
            ):
                flags = [flag_of(one) for one in element.elements if one.what == ElementKind.OPTION]
                if len(flags) == len(element.elements) and len(flags) > 1 and flags not in found:
                    found.append(flags)
            if element.what != ElementKind.OPTION:
                walk(element.elements)

    for form in forms:
        walk(form.elements)
    return found


def _own(known: Command, forms: list[Form]) -> dict[str, list[int]]:
    """The forms that each option stands in, for options that do not stand in all of several."""
    whole = [form for form in forms if not form.defines]
    found: dict[str, list[int]] = {}
    for number, form in enumerate(whole, 1):
        for flag in _flags(known, form.elements):
            found.setdefault(flag, []).append(number)
    if len(whole) < 2:
        return {}
    return {flag: numbers for flag, numbers in found.items() if len(set(numbers)) < len(whole)}


def _flags(known: Command, elements: list[Element]) -> list[str]:
    flags: list[str] = []
    for element in elements:
        if element.what == ElementKind.OPTION:
            letters = _letters(known, element)
            flags += [letter.text for letter in letters] or [flag_of(element)]
        else:
            flags += _flags(known, element.elements)
    return list(dict.fromkeys(flags))
