"""A sentence to command lines: what is wanted, with the values that were said, checked against the pages."""

from __future__ import annotations

import re

from dowsing.core.commandline.known import Tables
from dowsing.core.commandline.line import unpick
from dowsing.core.commandline.pieces import Unpicked, carried
from dowsing.core.language.stems import words
from dowsing.core.record import Record
from dowsing.core.tasks.filling import Filled, fill, with_values
from dowsing.core.tasks.retrieval import matches, recipe_words
from dowsing.core.tasks.values import Value, values_in

MOST_ANSWERS = 5
LEAST_SCORE = 0.3
_NOT = re.compile(r"(?<=\w)n['’]t\b")
_SAME = 0.66  # of the best score: what is worse is no answer to the same question


class Filling(Record):
    """A slot of an answer: its name, its value (None if none was said), its kind."""

    name: str
    value: str | None
    kind: str


class Origin(Record):
    """Where an answer is from: `kind` is recipe, manual, option or saved; `page` the page that documents its command."""

    kind: str
    page: str | None
    where: str


class Answer(Record):
    """A line for a task. `caution`: what it destroys or overwrites; `look`: the harmless line to look first; `checked`:
    every option of it was found in a page of this machine."""

    line: str
    task: str
    slots: list[Filling]
    pieces: list[dict[str, object]]
    origin: Origin
    caution: str | None
    look: str
    checked: bool
    score: float = 0.0


class Task(Record):
    """The answers to a sentence and what was said again about it, the best first."""

    task: str
    again: list[str]
    answers: list[Answer]


def lines_for(sentence: str, again: list[str], tables: Tables, most: int = MOST_ANSWERS) -> Task:
    """The lines for a task said in plain words; `again` are revisions of it, the last one counting most."""
    said = " ".join([sentence, *again])
    known = recipe_words(tables.store)
    values = _all_values(sentence, again, known)
    asked = _telling(said, values)
    found: list[tuple[float, Filled]] = []
    for match in matches(tables.store, asked):
        filled = fill(match.recipe, values)
        score = match.score
        slots = len(match.recipe.slots)
        score += 0.05 * min(filled.fit, 3.0) - 0.07 * len(filled.unused)
        score -= 0.03 * sum(value is None for value in filled.values.values()) if values and slots else 0.0
        if not tables.command(match.recipe.command).exists:
            score -= 0.2
        found.append((score, filled))
    found.sort(key=lambda pair: -pair[0])
    best = found[0][0] if found else 0.0
    answers: list[Answer] = []
    for score, filled in found:
        if len(answers) >= most or score < max(LEAST_SCORE, best * _SAME):
            break
        if all(filled.line != answer.line for answer in answers):
            answers.append(_answer(filled, tables, score))
    return Task(sentence, again, answers)


def _all_values(sentence: str, again: list[str], known: frozenset[str]) -> list[Value]:
    """The values of what was said, the latest first to be chosen."""
    found: list[Value] = []
    for text in [*reversed(again), sentence]:
        found += [value for value in values_in(text, known) if all(value.text != one.text for one in found)]
    return found


def _telling(said: str, values: list[Value]) -> list[str]:
    """The words of the sentence without its values, contractions in full."""
    for value in values:
        if value.kind != "extension":
            said = said.replace(value.text, " ", 1)
    return list(dict.fromkeys(words(_NOT.sub(" not", said))))


def _answer(filled: Filled, tables: Tables, score: float) -> Answer:
    recipe = filled.recipe
    found = unpick(filled.line, tables)
    page = next((piece.page for piece in found.pieces if piece.page), None)
    slots = [Filling(slot.name, filled.values[slot.name], slot.kind) for slot in recipe.slots]
    return Answer(
        filled.line, recipe.task, slots, carried(found), Origin("recipe", page, recipe.where),
        "; ".join(found.changes) or None, with_values(recipe.look, filled.values), is_checked(found), round(score, 3),
    )  # fmt: skip


def is_checked(found: Unpicked) -> bool:
    """Whether every command of a line is documented here and every option of it stands in a page, without a mistake.

    A place for a command is none yet.
    """
    told = [piece for piece in found.pieces if piece.role in ("command", "subcommand", "option")]
    return not found.mistaken and all(piece.page or piece.text.startswith("<") for piece in told)
