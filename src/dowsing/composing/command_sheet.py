"""The sheet of a command: its forms and options as fields, filled in with what a line has
already.
"""

from __future__ import annotations

import re

from dowsing.commandline.grammar.shell_words import SimpleCommand
from dowsing.commandline.judging.value_checks import wrong_value
from dowsing.commandline.line import unpick
from dowsing.commandline.model.command import Command
from dowsing.commandline.model.exclusion import excluded
from dowsing.commandline.model.tree import OperandUse, OptionUse, WordUse
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.commandline.reading.line_reader import LineReader
from dowsing.commandline.reading.usual import options_by_use, subcommand_words
from dowsing.commandline.unpicked import Unpicked
from dowsing.composing.at_cursor import command_at, words_of
from dowsing.composing.faults import FaultCode
from dowsing.composing.field import Field, FieldKind
from dowsing.composing.filling_in import fill_in, same_words
from dowsing.composing.form_fields import (
    Plan,
    best_form,
    is_option_key,
    option_field,
    option_key,
    plan_of,
    tells_only,
)
from dowsing.composing.sheet import FieldFault, Sheet
from dowsing.composing.writing import write_command
from dowsing.facts.forms import Form
from dowsing.index.convention_rows import conventions_of
from dowsing.model.errors import NotComposable
from dowsing.model.roles import Role
from dowsing.model.told import Told, told
from dowsing.model.value_kinds import ValueKind

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable

USUAL_OPTIONS = 9
MOST_FORMS = 12


