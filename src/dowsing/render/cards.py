"""A card as lines."""

from __future__ import annotations

import re

from dowsing.model.markup import BOLD, CODE, ITALIC, ROMAN, clean_line, escaped
from dowsing.model.names import is_typed
from dowsing.render.cell_width import display_width
from dowsing.render.column_layout import named_rows
from dowsing.render.layout import sources_told, title_lines
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.typed import typed
from dowsing.render.wrap import first_sentence, groups_kept, unbroken, wrap

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.facts.c_function import CFunction
    from dowsing.model.document import Example, Option
    from dowsing.model.entry import Entry
    from dowsing.search.card import Card

INDENT = 3
MOST_FORM = 3
_ONLY_WITH = re.compile(r"This option (?:is only|only) (?:valid|allowed|usable|works|applies)\b")
WIDEST_NAME = 28  # cells of the left column


def card_lines(card: Card, width: int, program: str) -> list[str]:
    """The card, in about one screen."""
    return [
        *_head_lines(card, width),
        *_form_lines(card, width, program),
        *_subcommand_part(card, width),
        *_option_part(card, width),
        *_field_part(card, width),
        *example_lines(card.examples, width),
        *_neighbour_lines(card, width),
        "",
        *(f"{FAINT}{line}" for line in _next(card, width, program)),
    ]


def brief_lines(entries: list[Entry], width: int) -> list[str]:
    """What each entry is, in a line each."""
    return _rows([(one.label, one.summary or "(no summary)") for one in entries], width)


def _head_lines(card: Card, width: int) -> list[str]:
    """Name, summary and facts, and the sources if they are not the manual alone."""
    entry = card.entry
    more = " …" if len(entry.aliases) > 4 else ""
    facts = [
        entry.kind,
        f"part of {card.maker}" if card.maker else "" if entry.section else "no manual page",
        f"package {entry.package}" if entry.package else "",
        f"also {', '.join(entry.aliases[:4])}{more}" if entry.aliases else "",
    ]
    lines = title_lines(
        entry.label, clean_line(card.summary), [clean_line(f) for f in facts], width
    )
    notes = []
    if len(card.sources) > 1 or card.sources != ["manual"]:
        also = f" · also in: {sources_told(card.sources[1:])}" if card.sources[1:] else ""
        notes.append(f"from: {card.sources[0]}{also}")
    others = [one.label for one in card.others if one.name == entry.name and is_typed(one.section)]
    if card.maker and others:
        notes.append(f"The page {others[0]} is that of another {entry.name}.")
    if card.runs:
        runs = clean_line(card.runs)
        notes.append(f"What would run is {runs}; this page came with another installation.")
    return [*lines, *(f"{FAINT}{line}" for note in notes for line in wrap(note, width))]


def _form_lines(card: Card, width: int, program: str) -> list[str]:
    """The usual form, and where the others are."""
    if card.function is not None:
        return _function_lines(card.function, width)
    if not card.form:
        return []
    form = wrap(groups_kept(card.form), width, INDENT, 4)
    if len(form) > MOST_FORM:
        form = [*form[:MOST_FORM], " " * (INDENT + 4) + "…"]
    lines = ["", *form]
    if card.forms_in_all > 1:
        more = f"… {card.forms_in_all} forms: {program} read {typed(card.typed)} --part synopsis"
        lines.append(f"{FAINT}{' ' * INDENT}{more}")
    return lines


def _function_lines(function: CFunction, width: int) -> list[str]:
    """A function of C: how it is declared, linked and called, what it returns, its errors."""
    lines = ["", *(f"{' ' * INDENT}{CODE}{escaped(one)}{ROMAN}" for one in function.headers)]
    for one in function.prototypes:
        lines += wrap(escaped(one), width, INDENT, 4)
    if function.links:
        lines += ["", *wrap(f"Link with {' '.join(function.links)}", width, INDENT)]
    if function.returns:
        lines += ["", f"{HEADING}RETURNS"]
        lines += wrap(clean_line(_shortened(function.returns, 4 * width)), width, INDENT)
    if function.errors:
        lines += ["", f"{HEADING}ERRORS", *wrap(", ".join(function.errors), width, INDENT)]
    return lines


def _subcommand_part(card: Card, width: int) -> list[str]:
    """The subcommands that are used most, or the first, with what is said of them."""
    if not card.subcommands:
        return []
    rows = [(one.name, one.text) for one in card.subcommands]
    shown, in_all = len(rows), card.subcommands_in_all
    count = f" ({shown} of {in_all})" if in_all > shown else "" if in_all else " (used most)"
    return ["", f"{HEADING}SUBCOMMANDS{count}", *_rows(rows, width)]


