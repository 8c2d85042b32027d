"""Which recipe answers a sentence best: the words that it covers, the values that it takes, and
what it would do.
"""

from __future__ import annotations

import re

from dowsing.knowledge.recipes import CONDITIONS, Recipe
from dowsing.knowledge.stems import stem
from dowsing.model.record import Record
from dowsing.tasks.conditions import tests_of
from dowsing.tasks.filling import FilledRecipe, fill
from dowsing.tasks.part_phrases import parts_called_for
from dowsing.tasks.patterns import Pattern
from dowsing.tasks.retrieval import (
    LEAST_RELATED,
    OF_SENTENCE,
    Corpus,
    RecipeMatch,
    WordingTerm,
    compare,
    matches,
    terms_for,
)

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.command_finder import CommandFinder
    from dowsing.tasks.sentence import ParsedSentence
    from dowsing.tasks.values import Value

UNION = 0.15  # how much counts what all wordings of a recipe have together
FIT, UNUSED, OPEN = 0.05, 0.2, 0.06
UNASKED_HARM = 0.3
ASKED = 0.15  # the line changes something, the sentence asks or wants to see
LESS_EXACT = 0.1  # find with a test of its own, where all that is said can be put as tests
WRONG_WAY = 0.3  # from a machine where to it was said, or the other way round
LIKE = 0.12  # a slot has the kind of file that it is for
OTHER_KIND = 0.15  # a file was said, but not one of the kind that the line is for
NOT_HERE = 0.12
NEAR_TOP = 16
MISSED = 0.1  # the most telling word of the sentence is nowhere in the recipe
TOOL = 0.5
_HARM = Pattern(
    r"(?:^|[|;&(] ?|sudo |-exec |xargs )(?:rm|rmdir|shred|mkfs\S*|mkswap|dd|truncate|userdel"
    r"|groupdel|dropdb|wipefs|pkill|kill|killall|reboot"
    r"|poweroff|unlink|crontab -r)\b|-delete\b|--delete\b|reset --hard|clean -|git rm|purge"
    r"|autoremove|apt-get remove|poweroff|reboot"
    r"|branch -[dD]|tag -d|stash drop|push --force|checkout -- |git restore(?! --staged)"
    r"|systemctl (?:stop|disable|mask|kill)|umount|chage -E|passwd -l|usermod -L|apt-mark hold",
    exact=True,
)
_FETCHES = Pattern(r"<host>:<(?:file|folder|path)>|<remote> ", exact=True)
_SENDS = Pattern(r"<host>:(?!<(?:file|folder|path)>)|<remote>$", exact=True)
_PACKED = Pattern(r"(.+?)(?:\.tgz|\.tbz2?|\.txz|\.zip|\.tar(?:\.\w+)?)$")
_ASKING = Pattern(
    r"(?:please |hi,? |(?:can|could) you )*(?:what|which|who|whose|where|when|is|are|was|did|does"
    r"|do i|has|have|how (?:many|much|big|large|long|often|old"
    r"|full)|list|show|print|display|see|view|tell|count|look at|check)\b"
)
#: Words that belong to the value behind them.
_TO_VALUE = frozenset(
    "since until after before than with without under below within inside over above named called "
    "port by".split()
)
_HARMFUL = frozenset(
    stem(word)
    for word in (
        "delete remove erase wipe destroy drop purge clear clean rid throw discard kill end stop "
        "terminate overwrite format shred trash"
        " uninstall zero reset undo revert restore abandon shutdown reboot restart halt off power "
        "detach unmount eject disable prevent"
        " truncate prune cut take forget get lock block hold deactivate switch turn finish close "
        "gone write image burn back cancel abort"
        " force unlink quit deleting removing dispose delet mirror sync synchronise synchronize "
        "signal freeze keep put make create fill"
    ).split()
)


class Ranked(Record):
    """A recipe with values for a sentence, how well it answers (about 0 to 1), how much of the
    sentence it covers, and whether the most telling word of the sentence is nowhere in it.
    """

    score: float
    filled: FilledRecipe
    covers: float = 1.0
    missed: bool = False


def ranked(said: ParsedSentence, corpus: Corpus, finder: CommandFinder) -> list[Ranked]:
    """The recipes for what is said, filled with its values, the best first."""
    terms = terms_for(finder.store, corpus, said.words)
    # `empty` is said of things more often than to do something, unless it comes first
    harmful = any(token.stem in _HARMFUL for token in said.tokens) or any(
        token.text == "empty" for token in said.tokens[:1]
    )
    found = []
    for match in matches(corpus, terms, said.implied):
        one = _rate(match, said, terms, corpus, harmful)
        if one is not None:
            found.append(one)
    found.sort(key=lambda one: -one.score)
    # what is not here counts less; only for the best is it worth finding out
    front = [
        one
        if finder.is_here(one.filled.recipe.command)
        else one.changed(score=one.score - NOT_HERE)
        for one in found[:NEAR_TOP]
    ]
    return sorted([*front, *found[NEAR_TOP:]], key=lambda one: -one.score)


