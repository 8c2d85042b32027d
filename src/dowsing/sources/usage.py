"""The sources `usage` and `builtin-usage`: what a program, or a shell's builtin, prints for
`--help`.

Nothing is run unless the subject says that it may be, and then only what refusal.py and
flag_check.py let pass. What came back is kept by the identity of the program's file, so that it is
asked once.
"""

from __future__ import annotations

from dowsing.facts import with_facts
from dowsing.model.entry import EntryKind, ShellRow
from dowsing.model.errors import Unreadable
from dowsing.model.source_name import SourceName
from dowsing.readers.usage.usage_kind import UsageKind
from dowsing.sources.source import Availability, Subject, nothing
from dowsing.sources.usage_cache import FLAG, Usage, keep, kept, key_of, may_ask, word_for

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable

    from dowsing.machine.settings import Settings
    from dowsing.model.document import Document


def availability(subject: Subject) -> list[Availability]:
    """Of the first executable of that name on PATH."""
    files = subject.executables
    if not files:
        return nothing(SourceName.USAGE, "no program of that name on PATH")
    usage = ask_program(files[0], subject.name, subject.settings, subject.ask)
    return [_availability(SourceName.USAGE, f"{files[0]} {word_for(files[0])}", files[0], usage)]


def builtin_availability(subject: Subject) -> list[Availability]:
    """Of the builtin of the user's own shell, else of the first shell that has one."""
    rows = subject.in_shells[:1]
    if not rows:
        return nothing(SourceName.BUILTIN_USAGE, "no shell here has a builtin of that name")
    usage = ask_builtin(rows[0], subject.settings, subject.ask)
    return [
        _availability(
            SourceName.BUILTIN_USAGE, f"{rows[0].shell}: {subject.name} {FLAG}", rows[0].path, usage
        )
    ]


def _availability(source: str, where: str, path: str, usage: Usage | None) -> Availability:
    if usage is None:
        return Availability(source, None, where=where, path=path, note="not asked")
    return Availability(
        source, usage.kind == UsageKind.USAGE, where=where, path=path, note=usage.says
    )


def read(subject: Subject, held: Availability) -> Document:
    """The usage text as a Document. Raises Unreadable with what came back instead."""
    row = subject.in_shells[0] if subject.in_shells else None
    if held.source == SourceName.BUILTIN_USAGE:
        usage = ask_builtin(row, subject.settings, True) if row else None
    else:
        usage = ask_program(held.path, subject.name, subject.settings, True)
    if usage is None or usage.kind != UsageKind.USAGE:
        raise Unreadable(usage.says if usage else "it was not asked")
    if held.source == SourceName.BUILTIN_USAGE and row:
        return _builtin_document(row, usage)
    from dowsing.readers.usage.usage_text import read_usage

    package = subject.program_package
    return with_facts(
        read_usage(usage.text, subject.name, "usage", path=held.path, package=package)
    )


def _builtin_document(row: ShellRow, usage: Usage) -> Document:
    """A shell that has help prints just that; what others print is read like a program's usage."""
    from dowsing.readers.usage.cleaning import clean_lines
    from dowsing.readers.usage.usage_text import read_usage
    from dowsing.sources.builtin import help_document

    lines = clean_lines(usage.text)
    if row.text and lines[:1] == row.text.split("\n")[:1]:
        document = help_document(row)
        document.source = "builtin-usage"
        return document
    return with_facts(
        read_usage(usage.text, row.name, "builtin", source=SourceName.BUILTIN_USAGE, path=row.path)
    )


def ask_program(path: str, name: str, settings: Settings, ask: bool) -> Usage | None:
    """What the program prints for `--help`, or for the word that stands for it there; None if that
    is not known and may not be asked.
    """
    from dowsing.machine.sandbox.refusal import refusal

    word = word_for(path)
    reason = refusal(path, settings.search_path)
    if reason and may_ask(settings):
        return Usage(UsageKind.REFUSED, f"not asked: {reason}", "")

    def answer() -> Usage:
        from dowsing.machine.sandbox.flag_check import knows_flag
        from dowsing.machine.sandbox.guard import run_guarded

        if not knows_flag(path, word):
            return Usage(
                UsageKind.REFUSED,
                f"not asked: {name} does not know {word} (its file does not hold it)",
                "",
            )
        return _judged(run_guarded([path, word], settings.search_path), name, word)

    return _answered(key_of(path, word), settings, ask, answer)


def ask_builtin(row: ShellRow, settings: Settings, ask: bool) -> Usage | None:
    """What the builtin prints for `--help`; None if that is not known and may not be asked."""

    def answer() -> Usage:
        from dowsing.machine.shells.installed import installed_shells
        from dowsing.readers.usage.cleaning import clean_lines

        if row.kind == EntryKind.KEYWORD:
            return Usage(
                UsageKind.REFUSED,
                f"not asked: {row.name} is a keyword, {FLAG} after it would be a command",
                "",
            )
        shell = next((one for one in installed_shells(settings) if one.name == row.shell), None)
        if shell is None:
            return Usage(UsageKind.START, f"the shell {row.shell} is not there any more", "")
        outcome = shell.help_for(row.name)
        if outcome is None:
            return Usage(UsageKind.REFUSED, "the shell cannot be asked that", "")
        if row.text and not outcome.trouble and clean_lines(outcome.out) == row.text.split("\n"):
            return Usage(
                UsageKind.USAGE, "", outcome.out
            )  # the shell's own help is usage, however it is laid out
        return _judged(outcome, row.name)

    return _answered(key_of(row.path, f"{row.name} {FLAG}"), settings, ask, answer)


def _answered(key: str, settings: Settings, ask: bool, answer: Callable[[], Usage]) -> Usage | None:
    """The answer that is kept under the key; if there is none and it may be asked for, a new one,
    which is kept.
    """
    if not may_ask(settings):
        return Usage(
            UsageKind.REFUSED, "programs are not asked here: the settings say usage = never", ""
        )
    known = kept(settings, key)
    if known is not None or not ask:
        return known
    usage = answer()
    if usage.kind != UsageKind.START:  # what did not even start may do so next time
        keep(settings, key, usage)
    return usage


def _judged(outcome, name: str, word: str = FLAG) -> Usage:  # type: ignore[no-untyped-def]
    """The usage text out of what was printed: on stdout, else on stderr."""
    from dowsing.readers.usage.verdict import judge

    if outcome.trouble:
        verdict = judge(outcome.out, word, name, None)
        if verdict.kind != UsageKind.USAGE or outcome.ended == "output":
            return Usage(
                UsageKind.START if outcome.ended == "start" else UsageKind.TROUBLE,
                f"{name} {word}: {outcome.trouble}",
                "",
            )
    code = outcome.code if outcome.ended == "exit" else None
    verdicts = [
        (judge(text, word, name, code), text) for text in (outcome.out, outcome.err) if text.strip()
    ]
    for verdict, text in verdicts:
        if verdict.kind == UsageKind.USAGE:
            return Usage(UsageKind.USAGE, "", text)
    if verdicts:
        chosen = next((v for v, _ in verdicts if v.kind == UsageKind.ERROR), verdicts[0][0])
        return Usage(chosen.kind, chosen.says, "")
    return Usage(UsageKind.NOTHING, f"{name} {word} prints nothing", "")
