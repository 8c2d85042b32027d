"""How a form looks: its steps and fields, the help on the one in focus, the line, the keys."""

from __future__ import annotations

from rich.style import Style
from textual.app import ComposeResult
from textual.containers import Container, Horizontal
from textual.widgets import Static

from dowsing.composing.field import Field, Step
from dowsing.composing.sheet import Sheet
from dowsing.model.document import Document
from dowsing.model.markup import BOLD, ROMAN, clean_line
from dowsing.render.fields import help_lines
from dowsing.render.marked_line import styled_line
from dowsing.render.piece_text import effect_line
from dowsing.render.pieces import pieces_of
from dowsing.render.wrap import wrap
from dowsing.tui.field_list import FieldList
from dowsing.tui.lines_view import LinesView
from dowsing.tui.marked import COLOURS, text_of
from dowsing.tui.program import Program, key_bar
from dowsing.tui.typing_line import TypingLine

MOST_EFFECTS = 2  # that are told above the line
CAREFUL, SAID = Style(color=COLOURS.careful, bold=True), Style(dim=True)
FEW_VALUES = 12  # so many are gone through with the arrows; more are typed


class FormView(Program):
    """What is drawn of a form: the part of the screen of `compose` that only shows.

    `step`: the step that is shown; `offered`: what Tab completes to; `document`: the page that
    tells of the fields; `loaded`: what takes longest is there too, the form was drawn before.
    """

    sheet: Sheet
    step: Step
    spelling: str
    offered: list[str]
    document: Document | None
    loaded: bool
    list: FieldList
    side: LinesView

    @property
    def seeking(self) -> bool:
        """Whether fields are looked for by words."""
        raise NotImplementedError

    CSS = (
        Program.CSS
        + f"#value {{ color: ansi_{COLOURS.code}; }} #status {{ color: ansi_{COLOURS.wrong}; }}"
        + """
    #title { height: 1; }
    #steps { height: 1; }
    #middle { height: 1fr; }
    #left { width: 1fr; layers: base above; }
    #list { height: 1fr; }
    #middle { layout: vertical; }
    #side { width: 100%; height: 38%; min-height: 4; border-top: solid ansi_bright_black;
        padding: 0 1; }
    #seek { height: 1; display: none; }
    #seek Input { width: 1fr; }
    #seek-label { width: 8; }
    Screen.seeking #seek { display: block; }
    #value { position: absolute; layer: above; height: 1; border: none; padding: 0;
        background: ansi_default;
             text-style: underline; display: none; }
    Input, Input:focus { border: none; height: 1; padding: 0; background: ansi_default; }
    #line { height: auto; max-height: 8; border-top: solid ansi_bright_black; padding: 0 1; }
    #status { height: 1; padding: 0 1; }
    #keys { height: 1; padding: 0 1; }
    Screen.wide #middle { layout: horizontal; }
    Screen.wide #side { width: 38%; height: 100%; border-top: none;
        border-left: solid ansi_bright_black; }
    """
    )

    def compose(self) -> ComposeResult:
        """The parts of the screen."""
        yield Static(id="title", classes="bar")
        yield Static(id="steps", classes="bar")
        with Container(id="seek"), Horizontal():
            yield Static("find: ", id="seek-label")
            yield TypingLine("seeking")
        with Container(id="middle"):
            with Container(id="left"):
                yield FieldList(self.sheet, id="list")
                yield TypingLine("value")
            yield LinesView(id="side")
        yield Static(id="line")
        yield Static(id="status")
        yield Static(id="keys")
        yield self.too_small()

    def show_heads(self) -> None:
        """The title, the steps with their counts, the line, the keys."""
        sheet = self.sheet
        width = self.size.width
        page = clean_line(sheet.page)
        title = f"{BOLD}compose {clean_line(sheet.title)}{ROMAN}  {clean_line(sheet.summary)}"
        room = width - len(page) - 3
        head = text_of(title)
        head.truncate(max(room, 10), overflow="ellipsis", pad=True)
        head.append("  " + page, "dim")
        self.query_one("#title", Static).update(head)
        counts = sheet.counts()
        steps = text_of("")
        for n, step in enumerate(Step, 1):
            steps.append(
                f" {n} {step} {counts[step]} ",
                "reverse" if step == self.step and not self.seeking else "",
            )
            steps.append(" ")
        if self.seeking:
            steps.append(f" found {len(self.list.fields)} ", "reverse")
        self.query_one("#steps", Static).update(steps)
        self.show_line()
        keys = [("Enter", "take the line"), ("Esc", "leave"), ("↑↓", "field")]
        field = self.list.field
        if field is not None and self.chooses(field):
            keys.append(("←→", "value"))
        elif field is not None and (not field.takes or field.bare):
            keys.append(("Space", "on or off"))
        if field is not None and field.takes:
            keys.append(("F2", "list"))
        if field is not None and field.takes and not self.chooses(field):
            keys.append(("Tab", "complete"))
        keys += [("^T", "step"), ("^F", "find"), ("F4", "page"), ("F7", "undo")]
        if sheet.has_spellings:
            keys.append(("^L", {"": "long", "long": "short", "short": "as typed"}[self.spelling]))
        self.query_one("#keys", Static).update(key_bar(keys, width - 2))

    def show_line(self) -> None:
        """The line as it stands, by what its words are; what it does, in words; what it changes."""
        line = self.sheet.line(self.spelling)
        found = self.sheet.read_line(self.spelling) if self.loaded and line.strip() else None
        text = text_of("")
        if found is not None:
            for effect in found.changes[:MOST_EFFECTS]:
                text.append(f"careful: {clean_line(effect_line(effect))}\n", CAREFUL)
        if not line:
            text.append("(nothing yet)")
        elif found is None:
            text.append_text(text_of(f"{BOLD}{_printable(line)}{ROMAN}"))
        else:
            text.append_text(text_of(styled_line(line.replace("\t", " "), pieces_of(found))))
            from dowsing.render.line_sentence import sentence

            says = sentence(found)
            if says:
                text.append(f"\n{clean_line(says)}", SAID)
        self.query_one("#line", Static).update(text)

    def show_help(self) -> None:
        """What is told of the field in focus."""
        field = self.list.field
        if field is None:
            self.side.show(["no field has these words"] if self.seeking else [])
            return
        width = max(16, self.side.content_size.width - 1)
        lines: list[str] = []
        if self.offered:
            lines += wrap(
                "Tab: "
                + "  ".join(clean_line(one).replace(" ", "\xa0") for one in self.offered[:40]),
                width,
            )
            lines.append("")
        values = self.sheet.values(field)
        if field.repeats and field.takes and len(values) > 1:
            lines += [f"{n:>3}  {clean_line(value)}" for n, value in enumerate(values, 1)] + [""]
        self.side.show(lines + help_lines(self.sheet, field, self.document, width))

    def say(self, text: str) -> None:
        """A line about what is wrong."""
        self.query_one("#status", Static).update(text_of(clean_line(text)))

    def chooses(self, field: Field) -> bool:
        """Whether its value is one of a few, gone through with the arrows."""
        return bool(
            field.takes and field.strict and field.values and len(field.values) <= FEW_VALUES
        )

    def types(self, field: Field | None) -> bool:
        """Whether its value is typed."""
        if field is None or not field.takes or self.chooses(field):
            return False
        return field.key not in self.list.ruled_out


def _printable(line: str) -> str:
    return "\n".join(
        "".join(c if c.isprintable() else "?" for c in one) for one in line.split("\n")
    )
