"""Lines for tasks said in plain words, against patterns of right lines.

    python bench/tasks.py FILE.jsonl [--misses]

A line of the file has `task`, `again` (null, or what was said after the first answer) and `accept`,
patterns of which any one has to be found in a line that is right. Printed are the shares with a
right line first and among the first three, and how many first lines are wrong and would destroy
or stop something. With `--none` the file has sentences for
which there is no line, one a line: none, or only one that is marked as unsure, should come.
"""

from __future__ import annotations

import argparse
import json
import re

from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.ingest.upkeep import open_index
from dowsing.machine.settings import read_settings
from dowsing.tasks.answers import harms, lines_for


def ask_none(path: str, finder: CommandFinder) -> int:
    """Print how many sentences get no line, and which get one."""
    with open(path, encoding="utf-8") as file:
        sentences = [line.strip() for line in file]
    found = [(one, lines_for(one, [], finder)) for one in sentences]
    for sentence, task in found:
        if task.answers:
            said = "near" if task.near else "NOT ADMITTED"
            print(f"{sentence}\n      {said} {task.likely:.2f}  {task.answers[0].line}")
    none = sum(not task.answers for _, task in found)
    unsure = sum(bool(task.answers) and task.near for _, task in found)
    print(f"{len(found)} sentences: no line {none}, one that only comes near {unsure}")
    return 0


def main() -> int:
    """Print the shares."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("file")
    parser.add_argument("--none", action="store_true", help="there is no line for these sentences")
    parser.add_argument(
        "--misses", action="store_true", help="print the tasks without a right line first"
    )
    asked = parser.parse_args()
    settings = read_settings()
    finder = CommandFinder(open_index(settings)[0], settings)
    if asked.none:
        return ask_none(asked.file, finder)
    first = third = total = checked = harmful = refused = 0
    with open(asked.file, encoding="utf-8") as file:
        rows = [json.loads(line) for line in file if line.strip()]
    for row in rows:
        again = row.get("again") or []
        task = lines_for(row["task"], [again] if isinstance(again, str) else again, finder)
        answers = task.answers
        right = [
            any(re.search(pattern, answer.line) for pattern in row["accept"]) for answer in answers
        ]
        total += 1
        first += right[:1] == [True]
        third += any(right[:3])
        checked += bool(answers) and answers[0].checked
        refused += not answers or task.near
        harmful += bool(answers) and right[0] is False and harms(answers[0])
        if asked.misses and right[:1] != [True]:
            mark = " HARMFUL" if answers and harms(answers[0]) else ""
            print(f"{row['task']} {again or ''}{mark}\n    {row.get('note', '')}")
            for answer in answers[:3]:
                print(f"      {answer.score:.2f}  {answer.line}")
    print(
        f"{total} tasks: right line first {first / total:.3f}, among the first three "
        f"{third / total:.3f}; ",
        end="",
    )
    print(
        f"every option of the first line documented here {checked / total:.3f}; wrong and "
        f"destroying or stopping {harmful}; refused or only near {refused}"
    )
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
