"""Parts of a document: a section by its title, or what several sections together say."""

from __future__ import annotations

from dowsing.model.errors import UnknownPart
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import NoReturn

    from dowsing.model.document import Document, Example, Option, Section

#: Parts that every document may have, whatever its sections are called.
USUAL = ("summary", "synopsis", "options", "examples", "see-also")


class PagePart(Record):
    """What was asked for: sections, or options, or examples, or a few lines."""

    title: str
    sections: list[Section] = []  # noqa: RUF012 - a record is immutable
    options: list[Option] = []  # noqa: RUF012
    examples: list[Example] = []  # noqa: RUF012
    lines: list[str] = []  # noqa: RUF012


def choose_part(document: Document, wanted: str) -> PagePart:
    """The part of that title, unique beginning, or usual name. Raises UnknownPart."""
    key = " ".join(wanted.casefold().split())
    if not key:
        raise UnknownPart("has no part without a name; its sections are", _main_titles(document))
    if key == "summary":
        return PagePart("summary", lines=[f"{', '.join(document.names)} - {document.summary}"])
    titles = [section.title for section in document.sections if section.title]
    exact = _with_subsections(document, [t for t in titles if t.casefold() == key])
    if not exact:
        exact = _with_subsections(
            document, [s.title for s in document.sections if s.anchor.casefold() == key]
        )
    if exact:
        return PagePart(exact[0].title, sections=exact)
    return (
        _usual_part(document, key) or _named_in_part(document, titles, key, wanted)
    ) or _no_such_part(document, titles, key, wanted)


def _main_titles(document: Document) -> list[str]:
    return [s.title for s in document.sections if s.title and s.level == 1]


def _usual_part(document: Document, key: str) -> PagePart | None:
    """A part that every page may have, whatever its title there."""
    if key in ("synopsis", "syntax") and document.synopsis:
        return PagePart("synopsis", lines=document.synopsis)
    if key in ("option", "options") and document.options:
        return PagePart("options", options=document.options)
    if key in ("example", "examples"):
        if document.examples:
            return PagePart("examples", examples=document.examples)
        raise UnknownPart("gives no examples; its sections are", _main_titles(document))
    if key in ("see-also", "see also") and document.see_also:
        lines = [f"{reference.name}({reference.section})" for reference in document.see_also]
        return PagePart("see also", lines=[", ".join(lines)])
    return None


def _named_in_part(document: Document, titles: list[str], key: str, wanted: str) -> PagePart | None:
    """The only section whose title begins with the words, or else has them within."""
    for matches in (
        [t for t in titles if t.casefold().startswith(key)],
        [t for t in titles if key in t.casefold()],
    ):
        distinct = list(dict.fromkeys(t.casefold() for t in matches))
        if len(distinct) == 1:
            found = _with_subsections(document, matches)
            return PagePart(found[0].title, sections=found)
        if distinct:
            raise UnknownPart(
                f"has several parts that “{wanted}” may mean; say more of it", matches
            )
    return None


def _no_such_part(document: Document, titles: list[str], key: str, wanted: str) -> NoReturn:
    """Raises UnknownPart with the nearest titles, or all."""
    from dowsing.model.nearness import nearest_words

    known = {title.casefold(): title for title in (*USUAL, *titles)}
    near = nearest_words(key, list(known), least=0.7)
    if near:
        raise UnknownPart(
            f"has no part “{wanted[:60]}”; nearest parts", [known[title] for title in near]
        )
    raise UnknownPart(f"has no part “{wanted[:60]}”; its sections are", _main_titles(document))


def _with_subsections(document: Document, titles: list[str]) -> list[Section]:
    """The sections of these titles with the deeper ones that follow them."""
    found: list[Section] = []
    level = 0
    for section in document.sections:
        if section.title in titles and (not level or section.level <= level):
            level = section.level
            found.append(section)
        elif level and section.level > level:
            found.append(section)
        else:
            level = 0
    return found
