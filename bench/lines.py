"""Command lines taken apart, against pieces told by hand; and the false alarms on lines that are
right.

    python bench/lines.py FILE.jsonl… [--misses]
    python bench/lines.py --examples [--misses] [--limit N]

A line of a file has `line`, `pieces` (text, role, start; flags, page and value of options) and
`kind: mistake` where it has one. A piece is right if its role, all its spellings and its page are;
pieces of values that stand apart are not counted, for the option has them. `--examples` reads every
example that the machine's own manual pages give, which should all be right, and prints the share
that is called mistaken.
"""

from __future__ import annotations

import argparse
import json
import zlib

from dowsing.commandline.grammar.sayings import ProblemCode
from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.ingest.upkeep import open_index
from dowsing.machine.settings import read_settings
from dowsing.render.phrases import words
from dowsing.render.pieces import Piece, pieces_of

#: What the shell cannot read as one line.
UNREADABLE = frozenset(
    (
        ProblemCode.COMMAND_MISSING,
        ProblemCode.FILE_MISSING,
        ProblemCode.NO_TERMINATOR,
        ProblemCode.NOT_CLOSED,
        ProblemCode.NEEDS_CLOSER,
        ProblemCode.SENSELESS,
        ProblemCode.TOO_DEEP,
        ProblemCode.TOO_LONG,
    )
)


def is_right(gold: dict, piece: Piece) -> bool:  # type: ignore[type-arg]
    """Whether our piece says what the one told by hand says."""
    roles = {
        gold["role"],
        *(word for word in ("keyword", "operator") if word in gold.get("doubtful", "")),
    }
    if gold.get("doubtful") and "option" in gold["doubtful"]:
        roles.add("option")
    if piece.role not in roles:
        return False
    if (
        "flags" in gold
        and gold["role"] == "option"
        and set(gold["flags"]) != set(piece.flags or [])
    ):
        return False
    if "value" in gold and gold["value"] != piece.value:
        return False
    return (
        "page" not in gold
        or gold["page"] == piece.page
        or "builtin" in gold
        or gold["role"] == "operator"
    )


def compare(row: dict, finder: CommandFinder, misses: bool) -> tuple[int, int, int, int, int]:  # type: ignore[type-arg]
    """Pieces right and in all, mistakes found and in all, and whether a right line is called
    mistaken.
    """
    found = unpick(row["line"], finder)
    ours = list(pieces_of(found))
    right = total = caught = wrong = 0
    for gold in row["pieces"]:
        if gold["role"] == "value":
            continue
        piece = next((p for p in ours if p.text == gold["text"] and p.start == gold["start"]), None)
        if piece is not None:
            ours.remove(piece)
        if gold["role"] == "error":
            wrong += 1
            good = piece is not None and bool(piece.problem)
            caught += good
        else:
            total += 1
            good = piece is not None and is_right(gold, piece)
            right += good
        if misses and not good:
            told = (
                f"{piece.role} {piece.flags} {piece.value} {piece.page}"
                if piece
                else "no such piece"
            )
            print(f"  {row['line']}\n      {gold['text']}: {told}; by hand {gold}")
    extra = [p for p in ours if p.role != "value"]
    if misses and extra:
        print(f"  {row['line']}\n      extra: {[(p.text, p.role) for p in extra]}")
    alarm = int(found.mistaken and row.get("kind") != "mistake")
    if misses and alarm:
        print(
            f"  {row['line']}\n      called wrong: "
            f"{[p.problem for p in pieces_of(found) if p.problem]} {found.problem}"
        )
    return right, total, caught, wrong, alarm


def examples(finder: CommandFinder, misses: bool, limit: int) -> None:
    """The share of the examples of the machine's own pages that are called mistaken."""
    from dowsing.model.errors import Unreadable
    from dowsing.sources import page_files

    store = finder.store
    rows = store.rows(
        "SELECT path, name, section, family FROM entries WHERE substr(section,1,1) IN ('1','8') "
        "AND path<>''"
    )
    crowded = {
        f for (f,) in store.rows("SELECT family FROM entries GROUP BY family HAVING count(*)>1000")
    }
    lines = alarms = unreadable = 0
    for path, name, section, family in rows:
        if family in crowded and zlib.crc32(name.encode()) % 50:
            continue  # of a very large family every fiftieth page
        try:
            document = page_files.read_page_file(path, name, section)
        except Unreadable:
            continue
        for example in document.examples[:limit]:
            found = unpick(example.line, finder)
            lines += 1
            if found.mistaken:
                alarms += 1
                unreadable += found.problem is not None and found.problem.reason.code in UNREADABLE
                if misses:
                    said = [
                        f"{p.text}: {words(p.problem)}" for p in pieces_of(found) if p.problem
                    ] or [words(found.problem.reason) if found.problem else ""]
                    print(f"  {name}({section})  {example.line[:150]}\n      {said[0]}")
    own = alarms - unreadable
    print(f"{lines} examples, {alarms} called mistaken ({alarms / max(1, lines):.2%})")
    print(
        f"  {unreadable} because the shell cannot read them as one line; {own} for their words "
        f"({own / max(1, lines):.2%})"
    )


def main() -> int:
    """Print the shares."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("files", nargs="*")
    parser.add_argument("--misses", action="store_true", help="print what is not right")
    parser.add_argument(
        "--examples", action="store_true", help="read the examples of the manual pages"
    )
    parser.add_argument("--limit", type=int, default=1000, help="examples of a page")
    asked = parser.parse_args()
    settings = read_settings()
    finder = CommandFinder(open_index(settings)[0], settings)
    for path in asked.files:
        with open(path, encoding="utf-8") as file:
            rows = [json.loads(line) for line in file if line.strip()]
        sums = [
            sum(column)
            for column in zip(*(compare(row, finder, asked.misses) for row in rows), strict=True)
        ]
        right, total, caught, wrong, alarms = sums
        fine = sum(row.get("kind") != "mistake" for row in rows)
        print(f"{path}")
        print(f"  pieces right     {right} of {total}  {right / max(1, total):.4f}")
        print(f"  mistakes found   {caught} of {wrong}  {caught / max(1, wrong):.4f}")
        print(f"  false alarms     {alarms} of {fine} right lines  {alarms / max(1, fine):.4f}")
    if asked.examples:
        examples(finder, asked.misses, asked.limit)
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
