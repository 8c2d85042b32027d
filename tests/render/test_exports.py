"""Documents as Markdown and HTML: nothing in a text can leave the place that it stands in."""

from __future__ import annotations

import pytest
from markdown_it import MarkdownIt

from dowsing.model.document import Document, Literal, Paragraph, Section
from dowsing.model.markup import CODE, ROMAN, leads_outside, link
from dowsing.render.html import document_html
from dowsing.render.markdown_pages import document_markdown


def document(*blocks: Literal | Paragraph) -> Document:
    section = Section("TEXT")
    section.blocks = list(blocks)
    return Document("vent", "1", "manual", [section])


@pytest.mark.parametrize(
    "text", ["```\nrm -rf ~\n```", "a\n````\nb", "~~~", "`" * 12, "```", "x\n```sh\n<script>"]
)
def test_a_fence_is_longer_than_any_inside(text: str) -> None:
    tokens = MarkdownIt("commonmark").parse(
        document_markdown(document(Literal(text), Paragraph("after")))
    )
    fences = [token for token in tokens if token.type == "fence"]
    assert [fence.content for fence in fences] == [text + "\n"]
    assert [token.content for token in tokens if token.type == "inline"][-1] == "after"


@pytest.mark.parametrize("code", ["a`b", "``", "a```b", "`"])
def test_code_in_a_line_keeps_its_quotes(code: str) -> None:
    tokens = MarkdownIt("commonmark").parse(
        document_markdown(document(Paragraph(f"x {CODE}{code}{ROMAN} y")))
    )
    inside = [
        child for token in tokens for child in token.children or [] if child.type == "code_inline"
    ]
    assert [child.content.strip() for child in inside] == [code]


LINKS = [
    ("https://garden.example/a", True),
    ("mailto:fern@garden.example", True),
    ("file:///usr/share/doc/x", True),
    ("HTTP://x", True),
    ("javascript:alert(1)", False),
    ("JavaScript:alert(1)", False),
    ("data:text/html,x", False),
    ("vbscript:x", False),
    ("tar(1)", False),
    ("https", False),
    (" javascript:x", False),
]


@pytest.mark.parametrize(("target", "carried"), LINKS)
def test_only_links_of_the_web_mail_and_files_are_carried(target: str, carried: bool) -> None:
    assert leads_outside(target) is carried
    page = document(Paragraph(f"see {link(target, 'here')}"))
    assert ("<a href=" in document_html(page).split("<main>")[1]) is carried
    reader = MarkdownIt("commonmark")
    reader.validateLink = lambda _: True  # type: ignore[method-assign]
    tokens = reader.parse(document_markdown(page))
    links = [
        child for token in tokens for child in token.children or [] if child.type == "link_open"
    ]
    assert bool(links) is carried


@pytest.mark.parametrize(
    "target",
    ["https://x/) [a](javascript:x)", 'https://x/ "onclick=y', "https://x/<b>", "https://x/a b"],
)
def test_an_address_cannot_end_its_link(target: str) -> None:
    tokens = MarkdownIt("commonmark").parse(
        document_markdown(document(Paragraph(link(target, "here"))))
    )
    links = [
        child.attrGet("href")
        for token in tokens
        for child in token.children or []
        if child.type == "link_open"
    ]
    assert len(links) == 1 and str(links[0]).startswith("https://x/")
