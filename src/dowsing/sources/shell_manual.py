"""The source `shell-manual`: the entry of a builtin or keyword, cut out of the shell's own manual
page.

The entry is found by the structure of the page: the item whose tag begins with the name, in the
part that is about builtins; items that share one text are one entry. Keywords stand in the parts on
grammar, as items, in displays, or in the running text of a part that is about them.
"""

from __future__ import annotations

import os
import re

from dowsing.facts import with_facts
from dowsing.model.document import Block, Document, Indent, Item, Literal, Paragraph, Section
from dowsing.model.errors import Unreadable
from dowsing.model.markup import ITALIC, ROMAN, plain
from dowsing.model.source_name import SourceName
from dowsing.readers.decoding import packed_or_not
from dowsing.sources import page_files
from dowsing.sources.source import Availability, Subject, nothing

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.entry import ShellRow

NAME = SourceName.SHELL_MANUAL
ABOUT_BUILTINS = r"(?i)built-?ins?\b"
_NOT_ABOUT = (
    r"(?i)reserved words|aliases|synopsis|options|invocation|^name$|see also|readline"
    r"|completion|history"
)
_ITALIC = f"{ITALIC}[^{ROMAN}]*{ROMAN}?"
MOST_PAGES = 6


def availability(subject: Subject) -> list[Availability]:
    """One for each shell whose manual has an entry for the name."""
    found = []
    for row in subject.in_shells:
        own = own_page(row)
        if own is not None:
            found.append(
                Availability(NAME, True, where=own, path=own, detail=f"{row.shell}\n{own}")
            )
            continue
        for page in shell_pages(subject, row):
            entry = find_entry(page, row.name, row.kind)
            if entry is not None:
                where = f"{page.label} {page.path}"
                found.append(
                    Availability(
                        NAME, True, where=where, path=page.path, detail=f"{row.shell}\n{page.label}"
                    )
                )
                break
    if found:
        return found
    if subject.in_shells:
        listed = ", ".join(dict.fromkeys(row.shell for row in subject.in_shells))
        return nothing(NAME, f"no entry in the manual of {listed}")
    return nothing(NAME, "no shell here has a builtin of that name")


def own_page(row: ShellRow) -> str | None:
    """The file of the page that the shell keeps for the name alone, or None."""
    for folder in row.manual:
        if os.path.isabs(folder) and "/" not in row.name:
            file = packed_or_not(os.path.join(folder, f"{row.name}.1"))
            if file:
                return file
    return None


def may_have(subject: Subject, row: ShellRow) -> bool:
    """Whether there is a page to look for the entry in, without reading it."""
    return own_page(row) is not None or any(
        subject.store.named(name) for name in row.manual if not os.path.isabs(name)
    )


def shell_pages(subject: Subject, row: ShellRow) -> list[Document]:
    """The pages of the shell's manual that are here. Kept for the next name that is asked for."""
    cache: dict[str, list[Document]] = subject.store.memory.setdefault("shell pages", {})
    if row.shell not in cache:
        pages = []
        for name in [name for name in row.manual if not os.path.isabs(name)][:MOST_PAGES]:
            for entry in subject.store.named(name)[:1]:
                try:
                    pages.append(
                        page_files.read_page_file(
                            entry.path, entry.name, entry.section, package=entry.package
                        )
                    )
                except Unreadable:
                    continue
        cache[row.shell] = pages
    return cache[row.shell]


def read(subject: Subject, held: Availability) -> Document:
    """The entry as a Document of its own. Raises Unreadable if it is not there."""
    shell, _, label = held.detail.partition("\n")
    for row in subject.in_shells:
        if row.shell == shell and os.path.isabs(label):
            page = page_files.read_page_file(label, row.name, "builtin")
            page.source, page.origin = NAME, shell
            return page
        if row.shell == shell:
            for page in shell_pages(subject, row):
                entry = find_entry(page, row.name, row.kind) if page.label == label else None
                if entry is not None:
                    return _document(row, page, entry)
    raise Unreadable("the manual of the shell has no entry for it")


class ManualEntry:
    """An entry: its forms as they are printed, its text, and the part of the page it stands in."""

    def __init__(self, forms: list[str], body: list[Block], title: str) -> None:
        self.forms = forms
        self.body = body
        self.title = title


