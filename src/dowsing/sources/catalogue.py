"""All sources of documentation, in the order in which they are shown, and the best one for what
would run.
"""

from __future__ import annotations

from importlib import import_module

from dowsing.machine.many_in_one import maker_of
from dowsing.model.errors import Unreadable
from dowsing.model.source_name import UNASKED, SourceName
from dowsing.readers.usage.usage_kind import UsageKind
from dowsing.sources.source import Availability, Subject

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.machine.settings import Settings
    from dowsing.model.document import Document
    from dowsing.model.entry import Entry
    from dowsing.sources.source import Names

#: Source -> the module that knows it and the function there that says what it has.
_MODULES: dict[str, tuple[str, str]] = {
    SourceName.BUILTIN: ("builtin", "availability"),
    SourceName.SHELL_MANUAL: ("shell_manual", "availability"),
    SourceName.BUILTIN_USAGE: ("usage", "builtin_availability"),
    SourceName.MANUAL: ("manual", "availability"),
    SourceName.USAGE: ("usage", "availability"),
    SourceName.INFO: ("info", "availability"),
    SourceName.STANDARD: ("manual", "availability"),
    SourceName.PACKAGE: ("package", "availability"),
}
SOURCES = tuple(_MODULES)

#: What to read first, by what would run.
_FOR_SHELL = (
    SourceName.BUILTIN,
    SourceName.SHELL_MANUAL,
    SourceName.STANDARD,
    SourceName.MANUAL,
    SourceName.INFO,
    SourceName.BUILTIN_USAGE,
    SourceName.USAGE,
    SourceName.PACKAGE,
)
_FOR_COMMAND = (
    SourceName.MANUAL,
    SourceName.INFO,
    SourceName.USAGE,
    SourceName.STANDARD,
    SourceName.PACKAGE,
    SourceName.BUILTIN,
    SourceName.SHELL_MANUAL,
    SourceName.BUILTIN_USAGE,
)


def subject_of(
    name: str,
    entry: Entry | None,
    store: Names,
    settings: Settings,
    *,
    ask: bool,
    section: str = "",
) -> Subject:
    """What is looked up: the entry found, and all others of its name.

    A page that describes the name as one of several is an entry of the name too.
    """
    entries = [entry] if entry is not None else []
    for other in store.named(name):
        if all(other.label != known.label for known in entries):
            entries.append(other)
    return Subject(name, entries, store, settings, section=section, ask=ask)


def availability_of(subject: Subject, source: str) -> list[Availability]:
    """What one source has of the subject, or why it has nothing. Found out once for a subject."""
    if source not in subject.held:
        module_name, function = _MODULES[source]
        module = import_module(f"dowsing.sources.{module_name}")
        arguments = (subject, source) if module_name == "manual" else (subject,)
        subject.held[source] = getattr(module, function)(*arguments)
    return subject.held[source]


def read(subject: Subject, held: Availability) -> Document:
    """What a source holds, as a Document. Raises Unreadable."""
    module = import_module(f"dowsing.sources.{_MODULES[held.source][0]}")
    document: Document = module.read(subject, held)
    return document


def runs_in_shell(subject: Subject) -> bool:
    """Whether the user's shell takes the name itself, before any program of that name."""
    return subject.section in ("", "builtin") and subject.in_own_shell is not None


def order_for(subject: Subject) -> tuple[str, ...]:
    """The sources in the order in which they answer for what would run.

    A section that was asked for, or that the likeliest entry has, asks for a page.
    """
    if runs_in_shell(subject):
        return _FOR_SHELL
    if (
        subject.in_shells
        and not subject.executables
        and not any(e.section not in ("", "builtin") for e in subject.entries)
    ):
        return _FOR_SHELL  # another shell's builtin, and nothing else has the name
    if not subject.section and maker_of(subject.name, subject.settings.search_path):
        return (SourceName.USAGE, *(one for one in _FOR_COMMAND if one != SourceName.USAGE))
    return _FOR_COMMAND


def best(subject: Subject) -> Document:
    """The first source that has a text, as a Document. Raises Unreadable with the first reason if
    none has.
    """
    reasons: list[str] = []
    for source in order_for(subject):
        for held in availability_of(subject, source):
            if held.present:
                try:
                    return read(subject, held)
                except Unreadable as error:
                    reasons.append(f"{held.where}: {error}")
            elif held.note and source in (SourceName.USAGE, SourceName.BUILTIN_USAGE):
                reasons.append(held.note)
    raise Unreadable("; ".join(reasons[:2]) or "no source has a text for it")


def others(subject: Subject, taken: str) -> list[str]:
    """The sources besides `taken` that have a text, told without reading any.

    A program that was not asked and may not be asked now is `usage?`.
    """
    from dowsing.sources.manual import is_standard

    rows = subject.in_shells
    pages = [entry for entry in subject.entries if entry.section not in ("", "builtin")]
    found: dict[str, bool] = {
        SourceName.BUILTIN: any(row.text for row in rows),
        SourceName.SHELL_MANUAL: bool(rows) and _shell_page(subject),
        SourceName.MANUAL: any(not is_standard(entry) for entry in pages),
        SourceName.USAGE: False,
        SourceName.INFO: bool(subject.store.info_places(subject.name)),
        SourceName.STANDARD: any(is_standard(entry) for entry in pages),
        SourceName.PACKAGE: bool(availability_of(subject, SourceName.PACKAGE)[0].present),
    }
    if subject.executables:
        known = _usage_text(subject)
        found[SourceName.USAGE] = known is not False
        if known is None and taken != SourceName.USAGE:
            found = {
                UNASKED if source == SourceName.USAGE else source: there
                for source, there in found.items()
            }
    return [source for source, there in found.items() if there and source != taken]


def _shell_page(subject: Subject) -> bool:
    from dowsing.sources.shell_manual import may_have

    return may_have(subject, subject.in_shells[0])


def _usage_text(subject: Subject) -> bool | None:
    """Whether the program that would run has a usage text; None if it was not asked and may not be
    now.
    """
    from dowsing.machine.sandbox.refusal import refusal
    from dowsing.sources import usage_cache

    path, settings = subject.executables[0], subject.settings
    if not usage_cache.may_ask(settings) or refusal(path, settings.search_path):
        return False
    known = usage_cache.has_text(settings, usage_cache.key_of(path, usage_cache.word_for(path)))
    if known is None and subject.ask:
        from dowsing.sources.asking import ask_program

        usage = ask_program(path, subject.name, settings, True)
        return usage is not None and usage.kind == UsageKind.USAGE
    return known
