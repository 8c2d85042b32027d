"""The documents about the code name files that there are."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

ROOT = Path(__file__).parent.parent
PLACES = (ROOT, ROOT / "src" / "dowsing", ROOT / "bench", ROOT / "bench" / "queries")
DOCUMENTS = sorted(
    path
    for path in (ROOT / "CONTRIBUTING.md", *(ROOT / "docs").rglob("*.md"))
    if path.name not in ("tutorial.md", "reference.md")
)


def missing(path: Path) -> list[str]:
    """Names in code marks, of Python and TOML files or of folders, that stand for nothing here."""
    text = path.read_text(encoding="utf-8")
    named = re.findall(r"`((?:[\w-]+/)+(?:[\w-]+\.(?:py|toml|tsv|txt))?)`", text)
    return [name for name in named if not any((place / name).exists() for place in PLACES)]


@pytest.mark.parametrize("path", DOCUMENTS, ids=lambda path: path.name)
def test_files_that_are_named_are_there(path: Path) -> None:
    assert missing(path) == []
