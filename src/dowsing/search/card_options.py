"""The card of a name: what a first look at it needs."""

from __future__ import annotations

import re

from dowsing.model.document import Document, Example, Option, Reference, Subcommand, document_text
from dowsing.model.record import Record
from dowsing.model.source_name import SourceName

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.entry import Entry

FEW_OPTIONS = 6
MOST_USUAL = 8  # options, where it is known which are used most
FEW_SUBCOMMANDS = 6
FEW_EXAMPLES = 3
FEW_RELATED = 8


class Card(Record):
    """A name at a glance. `typed` is how the name is written to mean this entry, `summary` what the
    text says it is, `page` the text that says so; `form` the first way to write it.

    `options` are those that are used most, or that the page speaks of most, `options_in_all` their
    number; `subcommands` those that are used most, with what is said of them;
    `others` are the pages of the same name in other sections; `sources` the sources that have a
    text, the one that the card is from first.
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


def make_card(  # noqa: PLR0913 - each is a part of the card
    document: Document,
    entry: Entry,
    typed: str,
    others: list[Entry],
    sources: list[str],
    details: bool = True,
    recipes: list[Example] | None = None,
    usual: list[str] | None = None,
    subcommands: list[Subcommand] | None = None,
) -> Card:
    """The card of `entry`, read out of its document; the options with what is told of their values
    if `details`.

    `recipes` come before the examples of the document; `usual` are the spellings of options that
    are used most, these first; where there are `subcommands`, fewer options are shown.
    """
    forms = document.synopsis
    few = FEW_OPTIONS if subcommands or not usual else MOST_USUAL
    options = document.options if details else document.brief_options
    return Card(
        entry=entry,
        typed=typed,
        summary=(document.summary if document.source != SourceName.PACKAGE else "")
        or entry.summary,
        page=document.label,
        form=next(
            (form for form in forms if not form.startswith("#include")), forms[0] if forms else ""
        ),
        forms_in_all=len(forms),
        options=most_used(document, options, usual or [], few),
        options_in_all=len(options),
        subcommands=(subcommands or [])[:FEW_SUBCOMMANDS],
        examples=[*(recipes or ()), *document.examples][:FEW_EXAMPLES],
        related=document.see_also[:FEW_RELATED],
        sections=[
            section.title for section in document.sections if section.level == 1 and section.title
        ],
        others=others,
        sources=sources,
    )


def most_used(
    document: Document, options: list[Option], usual: list[str], count: int
) -> list[Option]:
    """The options that are used most; where that is not known, those that the page speaks of."""
    by_flag: dict[str, Option] = {}
    for option in options:
        for flag in option.flags:
            by_flag.setdefault(flag, option)
    found = {id(by_flag[flag]): by_flag[flag] for flag in usual if flag in by_flag}
    if len(found) < count:
        others = [option for option in options if id(option) not in found]
        more = most_spoken_of(document, others, count - len(found))
        found.update({id(option): option for option in more})
    return list(found.values())[:count]


def most_spoken_of(document: Document, options: list[Option], count: int) -> list[Option]:
    """Those of its options that the page itself mentions most often, examples counting thrice, in
    the page's order.
    """
    options = [option for option in options if option.text]
    if len(options) <= count:
        return options
    text = document_text(document.sections)
    mentions: dict[str, int] = {}
    for word in re.findall(r"(?<![\w-])-{1,2}[A-Za-z0-9][\w-]*", text):
        mentions[word] = mentions.get(word, 0) + 1
    for example in document.examples:
        for word in re.findall(r"(?<![\w-])-{1,2}[A-Za-z0-9][\w-]*", example.line):
            mentions[word] = mentions.get(word, 0) + 3

    def weight(option: Option) -> float:
        total = sum(mentions.get(flag, 0) for flag in option.flags)
        return (
            total / len(option.flags)
            + len(option.flags)
            - (4 if set(option.flags) & _EVERYWHERE else 0)
        )

    best = sorted(range(len(options)), key=lambda n: (-weight(options[n]), n))[:count]
    return [options[n] for n in sorted(best)]


_EVERYWHERE = frozenset(("--help", "--version", "-V", "-?", "--usage"))
