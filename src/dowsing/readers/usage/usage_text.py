"""A usage text to a Document: forms, headings, options, subcommands, and the text between.

Programs lay their usage out by indentation and columns; what the lines are is told by these alone,
so that one reader takes in the ways of all the usual option parsers.
"""

from __future__ import annotations

import re

from dowsing.model.document import Block, Document, Item, Literal, Paragraph, Section
from dowsing.readers.usage.cleaning import clean_lines, indentation
from dowsing.readers.usage.layouts import in_general
from dowsing.readers.usage.summary import summary_of
from dowsing.readers.usage.tag_alone import is_tag_alone
from dowsing.readers.usage.usage_forms import find_forms

_FLAG = r"[-+]{1,2}(?:\[no-?\])?[\w?#@%:.][^\s,|]*|-<\w[\w-]*>|--?(?=\s)"
_OPTION = re.compile(rf"\s*(?:\[)?(?:{_FLAG})")
_GAP = re.compile(r"\s{2,}|\s+:\s+(?=\S)|(?<=\S):\s{2,}")
_TERM_GAP = re.compile(r"\s{2,}")
#: A subcommand whose placeholders reach into the column of the texts: `set-property UNIT
#: NAME=VALUE... Sets one`
_LONG_TERM = re.compile(r"([a-z][\w-]+(?: [\[<A-Z][^a-z ]*)+) (?=[A-Z][a-z]+ )")
_PROSE = frozenset(
    "or and is are option options must implies means may can turns the with which that this where "
    "when".split()
)
_TERM = re.compile(
    r"\{[\w,-]+\}\Z|\[?<[\w-]+>(?:\.\.\.)?\]?\Z|[^\s\"'.,;:!?()|*#<>=\[\]{}$][\w.:+@/*"
    r"|,-]*(?:, ?[\w.:+-]+)*(?: (?:\[?[<A-Z{(\[][^ ]*|\.\.\.|[\w-]+))*\Z"
)
#: A placeholder in brackets, which is no word of a sentence.
_OPERAND = re.compile(r"\[?<[\w-]+>(?:\.\.\.)?\]?\Z")
_SINGLE_SPACED = re.compile(
    rf"(?:{_FLAG})(?:(?:,\s*|\s*\|\s*|\s+)(?:{_FLAG}))*(?:[ =](?:<[^>]*>|\[[^\]]*\]|[A-Z][A-Z0-9_:"
    r"|/-]*(?:\.\.\.)?(?=\s|$)))?"
)
#: A placeholder for one of the words listed below it: `{add,remove}`, `COMMAND`, `<command>`.
_NAMES_WORDS = re.compile(r"(?:\{[^{}]*\}|<[^<>]*>|[A-Z][A-Z_-]*)(?: \.\.\.)?\Z")
_TITLE = re.compile(r"(?:[A-Z][\w-]*(?: (?:of|and|in|the|for) )? ?){1,4}:\Z")
WIDEST_HEADING = 72
WIDEST_TAG = 60
FARTHEST_BELOW = 8  # blanks that a list below a term is set in at most; farther in is its text


def read_usage(
    output: str,
    name: str,
    section: str = "",
    *,
    source: str = "usage",
    path: str = "",
    package: str | None = None,
) -> Document:
    """The Document of what a program printed. `name` is the program's; never raises."""
    lines = in_general(clean_lines(output))
    found = find_forms(lines, name)
    if found is not None:
        before, after = lines[: found.start], lines[found.end :]
        synopsis = Section("SYNOPSIS")
        synopsis.blocks = [Paragraph(form, hanging=True) for form in found.forms]
        lead = Section("DESCRIPTION")
        rest: list[Section] = []
        for text in (before, after):
            parts = _UsageReader(text).sections() if any(text) else []
            if parts and parts[0].title == "DESCRIPTION":
                lead.blocks += parts.pop(0).blocks
            rest += parts
        sections = [synopsis, *([lead] if lead.blocks else []), *rest]
    else:
        sections = _UsageReader(lines).sections()
    forms = found.forms if found is not None else []
    summary = summary_of(sections, name, forms)
    return Document(name, section, source, sections, summary=summary, path=path, package=package)


def read_help(lines: list[str]) -> list[Section]:
    """The sections of help that has its forms told apart already, such as a shell's for a
    builtin.
    """
    return _UsageReader(lines).sections()


