"""Command trees: the words that a program takes as its commands, told from forms and from sections
that list them.
"""

from __future__ import annotations

import re

from dowsing.facts.forms import Element, ElementKind, Form, Notation
from dowsing.facts.walk import flatten, items, own_text
from dowsing.model.document import (
    Block,
    Document,
    Item,
    Literal,
    Option,
    Paragraph,
    Section,
    Subcommand,
)
from dowsing.model.markup import plain
from dowsing.model.record import Record
from dowsing.model.source_name import SourceName

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

_WORD = re.compile(r"[a-z0-9][\w.:+-]+")
_COMMANDS = re.compile(
    r"\b(?:SUB-?)?COMMANDS\b|\bSUB-?COMMAND\b|\bVERBS\b|\bACTIONS\b|\bOBJECTS?\b"
)
#: Sections on commands of another kind: what is typed while the program runs, or keys.
_OTHER_COMMANDS = re.compile(
    r"\b(?:BUILTIN|EDITING|INTERNAL|INTERACTIVE|EXAMPLE|RELATED|META|COMPOUND|SIMPLE|KEY)S?\b"
    r"|OPTION"
)
_PLACEHOLDER = re.compile(r"(?:sub-?)?(?:command|cmd|verb|action|object)s?\Z", re.IGNORECASE)
#: Words in small letters that are names of what is to be put in, in forms that mark nothing.
_NOUNS = frozenset(
    """
        file files filename directory dir path device mountpoint user username group interface
        hostname host label filesys filesystem name names key value string expression number size
        width height pattern arg args option options capabilities address pid url uri section
        page keyword program script text message input output source target destination archive
        package term word words pnmfile pgmfile ppmfile pbmfile pamfile
    """.split()
)
_HEADING = re.compile(r"[a-z][a-z0-9]*(?:-[a-z0-9]+)*")
_ANNOUNCED = re.compile(
    r"\bfollowing (?:sub)?commands (?:are|is) available\b"
    r"|\bcommands? (?:are|is) (?:as follows|listed)"
)
_ALIAS = re.compile(r"\(alias(?:es)?: ([a-z][\w-]*)\)")
_ALIAS_REMARK = re.compile(r"\s*\(alias(?:es)?: [a-z][\w-]*\)\s*")
MOST_WORDS = 400


class _Found:
    """What is told of one word: its text, form, options and other words, the first of each."""

    def __init__(self) -> None:
        self.text = self.form = ""
        self.options: list[Option] = []
        self.aliases: list[str] = []

    def add(self, told: _Told) -> None:
        """Take what is new of one place where the word is described."""
        self.text = self.text or told.text
        self.form = self.form or told.form
        self.options = self.options or told.options
        self.aliases = self.aliases or told.aliases


class _Told(Record):
    """A place where a word is described."""

    word: str
    form: str
    text: str
    options: list[Option]
    aliases: list[str]


def subcommands_of(document: Document, forms: list[Form], notation: Notation) -> list[Subcommand]:
    """The subcommands that a document lists, in order, each once, with what is said of them."""
    if document.source in (SourceName.USAGE, SourceName.BUILTIN_USAGE):
        return document.subcommands
    if document.section[:1] not in ("1", "8", "6", ""):
        return []
    literal, takes = first_words(forms, notation)
    if not literal and not takes:
        return []
    found: dict[str, _Found] = {}
    for told in _listed(document, literal, takes):
        found.setdefault(told.word, _Found()).add(told)
    for word in literal:
        found.setdefault(word, _Found())
    if len(found) == 1 and not any(one.text for one in found.values()):
        return []  # as likely a name that the forms do not mark
    return [
        Subcommand(word, one.text, one.form, one.options, one.aliases)
        for word, one in list(found.items())[:MOST_WORDS]
    ]


def _listed(document: Document, literal: list[str], takes: bool) -> Iterator[_Told]:
    """The words that items of lists or headings describe:
    in sections about commands any word, elsewhere only those of the forms, and those of a list that
    the text announces.
    """
    inside = False
    for section in document.sections:
        title = section.title.upper()
        about = takes and bool(_COMMANDS.search(title)) and not _OTHER_COMMANDS.search(title)
        about = about and not _mostly_dashed(document, section)
        if section.level > 1 and inside and _HEADING.fullmatch(section.title):
            yield _headed(section)
            continue
        inside = about or (inside and section.level > 1)
        announced = False
        for block in flatten(section.blocks):
            if isinstance(block, Paragraph):
                announced = announced or (takes and bool(_ANNOUNCED.search(plain(block.text))))
            if isinstance(block, Item) and not block.bullet:
                for word, form in _words_of(plain(block.tag)):
                    if inside or word in literal or (announced and "[-" in form):
                        yield _from_item(word, form, block)


def _from_item(word: str, form: str, item: Item) -> _Told:
    text = own_text(item.body).split("\n")[0].lstrip("-– ")
    aliases = (
        _ALIAS.findall(plain(item.tag) + text) if "alias" in item.tag or "alias" in text else []
    )
    own = [_made(tag, body, "") for tag, body in _flags_in(item.body)]
    return _Told(word, form, _ALIAS_REMARK.sub("", text), [one for one in own if one], aliases)


