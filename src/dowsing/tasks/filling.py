"""Values into the slots of a recipe: by kind, by what values are like, by the word before them;
quoted for the shell.
"""

from __future__ import annotations

import os
import re

from dowsing.knowledge.recipes import (
    CONDITIONS,
    PART,
    PLAIN,
    SLOT,
    Recipe,
    Slot,
    quoted_slots,
    shell_script_slots,
    with_values,
)
from dowsing.knowledge.units import DAY, is_time, seconds_in
from dowsing.model.quoting import joined_quotes
from dowsing.model.quoting import quoted as literally
from dowsing.model.quoting import word as shell_word
from dowsing.model.record import Record
from dowsing.tasks.schedules import calendar_of
from dowsing.tasks.slot_fit import ENDINGS, FILE_KINDS, LENGTHS, points_of

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Protocol

    from dowsing.tasks.values import Value
else:
    Protocol = object

_SEVERAL = frozenset(
    "file folder path package service user pid container group program process image".split()
)
#: Where several values stand in one word: the groups of `usermod -aG`.
_IN_ONE_WORD = re.compile(r"-\w*G <group>")
#: A command that may stand in single quotes and in a cron table as it is.
_PLAIN_COMMAND = re.compile(r"[\w./~][\w.:@+,=/~ -]*")
NEARLY = 0.1  # so much a length of time may differ in another unit: a month of 30 days
OF_TURN = 0.8  # how much each revision counts that says a value
_SAFE = re.compile(r"[A-Za-z0-9_@%+=:,./^~-]+\Z")


class SlotCues(Protocol):
    """What the words of a sentence say of where the values of slots stand."""

    def points(self, slot: Slot, value: Value) -> float:
        """What the words around a value say for the slot."""

    def more(self, slots: list[Slot], values: list[Value]) -> list[Value]:
        """Words that may be values of these slots by their place, beside the known values."""


class Insertion(Record):
    """What was put into a line beside its recipe, and where the sentence asks for it
    (characters).
    """

    text: str
    start: int
    end: int


class FilledRecipe(Record):
    """A recipe with values: the line, and what stands in each slot (None where nothing does); how
    well they fit on the average, and which values of the sentence were placed; `places`: the value
    that went into each slot; `added`: what was put in beside, with where the sentence asks for it.
    """

    recipe: Recipe
    line: str
    values: dict[str, str | None]
    unused: list[Value]
    fit: float
    placed: list[Value] = []  # noqa: RUF012 - a record is immutable
    places: dict[str, Value] = {}  # noqa: RUF012
    added: list[Insertion] = []  # noqa: RUF012


def quoted(value: str, raw_glob: bool = False) -> str:
    """The value as one word of the shell, whatever is in it.

    `raw_glob`: the shell is to put names in the place of `*`, `?` and `[…]`.
    """
    value = value.replace("\x00", "")
    if raw_glob and re.fullmatch(r"[\w@%+=:,./*?~-]+", value):
        return value
    if value == "~" or (value.startswith("~/") and _SAFE.match(value)):
        return value
    return shell_word(value)


def as_operand(word: str, kind: str) -> str | None:
    """A word that stands for itself on the line, so that no command takes it for an option.

    The name of a file is kept from that by `./`; for other values there is no way that holds for
    every command: None.
    """
    quote = "'" if word.startswith("'") else ""
    if not word.startswith(f"{quote}-"):
        return word
    return f"{quote}./{word[len(quote) :]}" if kind in FILE_KINDS else None


def in_place(word: str | None, slot: Slot, line: str) -> str | None:
    """The word as it can stand in each place that the line has for it, None if it cannot.

    Within a word (`s/<old>/<new>/`), and as the value of an option before it, a leading dash means
    nothing.
    """
    for match in re.finditer(rf"<{re.escape(slot.name)}>", line):
        before = line[: match.start()]
        begins_word = not before or before[-1] in " \t"
        last = before.split()[-1] if before.split() else ""
        if word is not None and begins_word and not last.startswith("-"):
            word = as_operand(word, slot.kind)
    return word


