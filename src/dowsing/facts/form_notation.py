"""How a document writes its forms: which words are to be typed as they stand."""

from __future__ import annotations

import re

from dowsing.facts.forms import Notation
from dowsing.facts.synopsis import synopsis_blocks
from dowsing.model.markup import spans

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Document, Option

_WORD = re.compile(r"[A-Za-z0-9_+/:@][\w.+/:@-]*")


def notation_of(document: Document, options: list[Option]) -> Notation:
    """The names, the literal words and the options that take an argument, as the document shows
    them.

    Literal are words in bold type, unless they stand in italics elsewhere; where placeholders are
    in angle brackets or capitals, all plain words in small letters are.
    """
    own = document.name.split(" ")  # that of a subcommand has its program's before it
    names = [*own, *(name for name in document.names if name != document.name)]
    bold: set[str] = set()
    plain_words: set[str] = set()
    italic: set[str] = set()
    for text in _texts(document):
        for span in spans(text):
            words = _WORD.findall(re.sub(r"<[^<>]*>", " ", span.text))
            if span.style in ("bold", "code"):
                bold.update(words)
            elif span.style in ("italic", "bold italic"):
                italic.update(words)
            else:
                plain_words.update(words)
    if (
        document.name.split("-")[0] in italic
    ):  # the command itself is set so: it marks what is to be typed
        plain_words |= italic
        italic = set()
    forms = " ".join(document.synopsis)
    marked = bool(re.search(r"<[a-z][^<>]*>|(?<![\w-])[A-Z][A-Z_]{2,}(?![\w-])", forms))
    literals = bold - italic
    if marked:
        literals |= {word for word in plain_words if word == word.lower()} - italic
    literals = {
        word
        for word in literals
        if word not in ("file", "files", "filename", "arg", "args", "command")
    }
    valued = {
        flag
        for option in options
        for flag in option.flags
        if option.argument and not option.argument_optional
    }
    return Notation(names, sorted(literals), sorted(valued), sorted(italic - bold))


def _texts(document: Document) -> list[str]:
    from dowsing.model.document import block_texts

    texts: list[str] = []
    block_texts(synopsis_blocks(document), texts)
    return texts
