"""All sources of documentation, in the order in which they are shown, and the best one for what would run."""

from __future__ import annotations

from importlib import import_module

from dowsing.machine.settings import Settings
from dowsing.model.document import Document
from dowsing.model.entry import Entry
from dowsing.model.errors import Unreadable
from dowsing.sources.source import Holding, Subject

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.sources.source import Names

#: Source -> the module that knows it and the function there that says what it has.
_MODULES = {
    "builtin": ("builtin", "holdings"),
    "shell-manual": ("shell_manual", "holdings"),
    "builtin-usage": ("usage", "builtin_holdings"),
    "manual": ("manual", "holdings"),
    "usage": ("usage", "holdings"),
    "info": ("info", "holdings"),
    "standard": ("manual", "holdings"),
    "package": ("package", "holdings"),
}
SOURCES = tuple(_MODULES)

#: What to read first, by what would run.
_FOR_SHELL = ("builtin", "shell-manual", "standard", "manual", "info", "builtin-usage", "usage", "package")
_FOR_COMMAND = ("manual", "info", "usage", "standard", "package", "builtin", "shell-manual", "builtin-usage")


def subject_of(
    name: str, entry: Entry | None, store: Names, settings: Settings, *, ask: bool, section: str = ""
) -> Subject:
    """What is looked up: the entry found, and all others of its name.

    A page that describes the name as one of several is an entry of the name too.
    """
    entries = [entry] if entry is not None else []
    for other in store.named(name):
        if all(other.label != known.label for known in entries):
            entries.append(other)
    return Subject(name, entries, store, settings, section=section, ask=ask)


def holdings_of(subject: Subject, source: str) -> list[Holding]:
    """What one source has of the subject, or why it has nothing. Found out once for a subject."""
    if source not in subject.held:
        module_name, function = _MODULES[source]
        module = import_module(f"dowsing.sources.{module_name}")
        arguments = (subject, source) if module_name == "manual" else (subject,)
        subject.held[source] = getattr(module, function)(*arguments)
    return subject.held[source]


def read(subject: Subject, holding: Holding) -> Document:
    """What a source holds, as a Document. Raises Unreadable."""
    module = import_module(f"dowsing.sources.{_MODULES[holding.source][0]}")
    document: Document = module.read(subject, holding)
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
    return _FOR_COMMAND


def best(subject: Subject) -> Document:
    """The first source that has a text, as a Document. Raises Unreadable with the first reason if none has."""
    reasons: list[str] = []
    for source in order_for(subject):
        for holding in holdings_of(subject, source):
            if holding.present:
                try:
                    return read(subject, holding)
                except Unreadable as error:
                    reasons.append(f"{holding.where}: {error}")
            elif holding.note and source in ("usage", "builtin-usage"):
                reasons.append(holding.note)
    raise Unreadable("; ".join(reasons[:2]) or "no source has a text for it")


def others(subject: Subject, taken: str) -> list[str]:
    """The sources besides `taken` that have a text, told without reading any.

    A program that was not asked and may not be asked now is `usage?`.
    """
    from dowsing.sources.manual import is_standard

    rows = subject.in_shells
    pages = [entry for entry in subject.entries if entry.section not in ("", "builtin")]
    found = {
        "builtin": any(row.text for row in rows),
        "shell-manual": bool(rows) and _shell_page(subject),
        "manual": any(not is_standard(entry) for entry in pages),
        "usage": False,
        "info": bool(subject.store.info_places(subject.name)),
        "standard": any(is_standard(entry) for entry in pages),
        "package": bool(holdings_of(subject, "package")[0].present),
    }
    if subject.executables:
        known = _usage_text(subject)
        found["usage"] = known is not False
        if known is None and taken != "usage":
            found = {source if source != "usage" else "usage?": there for source, there in found.items()}
    return [source for source, there in found.items() if there and source != taken]


def _shell_page(subject: Subject) -> bool:
    from dowsing.sources.shell_manual import may_have

    return may_have(subject, subject.in_shells[0])


def _usage_text(subject: Subject) -> bool | None:
    """Whether the program that would run has a usage text; None if it was not asked and may not be now."""
    from dowsing.machine.sandbox.refusal import refusal
    from dowsing.sources import usage_cache

    path, settings = subject.executables[0], subject.settings
    if not usage_cache.may_ask(settings) or refusal(path, settings.search_path):
        return False
    known = usage_cache.has_text(settings, usage_cache.key_of(path, usage_cache.FLAG))
    if known is None and subject.ask:
        from dowsing.sources.usage import ask_program

        usage = ask_program(path, subject.name, settings, True)
        return usage is not None and usage.kind == "usage"
    return known
