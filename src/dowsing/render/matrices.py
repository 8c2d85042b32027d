"""An audit as lines, and as comma-separated values."""

from __future__ import annotations

from dowsing.model.markup import BOLD, ROMAN, clean_line
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
WIDEST_NAME = 28


def audit_lines(found: Audit, width: int) -> list[str]:
    """The matrix, the counts, names without documentation, options that one source leaves out."""
    scope = found.scope
    title = {"shell": "Builtins and keywords of", "path": "All commands on"}.get(
        scope.kind, f"The {scope.kind}"
    )
    lines = title_lines(f"{title} {clean_line(scope.name)}", f"{len(found.lines)} names", [], width)
    lines += ["", *_counts(found), "", *_matrix(found, width)]
    lines += ["", f"{HEADING}WITHOUT ANY DOCUMENTATION ({len(found.undocumented)})"]
    lines += wrap(clean_line(", ".join(found.undocumented)) or "none", width, INDENT)
    if any(found.counts[source]["not_asked"] for source in found.sources):
        lines += wrap("Programs were not asked for their usage; --usage asks them.", width, INDENT)
    if found.missing:
        names = len({name for name, _ in found.missing})
        lines += [
            "",
            f"{HEADING}OPTIONS THAT NOT ALL TEXTS HAVE ({len(found.missing)}, of {names} names)",
        ]
        for name, one in found.missing[:MOST_LISTED]:
            said = f"{BOLD}{clean_line(name)}{ROMAN} {clean_line(one.item)}"
            lines += wrap(
                f"{said}  in {', '.join(one.said_by)}, not in {', '.join(one.not_said_by)}",
                width,
                INDENT,
                4,
            )
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