class CommandSheet(Sheet):
    """The sheet of the command that stands at a place of a line. What else is in the line stays as
    it is.

    `line`: the whole line; `at`: the place of the cursor in characters, its end if None; `uses`
    gives lines that show how a command is used, by its name. Raises NotComposable if there is no
    command, or nothing tells of it.
    """

    has_spellings = True

    def __init__(
        self,
        line: str,
        finder: CommandFinder,
        at: int | None = None,
        uses: Callable[[str], list[str]] | None = None,
        folder: str = "",
    ) -> None:
        super().__init__(folder)
        self.finder = finder
        self._uses = uses
        self._initial: dict[str, list[str]] = {}  # what the line had
        self._read(line, len(line) if at is None else at)

    # --- reading the line
    # ----------------------------------------------------------------------------

    def _read(self, line: str, at: int) -> None:
        reader = LineReader(self.finder)
        reader.read(line)
        node = command_at(reader.line, at)
        if node is None:
            raise NotComposable(
                "there is no command there yet; say its name, for example: dowsing compose tar"
            )
        if isinstance(node, SimpleCommand):
            raise NotComposable(f"what {node.words[0].text} is, is only known when the line runs")
        if not any(_tells_anything(one) for one in (node.known, node.root)):
            raise NotComposable(
                f"nothing here documents {node.name.text}, so there is nothing to fill in"
            )
        self.known: Command = node.known
        self.node = node
        self.title = self.known.words if " " in self.known.words else self.known.name
        self.summary = self.known.summary or node.root.summary
        self.page = self.known.page or node.root.page
        start, last = node.name.start, max(word.end for word in words_of(node))
        self.before, self.after = line[:start], line[last:]
        self.between = _kept_between(reader, start, last)
        uses = self._head(line)
        self.subcommands: dict[str, str] = {}
        if not self.known.only and not node.operands and self.known.parent is None:
            self.subcommands = subcommand_words(self.known, self.finder)[1]
        self._plan()
        self.typed = line[start:last]
        filled = fill_in(self.fields, self.plan.places, uses)
        self.raw, self.spelled, self.extra = filled.raw, filled.spelled, filled.extra
        self.ended, self.bundled, self.joined = filled.ended, filled.bundled, filled.joined
        self.fixed = ""  # what was typed, where it cannot be told apart into fields
        self._held.update(filled.held)
        ordered: bool = self.expression and any(
            isinstance(use, WordUse) and use.role == Role.OPERATOR for use in uses
        )
        if ordered or not same_words(self.typed, self.command_line()):
            self.fixed = line[start + len(self.head) : last].strip()
            self.extra = []
            self._held = {key: held for key, held in self._held.items() if key == "form"}
        self._initial = dict(self._held)

    def _head(self, line: str) -> list[OptionUse | OperandUse | WordUse]:
        """Take up the words up to the subcommand as they stand; what comes after them."""
        uses = self.node.uses
        self.head = self.node.name.text
        places = [
            n
            for n, use in enumerate(uses)
            if isinstance(use, WordUse) and use.role == Role.SUBCOMMAND
        ]
        if not places:
            return uses
        self.head = line[self.node.name.start : uses[places[-1]].word.end]
        return uses[places[-1] + 1 :]

    def _plan(self, form: Form | None = None) -> None:
        """The fields by the form that fits best, or the one given."""
        rules = conventions_of(self.finder.store)
        self.expression: bool = self.known.name in rules.expressions
        self.carrying = rules.expressions.get(self.known.name, [])
        self.forms = [one for one in self.known.forms if not one.defines and not one.problem][
            :MOST_FORMS
        ]
        if form is None:
            words = [use.word.value for use in self.node.operands]
            form = best_form(self.known, self.forms or self.known.forms, self.node.flags, words)
        self.form = form
        self.plan: Plan = plan_of(form, self.known, self.subcommands, self.expression)
        fields: dict[str, Field] = {}
        if len(self.forms) > 1 and form is not None and not self.subcommands:
            lines = list(dict.fromkeys(one.line for one in self.forms))
            if len(lines) > 1:
                fields["form"] = Field(
                    "form",
                    FieldKind.FORM,
                    "form",
                    "",
                    ValueKind.CHOICE,
                    "",
                    self.page,
                    values=lines,
                    strict=True,
                    default=form.line,
                    required=True,
                )
        grouped = {key for keys in self.plan.one_of for key in keys}
        for field in self.plan.fields:
            fields[field.key] = field.changed(required=True) if field.key in grouped else field
        usual = 0
        demanded = {flag for field in fields.values() if field.required for flag in field.flags}
        out = excluded(self.known, demanded) if demanded else set()
        for spelling in options_by_use(
            self.known, self._uses(self.known.name) if self._uses else None
        ):
            key = option_key(spelling.option)
            field = fields.get(key) or option_field(spelling)
            free = not (
                field.required
                or field.usual
                or tells_only(spelling.option)
                or out & set(field.flags)
            )
            if usual < USUAL_OPTIONS and free:
                field = field.changed(usual=True)
                usual += 1
            fields[key] = field
        order = {
            option_key(o): n
            for n, o in enumerate(o for table in self.known.tables for o in table.options)
        }

        def place(key: str) -> tuple[int, int]:
            """What the forms ask for first, then the options in the order of the page."""
            if not is_option_key(key):
                return 0, 0
            return (1, 0) if fields[key].required else (2, order.get(key, len(order)))

        fields = {key: fields[key] for key in sorted(fields, key=place)}
        self.fields = list(fields.values())
        if form is not None and "form" in fields:
            self._held["form"] = [form.line]

    # --- changing it
    # ---------------------------------------------------------------------------------

    def put(self, field: Field, values: list[str]) -> None:
        """As of any sheet; another form brings other fields, which keep what fits."""
        super().put(field, values)
        if field.what == FieldKind.FORM:
            chosen = values[0] if values else ""
            form = next((one for one in self.forms if one.line == chosen), None)
            if form is not None:
                held = {key: kept for key, kept in self._held.items() if key != "form"}
                self._plan(form)
                keys = {one.key for one in self.fields}
                self._held.update({key: kept for key, kept in held.items() if key in keys})

    def settle(self) -> bool:
        """A subcommand that was chosen brings its own fields."""
        chosen = self._held.get("subcommand", [""])[0]
        if chosen not in self.subcommands:
            return False
        line = self.before + self.command_line()
        at = len(line)
        self._held.clear()
        self._read(line + self.after, at)
        return True

    def held_keys(self) -> list[str]:
        """The keys of what is filled in, in the order of filling. In an expression, where order
        counts, a test that was added stands before what is done with what it lets through.
        """
        keys = list(self._held)
        if not self.expression:
            return keys
        found = [key for key in keys if key in self._initial]
        for key in keys:
            if key in self._initial:
                continue
            first = (
                len(found)
                if self._acts(key)
                else next((n for n, one in enumerate(found) if self._acts(one)), len(found))
            )
            found.insert(first, key)
        return found

    def _acts(self, key: str) -> bool:
        """Whether an option of an expression does something, where others only tell."""
        return is_option_key(key) and "action" in self.field(key).group.casefold()

    def without(self, field: Field) -> list[str]:
        """The spellings of an option that take no value though another one does."""
        spelling = self.known.spelling(field.flags[0])
        return spelling.option.bare if spelling else []

    # --- what is asked and wrong
    # ---------------------------------------------------------------------

    def ruled_out(self) -> dict[str, str]:
        """The fields that the forms rule out beside the options that are there."""
        on = [
            field for field in self.fields if field.what == FieldKind.OPTION and self.is_on(field)
        ]
        found: dict[str, str] = {}
        for field in on:
            out = excluded(self.known, set(field.flags))
            for other in self.fields:
                if (
                    other.what == FieldKind.OPTION
                    and set(other.flags) & out
                    and not self.is_on(other)
                ):
                    found.setdefault(other.key, field.flags[0])
        return found

    def wrong(self, field: Field) -> Told | None:
        """As of any sheet; values of options are judged as those of a line that is taken apart."""
        found = super().wrong(field)
        spelling = self.known.spelling(field.flags[0]) if field.flags else None
        if found is not None or spelling is None or not field.takes:
            return found
        for value in self.values(field):
            reason, _ = wrong_value(spelling, value, dynamic=not value)
            if reason is not None:
                return reason
        return None

    def read_line(self, spelling: str = "") -> Unpicked | None:
        """The line as it stands, taken apart."""
        return unpick(self.line(spelling), self.finder)

    def initial(self, field: Field) -> list[str]:
        """What a field held when the form was opened."""
        return list(self._initial.get(field.key, []))

    def examples(self, field: Field) -> list[str]:
        """Lines that use the option, the shortest first."""
        if not field.flags or self._uses is None:
            return []
        flags = set(field.flags)
        found = [
            line
            for line in self._uses(self.known.name)
            if flags & {word.partition("=")[0] for word in line.split()}
        ]
        return sorted(found, key=len)

    def means(self, field: Field, value: str) -> str:
        """Of a subcommand what is said of it; of a form what is said of the options that make it
        that form.
        """
        if field.what == FieldKind.SUBCOMMAND:
            return self.subcommands.get(value, "")
        if field.what != FieldKind.FORM:
            return ""
        demanded = re.sub(r"\[[^][]*\]", " ", value).split()
        told = [
            one.says
            for one in self.fields
            if one.what == FieldKind.OPTION and set(one.flags) & set(demanded)
        ]
        return told[0] if told else ""

    def missing(self) -> list[FieldFault]:
        """The fields that lack a value; of options of which one is demanded the first."""
        if self.fixed:
            return []  # it may well stand in what was typed
        grouped = {key: keys for keys in self.plan.one_of for key in keys}
        found = []
        for field in self.fields:
            if not field.required or self.is_on(field):
                continue
            keys = grouped.get(field.key)
            if keys is None:
                found.append(FieldFault(field, "", told(FaultCode.NEEDED, field.label)))
            elif keys[0] == field.key and not any(self.is_on(self.field(key)) for key in keys):
                flags = [self.field(key).flags[-1] for key in keys]
                found.append(FieldFault(field, "", told(FaultCode.NEEDED, *flags)))
        return found

    # --- the line
    # ------------------------------------------------------------------------------------

    def line(self, spelling: str = "") -> str:
        """The whole line with what is filled in; values that are the default anyway are left out.

        A line that nothing was changed in stays as it was typed.
        """
        if self._held == self._initial and not spelling:
            return self.before + self.typed + self.after
        return self.before + self.command_line(spelling) + self.after

    @property
    def cursor(self) -> int:
        """The place after the command, in characters of the line."""
        return len(self.line()) - len(self.after)

    def command_line(self, spelling: str = "") -> str:
        """The command alone as it stands."""
        return write_command(self, spelling)


def _kept_between(reader: LineReader, start: int, end: int) -> list[str]:
    """The redirections among the words of a command: they are written after it."""
    return [
        mark.text
        for pipeline in reader.pipelines
        for mark in pipeline.redirections
        if start < mark.start and mark.end <= end
    ]


def _tells_anything(known: Command) -> bool:
    """Whether a text, or our facts, tell of options or forms of a command."""
    return known.documented or bool(known.spellings) or bool(known.forms)
