"""A document in the form of the JSON contract."""

from __future__ import annotations

from dowsing.render.page_text import plain_section

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Document

WIDE = 100_000  # paragraphs are one line each


def document_json(document: Document) -> dict[str, object]:
    """The document as plain data."""
    return {
        "name": document.name,
        "section": document.section,
        "names": document.names,
        "source": document.source,
        "path": document.path,
        "package": document.package,
        "language": document.language or "en",
        "summary": document.summary,
        "synopsis": document.synopsis,
        "sections": [
            {"title": section.title, "level": section.level, "text": plain_section(section, WIDE)}
            for section in document.sections
        ],
        "options": document.options,
        "examples": document.examples,
        "subcommands": document.subcommands,
        "see_also": document.see_also,
    }
