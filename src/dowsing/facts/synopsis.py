"""The forms of a synopsis: each way to write the command as one line."""

from __future__ import annotations

import re
from itertools import pairwise

from dowsing.facts.walk import flatten
from dowsing.model.document import Block, Item, Literal, Paragraph
from dowsing.model.markup import plain

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Document

#: What stands above or before forms, with a colon: `Local:`, `Access via remote shell:`, `usage:`.
_LABEL = re.compile(r"\A\s*(?:[A-Za-z][\w ()/-]*:\s*\Z|(?:usage|or|syntax)\s*:\s+)", re.IGNORECASE)
_TITLES = ("SYNOPSIS", "SYNTAX", "USAGE", "SYNOPSES")


def synopsis_blocks(document: Document) -> list[Block]:
    """The blocks of the section that shows how the name is written, its subsections included."""
    for title in _TITLES:
        for n, section in enumerate(document.sections):
            if section.title.upper() == title:
                blocks = list(section.blocks)
                for below in document.sections[n + 1 :]:
                    if below.level <= section.level:
                        break
                    blocks += below.blocks
                return blocks
    return []


def read_forms(document: Document) -> list[str]:
    """The forms as bare lines; what is broken over lines is put together."""
    names = {document.name, *document.names, document.name.split("-")[0].split("_")[0]}
    forms: list[str] = []
    for block in flatten(synopsis_blocks(document) or _announced(document)):
        if isinstance(block, Item):
            tag = plain(block.tag).replace("\n", " ")
            if tag.split(" ")[0] not in names and forms:
                continue  # what is said of a word of the forms above
            rest = " ".join(
                plain(b.text) for b in flatten(block.body) if isinstance(b, (Paragraph, Literal))
            )
            forms.append(f"{tag} {rest}".strip())
        elif isinstance(block, (Paragraph, Literal)):
            forms += _joined(plain(block.text).split("\n"), names, isinstance(block, Paragraph))
    whole: list[str] = []
    any_named = any(form.split()[:1] and form.split()[0] in names for form in forms)
    for form in forms:
        form = _LABEL.sub("", re.sub(r"\s+", " ", form).strip())
        first = form.split(" ")[0]
        if first not in names and _is_remark(form, any_named):
            continue
        if whole and form[:1] in ("[", "{", "|") and whole[-1].split(" ")[0] in names:
            whole[-1] += " " + form
        elif form:
            whole.append(form)
    return whole


def _is_remark(form: str, named: bool) -> bool:
    """A title or a remark among the forms. `named`: there are forms that begin with the name."""
    if form.startswith("<!--"):  # left over by the maker of the page
        return True
    if form.startswith("# ") or form.casefold() in ("or", "or:", "and"):
        return True
    if not named or ":=" in form:
        return False
    long = form.count(" ") > 3
    sentence = long and (form.endswith(".") or form[:1] in "-•")
    return sentence or (
        form[:1].isupper() and not re.search(r"[\[\]<>{}|=;]|(?<!\w)-\w|\.\.\.", form)
    )


def _announced(document: Document) -> list[Block]:
    """What stands after running text that ends with `Synopsis:`, as Info manuals have it."""
    for section in document.sections[:3]:
        blocks = list(flatten(section.blocks))
        for block, after in pairwise(blocks):
            if isinstance(block, Paragraph) and re.search(
                r"\bsynops[ie]s:\s*\Z", plain(block.text), re.IGNORECASE
            ):
                return [after]
    return []


def _joined(lines: list[str], names: set[str], filled: bool) -> list[str]:
    """Lines of one block to forms: a line that is set in, or does not begin with the name, goes
    on.
    """
    lines = [_LABEL.sub("", line) for line in lines]
    lines = [line for line in lines if line.strip()]
    margin = min((len(line) - len(line.lstrip()) for line in lines), default=0)
    named = [line for line in lines if line.split()[0] in names]
    forms: list[str] = []
    open_brackets = 0
    begins = {len(line) - len(line.lstrip()) for line in named}
    for line in lines:
        set_in = len(line) - len(line.lstrip()) > margin
        # titles above forms that are set in: each named line is a form for itself
        titled = len(begins) == 1 and min(begins) > margin and line in named
        titled = titled or len(named) == len(lines)
        goes_on = open_brackets > 0 or (set_in and not titled)
        if named and not goes_on:
            goes_on = line.split()[0] not in names and not line.lstrip().startswith(
                ("#", "int ", "void ")
            )
            goes_on = goes_on and (filled or line.lstrip()[0] in "[<{|-")
        if forms and goes_on:
            forms[-1] += " " + line.strip()
        else:
            forms.append(line.strip())
            open_brackets = 0
        open_brackets += line.count("[") - line.count("]") + line.count("(") - line.count(")")
    return forms
