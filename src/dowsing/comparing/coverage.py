"""The matrix of names and sources, its counts, and the lists that one can act on: what nobody
documents, what only the usage text does, what does not answer, where texts disagree.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator

from dowsing.comparing.coverage_scope import Scope
from dowsing.comparing.differences import Difference, DifferenceKind, differences
from dowsing.comparing.package_texts import package_names
from dowsing.comparing.source_table import compare
from dowsing.comparing.stale import PAGE_AND_USAGE, Stale, stale
from dowsing.comparing.things import Things, things_of, worth_reading
from dowsing.index.store import Store
from dowsing.machine.settings import Settings
from dowsing.model.record import Record
from dowsing.model.source_name import SourceName
from dowsing.readers.usage.usage_kind import UsageKind
from dowsing.sources import catalogue
from dowsing.sources.source import Availability, Subject

#: Texts about a whole package are no documentation of one name.
OF_A_NAME = tuple(source for source in catalogue.SOURCES if source != SourceName.PACKAGE)

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.entry import ShellRow

Progress = Callable[[int, int], None]


class CoverageLine(Record):
    """A name with each source: True there, False not there, None not asked. `notes` say why not, by
    source.
    """

    name: str
    kind: str
    sources: dict[str, bool | None]
    notes: dict[str, str]


class Unanswered(Record):
    """A command that printed no usage text, and what it did instead, in a line."""

    name: str
    says: str


class Audit(Record):
    """The answer. `counts` are by source: how many names have it, have it not, were not asked.

    `undocumented` are names that no source about the name documents, `only_usage` those that
    nothing but their own usage text does; `unanswered` what did not print one, by what it did
    (a UsageKind); `missing` the options by name; `stale` the pages that are not of the installed
    version.
    """

    scope: Scope
    sources: list[str]
    lines: list[CoverageLine]
    counts: dict[str, dict[str, int]]
    undocumented: list[str]
    only_usage: list[str]
    unanswered: dict[str, list[Unanswered]]
    missing: list[tuple[str, Difference]]
    stale: list[Stale] = []  # noqa: RUF012 - a record is immutable


def audit(  # noqa: PLR0913 - what is wanted is by keyword
    scope: Scope,
    store: Store,
    settings: Settings,
    *,
    ask: bool,
    options: bool,
    pages: bool = False,
    progress: Progress | None = None,
) -> Audit:
    """Look at every name of the scope. `ask`: programs are asked for their usage; `options`: texts
    are compared; `pages`: pages with the usage text of the installed program.
    """
    subjects = [_subject(name, scope, store, settings, ask) for name in scope.names]
    if ask:
        _ask_all(subjects, progress)
    lines: list[CoverageLine] = []
    missing: list[tuple[str, Difference]] = []
    old: list[Stale] = []
    unanswered: dict[str, list[Unanswered]] = {}
    for n, subject in enumerate(subjects, 1):
        lines.append(_line(subject))
        if options or pages:
            sources = OF_A_NAME if options else PAGE_AND_USAGE
            things = things_of(subject, compare(subject, sources, only=worth_reading(subject)))
            missing += [(subject.name, one) for one in _missing(things)] if options else []
            one = stale(subject, things) if pages else None
            old += [one] if one is not None and one.differs else []
        for kind, one_more in _unanswered(subject):
            unanswered.setdefault(kind, []).append(one_more)
        subject.held.clear()  # a machine has thousands of names
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
    return Audit(
        scope,
        list(catalogue.SOURCES),
        lines,
        counts,
        [line.name for line in lines if not _documented(line)],
        [line.name for line in lines if _documented(line) == [SourceName.USAGE]],
        unanswered,
        missing,
        old,
    )


def _documented(line: CoverageLine) -> list[str]:
    return [source for source in OF_A_NAME if line.sources[source]]


def _missing(things: Things) -> list[Difference]:
    """The options that texts of one thing do not all have, and where they contradict each other."""
    found = differences(things, facts=False)
    return [
        one
        for one in found
        if one.what != DifferenceKind.SPELLING
        and not one.between
        and (one.not_said_by or one.otherwise)
    ]


def _unanswered(subject: Subject) -> Iterator[tuple[str, Unanswered]]:
    """What the program did that was asked and printed no usage text, as it is kept: one at most."""
    from dowsing.sources.asking import ask_program

    for file in subject.executables[:1]:
        usage = ask_program(file, subject.name, subject.settings, False)
        if usage is not None and usage.kind != UsageKind.USAGE:
            yield usage.kind, Unanswered(subject.name, usage.says)


def _subject(name: str, scope: Scope, store: Store, settings: Settings, ask: bool) -> Subject:
    entries = [
        entry
        for entry in store.named(name)
        if entry.name == name or name in (alias.split("(")[0] for alias in entry.aliases)
    ]
    return Subject(name, entries, store, settings, ask=ask, shell=scope.shell)


def _ask_all(subjects: list[Subject], progress: Progress | None) -> None:
    """Ask all programs, several at a time; the answers are kept and taken from there.

    Nothing else is done meanwhile: what watches a program's output needs this process.
    """
    from dowsing.sources.asking import ask_builtin, ask_program
    from dowsing.sources.asking_many import at_once

    # what the index knows is fetched first: its connection belongs to this thread
    asked = [(subject, subject.in_shells[:1], subject.executables[:1]) for subject in subjects]

    def ask(one: tuple[Subject, list[ShellRow], list[str]]) -> None:
        subject, rows, files = one
        for row in rows:
            ask_builtin(row, subject.settings, True)
        for file in files:
            ask_program(file, subject.name, subject.settings, True)

    at_once(ask, asked, progress)


def _line(subject: Subject) -> CoverageLine:
    sources: dict[str, bool | None] = {}
    notes: dict[str, str] = {}
    for source in catalogue.SOURCES:
        offered = [h for h in catalogue.availability_of(subject, source) if not _of_a_function(h)]
        present = [_really(subject, held) for held in offered]
        sources[source] = True if True in present else None if None in present else False
        if not sources[source]:
            notes[source] = _why(source, offered)
    row = subject.in_shells[0] if subject.in_shells else None
    kind = (
        row.kind
        if row
        else "command"
        if subject.executables
        else next((e.kind for e in subject.entries), "")
    )
    return CoverageLine(subject.name, kind, sources, notes)


def _really(subject: Subject, held: Availability) -> bool | None:
    """Whether a source has a text of the name: texts of a package only if they name it."""
    if held.present and held.source == SourceName.PACKAGE:
        return package_names(subject, held)
    return held.present


def _why(source: str, offered: list[Availability]) -> str:
    if source == SourceName.PACKAGE and any(held.present for held in offered):
        return "the texts of its package do not name it"
    return next((held.note for held in offered if held.note), "no page of a command")


def _of_a_function(held: Availability) -> bool:
    """A page of section 2 or 3 has the name and is about something else."""
    return held.source in (SourceName.MANUAL, SourceName.STANDARD) and held.detail.rpartition("(")[
        2
    ][:1] not in (
        "1",
        "6",
        "8",
    )
