"""Lines for tasks said in plain words, against patterns of right lines.

    python bench/tasks.py FILE.jsonl [--misses] [--slips SEED]

A line of the file has `task` and `again` (null, or what was said after the first answer), or all
that is said in `say`, and `accept`, patterns of which any one has to be found in a line that is
right, quoted or not, and none of `reject`. Printed are the shares with a right line first and among
the first three, how many are called sure and how many of these are right, and how many first lines
are wrong and would destroy or stop something. With `--slips` one word of each sentence is
misspelled. With `--none` the file has sentences for which there is no line, one a line: none, or
only one that is marked as unsure, should come.
"""

from __future__ import annotations

import argparse
import json
import random
import re
from typing import Any

from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.ingest.upkeep import open_index
from dowsing.machine.settings import read_settings
from dowsing.tasks.answers import SURE, harms, lines_for

WORD = re.compile(r"(?<![\w./@'-])[a-z]{5,}(?![\w./@'-])")


def steps_of(row: dict[str, Any]) -> list[str]:
    """What is said, one after the other."""
    again = row.get("again") or []
    found: list[str] = row.get("say") or [
        row["task"],
        *([again] if isinstance(again, str) else again),
    ]
    return found


def is_right(row: dict[str, Any], line: str) -> bool:
    """Whether a line is one of those that a row accepts, quoted or not."""
    bare = re.sub(r"^\s*sudo\s+", "", line).replace('"', "").replace("'", "")
    bare = re.sub(r"\s+", " ", re.sub(r"\\(?=[ *()])", "", bare)).strip()
    return any(
        any(re.search(one, text) for one in row.get("accept", []))
        and not any(re.search(one, bare) for one in row.get("reject", []))
        for text in (line, bare)
    )


def with_slip(sentence: str, choose: random.Random) -> str:
    """The sentence with a slip in one of its longer words: two letters swapped, one left out,
    doubled, or another one.
    """
    words = list(WORD.finditer(sentence))
    if not words:
        return sentence
    match = choose.choice(words)
    word, at = match[0], choose.randrange(1, len(match[0]) - 1)
    slips = (
        word[:at] + word[at + 1] + word[at] + word[at + 2 :],
        word[:at] + word[at + 1 :],
        word[:at] + word[at] + word[at:],
        word[:at] + choose.choice("aeinrst") + word[at + 1 :],
    )
    return sentence[: match.start()] + choose.choice(slips) + sentence[match.end() :]


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
    parser.add_argument("--slips", type=int, metavar="SEED", help="misspell a word of each")
    parser.add_argument("--none", action="store_true", help="there is no line for these sentences")
    parser.add_argument(
        "--misses", action="store_true", help="print the tasks without a right line first"
    )
    asked = parser.parse_args()
    settings = read_settings()
    finder = CommandFinder(open_index(settings)[0], settings)
    if asked.none:
        return ask_none(asked.file, finder)
    first = third = total = checked = harmful = refused = sure = sure_right = 0
    choose = random.Random(asked.slips)
    with open(asked.file, encoding="utf-8") as file:
        rows = [json.loads(line) for line in file if line.strip()]
    for row in rows:
        say, *again = steps_of(row)
        if row.get("kind") == "none":
            continue
        say = say if asked.slips is None else with_slip(say, choose)
        task = lines_for(say, again, finder)
        answers = task.answers
        right = [is_right(row, answer.line) for answer in answers]
        is_sure = bool(answers) and task.likely >= SURE and not task.near
        sure += is_sure
        sure_right += is_sure and right[0]
        total += 1
        first += right[:1] == [True]
        third += any(right[:3])
        checked += bool(answers) and answers[0].checked
        refused += not answers or task.near
        harmful += bool(answers) and right[0] is False and harms(answers[0])
        if asked.misses and right[:1] != [True]:
            mark = " HARMFUL" if answers and harms(answers[0]) else ""
            print(f"{say} {again or ''}{mark}\n    {row.get('note', '')}")
            for answer in answers[:3]:
                print(f"      {answer.score:.2f}  {answer.line}")
    print(
        f"{total} tasks: right line first {first / total:.3f}, among the first three "
        f"{third / total:.3f}; ",
        end="",
    )
    print(f"called sure {sure}, of these right {sure_right}; ", end="")
    print(
        f"every option of the first line documented here {checked / total:.3f}; wrong and "
        f"destroying or stopping {harmful}; refused or only near {refused}"
    )
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
