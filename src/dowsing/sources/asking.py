"""Asks programs and builtins for their usage.

Nothing is run unless refusal.py and flag_check.py let it pass. What came back is kept by the
identity of the program's file, so that it is asked once.
"""

from __future__ import annotations

from dowsing.model.entry import EntryKind, ShellRow
from dowsing.readers.usage.usage_kind import UsageKind
from dowsing.sources.usage_cache import FLAG, Usage, keep, kept, key_of, may_ask, word_for

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable

    from dowsing.machine.settings import Settings


def ask_program(
    path: str, name: str, settings: Settings, ask: bool, asked_with: list[str] | None = None
) -> Usage | None:
    """What the program prints for `--help`, or for the word that stands for it there; None if that
    is not known and may not be asked. `asked_with`: the words that it is asked with instead, which
    must be known to ask for nothing but help.
    """
    from dowsing.machine.sandbox.refusal import refusal

    word = word_for(path)
    words = asked_with or [word]
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
        return _judged(run_guarded([path, *words], settings.search_path), name, " ".join(words))

    return _answered(key_of(path, " ".join(words)), settings, ask, answer)


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
