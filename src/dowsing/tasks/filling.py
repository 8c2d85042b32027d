"""Values into the slots of a recipe: by kind, by what values are like, by the word before them;
quoted for the shell.
"""

from __future__ import annotations

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
from dowsing.knowledge.units import DAY, SECONDS_IN, is_time, seconds_in
from dowsing.model.quoting import joined_quotes
from dowsing.model.quoting import quoted as literally
from dowsing.model.quoting import word as shell_word
from dowsing.model.record import Record
from dowsing.tasks.schedules import calendar_of

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Protocol

    from dowsing.tasks.values import Value
else:
    Protocol = object

#: Slots for lengths of time, by their units.
_LENGTHS = {f"{unit}s": SECONDS_IN[unit] for unit in ("second", "minute", "hour", "day")}
_TARGETS = ("new", "target", "copy", "link", "output", "destination", "into", "backup")
#: Kinds of values that a slot of a kind takes, the best first.
_FITS = {
    "file": ("file", "path", "name", "glob", "text", "extension"),
    "folder": ("path", "name", "file"),
    "path": ("path", "file", "name", "glob", "extension"),
    "number": ("number",),
    "size": ("size", "number"),
    "duration": ("number",),
    "date": ("date", "time", "text"),
    "time": ("time", "number"),
    "schedule": ("schedule",),
    "calendar": ("schedule",),
    "user": ("name", "text"),
    "group": ("name", "text"),
    "host": ("host", "name", "file"),
    "address": ("name", "host", "file"),
    "port": ("number",),
    "url": ("url", "remote"),
    "remote": ("remote",),
    "sum": ("sum", "number"),
    "separator": ("separator", "text"),
    "pattern": ("text", "name", "number", "file"),
    "glob": ("glob", "extension", "file", "name"),
    "extension": ("extension",),
    "word": ("name", "text", "extension", "number", "host"),
    "signal": ("name",),
    "mode": ("number", "text"),
    "command": ("command", "text", "file", "path", "name"),
    "text": ("text", "name", "path", "file", "number", "date", "command", "host"),
}
#: Words that stand before values of a kind.
_PLACES = {
    "host": ("on", "at", "to", "from", "host", "machine", "server", "remote"),
    "user": ("as", "user", "account", "by", "of"),
    "group": ("group",),
    "pattern": (
        "for",
        "contain",
        "contains",
        "containing",
        "word",
        "text",
        "string",
        "phrase",
        "with",
        "mention",
        "mentions",
        "mentioning",
        "say",
        "says",
        "match",
        "matching",
        "pattern",
        "term",
    ),
    "text": ("called", "named", "service", "package", "branch", "process", "program", "message"),
    "command": ("run", "start", "command", "script"),
    "folder": ("under", "in", "inside", "below", "within"),
}
#: Slots for the ends of a range.
_OF_RANGE = {
    "first": "from",
    "start": "from",
    "from": "from",
    "begin": "from",
    "last": "until",
    "end": "until",
    "second": "until",
    "to": "until",
}
#: Kinds of slots, and words before a value that say that it is something else.
#: Slots for columns, and what stands before the number of one.
_FIELDS = ("column", "field", "key")
_BEFORE_A_COLUMN = ("column", "columns", "field", "fields", "and", "by", "to", "row")
_INTO = frozenset(("in", "into", "onto", "under", "below", "inside"))
_ELSEWHERE = frozenset(("user", word) for word in ("on", "at", "to", "from")) | frozenset(
    ("host", word) for word in ("as", "by", "user")
)
#: Slots, by name or kind, that a value with such a noun is for.
_NOUN_SLOTS = {
    "folder": ("folder", "path", "copy", "target"),
    "directory": ("folder", "path", "copy", "target"),
    "file": (
        "file",
        "path",
        "archive",
        "name",
        "first",
        "second",
        "existing",
        "old",
        "new",
        "copy",
        "target",
        "text",
        "member",
    ),
    "user": ("user", "owner", "author"),
    "account": ("user",),
    "group": ("group",),
    "branch": ("branch", "new", "old", "commit"),
    "service": ("service", "unit"),
    "daemon": ("service",),
    "package": ("package",),
    "host": ("host",),
    "machine": ("host",),
    "server": ("host",),
    "program": ("program", "command", "service"),
    "process": ("program", "pid"),
    "tag": ("tag", "commit"),
    "database": ("database", "text"),
    "container": ("container",),
    "image": ("image", "file"),
    "field": ("field", "column", "key"),
    "column": ("column", "field", "key"),
    "key": ("key", "field"),
    "table": ("table",),
    "pod": ("pod",),
    "deployment": ("name",),
    "volume": ("name", "device"),
    "network": ("name", "network"),
    "link": ("link", "file", "path"),
    "symlink": ("link", "file", "path"),
    "archive": ("archive", "file"),
    "module": ("module", "package", "name"),
    "timer": ("timer", "unit", "service"),
    "interface": ("interface",),
    "device": ("device", "interface"),
    "repository": ("repository", "folder", "url"),
    "session": ("session", "name"),
}
#: Slots whose values are of one kind of thing only.
_OWN_NOUN = frozenset(
    (
        "folder",
        "user",
        "group",
        "branch",
        "service",
        "package",
        "host",
        "tag",
        "container",
        "program",
    )
)
#: Slots for names that are never numbers alone.
_NO_NUMBERS = frozenset(
    "package service branch container image user group program name script key command".split()
)
_SEVERAL = frozenset(("file", "folder", "path", "package", "service", "user"))
#: So wide and so high.
_EXTENT = re.compile(r"\d+x\d+")
#: Kinds whose values are names of files.
_FILES = frozenset(("file", "folder", "path", "glob"))
#: A command that may stand in single quotes and in a cron table as it is.
_PLAIN_COMMAND = re.compile(r"[\w./~][\w.:@+,=/~ -]*")
#: Names of slots that are verbs as well: what stands behind such a word is not that.
VERBS_TOO = frozenset("copy link backup archive name query output".split())
OF_TURN = 0.8  # how much each revision counts that says a value
_SAFE = re.compile(r"[A-Za-z0-9_@%+=:,./^~-]+\Z")


