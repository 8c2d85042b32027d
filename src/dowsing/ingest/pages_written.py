"""What is written of pages, when an index is built and when it is refreshed."""

from __future__ import annotations

from dowsing.index.rows import FileRow
from dowsing.ingest.postings import SearchedEntry, referrals
from dowsing.knowledge.recipes import Recipe

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.writer import IndexWriter
    from dowsing.ingest.entries import MadeEntry
    from dowsing.ingest.page_reading import Reading
    from dowsing.ingest.scan import Scan

NOT_READ = "it was not read"


def insert_texts(writer: IndexWriter, readings: list[tuple[int, Reading]]) -> None:
    """Write what was read of pages that only look-ups of one entry need, by the numbers of entries:
    texts, options and tables, what cards show, what is defined.
    """
    writer.insert_bodies((number, one.text) for number, one in readings if one.text)
    writer.insert_options(
        (number, one.options, one.command or None)
        for number, one in readings
        if one.options or one.command
    )
    writer.insert_cards((number, one.card) for number, one in readings if one.card)
    writer.insert_defined(
        (term.name, number, term.tag, term.says) for number, one in readings for term in one.defined
    )


def searched_entries(
    entries: list[MadeEntry], readings: dict[int, Reading], priorities: dict[str, str]
) -> list[SearchedEntry]:
    """What is searched of entries; also of those that others stand before, for another order of the
    manual folders shows them. `readings`: by the numbers of entries; `priorities`: of packages.
    """
    shown = [entry for entry in entries if not entry.hidden]
    number_of = {
        f"{name}({section})": entry.number for entry in shown for name, section in entry.names
    }
    families = {entry.number: entry.family for entry in shown}
    references = {entry.number: readings[entry.number].references for entry in shown}
    referred = referrals(references, number_of, families)
    return [
        SearchedEntry(
            entry.number,
            [name for name, _ in entry.names],
            [f"{name}({section})" for name, section in entry.names],
            entry.summary,
            entry.family,
            priorities.get(entry.package or "", ""),
            readings[entry.number].verbs,
            readings[entry.number].nouns,
            referred[entry.number],
            entry.package or "",
        )
        for entry in entries
    ]


def examples_of_pages(entries: list[MadeEntry], readings: dict[int, Reading]) -> list[Recipe]:
    """What the pages give as examples, as recipes without slots."""
    return [
        Recipe(task, [], line, [], entry.name, where=f"{entry.name}({entry.section})")
        for entry in entries
        for task, line in readings[entry.number].examples
    ]


def entry_numbers(entries: list[MadeEntry], first: int) -> dict[int, int]:
    """The entry of each page of a scan, by the page's number, which those of entries are ahead of
    by `first`.
    """
    return {
        number - first: entry.number
        for entry in entries
        for number in (entry.number, *entry.referring)
    }


def file_rows(
    found: Scan,
    stamps: dict[str, tuple[int, int]],
    readings: dict[int, Reading],
    entries: dict[int, int],
) -> list[FileRow]:
    """Which files there are, what entry each belongs to and what is wrong with it. `entries`: by
    the numbers of pages.
    """
    rows = []
    for number, page in enumerate(found.pages):
        problem = readings[number].problem if number in readings else NOT_READ
        for file in page.files:
            rows.append(
                FileRow(file.path, *stamps[file.path], entries.get(number), problem or None)
            )
    return [*rows, *(FileRow(path, 0, 0, None, says) for path, says in found.problems.items())]
