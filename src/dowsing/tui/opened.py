"""A document that is open in the reader as lines, with the places in them that can be chosen."""

from __future__ import annotations

import re

from dowsing.model.document import Document, block_texts
from dowsing.model.markup import CODE, ROMAN, clean_line, plain, spans
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.page_text import head_lines, whole_lines
from dowsing.render.wrap import wrap
from dowsing.session.opened import Opened
from dowsing.session.user_data import notes_on, own_about
from dowsing.tasks.origin import OriginKind
from dowsing.tasks.recipe_examples import examples_of
from dowsing.tui.lines_view import Spot

_PAGE = re.compile(r"[A-Za-z0-9_][\w.+:@-]*\([1-9n][a-z0-9]{0,8}\)")


class LaidOut:
    """The lines of a document, its headings as (line, level, title), and its spots: links and lines
    to be run.
    """

    def __init__(self, opened: Opened, width: int) -> None:
        session, document = opened.session, opened.document
        self.lines = []
        for line in head_lines(document, opened.found, width, []):
            if "also: " not in line[:8]:
                self.lines += _within(line, width)
        notes = notes_on(session, [opened.label])
        if notes:
            from dowsing.render.kept_lists import note_lines

            self.lines += ["", *note_lines(notes, width)]
        self.lines += ["", *whole_lines(document, width)]
        self.uses = self._add_uses(opened, width)
        self.headings = [
            (n, (len(line) - len(line[1:].lstrip(" ")) - 1), plain(line[1:]).strip())
            for n, line in enumerate(self.lines)
            if line.startswith(HEADING)
        ]
        self.spots = [*self._links(opened), *self._line_spots(document)]
        self.spots.sort(key=lambda spot: (spot.line, spot.start))

    def _add_uses(self, opened: Opened, width: int) -> dict[int, str]:
        """Recipes and the user's own lines for the name, below the text; their lines by number."""
        entry = opened.entry
        names = entry.all_names
        session = opened.session
        shown = examples_of(session.store, opened.document, names, [], own_about(session, names))
        own = [one for one in shown if one.origin.kind in (OriginKind.RECIPE, OriginKind.SAVED)][
            :30
        ]
        found: dict[int, str] = {}
        if not own:
            return found
        self.lines += ["", f"{HEADING}RECIPES AND OWN LINES"]
        for one in own:
            self.lines += wrap(clean_line(one.task), width, 3)
            found[len(self.lines)] = one.line
            self.lines.append(f"     {CODE}{clean_line(one.line)}{ROMAN}")
        return found

    def _links(self, opened: Opened) -> list[Spot]:
        """The names of other pages, and what the document itself links to, where it stands in one
        line.
        """
        store = opened.session.store
        own = _own_links(opened.document)
        pattern = (
            re.compile("|".join(re.escape(text) for text in sorted(own, key=len, reverse=True)))
            if own
            else None
        )
        known: dict[str, bool] = {opened.label: False}
        found: list[Spot] = []
        for n, line in enumerate(self.lines):
            text = plain(line[1:] if line[:1] in (HEADING, FAINT) else line)
            taken: list[tuple[int, int]] = []
            if "(" in text:
                for match in _PAGE.finditer(text):
                    label = match[0]
                    if label not in known:
                        name, _, section = label.rstrip(")").rpartition("(")
                        known[label] = bool(store.named(name, section))
                    if known[label]:
                        found.append(Spot(n, match.start(), match.end(), "page", label))
                        taken.append((match.start(), match.end()))
            if pattern is not None:
                for match in pattern.finditer(text):
                    if not any(start < match.end() and match.start() < end for start, end in taken):
                        found.append(Spot(n, match.start(), match.end(), "node", own[match[0]]))
        return found

    def _line_spots(self, document: Document) -> list[Spot]:
        """The command lines that the document gives as examples, and those below it."""
        wanted = {
            " ".join(one.line.split("\n")[0].split()): one.line
            for one in document.examples
            if one.line.strip()
        }
        found = []
        for n, line in enumerate(self.lines):
            text = plain(line)
            bare = " ".join(text.split())
            start = len(text) - len(text.lstrip())
            if n in self.uses:
                found.append(Spot(n, start, len(text.rstrip()), "line", self.uses[n]))
            elif bare and (bare in wanted or bare.removeprefix("$ ").removeprefix("# ") in wanted):
                line_meant = wanted.get(bare) or wanted[bare.removeprefix("$ ").removeprefix("# ")]
                found.append(Spot(n, start, len(text.rstrip()), "line", line_meant))
        return found

    def place_of(self, *words: str) -> int:
        """The line of the first heading that has one of the words, -1 if there is none."""
        for word in words:
            for number, _, title in self.headings:
                if word in title.casefold():
                    return number
        return -1

    def place_of_title(self, title: str, anchors: dict[str, str]) -> int:
        """The line of the heading of that title or anchor, -1 if there is none."""
        wanted = {title.casefold(), anchors.get(title.casefold(), "").casefold()}
        return next((number for number, _, name in self.headings if name.casefold() in wanted), -1)


def _within(line: str, width: int) -> list[str]:
    """A line of the head in pieces that fit: a path is one long word."""
    text = plain(line)
    if len(text) <= width or line[:1] != FAINT:
        return [line]
    return [f"{FAINT}{text[at : at + width]}" for at in range(0, len(text), width)]


def _own_links(document: Document) -> dict[str, str]:
    """The texts that the document itself links, with what they link to; pages that are written as
    such apart.
    """
    texts: list[str] = []
    for section in document.sections:
        block_texts(section.blocks, texts)
    found: dict[str, str] = {}
    for text in texts:
        if "\x0e" not in text:
            continue
        for span in spans(text):
            target = span.link
            if (
                target
                and ":" not in target[:8]
                and not _PAGE.fullmatch(target)
                and len(span.text) > 2
            ):
                found[plain(span.text)] = target
    return found


def anchors_of(document: Document) -> dict[str, str]:
    """Other names of its parts, in lower case, with their titles."""
    return {
        section.anchor.casefold(): section.title for section in document.sections if section.anchor
    }
