"""The fields of a command as a line."""

from __future__ import annotations

import re

from dowsing.composing.field import SWITCH, Field, FieldKind
from dowsing.composing.form_fields import OPTIONS, is_option_key
from dowsing.model.quoting import value_word
from dowsing.model.value_kinds import FILE_KINDS, ValueKind

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Protocol

    from dowsing.composing.form_fields import Plan

    class Written(Protocol):
        """What the sheet of a command has for its line.

        `head`: the words up to the subcommand; `fixed`: what was typed, where it cannot be told
        apart into fields; `extra`: words that no field has; `between`: what stands between its
        words and is no field, such as redirections; `raw`, `spelled` and `joined`: how values and
        options were typed, by field; `ended`: `--` was typed; `bundled`: letters in one word were;
        `carrying`: the options that a command follows; `expression`: the order of the options
        matters.
        """

        plan: Plan
        head: str
        fixed: str
        extra: list[str]
        between: list[str]
        raw: dict[tuple[str, str], str]
        spelled: dict[str, str]
        joined: set[str]
        ended: bool
        bundled: bool
        expression: bool
        carrying: list[str]

        def held_keys(self) -> list[str]: ...

        def field(self, key: str) -> Field: ...

        def values(self, field: Field) -> list[str]: ...

        def without(self, field: Field) -> list[str]: ...


class _Word:
    """A word of the line. `letters`: others may follow in the same word; `joins`: it may follow
    others.
    """

    def __init__(self, text: str, letters: bool = False, joins: bool = False) -> None:
        self.text, self.letters, self.joins = text, letters, joins


def write_command(sheet: Written, spelling: str) -> str:
    """The command of a sheet with all that is filled in. `spelling`: long, short, or "" for as it
    was typed.
    """
    writer = _Writer(sheet, spelling)
    words = [_Word(sheet.head), *writer.words()]
    if spelling == "short" or (sheet.bundled and not spelling):
        words = _joined(words)
    return " ".join([*(word.text for word in words), *sheet.between])


class _Writer:
    def __init__(self, sheet: Written, spelling: str) -> None:
        self.sheet = sheet
        self.spelling = spelling

    def words(self) -> list[_Word]:
        sheet = self.sheet
        before: list[_Word] = [_Word(sheet.fixed)] if sheet.fixed else []
        operands: list[_Word] = []
        shown = {place.key for place in sheet.plan.places} if sheet.expression else set()
        held = sheet.held_keys()
        waiting = [sheet.field(key) for key in held if is_option_key(key)]
        options: list[_Word] = [
            word for f in waiting if f.key not in shown for word in self.option(f)
        ]
        options += [_Word(text) for text in sheet.extra if text.startswith("-")]
        dashed = sheet.ended
        for place in sheet.plan.places:
            if place.key == OPTIONS:
                (operands if operands and sheet.expression else before).extend(options)
                options = []
            elif place.word and not sheet.fixed:
                operands.append(_Word(place.word))
            elif is_option_key(place.key):
                if place.key in shown:
                    before += self.option(sheet.field(place.key))
            elif place.key in held:
                field = sheet.field(place.key)
                values = [value for value in sheet.values(field) if value]
                if field.what == FieldKind.WORD:
                    operands.append(_Word(field.label))
                    continue
                dashed = dashed or any(re.match(r"-.", value) for value in values)
                operands += [_Word(self.value(field, value)) for value in values]
        extra = [_Word(text) for text in sheet.extra if not text.startswith("-")]
        ended = (
            [_Word("--")] if dashed and (operands or sheet.ended) and not sheet.expression else []
        )
        return [*before, *options, *ended, *operands, *extra]

    def value(self, field: Field, value: str) -> str:
        return self.sheet.raw.get((field.key, value)) or value_word(
            value, with_patterns=field.kind in FILE_KINDS
        )

    def option(self, field: Field) -> list[_Word]:
        """An option as words; none where its value is the default."""
        flag = self.flag(field)
        letter = re.fullmatch(r"-[A-Za-z0-9]", flag) is not None
        found: list[_Word] = []
        for value in self.sheet.values(field):
            if value and value == field.default and not field.required:
                continue
            if value and self.is_number(field, value):
                found.append(_Word(f"-{value}"))
                continue
            if value == SWITCH and field.takes and not field.bare and field.placeholder:
                found += [_Word(flag, False, letter), _Word(f"<{field.placeholder}>")]
                continue
            if value == SWITCH or not field.takes:
                found.append(_Word(flag, letter and not field.bare, letter))
                continue
            word = (
                value
                if field.kind == ValueKind.COMMAND and self.carries(flag)
                else self.value(field, value)
            )
            if flag[:1] not in "-+":  # written as name=value
                found.append(_Word(f"{flag.rstrip('=')}={word}"))
            elif flag.endswith("=") or (field.bare and not flag.startswith("--")):
                found.append(_Word(flag + word))
            elif field.bare or (flag.startswith("--") and field.key in self.sheet.joined):
                found.append(_Word(f"{flag}={word}"))
            else:
                found += [_Word(flag, False, letter), _Word(word)]
                if self.carries(flag) and not re.search(r"(?:\\;|';'|\+)\s*\Z", value):
                    found.append(_Word("\\;"))
        return found

    def carries(self, flag: str) -> bool:
        """Whether a command stands after the option, up to a semicolon."""
        return flag in self.sheet.carrying

    def is_number(self, field: Field, value: str) -> bool:
        """Whether the value is itself the option, as in `-9`: that is how it was typed, or there is
        no other way.
        """
        typed = self.sheet.spelled.get(field.key, "")
        alone = all(
            "<" in flag or (flag.strip("-").isupper() and len(flag) > 3) for flag in field.flags
        )
        as_typed = typed == f"-{value}" and typed not in field.flags
        return not self.spelling and (as_typed or (alone and value.isalnum()))

    def flag(self, field: Field) -> str:
        """The spelling to write."""
        flags = [flag for flag in field.flags if "<" not in flag] or field.flags
        if field.takes and self.sheet.values(field) != [SWITCH]:
            flags = [flag for flag in flags if flag not in self.sheet.without(field)] or flags
        long = next((flag for flag in flags if flag.startswith("--")), "")
        short = next((flag for flag in flags if re.fullmatch(r"-[A-Za-z0-9]", flag)), "")
        if self.spelling == "long":
            return long or short or flags[0]
        if self.spelling == "short":
            return short or long or flags[0]
        typed = self.sheet.spelled.get(field.key, "")
        return typed if typed in field.flags else flags[0]


def _joined(words: list[_Word]) -> list[_Word]:
    """The words with letters that follow each other in one word."""
    found: list[_Word] = []
    for word in words:
        last = found[-1] if found else None
        if last is not None and last.letters and word.joins:
            last.text += word.text[1:]
            last.letters = word.letters
        else:
            found.append(word)
    return found
