"""What entries do, and to what: the words of their pages, their phrases and their recipes put
together (knowledge/doings.py).
"""

from __future__ import annotations

import json

from dowsing.index.schema import Meta
from dowsing.knowledge.doings import doings
from dowsing.knowledge.verbs_and_nouns import VerbsAndNouns
from dowsing.model.names import is_typed

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.writer import IndexWriter
    from dowsing.ingest.entries import MadeEntry
    from dowsing.ingest.page_reading import Reading
    from dowsing.knowledge.recipes import Recipe


def labels_of(name: str, section: str) -> list[str]:
    """The labels that phrases for an entry may be kept under: a command without a page is meant by
    those for its page elsewhere.
    """
    return [f"{name}({section})"] if section else [name, f"{name}(1)", f"{name}(8)"]


def tasks_of_commands(recipes: list[Recipe]) -> dict[str, list[str]]:
    """The tasks that the recipes of each command are for; a subcommand is named as its page."""
    tasks: dict[str, list[str]] = {}
    for recipe in recipes:
        tasks.setdefault(recipe.command.replace(" ", "-"), []).append(recipe.task)
    return tasks


class Meanings:
    """Works out what entries do. `phrases`: of each label; `tasks`: of each command; `special`: the
    labels of pages that few people look for.
    """

    def __init__(
        self, phrases: dict[str, list[str]], tasks: dict[str, list[str]], special: frozenset[str]
    ) -> None:
        self.phrases = phrases
        self.tasks = tasks
        self.special = special

    @classmethod
    def kept(cls, writer: IndexWriter) -> Meanings:
        """With the phrases and tasks that the index keeps, which takes less time than their
        files.
        """
        phrases, tasks = (
            json.loads(writer.meta_value(key) or "{}") for key in (Meta.PHRASES, Meta.COMMAND_TASKS)
        )
        special = json.loads(writer.meta_value(Meta.SPECIAL_LABELS) or "[]")
        return cls(phrases, tasks, frozenset(special))

    def of(
        self, names: list[tuple[str, str]], summary: VerbsAndNouns, lead: VerbsAndNouns
    ) -> VerbsAndNouns:
        """What an entry of these names and sections, its own first, does. `summary` and `lead`:
        what those say.
        """
        own, section = names[0]
        phrases = [
            phrase
            for name, part in names
            for label in labels_of(name, part)
            for phrase in self.phrases.get(label, ())
        ]
        tasks = self.tasks.get(own, []) if is_typed(section) else []
        if not (phrases or tasks or lead.verbs or lead.nouns):
            return summary
        return doings(own, summary, lead, phrases, tasks)

    def put_into(self, entries: list[MadeEntry], readings: dict[int, Reading]) -> None:
        """Have the readings of these entries say what they do; `readings` by their numbers."""
        for entry in entries:
            reading = readings[entry.number]
            found = self.of(
                entry.names,
                VerbsAndNouns(reading.verbs.split(), reading.nouns.split()),
                VerbsAndNouns(reading.lead_verbs.split(), reading.lead_nouns.split()),
            )
            readings[entry.number] = reading._replace(
                verbs=" ".join(found.verbs), nouns=" ".join(found.nouns)
            )
