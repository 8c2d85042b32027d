"""The terms of an entry: stems of its words, and in which fields each stands. What ranking weighs
is decided there.

A term is a stem, or a flag as it is written. The fields are bits of one byte, in two parts: the
heads (names, summary, verbs and nouns, tasks) and the text of the page (lead, options, headings).
"""

from __future__ import annotations

import re
from array import array
from functools import lru_cache

from dowsing.facts.option_table import tagged_flags
from dowsing.index.schema import (
    IN_ALIAS,
    IN_HEADING,
    IN_LABEL,
    IN_LEAD,
    IN_NAME,
    IN_OPTION,
    IN_SUMMARY,
    IN_TASK,
    IS_FLAG,
    IS_MEANING,
    WHOLE_NAME,
)
from dowsing.knowledge.lexicon import lexicon
from dowsing.knowledge.stems import stem, stems, telling_stems, words
from dowsing.knowledge.verbs_and_nouns import glued_verb
from dowsing.model.document import Block, Document, Indent, Paragraph
from dowsing.model.markup import plain

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable, Iterable

    from dowsing.index.writer import IndexWriter
    from dowsing.knowledge.recipes import Recipe

MOST_LEAD = 60  # words of the first paragraph
MOST_SAID = 160  # characters of what is said of an option
MOST_OPTIONS = 400

_FLAG = re.compile(r"(?<![\w<=/+-])[-+]{1,2}[A-Za-z0-9?#@][\w-]*")
_CAPITAL = re.compile(r"(?<=[a-z])(?=[A-Z])")
_USUAL_TITLES = frozenset(
    """
        name synopsis description options see also author authors bugs copyright examples example
        notes history files environment exit status return value errors conforming to versions
        reporting colophon diagnostics attributes standards caveats
    """.split()
)


def text_terms(page: Document, lead: str, options: list[str]) -> dict[str, int]:
    """In which fields of the page's text each of its terms stands. `lead` is what `lead_of` gives,
    `options` are lines of `option_lines`.
    """
    found: dict[str, int] = {}
    for term in stems(lead)[:MOST_LEAD]:
        found[term] = found.get(term, 0) | IN_LEAD
    for term, field in option_terms(options).items():
        found[term] = found.get(term, 0) | field
    for section in page.sections:
        title = words(section.title)
        if not _USUAL_TITLES.issuperset(title):
            for word in title:
                term = stem(word)
                found[term] = found.get(term, 0) | IN_HEADING
    return found


def task_terms(recipes: list[Recipe]) -> dict[str, set[str]]:
    """The terms that the wordings of recipes have, by command."""
    found: dict[str, set[str]] = {}
    for recipe in recipes:
        for text in (recipe.task, *recipe.also):
            found.setdefault(recipe.command, set()).update(telling_stems(text))
    return found


def with_tasks(terms: dict[str, int], tasks: Iterable[str] | None) -> dict[str, int]:
    """The terms of a page with those of the recipes of its command, which count as what is said of
    an option.
    """
    return {**terms, **{term: terms.get(term, 0) | IN_OPTION for term in tasks}} if tasks else terms


def flag_terms(options: list[str]) -> dict[str, int]:
    """The flags of lines of `option_lines`, and their words."""
    found: dict[str, int] = {}
    for line in options:
        flags = line.partition("\t")[0]
        for flag in flags.split(" "):
            found[flag] = IS_FLAG
        for term in stems(flags):
            found[term] = IS_FLAG
    return found


def option_terms(options: list[str]) -> dict[str, int]:
    """In which fields of options the terms of lines of `option_lines` stand: the flags themselves,
    their words, the text.
    """
    found = flag_terms(options)
    for line in options:
        for term in stems(line.partition("\t")[2]):
            found[term] = found.get(term, 0) | IN_OPTION
    return found


def lead_of(page: Document) -> str:
    """The first paragraph of the description, or of the first section that is neither names nor
    forms.
    """
    for section in page.sections:
        if not section.title.upper().startswith(("NAME", "SYNOPSIS", "LIBRARY")):
            text = first_paragraph(section.blocks)
            if text:
                return text
    return ""


def first_paragraph(blocks: list[Block]) -> str:
    """The bare text of the first paragraph in `blocks`, "" if there is none."""
    for block in blocks:
        if isinstance(block, Paragraph):
            return plain(block.text)
        if isinstance(block, Indent):
            text = first_paragraph(block.body)
            if text:
                return text
    return ""


