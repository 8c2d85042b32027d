"""What can be done with a form besides filling it in: steps back, lists to choose from, words
instead of spellings, keeping it.
"""

from __future__ import annotations

from dowsing.composing.completing import completions
from dowsing.composing.field import Field
from dowsing.composing.history import History
from dowsing.model.errors import CannotKeep
from dowsing.model.value_kinds import FILE_KINDS
from dowsing.render.fields import meanings_of
from dowsing.session.session import Session
from dowsing.tui.choice_list import Choice, ChoiceList
from dowsing.tui.form_view import FormView

TYPE_CHECKING = False
if TYPE_CHECKING:
    from textual.widgets import Input

    from dowsing.tui.key_help import Group

SPELLINGS = ("", "long", "short")


class FormActions(FormView):
    """The part of the screen of `compose` that is called by keys of its own.

    `history`: what the form held before; `kind`: that of the line of a file, "" for a command line.
    """

    session: Session
    history: History
    value: Input
    kind: str = ""

    def enter_field(self) -> None:
        """Make ready for the field in focus."""
        raise NotImplementedError

    def leave_field(self) -> None:
        """Check the value of the field that is left."""
        raise NotImplementedError

    def show_field(self, key: str) -> None:
        """Go to a field, wherever it stands."""
        raise NotImplementedError

    def change(self, field: Field, values: list[str]) -> None:
        """Let a field hold these values, and draw what comes of it."""
        raise NotImplementedError

    def take_text(self, text: str) -> None:
        """Put this in the place of what is typed."""
        raise NotImplementedError

    # --- back and forward
    # ----------------------------------------------------------------------------

    def action_undo(self) -> None:
        """One step back."""
        self.in_turn(self.step_back, "undo")

    def action_redo(self) -> None:
        """One step forward again."""
        self.in_turn(self.step_back, "redo")

    def step_back(self, way: str) -> None:
        if len(self.screen_stack) > 1:
            return
        key = self.history.undo() if way == "undo" else self.history.redo()
        if key is None:
            self.say(f"there is nothing to {way}")
            return
        self.say("")
        self.show_field(key)

    def action_reset(self) -> None:
        """The field as it was when the form was opened."""
        self.in_turn(self.reset)

    def reset(self) -> None:
        field = self.list.field
        if field is None or len(self.screen_stack) > 1:
            return
        self.sheet.put(field, self.sheet.initial(field))
        self.history.note(field.key)
        self.show_field(field.key)

    # --- choosing
    # ------------------------------------------------------------------------------------

    def action_choices(self) -> None:
        """What may stand in the field, as a list that drops down."""
        self.in_turn(self.drop_down)

    def drop_down(self) -> None:
        field = self.list.field
        if field is None or not field.takes or len(self.screen_stack) > 1:
            return
        single = field.changed(repeats=False, separator="")
        if not field.values and not completions(single, ""):
            self.say("what may stand here is not known; type it")
            return

        told = list(meanings_of(self.sheet, field, self.document).items())

        def choices(typed: str) -> list[Choice]:
            if field.values:
                low = typed.casefold()
                return [one for one in told if low in one[0].casefold() or low in one[1].casefold()]
            found = completions(single, typed)
            return [(value, "") for value in ([typed] if typed else []) + found if value]

        more = field.placeholder if field.placeholder != field.label else ""
        title = f"{field.label} {more}".strip()

        def deeper(value: str) -> bool:
            return field.kind in FILE_KINDS and value.endswith("/") and value != self.typed_in_list

        self.push_screen(
            ChoiceList(title, choices, "", deeper),
            lambda value: self.chosen(field, value),
        )

    @property
    def typed_in_list(self) -> str:
        """What is typed into the list that is open."""
        from textual.widgets import Input

        return self.screen.query_one("#narrowing", Input).value

    def chosen(self, field: Field, value: str | None) -> None:
        """Take what was chosen: of several values it is one more."""
        if value is None:
            return
        if self.types(field):
            before = self.value.value.rstrip() if field.repeats else ""
            self.take_text(f"{before} {value}".strip())
        else:
            self.change(field, [value])

    # --- words and spellings
    # -------------------------------------------------------------------------

    def action_words(self) -> None:
        """What fields mean in the place of how they are spelled, and back."""
        self.in_turn(self.swap)

    def swap(self) -> None:
        if len(self.screen_stack) > 1:
            return
        self.leave_field()
        self.list.in_words = not self.list.in_words
        self.list.show(self.list.fields, self.list.row)
        self.enter_field()

    def action_spelling(self) -> None:
        """Options spelled long, short, or as they were typed."""
        if self.sheet.has_spellings:
            self.spelling = SPELLINGS[(SPELLINGS.index(self.spelling) + 1) % len(SPELLINGS)]
            self.show_heads()

    # --- keeping
    # -------------------------------------------------------------------------------------

    def action_keep(self) -> None:
        """Keep the form with its values."""
        self.in_turn(self.keep)

    def keep(self) -> None:
        if len(self.screen_stack) > 1:
            return
        self.leave_field()
        if not self.sheet.line(self.spelling).strip():
            self.say("there is nothing to keep yet")
            return
        try:
            self.keep_now()
        except CannotKeep as error:
            self.say(str(error))
            return
        self.say("kept; dowsing compose --again opens it")

    def keep_now(self) -> None:
        """Keep the form. Raises CannotKeep."""
        from dowsing.userdata.kept_forms import kept_now

        line = self.sheet.line(self.spelling)
        kept_now(self.session.settings.kept, self.sheet.title, line, self.kind)

    # --- all keys
    # ------------------------------------------------------------------------------------

    def key_groups(self) -> list[Group]:
        """All keys of the form."""
        return [
            ("The line", [
                ("Enter", "take it: what it lacks or what is wrong is said once before"),
                ("Esc", "leave without it"),
                ("^L", "options long, short, as they were typed"),
                ("^S", "keep the form with its values; compose --again opens it"),
            ]),
            ("Fields", [
                ("↑ ↓, page keys", "another field"),
                ("^T", "the next step: required, often used, all"),
                ("^F", "find fields by words"),
                ("F3", "what fields mean in the place of how they are spelled, and back"),
            ]),
            ("The value", [
                ("Space", "on or off; of an option whose value may be left out, without one"),
                ("← →, a letter", "the next value of a few, or one that begins so"),
                ("F2", "all that may stand there, with a search: values, files, users, units"),
                ("Tab", "complete what is typed"),
                ("Delete, ⌫", "empty it"),
                ("F7, F8", "undo, redo"),
                ("F9", "the field as it was at first"),
            ]),
            ("Reading", [
                ("F4", "the whole page"),
                ("shift+↑ ↓", "scroll what is told of the field"),
                ("F1", "these keys"),
            ]),
        ]  # fmt: skip