class _UsageReader:
    def __init__(self, lines: list[str]) -> None:
        self.lines = lines

    def sections(self) -> list[Section]:
        """The lines as sections; what stands before the first heading is the description."""
        starts = [n for n in range(len(self.lines)) if self._is_heading(n)]
        found: list[Section] = []
        first = starts[0] if starts else len(self.lines)
        if any(self.lines[:first]):
            lead = Section("DESCRIPTION")
            lead.blocks = _UsageReader(self.lines[:first]).blocks()
            found.append(lead)
        for n, start in enumerate(starts):
            end = starts[n + 1] if n + 1 < len(starts) else len(self.lines)
            heading = self.lines[start].strip()
            section = Section(heading.rstrip(":").strip())
            section.blocks = _UsageReader(self.lines[start + 1 : end]).blocks(
                literal="example" in heading.lower()
            )
            found.append(section)
        return found

    def _next(self, at: int) -> int:
        """The next line with text from `at` on; the end if there is none."""
        while at < len(self.lines) and not self.lines[at]:
            at += 1
        return at

    def _is_heading(self, n: int) -> bool:
        """A short line with what belongs to it set in below, or on the same margin under
        capitals.
        """
        line = self.lines[n]
        text = line.strip()
        if (
            not text
            or len(text) > WIDEST_HEADING
            or text[0] in "-+([<{|*#$>"
            or _GAP.search(text.rstrip(":"))
        ):
            return False
        below = self._next(n + 1)
        if below >= len(self.lines):
            return False
        here, there = indentation(line), indentation(self.lines[below])
        after_gap = n == 0 or not self.lines[n - 1]
        if here > 4 or (
            not after_gap
            and n
            and indentation(self.lines[n - 1]) == here
            and not text.endswith(":")
        ):
            return False
        if (
            text.endswith(":")
            and there == here
            and after_gap
            and below == n + 1
            and _TITLE.match(text)
        ):
            return True
        if text.endswith(":"):
            lists = self._begins_item(below) and there >= here
            return (there > here or (lists and text[0].isupper())) and (
                after_gap or lists or indentation(self.lines[n - 1]) > here
            )
        if text.isupper() and any(char.isalpha() for char in text):
            return there > here and after_gap
        return (
            after_gap
            and below == n + 1
            and there > here
            and text[-1] not in ".,;"
            and self._begins_item(below)
        )

    def _begins_item(self, n: int) -> bool:
        line = self.lines[n]
        return bool(_OPTION.match(line)) or self._term(line) is not None

    def _term(self, line: str) -> tuple[str, str] | None:
        """A term and its text in two columns."""
        text = line.strip()
        gap = _TERM_GAP.search(text)
        if not indentation(line):
            return None
        if gap is None:
            long = _LONG_TERM.match(text)
            return (long[1], text[long.end() :]) if long and len(text) > 40 else None
        term = text[: gap.start()]
        if len(term) > WIDEST_TAG or not _TERM.match(term):
            return None
        return term, text[gap.end() :]

    def blocks(self, literal: bool = False) -> list[Block]:
        """The lines as items and running text."""
        done: list[Block] = []
        at = 0
        open_text: list[str] = []
        outer: list[tuple[int, Item]] = []  # items that others may be set in below, with margins

        def close() -> None:
            if open_text:
                done.extend(_text_blocks(open_text, literal))
                open_text.clear()
                outer.clear()

        while at < len(self.lines):
            line = self.lines[at]
            if not line:
                close()
                at += 1
                continue
            split = None if literal else self._item_head(at)
            if split is None:
                open_text.append(line)
                at += 1
                continue
            close()
            column = line.find(split[1], indentation(line) + len(split[0])) if split[1] else None
            made = _items(split)
            over = _over(outer, indentation(line))
            (over.body if over is not None else done).extend(made)
            outer.append((indentation(line), made[-1]))
            at = self._continue(at, made, column)
        close()
        return done

    def _item_head(self, at: int) -> tuple[str, str] | None:
        line = self.lines[at]
        text = line.strip()
        if _tag_of(text).count(" | ") > 2 or (_is_prose(line) and at and self.lines[at - 1]):
            return None
        if _OPTION.match(line):
            return _split_option(text)
        if _NAMES_WORDS.fullmatch(text) and self._holds_terms(at):
            return text, ""
        term = self._term(line)
        if term is None:
            return None
        if _OPERAND.match(term[0]):
            return term
        # one line with a gap may be a sentence with two blanks; a list has its like before or after
        # it
        beside = [
            self.lines[n] for n in (at - 1, at + 1) if 0 <= n < len(self.lines) and self.lines[n]
        ]
        column = line.index(term[1], indentation(line) + len(term[0]))
        alike = any(
            self._term(other) and indentation(other) == indentation(line) for other in beside
        )
        hangs = any(indentation(other) == column for other in beside)
        return term if alike or hangs or len(beside) < 2 else None

    def _holds_terms(self, at: int) -> bool:
        """Whether terms are set in below a line."""
        below = self.lines[at + 1] if at + 1 < len(self.lines) else ""
        farther = indentation(below) - indentation(self.lines[at])
        return 0 < farther < FARTHEST_BELOW and self._term(below) is not None

    def _continue(self, at: int, made: list[Item], column: int | None) -> int:
        """Take the lines that go on with the item of line `at`, whose text begins in `column`.

        Returns the number of the line after them.
        """
        margin = indentation(self.lines[at])
        item = made[-1]
        more: list[str] = []
        at += 1
        while at < len(self.lines):
            line = self.lines[at]
            if not line:
                # a gap inside an item's text: what goes on must stand in the same column
                after = self._next(at)
                goes_on = (
                    after < len(self.lines)
                    and column is not None
                    and indentation(self.lines[after]) == column
                )
                if not goes_on or after - at > 1 or (item.body and not more):
                    break
                more.append("")
                at = after
                continue
            here = indentation(line)
            if here <= margin or (here < margin + 4 and self._item_head(at) is not None):
                break
            begins = _OPTION.match(line) is not None or (
                more == [] and here < margin + FARTHEST_BELOW and self._term(line) is not None
            )
            if begins and (column is None or here < column) and not _is_prose(line):
                break
            if column is None or here < column:
                column = here
            more.append(line)
            at += 1
        while more and not more[-1]:
            more.pop()
        if more:
            head = item.body[0].text if item.body and isinstance(item.body[0], Paragraph) else ""
            item.body = [*_text_blocks([head, *more] if head else more, False, joined=bool(head))]
        return at


