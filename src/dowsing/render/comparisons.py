"""The sources of a name, and their differences, as lines."""

from __future__ import annotations

from dowsing.model.markup import BOLD, ITALIC, ROMAN, clean_line
from dowsing.render.cell_width import display_width
from dowsing.render.layout import title_lines
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.typed import typed
from dowsing.render.wrap import unbroken, wrap

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.comparing.source_table import SourceRow
    from dowsing.comparing.wordings import Wording

INDENT = 3
GAP = 2
_MARKS = {True: "yes", False: "no", None: "?"}


def source_lines(name: str, runs: str, rows: list[SourceRow], width: int) -> list[str]:
    """The table: source, present, words, lines, and where it is or why it is not."""
    there = list(dict.fromkeys(row.source for row in rows if row.present))
    summary = f"{len(there)} of {len({row.source for row in rows})} sources have a text; {runs}"
    lines = title_lines(clean_line(name), clean_line(summary), [], width)
    lines.append("")
    column = max(len(row.source) for row in rows)
    head = f"   {'source':<{column}}  {'there':<5} {'words':>6} {'lines':>6}  "
    lines.append(f"{HEADING}{head}where, or why not")
    indent = len(head)
    numbered: set[str] = set()
    for row in rows:
        mark = _MARKS[row.present]
        counts = f"{row.words:>6} {row.lines:>6}" if row.present else " " * 13
        style = BOLD if row.present else ""
        first = row.present and row.source not in numbered
        numbered.add(row.source if first else "")
        number = f"{there.index(row.source) + 1}  " if first else "   "
        start = (
            f"{number}{style}{row.source:<{column}}{ROMAN if style else ''}  {mark:<5} {counts}  "
        )
        lines += _row(start, indent, _where(row), width)
    return lines


def next_lines(
    name: str, rows: list[SourceRow], width: int, program: str, order: tuple[str, ...]
) -> list[str]:
    """How to go on from the table. `order`: the sources as they answer for what would run."""
    there = list(dict.fromkeys(row.source for row in rows if row.present))
    shown = typed(name)
    second = [source for source in order if source in there][1:2]
    steps = [f"{program} read {shown} --from {source}" for source in second]
    if len(there) > 1:
        steps += [f"{program} sources {shown} --differences", f"{program} read {shown} --from all"]
    if not steps:
        steps = [f"{program} resolve {shown}"]
    return ["", *(f"{FAINT}{line}" for line in wrap("Next: " + unbroken(steps), width))]


def _where(row: SourceRow) -> list[str]:
    said = []
    if row.present:
        said.append(clean_line(row.where))
        if row.same_as:
            said.append(f"the same text as {row.same_as}")
    if row.note:
        said.append(clean_line(row.note))
    return said or ["not there"]


def _row(start: str, indent: int, said: list[str], width: int) -> list[str]:
    if width - indent < 24:  # too narrow for a column beside: the text goes below
        return [start.rstrip(), *(line for one in said for line in wrap(one, width, INDENT + 2, 2))]
    body = [line for one in said for line in wrap(one, width, indent, 2)]
    return [start + body[0][indent:], *body[1:]]


def wording_lines(found: list[Wording], one: str, other: str, width: int) -> list[str]:
    """What two texts say, in two columns."""
    if not found:
        return ["", f"   {one} and {other} say the same of every option."]
    column = max((width - INDENT - GAP) // 2, 20)
    lines = ["", f"{HEADING}{' ' * INDENT}{one:<{column + GAP}}{other}"]
    for wording in found:
        lines += ["", f"{BOLD}{clean_line(wording.item)}{ROMAN}"]
        left = _column(wording.one, column)
        right = _column(wording.other, column)
        for n in range(max(len(left), len(right))):
            first = left[n] if n < len(left) else ""
            second = right[n] if n < len(right) else ""
            space = " " * max(column - display_width(first) + GAP, 1)
            lines.append((" " * INDENT + first + space + second).rstrip())
    return lines


def _column(text: str, width: int) -> list[str]:
    if not text:
        return [f"{ITALIC}not there{ROMAN}"]
    return [line for part in text.split("\n") for line in wrap(clean_line(part), width)]
