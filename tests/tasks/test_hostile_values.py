"""Ten thousand hostile values in the places of our recipes, read by a real bash: each stays one
argument, and nothing of it is run.
"""

from __future__ import annotations

import random
import re
import shutil
import subprocess
from pathlib import Path

import pytest

from dowsing.knowledge.recipes import SLOT, Recipe, own_recipes
from dowsing.tasks.filling import fill
from dowsing.tasks.values import Value

COUNT = 10_000
#: Kinds of slots that take any text, and the kind of a value that fits each.
KINDS = {"file": "file", "folder": "path", "path": "path", "text": "text", "pattern": "text"}
#: What a shell, an option or a program might take for something else.
PIECES = (
    "$(touch run) `touch run` ;touch\\ run && || | & > < >> 2>&1 ' \" \\ \\\\ '' \"\" $HOME"
    " ${x} $'a' * ? [a] {a,b} ~ ~root ! !! # -rf -- -e= = % @ ( ) (( )) [[ ]] a b/c .. / é 日 \t \n"
).split(" ") + [" ", "\n", "  "]


def is_plain(recipe: Recipe) -> bool:
    """Whether the line is one command with nothing but words and places that stand alone."""
    words = recipe.line.split(" ")
    return all(re.fullmatch(r"[\w./+:=-]+|<[a-z][a-z0-9-]*>", word) for word in words)


@pytest.mark.skipif(shutil.which("bash") is None, reason="there is no bash")
def test_each_value_is_one_argument_and_nothing_is_run(tmp_path: Path) -> None:
    choose = random.Random(7)
    places = [
        (one, slot)
        for one in own_recipes()
        if is_plain(one)
        for slot in one.slots
        if slot.kind in KINDS and not slot.like and slot.default is None
        if one.line.count(f"<{slot.name}>") == 1
    ]
    assert len(places) > 500
    script = ["show() { printf '%s\\0' \"$@\"; printf '\\1\\0'; }"]
    wanted: list[tuple[str, str, int] | None] = []
    while len(wanted) < COUNT:
        recipe, slot = choose.choice(places)
        value = "".join(choose.choices(PIECES, k=choose.randint(1, 5)))
        filled = fill(recipe, [Value(value, KINDS[slot.kind], 0, 1)])
        word = filled.values.get(slot.name)
        others = SLOT.sub("open", recipe.line.replace(f"<{slot.name}>", "\0")).split(" ")
        if word is None:  # it cannot stand there, and is not put there
            wanted.append(None)
            continue
        line = " ".join(word if one == "\0" else one for one in ["show", *others[1:]])
        assert word in filled.line
        script.append(line)
        wanted.append((value, slot.kind, others.index("\0")))
    (tmp_path / "script").write_text("\n".join(script) + "\n")
    done = subprocess.run(
        ["bash", "script"], cwd=tmp_path, capture_output=True, check=True, timeout=120
    )
    assert [one.name for one in tmp_path.iterdir()] == ["script"]
    rows = done.stdout.decode().split("\0\1\0")[:-1]
    told = [one for one in wanted if one is not None]
    assert len(rows) == len(told) > COUNT * 0.8
    for row, (value, kind, place) in zip(rows, told, strict=True):
        got = row.split("\0")[place - 1]
        whole = value.rstrip("/") or "/" if kind == "folder" and len(value) > 1 else value
        home = whole == "~" or whole.startswith("~/")
        assert home or got in (whole, f"./{whole}"), (value, got)
