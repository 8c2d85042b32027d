"""What the words of a sentence say for each recipe, as it was fitted to their wordings
(bench/fit_tasks.py): a linear model over the stems of the sentence.

`task_choice.pack` holds, compressed, a head as JSON (the lines of the recipes, the stems, how
telling each stem is, what it says for harm, the offset of each recipe) and behind it for each stem
the numbers of recipes, two bytes each, and as many bytes of weights in steps of STEP.
"""

from __future__ import annotations

import os
import re
from array import array

from dowsing.knowledge.stems import stem, words

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterable

FILE = os.path.join(os.path.dirname(os.path.abspath(__file__)), "task_choice.pack")
STEP = 0.05  # of a weight
MOST = 255  # steps
_SLOT = re.compile(r"<[a-z][a-z0-9-]*>|\{\?|\?\}")
_PLACE = re.compile(r"<([a-z][a-z-]*)[0-9]*>")
#: Kinds of values that can be told by their form, by the names of slots.
_KINDS = {
    name: kind
    for kind, names in {
        "file": "file folder path target source archive copy device image patch list existing "
        "subtitles certificate key sums log script",
        "range": "first last start end from until begin",
        "number": "number count lines line column width percent degrees pid level levels depth "
        "bytes bits jobs cores code rate field",
        "duration": "duration days minutes seconds hours weeks months delay",
        "size": "size",
        "date": "date since",
        "time": "time",
        "schedule": "schedule calendar",
        "url": "url",
        "host": "host address domain remote network server gateway proxy",
        "port": "port",
        "glob": "glob extension files",
        "epoch": "epoch",
    }.items()
    for name in names.split()
}
#: Words that stand in any sentence.
_DROPPED = frozenset(
    "the a an i me my please can could you would is are it that to of do we our us".split()
)


def sentence_stems(text: str) -> list[str]:
    """The stems of a sentence or wording that may tell, each once; values in it left out before."""
    found = (stem(word) for word in words(_SLOT.sub(" ", text)) if word not in _DROPPED)
    return list(dict.fromkeys(found))


def wording_stems(text: str) -> list[str]:
    """The stems of a wording, with what stands for the kinds of values in its places."""
    return [*sentence_stems(text), *shapes_of(_KINDS.get(one, "") for one in _PLACE.findall(text))]


def shapes_of(kinds: Iterable[str]) -> list[str]:
    """What stands for the kinds of the values of a sentence, beside its stems: each kind, and that
    there are two of it.
    """
    found: dict[str, int] = {}
    for kind in kinds:
        if kind:
            found[kind] = found.get(kind, 0) + 1
    shapes = [f"<{kind}" for kind in found]
    return shapes + [f"<{kind} 2" for kind, count in found.items() if count > 1]


def sentence_marks(text: str) -> list[str]:
    """What tells whether something is to be shown or done: the stems, words that are not in their
    plain form (`installed`), the first word, and whether it begins as a question.
    """
    found = [word for word in words(_SLOT.sub(" ", text)) if word not in _POLITE]
    marks = [stem(word) for word in found]
    marks += [f"={word}" for word in found if stem(word) != word]
    if found:
        marks.append(f"^{found[0]}")
        marks += [QUESTION] if found[0] in _ASKING else []
    return list(dict.fromkeys(marks))


#: The mark of a sentence that begins as a question.
QUESTION = "?"
_POLITE = frozenset("please can could would you hi hey the a an my me".split())
_ASKING = frozenset(
    "what which who whose where when why how is are was were did does do has have any".split()
)


class StemWeights:
    """What one stem or mark says: how telling it is (about 0 to 9), what it says for a line that
    does harm, and for one that changes anything (log odds), and for which recipes how much, by
    their numbers.
    """

    __slots__ = ("change", "harm", "numbers", "steps", "telling")

    def __init__(
        self, telling: float, harm: float, change: float, numbers: array[int], steps: bytes
    ) -> None:
        self.telling, self.harm, self.change = telling, harm, change
        self.numbers, self.steps = numbers, steps


class Choice:
    """The whole model. `lines` are those of the recipes by number, `offsets` what each begins with,
    `harm` and `change` the log odds where nothing is said, `changing` the recipes whose
    lines change anything;
    `cues` what the words around a place say for each slot (knowledge/slot_cues.py); `domains` the
    stems of commands of which one is said by nearly all who mean them.
    """

    def __init__(  # noqa: PLR0913 - the parts of a file
        self,
        lines: list[str],
        offsets: list[float],
        harm: float,
        change: float,
        changing: list[int],
        stems: dict[str, StemWeights],
        cues: dict[str, dict[str, float]],
        domains: dict[str, list[str]],
    ) -> None:
        self.lines, self.offsets, self.harm, self.change = lines, offsets, harm, change
        self.changing, self.stems, self.cues = changing, stems, cues
        self.domains = domains


def pack(choice: Choice) -> bytes:
    """The model as bytes."""
    import json
    import zlib

    names = sorted(choice.stems)
    head = {
        "lines": choice.lines,
        "offsets": [round(one, 3) for one in choice.offsets],
        "harm": round(choice.harm, 3),
        "change": round(choice.change, 3),
        "changing": choice.changing,
        "cues": choice.cues,
        "domains": choice.domains,
        "stems": [
            [
                name,
                round(one.telling, 2),
                round(one.harm, 2),
                round(one.change, 2),
                len(one.steps),
            ]
            for name in names
            for one in (choice.stems[name],)
        ],
    }
    text = json.dumps(head, ensure_ascii=False, separators=(",", ":")).encode()
    parts = [len(text).to_bytes(4, "little"), text]
    for name in names:
        one = choice.stems[name]
        parts += [_little(one.numbers).tobytes(), one.steps]
    return zlib.compress(b"".join(parts), 9)


def unpack(data: bytes) -> Choice:
    """The model that `pack` made bytes of."""
    import json
    import zlib

    raw = zlib.decompress(data)
    at = 4 + int.from_bytes(raw[:4], "little")
    head = json.loads(raw[4:at])
    stems = {}
    for name, telling, harm, change, count in head["stems"]:
        numbers = array("H")
        numbers.frombytes(raw[at : at + 2 * count])
        at += 2 * count
        stems[name] = StemWeights(telling, harm, change, _little(numbers), raw[at : at + count])
        at += count
    return Choice(
        head["lines"],
        head["offsets"],
        head["harm"],
        head["change"],
        head["changing"],
        stems,
        head["cues"],
        head["domains"],
    )


def _little(numbers: array[int]) -> array[int]:
    """The same numbers in the order of bytes that files have, or back."""
    import sys

    if sys.byteorder == "big":
        numbers = array("H", numbers)
        numbers.byteswap()
    return numbers


def read_choice() -> Choice | None:
    """The model that comes with the program; None if it is missing."""
    try:
        with open(FILE, "rb") as file:
            return unpack(file.read())
    except OSError:
        return None
