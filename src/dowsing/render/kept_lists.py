"""What the user keeps, as lines: saved command lines and remarks."""

from __future__ import annotations

from dowsing.knowledge.recipes import SLOT, Recipe, with_values
from dowsing.model.markup import BOLD, ITALIC, ROMAN, clean_line, escaped
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.task_answers import numbered
from dowsing.render.wrap import unbroken, wrap

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.userdata.matches import KeptMatches
    from dowsing.userdata.remarks import Remark

INDENT = 3
MOST_SHOWN = 5  # kept lines below a search


def note_lines(notes: list[Remark], width: int) -> list[str]:
    """Remarks on one name."""
    lines: list[str] = []
    for one in notes:
        lines += wrap(f"{ITALIC}your note{ROMAN}: {clean_line(one.text)}", width, 0, INDENT)
    return lines


def kept_lines(own: KeptMatches, width: int, program: str) -> list[str]:
    """What of it answers a search."""
    lines = [f"{HEADING}KEPT BY YOU"]
    for note in own.notes:
        lines += wrap(
            f"{BOLD}{clean_line(note.name)}{ROMAN}  {clean_line(note.text)}", width, INDENT, 4
        )
    for one in own.lines[:MOST_SHOWN]:
        lines += wrap(
            f"{BOLD}{escaped(with_values(one.line, {}))}{ROMAN}  {clean_line(one.task)}",
            width,
            INDENT,
            4,
        )
    if len(own.lines) > MOST_SHOWN:
        lines.append(f"{FAINT}… and {len(own.lines) - MOST_SHOWN} more")
    return [*lines, *([f"{FAINT}take one: {program} saved"] if own.lines else [])]


def saved_lines(lines: list[Recipe], width: int, program: str) -> list[str]:
    """The lines with their numbers, what each is for above it."""
    shown: list[str] = []
    for number, one in enumerate(lines, 1):
        shown += [] if not shown else [""]
        shown += wrap(clean_line(one.task), width, INDENT)
        shown += numbered(number, with_values(one.line, {}), width)
        missing = list(dict.fromkeys(SLOT.findall(with_values(one.line, {}))))
        if missing:
            shown += [f"{FAINT}{line}" for line in wrap(f"say {', '.join(missing)}", width, INDENT)]
    act = "--copy" if SLOT.search(with_values(lines[0].line, {})) else "--run"
    steps = unbroken(
        [f"{program} take 1 {act}", f"{program} saved --script", f"{program} saved --drop 1"]
    )
    return [*shown, "", *(f"{FAINT}{line}" for line in wrap(f"Next: {steps}", width))]
