"""Recipes that can be run harmlessly are run in a folder made for them, and what they did is
checked.
"""

from __future__ import annotations

import os
import re
import shutil
import subprocess
from collections.abc import Iterator
from functools import cache
from pathlib import Path

import pytest

from dowsing.knowledge.recipes import CONDITIONS, Recipe, own_recipes, with_values
from dowsing.tasks.filling import quoted

HERE = Path(__file__).parent / "runs"


@cache
def recipes() -> dict[str, Recipe]:
    """Our recipes by their lines."""
    return {recipe.line: recipe for recipe in own_recipes()}


def rows() -> Iterator[tuple[str, str, str, str]]:
    """File, line of the recipe, its values, and the check."""
    for path in sorted(HERE.glob("*.txt")):
        for row in path.read_text().splitlines():
            if row and not row.startswith("# "):
                line, slots, check = (part.strip(" ") for part in re.split(r" ##(?= |$)", row))
                yield path.stem, line, slots, check


ROWS = list(rows())


def filled(line: str, slots: str) -> str:
    """The recipe's line with these values: `name=value` for slots, `+name` for named parts."""
    recipe = recipes()[line]
    kinds = {slot.name: slot.kind for slot in recipe.slots}
    places = [
        m
        for m in re.finditer(r"(?:^|\s)(?:\+([a-z-]+)|([a-z][a-z0-9-]*)=)", slots)
        if m[1] or m[2] in kinds
    ]
    parts = frozenset(match[1] for match in places if match[1])
    values: dict[str, str | None] = {slot.name: slot.default for slot in recipe.slots}
    for match, after in zip(places, [*places[1:], None], strict=False):
        if match[2]:
            value = slots[match.end() : after.start() if after else len(slots)].strip()
            raw = kinds[match[2]] in ("command", CONDITIONS, "number", "word", "sum", "extension")
            values[match[2]] = (
                value if raw else quoted(value, raw_glob=kinds[match[2]] in ("file", "path"))
            )
    made = with_values(line, values, parts)
    assert not re.search(r"<[a-z][a-z0-9-]*>", made), made
    return made


@pytest.fixture(scope="session")
def template(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A folder with everything that the recipes work on."""
    folder = tmp_path_factory.mktemp("ground")
    script = (HERE / "ground.sh").read_text()
    subprocess.run(
        ["bash", "-euc", script],
        cwd=folder,
        check=True,
        capture_output=True,
        env=surroundings(folder),
    )
    return folder


def surroundings(folder: Path) -> dict[str, str]:
    """An environment in which nothing of the machine's settings counts."""
    return {
        "PATH": os.environ["PATH"],
        "HOME": str(folder),
        "LC_ALL": "C.UTF-8",
        "TZ": "UTC",
        "TERM": "xterm",
        "GIT_CONFIG_NOSYSTEM": "1",
        "GIT_PAGER": "cat",
    }


def test_there_are_enough_of_them_and_each_is_ours() -> None:
    assert [line for _, line, _, _ in ROWS if line not in recipes()] == []
    assert len({line for _, line, _, _ in ROWS}) >= 600


@pytest.mark.parametrize(
    ("place", "line", "slots", "check"),
    ROWS,
    ids=[f"{n}-{row[1][:40]}" for n, row in enumerate(ROWS)],
)
def test_a_recipe_does_what_it_says(
    template: Path, tmp_path: Path, place: str, line: str, slots: str, check: str
) -> None:
    made = filled(line, slots)
    missing = [name for name in programs(made) if not shutil.which(name)]
    if missing:
        pytest.skip(f"{missing[0]} is not here")
    ground = tmp_path / "ground"
    subprocess.run(["cp", "-a", str(template), str(ground)], check=True)
    folder = ground / "g" if place == "git" else ground
    done = subprocess.run(
        ["bash", "-c", made],
        cwd=folder,
        env=surroundings(ground),
        capture_output=True,
        text=True,
        timeout=60,
        check=False,
        stdin=subprocess.DEVNULL,
        errors="replace",
    )
    kind, _, wanted = check.partition(" ")
    if kind == "=":
        for sign, meant in (("\\n", "\n"), ("\\t", "\t"), ("\\s", " ")):
            wanted = wanted.replace(sign, meant)
        assert done.stdout == wanted, (made, done.stderr)
        return
    looked = subprocess.run(
        ["bash", "-c", wanted],
        cwd=folder,
        env={**surroundings(ground), "out": done.stdout.rstrip("\n")},
        capture_output=True,
        text=True,
        timeout=60,
        check=False,
    )
    assert looked.returncode == 0, (made, done.stdout[-2000:], done.stderr[-2000:])


def programs(line: str) -> list[str]:
    """The programs of a line that may be missing."""
    own = (
        "git jq sqlite3 zip unzip zstd xz bzip2 openssl gcc make bc xxd hexdump hardlink "
        "rename.ul strings file ar iconv column perl"
    )
    return [
        name for name in own.split() if re.search(rf"(?<![\w./-]){re.escape(name)}(?![\w.-])", line)
    ]
