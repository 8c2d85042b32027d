"""Groups of entries, and words with counts, as lines."""

from __future__ import annotations

from dowsing.cli.output.layout import title_lines
from dowsing.cli.output.line_marks import FAINT, HEADING
from dowsing.cli.output.typed import typed
from dowsing.cli.output.width import display_width
from dowsing.cli.output.wrap import unbroken, wrap
from dowsing.core.finding.related import Group
from dowsing.core.index.store import Entry
from dowsing.core.markup import BOLD, ROMAN, clean_line
from dowsing.core.record import Record

INDENT = 3
WIDEST_LABEL = 30


def group_lines(entry: Entry, written: str, groups: list[Group], width: int, program: str) -> list[str]:
    """Each group under its reason: label and summary in two columns. `written`: the name as it means the entry."""
    lines = title_lines(clean_line(entry.label), clean_line(entry.summary), [], width)
    labels = [clean_line(other.label) for group in groups for other in group.entries]
    column = min(max((display_width(label) for label in labels), default=0), WIDEST_LABEL)
    for group in groups:
        count = f" ({len(group.entries)} of {group.total})" if group.total > len(group.entries) else ""
        lines += ["", f"{HEADING}{clean_line(group.why).upper()}{count}"]
        for other in group.entries:
            label = clean_line(other.label)
            size = display_width(label)
            body = wrap(clean_line(other.summary) or "(no summary)", width, INDENT + column + 2)
            head = f"{' ' * INDENT}{BOLD}{label}{ROMAN}"
            if size <= column:
                lines += [head + " " * (column + 2 - size) + body[0].lstrip(" "), *body[1:]]
            else:
                lines += [head, *body]
    first = groups[0].entries[0]
    steps = [f"{program} {typed(first.label if first.name == entry.name else first.name)}"]
    larger = next((group for group in groups if group.total > len(group.entries)), None)
    if larger is not None:
        steps.append(f"{program} near {typed(written)} --limit {larger.total}")
    return [*lines, "", *(f"{FAINT}{line}" for line in wrap("Next: " + unbroken(steps), width))]


class Counted(Record):
    """A word to search by, the number of its entries, and the words that mean the same."""

    word: str
    count: int
    equal: list[str] = []  # noqa: RUF012 - a record is immutable


def count_lines(what: str, counts: list[Counted], limit: int, width: int, example: str) -> list[str]:
    """Words with counts, the most frequent first: a line each with the words that mean the same, or in columns."""
    shown = [Counted(clean_line(one.word), one.count, one.equal) for one in counts[:limit]]
    number = len(str(shown[0].count))
    widest = max(display_width(one.word) for one in shown)
    told = f"{len(counts)} in all" + (f", {limit} shown" if len(counts) > limit else "")
    lines = [*title_lines(what, told, [], width), ""]
    if any(one.equal for one in shown):
        indent = INDENT + number + 2 + widest + 2
        for one in shown:
            head = f"{' ' * INDENT}{one.count:>{number}}  {BOLD}{one.word}{ROMAN}"
            body = wrap(", ".join(one.equal), width, indent)
            gap = " " * (widest + 2 - display_width(one.word))
            lines += [(head + gap + body[0].lstrip(" ")).rstrip(), *body[1:]]
    else:
        column = number + 2 + widest + 3
        columns = max(1, (width - INDENT) // column)
        rows = -(-len(shown) // columns)
        for row in range(rows):
            line = " " * INDENT
            for one in shown[row::rows]:
                cell = f"{one.count:>{number}}  {BOLD}{one.word}{ROMAN}"
                line += cell + " " * max(column - number - 2 - display_width(one.word), 1)
            lines.append(line.rstrip())
    more = [f"--limit {len(counts)} shows all"] if len(counts) > limit else []
    return [*lines, "", *(f"{FAINT}{line}" for line in wrap(unbroken([*more, f"next: {example}"]), width))]
