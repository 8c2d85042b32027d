"""What is known of a command that is not here, as lines."""

from __future__ import annotations

from dowsing.model.markup import BOLD, ROMAN, clean_line, escaped
from dowsing.render.cards import brief_lines, example_lines, option_lines
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.typed import typed
from dowsing.render.wrap import unbroken, wrap

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.knowledge.absent import AbsentCommand
    from dowsing.model.entry import Entry
    from dowsing.search.absent_sheet import AbsentSheet

INDENT = 3


def absent_lines(sheet: AbsentSheet, same: list[Entry], width: int, program: str) -> list[str]:
    """The screen; `same`: the entries here of commands that do the same."""
    lines = wrap(f"{BOLD}{clean_line(sheet.name)}{ROMAN}  is not installed here", width)
    if sheet.does:
        does = sheet.does[:1].upper() + sheet.does[1:]
        lines += ["", *wrap(f"{clean_line(does)}.", width, INDENT)]
    if sheet.usual:
        lines += ["", *wrap(escaped(sheet.usual), width, INDENT, 2)]
    if sheet.options:
        lines += ["", f"{HEADING}OPTIONS (used most)", *option_lines(sheet.options, width)]
    lines += example_lines(sheet.examples, width)
    if sheet.getting:
        lines += ["", *wrap(f"To get it: {clean_line(sheet.getting)}", width, INDENT)]
    if same:
        lines += ["", f"{HEADING}HERE INSTEAD", *brief_lines(same, width)]
    line = sheet.usual or (sheet.examples[0].line if sheet.examples else "")
    steps = [f"{program} unpick {typed(line)}"] if line else []
    steps += [f"{program} examples {typed(sheet.name)}"] if sheet.examples else []
    steps = steps or [f"{program} find {typed(sheet.name)}"]
    return [*lines, "", *(f"{FAINT}{one}" for one in wrap(f"next: {unbroken(steps)}", width))]


def not_here_words(found: list[AbsentCommand]) -> str:
    """Commands that would do what was asked for, within a message."""
    return f"not installed here: {'; '.join(f'{one.name} ({one.does})' for one in found)}"


def not_here_lines(found: list[AbsentCommand], width: int) -> list[str]:
    """Commands that would do what was looked for, below what was found."""
    rows = [f"{one.name}: {one.does}" for one in found]
    told = f"not installed here: {'; '.join(rows)}"
    return [f"{FAINT}{line}" for line in wrap(clean_line(told), width)]
