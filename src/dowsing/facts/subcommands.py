"""Subcommands of a usage text: terms under a heading that says they are commands, words that stand
below the placeholder of one, and words that its forms begin with.
"""

from __future__ import annotations

import re

from dowsing.facts.walk import flatten, items, own_text
from dowsing.model.document import Block, Item, Paragraph, Section, Subcommand
from dowsing.model.markup import plain
from dowsing.model.source_name import SourceName

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.model.document import Document

_COMMANDS = re.compile(
    r"\bdefined functions\b|\bcommands?\b|\bsubcommands?\b|\bverbs\b|\bactions\b", re.IGNORECASE
)
_TAKES_COMMAND = re.compile(r"[<\[{( ](?:SUB)?COMMANDS?\b|<command>|\bcommand\b", re.IGNORECASE)
_OTHER_LISTS = re.compile(
    r"\bpositionals?\b|\boptions?\b|\bflags\b|\barguments\b|\bvariables?\b|\bexamples?\b|\bformats?\b",
    re.IGNORECASE,
)
_WORD = re.compile(r"[a-z0-9][\w.:+-]*")
#: `install|i <name>`, `list, ls`, `remove (rm)`: a word with others for it.
_SPELLED = re.compile(
    rf"({_WORD.pattern})((?:\|{_WORD.pattern}|, {_WORD.pattern})*)"
    rf"(?: \(({_WORD.pattern}(?:, {_WORD.pattern})*)\))?"
    r"(?P<form>(?: .*)?)\Z"
)
#: What is said of other words at the end of a text: `[aliases: rm, del]`.
_ALIASES = re.compile(r"\s*[\[(]alias(?:es)?: ([\w.:+, -]+)[\])]\s*")
#: A word that a form begins with, behind the name and before anything else.
_IN_FORM = re.compile(r"\S+ ([a-z][\w-]*)(?= |\Z)")
#: `add, build, run`: names alone.
_NAMES = re.compile(rf"{_WORD.pattern}(?:,\s*{_WORD.pattern}){{3,}},?")
LEAST_FORMS = 2  # that begin with words of their own, so that these are commands
MOST_WORDS = 400


def read_subcommands(document: Document) -> list[Subcommand]:
    """The subcommands that the document lists, in order, each once; none for a manual page's
    text.
    """
    if document.source not in (SourceName.USAGE, SourceName.BUILTIN_USAGE):
        return []
    takes = any(_TAKES_COMMAND.search(form) for form in document.synopsis)
    found: dict[str, Subcommand] = {}
    for section in document.sections:
        for item in _listed(section, takes):
            one = _subcommand(item, document.name)
            if one is not None and not _is_known(one.name, found):
                found[one.name] = one
    for word in [*_in_rows(document), *_of_forms(document)]:
        if not _is_known(word, found):
            found[word] = Subcommand(word)
    return list(found.values())[:MOST_WORDS]


def _is_known(word: str, found: dict[str, Subcommand]) -> bool:
    """Whether a word, or one that is the same command, was found."""
    return word in found or any(word in one.aliases for one in found.values())


def _listed(section: Section, takes: bool) -> Iterator[Item]:
    """The items of a section that are commands."""
    top = [block for block in flatten(section.blocks) if isinstance(block, Item)]
    holders = [item for item in top if any(isinstance(one, Item) for one in item.body)]
    for item in holders:
        yield from items(item.body)
    if holders:
        return
    named = bool(_COMMANDS.search(section.title))
    under_other = bool(_OTHER_LISTS.search(section.title)) and not named
    if named or (not under_other and (takes or _announced(section.blocks))):
        yield from top


def _announced(blocks: list[Block]) -> bool:
    """Whether the first text of a section says that commands follow."""
    first = [block for block in blocks[:1] if not isinstance(block, Item)]
    return any(_COMMANDS.search(plain(block.text)) for block in first if hasattr(block, "text"))


def _subcommand(item: Item, program: str) -> Subcommand | None:
    """The command that an item lists, before which its program may stand; None if its tag is no
    word.
    """
    match = _SPELLED.match(plain(item.tag).removeprefix(f"{program} "))
    if match is None:
        return None
    text = own_text(item.body).replace("\n", " ")
    said = _ALIASES.search(text)
    others = ",".join([match[2].replace("|", ","), match[3] or "", said[1] if said else ""])
    aliases = [one.strip() for one in others.split(",") if one.strip() not in ("", match[1])]
    form = f"{match[1]}{match['form']}" if match["form"] else ""
    return Subcommand(match[1], _ALIASES.sub(" ", text).strip(), form, aliases=aliases)


def _in_rows(document: Document) -> list[str]:
    """The commands that a section about them gives as nothing but names."""
    rows = [
        block.text
        for section in document.sections
        if _COMMANDS.search(section.title)
        for block in flatten(section.blocks)
        if isinstance(block, Paragraph) and _NAMES.fullmatch(block.text)
    ]
    return [word for row in rows for word in re.split(r",\s*", row.rstrip(",")) if word]


def _of_forms(document: Document) -> list[str]:
    """The words that forms of the program begin with, where several do and what is to be put in is
    marked otherwise.
    """
    forms = document.synopsis
    if not any(mark in form for form in forms for mark in "<[") or len(forms) < LEAST_FORMS:
        return []
    words = [match[1] for form in forms if (match := _IN_FORM.match(form))]
    return list(dict.fromkeys(words)) if len(set(words)) >= LEAST_FORMS else []
