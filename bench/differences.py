"""Whether the differences that are reported are true, and whether the known ones are.

    python bench/differences.py [LIST.jsonl] [--names N] [--seed S] [--misses]

With a list: how many of its true differences are told, and of its false ones. With --names: N
commands of this machine, drawn at random, are asked, and of each up to six claims that a text does
not say something are looked for in the raw text: the file of the page, all files of the Info
manual, what the program prints. Nothing of the program's own reading is used for that.
"""

from __future__ import annotations

import argparse
import functools
import glob
import gzip
import json
import os
import random
import re
import subprocess
import sys
from collections import Counter
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

HERE = Path(__file__).parent
PROGRAM = os.path.join(os.path.dirname(sys.executable), "dowsing")
LIST = HERE / "queries" / "differences.jsonl"
CLAIMS = 6  # of each name
WORKERS = 2
_MACROS = r"\\f(?:\[[^]]*\]|\(..|.)|\\s[-+]?\d|\\m\[[^]]*\]|\\[&/,|^:%)]"
_SIGNS = {"\\-": "-", "\\(aq": "'", "\\[aq]": "'", "\\e": "\\", "\\(rs": "\\", "\\(hy": "-"}
_SHELL = ("builtin", "shell-manual", "builtin-usage")


def opened(path: str) -> str:
    """The text of a plain or packed file, "" if there is none."""
    try:
        with gzip.open(path) if path.endswith(".gz") else open(path, "rb") as file:
            return file.read().decode("utf-8", "replace")
    except OSError:
        return ""


@functools.cache
def page(path: str) -> str:
    """The source of a page, with its alternating fonts joined and its requests taken away."""
    text = opened(path)
    link = re.match(r"\.so (\S+)", text)
    if link:
        base = os.path.join(os.path.dirname(os.path.dirname(path)), link[1])
        text = opened(base) or opened(base + ".gz")
    for sign, plain in _SIGNS.items():
        text = text.replace(sign, plain)
    lines = []
    for line in re.sub(_MACROS, "", text).split("\n"):
        mixed = re.match(r"[.'](?:BR|RB|BI|IB|IR|RI)\s+(.*)", line)
        if mixed:
            line = "".join(a or b for a, b in re.findall(r'"([^"]*)"|(\S+)', mixed[1]))
        elif re.match(r"\.(?:Op|Fl|It|Ar|Ic|Xo|Cm|Sm)\b", line):
            line = re.sub(r"\bFl\s+(?=[\w?])", " -", line)
            line = re.sub(r"\bFl\b", " -", line)
        lines.append(line)
    return "\n".join(lines)


@functools.cache
def manual_files(path: str) -> str:
    """All files of an Info manual."""
    stem = re.sub(r"(-\d+)?(\.gz)?$", "", path)
    return "".join(opened(file) for file in sorted(glob.glob(glob.escape(stem) + "*")))


@functools.cache
def printed(*line: str) -> str:
    """What a program prints for `--help`, both streams."""
    try:
        done = subprocess.run(
            line, capture_output=True, timeout=10, stdin=subprocess.DEVNULL, check=False,
            env={"PATH": os.environ["PATH"], "HOME": "/nonexistent", "LC_ALL": "C.UTF-8"},
        )  # fmt: skip
    except (OSError, subprocess.TimeoutExpired):
        return ""
    return (done.stdout + done.stderr).decode("utf-8", "replace")


def raw(name: str, row: dict[str, str]) -> str:
    """The text of a source, straight from where it is."""
    source, where = row["source"], row["where"]
    path = re.search(r"(/\S+)", where)
    if source == "manual" and path:
        return page(path[1])
    if source == "info" and path:
        return manual_files(path[1])
    if source == "usage" and path:
        return printed(path[1], "--help")
    if source == "builtin":
        return printed("bash", "-c", f"help -- '{name}'")
    return ""


def says(text: str, item: str) -> bool:
    """Whether the spelling stands in the text, not within a longer word."""
    after = r"(?![\w-])" if item[-1:].isalnum() else ""
    return re.search(rf"(?<![\w-]){re.escape(item)}{after}", text) is not None


