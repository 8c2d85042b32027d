"""What a first look at a page needs, worked out once and kept in the index."""

from __future__ import annotations

from dowsing.model.document import Example, FormatField, Option, Reference
from dowsing.model.packing import packed, unpacked
from dowsing.model.record import Record


class PageFacts(Record):
    """What a card shows of a page. `label`: the page, `tar(1)`; `form`: the way to write the
    command, of `forms_in_all`.

    `options` are those that are used most, or that the page speaks of most, `fields` what a file of
    the format holds, with the number of all; `examples` the first ones that say what they are for;
    `said`: of subcommands that are used most, what the page says of each in a list of its own.
    """

    label: str
    source: str
    summary: str
    form: str
    forms_in_all: int
    options: list[Option]
    options_in_all: int
    examples: list[Example] = []  # noqa: RUF012 - a record is immutable
    related: list[Reference] = []  # noqa: RUF012
    sections: list[str] = []  # noqa: RUF012
    fields: list[FormatField] = []  # noqa: RUF012
    fields_in_all: int = 0
    said: dict[str, str] = {}  # noqa: RUF012


def pack(facts: PageFacts) -> bytes:
    """The facts as bytes for the index; of options what a card shows of them."""
    options = [
        [o.flags, o.argument, int(o.argument_optional), o.text, o.written] for o in facts.options
    ]
    value = [
        *(facts.label, facts.source, facts.summary, facts.form, facts.forms_in_all),
        *(options, facts.options_in_all, [[one.task, one.line] for one in facts.examples]),
        [[one.name, one.section] for one in facts.related],
        facts.sections,
        [[one.name, one.text] for one in facts.fields],
        *(facts.fields_in_all, facts.said),
    ]
    return packed(value)


def unpack(data: bytes) -> PageFacts:
    """The facts that `pack` made bytes of."""
    label, source, summary, form, forms_in_all, options, options_in_all, *rest = unpacked(data)
    examples, related, sections, fields, fields_in_all, said = rest
    return PageFacts(
        label,
        source,
        summary,
        form,
        forms_in_all,
        [
            Option(flags, argument, bool(optional), text, written=written)
            for flags, argument, optional, text, written in options
        ],
        options_in_all,
        [Example(*one) for one in examples],
        [Reference(*one) for one in related],
        sections,
        [FormatField(*one) for one in fields],
        fields_in_all,
        said,
    )
