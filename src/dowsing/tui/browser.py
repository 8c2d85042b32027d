"""The screen of `browse`: a finder that searches as one types, and a reader with links, contents
and sources.
"""

from __future__ import annotations

from rich.style import Style
from rich.text import Text
from textual.app import ComposeResult
from textual.binding import Binding
from textual.containers import Horizontal, Vertical
from textual.events import Resize
from textual.timer import Timer
from textual.widgets import ContentSwitcher, Input, Static

from dowsing.model.entry import Entry
from dowsing.model.errors import Failure
from dowsing.model.markup import clean_line, plain
from dowsing.render.cell_width import display_width, fit, fit_words
from dowsing.render.line_marks import FAINT as FAINT_MARK
from dowsing.render.line_marks import HEADING
from dowsing.render.wrap import wrap
from dowsing.search.filters import Filters
from dowsing.session.session import Session
from dowsing.tui.browse_keys import KEYS
from dowsing.tui.browse_state import BrowseState
from dowsing.tui.lines_view import LinesView
from dowsing.tui.marked import HEAD
from dowsing.tui.program import Program, key_bar
from dowsing.tui.reader import ReaderKeys
from dowsing.tui.rows import ListRow, Rows
from dowsing.tui.search_pane import FACETS, Results, results_for
from dowsing.tui.start_page import Family, StartPage
from dowsing.tui.typing_line import TypingLine
from dowsing.userdata.marked_places import MarkedPlace

NAME, FAINT = Style(bold=True), Style(dim=True)
EACH = 5  # values of a facet
PREVIEW_AFTER = 0.06  # seconds without a key
SEARCH_AFTER = 0.25
FEW = 20  # results; with more the texts of pages are not looked at


TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.tui.key_help import Group


