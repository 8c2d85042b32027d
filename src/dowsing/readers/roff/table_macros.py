"""CommandFinder (`.TS` … `.TE`) in the language of the table preprocessor."""

from __future__ import annotations

import re

from dowsing.model.document import Cell, Table, block_texts
from dowsing.model.markup import BOLD, BOLD_ITALIC, CODE, ITALIC, ROMAN, plain
from dowsing.readers.roff.marks import BACKSLASH, JOIN
from dowsing.readers.roff.prepare import FONTS

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.readers.roff.machine import Machine

_SPEC = re.compile(
    r"([lLrRcCnNaAsS^_=|-])((?:[ \t]*(?:\(.*?\)|[fF](?:\(..|\[[^\]]*\]|[A-Za-z0-9]{1,2}(?![a-zA-Z])"
    r"|[A-Za-z0-9])"
    r"|[pPvV][-+]?\d+|[wW](?:\([^)]*\)|\d+[a-z]?)|[mM](?:\([^)]*\)|.)|[bBiIeEtTuUzZxXdD]|\d+))*)"
)
_FONT = re.compile(r"[fF](?:\((..)|\[([^\]]*)\]|([A-Za-z0-9]{1,2}))")
_MOST_COLUMNS = 100


class _Column:
    __slots__ = ("align", "font")

    def __init__(self, align: str, font: str) -> None:
        self.align = align
        self.font = font


def read_table(machine: Machine, lines: list[str]) -> None:
    """Read the lines between `.TS` and `.TE` and put the table where text goes."""
    options = ""
    at = 0
    if lines and lines[0].rstrip().endswith(";"):
        options, at = lines[0].lower(), 1
    separator = "\t"
    match = re.search(r"tab\s*\((.)\)", lines[0] if at else "", re.IGNORECASE)
    if match:
        separator = match[1]
    formats, at = _formats(lines, at)
    reader = _Rows(machine, separator, formats)
    while at < len(lines):
        at = reader.line(lines, at)
    boxed = any(word in options for word in ("box", "frame"))
    rows = [
        row for row in reader.rows if row is None or any(cell.text or cell.span for cell in row)
    ]
    if any(row for row in rows):
        machine.builder.table(Table(rows, boxed))


def _formats(lines: list[str], at: int) -> tuple[list[list[_Column]], int]:
    """The format lines from `at` on (up to the full stop) and where the data begin."""
    if not any(line.rstrip().endswith(".") for line in lines[at:]):
        return [[_Column("l", "")]], at  # a table that forgot its format: the data are all there is
    text = ""
    while at < len(lines):
        line = lines[at].strip()
        at += 1
        if line.startswith((".\\", ".")) and not text and line != ".":
            continue
        text += line + "\n"
        if line.endswith("."):
            break
    formats = []
    for row in re.split(r"[,\n]", text.rstrip().rstrip(".")):
        columns: list[_Column] = []
        for match in _SPEC.finditer(row):
            key = match[1].lower()
            if key == "|" or (key in "_=-" and not columns and len(row.strip()) > 1):
                continue
            columns.append(_Column(key, _font(match[2])))
        if columns:
            formats.append(columns[:_MOST_COLUMNS])
    return formats or [[_Column("l", "")]], at


def _font(modifiers: str) -> str:
    match = _FONT.search(modifiers)
    if match:
        name = (match[1] or match[2] or match[3] or "").strip()
        mark = FONTS.get(name.upper(), FONTS.get(name[:1].upper(), ""))
        return mark if mark in (BOLD, ITALIC, BOLD_ITALIC, CODE) else ""
    bare = re.sub(r"\(.*?\)|[wWpPvVmM]\S*", "", modifiers).lower()
    return BOLD if "b" in bare else ITALIC if "i" in bare else ""


