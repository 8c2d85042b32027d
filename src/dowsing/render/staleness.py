"""Pages beside the usage texts of their programs, as lines."""

from __future__ import annotations

from dowsing.comparing.stale import Stale
from dowsing.model.markup import BOLD, ROMAN, clean_line
from dowsing.render.differences import group_lines
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.wrap import wrap

INDENT = 3
MOST_ITEMS = 16  # of one command, in a list of many


def stale_lines(one: Stale, width: int) -> list[str]:
    """Of one command: what its page lacks, and what its usage text leaves out."""
    dated = f", of {clean_line(one.page_date)}" if one.page_date else ""
    lines = ["", *wrap(f"page   {clean_line(one.page)}{dated}", width, INDENT, 7)]
    lines += wrap(f"usage  {clean_line(one.asked)}", width, INDENT, 7)
    if one.lacking:
        lines += ["", f"{HEADING}The program has it, its page has not"]
        lines += group_lines(one.lacking, width)
    if one.surplus and not one.partial:
        lines += ["", f"{HEADING}The page has it, the program’s usage text has not"]
        lines += group_lines(one.surplus, width)
    elif one.surplus:
        said = (
            f"The usage text says itself that it is not all: that it leaves out {len(one.surplus)} "
            "options of the page says nothing."
        )
        lines += ["", *(f"{FAINT}{line}" for line in wrap(said, width, INDENT))]
    if not one.lacking and not one.surplus:
        lines += ["", "   The page and the usage text have the same options."]
    return lines


def stale_list(found: list[Stale], width: int) -> list[str]:
    """Of many commands: a line or two each, what their pages lack first."""
    lines: list[str] = []
    lacking = sorted((one for one in found if one.lacking), key=lambda one: -len(one.lacking))
    if lacking:
        lines += ["", f"{HEADING}Pages that lack what the program has ({len(lacking)})"]
        for one in lacking:
            lines += _row(one, [d.item for d in one.lacking], width)
    surplus = [one for one in found if one.surplus and not one.partial]
    if surplus:
        lines += ["", f"{HEADING}Usage texts that leave out what the page has ({len(surplus)})"]
        for one in sorted(surplus, key=lambda one: -len(one.surplus)):
            lines += _row(one, [d.item for d in one.surplus], width)
    return lines or ["", "   Every page that could be compared has just the program’s options."]


def _row(one: Stale, items: list[str], width: int) -> list[str]:
    version = f" ({clean_line(one.version)})" if one.version else ""
    shown = items if len(items) <= MOST_ITEMS else items[:MOST_ITEMS]
    named = "; ".join(clean_line(item).replace(" ", "\xa0") for item in shown)
    if len(items) > len(shown):
        named += f" and {len(items) - len(shown)} more"
    return wrap(f"{BOLD}{clean_line(one.name)}{ROMAN}{version}  {named}", width, INDENT, 4)
