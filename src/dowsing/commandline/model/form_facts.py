"""What the forms of a command tell of its operands, and of the command that it carries."""

from __future__ import annotations

import re

from dowsing.facts.forms import Element, ElementKind, Form

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.model.command import Command

_COMMAND_PLACE = re.compile(r"(?:sub-?)?(?:command|cmd|verb|object)s?", re.IGNORECASE)


def is_command_place(name: str) -> bool:
    """Whether the name of an operand stands for a command: COMMAND, subcommand, verb."""
    return _COMMAND_PLACE.fullmatch(name) is not None


def carried_after(known: Command) -> int | None:
    """How many operands stand before the command that the forms show: `timeout DURATION COMMAND
    [ARG]...`.

    None if they show none, or if the page has options or words of its own that it calls commands.
    """
    if any(
        "command" in option.section.lower() for table in known.tables for option in table.options
    ):
        return None
    for form in known.forms:
        before = 0
        elements = [
            e for e in form.elements if e.what not in (ElementKind.COMMAND, ElementKind.OPTION)
        ]
        elements = [e for e in elements if not e.text.upper().startswith("OPTION")]
        for n, element in enumerate(elements):
            inner = [element, *element.elements]
            first = next((e for e in inner if e.what == ElementKind.OPERAND), None)
            name = first.text.strip("<>[]").lower() if first else ""
            follows = [*element.elements[1:], *elements[n + 1 :]]
            if name in ("command", "utility", "program", "cmd") and any(
                re.match(r"(?:.*[-_])?(?:args?|arguments?)\b", e.text.strip("<>[]").lower())
                for e in follows
            ):
                return None if known.subcommands else before
            if element.what == ElementKind.OPERAND and element.required and not element.repeats:
                before += 1
    return None


def wants_command(known: Command) -> bool:
    """Whether the forms demand a command."""
    for form in known.forms:
        first = next(
            (
                e
                for e in form.elements
                if e.what not in (ElementKind.COMMAND, ElementKind.OPTION) and e.required
            ),
            None,
        )
        if first is not None and is_command_place(first.text.strip("<>[]")):
            return True
        if first is not None and first.what == ElementKind.CHOICE and len(first.elements) > 3:
            return True
    return False


def distance(form: Form, used: set[str]) -> int:
    """How far a form is from a line with these options: 0 if its own are there, 1 if it has none, 2
    if they lack.
    """
    demanded = [
        re.split(r"[=\s\[]", e.text)[0]
        for e in form.elements
        if e.what == ElementKind.OPTION and e.required
    ]
    if not demanded:
        return 1
    return 0 if all(flag in used for flag in demanded) else 2


_OPTIONS = re.compile(r"options?\b|flags\b|switches\b|(?:option|position)_args\b", re.IGNORECASE)


def is_options_place(text: str) -> bool:
    """Whether a placeholder stands for options: `OPTIONS`, `[flags]`, `option_args`."""
    return _OPTIONS.search(text) is not None


def operands_in(elements: list[Element], required: bool = False) -> list[Element]:
    """The operands in their order, those in groups too; `required`: only those that a line cannot
    be without.
    """
    found: list[Element] = []
    for element in elements:
        if required and not element.required:
            continue
        if element.what == ElementKind.OPERAND:
            found.append(element)
        elif element.what == ElementKind.GROUP:
            found += operands_in(element.elements, required)
        elif element.what == ElementKind.CHOICE and element.elements:
            found += operands_in(element.elements[:1], required)
    return found
