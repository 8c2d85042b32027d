"""Examples that a document gives: command lines with what they are for."""

from __future__ import annotations

import re

from dowsing.core.document import Block, Example, Indent, Item, Literal, Paragraph
from dowsing.core.extraction.walk import own_text
from dowsing.core.markup import plain

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.core.document import Document

_PROMPT = re.compile(r"\s*(?:\$|#|%|>|[\w@~-]+[$#%>]|\[[\w@~ :./-]+\][$#])\s+(?=\S)")
_TITLE = re.compile(r"\bEXAMPLES?\b|\bEXAMPLE\b", re.IGNORECASE)
_CALLOUT = re.compile(r"\s{2,}\(\d{1,2}\)\Z")  # a number that the text below refers to
_SENTENCE = re.compile(
    r"[\w.-]+ (?:is|are|can|will|does|has|may|should|uses|reads|prints|supports|provides|also|was|and)\s"
)
MOST_TASK = 300


def read_examples(document: Document) -> list[Example]:
    """The examples of the sections that are headed so, in order, each line once."""
    reader = _Reader(document)
    inside = False
    for section in document.sections:
        if section.level == 1:
            inside = bool(_TITLE.search(section.title))
        if inside or (section.level > 1 and _TITLE.search(section.title)):
            reader.task = "" if section.level == 1 else section.title
            reader.blocks(section.blocks)
    return list({example.line: example for example in reversed(reader.found)}.values())[::-1]


class _Reader:
    def __init__(self, document: Document) -> None:
        names = [document.name, *document.names]
        names += [name.replace("-", " ").replace("_", " ") for name in names]
        self.names = tuple(dict.fromkeys(names))
        self.task = ""
        self.found: list[Example] = []
        # what a page of a function shows is a program, not a command line, unless it has a prompt
        self.only_prompted = document.section[:1] in ("2", "3", "9")

    def is_line(self, text: str) -> bool:
        """Whether the text is a command line: it begins with a prompt or with the name."""
        if _PROMPT.match(text):
            return True
        if _SENTENCE.match(text):
            return False
        return any(text == name or text.startswith((name + " ", "sudo " + name)) for name in self.names)

    def blocks(self, blocks: list[Block]) -> None:
        for block in blocks:
            if isinstance(block, Paragraph):
                text = plain(block.text)
                first = text.split("\n")[0]
                if self.is_line(first) and len(text) < 400 and not first.endswith("."):
                    self.add(text.replace("\n", " ") if "\n" not in text else text)
                else:
                    self.task = text.replace("\n", " ")
            elif isinstance(block, Literal):
                self.add(plain(block.text))
            elif isinstance(block, Indent):
                self.blocks(block.body)
            elif isinstance(block, Item):
                self.item(block)

    def item(self, item: Item) -> None:
        tag = plain(item.tag).strip()
        if not item.bullet and self.is_line(tag):
            self.task = own_text(item.body).split("\n")[0]
            self.add(tag)
        else:
            if not item.bullet and tag:
                self.task = tag
            self.blocks(item.body)

    def add(self, text: str) -> None:
        """Add the command lines of a literal text."""
        lines = _continued(text.split("\n"))
        prompted = [line for line in lines if _PROMPT.match(line) and not line.lstrip().startswith("# ")]
        own = [line for line in prompted if self.is_line(_PROMPT.sub("", line, count=1).strip())]
        prompted = own or prompted
        task = _short(self.task)
        for line in prompted or lines:
            bare = line.strip()
            if not prompted and bare.startswith("#") and len(lines) > 1:
                task = _short(bare.lstrip("# "))
                continue
            if prompted or bare.startswith("# "):
                bare = _PROMPT.sub("", line, count=1).strip()
            elif not self.is_line(bare) and not any(name in bare for name in self.names):
                continue
            bare = _CALLOUT.sub("", bare)
            if bare and (prompted or not self.only_prompted):
                self.found.append(Example(task, bare))


def _continued(lines: list[str]) -> list[str]:
    """Lines that end with a backslash put together with the next."""
    done: list[str] = []
    open_line = False
    for line in lines:
        if not line.strip():
            open_line = False
            continue
        if open_line:
            done[-1] = done[-1].rstrip("\\").rstrip() + " " + line.strip()
        else:
            done.append(line)
        open_line = line.rstrip().endswith("\\")
    return done


def _short(text: str) -> str:
    """What an example is for: the last sentence before it, without the colon."""
    text = " ".join(text.split()).rstrip(":").strip()
    if len(text) > MOST_TASK:
        text = re.split(r"(?<=[.;])\s+", text)[-1][-MOST_TASK:]
    return text
