"""A recipe with the values of a sentence, and which of its words went into the line."""

from __future__ import annotations

from dowsing.knowledge.recipes import CONDITIONS, Recipe
from dowsing.tasks.conditions import tests_of
from dowsing.tasks.filling import Insertion, SlotCues, fill
from dowsing.tasks.part_phrases import parts_called_for
from dowsing.tasks.patterns import Pattern

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.tasks.adding import Added
    from dowsing.tasks.additions import Asked
    from dowsing.tasks.part_phrases import Token
    from dowsing.tasks.sentence import ParsedSentence
    from dowsing.tasks.values import Value

OF_NOUN = 0.5  # how much a name is missed that only the noun beside it tells to be one
OF_FREE = 0.7  # how much a word counts as covered that is one of a free text
_PACKED = Pattern(r"(.+?)(?:\.tgz|\.tbz2?|\.txz|\.zip|\.tar(?:\.\w+)?)$")
#: Words that belong to the value behind them.
_TO_VALUE = frozenset(
    "since until after before than with without under below within inside over above named called "
    "port by".split()
)


class RecipeInSentence:
    """A recipe with the values of a sentence, and which words of it went into that (`spans`);
    `added`: the stems of those that asked for what was put into its line.
    """

    def __init__(
        self,
        recipe: Recipe,
        said: ParsedSentence,
        renamed: bool,
        cues: SlotCues | None,
    ) -> None:
        self.added: frozenset[str] = frozenset()
        self.exactly = self.nearly = 0
        self.filters = CONDITIONS in {slot.name for slot in recipe.slots}
        called = parts_called_for(said.tokens, recipe.parts)
        conditions = said.conditions if self.filters else []
        values = [
            value
            for value in said.values
            if not any(one.start < value.end and value.start < one.end for one in conditions)
        ]
        if renamed:
            values = [_renamed(value, recipe) for value in values]
        tests = tests_of(conditions)
        self.filled = fill(recipe, values, frozenset(called), tests, cues)
        self.used = self.filled.placed
        self.spans = [(token.start, token.end) for words in called.values() for token in words]
        self.spans += [(one.start, one.end) for one in conditions]
        self.spans += [(_begin_of(value), value.end) for value in self.used]

    def add(self, added: Added, tokens: list[Token]) -> None:
        """Count what was put into the line, or was there, as well."""
        for one in [*added.asked, *added.had]:
            values = [] if one in added.had else list(one.values.values())
            spans = [(tokens[n].start, tokens[n].end) for n in sorted(one.words)]
            spans += [(_begin_of(value), value.end) for value in values]
            self.spans += spans
            if one in added.asked:
                self._insert(one, values, spans)
        self.filled = self.filled.changed(line=added.line)
        self.used = self.filled.placed
        self.added = frozenset(tokens[n].stem for one in added.asked for n in one.words)
        self.nearly = sum(one.near for one in added.asked)
        self.exactly = len(added.asked) - self.nearly

    def _insert(self, one: Asked, values: list[Value], spans: list[tuple[int, int]]) -> None:
        start, end = min(first for first, _ in spans), max(last for _, last in spans)
        filled = self.filled
        self.filled = filled.changed(
            unused=[value for value in filled.unused if value not in values],
            placed=[*filled.placed, *values],
            added=[*filled.added, Insertion(one.addition.text, start, end)],
        )

    def has(self, start: int, end: int) -> bool:
        """Whether a place of the sentence went into it."""
        return any(first < end and start < last for first, last in self.spans)

    def covers(self, start: int, end: int) -> float:
        """How much it counts that a place of the sentence went into it: less where it is only one
        of the words of a free text, for any word may be that.
        """
        if not self.has(start, end):
            return 0.0
        free = (one for one in self.used if not one.sure and " " in one.text)
        return OF_FREE if any(one.start <= start and end <= one.end for one in free) else 1.0


def missed(value: Value, used: list[Value]) -> float:
    """How much a value that stands in no slot is missed: not the ending of files that are named; a
    word that has only the noun beside it to say that it is a name, less.
    """
    ending = f".{value.text.lstrip('*.')}"
    named = value.kind in ("extension", "glob") and any(one.text.endswith(ending) for one in used)
    if named:
        return 0.0
    return 1.0 if value.sure else OF_NOUN * bool(value.noun)


def _begin_of(value: Value) -> int:
    """Where a value begins with the word that leads to it, in characters."""
    before = len(value.before) + 1 if value.before in _TO_VALUE else 0
    return value.start - before


def _renamed(value: Value, recipe: Recipe) -> Value:
    """An archive by the name that the tool which is wanted instead gives it: `notes.tgz` becomes
    `notes.tar.zst`.
    """
    name = _PACKED.match(value.text)
    slot = next((slot for slot in recipe.slots if slot.like and slot.kind == "file"), None)
    if (
        name is None
        or slot is None
        or slot.is_like(value.text)
        or value.kind not in ("file", "path")
    ):
        return value
    is_packed = _PACKED.match(f"x{slot.ending}")
    return value.changed(text=name[1] + slot.ending) if is_packed else value
