"""The curated groups of verbs and nouns. Read when an index is built; look-ups take what they need
from the index.
"""

from __future__ import annotations

import os

from dowsing.knowledge.stems import stem, stems
from dowsing.model.record import Record

_FOLDER = os.path.dirname(os.path.abspath(__file__))

#: How much a related word counts, beside 1 for the word itself.
EQUAL, PLAIN, NEAR = 0.75, 0.38, 0.4

_IRREGULAR = {
    "built": "build",
    "chosen": "choose",
    "found": "find",
    "given": "give",
    "got": "get",
    "held": "hold",
    "kept": "keep",
    "made": "make",
    "running": "run",
    "sent": "send",
    "shown": "show",
    "written": "write",
    "wrote": "write",
    "indices": "index",
    "apis": "api",
}


class WordGroup(Record):
    """Words of one meaning: the one that stands for all, those that mean the same, those said
    instead, and nouns of doing.
    """

    head: str
    equal: list[str]
    near: list[str]
    doing: list[str] = []  # noqa: RUF012 - a record is immutable

    @property
    def members(self) -> list[str]:
        """All words that mean this group, itself first."""
        return [self.head, *self.equal, *self.doing]


class Lexicon:
    """The groups, and which group a word belongs to, found by the word or its stem."""

    def __init__(
        self, verbs: list[WordGroup], nouns: list[WordGroup], joined: dict[str, str]
    ) -> None:
        self.verbs, self.nouns, self.joined = verbs, nouns, joined
        self.verb_of, self.noun_of = _by_word(verbs, True), _by_word(nouns, False)
        self.verb_of_stem = _by_stem(self.verb_of)
        self.verb_of_doing = {word: group.head for group in verbs for word in group.doing}

    def verb(self, word: str) -> str | None:
        """The head of the group of verbs that the word, in any form, belongs to."""
        word = _IRREGULAR.get(word, word)
        again = word[2:] if word.startswith("re") and len(word) > 5 else ""
        inflected = word.endswith(("s", "ed", "ing")) and not word.endswith("ous")
        return (
            self.verb_of.get(word)
            or (self.verb_of_stem.get(stem(word)) if inflected else None)
            or self.verb_of.get(again)
        )

    def noun(self, word: str) -> str | None:
        """The head of the group of nouns that the word, in any form, belongs to."""
        word = _IRREGULAR.get(word, word)
        found = (
            self.noun_of.get(word)
            or self.noun_of.get(singular(word))
            or self.noun_of.get(word.removesuffix("s"))
        )
        return found or (self.noun(word.rpartition("-")[2]) if "-" in word.strip("-") else None)

    def relations(self) -> list[tuple[str, str, float]]:
        """For every word's stem the stems of related words, and how much one counts for the other
        (0 to 1).
        """
        best: dict[tuple[str, str], float] = {}
        for group in (*self.verbs, *self.nouns):
            close = [stem(word) for word in group.members]
            for one in close:
                for other in close:
                    _keep(best, one, other, EQUAL)
                for word in group.near:
                    _keep(best, one, stem(word), NEAR)
                    _keep(best, stem(word), one, NEAR)
        for said, meant in plain_words():
            _keep(best, stem(said), stem(meant), PLAIN)
        for one, other, weight in read_associations():
            _keep(best, one, other, weight)
        return [(one, other, weight) for (one, other), weight in best.items() if one != other]

    def joins(self) -> list[tuple[str, str]]:
        """Words said apart, as stems with blanks, and the stem of the one word that stands for
        them.
        """
        return [(" ".join(stems(apart)), stem(word)) for apart, word in self.joined.items()]


def _keep(best: dict[tuple[str, str], float], one: str, other: str, weight: float) -> None:
    best[one, other] = max(weight, best.get((one, other), 0.0))


def _by_word(groups: list[WordGroup], verbs: bool) -> dict[str, str]:
    return {
        word: group.head
        for group in groups
        for word in ([group.head, *group.equal] if verbs else group.members)
    }


def _by_stem(words: dict[str, str]) -> dict[str, str]:
    found: dict[str, str] = {}
    for word, head in words.items():
        found.setdefault(stem(word), head)
    return found


def plain_words() -> list[tuple[str, str]]:
    """What people say, and what pages say instead: a pair for each."""
    found = []
    with open(os.path.join(_FOLDER, "plain_words.txt"), encoding="utf-8") as file:
        for line in file:
            said, _, meant = line.partition(" > ")
            if meant and not line.startswith("#"):
                found += [(one, other) for one in said.split() for other in meant.split()]
    return found


def read_associations(path: str = "") -> list[tuple[str, str, float]]:
    """The learned associations (bench/fit_associations.py): the stem of a word that people say, the
    stem of one that pages say, and how much this counts for that.
    """
    found = []
    with open(path or os.path.join(_FOLDER, "associations.txt"), encoding="utf-8") as file:
        for line in file:
            said, _, others = line.partition(" > ")
            if others and not line.startswith("#"):
                pairs = (one.partition(":") for one in others.split())
                found += [(said, other, float(weight)) for other, _, weight in pairs]
    return found


_read: list[Lexicon] = []


def lexicon() -> Lexicon:
    """The lexicon that comes with the program."""
    if not _read:
        import tomllib

        with open(os.path.join(_FOLDER, "lexicon.toml"), "rb") as file:
            data = tomllib.load(file)
        _read.append(Lexicon(_groups(data["verbs"]), _groups(data["nouns"]), data["joined"]))
    return _read[0]


def _groups(table: dict[str, dict[str, str]]) -> list[WordGroup]:
    return [
        WordGroup(head, row["equal"].split(), row["near"].split(), row.get("noun", "").split())
        for head, row in table.items()
    ]


def faults(lexicon: Lexicon) -> list[str]:
    """What is not consistent: a word in two groups of its kind, a word that is near and equal to
    the same, no relation at all.
    """
    found = []
    for kind, groups in (("verb", lexicon.verbs), ("noun", lexicon.nouns)):
        holder: dict[str, str] = {}
        for group in groups:
            for word in group.members:
                if holder.setdefault(word, group.head) != group.head:
                    found.append(f"{kind} {word}: in {holder[word]} and in {group.head}")
            if len(set(group.members)) < len(group.members):
                found.append(f"{kind} {group.head}: a word twice")
            found += [
                f"{kind} {group.head}: {word} is near and equal"
                for word in group.near
                if word in group.members
            ]
    known = {
        word for group in (*lexicon.verbs, *lexicon.nouns) for word in (*group.members, *group.near)
    }
    found += [
        f"joined {apart}: {word} is in no group"
        for apart, word in lexicon.joined.items()
        if not word.isalnum()
    ]
    return found + [f"{word} is not in lower case" for word in known if word != word.casefold()]


def singular(word: str) -> str:
    """The singular of a regular plural."""
    word = _IRREGULAR.get(word, word)
    if word.endswith("ies") and len(word) > 4:
        return word[:-3] + "y"
    if word.endswith(("sses", "xes", "ches", "shes", "zes")):
        return word[:-2]
    if word.endswith("s") and len(word) > 3 and not word.endswith(("ss", "us", "is", "as", "os")):
        return word[:-1]
    return word
