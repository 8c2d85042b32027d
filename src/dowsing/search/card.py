"""The card of a name: what a first look at it needs."""

from __future__ import annotations

from dowsing.model.entry import NO_PAGE_REMARK
from dowsing.model.record import Record
from dowsing.model.source_name import SourceName

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.facts.c_function import CFunction
    from dowsing.model.document import Example, FormatField, Option, Reference, Subcommand
    from dowsing.model.entry import Entry
    from dowsing.model.page_facts import PageFacts

FEW_OPTIONS = 6  # where there are subcommands
MOST_ROWS = 8  # of options and subcommands together, where it is known what is used most
FEW_SUBCOMMANDS = 6
FEW_EXAMPLES = 3


class Card(Record):
    """A name at a glance. `typed` is how the name is written to mean this entry, `summary` what the
    text says it is, `page` the text that says so; `form` the way to write it.

    `options` are those that are used most, or that the page speaks of most, `options_in_all` their
    number; `subcommands` those that are used most, or, where that is not known, the first of
    `subcommands_in_all` (else 0), with what is said of them; `fields` what a file
    of that format holds, `fields_in_all` their number; `others` are the pages of the same name in
    other sections; `sources` the sources that have a text, the one that the card is from first;
    `function` what is said of a function of C, None if it is none; `maker` the program of many in
    one that it is a part of, "" if it is one of its own; `runs` the program that would run where
    the page came with another installation, else "".
    """

    entry: Entry
    typed: str
    summary: str
    page: str
    form: str
    forms_in_all: int
    options: list[Option]
    options_in_all: int
    subcommands: list[Subcommand]
    examples: list[Example]
    related: list[Reference]
    sections: list[str]
    others: list[Entry]
    sources: list[str]
    fields: list[FormatField]
    fields_in_all: int
    subcommands_in_all: int = 0
    maker: str = ""
    runs: str = ""
    function: CFunction | None = None


class Beside(Record):
    """What is known of an entry besides its document.

    `others`: the pages of the same name in other sections; `sources`: those that have a text, that
    of the document first; `recipes`: our examples; `subcommands`: those that are used most, with
    what is said of each; `subcommands_in_all`: their number, where it is not known which these are.
    """

    others: list[Entry] = []  # noqa: RUF012 - a record is immutable
    sources: list[str] = []  # noqa: RUF012
    recipes: list[Example] = []  # noqa: RUF012
    subcommands: list[Subcommand] = []  # noqa: RUF012
    subcommands_in_all: int = 0


def make_card(
    facts: PageFacts, entry: Entry, typed: str, beside: Beside, whole: bool = False
) -> Card:
    """The card of `entry`, of the facts of its document and what is known besides. `whole`: with
    all subcommands.
    """
    of_package = facts.source == SourceName.PACKAGE
    lines = {one.line for one in beside.recipes}
    examples = [*beside.recipes, *(one for one in facts.examples if one.line not in lines)]
    options = facts.options[:FEW_OPTIONS] if beside.subcommands else facts.options
    few = FEW_SUBCOMMANDS if beside.subcommands_in_all else MOST_ROWS - len(options)
    return Card(
        entry=entry,
        typed=typed,
        summary=("" if of_package else facts.summary) or entry.summary.removesuffix(NO_PAGE_REMARK),
        page=facts.label,
        form=facts.form,
        forms_in_all=facts.forms_in_all,
        options=options,
        options_in_all=facts.options_in_all,
        subcommands=beside.subcommands if whole else beside.subcommands[:few],
        examples=examples[:FEW_EXAMPLES],
        related=facts.related,
        sections=facts.sections,
        others=beside.others,
        sources=beside.sources,
        fields=facts.fields,
        fields_in_all=facts.fields_in_all,
        subcommands_in_all=beside.subcommands_in_all,
    )
