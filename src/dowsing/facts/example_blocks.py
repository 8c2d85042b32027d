"""Examples that a document gives: command lines with what they are for."""

from __future__ import annotations

import re

from dowsing.facts.walk import own_text
from dowsing.model.document import Block, Example, Indent, Item, Literal, Paragraph
from dowsing.model.markup import plain

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Document

_PROMPT = re.compile(r"\s*(?:\$|#|%|>|[\w@~-]+[$#%>]|\[[\w@~ :./-]+\][$#])\s+(?=\S)")
_TITLE = re.compile(r"\bEXAMPLES?\b|\bEXAMPLE\b", re.IGNORECASE)
_CALLOUT = re.compile(r"\s{2,}\(\d{1,2}\)\Z")  # a number that the text below refers to
_SENTENCE = re.compile(
    r"[\w.-]+ (?:is|are|can|will|does|has|may|should|uses|reads|prints|supports|provides|also|was"
    r"|and)\s"
)
#: The end of a text that an example follows.
_ANNOUNCED = re.compile(
    r"\b(?:for example|example|e\.g\.|for instance|examples)\b[^.;]*[:,]?\s*$|\b(?:command|commands"
    r"|follows|following|use|like this|invocation|type|run|line|lines)\s*:\s*$|[^.]:\s*$",
    re.IGNORECASE,
)
_PLACES = re.compile(r"\[[a-z-]+|\.\.\.|<\w+>")  # a form, not an example
MOST_TASK = 300
FEW_WORDS = 3  # of a text that says no more than that an example follows


def read_examples(document: Document) -> list[Example]:
    """The examples of the sections that are headed so, and those that running text announces, in
    order, each line once.
    """
    reader = _ExampleReader(document)
    inside = False
    for section in document.sections:
        if section.level == 1:
            inside = bool(_TITLE.search(section.title))
        if inside or (section.level > 1 and _TITLE.search(section.title)):
            reader.task = "" if section.level == 1 else section.title
            reader.blocks(section.blocks)
        elif not section.title.upper().startswith(
            ("NAME", "SYNOPSIS", "SEE ALSO", "AUTHOR", "COPYRIGHT")
        ):
            reader.running(section.blocks, "")
    return list({example.line: example for example in reversed(reader.found)}.values())[::-1]


class _ExampleReader:
    def __init__(self, document: Document) -> None:
        names = [document.name, *document.names]
        names += [name.replace("-", " ").replace("_", " ") for name in names]
        self.names = tuple(dict.fromkeys(names))
        self.task = ""
        self.around = ""  # tag and text of the item that is read
        self.found: list[Example] = []
        # what a page of a function shows is a program, not a command line, unless it has a prompt
        self.only_prompted = document.section[:1] in ("2", "3", "9")

    def is_line(self, text: str) -> bool:
        """Whether the text is a command line: it begins with a prompt or with the name."""
        if _PROMPT.match(text):
            return True
        if _SENTENCE.match(text):
            return False
        return any(
            text == name or text.startswith((name + " ", "sudo " + name)) for name in self.names
        )

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

    def running(self, blocks: list[Block], before: str) -> str:
        """Lines set apart from running text that says before them that they are an example; the
        last text seen.
        """
        for block in blocks:
            if isinstance(block, Paragraph):
                text = plain(block.text)
                if self.announced(before) and self.is_own_line(text):
                    self.found.append(
                        Example(self.about(before), _PROMPT.sub("", text, count=1).strip())
                    )
                before = text.replace("\n", " ")
            elif isinstance(block, Literal):
                lines = [
                    line
                    for line in _continued(plain(block.text).split("\n"))
                    if not line.lstrip().startswith("# ")
                ]
                own = [
                    _PROMPT.sub("", line, count=1).strip()
                    for line in lines
                    if self.is_own_line(line.strip())
                ]
                if own and self.announced(before) and not self.only_prompted:
                    self.found += [
                        Example(self.about(before), _CALLOUT.sub("", line)) for line in own
                    ]
            elif isinstance(block, Indent):
                before = self.running(block.body, before)
            elif isinstance(block, Item):
                around, self.around = (
                    self.around,
                    f"{plain(block.tag).strip()}: {own_text(block.body)}",
                )
                self.running(block.body, "")
                self.around = around
        return before

    def about(self, before: str) -> str:
        """What an example in running text is for: the text before it, or what it stands with if
        that only says `Example`.
        """
        if len(before.split()) > FEW_WORDS or not self.around:
            return _short(before)
        return re.split(r"(?<=[a-z)])\.\s", " ".join(self.around.split()))[0][:MOST_TASK].rstrip(
            "."
        )

    def announced(self, before: str) -> bool:
        """Whether the text before says that an example follows."""
        return bool(_ANNOUNCED.search(before[-160:]))

    def is_own_line(self, text: str) -> bool:
        """Whether the text is one line that begins with the name, behind a prompt or not, and has
        no place in it.
        """
        bare = _PROMPT.sub("", text, count=1).strip()
        own = bare.startswith(tuple(f"{name} " for name in self.names)) and not _SENTENCE.match(
            bare
        )
        return (
            own
            and "\n" not in text
            and len(bare) < 200
            and not bare.endswith((".", ":"))
            and not _PLACES.search(bare)
        )

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
        prompted = [
            line for line in lines if _PROMPT.match(line) and not line.lstrip().startswith("# ")
        ]
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
