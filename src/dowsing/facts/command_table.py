"""The table of a command: its options, forms and subcommands, worked out once and kept in the
index.
"""

from __future__ import annotations

import re

from dowsing.facts.forms import Form, Notation, parse_form
from dowsing.model.document import Document, Option, Subcommand
from dowsing.model.packing import packed, unpacked
from dowsing.model.record import Record
from dowsing.model.source_name import SourceName

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any

#: `See "Time Options" in lamp-options(1) for details.`
_ONLY_POINTS = re.compile(r"\w[^.;]*?([\w.+-]+)\(\d\w*\)[^.;]*\.?", re.DOTALL)
MOST_TEXT = 420  # characters kept of what is said of an option
MOST_FORMS = 60


class CommandTable(Record):
    """What is known of writing a command. `label` names the text that says so: `tar(1)`.

    `notation` tells how its forms are to be read. `text` of an option is its beginning only.
    """

    name: str
    label: str
    source: str
    summary: str
    options: list[Option]
    lines: list[str]
    notation: Notation
    subcommands: list[Subcommand]

    @property
    def pointed_to(self) -> list[str]:
        """The names of the pages that texts of options do nothing but point to."""
        found = (points_to(option.text) for option in self.options)
        return list(dict.fromkeys(name for name in found if name and name != self.name))

    @property
    def forms(self) -> list[Form]:
        """The forms as trees."""
        return [parse_form(line, self.notation) for line in self.lines]


def points_to(text: str) -> str:
    """The name of the page that a text only sends to, "" if it says something itself."""
    if not text.startswith(("See ", "see ", "Refer to ")):
        return ""
    found = _ONLY_POINTS.fullmatch(text)
    return found[1] if found else ""


def make_table(document: Document) -> CommandTable:
    """The table of a document."""
    from dowsing.facts.form_notation import notation_of
    from dowsing.facts.subcommand_tree import subcommands_of

    # a shell's page tells of its builtins too; their options are not the shell's
    own = [option for option in document.options if "BUILTIN" not in option.section.upper()]
    options = own or document.options
    if document.source == SourceName.MANUAL:
        options = options + form_options(document, options)
    notation = notation_of(document, options)
    lines = document.synopsis[:MOST_FORMS]
    forms = [parse_form(line, notation) for line in lines]
    return CommandTable(
        document.name,
        document.label,
        document.source,
        document.summary,
        [option.changed(text=_beginning(option.text)) for option in options],
        lines,
        notation,
        subcommands_of(document, forms, notation),
    )


def form_options(document: Document, known: list[Option]) -> list[Option]:
    """The options that only the forms of a page show; numbers are left out where an option stands
    for any.
    """
    from dowsing.facts.form_options import options_of_forms

    any_number = any(
        flag in ("-#", "-NUM", "-<number>") for option in known for flag in option.flags
    )
    found = options_of_forms(document.synopsis, known)
    return [option for option in found if not (any_number and option.flags[0][1:].isdecimal())]


def _beginning(text: str) -> str:
    """The first sentences, as many as fit."""
    text = " ".join(text.split())
    if len(text) <= MOST_TEXT:
        return text
    cut = text[:MOST_TEXT]
    end = max(cut.rfind(". "), cut.rfind("; "))
    return cut[: end + 1] if end > MOST_TEXT // 2 else cut.rpartition(" ")[0] + " …"


def pack(table: CommandTable) -> bytes:
    """The table as bytes for the index."""
    value = [
        [table.name, table.label, table.source, table.summary],
        *_packed(table.options),
        table.lines,
        [
            table.notation.names,
            table.notation.literals,
            table.notation.valued,
            table.notation.replaced,
        ],
        [
            [one.name, one.text[:MOST_TEXT], one.form, _packed(one.options), one.aliases]
            for one in table.subcommands
        ],
    ]
    return packed(value)


def _packed(options: list[Option]) -> list[Any]:
    """The titles of sections that options have, the number of each one's, and the options."""
    rows = [
        [
            o.flags,
            o.argument,
            int(o.argument_optional),
            o.text,
            o.default,
            o.values,
            int(o.repeatable),
            o.bare,
            o.assumed,
            o.written,
        ]
        for o in options
    ]
    sections: list[str] = list(dict.fromkeys(option.section for option in options))
    return [sections, [sections.index(option.section) for option in options], rows]


def _unpacked(sections: list[str], places: list[int], rows: list[list[Any]]) -> list[Option]:
    """The options that `_packed` made lists of."""
    options = []
    for place, row in zip(places, rows, strict=True):
        flags, argument, optional, text, default, values, again, bare, assumed, written = row
        options.append(
            Option(
                flags,
                argument,
                bool(optional),
                text,
                sections[place],
                default,
                values,
                bool(again),
                bare,
                assumed,
                written,
            )
        )
    return options


def unpack(data: bytes) -> CommandTable:
    """The table that `pack` made bytes of."""
    heads, sections, places, rows, lines, notation, subcommands = unpacked(data)
    name, label, source, summary = heads
    return CommandTable(
        name,
        label,
        source,
        summary,
        _unpacked(sections, places, rows),
        lines,
        Notation(*notation),
        [
            Subcommand(word, text, form, _unpacked(*options), aliases)
            for word, text, form, options, aliases in subcommands
        ],
    )
