"""An audit as lines, and as comma-separated values."""

from __future__ import annotations

from dowsing.model.markup import BOLD, ROMAN, clean_line
from dowsing.readers.usage.usage_kind import UsageKind
from dowsing.render.cell_width import display_width
from dowsing.render.layout import title_lines
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.wrap import wrap

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.comparing.coverage import Audit

INDENT = 3
MARKS = {True: "●", False: "·", None: "?"}
MOST_LISTED = 400
#: What came of asking instead of a usage text -> the heading of those that did it.
UNANSWERED = {
    UsageKind.ECHO: "Print what they are given",
    UsageKind.EFFECT: "Did something else",
    UsageKind.ERROR: "Took it for a mistake",
    UsageKind.NOTHING: "Printed nothing",
    UsageKind.TROUBLE: "Were ended",
    UsageKind.START: "Did not start",
    UsageKind.REFUSED: "Not asked, as that is not safe",
}
WIDEST_NAME = 28


def audit_lines(found: Audit, width: int) -> list[str]:
    """The counts, the lists that one can act on, and the matrix."""
    lines = _title(found, width)
    lines += ["", *_counts(found)]
    lines += _names("Without any documentation", found.undocumented, width, always=True)
    if any(found.counts[source]["not_asked"] for source in found.sources):
        lines += wrap("Programs were not asked for their usage; --usage asks them.", width, INDENT)
    lines += _names("Only what the program prints when asked", found.only_usage, width)
    lines += _unanswered(found, width)
    lines += _disagreements(found, width)
    return [*lines, "", *_matrix(found, width)]


def stale_audit_lines(found: Audit, width: int) -> list[str]:
    """The pages that are not of the programs that are installed."""
    from dowsing.render.staleness import stale_list

    lines = _title(found, width)
    if any(line.sources["usage"] is None for line in found.lines):
        said = "Only programs that were asked before are compared; --usage asks all."
        lines += ["", *wrap(said, width, INDENT)]
    return lines + stale_list(found.stale, width)


def scope_title(found: Audit) -> str:
    """What the audit is over, in words."""
    scope = found.scope
    return {"shell": f"Builtins and keywords of {scope.name}", "path": "All commands on PATH"}.get(
        scope.kind, f"The {scope.kind} {scope.name}"
    )


def _title(found: Audit, width: int) -> list[str]:
    count = "1 name" if len(found.lines) == 1 else f"{len(found.lines)} names"
    return title_lines(clean_line(scope_title(found)), count, [], width)


def _names(title: str, names: list[str], width: int, always: bool = False) -> list[str]:
    if not names and not always:
        return []
    listed = clean_line(", ".join(names)) or "none"
    return ["", f"{HEADING}{title} ({len(names)})", *wrap(listed, width, INDENT)]


def _unanswered(found: Audit, width: int) -> list[str]:
    """What printed no usage text, by what it did instead."""
    lines: list[str] = []
    for kind, title in UNANSWERED.items():
        rows = found.unanswered.get(kind, [])
        if not rows:
            continue
        lines += ["", f"{HEADING}{title} ({len(rows)})"]
        if kind == UsageKind.REFUSED:
            lines += wrap(clean_line(", ".join(row.name for row in rows)), width, INDENT)
            continue
        for row in rows[:MOST_LISTED]:
            said = clean_line(row.says).removeprefix(clean_line(row.name) + " ")
            lines += wrap(f"{BOLD}{clean_line(row.name)}{ROMAN}  {said}", width, INDENT, 4)
    return lines


def _disagreements(found: Audit, width: int) -> list[str]:
    if not found.missing:
        return []
    names = len({name for name, _ in found.missing})
    of = "1 name" if names == 1 else f"{names} names"
    lines = ["", f"{HEADING}Options that not all texts have ({len(found.missing)}, of {of})"]
    for name, one in found.missing[:MOST_LISTED]:
        said = f"{BOLD}{clean_line(name)}{ROMAN} {clean_line(one.item)}"
        where = f"in {', '.join(one.said_by)}, not in {', '.join(one.not_said_by)}"
        if one.otherwise:
            where = "two texts contradict each other: " + ", ".join(one.otherwise)
        lines += wrap(f"{said}  {where}", width, INDENT, 4)
    if len(found.missing) > MOST_LISTED:
        lines.append(
            f"{FAINT}{' ' * INDENT}… and {len(found.missing) - MOST_LISTED} more: --format json"
        )
    return lines


def _counts(found: Audit) -> list[str]:
    column = max(len(source) for source in found.sources)
    total = max(len(found.lines), 1)
    lines = [f"{HEADING}{'source':<{column + INDENT}}  there  share  not asked"]
    for source in found.sources:
        count = found.counts[source]
        share = f"{round(100 * count['present'] / total)}%"
        unasked = f"{count['not_asked'] or '':>9}"
        lines.append(
            f"{' ' * INDENT}{source:<{column}}  {count['present']:>5}  {share:>5}  "
            f"{unasked}".rstrip()
        )
    return lines


def _matrix(found: Audit, width: int) -> list[str]:
    """Sources across, their names in the heads where they fit, else as letters that the counts
    above explain.
    """
    column = min(max((display_width(line.name) for line in found.lines), default=4), WIDEST_NAME)
    heads = found.sources
    if INDENT + column + 2 + sum(len(head) + 2 for head in heads) > width:
        heads = [_short(source) for source in found.sources]
    lines = [f"{HEADING}{'name':<{column + INDENT}}  {'  '.join(heads)}"]
    for line in found.lines:
        name = clean_line(line.name)
        if display_width(name) > column:
            name = name[: column - 1] + "…"
        cells = "  ".join(
            f"{MARKS[line.sources[s]]:^{len(h)}}" for s, h in zip(found.sources, heads, strict=True)
        )
        lines.append(
            f"{' ' * INDENT}{name}{' ' * (column - display_width(name))}  {cells}".rstrip()
        )
    lines.append(f"{FAINT}{' ' * INDENT}● there   · not there   ? not asked")
    return lines


def _short(source: str) -> str:
    return {
        "builtin": "bltn",
        "shell-manual": "shman",
        "builtin-usage": "b-use",
        "manual": "manual",
        "usage": "usage",
        "info": "info",
        "standard": "std",
        "package": "pkg",
    }[source]


def audit_csv(found: Audit) -> str:
    """Name, kind, and for each source yes, no, or nothing where it was not asked."""
    import csv
    import io

    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(["name", "kind", *found.sources])
    for line in found.lines:
        cells = [
            {True: "yes", False: "no", None: ""}[line.sources[source]] for source in found.sources
        ]
        writer.writerow([_harmless(line.name), line.kind, *cells])
    return out.getvalue()


def _harmless(text: str) -> str:
    """A name that a spreadsheet does not take for a formula."""
    return "'" + text if text[:1] in ("=", "+", "-", "@") else text
