"""An audit as a picture: the matrix of names and sources, and bars of the counts."""

from __future__ import annotations

import math

from dowsing.model.errors import NoCharts

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.comparing.coverage import Audit

MOST_NAMES = 400
ROWS_IN_A_COLUMN = 45
THERE, ABSENT, UNASKED = "#2f6f5e", "#ece7db", "#c9b458"


def check() -> None:
    """Raises NoCharts if a picture cannot be drawn here."""
    from importlib.util import find_spec

    if find_spec("matplotlib") is None:
        raise NoCharts("charts need Matplotlib: pip install matplotlib")


def draw(found: Audit, path: str) -> None:
    """Write the picture to `path`, a PNG or SVG by its name. Raises OSError."""
    import logging

    import matplotlib

    logging.getLogger("matplotlib").setLevel(logging.ERROR)  # of its caches nobody wants to hear
    matplotlib.use("Agg")
    matplotlib.rcParams["svg.hashsalt"] = "dowsing"
    from matplotlib.figure import Figure

    lines = found.lines[:MOST_NAMES]
    columns = max(1, math.ceil(len(lines) / ROWS_IN_A_COLUMN))
    rows = math.ceil(len(lines) / columns)
    longest = max((len(line.name) for line in lines), default=4)
    panel = 0.9 + 0.085 * min(longest, 24) + 0.26 * len(found.sources)
    figure = Figure(
        figsize=(max(panel * columns, 7.5), 3.6 + 0.19 * rows), dpi=110, layout="constrained"
    )
    grid = figure.add_gridspec(2, columns, height_ratios=[2.0, max(0.19 * rows, 1.0)])
    _bars(figure.add_subplot(grid[0, :]), found)
    for n in range(columns):
        _panel(
            figure.add_subplot(grid[1, n]), lines[n * rows : (n + 1) * rows], found.sources, rows
        )
    left = f", the first {len(lines)}" if len(found.lines) > len(lines) else ""
    figure.suptitle(
        f"Documentation of {_title(found)}: {len(found.lines)} names{left}", fontsize=13
    )
    figure.savefig(path)


def _title(found: Audit) -> str:
    scope = found.scope
    return {
        "shell": f"the builtins and keywords of {scope.name}",
        "path": "the commands on PATH",
    }.get(scope.kind, f"the {scope.kind} {scope.name}")


def _bars(axes, found: Audit) -> None:  # type: ignore[no-untyped-def]
    """For each source how many names have it, are not asked, have it not."""
    total = len(found.lines)
    places = range(len(found.sources))
    present = [found.counts[s]["present"] for s in found.sources]
    unasked = [found.counts[s]["not_asked"] for s in found.sources]
    axes.barh(places, [total] * len(present), color=ABSENT, label="not there")
    axes.barh(places, present, color=THERE, label="there")
    if any(unasked):
        axes.barh(places, unasked, left=present, color=UNASKED, label="not asked")
    for place, count in zip(places, present, strict=True):
        inside = count > total * 0.12
        axes.text(
            count - total * 0.006 if inside else count + total * 0.006,
            place,
            str(count),
            va="center",
            ha="right" if inside else "left",
            color="white" if inside else "black",
            fontsize=9,
        )
    axes.set_yticks(list(places), found.sources, fontsize=9)
    axes.invert_yaxis()
    axes.set_xlim(0, total)
    axes.set_xlabel("names", fontsize=9)
    axes.tick_params(axis="x", labelsize=8)
    axes.legend(loc="upper left", bbox_to_anchor=(1.0, 1.0), fontsize=8, frameon=False)
    for side in ("top", "right", "left"):
        axes.spines[side].set_visible(False)


def _panel(axes, lines: list, sources: list[str], rows: int) -> None:  # type: ignore[no-untyped-def,type-arg]
    """A part of the matrix: a square for each name and source."""
    from matplotlib.patches import Rectangle

    colours = {True: THERE, False: ABSENT, None: UNASKED}
    for y, line in enumerate(lines):
        for x, source in enumerate(sources):
            axes.add_patch(
                Rectangle(
                    (x + 0.06, y + 0.08), 0.88, 0.84, color=colours[line.sources[source]], lw=0
                )
            )
    axes.set_xlim(0, len(sources))
    axes.set_ylim(rows, 0)
    axes.set_xticks(
        [x + 0.5 for x in range(len(sources))], sources, rotation=60, ha="left", fontsize=8
    )
    axes.xaxis.tick_top()
    names = [line.name if len(line.name) < 25 else line.name[:23] + "…" for line in lines]
    axes.set_yticks(
        [y + 0.5 for y in range(len(lines))], [_literal(name) for name in names], fontsize=8
    )
    axes.tick_params(length=0)
    for spine in axes.spines.values():
        spine.set_visible(False)


def _literal(name: str) -> str:
    """A name in which nothing is taken for a formula."""
    return name.replace("$", r"\$")
