"""The matrix of names and sources, its counts, and the options that one source leaves out."""

from __future__ import annotations

from collections.abc import Callable

from dowsing.comparing.coverage_scope import Scope
from dowsing.comparing.differences import Difference, differences
from dowsing.comparing.source_table import compare
from dowsing.index.store import Store
from dowsing.machine.settings import Settings
from dowsing.model.record import Record
from dowsing.model.source_name import SourceName
from dowsing.sources import catalogue
from dowsing.sources.source import Availability, Subject

#: Texts about a whole package are no documentation of one name.
OF_A_NAME = tuple(source for source in catalogue.SOURCES if source != SourceName.PACKAGE)
WORKERS = 4

Progress = Callable[[int, int], None]


class CoverageLine(Record):
    """A name with each source: True there, False not there, None not asked. `notes` say why not, by
    source.
    """

    name: str
    kind: str
    sources: dict[str, bool | None]
    notes: dict[str, str]


class Audit(Record):
    """The answer. `counts` are by source: how many names have it, have it not, were not asked.

    `undocumented` are names that no source about the name documents; `missing` the options by name.
    """

    scope: Scope
    sources: list[str]
    lines: list[CoverageLine]
    counts: dict[str, dict[str, int]]
    undocumented: list[str]
    missing: list[tuple[str, Difference]]


def audit(
    scope: Scope,
    store: Store,
    settings: Settings,
    *,
    ask: bool,
    options: bool,
    progress: Progress | None = None,
) -> Audit:
    """Look at every name of the scope. `ask`: programs are asked for their usage; `options`: texts
    are compared.
    """
    subjects = [_subject(name, scope, store, settings, ask) for name in scope.names]
    if ask:
        _ask_all(subjects, progress)
    lines: list[CoverageLine] = []
    missing: list[tuple[str, Difference]] = []
    for n, subject in enumerate(subjects, 1):
        lines.append(_line(subject))
        if options:
            compared = compare(subject, OF_A_NAME)
            missing += [
                (subject.name, one) for one in differences(compared) if one.what == "option"
            ]
        if progress:
            progress(n, len(subjects))
    counts = {
        source: {
            "present": sum(line.sources[source] is True for line in lines),
            "absent": sum(line.sources[source] is False for line in lines),
            "not_asked": sum(line.sources[source] is None for line in lines),
        }
        for source in catalogue.SOURCES
    }
    undocumented = [
        line.name for line in lines if not any(line.sources[source] for source in OF_A_NAME)
    ]
    return Audit(scope, list(catalogue.SOURCES), lines, counts, undocumented, missing)


def _subject(name: str, scope: Scope, store: Store, settings: Settings, ask: bool) -> Subject:
    entries = [
        entry
        for entry in store.named(name)
        if entry.name == name or name in (alias.split("(")[0] for alias in entry.aliases)
    ]
    return Subject(name, entries, store, settings, ask=ask, shell=scope.shell)


def _ask_all(subjects: list[Subject], progress: Progress | None) -> None:
    """Ask all programs, several at a time; the answers are kept and taken from there."""
    from concurrent.futures import ThreadPoolExecutor

    from dowsing.sources.usage import ask_builtin, ask_program

    # what the index knows is fetched first: its connection belongs to this thread
    asked = [(subject, subject.in_shells[:1], subject.executables[:1]) for subject in subjects]

    def ask(one: tuple[Subject, list, list]) -> None:  # type: ignore[type-arg]
        subject, rows, files = one
        for row in rows:
            ask_builtin(row, subject.settings, True)
        for file in files:
            ask_program(file, subject.name, subject.settings, True)

    pool = ThreadPoolExecutor(WORKERS)
    try:
        for n, _ in enumerate(pool.map(ask, asked), 1):
            if progress:
                progress(n, len(subjects))
    finally:
        pool.shutdown(cancel_futures=True)  # an interrupt does not wait for those not yet asked


def _line(subject: Subject) -> CoverageLine:
    sources: dict[str, bool | None] = {}
    notes: dict[str, str] = {}
    for source in catalogue.SOURCES:
        offered = [h for h in catalogue.availability_of(subject, source) if not _of_a_function(h)]
        present = [held.present for held in offered]
        sources[source] = True if True in present else None if None in present else False
        if not sources[source]:
            notes[source] = next((h.note for h in offered if h.note), "no page of a command")
    row = subject.in_shells[0] if subject.in_shells else None
    kind = (
        row.kind
        if row
        else "command"
        if subject.executables
        else next((e.kind for e in subject.entries), "")
    )
    return CoverageLine(subject.name, kind, sources, notes)


def _of_a_function(held: Availability) -> bool:
    """A page of section 2 or 3 has the name and is about something else."""
    return held.source in (SourceName.MANUAL, SourceName.STANDARD) and held.detail.rpartition("(")[
        2
    ][:1] not in (
        "1",
        "6",
        "8",
    )
