"""Which options a form rules out once others are there, and what it demands."""

from __future__ import annotations

import re

from dowsing.commandline.model.form_facts import operands_in
from dowsing.facts.forms import Element, ElementKind, Form

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.model.command import Command

_ANY_OPTIONS = re.compile(r"options?\b|flags\b|switches\b", re.IGNORECASE)


def flag_of(element: Element) -> str:
    """The spelling of an option in a form, without its argument."""
    match = re.match(r"[-+]{1,2}[\w?#@-]+", element.text)
    return match[0] if match else element.text


def excluded(known: Command, used: set[str]) -> set[str]:
    """The spellings that the forms rule out beside those that are used: other alternatives, other
    forms.
    """
    found: set[str] = set()
    forms = known.forms
    for form in forms:
        for choice in _choices(form.elements):
            alternatives = [_flags_in(one) for one in choice.elements]
            taken = [flags for flags in alternatives if flags & used]
            if len(taken) == 1 and all(alternatives):
                for flags in alternatives:
                    if flags is not taken[0]:
                        found |= flags - taken[0]
    if len(forms) > 1 and not any(_is_open(form) for form in forms):
        shown = [_flags_in_all(form.elements) for form in forms]
        fitting = [flags for flags in shown if used <= flags]
        if fitting and len(fitting) < len(shown):
            found |= set().union(*shown) - set().union(*fitting)
    for group in known.facts.apart:
        taken_here = _with_spellings(known, set(group)) & used
        if taken_here:
            found |= set(group) - _with_spellings(known, taken_here)
    return _with_spellings(known, found) - used


def _with_spellings(known: Command, flags: set[str]) -> set[str]:
    found: set[str] = set()
    for flag in flags:
        spelling = known.spelling(flag)
        found.update(spelling.option.flags if spelling else [flag])
    return found


def _choices(elements: list[Element]) -> list[Element]:
    found = []
    for element in elements:
        if element.what == ElementKind.CHOICE and not element.repeats:
            found.append(element)
        if element.what != ElementKind.OPTION:
            found += _choices(element.elements)
    return found


def _flags_in(element: Element) -> set[str]:
    """The options of an alternative; none if it has other words too."""
    if element.what == ElementKind.OPTION:
        return {flag_of(element)}
    if element.what == ElementKind.GROUP:
        return {flag_of(one) for one in element.elements if one.what == ElementKind.OPTION}
    return set()


def _flags_in_all(elements: list[Element]) -> set[str]:
    found: set[str] = set()
    for element in elements:
        if element.what == ElementKind.OPTION:
            flag = flag_of(element)
            # letters that stand together are several
            found |= (
                {f"-{letter}" for letter in flag[1:]} | {flag}
                if re.fullmatch(r"-\w{3,}", flag)
                else {flag}
            )
        else:
            found |= _flags_in_all(element.elements)
    return found


def _is_open(form: Form) -> bool:
    """Whether the form says only that there are options."""
    return any(_ANY_OPTIONS.search(element.text) for element in operands_in(form.elements)) or bool(
        form.defines
    )


def missing(known: Command, used: set[str], operands: int) -> list[str]:
    """What the forms demand that is not there yet: of the form that lacks least; [] if the line
    fulfils one.
    """
    best: list[str] | None = None
    for form in known.forms:
        if (
            form.defines
            or not form.elements
            or form.elements[0].what != ElementKind.COMMAND
            or form.problem
        ):
            continue
        lacks = lacking(known, form, used, operands)
        if best is None or len(lacks) < len(best):
            best = lacks
    return best or []


def lacking(known: Command, form: Form, used: set[str], operands: int) -> list[str]:
    """What one form demands that is not there yet, with so many operands given."""
    lacks: list[str] = []
    left = operands  # operands that no element has taken yet
    for element in form.elements:
        if not element.required or element.what == ElementKind.COMMAND:
            continue
        if element.what == ElementKind.GROUP:
            for inner in operands_in(element.elements):
                if inner.required and not left:
                    lacks.append(inner.text)
                left = max(0, left - 1)
        elif not _is_there(known, element, used):
            if left and _takes_operand(element):
                left -= 1
            elif not _names_itself(known, element):
                lacks.append(element.text)
    return lacks


def _is_there(known: Command, element: Element, used: set[str]) -> bool:
    """Whether an option, a choice or a word of a form needs nothing more to be there."""
    if element.what == ElementKind.OPTION:
        return _is_used(known, flag_of(element), used) or not element.text.strip("-")
    if element.what == ElementKind.CHOICE:
        flags = [flag for one in element.elements for flag in _flags_in(one)]
        return any(_is_used(known, flag, used) for flag in flags)
    return element.text == known.only or _ANY_OPTIONS.search(element.text) is not None


def _takes_operand(element: Element) -> bool:
    """Whether an operand may stand for the element."""
    words = (ElementKind.OPERAND, ElementKind.LITERAL)
    if element.what == ElementKind.CHOICE:
        return any(one.what in words or operands_in([one]) for one in element.elements)
    return element.what in words


def _names_itself(known: Command, element: Element) -> bool:
    """Whether a choice has the subcommand among its words whose forms these are."""
    return bool(known.only) and any(one.text == known.only for one in element.elements)


def _is_used(known: Command, flag: str, used: set[str]) -> bool:
    if flag in used:
        return True
    spelling = known.spelling(flag)
    return bool(spelling and used & set(spelling.option.flags))