def asked(name: str) -> dict:  # type: ignore[type-arg]
    """The answer of the program."""
    done = subprocess.run(
        [PROGRAM, "sources", name, "--differences", "--format", "json"],
        capture_output=True, check=False, stdin=subprocess.DEVNULL,
    )  # fmt: skip
    try:
        return dict(json.loads(done.stdout))
    except ValueError:
        return {}


def spellings(item: str) -> set[str]:
    """What an item may be looked for as: each of its spellings, without a value."""
    return {re.split(r"[=\[ ]", one)[0] for one in item.split(", ")} | {item}


def judge_list(path: str, misses: bool) -> None:
    """Print how much of a list of known differences is told, and how much of what are none."""
    rows = [json.loads(line) for line in Path(path).read_text().splitlines() if line.strip()]
    told = known = wrong = none = 0
    with ThreadPoolExecutor(WORKERS) as pool:
        answers = list(pool.map(lambda row: asked(row["name"]), rows))
    for row, answer in zip(rows, answers, strict=True):
        found = answer.get("differences", [])

        def reported(item: str, source: str, found: list = found) -> bool:  # type: ignore[type-arg]
            return any(
                set(item.split("|")) & spellings(one["item"]) and source in one["not_said_by"]
                for one in found
            )

        for true in row["true"]:
            known += 1
            hit = reported(true["item"], true["not_said_by"])
            told += hit
            if misses and not hit:
                print(f"  {row['name']}: not told: {true['item']}, not in {true['not_said_by']}")
        for false in row["false"]:
            none += 1
            hit = reported(false["item"], false["not_said_by"])
            wrong += hit
            if misses and hit:
                print(f"  {row['name']}: told: {false['item']}, not in {false['not_said_by']}")
    print(f"{len(rows)} names: {told} of {known} true ones told, {wrong} of {none} false ones told")


def judge_names(count: int, seed: int, misses: bool) -> None:
    """Print how many claims about commands drawn at random hold in the raw texts."""
    chance = random.Random(seed)
    names = sorted(
        {
            os.path.basename(path).split(".")[0]
            for path in glob.glob("/usr/share/man/man[18]/*")
            if os.access(f"/usr/bin/{os.path.basename(path).split('.')[0]}", os.X_OK)
        }
    )
    chosen = chance.sample(names, min(count, len(names)))
    kinds: Counter[str] = Counter()
    wrong: Counter[str] = Counter()
    compared = 0
    with ThreadPoolExecutor(WORKERS) as pool:
        answers = list(pool.map(asked, chosen))
    for name, answer in zip(chosen, answers, strict=True):
        rows = {row["source"]: row for row in answer.get("sources", [])}
        claims = [(one, s) for one in answer.get("differences", []) for s in one["not_said_by"]]
        compared += len(rows) > 1
        for one, source in chance.sample(claims, min(CLAIMS, len(claims))):
            text = raw(name, rows[source])
            if not text or (source in _SHELL and one["between"]):
                continue
            items = one["item"].split(", ")
            if one["what"] == "argument":
                flag, _, value = one["item"].split(", ")[-1].partition(" ")
                items = [f"{flag}={value}", f"{flag} {value}", f"{flag}[={value}]"]
            kinds[one["what"]] += 1
            if sum(says(text, item) for item in items) > (len(items) / 2 if len(items) > 1 else 0):
                wrong[one["what"]] += 1
                if misses:
                    print(f"  {name}: {one['what']} {one['item']} is in {source}")
    total = sum(kinds.values())
    held = total - sum(wrong.values())
    by_kind = ", ".join(f"{k} {kinds[k] - wrong[k]}/{kinds[k]}" for k in sorted(kinds))
    print(
        f"{len(chosen)} commands, {compared} with texts to compare: {held} of {total} claims hold "
        f"({held / max(total, 1):.3f}): {by_kind}"
    )


def main() -> int:
    """Judge what was asked for."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("lists", nargs="*", metavar="LIST.jsonl")
    parser.add_argument("--names", type=int, default=0)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--misses", action="store_true")
    options = parser.parse_args()
    for path in options.lists or ([] if options.names else [str(LIST)]):
        judge_list(path, options.misses)
    if options.names:
        judge_names(options.names, options.seed, options.misses)
    return 0


if __name__ == "__main__":
    sys.exit(main())
