"""Commands of this version timed beside those of another checkout, in pairs.

    python bench/beside.py CHECKOUT [--runs N]

Each run of one stands beside one of the other, and beside F, the time of `python -c "import
argparse, sqlite3"`. Printed are the median of the ratios of neighbours and both medians in F. Both
checkouts get an index of their own in a temporary folder.
"""

from __future__ import annotations

import argparse
import os
import statistics
import subprocess
import sys
import tempfile
import time

LINES = (
    ["unpick", "tar -xzf a.tgz -C docs"],
    ["unpick", "find . -name '*.c' -exec grep -l x {} +"],
    ["unpick", "git commit -am x"],
    ["next", "tar -x"],
    ["next", "sudo "],
    ["next", "git commit -"],
    ["card", "tar"],
    ["options", "tar"],
    ["find", "vent"],
    ["task", "unpack an archive"],
)
FLOOR = [sys.executable, "-c", "import argparse, sqlite3"]


def seconds(command: list[str], environment: dict[str, str]) -> float:
    """Wall time of a command."""
    start = time.perf_counter()
    subprocess.run(command, env=environment, capture_output=True, check=False)
    return time.perf_counter() - start


def environment(checkout: str, folder: str) -> dict[str, str]:
    """The environment in which the program of a checkout runs."""
    own = {name: os.path.join(folder, name.lower()) for name in ("DOWSING_CACHE", "DOWSING_DATA")}
    return {**os.environ, **own, "PYTHONPATH": os.path.join(checkout, "src")}


def main() -> int:
    """Time all lines, and print a row for each."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("checkout", help="the folder of the other version")
    parser.add_argument("--runs", type=int, default=24)
    asked = parser.parse_args()
    here = os.path.dirname(os.path.dirname(os.path.abspath(__file__)))
    with tempfile.TemporaryDirectory() as first, tempfile.TemporaryDirectory() as second:
        other, ours = environment(asked.checkout, first), environment(here, second)
        program = [sys.executable, "-m", "dowsing"]
        for one in (other, ours):
            seconds([*program, "index"], one)
        for line in LINES:
            rows = [
                (
                    seconds([*program, *line], other),
                    seconds([*program, *line], ours),
                    seconds(FLOOR, ours),
                )
                for _ in range(asked.runs)
            ]
            before, now, floor = (statistics.median(column) for column in zip(*rows, strict=True))
            ratio = statistics.median(row[1] / row[0] for row in rows)
            print(
                f"{' '.join(line)}: {ratio:.3f} of before, {now / floor:.2f} F, "
                f"before {before / floor:.2f} F"
            )
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