def _option_part(card: Card, width: int) -> list[str]:
    if not card.options:
        return []
    shown, in_all = len(card.options), card.options_in_all
    count = f" ({shown} of {in_all})" if in_all > shown else ""
    return ["", f"{HEADING}OPTIONS{count}", *option_lines(card.options, width)]


def _field_part(card: Card, width: int) -> list[str]:
    """What a file of that format holds."""
    if not card.fields:
        return []
    shown, in_all = len(card.fields), card.fields_in_all
    count = f" ({shown} of {in_all})" if in_all > shown else ""
    rows = [(one.name, one.text) for one in card.fields]
    return ["", f"{HEADING}WHAT IT HOLDS{count}", *_rows(rows, width)]


def _rows(rows: list[tuple[str, str]], width: int) -> list[str]:
    """Names and the first sentence of what is said of each, in two columns."""
    told = [(name, _shortened(first_sentence(text), 2 * width)) for name, text in rows]
    return named_rows(told, width, INDENT, WIDEST_NAME)


def example_lines(examples: list[Example], width: int) -> list[str]:
    """Lines with what each is for, by number."""
    if not examples:
        return []
    lines = ["", f"{HEADING}EXAMPLES"]
    for number, example in enumerate(examples, 1):
        told = f"{number:>{INDENT - 2}}  {_shortened(example.task, 2 * width)}"
        if example.task:
            lines += wrap(told, width, 0, INDENT)
            told = ""
        lines.append(f"{told or ' ' * (INDENT + 2)}{CODE}{example.line}{ROMAN}")
    return lines


def _neighbour_lines(card: Card, width: int) -> list[str]:
    """The entries that the page refers to, and others of the same name."""
    lines = []
    if card.related:
        names = ", ".join(f"{r.name}({r.section})" for r in card.related)
        lines += ["", f"{HEADING}RELATED", *wrap(names, width, INDENT)]
    if card.others:
        lines += ["", f"{HEADING}ALSO NAMED {clean_line(card.entry.name)}"]
        for other in card.others[:4]:
            told = f"{BOLD}{other.label}{ROMAN}  {clean_line(other.summary)}"
            lines += wrap(told, width, INDENT, 4)
    return lines


def _next(card: Card, width: int, program: str) -> list[str]:
    name = typed(card.typed)
    steps = [f"{program} read {name}"]
    if card.options_in_all > len(card.options):
        steps.append(f"{program} options {name}")
    if card.examples:
        steps.append(f"{program} examples {name}")
    return wrap(f"From {card.page}. Next: " + unbroken(steps), width)


def flags_text(option: Option) -> str:
    """The spellings of an option with its placeholder, marked."""
    if option.written:
        pairs = zip(option.flags, option.written, strict=True)
        return ", ".join(
            f"{BOLD}{flag}{ROMAN}" + _behind(written[len(flag) :]) for flag, written in pairs
        )
    text = ", ".join(f"{BOLD}{flag}{ROMAN}" for flag in option.flags)
    if option.argument:
        argument = f"{ITALIC}{option.argument}{ROMAN}"
        glued = "=" if option.flags[-1].startswith("--") else " "
        text += f"[{glued.strip()}{argument}]" if option.argument_optional else f"{glued}{argument}"
    return text


def _behind(text: str) -> str:
    """What a tag prints behind a spelling, its placeholder in italics."""
    match = re.fullmatch(r"([ \[]*=?<?)(.*?)([>\]]*)", text)
    if not match or not match[2]:
        return text
    return f"{match[1]}{ITALIC}{match[2]}{ROMAN}{match[3]}"


def option_lines(options: list[Option], width: int, sentences: int = 1) -> list[str]:
    """Options in two columns: spellings, and the first sentence of what is said."""
    labels = [flags_text(option) for option in options]
    column = min(max((display_width(label) for label in labels), default=0), 30)
    indent = INDENT + column + 2
    lines = []
    for option, label in zip(options, labels, strict=True):
        text = clean_line(_shortened(_telling_sentence(option.text), 3 * width))
        size = display_width(label)
        if size <= column:
            body = wrap(text, width, indent)
            lines += [
                " " * INDENT + label + " " * (column + 2 - size) + body[0][indent:],
                *body[1:],
            ]
        else:
            lines += wrap(label, width, INDENT, 2)
            lines += wrap(text, width, indent) if text else []
    return lines


def _telling_sentence(text: str) -> str:
    """The first sentence that says what an option does, not with what it may stand."""
    first = first_sentence(text)
    rest = " ".join(text.split()).removeprefix(first).lstrip(" .;:")
    return first_sentence(rest) if rest and _ONLY_WITH.match(first) else first


def _shortened(text: str, most: int) -> str:
    return text if len(text) <= most else text[:most].rsplit(" ", 1)[0] + " …"
