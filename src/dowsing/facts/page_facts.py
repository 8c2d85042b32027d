"""What a first look at a page needs: the options that are used most, examples that say what they
are for, the fields of a file format.
"""

from __future__ import annotations

import re
from collections import Counter

from dowsing.facts.readable_form import readable_form
from dowsing.facts.walk import own_text, told_terms
from dowsing.model.document import (
    Document,
    Example,
    FormatField,
    Option,
    document_text,
)
from dowsing.model.page_facts import PageFacts

FEW_OPTIONS = 6
MOST_USUAL = 8  # options, where it is known which are used most
ENOUGH = 5  # of them: there, none is added that is not known to be used
BESIDE_SUBCOMMANDS = 3  # options that are used most, of a command that is used by its subcommands
FEW_EXAMPLES = 3
FEW_RELATED = 8
FEW_FIELDS = 10
MOST_SAID = 400  # characters of what is said of an option, a field or a subcommand
#: Characters of what an example is for: a page's longer ones are its running text, and are taken
#: only where it would have no example without them.
LONG_TASK = 80
_HOLDING = ("4", "5")  # beginnings of the sections whose pages tell what files hold


def page_facts(
    document: Document, usual: list[str], spoken: str = "", details: bool = False
) -> PageFacts:
    """The facts of a document. `usual`: options and subcommands that are used most, these first;
    where there are subcommands among them, few options are taken, and only such.

    `spoken`: how the name is typed, `git stash`; `details`: options with what is told of their
    values.
    """
    forms = document.synopsis
    words = [word for word in usual if word[:1].isalpha()]
    options = document.options if details else document.brief_options
    fields = document.format_fields if document.section[:1] in _HOLDING else []
    return PageFacts(
        label=document.label,
        source=document.source,
        summary=document.summary,
        form=readable_form(spoken or document.name, forms, usual),
        forms_in_all=len(forms),
        options=[_cut(one) for one in most_used(document, options, usual, bool(words))],
        options_in_all=len(options),
        examples=few_examples(document.examples),
        related=document.see_also[:FEW_RELATED],
        sections=[
            section.title for section in document.sections if section.level == 1 and section.title
        ],
        fields=[
            FormatField(one.name, one.text[:MOST_SAID])
            for one in first_or_spoken_of(document, fields)
        ],
        fields_in_all=len(fields),
        said=_said_of(document, words) if words else {},
    )


def _cut(option: Option) -> Option:
    return option if len(option.text) <= MOST_SAID else option.changed(text=option.text[:MOST_SAID])


def few_examples(examples: list[Example]) -> list[Example]:
    """The first examples that say in a few words what they are for."""
    short = [one for one in examples if 0 < len(one.task) <= LONG_TASK]
    return (short or examples)[:FEW_EXAMPLES]


def _said_of(document: Document, words: list[str]) -> dict[str, str]:
    """What the page says of each of these words, where it is the first of a term of a list."""
    found: dict[str, str] = {}
    for section in document.sections:
        for term, body in told_terms(section.blocks):
            first = (term.split() or [""])[0]
            if first in words and first not in found and (text := own_text(body)):
                found[first] = " ".join(text.split())[:MOST_SAID]
    return found


def first_or_spoken_of(document: Document, fields: list[FormatField]) -> list[FormatField]:
    """All fields, where they are few; else those that the page speaks of most, in its order."""
    if len(fields) <= FEW_FIELDS:
        return fields
    words = Counter(re.findall(r"[\w.-]+", document_text(document.sections)))

    said = [float(words[re.match(r"[\w.-]*", one.name)[0]]) for one in fields]  # type: ignore[index]
    return [fields[n] for n in _best_places(said, FEW_FIELDS)]


def _best_places(weights: list[float], count: int) -> list[int]:
    """The places of the largest weights, the first of equal ones, in order."""
    return sorted(sorted(range(len(weights)), key=lambda n: (-weights[n], n))[:count])


def most_used(
    document: Document, options: list[Option], usual: list[str], by_subcommands: bool = False
) -> list[Option]:
    """The options that are used most; where few are known to be, those that the page speaks of as
    well. What every program has, its help and its version, only where there is nothing else.

    `by_subcommands`: the command is used by its subcommands, its own options matter less.
    """
    options = _once(options)
    options = [one for one in options if not set(one.flags) <= _EVERYWHERE] or options
    by_flag: dict[str, Option] = {}
    for option in options:
        for flag in option.flags:
            by_flag.setdefault(flag, option)
    found = {id(by_flag[flag]): by_flag[flag] for flag in usual if flag in by_flag}
    if by_subcommands:
        return list(found.values())[:BESIDE_SUBCOMMANDS]
    count = MOST_USUAL if usual else FEW_OPTIONS
    if len(found) < (ENOUGH if usual else count):
        others = [option for option in options if id(option) not in found]
        more = most_spoken_of(document, others, count - len(found))
        found.update({id(option): option for option in more})
    return list(found.values())[:count]


def _once(options: list[Option]) -> list[Option]:
    """The options without those that one before has all spellings of, as parts of a page on
    subcommands list them.
    """
    kept: list[Option] = []
    seen: set[str] = set()
    for option in options:
        if not set(option.flags) <= seen:
            kept.append(option)
        seen.update(option.flags)
    return kept


def most_spoken_of(document: Document, options: list[Option], count: int) -> list[Option]:
    """Those of its options that the page itself mentions most often, examples counting thrice, in
    the page's order.
    """
    options = [option for option in options if option.text]
    if len(options) <= count:
        return options
    mentions = Counter(_FLAG.findall(document_text(document.sections)))
    for example in document.examples:
        for flag in _FLAG.findall(example.line):
            mentions[flag] += 3

    def weight(option: Option) -> float:
        total = sum(mentions[flag] for flag in option.flags)
        return (
            total / len(option.flags)
            + len(option.flags)
            - (4 if set(option.flags) & (_EVERYWHERE | {"-V"}) else 0)
        )

    return [options[n] for n in _best_places([weight(one) for one in options], count)]


_FLAG = re.compile(r"(?<![\w-])-{1,2}[A-Za-z0-9][\w-]*")
_EVERYWHERE = frozenset(("--help", "--version", "-help", "-version", "-?", "--usage"))
