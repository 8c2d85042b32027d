"""Whole pages: each demo page against the text it must make, kept beside the tests and read by
eye.
"""

from __future__ import annotations

from pathlib import Path

import pytest
from conftest import LIBRARY

from dowsing.model.markup import plain
from dowsing.render.layout import section_lines
from dowsing.sources import page_files

EXPECTED = Path(__file__).parent.parent.parent / "pages"
PAGES = sorted(
    path
    for path in LIBRARY.glob("*/*.*")
    if not path.is_symlink() and ".so man" not in path.read_text("latin-1")
)


def laid_out(path: Path) -> str:
    name, section = page_files.split_file_name(path.name) or ("", "")
    page = page_files.read_page_file(str(path), name, section)
    head = f"{', '.join(page.names)} - {page.summary}\n\n"
    return (
        head + "\n".join(plain(line).rstrip() for line in section_lines(page.sections, 80)) + "\n"
    )


@pytest.mark.parametrize("path", PAGES, ids=lambda path: path.name)
def test_page(path: Path) -> None:
    assert laid_out(path) == (EXPECTED / f"{path.name}.txt").read_text("utf-8")


def test_there_is_a_page_for_every_text() -> None:
    assert {path.stem for path in EXPECTED.glob("*.txt")} == {path.name for path in PAGES}


@pytest.mark.parametrize(
    "path", sorted((EXPECTED / "preambles").iterdir()), ids=lambda path: path.name
)
def test_page_with_a_generated_preamble(path: Path) -> None:
    """The same pages as generators write them: with macros, strings and conditions before and
    between the text.
    """
    assert laid_out(path) == (EXPECTED / f"{path.name}.txt").read_text("utf-8")
