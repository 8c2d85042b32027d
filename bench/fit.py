"""Fits the weights of find to judged queries, and writes them into weights.toml.

    python bench/fit.py [FILE.tsv …] [--also INDEX FILE.tsv WORTH …] [--set NAME=NUMBER …] [--write]

It starts from the weights in use. Each is tried at a few multiples of itself; a multiple is taken
over only where it gains on queries that it was not chosen on: in each of five folds the best
multiple on the other four is judged on the one left out, and the sum of what that gains has to
exceed THRESHOLD. Passes over all weights follow until one changes nothing, so a run on the written
file, lists and index changes nothing more. The folds are fixed by the order of the queries.

--also: queries that are asked of an index of their own, and what each of them counts; those of
the machine count 1. `left_out.py --keep DIR` leaves such indexes and lists, of commands of which we
know neither phrase nor recipe. --set begins with another number, to see whether the fit finds its
way back. Without files: those that FITTED_ON names. `held.tsv` is never among them.
"""

from __future__ import annotations

import argparse
import re
import sys
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path
from typing import NamedTuple

from finding import Query, figures, ours, worth

from dowsing.index.store import Store
from dowsing.ingest.upkeep import open_index
from dowsing.machine.settings import read_settings
from dowsing.search.weights import FILE, WEIGHTS, Weights

QUERIES = Path(__file__).parent / "queries"
FITTED_ON = ("general.tsv", "find-dev.tsv")
MULTIPLES = (0.5, 0.75, 1.33, 2.0)
FOLDS = 5
#: What a change has to gain, as a share of the number of queries: less is as likely luck.
THRESHOLD = 0.01
MOST_PASSES = 6
SHARES = ("precise",)  # weights that are shares of something
MOST_SHARE = 0.95


class Lists(NamedTuple):
    """Queries, the index that they are asked of, and what each of them counts."""

    store: Store
    queries: list[Query]
    worth: float


_lists: list[Lists] = []


def _start(files: list[str], also: list[list[str]]) -> None:
    """Open the indexes and read the queries, in each process."""
    machine = open_index(read_settings())[0]
    _lists[:] = [Lists(machine, read_queries(files), 1.0)]
    _lists.extend(Lists(Store(index), read_queries([file]), float(n)) for index, file, n in also)


def read_queries(files: list[str]) -> list[Query]:
    """The queries of all files, in order."""
    found = []
    for name in files:
        for line in Path(name).read_text(encoding="utf-8").splitlines():
            if line.count("\t") >= 2 and not line.startswith("#"):
                found.append(Query(line))
    return found


class Places(NamedTuple):
    """The place of the first right answer to each query of each list, and what each counts."""

    lists: list[list[int]]
    counts: list[float]

    def worth(self, fold: int | None = None, inside: bool = True) -> float:
        """What the places are worth: all, those of a fold, or those outside it."""
        return sum(
            count
            * worth(
                [
                    place
                    for n, place in enumerate(ranks)
                    if fold is None or (n % FOLDS == fold) == inside
                ]
            )
            for ranks, count in zip(self.lists, self.counts, strict=True)
        )

    def weighed(self) -> float:
        """How many queries there are, each as often as it counts."""
        return sum(len(ranks) * n for ranks, n in zip(self.lists, self.counts, strict=True))

    def __str__(self) -> str:
        return " | ".join(figures(ranks) for ranks in self.lists)


def places(numbers: dict[str, float]) -> Places:
    """Where the right answers stand with these weights."""
    weights = Weights(**numbers)
    return Places(
        [[ours(one.store, query, weights) for query in one.queries] for one in _lists],
        [one.worth for one in _lists],
    )


def gain_when_left_out(base: Places, tried: list[Places]) -> float:
    """What is gained over `base` on each fold by the trial that is best on the others."""
    gained = 0.0
    for fold in range(FOLDS):
        best = max([base, *tried], key=lambda one: one.worth(fold, inside=False))
        gained += best.worth(fold) - base.worth(fold)
    return gained


def fit(numbers: dict[str, float], pool: ProcessPoolExecutor) -> dict[str, float]:
    """The fitted weights; prints each change."""
    base = pool.submit(places, numbers).result()
    print(f"{'before':24} {base}", flush=True)
    for _ in range(MOST_PASSES):
        before = dict(numbers)
        for name in numbers:
            values = [float(f"{numbers[name] * multiple:.3g}") for multiple in MULTIPLES]
            if name in SHARES:
                values = [min(value, MOST_SHARE) for value in values]
            tried = list(pool.map(places, [numbers | {name: value} for value in values]))
            best = max(range(len(values)), key=lambda n: tried[n].worth())
            if gain_when_left_out(base, tried) > THRESHOLD * base.weighed():
                numbers = numbers | {name: values[best]}
                base = tried[best]
                print(f"{name + ' = ' + str(values[best]):24} {base}", flush=True)
        if numbers == before:
            break
    return numbers


def write_weights(numbers: dict[str, float]) -> None:
    """Put the numbers into the file; its remarks stay."""
    path = Path(FILE)
    lines = path.read_text(encoding="utf-8").splitlines()
    for n, line in enumerate(lines):
        match = re.fullmatch(r"(\w+) = [\d.]+", line)
        if match:
            lines[n] = f"{match[1]} = {numbers[match[1]]}"
    path.write_text("\n".join(lines) + "\n", encoding="utf-8")


def main() -> int:
    """Fit, print and, if asked, write."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("files", nargs="*", default=[str(QUERIES / name) for name in FITTED_ON])
    parser.add_argument("--write", action="store_true", help="write them into weights.toml")
    parser.add_argument(
        "--also", nargs=3, action="append", default=[], metavar=("INDEX", "FILE", "WORTH")
    )
    parser.add_argument("--set", nargs="*", default=[], metavar="NAME=NUMBER")
    asked = parser.parse_args()
    start = {name: getattr(WEIGHTS, name) for name in WEIGHTS._fields}
    start |= {name: float(number) for name, _, number in (one.partition("=") for one in asked.set)}
    with ProcessPoolExecutor(initializer=_start, initargs=(asked.files, asked.also)) as pool:
        numbers = fit(start, pool)
    if numbers == start:
        print("no weight changes")
    if asked.write:
        write_weights(numbers)
    return 0


if __name__ == "__main__":
    sys.exit(main())
