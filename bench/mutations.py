"""How many wrong constants and dropped rules the tests notice.

    python bench/mutations.py [--tests FOLDER …]
    python bench/mutations.py --of PACKAGE … [--draw N] [--seed S] [--tests FOLDER …]

The first sets each constant of find's ranking to nought, one at a time, in a copy of the code. The
second draws N places of the packages at random and puts one thing wrong at each: a number, a
comparison, a condition, `and` for `or`, a text that is compared. The tests are run on each copy. A
line for each: whether a test noticed, and by which. The exit status is 0 if at least four of five
constants, or 85 of 100 places drawn, were noticed.
"""

from __future__ import annotations

import argparse
import ast
import os
import random
import re
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path
from typing import NamedTuple

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


class Mutant(NamedTuple):
    """One thing put wrong: the file, the place of the text in it (characters), what stands there
    and what is put there.
    """

    file: str
    start: int
    end: int
    old: str
    new: str

    @property
    def name(self) -> str:
        """It as it is printed."""
        return f"{self.file}@{self.start}: {self.old[:40]!r} -> {self.new[:40]!r}"


_SIGNS = {
    ast.Lt: ("<", "<="),
    ast.LtE: ("<=", "<"),
    ast.Gt: (">", ">="),
    ast.GtE: (">=", ">"),
    ast.Eq: ("==", "!="),
    ast.NotEq: ("!=", "=="),
    ast.In: (" in ", " not in "),
    ast.NotIn: (" not in ", " in "),
    ast.Is: (" is ", " is not "),
    ast.IsNot: (" is not ", " is "),
}


def mutants_of(file: str, source: str) -> list[Mutant]:
    """What can be put wrong in the functions of a module."""
    starts = [0]
    for line in source.splitlines(keepends=True):
        starts.append(starts[-1] + len(line.encode()))
    raw = source.encode()
    found: list[Mutant] = []

    def place(node: ast.expr) -> tuple[int, int]:
        start = starts[node.lineno - 1] + node.col_offset
        return start, starts[(node.end_lineno or node.lineno) - 1] + (node.end_col_offset or 0)

    def put(start: int, end: int, new: str) -> None:
        found.append(Mutant(file, start, end, raw[start:end].decode(), new))

    def between(left: ast.expr, right: ast.expr, old: str, new: str) -> None:
        start, end = place(left)[1], place(right)[0]
        text = raw[start:end].decode()
        if text.count(old) == 1:
            put(start, end, text.replace(old, new))

    for function in ast.walk(ast.parse(source)):
        if not isinstance(function, ast.FunctionDef):
            continue
        for node in (one for statement in function.body for one in ast.walk(statement)):
            if isinstance(node, ast.Compare) and type(node.ops[0]) in _SIGNS:
                between(node.left, node.comparators[0], *_SIGNS[type(node.ops[0])])
            elif isinstance(node, ast.BoolOp):
                word, other = ("and", "or") if isinstance(node.op, ast.And) else ("or", "and")
                between(node.values[0], node.values[1], f"{word} ", f"{other} ")
            elif isinstance(node, ast.Constant) and type(node.value) is int:
                put(*place(node), str(node.value + 1))
            elif isinstance(node, ast.UnaryOp) and isinstance(node.op, ast.Not):
                put(*place(node), f"({raw[slice(*place(node.operand))].decode()})")
            elif isinstance(node, ast.If):
                put(*place(node.test), "False")
    return list(dict.fromkeys(found))


def drawn(packages: list[str], count: int, seed: int) -> list[Mutant]:
    """Mutants of the packages, drawn at random."""
    found: list[Mutant] = []
    for package in packages:
        for path in sorted((ROOT / "src" / "dowsing" / package).rglob("*.py")):
            file = str(path.relative_to(ROOT / "src" / "dowsing"))
            found += mutants_of(file, path.read_text(encoding="utf-8"))
    return random.Random(seed).sample(found, min(count, len(found)))


def try_mutants(asked: argparse.Namespace) -> int:
    """Try the mutants that were drawn; print what noticed each."""
    tests = asked.tests or [f"tests/{package}" for package in asked.of]
    found = drawn(asked.of, asked.draw, asked.seed)
    count = 0
    with tempfile.TemporaryDirectory() as work:
        package = Path(work) / "dowsing"
        shutil.copytree(ROOT / "src" / "dowsing", package)
        for one in found:
            path = package / one.file
            source = path.read_bytes()
            path.write_bytes(source[: one.start] + one.new.encode() + source[one.end :])
            by = noticed(Path(work), tests)
            path.write_bytes(source)
            count += bool(by)
            print(f"{'noticed' if by else 'LIVES  '} {one.name}  {by}", flush=True)
    print(f"{count} of {len(found)} noticed")
    return 0 if count >= 0.85 * len(found) else 1


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
    parser.add_argument("--tests", nargs="*", default=[])
    parser.add_argument("--of", nargs="*", default=[], help="packages to draw places of")
    parser.add_argument("--draw", type=int, default=100)
    parser.add_argument("--seed", type=int, default=1)
    asked = parser.parse_args()
    if asked.of:
        return try_mutants(asked)
    asked.tests = asked.tests or ["tests/corpus", "tests/search"]
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
