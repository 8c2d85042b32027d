"""What programs answered when they were asked for their usage, kept by the identity of their files.

Whether there was a usage text is in the name of the file that keeps the answer, so that it is known
without reading it.
"""

from __future__ import annotations

import os
import zlib

from dowsing.knowledge.effects import asked_with
from dowsing.model.plainfile import plain_only
from dowsing.model.record import Record
from dowsing.model.replacing import replace_text
from dowsing.readers.usage.usage_kind import UsageKind

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.machine.settings import Settings

FLAG = "--help"  # what a builtin is asked with
VERSION = 5
MOST_KEPT = 4000


class Usage(Record):
    """What was asked and what came back. `kind` says which it is."""

    kind: UsageKind
    says: str
    text: str


def may_ask(settings: Settings) -> bool:
    """Whether the settings let programs be asked at all."""
    return settings.values.get("usage") != "never"


def key_of(path: str, words: str) -> str:
    """What an answer is kept by: the program, what it was asked, and what changes when the program
    does.
    """
    try:
        real = os.path.realpath(path)
        state = os.stat(real)
    except OSError:
        return f"{path}\n{words}"
    return f"{path}\n{words}\n{real} {state.st_ino} {state.st_mtime_ns} {state.st_size}"


def word_for(path: str) -> str:
    """The word that asks the program of that path for its usage."""
    return asked_with(os.path.basename(path))


def usage_folder(settings: Settings) -> str:
    """The folder with the answers."""
    return os.path.join(settings.cache, "usage")


def _place(settings: Settings, key: str, there: bool) -> str:
    mark = zlib.crc32(f"{VERSION}\n{key}".encode("utf-8", "surrogateescape"))
    return os.path.join(usage_folder(settings), f"{mark:08x}-{'text' if there else 'none'}.json")


def has_text(settings: Settings, key: str) -> bool | None:
    """Whether the answer was a usage text; None if there is no answer."""
    if os.path.exists(_place(settings, key, True)):
        return True
    return False if os.path.exists(_place(settings, key, False)) else None


def kept(settings: Settings, key: str) -> Usage | None:
    """The answer that is kept under the key, or None."""
    import json

    for there in (True, False):
        try:
            with open(_place(settings, key, there), encoding="utf-8", opener=plain_only) as file:
                found = json.load(file)
        except (OSError, ValueError):
            continue
        if isinstance(found, dict) and found.get("key") == key:
            return Usage(
                UsageKind(str(found.get("kind"))), str(found.get("says")), str(found.get("text"))
            )
    return None


def keep(settings: Settings, key: str, usage: Usage) -> None:
    """Keep an answer; where that cannot be written the program is asked again next time."""
    import json

    place = _place(settings, key, usage.kind == UsageKind.USAGE)
    folder = os.path.dirname(place)
    entry = {"key": key, "kind": usage.kind, "says": usage.says, "text": usage.text}
    try:
        os.makedirs(folder, exist_ok=True)
        replace_text(place, json.dumps(entry), lasting=False)
        names = os.listdir(folder)
        for name in names[: max(len(names) - MOST_KEPT, 0)]:
            os.unlink(os.path.join(folder, name))
    except OSError:
        pass
