"""Lines judged by hand: effects, mistakes, half-typed lines and rewritings.

    python bench/judged_lines.py FILE.jsonl… [--misses]

The kind of a list is the first word of its file's name. Rows with `foreign` are skipped unless the
index is of packages that are not installed (`--foreign`: then only they are asked). A row is right:

    effects    an effect is told whose words match `about`; with `quiet`, none is
    mistakes   a problem is told, and `nearest` matches what is offered; without `mistake`, none is
    ready      all `offers` are among the first twelve, no `never` anywhere, `complete` is as said
    rewrites   the line matches one of `accept` as a whole, and none of `reject`
    pieces     each piece is there with its role, spellings and value, and what is said matches
               `means`; without a word of what it means it is vague
"""

from __future__ import annotations

import argparse
import json
import os
import re
from collections.abc import Callable

from dowsing.commandline.expecting import what_next
from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.commandline.rewriting.rewrite import long_form, short_form, tidied
from dowsing.ingest.upkeep import open_index
from dowsing.machine.settings import read_settings
from dowsing.render.phrases import words
from dowsing.render.piece_text import effect_line, mistakes_of, says_of
from dowsing.render.pieces import Piece, pieces_of

FIRST = 12  # offers that are looked at

#: What was answered, in short, and whether that is right.
Verdict = tuple[bool, str]
Row = dict[str, object]


def effects(row: Row, finder: CommandFinder) -> Verdict:
    """Whether what a line does is told, and nothing of one that does nothing."""
    told = "\n".join(effect_line(one) for one in unpick(str(row["line"]), finder).changes)
    if row["quiet"]:
        return not told, told
    about = row["about"]
    return bool(told) and (not about or bool(re.search(str(about), told, re.IGNORECASE))), told


def mistakes(row: Row, finder: CommandFinder) -> Verdict:
    """Whether a mistake is told with what may be meant, and nothing of a line that is right."""
    found = mistakes_of(unpick(str(row["line"]), finder))
    told = "; ".join(f"{says} {' '.join(near)}" for _, _, says, near in found)
    if not row["mistake"]:
        return not found, told
    nearest = row["nearest"]
    return bool(found) and (not nearest or bool(re.search(str(nearest), told, re.I))), told


def ready(row: Row, finder: CommandFinder) -> Verdict:
    """Whether a half-typed line is judged rightly."""
    found = what_next(str(row["line"]), finder)
    every = [
        {_bare(text) for text in (one.text, one.placeholder, *(one.values or ())) if text}
        for one in found.expects
    ]
    first = set().union(*every[:FIRST])
    offers, never = row["offers"], row["never"]
    assert isinstance(offers, list)
    assert isinstance(never, list)
    lacking = [one for one in offers if not {_bare(x) for x in one.split("||")} & first]
    wrong = [one for one in never if one in set().union(*every)]
    as_said = row["complete"] is None or row["complete"] == found.complete
    return not lacking and not wrong and as_said, f"lacks {lacking}, has {wrong}, {found.complete}"


def _bare(text: str) -> str:
    return text.strip("<>[]{}'\" ").rstrip("/")


def rewrites(row: Row, finder: CommandFinder) -> Verdict:
    """Whether a line is rewritten as accepted."""
    found = unpick(str(row["line"]), finder)
    to = row["to"]
    line = (
        long_form(found)
        if to == "long"
        else short_form(found)
        if to == "short"
        else tidied(found)[0]
    )
    accept, reject = row["accept"], row["reject"]
    assert isinstance(accept, list)
    assert isinstance(reject, list)
    right = any(re.fullmatch(one, line) for one in accept)
    return right and not any(re.search(one, line) for one in reject), line


def pieces(row: Row, finder: CommandFinder) -> Verdict:
    """Whether all pieces of a line are right."""
    found = list(pieces_of(unpick(str(row["line"]), finder)))
    wanted = row["pieces"]
    assert isinstance(wanted, list)
    wrong = []
    for gold in wanted:
        piece = next((one for one in found if _is_piece(gold, one)), None)
        if piece is None:
            wrong.append(gold["text"])
            continue
        found.remove(piece)
        said = " ".join([says_of(piece), words(piece.meaning), piece.what, *map(str, piece.parts)])
        if gold["means"] and not re.search(gold["means"], said, re.IGNORECASE):
            wrong.append(f"{gold['text']} ({said.strip()[:60] or 'vague'})")
    return not wrong, "; ".join(wrong)


def _is_piece(gold: dict[str, object], piece: Piece) -> bool:
    flags = gold["flags"]
    spelled = not flags or set(flags) & set(piece.flags or [])  # type: ignore[call-overload]
    return (
        gold["text"] == piece.text
        and piece.role in str(gold["role"]).split("|")
        and bool(spelled)
        and gold["value"] in (None, piece.value)
    )


JUDGES: dict[str, Callable[[Row, CommandFinder], Verdict]] = {
    "effects": effects,
    "mistakes": mistakes,
    "pieces": pieces,
    "ready": ready,
    "rewrites": rewrites,
}


def main() -> int:
    """Print how many rows of each list are right."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("files", nargs="+")
    parser.add_argument("--misses", action="store_true", help="print what is not right")
    parser.add_argument("--foreign", action="store_true", help="ask the rows of other packages")
    options = parser.parse_args()
    settings = read_settings()
    finder = CommandFinder(open_index(settings)[0], settings)
    for path in options.files:
        judge = JUDGES[re.split(r"[-.]", os.path.basename(path))[0]]
        with open(path, encoding="utf-8") as file:
            rows = [json.loads(line) for line in file]
        rows = [row for row in rows if bool(row.get("foreign")) == options.foreign]
        right = 0
        for row in rows:
            good, told = judge(row, finder)
            right += good
            if options.misses and not good:
                print(f"  {row['line']}\n      {told or '(nothing)'}")
        print(f"{path}: {right} of {len(rows)} right")
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
