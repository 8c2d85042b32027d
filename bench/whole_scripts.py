"""Whole scripts of this machine, drawn at random: what `unpick` calls mistaken in them.

    python bench/whole_scripts.py [--seed N] [--count 40] [--misses]

Half of them are programs that are scripts of the shell, half are what packages run when they are
set up. Printed are the commands that were read, those called mistaken, what could not be read, the
time, and the time of the longest one against the floor: a Python process that imports argparse and
sqlite3.
"""

from __future__ import annotations

import argparse
import json
import random
import re
import subprocess
import sys
import time
from pathlib import Path

FLOOR = [sys.executable, "-c", "import argparse, sqlite3"]
PROGRAMS = ("/usr/bin", "/usr/sbin")
SET_UP = "/var/lib/dpkg/info"
_SHEBANG = re.compile(rb"#! */(?:usr/)?bin/(?:env )?(?:ba|da)?sh\b")


def scripts_in(folder: str) -> list[Path]:
    """The scripts of the shell in a folder."""
    found = []
    for path in sorted(Path(folder).glob("*")):
        try:
            with path.open("rb") as file:
                begin = file.read(200)
        except OSError:
            continue
        if _SHEBANG.match(begin):
            found.append(path)
    return found


def seconds(command: list[str]) -> tuple[float, str]:
    """How long a command takes, and what it prints."""
    start = time.perf_counter()
    done = subprocess.run(command, capture_output=True, text=True, check=False)
    return time.perf_counter() - start, done.stdout


def main() -> int:
    """Read the scripts."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--count", type=int, default=40)
    parser.add_argument("--misses", action="store_true")
    options = parser.parse_args()
    random.seed(options.seed)
    programs = [one for folder in PROGRAMS for one in scripts_in(folder)]
    chosen = random.sample(programs, options.count // 2)
    chosen += random.sample(scripts_in(SET_UP), options.count // 2)
    commands = mistaken = failed = left_out = 0
    total, longest = 0.0, (0.0, 0, "")
    for path in chosen:
        took, printed = seconds(["dowsing", "unpick", str(path), "--format", "json"])
        total += took
        found = json.loads(printed)
        if "commands" not in found:
            failed += 1
            print(f"{path}: {found}")
            continue
        commands += found["commands"]
        left_out += len(found["not_read"])
        errors = [one for one in found["problems"] if one["grade"] == "error"]
        mistaken += len(errors)
        longest = max(longest, (took, found["lines"], str(path)))
        if options.misses:
            for one in errors:
                print(f"{path}:{one['line']}: {one['text']}: {one['says']}")
    floor = min(seconds(FLOOR)[0] for _ in range(5))
    print(f"{len(chosen)} scripts, {commands} commands, {failed} not read at all")
    print(
        f"mistaken {mistaken}: {100 * mistaken / max(commands, 1):.2f} %; lines left out {left_out}"
    )
    print(f"{total:.1f} s in all; the longest {longest[1]} lines, {longest[0] / floor:.1f} F")
    return 0


if __name__ == "__main__":
    sys.exit(main())
