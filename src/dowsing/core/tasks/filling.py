"""Values into the slots of a recipe: by kind, by what values are like, by the word before them; quoted for the shell."""

from __future__ import annotations

import fnmatch
import re

from dowsing.core.record import Record
from dowsing.core.tasks.recipe import PART, PLAIN, SLOT, Recipe, Slot
from dowsing.core.tasks.values import Value

_DAYS = {"day": 1, "week": 7, "month": 30, "year": 365}
_TARGETS = ("new", "target", "copy", "link", "output", "destination", "into", "backup")
#: Kinds of values that a slot of a kind takes, the best first.
_FITS = {
    "file": ("file", "path", "name", "glob", "text", "extension"),
    "folder": ("path", "name", "file"),
    "path": ("path", "file", "name", "glob"),
    "number": ("number",),
    "size": ("size", "number"),
    "duration": ("number",),
    "date": ("text", "name", "number"),
    "user": ("name", "text"),
    "group": ("name", "text"),
    "host": ("host", "name", "file"),
    "address": ("name", "host", "file"),
    "port": ("number",),
    "url": ("url",),
    "pattern": ("text", "name"),
    "glob": ("glob", "extension", "file"),
    "extension": ("extension",),
    "signal": ("name",),
    "mode": ("number", "text"),
    "command": ("text",),
    "text": ("text", "name", "path", "file"),
}
#: Words that stand before values of a kind.
_PLACES = {
    "host": ("on", "at", "to", "from"),
    "user": ("as", "user"),
    "folder": ("under", "in", "inside", "below", "within"),
}
_SAFE = re.compile(r"[A-Za-z0-9_@%+=:,./^~-]+\Z")


class Filled(Record):
    """A recipe with values: the line, and what stands in each slot (None where nothing does); how well it fits."""

    recipe: Recipe
    line: str
    values: dict[str, str | None]
    unused: list[Value]
    fit: float

    @property
    def is_open(self) -> bool:
        """Whether a slot has no value."""
        return "<" in self.line and any(value is None for value in self.values.values())


def quoted(value: str, raw_glob: bool = False) -> str:
    """The value as one word of the shell, whatever is in it; a leading dash is kept from being an option by `./`.

    `raw_glob`: the shell is to put names in the place of `*`, `?` and `[…]`.
    """
    value = value.replace("\x00", "")
    if raw_glob and re.fullmatch(r"[\w@%+=:,./*?~-]+", value):
        return f"./{value}" if value.startswith("-") else value
    if value.startswith("-"):
        value = "./" + value
    if value == "~" or (value.startswith("~/") and _SAFE.match(value)):
        return value
    if _SAFE.match(value) and not value.startswith("~"):
        return value
    return "'" + value.replace("'", "'\\''") + "'"


def fill(recipe: Recipe, values: list[Value]) -> Filled:
    """The recipe's line with the values that fit."""
    left = list(values)
    chosen: dict[str, str | None] = {}
    fit = 0.0
    # slots that say what their values are like choose first, and again last, then among others too
    choosing = sorted(recipe.slots, key=lambda one: (not one.like, one.kind in ("text", "path")))
    for n_slot, slot in enumerate([*choosing, *(one for one in choosing if one.like)]):
        if chosen.get(slot.name) is not None:
            continue
        best, score = None, 0.0
        for n, value in enumerate(left):
            if slot.like and n_slot < len(choosing) and not _is_like(slot, value):
                continue
            points = _points(slot, value) - 0.01 * n
            if points > score:
                best, score = value, points
        if best is not None:
            left.remove(best)
            chosen[slot.name] = _written(slot, best, between_slashes=f"/<{slot.name}>/" in recipe.line)
            fit += score
            if slot.like and not _is_like(slot, best):
                fit -= 3.0  # another kind of file is meant
        else:
            chosen[slot.name] = None
    for slot in recipe.slots:
        if chosen[slot.name] is None and slot.default is not None:
            chosen[slot.name] = quoted(slot.default)
    return Filled(
        recipe, with_values(recipe.line, chosen), {slot.name: chosen[slot.name] for slot in recipe.slots}, left, fit
    )


def _is_like(slot: Slot, value: Value) -> bool:
    return any(fnmatch.fnmatch(value.text, pattern) for pattern in slot.like.split())


def _points(slot: Slot, value: Value) -> float:
    fits = _FITS.get(slot.kind, ())
    if value.kind not in fits:
        return 0.0
    points = 2.0 - 0.3 * fits.index(value.kind)
    if slot.like:
        if not _is_like(slot, value):
            return (
                points - 1.2
                if slot.kind == "path" and value.kind in ("path", "name") and "." not in value.text
                else 0.0
            )
        points += 1.5
    if value.unit in ("old", "new"):
        return 4.0 if slot.name == value.unit else 0.0
    target = any(word in slot.name for word in _TARGETS)
    if target and value.is_target:
        points += 1.2
    elif not target and value.before and value.unit != "owner":
        points += 0.6 if not value.is_target else (0.3 if slot.kind == "folder" else -0.5)
    if value.before in _PLACES.get(slot.kind, ()) or (slot.kind == "user" and value.unit == "owner"):
        points += 1.0
    elif value.unit == "owner":
        return 0.0
    if slot.name in ("days", "minutes", "hours", "lines") and value.kind == "number":
        if (
            value.unit
            and not slot.name.startswith(value.unit[:3])
            and not (slot.name == "days" and value.unit in _DAYS)
        ):
            return 0.0
        points += 0.8 if value.unit else 0.0
    if slot.kind in ("port", "number") and value.unit in _DAYS and slot.name != "days":
        return 0.0
    if slot.name in ("column", "field") and value.unit in ("ordinal", "column"):
        points += 0.8
    if slot.name == value.before:
        points += 1.0
    return points


def _written(slot: Slot, value: Value, between_slashes: bool = False) -> str:
    text = value.text
    if between_slashes:  # part of a script of sed, in which a slash would end it
        text = text.replace("/", "\\/")
    if slot.kind in PLAIN:
        text = re.sub(r"\W", "", text) or "0"
    if slot.name == "days" and value.unit in _DAYS:
        text = str(int(float(text)) * _DAYS[value.unit])
    if slot.kind == "glob" and value.kind == "extension":
        return f"'*.{text}'" if re.fullmatch(r"\w+", text) else quoted(f"*.{text}")
    if slot.kind == "glob":
        return quoted(text)
    if value.kind == "extension" and slot.kind != "extension":
        return f"*.{text}" if re.fullmatch(r"\w+", text) else quoted(text)
    if slot.kind == "folder" and len(text) > 1:
        text = text.rstrip("/")
    return quoted(text, raw_glob=value.kind == "glob")


def with_values(line: str, values: dict[str, str | None]) -> str:
    """A recipe's line with these values; parts whose slots have none are left out, other slots stay."""

    def part(match: re.Match[str]) -> str:
        names = SLOT.findall(match[1])
        return match[1] if names and all(values.get(name) for name in names) else ""

    return SLOT.sub(lambda match: values.get(match[1]) or match[0], PART.sub(part, line)).strip()
