"""The list of what a search found."""

from __future__ import annotations

from dowsing.cli.output.line_marks import FAINT
from dowsing.cli.output.width import display_width
from dowsing.cli.output.wrap import unbroken, wrap
from dowsing.core.markup import BOLD, ITALIC, ROMAN, clean_line

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.core.finding.search import Answer

WIDEST_LABEL = 30


def hit_lines(found: Answer, width: int, program: str) -> list[str]:
    """Numbered hits with their summaries, what was loosened, and how to go on."""
    lines: list[str] = []
    if found.relaxed:
        lines += [f"{FAINT}{line}" for line in wrap(clean_line(found.relaxed), width)]
    number_width = len(str(len(found.hits)))
    label_width = min(max((len(hit.entry.label) for hit in found.hits), default=0), WIDEST_LABEL)
    indent = number_width + 2 + label_width + 2
    if width - indent < 24:
        indent = number_width + 4
    for number, hit in enumerate(found.hits, 1):
        label = clean_line(hit.entry.label)
        head = f"{number:>{number_width}}  {BOLD}{label}{ROMAN}"
        tail = f" {ITALIC}… and {hit.folded} more in this family{ROMAN}" if hit.folded else ""
        body = wrap((clean_line(hit.entry.summary) or "(no summary)") + tail, width, indent)
        used = number_width + 2 + display_width(label)
        if used + 2 <= indent:
            lines.append(head + " " * (indent - used) + body[0][indent:])
            lines += body[1:]
        else:
            lines += [head, *body]
    return lines + [f"{FAINT}{line}" for line in _next(found, width, program)]


def _next(found: Answer, width: int, program: str) -> list[str]:
    shown = len(found.hits)
    folded = sum(hit.folded for hit in found.hits)
    first = found.hits[0].entry if found.hits else None
    more = found.total - shown - folded
    parts = []
    if folded or more > 0:
        parts.append(f"{found.total} match" + (f", {shown} shown" if shown < found.total else ""))
    if more > 0 and shown:
        parts.append(f"--limit {shown * 2} shows more")
    family = next((hit for hit in found.hits if hit.folded), None)
    if family is not None:
        words = " ".join([*found.query.words, *(f"'{p}'" for p in found.query.patterns)])
        parts.append(f"{program} find {family.entry.family} {clean_line(words)}"[:90] + " shows that family")
    if first is not None:
        parts.append(f"next: {program} read {clean_line(first.name)}")
    return ["", *wrap(unbroken(parts), width)] if parts else []
