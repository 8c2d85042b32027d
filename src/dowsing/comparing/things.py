"""Which texts of a name are about the same thing: the builtin of the user's shell, the program that
would run, and what is another package's. Only texts of one thing contradict each other.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from enum import StrEnum
from functools import cached_property

from dowsing.comparing.said import Said
from dowsing.comparing.source_table import Compared, SourceRow, shell_of
from dowsing.model.document import Document, document_text
from dowsing.model.record import Record
from dowsing.model.source_name import SourceName
from dowsing.sources.info import manual_of
from dowsing.sources.source import Availability, Subject

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.readers.info.info_file import InfoFile

OF_SHELL = (SourceName.BUILTIN, SourceName.SHELL_MANUAL, SourceName.BUILTIN_USAGE)
OF_PROGRAM = (SourceName.MANUAL, SourceName.USAGE, SourceName.INFO)
_COMMANDS = ("1", "6", "8")
#: A usage text that says itself that it is not all.
_PARTIAL = re.compile(
    r"not the full help|for a complete list|--help[ =]+(?:all|<?category|advanced|full|-a\b)"
    r"|--help-all|help all|--full-help|more (?:options|help).{0,40}(?:--?help|-h\b)",
    re.IGNORECASE,
)


class ThingKind(StrEnum):
    """What several texts of one name may be about."""

    BUILTIN = "builtin"
    PROGRAM = "program"
    OTHER_PACKAGE = "other package"  # another package's program of the same name
    CHOSEN = "chosen"  # texts that were asked for by name, whatever they are about


class LeftOut(StrEnum):
    """Why a text is not compared."""

    SAME_TEXT = "same text"
    OTHER_SHELL = "other shell"
    OTHER_SECTION = "other section"
    STANDARD = "standard"
    PACKAGE = "package"
    OTHER_PACKAGE = "other package"


class Part(Record):
    """Another part of the manual that a text is cut from. `own` is the command that it is about,
    "" where it is about all.
    """

    title: str
    said: Said
    own: str


class Text:
    """One text that is compared, with the place it was cut from. `partial`: it says itself that it
    is not all.
    """

    def __init__(self, row: SourceRow, document: Document, parts: Callable[[], list[Part]]) -> None:
        self.source = row.source
        self.where = row.where
        self.document = document
        self._parts = parts
        self.said = Said(
            "\n".join([document_text(document.sections), document.summary, *document.synopsis])
        )
        self.partial = row.source == SourceName.USAGE and bool(_PARTIAL.search(self.said.text))

    @cached_property
    def parts(self) -> list[Part]:
        """The rest of the manual that the text is cut from, read when first asked for."""
        return self._parts()


class Thing(Record):
    """Texts about one thing. `name`: the shell, the program's path, or the other package. `asked`:
    it answers to `--help`. `version` is its package with the version, "" if not known.
    """

    kind: ThingKind
    name: str
    texts: list[Text]
    asked: bool = False
    version: str = ""


class Things(Record):
    """What is compared, and the texts that are not, with the reason."""

    things: list[Thing]
    left_out: list[tuple[SourceRow, LeftOut]]


def things_of(subject: Subject, compared: Compared, chosen: tuple[str, ...] = ()) -> Things:
    """Sort the texts of a name by what they are about. `chosen`: just these sources, as one."""
    if chosen:
        return _chosen(subject, compared, chosen)
    by_kind: dict[tuple[ThingKind, str], list[Text]] = {}
    left_out: list[tuple[SourceRow, LeftOut]] = []
    page = _own_page(subject, compared)
    for row, document in compared.pairs:
        reason = _why_not(subject, row, document, page)
        if reason is not None:
            left_out.append((row, reason))
        elif document is not None:
            by_kind.setdefault(_about(subject, row, document), []).append(
                _text(subject, row, document)
            )
    order = list(ThingKind)
    asked = {row.source for row in compared.rows if row.present}
    things = [
        Thing(kind, name, texts, SourceName.BUILTIN_USAGE in asked, _installed(subject, kind, name))
        for (kind, name), texts in by_kind.items()
    ]
    return Things(sorted(things, key=lambda thing: order.index(thing.kind)), left_out)


def worth_reading(subject: Subject) -> Callable[[Availability], bool]:
    """Which texts things_of() may compare: texts of packages and of other shells are only named."""
    own = subject.in_shells[0].shell if subject.in_shells else ""

    def read(held: Availability) -> bool:
        if held.source in (SourceName.PACKAGE, SourceName.STANDARD):
            return False
        return held.source not in OF_SHELL or shell_of(held) == own

    return read


def _chosen(subject: Subject, compared: Compared, chosen: tuple[str, ...]) -> Things:
    found: dict[str, Text] = {}
    for row, document in compared.pairs:
        if document is not None and row.source in chosen and row.source not in found:
            found[row.source] = _text(subject, row, document)
    return Things([Thing(ThingKind.CHOSEN, "", list(found.values()))], [])


def _own_page(subject: Subject, compared: Compared) -> Document | None:
    """The page that is compared: that of the section that was asked for; that of a command; if none
    has the name, the likeliest.
    """
    pages = [one for source, one in compared.documents if source == SourceName.MANUAL]
    if _is_no_command(subject.section):
        return next((page for page in pages if page.section == subject.section), None)
    commands = [page for page in pages if page.section[:1] in _COMMANDS]
    if subject.in_shells or subject.executables:
        return next(iter(commands), None)
    return next(iter(commands or pages), None)


def _is_no_command(section: str) -> bool:
    """Whether a section that was asked for is that of functions, files or the like."""
    return section not in ("", "builtin") and section[:1] not in _COMMANDS


def _why_not(
    subject: Subject, row: SourceRow, document: Document | None, page: Document | None
) -> LeftOut | None:
    if not row.present:
        return None
    if _is_no_command(subject.section) and document is not page:
        return LeftOut.OTHER_SECTION
    if row.source == SourceName.PACKAGE:
        return LeftOut.PACKAGE
    if row.source == SourceName.STANDARD:
        return LeftOut.STANDARD
    if row.source == SourceName.MANUAL and document is not page:
        return LeftOut.OTHER_SECTION
    if (
        row.source == SourceName.INFO
        and document is not None
        and not _of_command(subject, document)
    ):
        foreign = not related(subject.program_package or row.package, row.package)
        return LeftOut.OTHER_PACKAGE if foreign and subject.executables else None
    if row.source in OF_SHELL and row.about != subject.in_shells[0].shell:
        return LeftOut.OTHER_SHELL
    if row.same_as in OF_SHELL and row.source in OF_SHELL:
        return LeftOut.SAME_TEXT
    return None


def _of_command(subject: Subject, document: Document) -> bool:
    """Whether an Info manual has a node about the command, by its title."""
    from dowsing.readers.info.node_names import title_names

    info = manual_of(subject, document.path)
    return any(name == subject.name for name, _, _ in title_names(info))


def _about(subject: Subject, row: SourceRow, document: Document) -> tuple[ThingKind, str]:
    if row.source in OF_SHELL:
        return ThingKind.BUILTIN, subject.in_shells[0].shell
    if _is_no_command(subject.section):
        return ThingKind.PROGRAM, ""
    program = subject.executables[0] if subject.executables else ""
    owner = subject.program_package
    package = row.package or document.package
    if program and owner and package and not related(owner, package):
        return ThingKind.OTHER_PACKAGE, package
    return ThingKind.PROGRAM, program


def related(one: str, other: str) -> bool:
    """Whether two packages are parts of one: `vim` and `vim-common`, `python3.11-minimal`."""

    def base(name: str) -> str:
        return re.split(r"[-.:\d]", name.removeprefix("lib"))[0]

    return one == other or base(one) == base(other)


def _installed(subject: Subject, kind: ThingKind, name: str) -> str:
    """The package that a thing is of, with its version."""
    if kind == ThingKind.OTHER_PACKAGE:
        return _version(subject, name)
    if kind == ThingKind.PROGRAM and _is_no_command(subject.section):
        return ""
    if kind == ThingKind.PROGRAM:
        return _version(subject, subject.program_package)
    return _version(
        subject, next((e.package for e in subject.entries if e.section == "builtin"), None)
    )


def _text(subject: Subject, row: SourceRow, document: Document) -> Text:
    return Text(row, document, _rest(subject, row, document))


def _version(subject: Subject, package: str | None) -> str:
    """The package with the version that is installed."""
    if not package:
        return ""
    from dowsing.machine.packages import dpkg

    known = subject.store.memory.setdefault("versions of packages", {})
    if package not in known:
        known[package] = dpkg.package(package, subject.settings.package_lists).version
    return f"{package} {known[package]}".strip()


def _rest(subject: Subject, row: SourceRow, document: Document) -> Callable[[], list[Part]]:
    """How to get at the rest of the manual that the text was cut from."""
    if row.source == SourceName.INFO:
        return lambda: _other_nodes(subject, document)
    if row.source == SourceName.SHELL_MANUAL:
        return lambda: _general_sections(subject, document)
    return list


def _general_sections(subject: Subject, document: Document) -> list[Part]:
    """The sections of the shell's page that are about no single builtin."""
    from dowsing.sources.shell_manual import ABOUT_BUILTINS, shell_pages

    found = []
    for page in shell_pages(subject, subject.in_shells[0]):
        for section in page.sections:
            if not re.search(ABOUT_BUILTINS, section.title):
                said = Said(document_text([section]))
                found.append(Part(f"{page.label}, {section.title}", said, ""))
    return found


def _other_nodes(subject: Subject, document: Document) -> list[Part]:
    """The nodes of the Info manual besides those that the text is made of."""
    kept: dict[str, list[Part]] = subject.store.memory.setdefault("parts of Info manuals", {})
    if document.path not in kept:
        kept[document.path] = _all_nodes(manual_of(subject, document.path))
    own = {section.anchor for section in document.sections}
    return [
        part for part in kept[document.path] if part.title not in own and part.own != subject.name
    ]


def _all_nodes(info: InfoFile) -> list[Part]:
    """All nodes, each with the command that it is about by its title or by that of one above."""
    from dowsing.model.markup import clean
    from dowsing.readers.info.menus import below
    from dowsing.readers.info.node_names import title_names

    owners: dict[str, str] = {}
    for name, node, _ in title_names(info):
        for one, _ in below(info, info.nodes[node]):
            owners.setdefault(one.name, name)
    return [
        Part(node.name, Said(clean(node.text)), owners.get(node.name, ""))
        for node in info.nodes.values()
    ]
