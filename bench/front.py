"""What the front door takes words for, and what it tells of pasted messages.

    python bench/front.py kinds FILE.tsv [--misses]      TEXT, tab, `line` or `words`
    python bench/front.py messages FILE.tsv [--misses]   MESSAGE (\\n for a new line), tab, pattern

Of texts: the share taken rightly for a command line or for words to look for; `false` are words
taken for a line. Of messages: the share of those known as one, and of those whose pattern stands in
the first 14 lines of the answer at 100 columns, without the message itself.
"""

from __future__ import annotations

import argparse
import json
import os
import re
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

LINES = 14


def answer(text: str, *options: str) -> str:
    """What the installed program prints for a text."""
    program = str(Path(sys.executable).parent / "dowsing")
    done = subprocess.run(
        [program, *options, "--", text],
        env={**os.environ, "COLUMNS": "100"},
        capture_output=True, text=True, check=False, stdin=subprocess.DEVNULL,
    )  # fmt: skip
    return done.stdout


def rows(path: str) -> Iterator[tuple[str, str]]:
    """The two columns of each row."""
    for row in Path(path).read_text().splitlines():
        if row and not row.startswith("#"):
            text, _, expected = row.partition("\t")
            yield text.replace("\\n", "\n"), expected


def kinds(path: str, misses: bool) -> None:
    """Whether texts are taken for lines."""
    right = false = count = 0
    for text, expected in rows(path):
        printed = answer(text, "--format", "json")
        found = "line" if printed and "pieces" in json.loads(printed) else "words"
        count += 1
        right += found == expected
        false += found == "line" != expected
        if misses and found != expected:
            print(f"{expected:6} {text}")
    print(f"right {right} of {count}, false {false}")


def messages(path: str, misses: bool) -> None:
    """What is told of messages."""
    known = good = count = 0
    for text, expected in rows(path):
        printed = answer(text)
        shown = " ".join("\n".join(printed.splitlines()[:LINES]).split())
        told = shown.replace(" ".join(text.split()), " ")
        count += 1
        is_good = re.search(expected, told, re.IGNORECASE) is not None
        known += "  a message" in "\n".join(printed.splitlines()[:3])
        good += is_good
        if misses and not is_good:
            print(f"{expected}\n   {text}\n{printed[:600]}\n")
    print(f"known {known}, good {good} of {count}")


def main() -> None:
    """Measure one file."""
    parser = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    parser.add_argument("what", choices=("kinds", "messages"))
    parser.add_argument("file")
    parser.add_argument("--misses", action="store_true")
    options = parser.parse_args()
    measure = kinds if options.what == "kinds" else messages
    measure(options.file, options.misses)


if __name__ == "__main__":
    main()
