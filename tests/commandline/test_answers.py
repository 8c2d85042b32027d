"""Whole answers about lines: texts, pieces, effects, mistakes, other forms, what comes next.

`answers.jsonl` has what was asked and the lines that came back, looked at before they were kept.
With DOWSING_KEEP_ANSWERS in the environment the file is written anew: read its difference then.
"""

from __future__ import annotations

import difflib
import json
import os
from pathlib import Path

import pytest
from answering import ASKS, KEPT

from dowsing.commandline.reading.command_finder import CommandFinder

ROWS = [json.loads(line) for line in KEPT.read_text("utf-8").splitlines()]


@pytest.fixture(autouse=True)
def _garden(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """A folder with three files, for what may come next is also what stands here."""
    for name in ("beds.csv", "notes.txt", "plates/m31.fits"):
        (tmp_path / name).parent.mkdir(exist_ok=True)
        (tmp_path / name).write_text("")
    monkeypatch.chdir(tmp_path)


def _answer(row: dict[str, object], finder: CommandFinder) -> list[str]:
    return ASKS[str(row["ask"])](str(row["line"]), finder)


@pytest.mark.skipif("DOWSING_KEEP_ANSWERS" in os.environ, reason="the answers are written anew")
@pytest.mark.parametrize("ask", list(ASKS))
def test_answers_are_as_they_were(bare_finder: CommandFinder, ask: str) -> None:
    differences: list[str] = []
    for row in ROWS:
        if row["ask"] == ask and (now := _answer(row, bare_finder)) != row["answer"]:
            differences += [
                f"{ask} {row['line']!r}",
                *difflib.unified_diff(row["answer"], now, "kept", "now", n=0, lineterm=""),
            ]
    assert not differences, "\n".join(differences)


@pytest.mark.skipif("DOWSING_KEEP_ANSWERS" not in os.environ, reason="they are kept")
def test_answers_are_kept(bare_finder: CommandFinder) -> None:
    rows = [row | {"answer": _answer(row, bare_finder)} for row in ROWS]
    text = "".join(json.dumps(row, ensure_ascii=False) + "\n" for row in rows)
    KEPT.write_text(text, "utf-8")
