"""The texts of a package's documentation folder, and Markdown among them."""

from __future__ import annotations

import gzip
from pathlib import Path

from dowsing.model.markup import plain, spans
from dowsing.readers.markdown import markdown_sections
from dowsing.render.layout import section_lines
from dowsing.sources.package import doc_files, text_sections


def shown(sections: list) -> str:
    return "\n".join(plain(line).rstrip() for line in section_lines(sections, 60))


MARKDOWN = """\
Ties **ropes**, see [the site](https://ropes.example) or [below](#use).

# Use

1. Take a rope
2. Tie it:

   ```
   $ tie  --tight
   ```

- a
- b
  - c

> Said *softly*.

## More

Line one
line two
"""


def test_markdown_by_its_structure() -> None:
    assert (
        shown(markdown_sections(MARKDOWN, "README.md"))
        == """\
README.md
   Ties ropes, see the site or below.

 Use
   1. Take a rope
   2. Tie it:

      $ tie  --tight

   • a
   • b

     • c

       Said softly.

  More
   Line one line two"""
    )


def test_links_and_styles() -> None:
    paragraph = markdown_sections(MARKDOWN, "x")[0].blocks[0]
    assert list(spans(paragraph.text)) == [  # type: ignore[union-attr]
        ("Ties ", "plain", None),
        ("ropes", "bold", None),
        (", see ", "plain", None),
        ("the site", "plain", "https://ropes.example"),
        (" or below.", "plain", None),
    ]


def test_control_characters_stay_out_of_markdown() -> None:
    assert "\x1b" not in shown(markdown_sections("# a\x1b[31m\n\n`b\x1b[2J`\n\n    c\x07\n", "x"))


def test_files_in_the_order_of_reading(tmp_path: Path) -> None:
    for name in (
        "copyright",
        "changelog.gz",
        "NEWS",
        "README.md",
        "examples/a.sh",
        "html/index.html",
        "logo.png",
        "FAQ.txt.gz",
        "notes.1.2",
        "AUTHORS",
        "binary.so",
    ):
        path = tmp_path / name
        path.parent.mkdir(exist_ok=True)
        path.write_bytes(gzip.compress(b"text\n") if name.endswith(".gz") else b"text\n")
    assert doc_files(str(tmp_path)) == [
        "README.md",
        "FAQ.txt.gz",
        "NEWS",
        "notes.1.2",
        "examples/a.sh",
        "AUTHORS",
        "changelog.gz",
        "copyright",
    ]
    assert doc_files(str(tmp_path / "none")) == []


def test_plain_text_stays_as_it_is() -> None:
    assert (
        shown(text_sections("One\n  two\tthree\n\n\nFour\n", "README"))
        == "README\n   One\n     two   three\n\n   Four"
    )
