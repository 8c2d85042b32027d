"""The reader of `browse`: a document with its contents, links, sources, search, and what can be
done with a line.
"""

from __future__ import annotations

from collections.abc import Callable

from rich.text import Text
from textual.events import Key
from textual.widgets import ContentSwitcher, Static

from dowsing.model.errors import Failure
from dowsing.model.markup import clean_line
from dowsing.session.opened import Opened
from dowsing.session.user_data import note_read
from dowsing.tui.chosen_line import ChosenLine
from dowsing.tui.lines_view import LinesView, Spot
from dowsing.tui.opened import LaidOut, anchors_of
from dowsing.tui.reader_places import OPTION, REMARK, SEARCH
from dowsing.tui.reader_view import ReaderView

NARROWEST, WIDEST = 30, 100  # columns of text


class ReaderKeys(ChosenLine):
    """What the keys do while a document is read: the part of the screen of `browse` that the reader
    is.

    The screen that it is part of has the finder, the line at the bottom and the bar of keys.
    """

    @property
    def reading(self) -> bool:
        """Whether the reader is shown."""
        return self.opened is not None

    def show_finder(self) -> None:
        """Back to the finder."""
        raise NotImplementedError

    # --- opening
    # -------------------------------------------------------------------------------------

    def open(
        self, label: str, source: str = "", line: int = 0, remember: bool = True, part: str = ""
    ) -> None:
        """Open a name, at a line or at the part of that title, and remember where one was."""
        try:
            opened = Opened(self.session, label)
            if source and source != opened.source:
                opened.turn_to(source)
        except Failure as failure:
            near = f": {', '.join(failure.nearest)}" if failure.nearest else ""
            self.say(failure.says + near)
            if not self.reading:
                self.show_finder()
            return
        here = self.here()
        if here is not None and remember:
            self.state.back.append(here)
            self.state.ahead.clear()
        if not self.query("#reader"):
            view = ReaderView(id="reader")
            self.page, self.contents, self.sought = view.page, view.contents, view.sought
            self.beside = view.beside
            self.query_one(ContentSwitcher).mount(view)
        self.opened, self.sheet = opened, None
        self.on_contents = False
        self.end_beside()
        self.say("")
        note_read(self.session, opened.label)
        self.call_after_refresh(self.show_reader, line, part)

    def show_reader(self, line: int, part: str) -> None:
        """Change from the finder to the document that is open."""
        self.query_one(ContentSwitcher).current = "reader"
        self.set_focus(self.page)
        self.call_after_refresh(self.lay_out, line=line, part=part)

    def here(self) -> tuple[str, str, int] | None:
        """Where one reads now."""
        if self.opened is None or not self.reading:
            return None
        return self.opened.label, self.opened.source, self.page.scroll_offset.y

    def lay_out(self, keep: bool = False, line: int = 0, part: str = "") -> None:
        """Lay the document, or both, out for the width there is."""
        if self.opened is None:
            return
        if not self.page.size.width:  # it is not on the screen yet
            self.set_timer(0.02, lambda: self.lay_out(keep, line, part))
            return
        width = max(NARROWEST, min(WIDEST, self.page.content_size.width - 2))
        self.sheet = LaidOut(self.opened, width)
        self.page.show(self.sheet.lines, self.sheet.spots, keep)
        if part:
            line = max(self.sheet.place_of_title(part, {}), 0)
        if line:
            self.page.go_to_line(line)
        if self.other is not None and self.beside.size.width:
            width = max(NARROWEST, min(WIDEST, self.beside.content_size.width - 2))
            self.beside.show(LaidOut(self.other, width).lines, [], keep)
        self.show_contents()
        self.show_tabs()
        self.show_keys()

    def show_tabs(self) -> None:
        """The name, and its sources."""
        assert self.opened is not None
        bar = Text(no_wrap=True, overflow="ellipsis")
        bar.append(f" {clean_line(self.opened.label)} ", "bold")
        for n, source in enumerate(self.opened.sources, 1):
            bar.append(" ")
            bar.append(f" {n} {source} ", "reverse" if source == self.opened.source else "")
        if self.other is not None:
            bar.append(f"  | {self.other.source} ", "reverse" if self.on_other else "bold")
        trail = len(self.state.back), len(self.state.ahead)
        if any(trail):
            bar.append(f"   ← {trail[0]}  → {trail[1]}", "dim")
        told = self.progress() if self.sheet is not None else ""
        room = self.size.width - bar.cell_len - 3
        if len(told) > room:
            told = told.rpartition("  ")[2]
        if len(told) <= room:
            bar.append(" " * (self.size.width - bar.cell_len - len(told) - 1) + told, "dim")
        self.query_one("#tabs", Static).update(bar)

    def reader_keys(self) -> list[tuple[str, str]]:
        """The keys that mean something now."""
        spot = self.page.chosen
        if self.on_contents:
            return [("Enter", "go there"), ("↑↓", "choose"), ("g", "back to the text")]
        if spot is not None and spot.what == "line":
            return [
                ("Enter", "hand out"),
                ("c", "compose"),
                ("u", "unpick"),
                ("s", "save"),
                ("y", "copy"),
                ("Tab", "next"),
                ("Esc", "let go"),
            ]
        keys = [
            ("Tab", "link or line"),
            ("⌫", "back"),
            ("/", "search"),
            ("-", "option"),
            ("g", "contents"),
            ("e", "examples"),
            ("Esc", "finder"),
            ("q", "leave"),
        ]
        if spot is not None:
            keys.insert(0, ("Enter", "follow"))
        if self.opened is not None and len(self.opened.sources) > 1:
            keys += [("1-9", "source"), ("v", "beside")]
        return [*keys, ("c", "compose"), ("m", "mark")]

    # --- keys
    # ----------------------------------------------------------------------------------------

    def escape_reader(self) -> None:
        """Out of what is done now; at last to the finder."""
        if self.screen.has_class("within"):
            self.end_within()
            self.page.seek("")
            self.say("")
        elif self.on_contents:
            self.to_contents()
        elif self.page.at >= 0 or self.page.sought:
            self.page.at = -1
            self.page.seek("")
            self.say("")
            self.show_keys()
        else:
            here = self.here()
            if here is not None:
                self.state.back.append(here)
            self.opened = None
            self.say("")
            self.show_finder()

    def enter_reader(self) -> None:
        """Follow a link, hand a line out, go to a part, end the search."""
        if len(self.screen_stack) > 1:
            self.pop_screen()
        elif self.screen.has_class("within"):
            self.take_asked()
            self.end_within()
        elif self.on_contents:
            self.go_to_part()
        elif self.page.chosen is not None:
            self.follow(self.page.chosen)
        else:
            self.page.scroll_relative(y=1, animate=False)

    def on_lines_view_chosen(self, event: LinesView.Chosen) -> None:
        """A click follows a link; on a line it only chooses it."""
        if event.spot.what != "line":
            self.follow(event.spot)
        else:
            self.show_keys()

    def follow(self, spot: Spot) -> None:
        """Go where a spot leads."""
        if spot.what == "line":
            self.hand_out(spot.target)
        elif spot.what == "page":
            self.open(spot.target)
        else:
            self.go_to_node(spot.target)

    def go_to_node(self, target: str) -> None:
        """Another node: a part of what is open, another node of its manual, a name."""
        assert self.opened is not None and self.sheet is not None
        here = self.here()
        line = self.sheet.place_of_title(target, anchors_of(self.opened.document))
        if line >= 0:
            if here is not None:
                self.state.back.append(here)
            self.page.go_to_line(line)
            self.show_tabs()
        elif self.opened.node(target):
            if here is not None:
                self.state.back.append(here)
            self.lay_out()
        else:
            name = target.rpartition(")")[2].strip() or target.strip("()")
            self.open(name)

    def action_earlier(self) -> None:
        """Where one was before."""
        self.go(self.state.back, self.state.ahead)

    def action_later(self) -> None:
        """Where one came back from."""
        self.go(self.state.ahead, self.state.back)

    def go(self, there: list[tuple[str, str, int]], other: list[tuple[str, str, int]]) -> None:
        if not there:
            if self.reading and there is self.state.back:
                self.escape_reader()
            return
        here = self.here()
        if here is not None:
            other.append(here)
        self.open(*there.pop(), remember=False)

    def move_reader(self, by: int) -> None:
        if len(self.screen_stack) > 1:
            self.screen.query_one(LinesView).scroll_relative(y=by, animate=False)
        elif self.screen.has_class("within"):
            self.recall(-by)
        elif self.on_contents:
            self.contents.move(by)
        else:
            self.scrolled.scroll_relative(y=by, animate=False)

    def page_reader(self, by: int) -> None:
        view = self.screen.query_one(LinesView) if len(self.screen_stack) > 1 else self.scrolled
        view.scroll_relative(y=by * max(view.size.height - 1, 1), animate=False)

    def tab_reader(self, by: int) -> None:
        if not self.screen.has_class("within"):
            self.page.step(by)
            self.show_keys()
            spot = self.page.chosen
            self.say(
                f"→ {spot.target}"
                if spot is not None
                else "there is nothing to choose in this text"
            )

    def on_key(self, event: Key) -> None:
        """The letters of the reader."""
        if not self.reading or self.screen.has_class("within") or len(self.screen_stack) > 1:
            return
        if self.opened is None or self.sheet is None:
            return
        key, character = event.key, event.character or ""
        does: dict[str, Callable[[], object]] = {
            "q": self.action_leave,
            "backspace": self.action_earlier,
            "[": self.action_earlier,
            "]": self.action_later,
            "/": lambda: self.begin_asking(SEARCH),
            "-": lambda: self.begin_asking(OPTION, "-"),
            "r": lambda: self.begin_asking(REMARK),
            "m": self.mark_place,
            "v": self.turn_beside,
            "w": self.other_text,
            "?": self.action_all_keys,
            "n": lambda: self.seek_on(1),
            "N": lambda: self.seek_on(-1),
            "g": self.to_contents,
            "o": lambda: self.jump("option"),
            "e": self.to_examples,
            "c": self.compose_line,
            "u": self.unpick_line,
            "s": self.save_line,
            "y": self.copy_line,
            "f": self.escape_reader,
            "space": lambda: self.page_reader(1),
            "home": lambda: self.page.go_to_line(0),
            "end": lambda: self.page.go_to_line(len(self.page.lines)),
        }
        action = does.get(key) or does.get(character)
        if action is not None:
            event.prevent_default()
            event.stop()
            action()
        elif character.isdecimal() and 1 <= int(character) <= len(self.opened.sources):
            self.turn_to(self.opened.sources[int(character) - 1])

    def turn_to(self, source: str) -> None:
        """Another source of the same name."""
        assert self.opened is not None
        try:
            self.opened.turn_to(source)
        except Failure as failure:
            self.say(failure.says)
            self.show_tabs()
            return
        self.lay_out()

    # --- places in the text
    # --------------------------------------------------------------------------

    def end_within(self) -> None:
        self.screen.remove_class("within")
        self.set_focus(self.page)

    def typed_below(self, text: str) -> None:
        """What is typed below the text is followed at once."""
        if self.asking == SEARCH:
            self.seek(text)
        elif self.asking == OPTION:
            self.seek_option(text.strip())

    def seek(self, text: str) -> None:
        count = self.page.seek(text)
        self.say(
            f"{count} lines · n next, N the one before"
            if count
            else f"“{text}” is not in this text"
            if text
            else ""
        )

    def seek_on(self, by: int) -> None:
        at, count = self.page.seek_next(by)
        self.say(f"{at} of {count}" if count else "nothing was looked for; / does")

    def to_contents(self) -> None:
        """To the list of contents, or back."""
        self.on_contents = not self.on_contents and bool(self.contents.rows)
        self.screen.set_class(self.on_contents, "on-contents")
        self.contents.lit = self.on_contents
        self.contents.show(self.contents.rows, max(self.part, 0))
        self.show_keys()

    def go_to_part(self) -> None:
        number = self.contents.value
        if self.on_contents:
            self.to_contents()
        if isinstance(number, int):
            self.page.go_to_line(number)

    def jump(self, *words: str) -> bool:
        """To the first part of such a title."""
        assert self.sheet is not None
        line = self.sheet.place_of(*words)
        if line < 0 and "option" in words:
            line = self._first_option()
        if line >= 0:
            self.page.go_to_line(line)
        else:
            self.say(f"this text has no part about {words[0]}s")
        return line >= 0

    def _first_option(self) -> int:
        """Where the first option is told of, in a text without a part for them."""
        from dowsing.model.markup import plain

        assert self.opened is not None
        options = self.opened.document.options
        flags = tuple(flag for option in options[:1] for flag in option.flags)
        return next(
            (
                n
                for n, line in enumerate(self.page.lines)
                if flags and plain(line).strip().startswith(flags)
            ),
            -1,
        )

    def to_examples(self) -> None:
        """To the examples; the first line of them is chosen."""
        if self.jump("example", "recipes"):
            top = self.page.scroll_offset.y
            for n, spot in enumerate(self.page.spots):
                if spot.what == "line" and spot.line >= top:
                    self.page.at = n
                    self.page.show_line(spot.line)
                    break
            self.page.refresh()
            self.show_keys()