def _headed(section: Section) -> _Told:
    """A word that is a heading: its form is the first line set apart, its text the first
    paragraph that says more than that a form follows.
    """
    form = text = ""
    for block in flatten(section.blocks):
        if isinstance(block, Literal) and not form:
            form = " ".join(plain(block.text).split())
        if isinstance(block, Paragraph) and not text and not plain(block.text).endswith(":"):
            text = plain(block.text).split("\n")[0]
    form = form if form.split(" ")[0] == section.title else ""
    own = [_made(tag, body, section.title) for tag, body in _flags_in(section.blocks)]
    return _Told(section.title, form, text, [one for one in own if one], [])


def _flags_in(blocks: list[Block]) -> list[tuple[str, list[Block]]]:
    """The items whose tag is an option's."""
    return [
        (plain(item.tag).strip(), item.body)
        for item in items(blocks)
        if not item.bullet and plain(item.tag).strip()[:1] == "-"
    ]


def _made(tag: str, body: list[Block], title: str) -> Option | None:
    from dowsing.facts.option_table import make_option

    return make_option(tag, body, title)


def _mostly_dashed(document: Document, section: Section) -> bool:
    """Whether what a section calls commands are options, its subsections counted."""
    at = document.sections.index(section)
    tags = _tags(section)
    for below in document.sections[at + 1 :]:
        if below.level <= section.level:
            break
        tags += _tags(below)
    return sum(tag[:1] == "-" for tag in tags) * 2 > len(tags)


def _tags(section: Section) -> list[str]:
    """The tags of a section, those of lists that are set in left out where there are others."""
    direct = [block for block in section.blocks if isinstance(block, Item)]
    every = [block for block in flatten(section.blocks) if isinstance(block, Item)]
    return [plain(item.tag) for item in direct or every if not item.bullet]


def first_words(forms: list[Form], notation: Notation) -> tuple[list[str], bool]:
    """The literal words that stand first in forms of the name, and whether a command is wanted
    there.
    """
    defined = {form.defines: form.elements for form in forms if form.defines}
    parts = {part for name in notation.names for part in re.split(r"[-_]", name)}
    literal: dict[str, None] = {}
    takes = False
    for form in forms:
        if form.defines or not form.elements or form.elements[0].what != ElementKind.COMMAND:
            continue
        first = next(
            (
                e
                for e in form.elements
                if e.what not in (ElementKind.COMMAND, ElementKind.OPTION)
                and not _passed_over(e, parts)
            ),
            None,
        )
        if first is None:
            continue
        if first.what == ElementKind.GROUP and first.elements:  # `[command [flags]]`
            head = first.elements[0]
            first = head if _PLACEHOLDER.match(head.text.strip("<>[]")) else first
        name = first.text.strip("<>[]")
        if first.what == ElementKind.OPERAND and _PLACEHOLDER.match(name):
            takes = True
            for element in defined.get(name, []):
                _take_words(element, notation, literal)
        else:
            _take_words(first, notation, literal)
    own = {name.split("-")[-1] for name in notation.names if "-" in name}
    return [word for word in literal if word not in own], takes


def _passed_over(element: Element, parts: set[str]) -> bool:
    """What may stand before the command: options in brackets, and a word of the name after them."""
    head = element.elements[0] if element.elements else element
    if element.what == ElementKind.GROUP and _PLACEHOLDER.match(head.text.strip("<>[]")):
        return False
    if not element.required and element.what in (
        ElementKind.OPERAND,
        ElementKind.GROUP,
        ElementKind.CHOICE,
        ElementKind.OPTION,
    ):
        return not any(
            e.what == ElementKind.LITERAL
            for e in (element, *element.elements)
            if not element.required
        ) or (element.text.upper().startswith("OPTION"))
    return element.text in parts


def _take_words(element: Element, notation: Notation, literal: dict[str, None]) -> None:
    """The word that `element` begins with, or the words if it is a choice."""
    if element.what == ElementKind.CHOICE:
        for alternative in element.elements:
            first = (
                alternative.elements[0]
                if alternative.what == ElementKind.GROUP and alternative.elements
                else alternative
            )
            word = first.text
            if first.what == ElementKind.CHOICE:
                _take_words(first, notation, literal)
            elif (
                first.what in (ElementKind.LITERAL, ElementKind.OPERAND, ElementKind.COMMAND)
                and _is_word(word)
                and word not in notation.replaced
            ):
                literal.setdefault(word)
    elif element.what == ElementKind.GROUP and element.elements:
        _take_words(element.elements[0], notation, literal)
    elif element.what == ElementKind.LITERAL and _is_word(element.text):
        literal.setdefault(element.text)


def _is_word(word: str) -> bool:
    return (
        bool(_WORD.fullmatch(word))
        and word not in _NOUNS
        and not _PLACEHOLDER.match(word)
        and not word.isdecimal()
    )


def _words_of(tag: str) -> list[tuple[str, str]]:
    """The first word of each spelling in a tag, and the spelling: `start PATTERN...`, `install,
    remove (8)`.
    """
    words = []
    for spelling in re.split(r"[\n,]\s*", tag):
        match = _WORD.match(spelling.strip())
        if match and spelling.strip()[match.end() : match.end() + 1] in ("", " ", "["):
            words.append((match[0], spelling.strip() if "(" not in spelling else ""))
    return words