def _tag_of(text: str) -> str:
    """What stands before the first gap of a line."""
    gap = _TERM_GAP.search(text)
    return text[: gap.start()] if gap else text


def _items(split: tuple[str, str]) -> list[Item]:
    """The items of a line: one, or several that stand side by side."""
    made = []
    for tag, text in _columns(*split):
        item = Item(tag, compact=True, beside=True)
        if text:
            item.body.append(Paragraph(text))
        made.append(item)
    return made


def _over(outer: list[tuple[int, Item]], margin: int) -> Item | None:
    """The term that an item with this margin is set in below: one that names what is to be put in,
    and whose words the items are. Those that no other can belong to are taken away.
    """
    while outer and outer[-1][0] >= margin:
        outer.pop()
    return next((item for _, item in reversed(outer) if _NAMES_WORDS.match(item.tag)), None)


def _split_option(text: str) -> tuple[str, str]:
    """The tag of an option and the text beside it."""
    if is_tag_alone(text):
        return text, ""
    gap = _GAP.search(text)
    if (
        gap is None
        and len(re.findall(r"(?:^|\s)-\w", text)) > 2
        and not re.search(r"[|,;]\s", text)
    ):
        return text, ""
    while (
        gap
        and gap.end() < len(text)
        and _OPTION.match(text[gap.end() :])
        and len(text[: gap.start()]) < 24
    ):
        following = _GAP.search(
            text, gap.end()
        )  # the second spelling stands in a column of its own
        rest = text[gap.end() :]
        spelling = rest.startswith("--") or (
            following and text[: gap.start()].rstrip().endswith((",", "|"))
        )
        if not spelling:
            break
        if following is None:
            if len(rest.split()) > 2:
                break  # a text that begins with the name of another option
            return " ".join(text.split()), ""
        gap = following
    if gap:
        return " ".join(text[: gap.start()].split()), text[gap.end() :].removeprefix(": ")
    simple = _SINGLE_SPACED.match(text)
    if simple and simple.end() < len(text) and text[simple.end()] == " ":
        rest = text[simple.end() :].strip()
        if len(rest.split()) > 1:
            return simple[0], rest
    return text, ""


def _columns(tag: str, text: str) -> list[tuple[str, str]]:
    """Items that stand side by side on one line, `-l  list       -t  test`, told by a flag after a
    gap.
    """
    single = re.split(r"\s+(?=-)", tag)
    if not text and len(single) > 2 and "," not in tag and "|" not in tag:
        return [(one, "") for one in single]  # a list of flags and no spellings of one
    parts = re.split(r"\s{2,}(?=-{1,2}[\w?]\S*\s{2,}\S)", text)
    found = [(tag, parts[0])]
    for part in parts[1:]:
        found.append(_split_option(part))
    return found


def _is_prose(line: str) -> bool:
    """Whether a line that begins with a dash goes on like a sentence."""
    words = line.split()
    return len(words) > 2 and words[1] in _PROSE and not _GAP.search(line.strip())


def _text_blocks(lines: list[str], literal: bool, joined: bool = False) -> list[Block]:
    """Lines of text as paragraphs where they are filled text, else as they stand."""
    done: list[Block] = []
    group: list[str] = []
    for line in [*lines, ""]:
        if line:
            group.append(line)
            continue
        if not group:
            continue
        inner = group[1:] if joined and not done else group
        margins = {indentation(one) for one in inner}
        plain_text = len(margins) <= 1 or (
            len(margins) == 2 and indentation(group[0]) != indentation(group[-1])
        )
        in_columns = any(_GAP.search(one.strip()) for one in inner) and len(group) > 1
        if literal or not plain_text or in_columns:
            if joined and not done:
                done.append(Paragraph(group[0].strip()))
                group = group[1:]
            least = min((indentation(one) for one in group), default=0)
            done.append(Literal("\n".join(one[least:] for one in group)))
        else:
            done.append(Paragraph(" ".join(one.strip() for one in group)))
        group = []
    return done
