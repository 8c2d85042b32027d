"""What a page says of one function of C: its headers, prototypes, what it needs when linking, what
it returns and the errors it sets.
"""

from __future__ import annotations

import re

from dowsing.facts.walk import body_text
from dowsing.model.document import Block, Item, Paragraph
from dowsing.model.markup import plain
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.model.document import Document

_LINKS = re.compile(r"-l[\w+-]+")
_LIBC = "-lc"  # which is linked without being asked for
_ERROR = re.compile(r"\bE[A-Z][A-Z0-9]{2,}\b")


class CFunction(Record):
    """One function. `headers` are the lines that include them, `prototypes` those of this name,
    `links` options of the linker, `returns` the text about what it returns ("" where the page has
    none), `errors` the names of the values of errno that the page lists, in its order.
    """

    headers: list[str]
    prototypes: list[str]
    links: list[str]
    returns: str
    errors: list[str]


def c_function(document: Document, name: str) -> CFunction | None:
    """What the page says of the function of that name; None if it has no prototype of it."""
    called = re.compile(rf"(?<![\w:]){re.escape(name)}\s*\(")
    forms = document.synopsis
    prototypes = [form for form in forms if form.endswith(";") and called.search(form)]
    if not prototypes:
        return None
    library = body_text(list(_blocks(document, ("library",))))
    links = [one for one in dict.fromkeys(_LINKS.findall(library)) if one != _LIBC]
    errors = [code for tag in _tags(document, "errors") for code in _ERROR.findall(tag)]
    return CFunction(
        [form for form in forms if form.startswith("#include")],
        prototypes,
        links,
        _returns(document, name),
        list(dict.fromkeys(errors)),
    )


def _returns(document: Document, name: str) -> str:
    """What is said of what it returns: the entry of its name, else the first paragraph."""
    first = ""
    for block in _blocks(document, ("return value", "return values", "returns")):
        if isinstance(block, Item) and f"{name}()" in plain(block.tag):
            return " ".join(body_text(block.body).split())
        if isinstance(block, Paragraph) and not first:
            first = " ".join(plain(block.text).split())
    return first


def _tags(document: Document, title: str) -> Iterator[str]:
    for block in _blocks(document, (title,)):
        if isinstance(block, Item):
            yield plain(block.tag)


def _blocks(document: Document, titles: tuple[str, ...]) -> Iterator[Block]:
    for section in document.sections:
        if section.title.casefold() in titles:
            yield from section.blocks
