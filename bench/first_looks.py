"""What a first look gives, judged by lists: entries by verb and noun, cards, the front door.

    python bench/first_looks.py verbs|used|front FILE.jsonl [--misses]

verbs: rows of `name`, `section`, `verbs`, `nouns`; the entry is to be among the first 15 (and 5)
by its first verb and first noun. used: rows of `name` and `most`, its options and subcommands by
use, spellings of one parted by bars; of the first eight that the card shows so many are among
them, and of its first six so many are shown. front: rows of `words`, and of the patterns `good`
(in the first 25 lines of the answer) and `best` (in the first three).
"""

from __future__ import annotations

import argparse
import json
import os
import re
import subprocess
import sys
from pathlib import Path
from statistics import mean
from typing import Any

PROGRAM = os.path.join(os.path.dirname(sys.executable), "dowsing")
MOST_ROWS = 8  # of a card
Row = dict[str, Any]


def output(words: list[str]) -> str:
    """What the program prints, on both of its streams."""
    environment = {**os.environ, "COLUMNS": "100"}
    done = subprocess.run(
        [PROGRAM, *words], capture_output=True, text=True, check=False, env=environment
    )
    return done.stderr + done.stdout


def answer(words: list[str]) -> Row:
    """The JSON of an answer."""
    done = subprocess.run(
        [PROGRAM, *words, "--format", "json"], capture_output=True, text=True, check=False
    )
    found: Row = json.loads(done.stdout) if done.stdout.startswith("{") else {}
    return found


def verbs(row: Row) -> tuple[float, float]:
    """Whether the entry is among the first 15, and the first 5."""
    narrowed = ["--does", row["verbs"][0], "--what", row["nouns"][0]]
    entries = answer(["find", *narrowed, "--limit", "15"]).get("entries", [])
    place = next((n for n, entry in enumerate(entries) if _is_meant(entry, row)), 99)
    return float(place < 15), float(place < 5)


def _is_meant(entry: Row, row: Row) -> bool:
    """Whether an entry has the name in that section, as its own or another one."""
    others = {alias.partition("(")[0] for alias in entry["aliases"]}
    named = row["name"] in (entry["name"], *others)
    return named and entry["section"] in (row["section"], "", "builtin")


def used(row: Row) -> tuple[float, float]:
    """Which part of what the card shows is used most, and which part of that it shows."""
    card = answer(["card", *row["name"].split()])
    shown = [set(option["flags"]) for option in card.get("options", [])]
    shown += [{part["name"]} for part in card.get("subcommands", [])]
    shown = shown[:MOST_ROWS]
    most = [set(one.split("|")) for one in row["most"]]
    among = [any(one & other for other in most) for one in shown]
    there = [any(one & other for other in shown) for one in most[:6]]
    return mean(among) if among else 0.0, mean(there)


def front(row: Row) -> tuple[float, float]:
    """Whether the answer has what is good, and has it at once; what was typed said back is none."""
    lines = [line for line in output(row["words"]).split("\n") if line.strip()]
    lines = [line for line in lines if not line.startswith("dowsing: nothing here is called")]
    good = re.search(row["good"], "\n".join(lines[:25])) is not None
    best = re.search(row["best"], "\n".join(lines[:3])) is not None
    return float(good), float(good and best)


KINDS = {
    "verbs": (verbs, "among the first 15", "among the first 5"),
    "used": (used, "of what is shown is used most", "of the six used most is shown"),
    "front": (front, "good", "in the first three lines"),
}


def main() -> int:
    """Judge a list."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("kind", choices=list(KINDS))
    parser.add_argument("file", type=Path)
    parser.add_argument("--misses", action="store_true")
    asked = parser.parse_args()
    judge, *says = KINDS[asked.kind]
    rows = [json.loads(line) for line in asked.file.read_text("utf-8").splitlines() if line]
    found = [judge(row) for row in rows]
    for row, values in zip(rows, found, strict=True):
        if asked.misses and min(values) < 1:
            print(row.get("name") or row["words"], *(f"{value:.2f}" for value in values))
    told = (f"{mean(one[n] for one in found):.3f} {name}" for n, name in enumerate(says))
    print(f"{len(rows)} rows: {', '.join(told)}")
    return 0


if __name__ == "__main__":
    sys.exit(main())