class SlotCues(Protocol):
    """What the words of a sentence say of where the values of slots stand."""

    def points(self, slot: Slot, value: Value) -> float:
        """What the words around a value say for the slot."""

    def more(self, slots: list[Slot], values: list[Value]) -> list[Value]:
        """Words that may be values of these slots by their place, beside the known values."""


class FilledRecipe(Record):
    """A recipe with values: the line, and what stands in each slot (None where nothing does); how
    well they fit on the average, and which values of the sentence were placed.
    """

    recipe: Recipe
    line: str
    values: dict[str, str | None]
    unused: list[Value]
    fit: float
    placed: list[Value] = []  # noqa: RUF012 - a record is immutable


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
    return f"{quote}./{word[len(quote) :]}" if kind in _FILES else None


def _in_place(word: str | None, slot: Slot, line: str) -> str | None:
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
                    points = _points(slot, value) * (1.0 if value.sure else 0.5) - 0.01 * n
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
            written = _written(slot, value, recipe.line)
            chosen[slot.name] = _in_place(written, slot, recipe.line)
            if chosen[slot.name] is None:  # it cannot stand there: the place stays open
                slots = [other for other in slots if other is not slot]
                continue
            fit += score
            if slot.like and not slot.is_like(value.text):
                fit -= 3.0  # another kind of file is meant
    _in_order(recipe, slots, places, chosen)
    left = _with_neighbours(chosen, places, [value for value in left if value in values])
    if "@" in (chosen.get("host") or ""):  # who logs in is said with the machine
        line = line.replace("<user>@", "")
        if chosen.get("user"):
            left.append(places["user"])
        chosen["user"] = None
    left = _name_target(chosen, left)
    for slot in slots:
        if chosen[slot.name] is None and slot.default is not None:
            chosen[slot.name] = quoted(slot.default)
    if CONDITIONS in chosen:
        chosen[CONDITIONS] = conditions or None
    taken = sum(value is not None for value in chosen.values()) or 1
    placed = [value for value in values if value not in left]
    placed += [value for value in places.values() if value not in values]
    written = joined_quotes(with_values(line, chosen, parts))
    return FilledRecipe(recipe, written, chosen, left, fit / taken, placed)


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
            chosen[name] = _written(by_name[name], places[name], recipe.line)


