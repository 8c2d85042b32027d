"""The answers to fixed calls on the demo library, kept and compared: for work that must change no
answer.

    python bench/same_answers.py keep FILE [--calls LIST] [--program PATH]
    python bench/same_answers.py compare FILE [--calls LIST] [--program PATH]

`keep` writes one JSON object a call into FILE: `call`, `format`, `status`, `out`, `err`. `compare`
asks again and prints each call whose answer is another one now; its exit status is 1 if there is
one. Each call is asked as text and as JSON, in a home of its own. LIST is `queries/calls.txt`
beside this file; with `--machine` the calls are asked of this machine's index instead of the demo
library's.
"""

from __future__ import annotations

import argparse
import difflib
import json
import os
import re
import shlex
import subprocess
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

CALLS = Path(__file__).parent / "queries" / "calls.txt"
PROGRAM = Path(sys.executable).parent / "dowsing"
SHOWN = 12  # lines of a difference that are printed


def read_calls(path: Path) -> list[list[str]]:
    """The calls of a list: each a line of words, quoted as for a shell; lines with # are
    remarks.
    """
    lines = path.read_text().splitlines()
    return [shlex.split(line) for line in lines if line and not line.startswith("#")]


def ask(program: Path, home: Path, call: list[str], form: str) -> dict[str, object]:
    """One call's answer."""
    own = {"HOME": str(home), "COLUMNS": "80", "LC_ALL": "C.UTF-8"}
    own |= {f"DOWSING_{what}": str(home / what.lower()) for what in ("CONFIG", "DATA", "CACHE")}
    kept = {
        name: os.environ[name]
        for name in ("PATH", "MANPATH", "INFOPATH", "DOWSING_CACHE")
        if name in os.environ
    }
    words = call if form == "text" else [*call, "--format", form]
    place = home / "work"  # an empty folder: values may be names of files here
    place.mkdir(exist_ok=True)
    done = subprocess.run(
        [program, *words],
        cwd=place,
        env={**own, **kept},
        stdin=subprocess.DEVNULL,
        capture_output=True,
        text=True,
        errors="replace",
        check=False,
    )
    answer = {
        "call": call,
        "format": form,
        "status": done.returncode,
        "out": done.stdout,
        "err": done.stderr,
    }
    return {
        key: _elsewhere(value, home) if isinstance(value, str) else value
        for key, value in answer.items()
    }


def _elsewhere(text: str, home: Path) -> str:
    """A text without the places that differ from one checkout or run to another."""
    return re.sub(r"/[\w./-]*/dowsing/demo/library", "/demo/library", text.replace(str(home), "~"))


def answers(program: Path, calls: list[list[str]]) -> list[dict[str, object]]:
    """The answers to all calls, as text and as JSON."""
    with tempfile.TemporaryDirectory() as home, ThreadPoolExecutor(os.cpu_count()) as pool:
        ask(
            program, Path(home), calls[0], "text"
        )  # makes the index, so that no later call tells of it
        wanted = [(call, form) for call in calls for form in ("text", "json")]
        return list(pool.map(lambda want: ask(program, Path(home), *want), wanted))


def dropping(answer: dict[str, object], key: str) -> dict[str, object]:
    """An answer without a key of its JSON, wherever it stands."""

    def without(value: object) -> object:
        if isinstance(value, dict):
            return {name: without(one) for name, one in value.items() if name != key}
        return [without(one) for one in value] if isinstance(value, list) else value

    try:
        return answer | {"out": json.dumps(without(json.loads(str(answer["out"]))))}
    except ValueError:
        return answer


def compare(before: list[dict[str, object]], after: list[dict[str, object]]) -> int:
    """Print what differs; how many answers do."""
    old = {(tuple(a["call"]), a["format"]): a for a in before}  # type: ignore[arg-type]
    wrong = 0
    for answer in after:
        earlier = old.get((tuple(answer["call"]), answer["format"]))  # type: ignore[arg-type]
        if earlier == answer:
            continue
        wrong += 1
        print("==", shlex.join(answer["call"]), f"({answer['format']})")  # type: ignore[arg-type]
        texts = [
            "\n".join(
                [f"status {a['status']}", *_readable(str(a["out"])), *str(a["err"]).splitlines()]
            ).splitlines()
            for a in (earlier or {"status": None, "out": "", "err": "not asked before"}, answer)
        ]
        for line in list(difflib.unified_diff(*texts, lineterm="", n=1))[2 : 2 + SHOWN]:
            print("  ", line[:200])
    return wrong


def _readable(out: str) -> list[str]:
    """Output in lines: JSON taken apart, so that a difference is small."""
    try:
        return json.dumps(json.loads(out), indent=1, ensure_ascii=False).splitlines()
    except ValueError:
        return out.splitlines()


def main() -> int:
    """Keep or compare."""
    parser = argparse.ArgumentParser(description=__doc__.partition("\n")[0])
    parser.add_argument("what", choices=["keep", "compare"])
    parser.add_argument("file", type=Path)
    parser.add_argument("--calls", type=Path, default=CALLS)
    parser.add_argument("--program", type=Path, default=PROGRAM)
    parser.add_argument("--machine", action="store_true", help="ask this machine's index")
    parser.add_argument(
        "--without", metavar="KEY", help="a key of JSON answers that may be another one"
    )
    given = parser.parse_args()
    calls = read_calls(given.calls)
    if not given.machine:
        calls = [["--demo", *call] for call in calls]
    found = answers(given.program, calls)
    if given.what == "keep":
        given.file.write_text(
            "".join(json.dumps(answer, ensure_ascii=False) + "\n" for answer in found)
        )
        print(f"{len(found)} answers to {len(calls)} calls")
        return 0
    before = [json.loads(line) for line in given.file.read_text().splitlines()]
    if given.without:
        before, found = (
            [dropping(one, given.without) for one in answers] for answers in (before, found)
        )
    wrong = compare(before, found)
    print(f"{len(found)} answers to {len(calls)} calls, {wrong} differ")
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())