def option_lines(page: Document) -> list[str]:
    """A line for each option: its flags, parted by blanks, a tab, and the beginning of what is said
    of it.
    """
    lines = []
    for tag, body, _ in tagged_flags(page)[:MOST_OPTIONS]:
        if "[no-]" in tag:
            tag = tag.replace("[no-]", "") + " " + tag.replace("[no-]", "no-")
        flags = dict.fromkeys(_FLAG.findall(tag))
        if flags:
            says = " ".join(first_paragraph(body)[: MOST_SAID + 40].split())
            if len(says) > MOST_SAID:
                says = says[:MOST_SAID].rpartition(" ")[0] + " …"
            lines.append(f"{' '.join(flags)}\t{says}")
    return lines


def label_words(section: str, package: str) -> list[str]:
    """The words of where an entry belongs: the language that the end of its section stands for, and
    its package without what all packages are called.
    """
    end = section[1:].casefold()
    language = _LANGUAGES.get(end, end if len(end) > 1 else "")
    parts = re.findall(r"[a-z]{3,}", package.casefold())
    own = [part for part in parts if part not in _OF_ALL_PACKAGES]
    return [language, *own] if language else own


_LANGUAGES = {"pm": "perl", "p": "perl", "am": "awk", "type": ""}
_OF_ALL_PACKAGES = frozenset(
    "bin doc docs common utils util tools tool data core base dev client server lib libs extra "
    "extras full minimal runtime source manpages man cli plugins plugin essential modules".split()
)


def head_terms(
    names: list[str],
    summary: str,
    verbs: Iterable[str],
    nouns: Iterable[str],
    tasks: Iterable[str],
    label: Iterable[str] = (),
) -> dict[str, int]:
    """In which fields of the heads each term stands. The first of `names` is the entry's own;
    `label`: words of where it belongs.
    """
    found: dict[str, int] = {}

    def add(term: str, field: int) -> None:
        found[term] = found.get(term, 0) | field

    for n, name in enumerate(names):
        parts = words(_CAPITAL.sub(" ", name))
        whole = words(name)
        glued = glued_verb(name)
        if glued:
            add(stem(glued), IN_ALIAS if n else IN_NAME)
        for part in {*parts, *whole}:
            add(
                stem(part),
                (IN_ALIAS if n else IN_NAME)
                | (WHOLE_NAME if len(whole) == 1 and part == whole[0] else 0),
            )
    for term, fields in summary_terms(summary, tuple(verbs), tuple(nouns)).items():
        add(term, fields)
    for task in tasks:
        for term in stems(task):
            add(term, IN_TASK)
    for word in label:
        add(stem(word), IN_LABEL)
    return found


@lru_cache(maxsize=20_000)
def summary_terms(summary: str, verbs: tuple[str, ...], nouns: tuple[str, ...]) -> dict[str, int]:
    """In which fields the terms of a summary stand that says these verbs and nouns. Not to be
    changed.
    """
    known = lexicon()
    found: dict[str, int] = {}
    for word in words(summary):
        meant = known.verb(word) in verbs or known.noun(word) in nouns
        term = stem(word)
        found[term] = found.get(term, 0) | IN_SUMMARY | (IS_MEANING if meant else 0)
    return found


class Postings:
    """Which entries have a term, and in which fields, collected for one part of many entries and
    written at once.
    """

    def __init__(self) -> None:
        self.lists: dict[str, tuple[array[int], bytearray]] = {}

    def add(self, number: int, terms: dict[str, int]) -> None:
        """The terms of one entry."""
        lists = self.lists
        for term, fields in terms.items():
            found = lists.get(term)
            if found is None:
                found = lists[term] = (array("I"), bytearray())
            found[0].append(number)
            found[1].append(fields)

    def write(self, writer: IndexWriter, part: int, share: Callable[[int], float]) -> None:
        """Write the lists. `share` says how much an entry counts as one when it is told how common
        a term is.
        """
        writer.insert_postings(
            part,
            (
                (term, sum(map(share, numbers)), numbers.tobytes(), bytes(fields))
                for term, (numbers, fields) in self.lists.items()
            ),
        )
