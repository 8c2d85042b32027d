"""Facts read out of a Document's blocks, by the same code for every source."""

from __future__ import annotations

from importlib import import_module

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any

    from dowsing.model.document import Document

#: Fact -> the module here that reads it, and its function. Loaded when asked for: most look-ups
#: need few.
_READERS = {
    "synopsis": ("synopsis", "read_forms"),
    "options": ("option_table", "read_options"),
    "brief_options": ("option_table", "read_brief_options"),
    "examples": ("example_blocks", "read_examples"),
    "subcommands": ("subcommands", "read_subcommands"),
    "format_fields": ("format_fields", "read_format_fields"),
    "see_also": ("references", "read_see_also"),
}


def read_fact(document: Document, kind: str) -> list[Any]:
    """The facts of one kind (`synopsis`, `options`, `examples`, `subcommands`, `format_fields`,
    `see_also`) that the document states.
    """
    module, function = _READERS[kind]
    found: list[Any] = getattr(import_module(f"{__name__}.{module}"), function)(document)
    return found


def with_facts(document: Document) -> Document:
    """The document, from here on with the facts that its text states; each kind is read when it is
    first asked for.
    """
    document.read_fact = read_fact
    return document