def fill(
    recipe: Recipe,
    values: list[Value],
    parts: frozenset[str] = frozenset(),
    conditions: str = "",
    cues: SlotCues | None = None,
) -> FilledRecipe:
    """The recipe's line with the values that fit; `parts` are the named parts that are wanted.

    `conditions` are the tests for its `<conditions>`; `cues` say what stands where in the sentence.
    """
    line = PART.sub(
        lambda match: match[0] if match[1] is None or match[1] in parts else "", recipe.line
    )
    names = set(SLOT.findall(line)) | set(SLOT.findall(recipe.look))
    slots = [slot for slot in recipe.slots if slot.name in names and slot.kind != CONDITIONS]
    left = list(values) + (cues.more(slots, values) if cues is not None else [])
    chosen: dict[str, str | None] = {slot.name: None for slot in recipe.slots}
    places: dict[str, Value] = {}
    fit = 0.0
    # what a slot says its values are like comes first; then whatever fits best, pair by pair, what
    # is sure to be a value before words that may be one
    for like_only, sure_only in ((True, False), (False, True), (False, False)):
        while True:
            best, score = None, 0.0
            for slot in slots:
                if chosen[slot.name] is not None or (like_only and not slot.like):
                    continue
                for n, value in enumerate(left):
                    if like_only and not slot.is_like(value.text):
                        continue
                    if sure_only and not value.sure:
                        continue
                    points = points_of(slot, value) * (1.0 if value.sure else 0.5) - 0.01 * n
                    points += OF_TURN * value.turn * (points > 0)
                    if cues is not None and points > 0:
                        points += cues.points(slot, value)
                    points -= 0.2 * (slot.kind in ("text", "path"))
                    if points > score:
                        best, score = (slot, value), points
            if best is None:
                break
            slot, value = best
            left = [other for other in left if other.end <= value.start or value.end <= other.start]
            places[slot.name] = value
            written = written_value(slot, value, recipe.line)
            chosen[slot.name] = in_place(written, slot, recipe.line)
            if chosen[slot.name] is None:  # it cannot stand there: the place stays open
                slots = [other for other in slots if other is not slot]
                continue
            fit += score
            if slot.like and not slot.is_like(value.text):
                fit -= 3.0  # another kind of file is meant
    _in_order(recipe, slots, places, chosen)
    in_one_word = _IN_ONE_WORD.search(recipe.line) is not None
    left = _with_neighbours(
        chosen, places, [value for value in left if value in values], in_one_word
    )
    if "@" in (chosen.get("host") or ""):  # who logs in is said with the machine
        line = line.replace("<user>@", "")
        if chosen.get("user"):
            left.append(places["user"])
        chosen["user"] = None
    left = _name_target(chosen, left)
    if not any(value.sure and value.kind in ("file", "path") for value in left):
        _name_archive(chosen, slots)
    for slot in slots:
        if chosen[slot.name] is None and slot.default is not None:
            chosen[slot.name] = quoted(slot.default)
    if CONDITIONS in chosen:
        chosen[CONDITIONS] = conditions or None
    taken = sum(value is not None for value in chosen.values()) or 1
    placed = [value for value in values if value not in left]
    placed += [value for value in places.values() if value not in values]
    written = joined_quotes(with_values(line, chosen, parts))
    return FilledRecipe(recipe, written, chosen, left, fit / taken, placed, places)


#: The second of two places for numbers of one kind, and the first.
_PAIRS = (("second", "first"), ("column2", "column1"), ("column2", "column"), ("field2", "field"))


def _in_order(
    recipe: Recipe, slots: list[Slot], places: dict[str, Value], chosen: dict[str, str | None]
) -> None:
    """Two numbers of one kind stand in the order in which they were said."""
    by_name = {slot.name: slot for slot in slots}
    for later, first in _PAIRS:
        one, other = places.get(first), places.get(later)
        if one is None or other is None or one.start < other.start or one.kind != "number":
            continue
        places[first], places[later] = other, one
        for name in (first, later):
            chosen[name] = written_value(by_name[name], places[name], recipe.line)


def _name_target(chosen: dict[str, str | None], left: list[Value]) -> list[Value]:
    """Where only the ending of a new file is said, it is called as the one that it is made of. The
    values that then are left.
    """
    source, target = chosen.get("file"), chosen.get("target")
    if "target" not in chosen or not source or "." not in source or "'" in source:
        return left
    said = next((one for one in left if one.kind == "extension"), None)
    ending = target if target in ENDINGS else (said.text if said and target is None else "")
    if not ending or source.endswith(f".{ending}"):
        return left
    chosen["target"] = f"{source.rpartition('.')[0]}.{ending}"
    return [one for one in left if one is not said or target is not None]


