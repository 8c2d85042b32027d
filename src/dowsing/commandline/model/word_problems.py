"""What is wrong with a word, with the place where that can be told."""

from __future__ import annotations

from dowsing.commandline.grammar.problems import Problem

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Word
    from dowsing.model.told import Told


def problem_at(
    word: Word,
    reason: Told | None,
    nearest: list[str] | None = None,
    mark: tuple[int, int] | None = None,
) -> Problem | None:
    """What is wrong with a word, None if nothing is. `mark`: see Problem."""
    if reason is None:
        return None
    return Problem(word.start, word.end, reason, nearest or [], mark=mark)


def mark_of(word: Word, flag: str, place: int | None) -> tuple[int, int]:
    """Where an option stands in its word: its letter, its name, or all of it."""
    if place is not None and not word.quoted:
        return word.start + (0 if place == 1 else place), word.start + place + 1
    if word.text.startswith(flag):
        return word.start, word.start + len(flag)
    return word.start, word.end


def wrong_option(
    word: Word,
    flag: str,
    reason: Told,
    nearest: list[str] | None = None,
    place: int | None = None,
) -> Problem | None:
    """What is wrong with an option."""
    return problem_at(word, reason, nearest, mark_of(word, flag, place))
