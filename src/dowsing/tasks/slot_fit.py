"""How well a value fits a slot: by its kind, its unit, the noun and the words before it."""

from __future__ import annotations

import re

from dowsing.knowledge.recipes import Slot
from dowsing.knowledge.units import SECONDS_IN, is_time

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.tasks.values import Value

#: Slots for lengths of time, by their units.
LENGTHS = {f"{unit}s": SECONDS_IN[unit] for unit in ("second", "minute", "hour", "day")}
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
#: Slots for columns, and what stands before the number of one.
_FIELDS = ("column", "field", "key")
_BEFORE_A_COLUMN = ("column", "columns", "field", "fields", "and", "by", "to", "row")
#: Words before a place, where nobody's name stands.
_INTO = frozenset(("in", "into", "onto", "under", "below", "inside"))
#: Kinds of slots, and words before a value that say that it is something else.
_ELSEWHERE = frozenset(("user", word) for word in ("on", "at", "to", "from")) | frozenset(
    ("host", word) for word in ("as", "by", "user")
)
#: Slots, by name or kind, that a value with such a noun is for.
NOUN_SLOTS = {
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
#: So wide and so high.
_EXTENT = re.compile(r"\d+x\d+")
#: Kinds whose values are names of files.
FILE_KINDS = frozenset(("file", "folder", "path", "glob"))
#: Names of slots that are verbs as well: what stands behind such a word is not that.
VERBS_TOO = frozenset("copy link backup archive name query output".split())
#: Endings that are said for a file: `as mp3`.
ENDINGS = frozenset(
    "mp3 mp4 ogg wav flac m4a mkv webm avi mov gif png jpg jpeg webp pdf html docx odt txt md csv "
    "json tiff bmp epub svg zip tgz tar gz xz bz2 zst 7z tsv xml yml yaml log sh py".split()
)


def points_of(slot: Slot, value: Value) -> float:
    """How well a value fits a slot: 0 if it does not."""
    if _cannot_stand(slot, value):
        return 0.0
    points = 2.0 - 0.3 * _FITS[slot.kind].index(value.kind)
    if slot.kind == "folder" and value.kind == "file":
        points -= 0.8  # a name with an ending is seldom a folder's
    if slot.like and not slot.is_like(value.text):
        is_name = value.kind in ("path", "name") and "." not in value.text
        return points - 1.2 if slot.kind == "path" and is_name else 0.0
    if value.unit in ("old", "new"):
        return 4.0 if slot.name == value.unit else 0.0
    if _is_of_another_kind(slot, value):
        return 0.0
    if value.unit == "owner" and not _by_place(slot, value):
        return 0.6 if slot.kind in ("text", "host", "folder") else 0.0
    if value.unit == "epoch" and slot.kind != "text":
        return 4.0 if slot.name == "epoch" else 0.0
    points += 1.5 if slot.like else 0.0
    for part in (_by_noun, _by_target, _by_place, _by_length, _by_number, _by_word_before):
        points += part(slot, value)
    return points


def _cannot_stand(slot: Slot, value: Value) -> bool:
    """Whether values of such a kind never stand in such a slot."""
    if value.kind not in _FITS.get(slot.kind, ()):
        return True
    if (value.unit == "excluded") != slot.name.startswith("exclu"):
        return True
    if value.kind == "extension":
        return slot.kind in ("file", "path") and value.before in ("to", "into", "as")
    if value.kind == "number":
        return _is_no_such_number(slot, value)
    if value.kind == "file" and slot.kind == "folder":
        # a name with such an ending is never a folder's
        is_file = value.text.rpartition(".")[2].lower() in ENDINGS
        return is_file or value.before not in _PLACES["folder"]
    return value.kind == "path" and slot.name in _OWN_NOUN - {"folder", "branch"}


def _is_no_such_number(slot: Slot, value: Value) -> bool:
    """Whether a number cannot be what the slot is for: a name, a field, bytes of which lines are
    said, a mode of other figures.
    """
    return (
        slot.name in _NO_NUMBERS
        or (slot.kind == "word" and slot.name in _FIELDS)
        or (slot.kind == "size" and bool(value.unit))
        or (slot.kind == "mode" and not re.fullmatch(r"[0-7]{3,4}", value.text))
    )


def _is_of_another_kind(slot: Slot, value: Value) -> bool:
    """Whether the form, the unit or the word before a value says that it is for something else."""
    if _EXTENT.fullmatch(value.text) and slot.kind in FILE_KINDS:
        return True
    if slot.kind == "user" and not _by_place(slot, value):
        return value.before in _INTO or not value.start
    if value.unit == "nth" and slot.name != "line" and not _is_column(slot, value):
        return True
    if slot.kind == "pattern" and value.kind == "number":
        return value.before not in _PLACES["pattern"]
    return _has_another_unit(slot, value)


def _has_another_unit(slot: Slot, value: Value) -> bool:
    """Whether the unit of a number is none of the slot's."""
    if slot.name in (*LENGTHS, "lines") and value.kind == "number":
        is_own = slot.name.startswith(value.unit[:3]) or (
            slot.name in LENGTHS and is_time(value.unit)
        )
        return bool(value.unit) and not is_own
    if slot.kind in ("port", "number"):
        return is_time(value.unit)
    return slot.kind == "duration" and bool(value.unit) and not is_time(value.unit)


def _is_column(slot: Slot, value: Value) -> bool:
    return slot.name.rstrip("0123456789") in _FIELDS and value.kind == "number"


def _by_target(slot: Slot, value: Value) -> float:
    """What it says that something goes there, or does not."""
    goes_there = value.before in ("to", "into", "onto")
    aimed = value.is_target and not (slot.name == "link" and goes_there)
    if any(word in slot.name for word in _TARGETS):
        if aimed:
            return 1.2
        return -0.8 if value.before == "and" else 0.0  # one more of what stands before it
    if slot.kind != "folder" and value.noun in ("folder", "directory") and value.is_target:
        return -0.5
    if value.before in ("", "and") or value.unit == "owner":
        return 0.0
    if not value.is_target:
        return 0.6
    return 0.3 if slot.kind == "folder" else -0.5


def _by_place(slot: Slot, value: Value) -> float:
    """What the word before a value says for the kind of the slot."""
    is_owner = slot.kind == "user" and value.unit == "owner"
    if is_owner or value.before in _PLACES.get(slot.kind, ()):
        return 1.0
    return -0.8 if (slot.kind, value.before) in _ELSEWHERE else 0.0


def _by_length(slot: Slot, value: Value) -> float:
    """What the unit says for a length of time or a number of lines."""
    if slot.name not in (*LENGTHS, "lines") or value.kind != "number" or not value.unit:
        return 0.0
    return 0.8 + (0.4 if slot.name.startswith(value.unit[:3]) else 0.0)


def _by_number(slot: Slot, value: Value) -> float:
    """What is said of a number: the end of a range, a port, a count, a column, a line."""
    points = 0.0
    if slot.name in _OF_RANGE and value.unit in ("from", "until"):
        points += 1.0 if _OF_RANGE[slot.name] == value.unit else 0.2
    if value.unit == "port":
        points += 2.0 if slot.kind == "port" else -1.0
    if slot.name == "count" and not value.unit:
        points += 0.3  # so many of something
    if slot.name == "line" and value.unit in ("ordinal", "nth"):
        points += 0.8
    if _is_column(slot, value) and value.unit in ("ordinal", "column", "from", "until"):
        points += 0.8
    elif _is_column(slot, value) and value.before not in _BEFORE_A_COLUMN:
        points -= 0.8
    return points


def _by_word_before(slot: Slot, value: Value) -> float:
    """What the word before a value says for the slot by its name."""
    points = 0.0
    if slot.kind == "port" and value.before == "port":
        points += 1.0
    if slot.kind == "pattern" and value.kind == "file" and value.before not in _PLACES["pattern"]:
        points -= 0.8
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
    if value.noun not in NOUN_SLOTS or value.kind in ("extension", "number", "size"):
        return 0.0
    if (
        slot.name.rstrip("0123456789") in NOUN_SLOTS[value.noun]
        or slot.kind in NOUN_SLOTS[value.noun]
    ):
        return 0.6
    if slot.name in _OWN_NOUN:
        return -9.0
    if value.noun in ("folder", "directory") and slot.kind == "file":
        return -0.8
    return -1.2 if slot.kind not in ("path", "file", "pattern") else -0.2
