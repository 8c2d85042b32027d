"""What can be looked for in a text besides its options: variables, settings, files, exit statuses
and escapes, each with the title of the part that speaks of it.
"""

from __future__ import annotations

import re

from dowsing.model.document import Block, Document, Indent, Item, Literal, Paragraph, block_texts
from dowsing.model.markup import plain

_NAME = r"([A-Z][A-Z0-9]*(?:_[A-Z0-9]+)*)"
#: A name in capitals is a variable where it is written or spoken of as one.
_VARIABLE = re.compile(
    rf"\$\{{?{_NAME}\b|\b{_NAME}[’'”\"]? (?:shell |environment )?variable"
    rf"|\b{_NAME}[’'”\"]? in (?:your|the) environment"
    rf"|\bvariables? [`‘'“\"]?{_NAME}\b|\benvironment,? [`‘'“\"]?{_NAME}\b"
    rf"|\bvariables? [`‘'“\"]?[A-Z][A-Z0-9_]+[’'”\"]?,? (?:and|or) [`‘'“\"]?{_NAME}\b"
)
_LISTED = re.compile(rf"(?:^|\n){_NAME}\b")
_TAGS = re.compile(rf"{_NAME}(?:=.*)?\Z")
_SETTING = re.compile(
    r"\b(?:shell )?(?:variable|option|setting) [`‘'“\"]?([a-z]+(?:_[a-z]+)+)\b"
    r"|\b([a-z]+(?:_[a-z]+)+)[’'”\"]? (?:shell )?(?:variable|option|setting|is (?:not )?set)\b"
)
_FILE = re.compile(
    r"(?<![\w/.:~-])(~?/(?:etc|usr|var|dev|proc|sys|run|boot|lib|opt)(?:/[\w.@+-]+)+|~/\.[\w./-]+)"
)
_STATUS = re.compile(r"(?:^|\n)\s*(\d{1,3})\b")
_OF_EXIT = re.compile(r"exit (?:status|code|value)|return (?:value|code)", re.IGNORECASE)
_ESCAPE = re.compile(r"\\[A-MO-Za-z](?:H+|n+)?\b|%\(\w+\)[A-Za-z]\b|%[A-Za-z]\b")
#: In examples of everything: no fact about the command.
_NO_FILES = re.compile(r"/dev/null\Z|/usr/(?:local/)?(?:s?bin|include|games)(?:/|\Z)")
_LEAST_CAPITALS = 2
#: Words in capitals that are no variable's name.
_NO_VARIABLES = frozenset(
    "ASCII UTF UTC GNU POSIX NULL EOF NUL CR LF HTTP FTP SSL TLS URL URI XML HTML JSON SQL UNIX"
    " SIGTERM SIGINT SIGHUP SIGKILL FILE NAME OPTION OPTIONS NOTE".split()
)


def variables(document: Document) -> dict[str, str]:
    """Environment and shell variables, by name."""
    found: dict[str, str] = {}
    own_words = _placeholders(document)
    for title, text in section_texts(document):
        names = [name for groups in _VARIABLE.findall(text) for name in groups if name]
        if "ENVIRONMENT" in title.upper():
            names += _LISTED.findall(text)
        for name in names:
            if len(name) >= _LEAST_CAPITALS and name not in own_words | _NO_VARIABLES:
                found.setdefault(name, title)
    return found


def settings(document: Document) -> dict[str, str]:
    """Names of a shell's options and variables in small letters, such as `cdable_vars`."""
    found: dict[str, str] = {}
    for title, text in section_texts(document):
        for one, other in _SETTING.findall(text):
            found.setdefault(one or other, title)
    return found


def _placeholders(document: Document) -> set[str]:
    """Words that stand for a value in the forms and options: no variables."""
    words = set(re.findall(r"[A-Z][A-Z0-9_]+", " ".join(document.synopsis)))
    for option in document.brief_options:
        words |= set(re.findall(r"[A-Z][A-Z0-9_]+", (option.argument or "").upper()))
    return words


def files(document: Document) -> dict[str, str]:
    """Paths of files of the system, by path."""
    return {
        name.rstrip("."): title
        for title, text in reversed(section_texts(document))
        for name in _FILE.findall(text)
        if not _NO_FILES.match(name.rstrip("."))
    }


def statuses(document: Document) -> dict[str, str]:
    """Numbers that sections on the exit status begin their lines with."""
    found: dict[str, str] = {}
    for title, text in section_texts(document):
        if _OF_EXIT.search(title):
            found.update(dict.fromkeys(_STATUS.findall(text), title))
    return found


def escapes(document: Document) -> dict[str, str]:
    """Escapes and directives that the text explains, each at the head of what is said of it, as
    they are written: `\\n`, `\\uHHHH`, `%b`, `%(fmt)T`.
    """
    found: dict[str, str] = {}
    for section in document.sections:
        for tag in _heads(section.blocks):
            match = _ESCAPE.match(tag)
            if match:
                found.setdefault(match[0], section.title)
    return found


def _heads(blocks: list[Block]) -> list[str]:
    """The tags of items, and the beginnings of lines where a text is set in lines."""
    found: list[str] = []
    for block in blocks:
        if isinstance(block, Item):
            found += [line.strip(" '‘’`") for line in plain(block.tag).split("\n")]
            found += _heads(block.body)
        elif isinstance(block, Indent):
            found += _heads(block.body)
        elif isinstance(block, Paragraph | Literal):
            found += [line.strip(" '‘’`") for line in plain(block.text).split("\n")]
    return found


def section_texts(document: Document) -> list[tuple[str, str]]:
    """The title and the words of each section."""
    texts = []
    for section in document.sections:
        parts: list[str] = []
        block_texts(section.blocks, parts)
        texts.append((section.title, plain("\n".join(parts))))
    return texts