class Browser(ReaderKeys):
    """Finder and reader in one."""

    CSS = (
        Program.CSS
        + """
    ContentSwitcher { height: 1fr; }
    #asked { height: 1; }
    #prompt { width: 8; text-style: bold; }
    Input, Input:focus { border: none; height: 1; padding: 0; background: ansi_default;
        width: 1fr; }
    #told { height: 1; text-style: dim; }
    #below { height: 1fr; }
    #facets { width: 24; border-right: solid ansi_bright_black; }
    #found { width: 1fr; }
    #preview { width: 45%; border-left: solid ansi_bright_black; padding: 0 1; }
    #tabs { height: 1; }
    #text { height: 1fr; }
    #contents { width: 27%; min-width: 26; max-width: 38; border-right: solid ansi_bright_black; }
    #page { width: 1fr; padding: 0 1; }
    #beside { width: 1fr; padding: 0 1; border-left: solid ansi_bright_black; display: none; }
    Screen.two #beside { display: block; }
    Screen.two.narrow #contents { display: none; }
    #within { height: 1; display: none; }
    Screen.within #within { display: block; }
    #within-label { width: 12; }
    #status { height: 1; }
    #keys { height: 1; }
    Screen.narrow #below { layout: vertical; }
    Screen.narrow #upper { height: 1fr; }
    Screen.narrow #preview { width: 100%; height: 40%; border-left: none;
        border-top: solid ansi_bright_black; }
    Screen.narrow #contents { display: none; }
    Screen.narrow.on-contents #contents { display: block; width: 1fr; border-right: none; }
    Screen.narrow.on-contents #page { display: none; }
    #upper { width: 1fr; }
    """
    )
    BINDINGS = [  # noqa: RUF012
        Binding("escape", "escape", priority=True, show=False),
        Binding("enter", "enter", priority=True, show=False),
        Binding("up", "vertical(-1)", priority=True, show=False),
        Binding("down", "vertical(1)", priority=True, show=False),
        Binding("pageup", "page(-1)", priority=True, show=False),
        Binding("pagedown", "page(1)", priority=True, show=False),
        Binding("tab", "tab(1)", priority=True, show=False),
        Binding("shift+tab", "tab(-1)", priority=True, show=False),
        Binding("alt+left", "earlier", priority=True, show=False),
        Binding("alt+right", "later", priority=True, show=False),
    ]

    def __init__(self, session: Session, state: BrowseState) -> None:
        super().__init__()
        self.session = session
        self.state = state
        self.results = Results([], 0, "", {})
        self.on_facets = False
        self.asked = state.query
        self._preview_timer: Timer | None = None
        self._search_timer: Timer | None = None
        self.first_says = ""
        self.start: StartPage | None = None

    def compose(self) -> ComposeResult:
        """The parts of the screen."""
        with ContentSwitcher(initial="finder", id="views"), Vertical(id="finder"):
            with Horizontal(id="asked"):
                yield Static("find  ", id="prompt")
                yield TypingLine("query", self.state.query)
            yield Static(id="told")
            with Horizontal(id="below"):
                with Horizontal(id="upper"):
                    yield Rows(lit=False, id="facets")
                    yield Rows(id="found")
                yield LinesView(id="preview")
        yield Static(id="status")
        yield Static(id="keys")
        yield self.too_small()

    def on_mount(self) -> None:
        """Find the parts; search or open once the screen is there."""
        self.query_input = self.query_one("#query", Input)
        self.facets, self.found = self.query_one("#facets", Rows), self.query_one("#found", Rows)
        self.preview = self.query_one("#preview", LinesView)
        self.preview.can_focus = False
        if self.state.now is None and not self.asked:
            self.show_results()  # what to do stands there before anything is looked up
            self.show_finder()
        self.call_after_refresh(self.begin)

    def begin(self) -> None:
        """Look up what is asked for already; the values to narrow by take longest and come last."""
        if self.asked or self.state.filters.any:
            self.search(self.state.row)
        else:
            self.set_timer(0.001, self.begin_facets)
        if self.state.now is not None:
            label, source, line = self.state.now
            self.state.now = None
            self.open(label, source, line)
        elif self.asked or self.state.filters.any:
            self.show_finder()
        if self.first_says:
            self.say(self.first_says)

    def begin_facets(self) -> None:
        if not self.asked and not self.results.facets:
            self.search()
        self.begin_start()

    # --- finding
    # -------------------------------------------------------------------------------------

    def search(self, row: int = 0, whole: bool = True) -> None:
        """Results and facets for what is typed; `whole`: as far as a search goes when nobody waits
        for the next key.
        """
        self.state.query = self.asked = self.query_input.value
        each = max(3, min(EACH, (self.size.height - 10) // 4))
        try:
            self.results = results_for(
                self.session.store, self.asked, self.state.filters, each, whole
            )
        except Failure as failure:
            self.say(failure.says)
            return
        self.show_results(row)

    def show_results(self, row: int = 0) -> None:
        """Draw the results and the facets."""
        results, filters = self.results, self.state.filters
        width = max(self.found.size.width, 30)
        labels = min(
            max((len(entry.label) for entry in results.entries), default=8), max(12, width // 2)
        )
        rows = []
        for entry in results.entries:
            says = clean_line(entry.summary) or "(no summary)"
            pieces = [
                (fit(clean_line(entry.label), labels) + "  ", NAME),
                (fit_words(says, width - labels - 3), Style()),
            ]
            rows.append(ListRow(pieces, entry))
        if not rows and (self.asked.strip() or filters.any):
            rows = [ListRow([("nothing found; try other or fewer words", FAINT)])]
        elif not rows:
            rows = self.start_rows(width)
        self.found.show(rows, row)
        sides: list[ListRow] = []
        for name, title in FACETS.items():
            values = results.facets.get(name, [])
            if not values:
                continue
            chosen = getattr(filters, name)
            sides.append(ListRow([(title, HEAD)]))
            for value, count in values:
                room = max(self.facets.size.width - 9, 8)
                mark = "✓" if chosen == value else " "
                text = [
                    (mark + fit(clean_line(value), room), NAME if chosen else Style()),
                    (f"{count:>6}", FAINT),
                ]
                sides.append(ListRow(text, (name, value)))
        self.facets.show(sides, self.facets.at)
        told = f"{results.total} found" if results.total else ""
        if filters.any:
            told += f" in {filters.described()}"
        if results.relaxed:
            told += f" · {results.relaxed}"
        self.query_one("#told", Static).update(
            Text(clean_line(told), no_wrap=True, overflow="ellipsis")
        )
        if results.entries or self.preview.lines:
            self.preview_later()

    def start_rows(self, width: int) -> list[ListRow]:
        """What stands there before anything is typed."""
        hints = wrap("Type what you look for: words, a name, a pattern such as *zip*", width - 1)
        hints += wrap("Tab: what narrows the list · Enter: open", width - 1)
        rows = [ListRow([(text, FAINT)]) for text in hints]
        if self.start is None:
            return rows
        lists = self.start.lists()
        names = [name for _, members in lists for name, _, _ in members]
        column = min(max((len(name) for name in names), default=8), max(12, width // 2))
        for title, members in lists:
            if members:
                rows += [ListRow([("", FAINT)]), ListRow([(title, HEAD)])]
            for name, says, value in members:
                text = [
                    (fit(clean_line(name), column) + "  ", NAME),
                    (fit_words(clean_line(says), max(width - column - 3, 0)), Style()),
                ]
                rows.append(ListRow(text, value))
        return rows

    def begin_start(self) -> None:
        """Take up what was read and marked; it is looked up once the screen is there."""
        self.start = StartPage(self.session)
        if not self.asked.strip() and not self.state.filters.any and not self.reading:
            self.show_results(self.found.at)
            self.preview_later()

    def search_on(self) -> None:
        """Search once more, in the texts too, when the keys rest and little was found."""
        if self._search_timer is not None:
            self._search_timer.stop()
        asked = self.asked

        def whole() -> None:
            if asked == self.asked and self.results.total < FEW and not self.reading:
                self.search(self.found.at)

        self._search_timer = self.set_timer(SEARCH_AFTER, whole)

    def preview_later(self) -> None:
        """Show the card of the chosen result when the keys rest."""
        if self._preview_timer is not None:
            self._preview_timer.stop()
        self._preview_timer = self.set_timer(PREVIEW_AFTER, self.show_preview)

    def show_preview(self) -> None:
        """The card of the chosen result."""
        value = self.found.value
        label = _label(value)
        if not label or self.reading:
            self.preview.show([])
            return
        from dowsing.render.cards import card_lines
        from dowsing.session.making_cards import card_of
        from dowsing.session.naming import find_entry

        width = max(20, self.preview.content_size.width - 1)
        try:
            card = card_of(self.session, find_entry(self.session, [label]))
            lines = card_lines(card, width, self.session.program)
        except Failure as failure:
            lines = [failure.says]
        self.preview.show([piece for line in lines for piece in _within(line, width)])

    def on_input_changed(self, event: Input.Changed) -> None:
        """Search as one types."""
        if event.value != event.input.value:
            return
        if event.input.id == "query" and event.value != self.asked:
            self.search(whole=False)
            self.search_on()
        elif event.input.id == "sought" and self.screen.has_class("within"):
            self.typed_below(event.value)

    def narrow(self, choice: tuple[str, str]) -> None:
        """Narrow to a value of a facet, or no longer."""
        name, value = choice
        now = "" if getattr(self.state.filters, name) == value else value
        self.state.filters = self.state.filters.changed(**{name: now})
        self.search()

    def show_finder(self) -> None:
        """The finder, with the words as they were."""
        self.query_one(ContentSwitcher).current = "finder"
        self.facets.lit = self.on_facets
        self.found.lit = not self.on_facets
        self.facets.refresh()
        self.found.refresh()
        self.set_focus(self.query_input)
        self.show_keys()

    # --- keys that both have
    # ---------------------------------------------------------------------------

    def say(self, text: str) -> None:
        """A line at the bottom."""
        self.query_one("#status", Static).update(
            Text(clean_line(text), no_wrap=True, overflow="ellipsis")
        )

    def show_keys(self) -> None:
        """The keys that mean something now."""
        if self.reading:
            keys = self.reader_keys()
        elif self.on_facets:
            keys = [
                ("Enter", "narrow or not"),
                ("↑↓", "choose"),
                ("Tab", "back to the words"),
                ("Esc", "leave"),
            ]
        else:
            keys = [("Enter", "open"), ("↑↓", "choose"), ("Tab", "narrow"), ("^C", "leave")]
            keys.insert(3, ("Esc", "clear" if self.asked or self.state.filters.any else "leave"))
        self.query_one("#keys", Static).update(key_bar(keys, self.size.width))

    def key_groups(self) -> list[Group]:
        """All keys of the finder and the reader."""
        return KEYS

    def on_resize(self, event: Resize) -> None:
        super().on_resize(event)
        self.screen.set_class(event.size.width < 110, "narrow")
        self.call_after_refresh(self.place)

    def place(self) -> None:
        """Lay everything out for a new size."""
        if self.reading:
            self.lay_out(keep=True)
        elif self.results.entries or self.facets.rows:
            self.show_results(self.found.at)
        self.show_keys()

    def action_escape(self) -> None:
        """Out of what is done now: a search in the text, the reader, the filters, the words; then
        leave.
        """
        self.in_turn(self.escape)

    def escape(self) -> None:
        if len(self.screen_stack) > 1:
            self.pop_screen()
        elif self.reading:
            self.escape_reader()
        elif self.on_facets:
            self.on_facets = False
            self.show_finder()
        elif self.asked or self.state.filters.any:
            self.state.filters = Filters()
            self.query_input.value = ""
            self.search()
            self.show_keys()
        else:
            self.exit(None)

    def action_enter(self) -> None:
        """Open, narrow, or follow what is chosen."""
        self.in_turn(self.enter)

    def enter(self) -> None:
        if not self.reading and self.query_input.value != self.asked:
            self.search(whole=False)  # Enter was quicker than the search
        if self.reading:
            self.enter_reader()
        elif self.on_facets:
            if self.facets.value is not None:
                self.narrow(self.facets.value)
        elif isinstance(self.found.value, Family):
            self.state.filters = self.state.filters.changed(family=self.found.value.name)
            self.search()
            self.show_keys()
        elif label := _label(self.found.value):
            self.state.row = self.found.at
            place = self.found.value
            if isinstance(place, MarkedPlace):
                self.open(label, place.source, part=place.title)
            else:
                self.open(label)

    def action_vertical(self, by: int) -> None:
        """One up or down."""
        self.in_turn(self.one_on, by)

    def one_on(self, by: int) -> None:
        if self.reading:
            self.move_reader(by)
        elif self.on_facets:
            self.facets.move(by)
        else:
            self.found.move(by)
            self.preview_later()

    def action_page(self, by: int) -> None:
        """A screen up or down."""
        if self.reading:
            self.page_reader(by)
        else:
            self.found.move(by * max(self.found.size.height - 1, 1))
            self.preview_later()

    def action_tab(self, by: int) -> None:
        """To what narrows and back; in the reader to the next place that can be chosen."""
        if self.reading:
            self.tab_reader(by)
            return
        self.on_facets = not self.on_facets and bool(self.facets.rows)
        self.show_finder()

    def on_rows_picked(self, event: Rows.Picked) -> None:
        """A click on a row: a result is chosen, and opened by a second click; a facet narrows; a
        part is gone to.
        """
        rows = event.rows
        again = rows.at == event.at
        rows.at = event.at
        rows.refresh()
        if rows.id == "found":
            if again:
                self.action_enter()
            else:
                self.preview_later()
        elif rows.id == "facets":
            self.narrow(rows.value)
        elif rows.id == "contents":
            self.go_to_part()


def _within(line: str, width: int) -> list[str]:
    """A line in pieces that fit: a command line that is kept in one is broken here."""
    bare = plain(line)
    if display_width(bare) <= width:
        return [line]
    mark = line[:1] if line[:1] in (FAINT_MARK, HEADING) else ""
    body = line[len(mark) :].replace("\xa0", " ")
    indent = len(bare) - len(bare.lstrip(" "))
    return [mark + one for one in wrap(body.lstrip(" "), width, indent, 4)]


def _label(value: object) -> str:
    """The label of the entry that a row stands for, "" if it stands for none."""
    if isinstance(value, str):
        return value
    return value.label if isinstance(value, Entry | MarkedPlace) else ""
