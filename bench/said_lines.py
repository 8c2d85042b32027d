"""What is said of lines, against patterns that were written down for them.

    python bench/said_lines.py FILE.jsonl… [--misses]

A row has `line`; `must`: patterns (no case) of which all stand in the sentence and the effects;
`untrue`: patterns of which none does; `effect`: "" or what it destroys, overwrites, changes, stops,
sends or runs; `harmless_looking_dangerous`: no effect is to be told; `mistake`: "" or what is
wrong with it. A false alarm is a mistake (exit status 1) told of a line without one.
"""

from __future__ import annotations

import argparse
import json
import re
from collections import Counter
from collections.abc import Iterator
from typing import Any

from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.ingest.upkeep import open_index
from dowsing.machine.settings import read_settings
from dowsing.render.line_sentence import sentence
from dowsing.render.piece_text import effect_line, mistakes_of


def counted(row: dict[str, Any], finder: CommandFinder) -> Iterator[tuple[str, bool]]:
    """What is asked of a row, and whether it is so."""
    found = unpick(row["line"], finder)
    effects = [effect_line(one) for one in found.changes]
    told = " ".join([sentence(found), *effects])

    def has(pattern: str) -> bool:
        return re.search(pattern, told, re.IGNORECASE | re.DOTALL) is not None

    yield "has all it must", all(map(has, row["must"]))
    yield "claims nothing untrue", not any(map(has, row["untrue"]))
    if row["effect"]:
        yield "effect told", bool(effects)
    if row["harmless_looking_dangerous"]:
        yield "no false effect", not effects
    if row["mistake"]:
        yield "mistake found", bool(mistakes_of(found))
    elif row["valid"]:
        yield "no false alarm", not found.mistaken


def main() -> int:
    """Count, and print what is not right."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("files", nargs="+")
    parser.add_argument("--misses", action="store_true", help="print the lines of what is not so")
    options = parser.parse_args()
    settings = read_settings()
    finder = CommandFinder(open_index(settings)[0], settings)
    for path in options.files:
        all_of, right = Counter[str](), Counter[str]()
        with open(path, encoding="utf-8") as file:
            rows = [json.loads(line) for line in file]
        for row in rows:
            for what, is_so in counted(row, finder):
                all_of[what] += 1
                right[what] += is_so
                if options.misses and not is_so:
                    print(f"  not: {what}: {row['line']}")
        told = "; ".join(f"{what} {right[what]} of {count}" for what, count in all_of.items())
        print(f"{path}: {told}")
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