#: Endings that are said for a file: `as mp3`.
_ENDINGS = frozenset(
    "mp3 mp4 ogg wav flac m4a mkv webm avi mov gif png jpg jpeg webp pdf html docx odt txt md csv "
    "json tiff bmp epub svg zip tgz tar gz xz bz2 zst 7z tsv xml yml yaml log sh py".split()
)


def _name_target(chosen: dict[str, str | None], left: list[Value]) -> list[Value]:
    """Where only the ending of a new file is said, it is called as the one that it is made of. The
    values that then are left.
    """
    source, target = chosen.get("file"), chosen.get("target")
    if "target" not in chosen or not source or "." not in source or "'" in source:
        return left
    said = next((one for one in left if one.kind == "extension"), None)
    ending = target if target in _ENDINGS else (said.text if said and target is None else "")
    if not ending or source.endswith(f".{ending}"):
        return left
    chosen["target"] = f"{source.rpartition('.')[0]}.{ending}"
    return [one for one in left if one is not said or target is not None]


def _with_neighbours(
    chosen: dict[str, str | None], places: dict[str, Value], left: list[Value]
) -> list[Value]:
    """Several values in a row (`a.txt, b.txt and c.txt`) go where the first of them went; the
    values that then are left.
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
                kind = "file" if name.rstrip("s") in _FILES else ""
                word = as_operand(quoted(other.text, raw_glob=other.kind == "glob"), kind)
                if word is None:
                    continue
                chosen[name] = f"{chosen[name]} {word}"
                left = [one for one in left if one is not other]
                end = other.end
    return left


def _points(slot: Slot, value: Value) -> float:
    fits = _FITS.get(slot.kind, ())
    if value.kind not in fits or (value.unit == "excluded") != slot.name.startswith("exclu"):
        return 0.0
    if (
        value.kind == "extension"
        and slot.kind in ("file", "path")
        and value.before in ("to", "into", "as")
    ):
        return 0.0
    if value.kind == "number" and slot.name in _NO_NUMBERS:
        return 0.0
    if value.kind == "number" and slot.kind == "word" and slot.name in _FIELDS:
        return 0.0
    if value.kind == "number" and slot.kind == "size" and value.unit:
        return 0.0  # so many lines are no bytes
    points = 2.0 - 0.3 * fits.index(value.kind)
    if slot.kind == "folder" and value.kind == "file":
        if value.before not in _PLACES["folder"]:
            return 0.0
        if value.text.rpartition(".")[2].lower() in _ENDINGS:
            return 0.0  # such a one never is
        points -= 0.8  # a name with an ending is seldom a folder's
    if slot.name in _OWN_NOUN - {"folder", "branch"} and value.kind == "path":
        return 0.0
    if (
        slot.kind == "mode"
        and value.kind == "number"
        and not re.fullmatch(r"[0-7]{3,4}", value.text)
    ):
        return 0.0
    if slot.like:
        if not slot.is_like(value.text):
            return (
                points - 1.2
                if slot.kind == "path" and value.kind in ("path", "name") and "." not in value.text
                else 0.0
            )
        points += 1.5
    if value.unit in ("old", "new"):
        return 4.0 if slot.name == value.unit else 0.0
    if _EXTENT.fullmatch(value.text) and slot.kind in _FILES:
        return 0.0
    points += _by_noun(slot, value)
    target = any(word in slot.name for word in _TARGETS)
    aimed = value.is_target and not (slot.name == "link" and value.before in ("to", "into", "onto"))
    if target and aimed:
        points += 1.2
    elif target and value.before == "and":
        points -= 0.8  # one more of what stands before it
    elif (
        not target
        and slot.kind != "folder"
        and value.noun in ("folder", "directory")
        and value.is_target
    ):
        points -= 0.5
    elif not target and value.before not in ("", "and") and value.unit != "owner":
        points += 0.6 if not value.is_target else (0.3 if slot.kind == "folder" else -0.5)
    if value.before in _PLACES.get(slot.kind, ()) or (
        slot.kind == "user" and value.unit == "owner"
    ):
        points += 1.0
    elif (slot.kind, value.before) in _ELSEWHERE:
        points -= 0.8
    elif slot.kind == "user" and (value.before in _INTO or not value.start):
        return 0.0
    elif value.unit == "owner":
        return 0.6 if slot.kind in ("text", "host", "folder") else 0.0
    if slot.name in (*_LENGTHS, "lines") and value.kind == "number":
        if (
            value.unit
            and not slot.name.startswith(value.unit[:3])
            and not (slot.name in _LENGTHS and is_time(value.unit))
        ):
            return 0.0
        points += 0.8 if value.unit else 0.0
        points += 0.4 if slot.name.startswith(value.unit[:3] or "-") else 0.0
    elif (slot.kind in ("port", "number") and is_time(value.unit)) or (
        slot.kind == "duration" and value.unit and not is_time(value.unit)
    ):
        return 0.0
    if slot.name in _OF_RANGE and value.unit in ("from", "until"):
        points += 1.0 if _OF_RANGE[slot.name] == value.unit else 0.2
    if value.unit == "epoch" and slot.kind != "text":
        return 4.0 if slot.name == "epoch" else 0.0
    if value.unit == "port":
        points += 2.0 if slot.kind == "port" else -1.0
    if slot.name == "count" and not value.unit:
        points += 0.3  # so many of something
    if slot.kind == "port" and value.before == "port":
        points += 1.0
    if slot.name.rstrip("0123456789") in _FIELDS and value.kind == "number":
        is_column = value.unit in ("ordinal", "column", "from", "until")
        points += 0.8 if is_column else (0.0 if value.before in _BEFORE_A_COLUMN else -0.8)
    elif value.unit == "nth" and slot.name != "line":
        return 0.0
    if slot.name == "line" and value.unit in ("ordinal", "nth"):
        points += 0.8
    if slot.kind == "pattern" and value.kind == "file" and value.before not in _PLACES["pattern"]:
        points -= 0.8
    if slot.kind == "pattern" and value.kind == "number" and value.before not in _PLACES["pattern"]:
        return 0.0
    if value.before in ("process", "pid"):
        points += 1.0 if slot.name == "pid" else (-1.5 if slot.kind == "port" else 0.0)
    if value.before in (slot.name, slot.kind) and value.before not in VERBS_TOO:
        points += 1.0
    if slot.name == "owner" and value.before == "by":
        points += 1.0
    return points


def _by_noun(slot: Slot, value: Value) -> float:
    """What the noun beside a value says of it: that it is for a slot of this kind, or for
    another.
    """
    if value.noun not in _NOUN_SLOTS or value.kind in ("extension", "number", "size"):
        return 0.0
    if (
        slot.name.rstrip("0123456789") in _NOUN_SLOTS[value.noun]
        or slot.kind in _NOUN_SLOTS[value.noun]
    ):
        return 0.6
    if slot.name in _OWN_NOUN:
        return -9.0
    if value.noun in ("folder", "directory") and slot.kind == "file":
        return -0.8
    return -1.2 if slot.kind not in ("path", "file", "pattern") else -0.2


def _in_quotes(text: str, name: str, line: str) -> str | None:
    """A value for a place within quotes: only what means nothing there, or quoted once more for the
    shell that reads it.
    """
    if re.fullmatch(r"\w[\w.:@%+,-]*", text):
        return text
    return literally(literally(text))[1:-1] if name in shell_script_slots(line) else None


def _written(slot: Slot, value: Value, line: str) -> str | None:
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
    if slot.name in _LENGTHS and is_time(value.unit):
        text = str(max(1, round(float(text) * seconds_in(value.unit) / _LENGTHS[slot.name])))
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
