"""What options add to a line, by how people ask for it. It stands beside what we know of a command,
in `git.asks` for `git.toml`, in TOML:

    ["git log"]
    "-n <number>" = { asks = ["the last <number>", "at most <number>"], excludes = ["--all"] }
    "--reverse" = { asks = ["oldest first"], excludes = ["--graph"], needs = ["--format"] }

The key is what is put into the line, with places for values; in `any.asks`, for what every line
may get, `<line>` stands for the line as it was. `asks`: phrases, each with places that the key has;
`excludes`: what cannot stand beside it; `needs`: one of these has to be there.
"""

from __future__ import annotations

import json
import re

from dowsing.knowledge.compiled import Part, part
from dowsing.knowledge.stems import stem
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterable, Iterator
    from typing import Any

#: The table for what every line may get, and the place of the line in it.
ANY, LINE = "any", "<line>"
_KEYS = frozenset(("asks", "excludes", "needs"))
_PLACE = re.compile(r"<[a-z][a-z0-9-]*>")
_ITEM = re.compile(r"<[a-z][a-z0-9-]*>|[^\W_]+")
#: Words that deny, each as good as the other.
DENYING = frozenset("no not without never dont nothing none neither nor isnt arent cannot".split())
NO = "no"
#: Words that a phrase is as good without.
FILLING = frozenset(
    "the a an is are be of it its that this those these them they and also please so i me my do "
    "does would should".split()
)


class Addition(Record):
    """Something that may be put into the line of a command: `text` with places for values;
    `phrases`: how it is asked for, each as stems and places, parted by blanks; what it `excludes`,
    and what it `needs` one of.
    """

    text: str
    phrases: list[str]
    excludes: list[str]
    needs: list[str]


def phrase_items(text: str) -> str:
    """A phrase as the index keeps it: its stems and places, with blanks between."""
    items = [match[0] for match in _ITEM.finditer(text.casefold().replace("'", ""))]
    telling = [one for one in items if one not in FILLING] or items
    return " ".join(item_of(one) for one in telling)


def item_of(word: str) -> str:
    """A word of a phrase or a sentence as they are compared; a place is left as it is."""
    if word.startswith("<"):
        return word
    return NO if word in DENYING else stem(word)


def faults_of_asks(name: str, rows: dict[str, Any]) -> Iterator[str]:
    """What is wrong in a file: unknown keys, phrases with places that the line has not."""
    for command, additions in rows.items():
        for text, row in additions.items():
            unknown = sorted(set(row) - _KEYS)
            if unknown or not row.get("asks"):
                yield f"{name}: {command} {text}: unknown key {unknown}, or nothing asks for it"
            if command == ANY and LINE not in text:
                yield f"{name}: {text} has no place for the line"
            for phrase in row.get("asks", []):
                strange = set(_PLACE.findall(phrase)) - set(_PLACE.findall(text))
                if strange:
                    yield f"{name}: {command} {text}: no place {' '.join(sorted(strange))}"


def packed_additions() -> Iterable[tuple[str, str]]:
    """The additions as the index keeps them, by their command."""
    found: dict[str, dict[str, Any]] = part(Part.ASKS)
    for command, rows in found.items():
        additions = [
            [
                text,
                list(dict.fromkeys(phrase_items(one) for one in row["asks"])),
                row.get("excludes", []),
                row.get("needs", []),
            ]
            for text, row in rows.items()
        ]
        yield command, json.dumps(additions, ensure_ascii=False, separators=(",", ":"))


def additions_of(packed: str) -> list[Addition]:
    """The additions of a command, as the index has them."""
    return [Addition(*row) for row in json.loads(packed)]
