"""Recipes: a task in words and the command line that does it, with slots for values. The format is
ours (TOML):

    [[recipe]]
    task = "unpack a compressed archive into a folder"
    also = ["extract", "untar", "open a tgz"]
    line = "tar -xf <archive> -C <folder>"
    slots.archive = { kind = "file", like = "*.tgz *.tar.*" }
    changes = "files"

`<name>` is a slot; `{? -mtime +<days>?}` is a part that is there only when its slots are filled,
`{?nocase: -i?}` one that is there when the sentence says so, in one of the phrases of
`parts.nocase` or of our own `parts.toml`. `<conditions>` stands for the conditions on files that a
sentence has, as tests of find. A slot without a description gets its kind from its name. `command`,
for a file or a recipe, is the first word of the line if it is not said.
"""

from __future__ import annotations

import fnmatch
import os
import re
from functools import cache
from types import MappingProxyType

from dowsing.knowledge.compiled import Part, part
from dowsing.model.record import Record
from dowsing.model.value_kinds import kind_of_placeholder

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any

SLOT = re.compile(r"<([a-z][a-z0-9-]*)>")
#: A part: its name, if the sentence has to say it, and its text.
PART = re.compile(r"\{\?(?:([a-z][a-z-]*):)?(.*?)\?\}")
#: What stands before a text that a shell is to run.
_SHELL_BEFORE = re.compile(
    r"(?:\b(?:ba|da|z|k|fi)?sh\s(?:[^|;&]*\s)?-\w*c|\bsu\b[^|;&]*\s(?:-c|--command)|\b(?:ssh"
    r"|watch)\b[^|;&'\"]*|\beval)\s+\Z"
)
CONDITIONS = "conditions"
CHANGES = ("", "nothing", "files", "system", "network")
KINDS = frozenset(
    """
        file folder path number size duration date user group host address port url pattern glob
        signal mode command choice text extension word remote sum separator conditions time
        schedule calendar
    """.split()
)
#: Kinds whose values are of digits, letters and a few signs, so that they may stand in the quotes
#: of a line.
PLAIN = frozenset(("number", "extension", "port", "word", "sum", "date", "time"))
#: Kinds whose values may stand in quotes: beside those, what we write ourselves, and commands, of
#: which only plain ones are put there.
_IN_QUOTES = PLAIN | {"schedule", "calendar", "command"}
_KEYS = frozenset(("task", "also", "line", "slots", "changes", "command", "look", "parts", "saved"))


class Slot(Record):
    """A place for a value: its kind, patterns that values are like, and the value that it has if
    none is said.
    """

    name: str
    kind: str
    like: str = ""
    default: str | None = None

    @property
    def ending(self) -> str:
        """The ending of names that are like the first of its patterns; "" if it has none."""
        return self.like.split()[0].lstrip("*") if self.like else ""

    def is_like(self, text: str) -> bool:
        """Whether a value is like what the slot is for, as one of its patterns says."""
        return any(fnmatch.fnmatch(text, pattern) for pattern in self.like.split())


class Recipe(Record):
    """A task and its line. `also` are other wordings, `changes` what it changes, `look` the
    harmless line to look first.

    `where` is the file that it is from; `parts` the phrases that call for each part of the line
    that has a name.
    """

    task: str
    also: list[str]
    line: str
    slots: list[Slot]
    command: str
    changes: str = ""
    look: str = ""
    where: str = ""
    parts: dict[str, list[str]] = {}  # noqa: RUF012 - a record is immutable


class FileFault(Record):
    """Something wrong in a recipe file: the line it is on (from 1), and why."""

    path: str
    line: int
    says: str


def read_recipes(path: str) -> tuple[list[Recipe], list[FileFault]]:
    """The recipes of a file, and what is wrong in it; one that is wrong does not keep the others
    from being read.
    """
    try:
        with open(path, "rb") as file:
            text = file.read().decode("utf-8")
    except OSError as error:
        return [], [FileFault(path, 0, f"cannot be read: {(error.strerror or 'failed').lower()}")]
    except UnicodeDecodeError:
        return [], [FileFault(path, 0, "is not UTF-8 text")]
    return parse_recipes(path, text)


