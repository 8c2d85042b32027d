"""The sheet of a structured line of a file: its fields in their columns, or its settings below
their sections.
"""

from __future__ import annotations

import re

from dowsing.composing.faults import FaultCode
from dowsing.composing.field import Field
from dowsing.composing.line_kinds import LineKind, LineLayout
from dowsing.composing.sheet import FieldFault, Sheet
from dowsing.model.told import Told, told


class LineSheet(Sheet):
    """A line of a kind, filled in with what `text` has already."""

    def __init__(self, kind: LineKind, text: str = "", folder: str = "") -> None:
        super().__init__(folder)
        self.kind = kind
        self.title = kind.name
        self.summary = kind.summary
        self.page = kind.page
        self.fields = list(kind.fields)
        self.extra: list[str] = []  # settings and words that no field is for
        if kind.layout == LineLayout.SETTINGS:
            self._read_settings(text)
        else:
            self._read_columns(text)
        self._typed = text.strip("\n")
        self._initial = dict(self._held)

    def _read_columns(self, text: str) -> None:
        text = text.strip("\n")
        if not text.strip():
            return
        fields = self.fields
        last = fields[-1]
        if self.kind.layout == LineLayout.COLONS:
            found = text.split(":", len(fields) - 1)
        else:
            most = len(fields) - 1 if self.kind.rest else -1
            found = text.split(None, most)
        for field, value in zip(fields, found, strict=False):
            if value:
                self._held[field.key] = [value.rstrip() if self.kind.rest else value]
        more = found[len(fields) :]
        if more and last.repeats:
            self._held[last.key] += more
        else:
            self.extra = more

    def _read_settings(self, text: str) -> None:
        section = ""
        known = {(field.group, field.label): field for field in self.fields}
        for line in text.splitlines():
            line = line.strip()
            title = re.fullmatch(r"\[(.+)\]", line)
            if title:
                section = title[1]
                continue
            name, equals, value = (part.strip() for part in line.partition("="))
            field = known.get((section, name)) if equals else None
            if field is not None and value:
                held = self._held.get(field.key, [])
                self._held[field.key] = [*held, value] if field.repeats else [value]
            elif line:
                self.extra.append(f"{section}\t{line}")

    def line(self, spelling: str = "") -> str:
        """The line as it is written into the file; settings are several lines."""
        if self._typed and self._held == self._initial:
            return self._typed
        if self.kind.layout == LineLayout.SETTINGS:
            return self._settings()
        words: list[list[str]] = [self.values(field) for field in self.fields]
        while words and not words[-1]:
            words.pop()
        if self.kind.layout == LineLayout.COLONS:
            filled = words + [[]] * (len(self.fields) - len(words)) if words else []
            texts = [
                held[0] if held else self._filling(n, len(words)) for n, held in enumerate(filled)
            ]
            return ":".join(texts)
        texts = []
        for n, held in enumerate(words):
            texts += held or [self.fields[n].default or "-"]  # a column cannot be empty
        return " ".join([*texts, *self.extra])

    def _filling(self, place: int, used: int) -> str:
        """What stands in a column that is not filled in."""
        default = self.fields[place].default
        return default or "" if place < used else ""

    def _settings(self) -> str:
        lines: list[str] = []
        for section in dict.fromkeys(
            [*self.kind.sections, *(one.partition("\t")[0] for one in self.extra)]
        ):
            own = [
                f"{field.label}={value}"
                for field in self.fields
                if field.group == section
                for value in self.values(field)
                if value != field.default
            ]
            own += [
                one.partition("\t")[2] for one in self.extra if one.partition("\t")[0] == section
            ]
            if own:
                lines += ([""] if lines else []) + ([f"[{section}]"] if section else []) + own
        return "\n".join(lines)

    def missing(self) -> list[FieldFault]:
        """The fields that must be filled in: those that have a default are filled by that."""
        return [fault for fault in super().missing() if fault.field.default is None]

    def wrong(self, field: Field) -> Told | None:
        """As of any sheet; parting a value by what parts the fields would make two of it."""
        values = self.values(field)
        if self.kind.layout == LineLayout.COLONS and any(":" in value for value in values):
            return told(FaultCode.COLON)
        rest = self.kind.rest and field is self.fields[-1]
        if (
            self.kind.layout == LineLayout.BLANKS
            and not rest
            and any(re.search(r"\s", value) for value in values)
        ):
            return told(FaultCode.WANTED, field.wanted) if field.wanted else told(FaultCode.BLANK)
        if self.extra and field is self.fields[-1] and self.kind.layout != LineLayout.SETTINGS:
            return told(FaultCode.TOO_MANY, " ".join(self.extra))
        return super().wrong(field)
