"""Filling in a sheet in plain lines: questions on stderr, answers from the standard input, field by
field.
"""

from __future__ import annotations

from dowsing.cli.plain_lines import Ended, ask, tell
from dowsing.composing.field import SWITCH, Field, FieldKind, Step, wrong
from dowsing.composing.sheet import Sheet
from dowsing.model.document import Document
from dowsing.model.markup import clean_line, plain
from dowsing.render.expectations import brief
from dowsing.render.fields import facts_of, field_says, help_lines, shown_value
from dowsing.render.phrases import words
from dowsing.session.session import Session
from dowsing.session.sheets import documents_of

MOST_FOUND = 12  # fields that are listed
MOST_VALUES = 20  # allowed values that are told


def ask_fields(session: Session, sheet: Sheet, spelling: str) -> str | None:
    """Ask for the fields one after another; the line, or None if it was left with Ctrl-C."""
    dialogue = _Dialogue(session, sheet)
    try:
        dialogue.run()
    except Ended:
        pass
    except KeyboardInterrupt:
        tell("")
        return None
    for fault in [*sheet.missing(), *sheet.faults()]:
        tell(f"   {clean_line(fault.field.label)}: {clean_line(words(fault.reason))}")
    return sheet.line(spelling)


class _Dialogue:
    def __init__(self, session: Session, sheet: Sheet) -> None:
        self.session = session
        self.sheet = sheet
        self.document: Document | None = None
        self.asked: set[str] = set()

    def run(self) -> None:
        sheet = self.sheet
        counts = sheet.counts()
        tell(f"{clean_line(sheet.title)}  {clean_line(sheet.summary)}  {clean_line(sheet.page)}")
        tell(
            f"required: {counts[Step.REQUIRED]} · often used: {counts[Step.USUAL]} · all: "
            f"{counts[Step.ALL]}"
        )
        tell("An empty answer leaves a field as it is, - empties it, ? tells more of it.")
        while True:  # another form or subcommand brings other fields
            field = next(
                (one for one in sheet.of_step(Step.REQUIRED) if one.key not in self.asked), None
            )
            if field is None:
                break
            self.asked.add(field.key)
            if field.key not in sheet.ruled_out():
                self.field(field)
                sheet.settle()
        for field in sheet.of_step(Step.USUAL):
            if field.what != FieldKind.OPTION:
                self.field(field)
        self.options()

    def options(self) -> None:
        """Options by their spelling, or looked for by words."""
        while any(field.what == FieldKind.OPTION for field in self.sheet.fields):
            tell(f"\n   {self.sheet.line()}")
            answer = ask("option, words to look for, empty to end: ")
            if not answer:
                return
            if answer == "?":
                self.list(self.sheet.of_step(Step.USUAL))
                continue
            exact = [
                f
                for f in self.sheet.fields
                if answer in f.flags or f"-{answer}" in f.flags or f"--{answer}" in f.flags
            ]
            found = exact or [
                field for field in self.sheet.search(answer) if field.what == FieldKind.OPTION
            ]
            if len(found) == 1:
                self.field(found[0])
            elif found:
                self.list(found)
            else:
                tell("nothing like that; ? lists what is often used")

    def list(self, fields: list[Field]) -> None:
        for field in fields[:MOST_FOUND]:
            holder = f" {field.placeholder}" if field.placeholder else ""
            tell(f"   {clean_line(field.label + holder)}: {clean_line(brief(field_says(field)))}")
        if len(fields) > MOST_FOUND:
            tell(f"   … and {len(fields) - MOST_FOUND} more")

    def field(self, field: Field) -> None:
        """Ask for one field until its value can be right, or is left."""
        out = self.sheet.ruled_out().get(field.key)
        if out:
            tell(f"{clean_line(field.label)} does not go together with {out}")
        elif field.what == FieldKind.FORM:
            self.form(field)
        else:
            self.describe(field)
            if field.takes:
                self.values(field)
            else:
                self.switch(field)

    def describe(self, field: Field) -> None:
        """What a field is, before it is asked for."""
        named = field.placeholder and field.placeholder != field.label
        holder = f" {clean_line(field.placeholder)}" if named else ""
        required = "required" if field.required else ""
        facts = ", ".join(filter(None, (required, facts_of(self.sheet, field))))
        tell(f"\n{clean_line(field.label)}{holder}" + (f" ({facts})" if facts else ""))
        if field_says(field):
            tell(f"   {clean_line(brief(field_says(field)))}")
        if field.values:
            rest = ", …" if len(field.values) > MOST_VALUES else ""
            tell(f"   values: {clean_line(', '.join(field.values[:MOST_VALUES]))}{rest}")

    def values(self, field: Field) -> None:
        """Ask for the value of a field; for values one after another where there may be several."""
        values = self.sheet.values(field)
        while True:
            held = shown_value(self.sheet, field)
            name = clean_line(field.placeholder or field.label)
            answer = ask(f"{name}{f' [{held}]' if held else ''}: ")
            if answer == "?":
                self.help(field)
                continue
            if answer == "-":
                self.sheet.put(field, [])
                return
            if not answer:
                return
            reason = wrong(field, answer, self.sheet.folder)
            if reason:
                tell(f"   {clean_line(words(reason))}; say it again, or leave it empty")
                continue
            values = [*values, answer] if field.repeats else [answer]
            self.sheet.put(field, values)
            if not field.repeats:
                return

    def switch(self, field: Field) -> None:
        while True:
            on = self.sheet.is_on(field)
            answer = ask(f"{clean_line(field.label)}? [{'yes' if on else 'no'}]: ").lower()
            if answer == "?":
                self.help(field)
                continue
            if answer in ("y", "yes"):
                self.sheet.put(field, [SWITCH])
            elif answer in ("n", "no", "-"):
                self.sheet.put(field, [])
            elif answer:
                tell("   yes or no")
                continue
            return

    def form(self, field: Field) -> None:
        forms = field.values or []
        tell("\nthe form (required)")
        for n, line in enumerate(forms, 1):
            tell(f"   {n}  {clean_line(line)}")
        held = (self.sheet.values(field) or [field.default or forms[0]])[0]
        while True:
            answer = ask(f"form [{forms.index(held) + 1}]: ")
            if not answer:
                return
            if answer.isdecimal() and 1 <= int(answer) <= len(forms):
                self.sheet.put(field, [forms[int(answer) - 1]])
                return
            tell(f"   a number from 1 to {len(forms)}")

    def help(self, field: Field) -> None:
        if self.document is None:
            self.document = documents_of(self.session, self.sheet)
        for line in help_lines(
            self.sheet, field, self.document, min(self.session.screen.width, 100)
        ):
            tell("   " + plain(line))