def parse_recipes(path: str, text: str) -> tuple[list[Recipe], list[FileFault]]:
    """The recipes of a text, and what is wrong in it; `path` is where it is from."""
    from dowsing.knowledge.toml_blocks import parsed

    try:
        table = parsed(text)
    except ValueError as error:
        return _as_far_as_possible(path, text, not_toml(path, 1, str(error)))
    rows = table.get("recipe")
    if not isinstance(rows, list):
        return [], [FileFault(path, 1, "has no [[recipe]]")]
    lines = [
        number for number, line in enumerate(text.split("\n"), 1) if line.startswith("[[recipe]]")
    ]
    found: list[Recipe] = []
    faults: list[FileFault] = []
    for number, row in enumerate(rows):
        try:
            found.append(make_recipe(row, str(table.get("command", "")), path))
        except ValueError as error:
            faults.append(FileFault(path, lines[number] if number < len(lines) else 0, str(error)))
    return found, faults


def _as_far_as_possible(
    path: str, text: str, fault: FileFault
) -> tuple[list[Recipe], list[FileFault]]:
    """The recipes of a file that is no TOML as a whole: each block is tried for itself."""
    from dowsing.knowledge.toml_blocks import blocks_of

    found: list[Recipe] = []
    faults: list[FileFault] = []
    for block in blocks_of(text, "recipe"):
        if block.row is None:
            faults.append(not_toml(path, block.line, block.trouble))
            continue
        try:
            found.append(make_recipe(block.row, "", path))
        except ValueError as error:
            faults.append(FileFault(path, block.line, str(error)))
    return found, faults or [fault]


def not_toml(path: str, first: int, trouble: str) -> FileFault:
    """What the parser says of a text, as a fault of the file whose line `first` it begins on."""
    at = re.search(r"line (\d+)", trouble)
    says = re.sub(r" .at line.*", "", trouble).lower()
    return FileFault(path, first - 1 + (int(at[1]) if at else 1), f"is not TOML: {says}")


def make_recipe(row: dict[str, Any], command: str, where: str) -> Recipe:
    """The recipe that a table describes. Raises ValueError with what is wrong."""
    _check_row(row)
    line, described = row["line"], row.get("slots", {})
    names = list(dict.fromkeys(SLOT.findall(line)))
    for name in described:
        if name not in names:
            raise ValueError(f"the slot {name} is not in the line")
    for name in quoted_slots(line):
        if slot_of(name, described.get(name, {})).kind not in _IN_QUOTES:
            raise ValueError(
                f"the slot {name} stands in quotes; only numbers, words, commands and "
                "extensions may, for they need none"
            )
    return Recipe(
        row["task"],
        row.get("also", []),
        line,
        [slot_of(name, described.get(name, {})) for name in names],
        str(row.get("command", command)) or _first_word(line),
        row.get("changes", ""),
        str(row.get("look", "")),
        where,
        _parts_of(line, row.get("parts", {})),
    )


def _check_row(row: dict[str, Any]) -> None:
    """Raises ValueError if a key is unknown or has not the type that it needs."""
    if not isinstance(row, dict):
        raise ValueError("a recipe is a table")
    unknown = set(row) - _KEYS
    if unknown:
        raise ValueError(f"unknown key {sorted(unknown)[0]}; there are {', '.join(sorted(_KEYS))}")
    for key, problem in (
        ("task", "a recipe needs a task, in words"),
        ("line", "a recipe needs a line"),
    ):
        text = row.get(key)
        if not isinstance(text, str) or not text.strip():
            raise ValueError(problem)
    also = row.get("also", [])
    if not isinstance(also, list) or not all(isinstance(one, str) for one in also):
        raise ValueError("also is a list of texts")
    if row.get("changes", "") not in CHANGES:
        raise ValueError(f"changes is one of {', '.join(CHANGES[1:])}")
    if not isinstance(row.get("slots", {}), dict):
        raise ValueError("slots is a table")


def quoted_slots(line: str) -> list[str]:
    """The slots that stand in quotes."""
    return [name for text in re.findall(r"'[^']*'|\"[^\"]*\"", line) for name in SLOT.findall(text)]


