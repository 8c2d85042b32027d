"""What options add to a line, by how people ask for it. It stands beside what we know of a command,
in `git.asks` for `git.toml`, in TOML:

    ["git log"]
    "-n <number>" = { asks = ["the last <number>", "at most <number>"], excludes = ["--all"] }
    "--reverse" = { asks = ["oldest first"], excludes = ["--graph"], needs = ["--format"] }

The key is what is put into the line, with places for values; in `any.asks`, for what every line
may get, `<line>` stands for the line as it was. `asks`: phrases, each with places that the key has;
`excludes`: what cannot stand beside it; `needs`: one of these has to be there; `instead`: words of
the line, and what stands in their place with it. A key with `<columns>` has `columns`: the names
that may stand there, each with how it is called.
"""

from __future__ import annotations

import json
import math
import re
from collections import Counter

from dowsing.knowledge.recipes import SLOT
from dowsing.knowledge.stems import stem
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator
    from typing import Any

#: The table for what every line may get, and the place of the line in it.
ANY, LINE = "any", "<line>"
_KEYS = frozenset(("asks", "excludes", "needs", "columns", "instead"))
_ITEM = re.compile(r"<[a-z][a-z0-9-]*>|[^\W_]+")
#: The long name of an option.
_LONG = re.compile(r"--(\w[\w-]*)")
USUAL_PHRASES = 6  # of an addition
OF_A_PHRASE = 8  # how quickly it is enough that some of the phrases have a word
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
    and what it `needs` one of; `columns`: the names that may stand in its place for columns, each
    with phrases; `instead`: words of the line, and what stands in their place; `stems`: how much
    each speaks for it, to 100.
    """

    text: str
    phrases: list[str]
    excludes: list[str]
    needs: list[str]
    columns: dict[str, list[str]] = {}  # noqa: RUF012 - a record is immutable
    instead: dict[str, str] = {}  # noqa: RUF012
    stems: dict[str, int] = {}  # noqa: RUF012


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
                strange = set(SLOT.findall(phrase)) - set(SLOT.findall(text))
                if strange:
                    yield f"{name}: {command} {text}: no place <{'> <'.join(sorted(strange))}>"


def packed_additions(
    found: dict[str, dict[str, Any]],
) -> tuple[list[tuple[str, str]], list[tuple[str, float]]]:
    """The additions of the files as the index keeps them, by their command; and how telling each
    stem is of which one is asked for.
    """
    packed: list[tuple[str, str]] = []
    in_how_many: Counter[str] = Counter()
    whole = 0
    for command, rows in found.items():
        additions = [[text, *_packed(text, row)] for text, row in rows.items()]
        packed.append((command, json.dumps(additions, ensure_ascii=False, separators=(",", ":"))))
        whole += len(additions)
        for one in additions:
            in_how_many.update(one[-1].keys())
    telling = [
        (word, round(math.log((whole + 1) / (count + 1)), 2)) for word, count in in_how_many.items()
    ]
    return packed, [*telling, ("", round(math.log(whole + 1), 2))]


def _packed(text: str, row: dict[str, Any]) -> list[Any]:
    """An addition without its text."""
    phrases = list(dict.fromkeys(phrase_items(one) for one in row["asks"]))
    columns = {
        name: [phrase_items(one) for one in called]
        for name, called in row.get("columns", {}).items()
    }
    return [
        phrases,
        row.get("excludes", []),
        row.get("needs", []),
        columns,
        row.get("instead", {}),
        _stems_of(text, phrases),
    ]


def _stems_of(text: str, phrases: list[str]) -> dict[str, int]:
    """How much each stem speaks for an addition: by the share of its phrases that have it, those of
    its long name like all.
    """
    counts: Counter[str] = Counter()
    for phrase in phrases:
        counts.update({one for one in phrase.split(" ") if one[0] != "<"})
    for one in counts:
        counts[one] = round(USUAL_PHRASES * counts[one] / len(phrases))
    long = _LONG.match(text)
    for one in phrase_items(long[1].replace("-", " ")).split(" ") if long else ():
        counts[one] += USUAL_PHRASES // 2
    most = math.log(1 + OF_A_PHRASE)
    return {
        one: round(100 * math.log(1 + OF_A_PHRASE * count / USUAL_PHRASES) / most)
        for one, count in counts.items()
        if count
    }


def additions_of(packed: str) -> list[Addition]:
    """The additions of a command, as the index has them."""
    return [Addition(*row) for row in json.loads(packed)]
