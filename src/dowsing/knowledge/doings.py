"""What an entry does, and to what, from everything that says so: its summary, its name, the
beginning of its page, our phrases for it and the tasks of its recipes. What says it first and most
often comes first.
"""

from __future__ import annotations

from dowsing.knowledge.verbs_and_nouns import VerbsAndNouns, meaning, named_verb, nouns_said

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterable

#: How much each says of what an entry is for: its summary most, and one phrase or task little.
OF_SUMMARY, OF_NAME, OF_LEAD, OF_PHRASE = 3.0, 1.5, 0.8, 1.4
#: What all tasks of one command together say; a command with many recipes is for the same things.
OF_TASKS, OF_TASK = 8.0, 1.0
LATER = 0.6  # of what the word before counts, each further one in a text
BESIDE = 0.4  # a noun of a phrase that is not what is acted on
MOST_VERBS, MOST_NOUNS = 6, 8
LEAST_SHARE = 0.12  # of what the best word has


class Evidence:
    """The verbs and nouns of one entry, and how much speaks for each."""

    def __init__(self) -> None:
        self.verbs: dict[str, float] = {}
        self.nouns: dict[str, float] = {}

    def add(self, said: VerbsAndNouns, weight: float) -> None:
        """What one text says; the first word of it counts `weight`."""
        for found, words in ((self.verbs, said.verbs), (self.nouns, said.nouns)):
            for place, word in enumerate(words):
                found[word] = found.get(word, 0.0) + weight * LATER**place

    def add_phrase(self, text: str, weight: float) -> None:
        """What a phrase says in which people ask for it."""
        said = meaning(text)
        self.add(said, weight)
        others = [noun for noun in nouns_said(text) if noun not in said.nouns]
        self.add(VerbsAndNouns([], others), weight * BESIDE)

    def best(self) -> VerbsAndNouns:
        """The words that most speaks for, in that order."""
        return VerbsAndNouns(_best(self.verbs, MOST_VERBS), _best(self.nouns, MOST_NOUNS))


def doings(
    name: str,
    summary: VerbsAndNouns,
    lead: VerbsAndNouns,
    phrases: Iterable[str] = (),
    tasks: list[str] | None = None,
) -> VerbsAndNouns:
    """What an entry is for. `summary` and `lead`: what those say; `phrases` of the entry, `tasks`
    of its recipes.
    """
    evidence = Evidence()
    evidence.add(summary, OF_SUMMARY)
    evidence.add(lead, OF_LEAD)
    verb = named_verb(name)
    if verb:
        evidence.add(VerbsAndNouns([verb], []), OF_NAME)
    for phrase in phrases:
        evidence.add_phrase(phrase, OF_PHRASE)
    if tasks:
        each = min(OF_TASK, OF_TASKS / len(tasks))
        for task in tasks:
            evidence.add_phrase(task, each)
    return evidence.best()


def _best(words: dict[str, float], most: int) -> list[str]:
    least = LEAST_SHARE * max(words.values(), default=0.0)
    kept = [word for word, weight in words.items() if weight >= least]
    return sorted(kept, key=lambda word: -words[word])[:most]
