"""Groups of entries, and words with counts, as lines."""

from __future__ import annotations

from dowsing.model.markup import BOLD, ROMAN, clean_line
from dowsing.model.record import Record
from dowsing.render.cell_width import display_width
from dowsing.render.layout import title_lines
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.typed import typed
from dowsing.render.wrap import unbroken, wrap

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.entry import Entry
    from dowsing.search.related import RelatedGroup

INDENT = 3
WIDEST_LABEL = 30


def group_lines(
    entry: Entry, written: str, groups: list[RelatedGroup], width: int, program: str
) -> list[str]:
    """Each group under its reason: number, label and summary in columns. `written`: the name as it
    means the entry.
    """
    lines = title_lines(clean_line(entry.label), clean_line(entry.summary), [], width)
    labels = [clean_line(other.label) for group in groups for other in group.entries]
    column = min(max((display_width(label) for label in labels), default=0), WIDEST_LABEL)
    indent = max(INDENT, len(str(len(labels))) + 2)
    number = 0
    for group in groups:
        count = (
            f" ({len(group.entries)} of {group.total})" if group.total > len(group.entries) else ""
        )
        lines += ["", f"{HEADING}{clean_line(group.why).upper()}{count}"]
        for other in group.entries:
            number += 1
            label = clean_line(other.label)
            size = display_width(label)
            body = wrap(clean_line(other.summary) or "(no summary)", width, indent + column + 2)
            head = f"{number:>{indent - 2}}  {BOLD}{label}{ROMAN}"
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


def count_lines(
    what: str, counts: list[Counted], limit: int, width: int, example: str
) -> list[str]:
    """Words with numbers and counts, the most frequent first: a line each with the words that mean
    the same, or in columns.
    """
    shown = [Counted(clean_line(one.word), one.count, one.equal) for one in counts[:limit]]
    number = len(str(shown[0].count))
    place = max(len(str(len(shown))), INDENT - 2)
    margin = place + 2
    widest = max(display_width(one.word) for one in shown)
    told = f"{len(counts)} in all" + (f", {limit} shown" if len(counts) > limit else "")
    lines = [*title_lines(what, told, [], width), ""]
    if any(one.equal for one in shown):
        indent = margin + widest + 2 + number + 2
        for n, one in enumerate(shown, 1):
            body = wrap(", ".join(one.equal), width, indent)
            lines += [
                f"{_counted(n, place, one, widest, number)}  {body[0].lstrip(' ')}".rstrip(),
                *body[1:],
            ]
    else:
        columns = max(1, (width + 3) // (margin + widest + 2 + number + 3))
        rows = -(-len(shown) // columns)
        cells = [_counted(n, place, one, widest, number) for n, one in enumerate(shown, 1)]
        lines += ["   ".join(cells[row::rows]) for row in range(rows)]
    more = [f"--limit {len(counts)} shows all"] if len(counts) > limit else []
    return [
        *lines,
        "",
        *(f"{FAINT}{line}" for line in wrap(unbroken([*more, f"next: {example}"]), width)),
    ]


def _counted(place: int, places: int, one: Counted, widest: int, counts: int) -> str:
    """A word with its number in the list before it and its count after it."""
    gap = " " * (widest + 2 - display_width(one.word))
    return f"{place:>{places}}  {BOLD}{one.word}{ROMAN}{gap}{one.count:>{counts}}"