def _name_archive(chosen: dict[str, str | None], slots: list[Slot]) -> None:
    """An archive that is made and not named is called as what it is made of."""
    slot = next((one for one in slots if one.name == "archive" and one.like), None)
    source = chosen.get("folder") or chosen.get("file") or ""
    if slot is None or chosen["archive"] is not None or not re.fullmatch(r"[\w./~-]+", source):
        return
    name = os.path.basename(source.rstrip("/"))
    if name.strip(".~"):
        chosen["archive"] = name + slot.ending


def _with_neighbours(
    chosen: dict[str, str | None], places: dict[str, Value], left: list[Value], in_one_word: bool
) -> list[Value]:
    """Several values in a row (`a.txt, b.txt and c.txt`) go where the first of them went; the
    values that then are left. `in_one_word`: groups stand in one word, with commas.
    """
    for name, value in places.items():
        if name.rstrip("s") not in _SEVERAL:
            continue
        end = value.end
        for other in sorted(left, key=lambda one: one.start):
            alike = other.kind == value.kind or {other.kind, value.kind} <= {"file", "path", "name"}
            gap = other.start - end
            in_a_row = 0 < gap <= 12 if other.before == "and" else gap == 2 and not other.before
            if in_a_row and alike and other.unit == value.unit:
                kind = "file" if name.rstrip("s") in FILE_KINDS else ""
                word = as_operand(quoted(other.text, raw_glob=other.kind == "glob"), kind)
                if word is None:
                    continue
                chosen[name] = f"{chosen[name]}{',' if in_one_word else ' '}{word}"
                left = [one for one in left if one is not other]
                end = other.end
    return left


def _in_quotes(text: str, name: str, line: str) -> str | None:
    """A value for a place within quotes: only what means nothing there, or quoted once more for the
    shell that reads it.
    """
    if re.fullmatch(r"\w[\w.:@%+,-]*", text):
        return text
    return literally(literally(text))[1:-1] if name in shell_script_slots(line) else None


def written_value(slot: Slot, value: Value, line: str) -> str | None:
    """The value as it stands in the line, None if it cannot."""
    text = value.text
    if f"/<{slot.name}>/" in line:  # part of a script of sed, in which a slash would end it
        text = text.replace("/", "\\/")
    if slot.kind == "schedule":
        return text  # made by us
    if slot.kind == "calendar":
        return calendar_of(text)
    if f"origin/<{slot.name}>" in line:
        text = text.removeprefix("origin/")
    if slot.kind == "sum":
        return re.sub(r"[^0-9.+*/^-]", "", text).lstrip("+*/^-") or "0"
    if slot.name in LENGTHS and is_time(value.unit):
        count = float(text) * seconds_in(value.unit) / LENGTHS[slot.name]
        if abs(round(count) - count) > NEARLY * count:
            return None  # half an hour is no number of days
        text = str(round(count))
    if slot.name in quoted_slots(line):
        if slot.kind == "command" and _PLAIN_COMMAND.fullmatch(text):
            return text
        return _in_quotes(text, slot.name, line)
    if slot.kind in PLAIN and slot.kind not in ("word", "date", "time"):
        text = re.sub(r"[^\w.]", "", text) or "0"
    if slot.kind == "duration" and is_time(value.unit) and seconds_in(value.unit) > 1:
        days = seconds_in(value.unit) // DAY
        text = f"{float(text) * (days or 1):g}" + ("d" if days else value.unit[0])
    if slot.kind == "command" and value.kind == "file" and "/" not in text:
        text = f"./{text}"
    if (
        slot.kind == "command"
        and value.kind == "text"
        and re.fullmatch(r"[\w./-]+(?: [\w./@%+=:,-]+)*", text)
    ):
        return text  # words that mean nothing else to a shell
    if slot.kind == "glob" and value.kind == "extension":
        return f"'*.{text}'" if re.fullmatch(r"\w+", text) else quoted(f"*.{text}")
    if slot.kind == "glob":
        return quoted(text)
    if value.kind == "extension" and slot.kind != "extension":
        return f"*.{text}" if re.fullmatch(r"\w+", text) else quoted(text)
    if slot.kind == "folder" and len(text) > 1:
        text = text.rstrip("/")
    return quoted(text, raw_glob=value.kind == "glob")
