"""How much was read, as bars."""

from __future__ import annotations

from dowsing.model.markup import BOLD, CODE, ROMAN, clean_line
from dowsing.render.cell_width import display_width, fit
from dowsing.render.layout import title_lines
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.wrap import unbroken, wrap

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.userdata.reading_progress import Share

WIDEST_NAME, WIDEST_BAR = 32, 30
_TITLES = {"package": "PACKAGES", "family": "FAMILIES"}


def progress_lines(
    done: int, total: int, groups: dict[str, list[Share]], limit: int, width: int, program: str
) -> list[str]:
    """What was read of all, and of each package and family, numbered, with bars."""
    per_cent = f"{100 * done / total:.0f} %" if total else ""
    lines = title_lines(
        "read", f"{done} of {total} entries that a stroll picks from, {per_cent}", [], width
    )
    shown = {by: found[:limit] for by, found in groups.items()}
    everything = [one for found in shown.values() for one in found]
    if not everything:
        return lines
    names = min(max(display_width(clean_line(one.name)) for one in everything), WIDEST_NAME)
    places = len(str(len(everything)))
    counts = max(len(f"{one.read} of {one.total}") for one in everything)
    bar = max(5, min(WIDEST_BAR, width - places - names - counts - 8))
    number = 0
    for by, found in shown.items():
        if not found:
            continue
        more = f" ({len(found)} of {len(groups[by])})" if len(groups[by]) > len(found) else ""
        lines += ["", f"{HEADING}{_TITLES[by]}{more}"]
        for one in found:
            number += 1
            name = fit(clean_line(one.name), names)
            style = BOLD if one.read else ""
            count = f"{one.read} of {one.total}"
            lines.append(
                f"{number:>{places}}  {style}{name}{ROMAN if style else ''}  {_bar(one, bar)}  "
                f"{count:>{counts}}"
            )
    steps = [f"{program} stroll", f"{program} take 1 strolls there"]
    return [*lines, "", *(f"{FAINT}{line}" for line in wrap("next: " + unbroken(steps), width))]


def _bar(share: Share, width: int) -> str:
    """A bar of full and empty parts; what was begun is never shown as nothing, what is not done
    never as all.
    """
    full = round(width * share.read / share.total) if share.total else 0
    if share.read:
        full = max(full, 1)
    if share.read < share.total:
        full = min(full, width - 1)
    return f"{CODE}{'━' * full}{ROMAN}{FAINT}{'·' * (width - full)}{ROMAN}"
