"""Options: items whose tag is a flag, with all spellings, the argument's placeholder and the text."""

from __future__ import annotations

import re

from dowsing.core.document import Block, Indent, Item, Option, Paragraph
from dowsing.core.extraction.walk import own_text
from dowsing.core.markup import BOLD, BOLD_ITALIC, CODE, ITALIC, ROMAN, plain

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.core.document import Document

_SEPARATOR = re.compile(r"\s*(?:,|\||\n|;|/(?=-)|\bor\b)\s*(?=[-+]|\[-)|\s+(?=--?[A-Za-z])")
_FLAG = re.compile(r"(\[?)([-+]{1,2}(?:\[[-\w]+\])?[^\s=\[\]<>,|{}()]*(?:\[[-\w]+\][\w-]*)?)(.*)", re.DOTALL)
_NO_FORM = re.compile(r"(--?)\[([\w-]+)\](.+)")
_MARKS = BOLD + ITALIC + BOLD_ITALIC + CODE + ROMAN
_TAG_ALONE = r"--?[\w?#@][^\s,]*(?:(?:, ?| \| ?)--?[\w?#@][^\s,]*)*(?:[ =][\w<\[][^\s.]*)?"
_DEFAULT = re.compile(
    r"(?:\(default(?:s to| is)?:?|(?:The )?[Dd]efault (?:value )?is|[Dd]efaults? to|default:)\s+"
    r"[\"'“‘`]*([^\s\"'”’`,;()\[\]]+)"
)


#: Sources whose forms name options that their text may not list.
_SHORT_SOURCES = ("builtin", "shell-manual", "usage", "builtin-usage")


#: A tag (several are lines of it), what is said of it, and the title of its section.
Tagged = tuple[str, list[Block], str]


def read_options(document: Document) -> list[Option]:
    """All options of the document in the order of its text, then those that only its forms show."""
    made = (make_option(*tagged) for tagged in tagged_flags(document))
    found = [option for option in made if option is not None]
    if document.source in _SHORT_SOURCES:
        from dowsing.core.extraction.form_options import options_of_forms

        found += options_of_forms(document.synopsis, found)
    return found


def tagged_flags(document: Document) -> list[Tagged]:
    """The items of the text whose tag is a flag, as they are written."""
    found: list[Tagged] = []
    for section in document.sections:
        _collect(section.blocks, section.title, found, document.source != "info")
    return found


def _collect(blocks: list[Block], title: str, found: list[Tagged], own_column: bool) -> None:
    waiting: list[str] = []
    for n, block in enumerate(blocks):
        kind = block.__class__
        if kind is Paragraph:
            text: str = block.text  # type: ignore[union-attr]
            if "-" not in text[:6] or text[:6].lstrip(_MARKS)[:1] != "-":
                continue
            tag = plain(text).strip()
            below = blocks[n + 1 :]
            if re.fullmatch(_TAG_ALONE, tag) and below and isinstance(below[0], (Indent, Item)):
                waiting.append(tag)  # a tag as a paragraph of its own, with its text set in below
                body: list[Block] = []
                for one in below:
                    if not isinstance(one, Indent):
                        break
                    body += one.body
                if body:
                    _close(waiting, body, title, found)
        elif kind is Item:
            assert isinstance(block, Item)
            if block.beside and not own_column:
                continue  # an entry of a menu or an index
            if not block.bullet:
                tag = plain(block.tag).strip()
                if tag[:1] in ("-", "+") and len(tag) > 1:
                    waiting.append(tag)
                    if block.body or block.beside:
                        _close(waiting, block.body, title, found)
            if block.body:
                _collect(block.body, title, found, own_column)
        elif kind is Indent and not waiting:
            _collect(block.body, title, found, own_column)  # type: ignore[union-attr]
    if waiting:
        _close(waiting, [], title, found)


def _close(waiting: list[str], body: list[Block], title: str, found: list[Tagged]) -> None:
    """Take up the tags that waited for the text they have together."""
    found.append(("\n".join(waiting), body, title))
    waiting.clear()


def make_option(tag: str, body: list[Block], title: str) -> Option | None:
    """The option that `tag` names, or None if it names none."""
    flags: list[str] = []
    argument: str | None = None
    optional = repeatable = False
    for piece in _SEPARATOR.split(tag):
        match = _FLAG.fullmatch(piece.strip())
        if not match or not match[2].strip("-+"):
            continue
        flag = match[2].rstrip(".:;")
        repeatable = repeatable or match[2].endswith("...")
        either = _NO_FORM.fullmatch(flag)
        spelled = [either[1] + either[3], either[1] + either[2] + either[3]] if either else [flag]
        flags += [one for one in spelled if one not in flags]
        rest = match[3]
        if rest.strip() and argument is None:
            argument, optional = _argument(rest)
    if not flags:
        return None
    text = own_text(body)
    default = _DEFAULT.search(text)
    value = default[1].rstrip(".") if default else None
    return Option(flags, argument, optional, text, title, value or None, repeatable=repeatable)


def _argument(rest: str) -> tuple[str | None, bool]:
    """The placeholder after a flag and whether it may be left out."""
    inner = rest.strip()
    optional = inner.startswith("[") and _closing(inner) == len(inner) - 1
    if optional:
        inner = inner[1:-1]
    if inner == "=":
        return "", optional
    inner = inner.removeprefix("=").strip()
    match = re.match(r"<([^<>]*)>\Z|(.*)", inner, re.DOTALL)
    name = (match[1] or match[2] or "").strip() if match else ""
    name = name.split("\n")[0].rstrip(",;")
    if not name or len(name) > 60 or (" " in name and not re.search(r"[<\[=|]|\.\.\.", name) and len(name) > 24):
        return None, False
    return name, optional


def _closing(text: str) -> int:
    """Where the bracket that `text` begins with is closed; the last place if it never is."""
    depth = 0
    for at, char in enumerate(text):
        depth += {"[": 1, "]": -1}.get(char, 0)
        if not depth:
            return at
    return len(text) - 1