def _rate(
    match: RecipeMatch,
    said: ParsedSentence,
    terms: list[WordingTerm],
    corpus: Corpus,
    harmful: bool,
) -> Ranked | None:
    recipe = match.recipe
    filters = CONDITIONS in {slot.name for slot in recipe.slots}
    if filters and not said.conditions:
        return None
    called = parts_called_for(said.tokens, recipe.parts)
    spans = [(token.start, token.end) for said_by in called.values() for token in said_by]
    tests = tests_of(said.conditions) if filters else ""
    conditions = said.conditions if filters else []
    values = [
        value for value in said.values
        if not any(one.start < value.end and value.start < one.end for one in conditions)
    ]  # fmt: skip
    wanted = _wanted(said, recipe, corpus)
    if wanted:
        values = [_renamed(value, recipe) for value in values]
    filled = fill(recipe, values, frozenset(called), tests)
    spans += [(one.start, one.end) for one in conditions]
    used = [value for value in values if value not in filled.unused]
    spans += [
        (
            value.start - len(value.before) - 1 if value.before in _TO_VALUE else value.start,
            value.end,
        )
        for value in used
    ]
    # what stands in a slot says what the slot is for
    filled_slots = {
        stem(part) for name, value in filled.values.items() if value for part in name.split("-")
    }
    kinds = {stem(slot.kind) for slot in recipe.slots if filled.values.get(slot.name)}
    _, wording = compare(
        corpus, terms, said.implied | filled_slots | kinds, match.wording, stem(recipe.command)
    )
    total = whole = got = 0.0
    rarest, missed = 0.0, False
    for term, word, cover, also in zip(terms, said.words, match.cover, match.also, strict=True):
        taken = any(start < word.end and word.start < end for start, end in spans)
        is_value = any(
            value.sure and value.start < word.end and word.start < value.end
            for value in said.values
        )
        if is_value and not max(cover, taken):
            continue  # an extension that the recipe takes in some other way
        whole += term.weight
        if term.weight > rarest:
            rarest, missed = term.weight, not taken and also < LEAST_RELATED
        got += term.weight * (1.0 if taken else cover)
        total += term.weight * (1.0 if taken else also)
    score = OF_SENTENCE * got / whole if whole else 0.0
    score = (1 - UNION) * (score + (1 - OF_SENTENCE) * wording) + (
        UNION * total / whole if whole else 0.0
    )
    score -= MISSED * missed
    unused = [value for value in filled.unused if value.sure]
    open_slots = sum(f"<{name}>" in filled.line for name in filled.values)
    covered = got / whole if whole else 1.0
    score += covered * FIT * max(min(filled.fit, 4.0), -3.0) - UNUSED * len(unused)
    score += LIKE * any(slot.is_like(value.text) for slot in recipe.slots for value in used)
    if any(value.sure for value in said.values):
        score -= OPEN * open_slots
        likes = [
            slot for slot in recipe.slots if slot.like and filled.values.get(slot.name) is None
        ]
        if any(f"<{slot.name}>" in filled.line for slot in likes) and any(
            value.kind in ("file", "path") for value in said.values
        ):
            score -= OTHER_KIND
    if not harmful and _HARM.search(recipe.line):
        score -= UNASKED_HARM
    if recipe.changes in ("files", "system", "network") and _ASKING.match(said.text):
        score -= ASKED
    host = next(
        (
            value
            for value in used
            if value.kind in ("host", "remote") or value.noun in ("host", "server", "machine")
        ),
        None,
    )
    if host is not None:
        way = (
            "to" if _FETCHES.search(recipe.line) else ("from" if _SENDS.search(recipe.line) else "")
        )
        score -= WRONG_WAY * (bool(way) and host.place == way)
    if (
        recipe.command == "find"
        and not filters
        and open_slots
        and any(one.end for one in said.conditions)
    ):
        score -= LESS_EXACT
    score += TOOL * wanted - 2 * TOOL * any(
        _has(filled.line, tool) for tool in said.without_tools if tool in corpus.tools
    )
    return Ranked(score, filled, covered, missed)


def _has(line: str, tool: str) -> bool:
    return bool(re.search(rf"(?<![\w./-])(?:--)?{re.escape(tool)}(?![\w.-])", line))


def _wanted(said: ParsedSentence, recipe: Recipe, corpus: Corpus) -> bool:
    """Whether a recipe has a tool that was asked for."""
    return any(_has(recipe.line, tool) for tool in said.with_tools if tool in corpus.tools)


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
    ending = slot.like.split()[0].lstrip("*")
    return value.changed(text=name[1] + ending) if _PACKED.match("x" + ending) else value
