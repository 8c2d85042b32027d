"""Where one is in the text that is read: the part, how far, marks and remarks; and a second text
beside it.
"""

from __future__ import annotations

import time

from rich.style import Style
from textual.widgets import Static

from dowsing.model.errors import CannotKeep, Failure
from dowsing.model.markup import clean_line, plain
from dowsing.render.cell_width import fit_words
from dowsing.session.opened import Opened
from dowsing.session.session import Session
from dowsing.tui.lines_view import LinesView
from dowsing.tui.opened import LaidOut
from dowsing.tui.program import Program
from dowsing.tui.rows import ListRow, Rows
from dowsing.tui.typing_line import TypingLine

MARK_HERE = "▸"
LEAST_OF_TWO = 34  # columns that each of two texts needs
#: What the line below the text asks for, by what is typed into it.
SEARCH, OPTION, REMARK = "search for  ", "option      ", "remark      "


class ReaderPlaces(Program):
    """The part of the reader that knows its places.

    `other`: the text beside, None while there is none; `asking`: what the line below the text is
    typed for; `searched`: what was looked for before, the newest last.
    """

    session: Session
    page: LinesView
    beside: LinesView
    contents: Rows
    sought: TypingLine
    opened: Opened | None = None
    sheet: LaidOut | None = None
    other: Opened | None = None
    on_contents = False
    on_other = False
    asking = SEARCH
    _recalled = 0

    def say(self, text: str) -> None:
        """A line at the bottom."""
        raise NotImplementedError

    def show_keys(self) -> None:
        """The keys that mean something now."""
        raise NotImplementedError

    def show_tabs(self) -> None:
        """The name, its sources and how far one is."""
        raise NotImplementedError

    # --- how far
    # -------------------------------------------------------------------------------------

    @property
    def part(self) -> int:
        """The number of the part that the first line that is seen belongs to, -1 before them."""
        if self.sheet is None:
            return -1
        top = self.page.scroll_offset.y
        passed = [n for n, (line, _, _) in enumerate(self.sheet.headings) if line <= top + 1]
        return passed[-1] if passed else -1

    def progress(self) -> str:
        """How far one is, and in which part."""
        view = self.page
        left = max(len(view.lines) - view.size.height, 0)
        share = 100 if not left else round(100 * min(view.scroll_offset.y, left) / left)
        title = self.sheet.headings[self.part][2] if self.sheet and self.part >= 0 else ""
        return f"{clean_line(title)}  {share} %".strip()

    def on_lines_view_moved(self, event: LinesView.Moved) -> None:
        """The contents and the head follow the text."""
        event.stop()
        if self.opened is not None and self.sheet is not None and event.view is self.page:
            self.show_contents()
            self.show_tabs()

    def show_contents(self) -> None:
        """The parts of the text, the one that is read marked."""
        assert self.sheet is not None
        room = max(self.contents.size.width - 3, 10)
        here = self.part
        rows = [
            ListRow(
                [
                    (MARK_HERE if n == here else " ", Style(bold=True)),
                    (
                        fit_words("  " * min(level, 3) + clean_line(title), room),
                        Style(bold=not level or n == here),
                    ),
                ],
                number,
            )
            for n, (number, level, title) in enumerate(self.sheet.headings)
        ]
        self.contents.show(rows, self.contents.at if self.on_contents else max(here, 0))

    # --- marks and remarks
    # ---------------------------------------------------------------------------

    def mark_place(self) -> None:
        """Mark the part that is read, or take its mark away."""
        from dowsing.userdata.marked_places import MarkedPlace, turn_mark

        assert self.opened is not None and self.sheet is not None
        title = self.sheet.headings[self.part][2] if self.part >= 0 else ""
        place = MarkedPlace(self.opened.label, self.opened.source, title, _today())
        try:
            marked = turn_mark(self.session.settings.kept, place)
        except CannotKeep as error:
            self.say(str(error))
            return
        where = f"{self.opened.label}{f', {title}' if title else ''}"
        self.say(f"marked: {where}" if marked else f"marked no longer: {where}")

    def begin_asking(self, what: str, begin: str = "") -> None:
        """Ask for something in the line below the text."""
        self.asking = what
        self._recalled = 0
        self.screen.add_class("within")
        self.query_one("#within-label", Static).update(what)
        self.sought.value = begin
        self.sought.cursor_position = len(begin)
        self.set_focus(self.sought)

    def take_asked(self) -> None:
        """What was typed is done: a remark is kept, a search is remembered."""
        text = " ".join(self.sought.value.split())
        if self.asking == REMARK and text:
            self.keep_remark(text)
        elif self.asking == SEARCH and text:
            searched = self.session.store.memory.setdefault("searched in texts", [])
            if text in searched:
                searched.remove(text)
            searched.append(text)
        elif self.asking == OPTION:
            self.say("")

    def recall(self, by: int) -> None:
        """A search of before, into the line that is typed into."""
        searched = self.session.store.memory.get("searched in texts", [])
        if self.asking != SEARCH or not searched:
            return
        self._recalled = max(0, min(self._recalled + by, len(searched)))
        text = searched[-self._recalled] if self._recalled else ""
        self.sought.value = text
        self.sought.cursor_position = len(text)

    def keep_remark(self, text: str) -> None:
        from dowsing.userdata.remarks import Remark, add_note

        assert self.opened is not None
        try:
            add_note(self.session.settings.kept, Remark(self.opened.label, text, _today()))
        except CannotKeep as error:
            self.say(str(error))
            return
        self.say(f"noted on {self.opened.label}; it stands at the head from the next time on")

    def seek_option(self, typed: str) -> None:
        """Go to the first option whose spelling begins with what is typed."""
        if self.opened is None or len(typed.strip("-+")) < 1:
            return
        flags = [flag for option in self.opened.document.brief_options for flag in option.flags]
        exact = [flag for flag in flags if flag == typed]
        chosen = (exact or [flag for flag in flags if flag.startswith(typed)])[:1]
        line = self._line_of(chosen[0]) if chosen else -1
        if line >= 0:
            self.page.go_to_line(max(line - 1, 0))
            self.say(f"{chosen[0]} · Enter stays here")
        else:
            self.say(f"no option begins with {typed}")

    def _line_of(self, flag: str) -> int:
        """The line at whose beginning the option's spelling stands."""
        for n, line in enumerate(self.page.lines):
            words = plain(line).replace(",", " ").split()
            if words and words[0].startswith(("-", "+")):
                spelled = {word.split("=")[0].split("[")[0] for word in words[:6]}
                if flag in spelled:
                    return n
        return -1

    # --- a second text beside
    # ------------------------------------------------------------------------

    def turn_beside(self) -> None:
        """Show the next of the other sources beside, or none again after the last."""
        assert self.opened is not None
        sources = [one for one in self.opened.sources if one != self.opened.source]
        shown = self.other.source if self.other is not None else None
        after = sources[sources.index(shown) + 1 :] if shown in sources else sources
        if self.page.size.width // (1 if self.other is not None else 2) < LEAST_OF_TWO:
            self.say("the window is too narrow for two texts")
            return
        for source in after:
            other = Opened(self.session, self.opened.label)
            try:
                other.turn_to(source)
            except Failure:
                continue
            self.other = other
            self.screen.add_class("two")
            self.call_after_refresh(self.lay_out, True)
            self.say(f"beside: {other.source} · w: to the other text · v: the next one, or none")
            return
        if self.other is None:
            self.say("there is no other text of it")
        self.end_beside()

    def end_beside(self) -> None:
        """One text again."""
        if self.other is not None:
            self.other, self.on_other = None, False
            self.screen.remove_class("two")
            self.call_after_refresh(self.lay_out, True)

    def other_text(self) -> None:
        """The keys go to the other of two texts."""
        if self.other is not None:
            self.on_other = not self.on_other
            self.screen.set_class(self.on_other, "on-other")
            self.show_tabs()
            self.say(f"the keys scroll {self.other.source if self.on_other else 'the first text'}")

    def lay_out(self, keep: bool = False, line: int = 0, part: str = "") -> None:
        """Lay the text, or both, out for the width there is."""
        raise NotImplementedError

    @property
    def scrolled(self) -> LinesView:
        """The text that the keys scroll."""
        return self.beside if self.on_other and self.other is not None else self.page


def _today() -> str:
    return time.strftime("%Y-%m-%d")
