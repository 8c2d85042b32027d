"""An audit as one HTML page without anything outside it: counts with bars, the lists that one can
act on, and the matrix.
"""

from __future__ import annotations

from html import escape

from dowsing.comparing.coverage import Audit
from dowsing.comparing.differences import Difference
from dowsing.comparing.stale import Stale
from dowsing.model.markup import clean_line
from dowsing.render.matrices import MARKS, UNANSWERED, scope_title

_STYLE = """
:root { color-scheme: light dark; --there: #2f6f5e; --absent: #8883; --unasked: #c9b458; }
body { font: 16px/1.5 system-ui, sans-serif; max-width: 70rem; margin: 0 auto;
  padding: 1rem 1.5rem 4rem; }
h2 { font-size: 1.15rem; margin: 2rem 0 .5rem; }
nav a { margin-right: 1.2rem; }
table { border-collapse: collapse; } th, td { padding: .12rem .7rem .12rem 0; text-align: left;
  vertical-align: top; }
.matrix th { position: sticky; top: 0; background: Canvas; }
.matrix td + td { text-align: center; }
.there { color: var(--there); } .not { opacity: .45; } .asked { color: var(--unasked); }
.bar { width: 22rem; height: 1rem; background: var(--absent); display: flex; }
.bar i { background: var(--there); } .bar u { background: var(--unasked); }
code { font-family: ui-monospace, monospace; font-size: .92em; }
.quiet { color: #888; }
@media (prefers-color-scheme: dark) { :root { --there: #6fc0a8; } }
"""


def report_html(found: Audit) -> str:
    """The page."""
    parts = [
        ("counts", "Sources", _counts(found)),
        (
            "none",
            f"Without any documentation ({len(found.undocumented)})",
            _names(found.undocumented),
        ),
        (
            "only-usage",
            f"Only what the program prints when asked ({len(found.only_usage)})",
            _names(found.only_usage),
        ),
        ("answers", "No usage text", _unanswered(found)),
        ("stale", "Pages that are not of the installed program", _stale(found.stale)),
        ("options", f"Options that not all texts have ({len(found.missing)})", _missing(found)),
        ("matrix", f"All names ({len(found.lines)})", _matrix(found)),
    ]
    title = escape(clean_line(f"{scope_title(found)}: documentation"))
    links = "".join(f'<a href="#{key}">{escape(head)}</a>' for key, head, body in parts if body)
    body = "\n".join(
        f'<h2 id="{key}">{escape(head)}</h2>\n{text}' for key, head, text in parts if text
    )
    return (
        '<!DOCTYPE html>\n<html lang="en">\n<head>\n<meta charset="utf-8">\n'
        '<meta name="viewport" content="width=device-width">\n'
        f"<title>{title}</title>\n<style>{_STYLE}</style>\n</head>\n<body>\n"
        f"<header><h1>{title}</h1></header>\n<nav>{links}</nav>\n<main>\n{body}\n</main>\n"
        "</body>\n</html>\n"
    )


def _counts(found: Audit) -> str:
    """The chart: a bar for each source, drawn by the page itself, with its figures beside."""
    total = max(len(found.lines), 1)
    rows = []
    for source in found.sources:
        count = found.counts[source]
        there, unasked = (100 * count[kind] / total for kind in ("present", "not_asked"))
        bar = (
            f'<div class="bar" role="img" aria-label="{count["present"]} of {total}">'
            f'<i style="width:{there:.1f}%"></i><u style="width:{unasked:.1f}%"></u></div>'
        )
        more = f", {count['not_asked']} not asked" if count["not_asked"] else ""
        rows.append(
            f"<tr><td>{escape(source)}</td><td>{bar}</td>"
            f"<td>{count['present']} of {total}{more}</td></tr>"
        )
    return f"<table>{''.join(rows)}</table>"


def _names(names: list[str]) -> str:
    return "<p>" + ", ".join(_code(name) for name in names) + "</p>" if names else ""


def _code(text: str) -> str:
    return f"<code>{escape(clean_line(text))}</code>"


def _unanswered(found: Audit) -> str:
    rows = [
        f"<tr><td>{_code(row.name)}</td><td>{escape(title)}</td>"
        f'<td class="quiet">{escape(clean_line(row.says))}</td></tr>'
        for kind, title in UNANSWERED.items()
        for row in found.unanswered.get(kind, [])
    ]
    return f"<table>{''.join(rows)}</table>" if rows else ""


def _stale(found: list[Stale]) -> str:
    rows = [
        f"<tr><td>{_code(one.name)}</td><td>{escape(clean_line(one.version))}</td>"
        f"<td>{_items(one.lacking)}</td><td>{_items([] if one.partial else one.surplus)}</td></tr>"
        for one in found
    ]
    heads = ("name", "installed", "its page lacks", "its usage text lacks")
    head = f"<tr>{''.join(f'<th>{one}</th>' for one in heads)}</tr>"
    return f"<table>{head}{''.join(rows)}</table>" if rows else ""


def _items(found: list[Difference]) -> str:
    return ", ".join(_code(one.item) for one in found) or "–"


def _missing(found: Audit) -> str:
    rows = []
    for name, one in found.missing:
        where = (
            f"contradicting: {', '.join(one.otherwise)}"
            if one.otherwise
            else f"in {', '.join(one.said_by)}; not in {', '.join(one.not_said_by)}"
        )
        rows.append(
            f"<tr><td>{_code(name)}</td><td>{_code(one.item)}</td><td>{escape(where)}</td></tr>"
        )
    return f"<table>{''.join(rows)}</table>" if rows else ""


def _matrix(found: Audit) -> str:
    heads = "".join(f"<th>{escape(source)}</th>" for source in found.sources)
    kinds = {True: "there", False: "not", None: "asked"}
    rows = []
    for line in found.lines:
        cells = ""
        for source in found.sources:
            there, why = line.sources[source], escape(clean_line(line.notes.get(source, "")))
            cells += f'<td class="{kinds[there]}" title="{why}">{MARKS[there]}</td>'
        rows.append(f"<tr><td>{_code(line.name)}</td>{cells}</tr>")
    legend = '<p class="quiet">● there · not there ? not asked</p>'
    return f'{legend}<table class="matrix"><tr><th>name</th>{heads}</tr>{"".join(rows)}</table>'