def shell_script_slots(line: str) -> set[str]:
    """The slots within quotes that another shell reads: `sh -c '…'`, `ssh host '…'`, `su -c '…'`,
    `eval '…'`.
    """
    found: set[str] = set()
    for match in re.finditer(r"'[^']*'|\"[^\"]*\"", line):
        if _SHELL_BEFORE.search(line[: match.start()]):
            found |= set(SLOT.findall(match[0]))
    return found


def _parts_of(line: str, described: object) -> dict[str, list[str]]:
    """The phrases of the parts of a line that have names: its own, or those that all recipes
    share.
    """
    if not isinstance(described, dict):
        raise ValueError('parts is a table: parts.nocase = ["ignoring case"]')
    names = [match[1] for match in PART.finditer(line) if match[1]]
    for name, phrases in described.items():
        if name not in names:
            raise ValueError(f"the part {name} is not in the line")
        if not isinstance(phrases, list) or not all(isinstance(one, str) for one in phrases):
            raise ValueError(f"the part {name} is a list of texts")
    shared = shared_parts() if any(name not in described for name in names) else {}
    for name in names:
        if name not in described and name not in shared:
            raise ValueError(f'nothing says when the part {name} is wanted: parts.{name} = ["…"]')
    return {name: list(described.get(name) or shared[name]) for name in names}


@cache
def shared_parts() -> dict[str, list[str]]:
    """The phrases that call for parts which many lines have, such as `recursive`."""
    import tomllib

    with open(
        os.path.join(os.path.dirname(os.path.abspath(__file__)), "recipe_parts.toml"), "rb"
    ) as file:
        return {
            str(name): [str(one) for one in phrases] for name, phrases in tomllib.load(file).items()
        }


def slot_of(name: str, row: object = MappingProxyType({})) -> Slot:
    """The slot of that name as a table describes it. Raises ValueError if the description is
    wrong.
    """
    if name == CONDITIONS:
        return Slot(name, CONDITIONS)
    if not isinstance(row, dict | MappingProxyType):
        raise ValueError(f'the slot {name} is described by a table: {{ kind = "file" }}')
    kind = str(row.get("kind", "")) or kind_by_name(name)
    if kind not in KINDS:
        raise ValueError(
            f"the slot {name} is of an unknown kind {kind}; there are {', '.join(sorted(KINDS))}"
        )
    default = row.get("default")
    like = str(row.get("like", "")) or (
        "/dev/*" if name.rstrip("0123456789") in ("device", "disk", "partition") else ""
    )
    return Slot(name, kind, like, None if default is None else str(default))


def kind_by_name(name: str) -> str:
    """The kind of a slot that only has a name."""
    bare = name.rstrip("0123456789").rstrip("-")
    for word in (bare, bare.split("-")[-1], bare.split("-")[0]):
        if word in KINDS:
            return word
    kind = kind_of_placeholder(bare)
    return (
        "number"
        if bare in ("days", "minutes", "hours", "weeks", "column", "first", "last")
        else kind
    )


def _first_word(line: str) -> str:
    words = [word for word in line.split() if "=" not in word]
    return next((word for word in words if word not in ("sudo", "for", "while", "if")), "")


def with_values(
    line: str, values: dict[str, str | None], parts: frozenset[str] = frozenset()
) -> str:
    """A recipe's line with these values; parts that are not wanted or whose slots have none are
    left out.
    """

    def part(match: re.Match[str]) -> str:
        names = SLOT.findall(match[2])
        wanted = match[1] in parts if match[1] else bool(names)
        return match[2] if wanted and all(values.get(name) for name in names) else ""

    return SLOT.sub(lambda match: values.get(match[1]) or match[0], PART.sub(part, line)).strip()


def own_recipes() -> list[Recipe]:
    """The recipes that come with the program, in the order of the files of commands."""
    return [
        make_recipe({key: value for key, value in row.items() if key != "where"}, "", row["where"])
        for row in part(Part.RECIPES)
    ]


def recipes_of_folder(folder: str) -> list[Recipe]:
    """The recipes of all files of a folder."""
    found: list[Recipe] = []
    for name in sorted(os.listdir(folder)):
        if name.endswith(".toml"):
            recipes = read_recipes(os.path.join(folder, name))[0]
            found += [recipe.changed(where=name) for recipe in recipes]
    return found