def find_entry(page: Document, name: str, kind: str) -> ManualEntry | None:
    """The entry of a name in a shell's page, or None."""
    about = [section for section in page.sections if re.search(ABOUT_BUILTINS, section.title)]
    others = [s for s in page.sections if s not in about and not re.search(_NOT_ABOUT, s.title)]
    if kind == "keyword":
        return (
            _in_items(others, name, anywhere=False)
            or _in_items(others, name, anywhere=True)
            or _in_displays(others, name)
            or _in_items(about, name, anywhere=False)
        )
    return _in_items(about, name, anywhere=False) or (
        _in_items(page.sections, name, anywhere=False) if not about or page.name != name else None
    )


def _heads(tag: str) -> list[str]:
    """The names that a tag begins with: `cd|chdir [-LP]` has two."""
    first = plain(tag).strip().split("\n")[0].split(" ")[0]
    return [first, first.rstrip(",:"), *(first.split("|") if first.strip("|") else [])]


def _literal_words(tag: str) -> list[str]:
    """The words of a tag that stand for themselves: not the placeholders in italics."""
    bare = plain(re.sub(_ITALIC, " ", tag))
    words = re.split(r"[\s;()]+", bare.replace("((", " (( ").replace("))", " )) "))
    return [*words, *(word.strip("[]|,") for word in words)]


def _in_items(sections: list[Section], name: str, anywhere: bool) -> ManualEntry | None:
    for section in sections:
        groups = _grouped(section.blocks)
        chosen: list[tuple[list[Item], list[Block]]] = []
        for items, more in groups:
            for item in items:
                words = _literal_words(item.tag) if anywhere else []
                if (
                    (name in words)
                    if anywhere
                    else any(name in _heads(line) for line in item.tag.split("\n"))
                ):
                    chosen.append((items, more))
                    break
        if chosen:
            forms = [
                line.strip()
                for items, _ in chosen
                for item in items
                for line in item.tag.split("\n")
            ]
            body = [block for items, more in chosen for block in [*items[-1].body, *more]]
            return ManualEntry(list(dict.fromkeys(forms)), body, section.title)
    return None


def _grouped(blocks: list[Block]) -> list[tuple[list[Item], list[Block]]]:
    """Items that share a text, each group with the blocks that follow it up to the next item of its
    level.
    """
    flat: list[Block] = []
    for block in blocks:
        flat += block.body if isinstance(block, Indent) and _holds_items(block) else [block]
    groups: list[tuple[list[Item], list[Block]]] = []
    waiting: list[Item] = []
    for block in flat:
        if isinstance(block, Item) and not block.bullet:
            waiting.append(block)
            if block.body:
                groups.append((waiting, []))
                waiting = []
        elif groups and not waiting:
            groups[-1][1].append(block)
    if waiting:
        groups.append((waiting, []))
    return groups


def _holds_items(indent: Indent) -> bool:
    return bool(indent.body) and isinstance(indent.body[0], Item) and not indent.body[0].bullet


def _in_displays(sections: list[Section], name: str) -> ManualEntry | None:
    """A part of the page that shows the keyword in a display: the whole part is its entry."""
    for section in sections:
        for block in section.blocks:
            if not isinstance(block, Indent):
                continue
            for inner in block.body:
                if isinstance(inner, (Paragraph, Literal)) and name in _literal_words(inner.text):
                    return ManualEntry(
                        [line.strip() for line in inner.text.split("\n")],
                        section.blocks,
                        section.title,
                    )
    return None


def _document(row: ShellRow, page: Document, entry: ManualEntry) -> Document:
    synopsis = Section("SYNOPSIS")
    synopsis.blocks = [Paragraph(form, hanging=True) for form in entry.forms]
    text = Section(entry.title)
    text.blocks = entry.body
    first = next((b.text for b in entry.body if isinstance(b, Paragraph)), "")
    heads = [head for form in entry.forms for head in _heads(form)]
    about = row.summary or (
        _sentence(first) if row.name in heads else f"part of: {plain(entry.forms[0])}"[:160]
    )
    document = Document(
        row.name, "builtin", NAME, [synopsis, text], summary=about, path=page.path,
        package=page.package, date=page.date, origin=page.label,
    )  # fmt: skip
    return with_facts(document)


def _sentence(text: str) -> str:
    """The first sentence, if it is short enough to be a summary."""
    sentence = re.split(r"(?<=[\w)])\.(?=\s|\Z)", plain(text).replace("\n", " "), maxsplit=1)[0]
    return sentence if len(sentence) <= 160 else ""
