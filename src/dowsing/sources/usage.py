"""The sources `usage` and `builtin-usage`: what a program, or a shell's builtin, prints for `--help`.

Nothing is run unless the subject says that it may be, and then only what refusal.py and flag_check.py let
pass. What came back is kept by the identity of the program's file, so that it is asked once.
"""

from __future__ import annotations

from collections.abc import Callable

from dowsing.facts import with_facts
from dowsing.machine.settings import Settings
from dowsing.model.document import Document
from dowsing.model.entry import ShellRow
from dowsing.model.errors import Unreadable
from dowsing.sources.source import Holding, Subject, nothing
from dowsing.sources.usage_cache import FLAG, Usage, keep, kept, key_of, may_ask


def holdings(subject: Subject) -> list[Holding]:
    """Of the first executable of that name on PATH."""
    files = subject.executables
    if not files:
        return nothing("usage", "no program of that name on PATH")
    usage = ask_program(files[0], subject.name, subject.settings, subject.ask)
    return [_holding("usage", f"{files[0]} {FLAG}", files[0], usage)]


def builtin_holdings(subject: Subject) -> list[Holding]:
    """Of the builtin of the user's own shell, else of the first shell that has one."""
    rows = subject.in_shells[:1]
    if not rows:
        return nothing("builtin-usage", "no shell here has a builtin of that name")
    usage = ask_builtin(rows[0], subject.settings, subject.ask)
    return [_holding("builtin-usage", f"{rows[0].shell}: {subject.name} {FLAG}", rows[0].path, usage)]


def _holding(source: str, where: str, path: str, usage: Usage | None) -> Holding:
    if usage is None:
        return Holding(source, None, where=where, path=path, note="not asked")
    return Holding(source, usage.kind == "usage", where=where, path=path, note=usage.says)


def read(subject: Subject, holding: Holding) -> Document:
    """The usage text as a Document. Raises Unreadable with what came back instead."""
    row = subject.in_shells[0] if subject.in_shells else None
    if holding.source == "builtin-usage":
        usage = ask_builtin(row, subject.settings, True) if row else None
    else:
        usage = ask_program(holding.path, subject.name, subject.settings, True)
    if usage is None or usage.kind != "usage":
        raise Unreadable(usage.says if usage else "it was not asked")
    if holding.source == "builtin-usage" and row:
        return _builtin_document(row, usage)
    from dowsing.readers.usage.usage_text import read_usage

    package = subject.program_package
    return with_facts(read_usage(usage.text, subject.name, "usage", path=holding.path, package=package))


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
    return with_facts(read_usage(usage.text, row.name, "builtin", source="builtin-usage", path=row.path))


def ask_program(path: str, name: str, settings: Settings, ask: bool) -> Usage | None:
    """What the program prints for `--help`; None if that is not known and may not be asked."""
    from dowsing.machine.sandbox.refusal import refusal

    reason = refusal(path, settings.search_path)
    if reason and may_ask(settings):
        return Usage("refused", f"not asked: {reason}", "")

    def answer() -> Usage:
        from dowsing.machine.sandbox.flag_check import knows_flag
        from dowsing.machine.sandbox.guard import run_guarded

        if not knows_flag(path, FLAG):
            return Usage("refused", f"not asked: {name} does not know {FLAG} (its file does not hold it)", "")
        return _judged(run_guarded([path, FLAG], settings.search_path), name)

    return _answered(key_of(path, FLAG), settings, ask, answer)


def ask_builtin(row: ShellRow, settings: Settings, ask: bool) -> Usage | None:
    """What the builtin prints for `--help`; None if that is not known and may not be asked."""

    def answer() -> Usage:
        from dowsing.machine.shells.installed import installed_shells
        from dowsing.readers.usage.cleaning import clean_lines

        if row.kind == "keyword":
            return Usage("refused", f"not asked: {row.name} is a keyword, {FLAG} after it would be a command", "")
        shell = next((one for one in installed_shells(settings) if one.name == row.shell), None)
        if shell is None:
            return Usage("start", f"the shell {row.shell} is not there any more", "")
        outcome = shell.help_for(row.name)
        if outcome is None:
            return Usage("refused", "the shell cannot be asked that", "")
        if row.text and not outcome.trouble and clean_lines(outcome.out) == row.text.split("\n"):
            return Usage("usage", "", outcome.out)  # the shell's own help is usage, however it is laid out
        return _judged(outcome, row.name)

    return _answered(key_of(row.path, f"{row.name} {FLAG}"), settings, ask, answer)


def _answered(key: str, settings: Settings, ask: bool, answer: Callable[[], Usage]) -> Usage | None:
    """The answer that is kept under the key; if there is none and it may be asked for, a new one, which is kept."""
    if not may_ask(settings):
        return Usage("refused", "programs are not asked here: the settings say usage = never", "")
    known = kept(settings, key)
    if known is not None or not ask:
        return known
    usage = answer()
    if usage.kind != "start":  # what did not even start may do so next time
        keep(settings, key, usage)
    return usage


def _judged(outcome, name: str) -> Usage:  # type: ignore[no-untyped-def]
    """The usage text out of what was printed: on stdout, else on stderr."""
    from dowsing.readers.usage.verdict import judge

    if outcome.trouble:
        verdict = judge(outcome.out, FLAG, name, None)
        if verdict.kind != "usage" or outcome.ended == "output":
            return Usage("start" if outcome.ended == "start" else "trouble", f"{name} {FLAG}: {outcome.trouble}", "")
    code = outcome.code if outcome.ended == "exit" else None
    verdicts = [(judge(text, FLAG, name, code), text) for text in (outcome.out, outcome.err) if text.strip()]
    for verdict, text in verdicts:
        if verdict.kind == "usage":
            return Usage("usage", "", text)
    if verdicts:
        chosen = next((v for v, _ in verdicts if v.kind == "error"), verdicts[0][0])
        return Usage(chosen.kind, chosen.says, "")
    return Usage("nothing", f"{name} {FLAG} prints nothing", "")
