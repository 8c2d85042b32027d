"""Command trees: the words that a program takes as its commands, told from forms and from sections
that list them.
"""

from __future__ import annotations

import re

from dowsing.facts.forms import Element, ElementKind, Form, Notation
from dowsing.facts.walk import flatten, items, own_text
from dowsing.model.document import Document, Item, Section, Subcommand
from dowsing.model.markup import plain
from dowsing.model.source_name import SourceName

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

_WORD = re.compile(r"[a-z0-9][\w.:+-]+")
_COMMANDS = re.compile(r"\b(?:SUB-?)?COMMANDS\b|\bVERBS\b|\bACTIONS\b|\bOBJECTS?\b")
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
MOST_WORDS = 400


def subcommands_of(document: Document, forms: list[Form], notation: Notation) -> list[Subcommand]:
    """The subcommands that a document lists, in order, each once, with what is said of them."""
    if document.source in (SourceName.USAGE, SourceName.BUILTIN_USAGE):
        return document.subcommands
    if document.section[:1] not in ("1", "8", "6", ""):
        return []
    literal, takes = first_words(forms, notation)
    if not literal and not takes:
        return []
    found: dict[str, str] = {}
    written: dict[str, str] = {}
    for word, form, item in _listed(document, literal, takes):
        if not found.get(word):
            found[word] = own_text(item.body).split("\n")[0].lstrip("-– ")
            written[word] = form
    for word in literal:
        found.setdefault(word, "")
    if len(found) == 1 and not any(found.values()):
        return []  # as likely a name that the forms do not mark
    return [
        Subcommand(word, text, written.get(word, ""))
        for word, text in list(found.items())[:MOST_WORDS]
    ]


def _listed(document: Document, literal: list[str], takes: bool) -> Iterator[tuple[str, str, Item]]:
    """The words that items of lists describe, each with its form and the item:
    in sections about commands any word, elsewhere only those of the forms.
    """
    inside = False
    for section in document.sections:
        title = section.title.upper()
        about = takes and bool(_COMMANDS.search(title)) and not _OTHER_COMMANDS.search(title)
        about = about and not _mostly_dashed(document, section)
        inside = about or (inside and section.level > 1)
        for block in flatten(section.blocks):
            if isinstance(block, Item) and not block.bullet:
                for word, form in _words_of(plain(block.tag)):
                    if inside or word in literal:
                        yield word, form, block


def _mostly_dashed(document: Document, section: Section) -> bool:
    """Whether what a section calls commands are options, its subsections counted."""
    at = document.sections.index(section)
    tags = [plain(item.tag) for item in items(section.blocks)]
    for below in document.sections[at + 1 :]:
        if below.level <= section.level:
            break
        tags += [plain(item.tag) for item in items(below.blocks)]
    return sum(tag[:1] == "-" for tag in tags) * 2 > len(tags)


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
