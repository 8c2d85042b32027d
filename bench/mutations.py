"""How many constants of find's ranking the tests watch over.

    python bench/mutations.py [--tests FOLDER …]

Each constant is set to nought in a copy of the code, one at a time, and the tests of the ranking
are run on that copy. A line for each: whether a test noticed. The exit status is 0 if at least four
of five were noticed.
"""

from __future__ import annotations

import argparse
import os
import re
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

ROOT = Path(__file__).parent.parent
WEIGHTS = "search/weights.toml"
#: Constants beside the weights: where each is, its text, and the text that has nought instead.
CONSTANTS = [
    ("ingest/static_rank.py", "0.6 * math.log2(1 + referred)", "0.0 * math.log2(1 + referred)"),
    ("ingest/static_rank.py", "0.5 * min(depth, 6)", "0.0 * min(depth, 6)"),
    ("ingest/static_rank.py", "1.0 * math.log2(family_size", "0.0 * math.log2(family_size"),
    ("search/weights.py", '"3": 2.8,', '"3": 0.0,'),
    ("search/weights.py", '"5": 1.6,', '"5": 0.0,'),
    ("search/ranking.py", "(0.4 + 0.6 * said", "(0.0 + 0.6 * said"),
    ("search/ranking.py", "(0.4 + 0.6 * said", "(0.4 + 0.0 * said"),
]


def mutations() -> list[tuple[str, str, str, str]]:
    """All constants: a name, the file, its text and the text with nought."""
    found = []
    for line in (ROOT / "src" / "dowsing" / WEIGHTS).read_text(encoding="utf-8").splitlines():
        match = re.fullmatch(r"(\w+) = ([\d.]+)", line)
        if match and float(match[2]):
            found.append((match[1], WEIGHTS, line, f"{match[1]} = 0.0"))
    return found + [(f"{old} ({file})", file, old, new) for file, old, new in CONSTANTS]


def noticed(copy: Path, tests: list[str]) -> str:
    """The first test that fails on the copy; empty if all pass."""
    done = subprocess.run(
        [sys.executable, "-m", "pytest", "-q", "-x", "-n", "0", "-p", "no:cacheprovider", *tests],
        cwd=ROOT,
        env={**os.environ, "PYTHONPATH": str(copy), "PYTHONDONTWRITEBYTECODE": "1"},
        capture_output=True,
        text=True,
        check=False,
    )
    if done.returncode == 0:
        return ""
    failed = re.search(r"^(?:FAILED|ERROR) (\S.*?)(?: - .*)?$", done.stdout, re.MULTILINE)
    return failed[1] if failed else "the tests could not run"


def main() -> int:
    """Try each constant; print what noticed it."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("--tests", nargs="*", default=["tests/corpus", "tests/search"])
    asked = parser.parse_args()
    count = 0
    with tempfile.TemporaryDirectory() as work:
        package = Path(work) / "dowsing"
        shutil.copytree(ROOT / "src" / "dowsing", package)
        if noticed(Path(work), asked.tests):
            print("the tests fail on the code as it is")
            return 2
        found = mutations()
        for name, file, old, new in found:
            path = package / file
            source = path.read_text(encoding="utf-8")
            if source.count(old) != 1:
                print(f"{name}: “{old}” is not there once; mend the list")
                return 2
            path.write_text(source.replace(old, new), encoding="utf-8")
            by = noticed(Path(work), asked.tests)
            path.write_text(source, encoding="utf-8")
            count += bool(by)
            print(f"{name:44} {'noticed by ' + by if by else 'NOT NOTICED'}", flush=True)
    print(f"{count} of {len(found)} noticed")
    return 0 if count >= 0.8 * len(found) else 1


if __name__ == "__main__":
    raise SystemExit(main())