class _Rows:
    """Reads the data lines of one table."""

    def __init__(self, machine: Machine, separator: str, formats: list[list[_Column]]) -> None:
        self.machine = machine
        self.separator = separator
        self.formats = formats
        self.row = 0
        self.rows: list[list[Cell] | None] = []

    def line(self, lines: list[str], at: int) -> int:
        """Take the data line at `at` (with the text blocks it opens); return where the next
        begins.
        """
        line = lines[at]
        at += 1
        if (line[:1] in (".", "'") and line[1:2].isalpha()) or line in (".", "'"):
            return self._request(line, lines, at)
        stripped = line.strip()
        if stripped in ("_", "="):
            self.rows.append(None)
            return at
        if not line and self.separator.strip():
            return at
        parts: list[str] = []
        while True:
            found = line.split(self.separator)
            if not found[-1].rstrip().endswith("T{"):
                parts += found
                break
            parts += found[:-1]
            block = []
            while at < len(lines) and not lines[at].startswith("T}"):
                block.append(lines[at])
                at += 1
            parts.append(self._block(block))
            line = lines[at][2:] if at < len(lines) else ""
            at += 1
            if not line.startswith(self.separator):
                break
            line = line[len(self.separator) :]
        self._add(parts)
        return at

    def _request(self, line: str, lines: list[str], at: int) -> int:
        name = line[1:].strip().split(" ")[0]
        if name == "T&":
            self.formats, at = _formats(lines, at)
            self.row = 0
        elif name in ("TH", "br", "sp", "PP", "ne"):
            pass
        elif name in ("ft", "ie", "el", "if", "ds", "nr", "de", "so", "in", "ad", "nh", "na", "hy"):
            self.machine.call(name, line[1:].strip()[len(name) :].strip())
        else:  # a font macro whose text is a row
            text = self._block([line])
            if text:
                self._add(text.split(self.separator))
        return at

    def _block(self, lines: list[str]) -> str:
        """The text of a text block: run as a little page of its own."""
        from dowsing.readers.roff.builder import Builder

        machine = self.machine
        outer = machine.builder
        machine.builder = inner = Builder()
        inner.translation = outer.translation
        machine.depth += 1
        try:
            if machine.depth < 40:
                machine.run(lines)
            inner.flush()
            if inner.waiting and inner.tag_parts:
                inner.text("")
        finally:
            machine.depth -= 1
            machine.builder = outer
        texts: list[str] = []
        for section in inner.sections:
            block_texts(section.blocks, texts)
        # a backslash in it is a backslash: the cell is not to be read for escapes again
        return "\n".join(texts).replace("\\", BACKSLASH)

    def _add(self, parts: list[str]) -> None:
        # a row of the format that is only rules takes no data
        while self.row < len(self.formats) - 1 and all(
            c.align in "_=-" for c in self.formats[self.row]
        ):
            self.rows.append(None)
            self.row += 1
        columns = self.formats[min(self.row, len(self.formats) - 1)]
        self.row += 1
        row: list[Cell] = []
        for n, column in enumerate(columns):
            if column.align == "s" and row:
                row[-1].span += 1
                if n < len(parts) and parts[n].strip():
                    row[-1].text += " " + self._text(parts[n], column)
                continue
            text = self._text(parts[n], column) if n < len(parts) else ""
            align = column.align if column.align in "rcn" else "l"
            row.append(Cell("" if column.align == "^" else text, align))
        for part in parts[len(columns) :]:  # more data than columns: keep the words
            text = self._text(part, columns[-1])
            if text:
                row.append(Cell(text))
        self.rows.append(row)

    def _text(self, part: str, column: _Column) -> str:
        part = part.strip()
        if part in ("\\^", "_", "=", "\\_", "\\="):
            return ""
        if part.startswith("\\R"):
            return part[2:]
        builder = self.machine.builder
        text = self.machine.expand_text(part).removesuffix(
            JOIN
        )  # a cell does not go on in the next one
        if "\n" not in text:
            font, last = builder.font, builder.last_font
            builder.font = ROMAN
            text = builder.settle(text)
            builder.font, builder.last_font = font, last
        if column.font and plain(text).strip():
            text = f"{column.font}{text}{ROMAN}"
        return text
