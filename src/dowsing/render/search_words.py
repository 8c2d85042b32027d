"""What is told of a search: what was loosened to find something, and what the score of a hit is
made of.
"""

from __future__ import annotations

from dowsing.search.loosening import NoteCode

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.search.breakdown import Breakdown, WordShare
    from dowsing.search.loosening import SearchNote
    from dowsing.search.searching import SearchAnswer

MOST_TOLD = 6  # words left out
LEAST_TOLD = 0.05  # a part of a score that is smaller is not told

_NOTES = {
    NoteCode.ONLY_FIRST: "only the first {0} words were used",
    NoteCode.PATTERNS_CUT: "patterns were cut to {0} characters",
    NoteCode.NAMES_INSIDE: "no name matches that whole; these have it inside",
    NoteCode.SPOKEN_OF: "few act on {0}; those that speak of it are listed too",
    NoteCode.TAKEN_AS: "“{0}” is not known; taken as “{1}”",
}
#: Weights of fields, and where a word stands that is in one.
_PLACES = {
    "whole_name": "is its name",
    "in_name": "in its name",
    "in_alias": "in another name of it",
    "in_summary": "in its summary",
    "is_meaning": "what it does or to what",
    "in_task": "in a task it is for",
    "in_label": "in its section or package",
    "is_flag": "in an option",
    "in_lead": "in its first paragraph",
    "in_heading": "in a heading",
    "in_option": "in the text of an option",
}


def relaxed_words(found: SearchAnswer) -> str:
    """What was loosened to find something, "" for nothing."""
    return "; ".join(map(_note, found.notes))


def _note(note: SearchNote) -> str:
    if note.code is not NoteCode.LEFT_OUT:
        return _NOTES[note.code].format(*note.about)
    rest = f" and {len(note.about) - MOST_TOLD} more" if len(note.about) > MOST_TOLD else ""
    quoted = ", ".join(f"“{word}”" for word in note.about[:MOST_TOLD])
    return f"nothing has every word; left out: {quoted}{rest}"


def score_words(score: Breakdown | None) -> list[str]:
    """The parts of a score, each with what it is worth."""
    if score is None:
        return []
    told = [_share(word) for word in score.words]
    if score.text:
        told.append(f"every word is somewhere in its text ({score.text:+.1f})")
    if score.length_cost:
        listed = ", ".join(score.patterns)
        told.append(f"its name matches {listed}" if listed else "what it is narrowed to")
    parts = [
        ("not every word is there", score.uncovered),
        ("its name was typed", score.name),
        ("what it does, and to what", score.doing),
        ("it has the option", score.option),
        (f"it is for: {score.task}", score.task_boost),
        ("what its summary says", score.summary_boost),
        ("what people use for this", score.asked),
        ("how it ranks among pages and packages", score.static_rank),
        (f"section {score.section or 'none'}", -score.section_cost),
        ("the length of its name", -score.length_cost),
    ]
    return told + [f"{words} ({value:+.1f})" for words, value in parts if abs(value) >= LEAST_TOLD]


def _share(word: WordShare) -> str:
    if not word.fields:
        return f"“{word.word}” in its text or a longer word of its names ({word.gain:+.1f})"
    instead = f" as “{word.variant}”" if word.variant else ""
    where = " and ".join(_PLACES[field] for field in word.fields)
    return f"“{word.word}”{instead} {where} ({word.gain:+.1f})"
