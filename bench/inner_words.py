"""How often the parts of a value in a small language say what they should.

    python bench/inner_words.py bench/queries/inner-held.tsv [--misses]

A row: a line, the text of a piece in it (or the option that has the value), and a pattern that what
is said of it should match.
"""

from __future__ import annotations

import argparse
import json
import re
import subprocess
import sys
from pathlib import Path


def said_of(line: str, text: str) -> str:
    """All that is said of a piece of a line."""
    done = subprocess.run(
        ["dowsing", "unpick", line, "--format", "json"], capture_output=True, text=True, check=False
    )
    pieces = json.loads(done.stdout)["pieces"]
    told: list[str] = []
    for piece in pieces:
        if text in (piece["text"], piece["value"], piece["word"]):
            told += [piece["says"] or "", piece["here"] or "", piece["what"] or ""]
            told += [meaning for _, meaning in piece["parts"]]
    return "; ".join(one for one in told if one)


def main() -> int:
    """Run the rows of a file."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("file")
    parser.add_argument("--misses", action="store_true")
    options = parser.parse_args()
    lines = Path(options.file).read_text("utf-8").splitlines()
    rows = [line.split("\t") for line in lines]
    right = 0
    for line, text, pattern in rows:
        told = said_of(line, text)
        is_right = re.search(pattern, told, re.IGNORECASE) is not None
        right += is_right
        if options.misses and not is_right:
            print(f"{line}\n    {text}: {told or '(nothing)'}")
    print(f"right {right} of {len(rows)}: {right / len(rows):.3f}")
    return 0


if __name__ == "__main__":
    sys.exit(main())
