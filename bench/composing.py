"""Measures how lines come back out of a form, and that every documented command has one.

    python bench/composing.py

The lines are those of all recipes, with the names of their slots as values, on the machine's pages.
A line must come out letter for letter when nothing is changed; it is told apart if its fields make
a line of the same words.
"""

from __future__ import annotations

import re
import statistics
import time

from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.composing.command_sheet import CommandSheet
from dowsing.index.schema import Meta
from dowsing.ingest.upkeep import open_index
from dowsing.machine.settings import read_settings
from dowsing.model.errors import NotComposable
from dowsing.tasks.recipe_examples import as_shown
from dowsing.tasks.retrieval import recipe_of, rows_of


def main() -> None:
    settings = read_settings()
    store = open_index(settings)[0]
    finder = CommandFinder(store, settings)
    whole = apart = 0
    for row in rows_of(store, Meta.RECIPES):
        line = re.sub(r"<([a-z_-]+)>", lambda match: match[1], as_shown(recipe_of(row)))
        try:
            sheet = CommandSheet(line, finder)
        except NotComposable:
            continue
        assert sheet.line() == line, line
        whole += 1
        apart += not sheet.fixed
    print(
        f"lines of recipes: {whole} come back letter for letter, {apart} ({apart / whole:.1%}) are "
        "told apart into fields"
    )
    names = (
        "SELECT name FROM entries WHERE NOT hidden AND kind='command' AND substr(section,1,1) "
        "IN ('1','8')"
    )
    times = []
    for (name,) in store.rows(names):
        start = time.perf_counter()
        try:
            sheet = CommandSheet(name, finder)
            sheet.ruled_out(), sheet.missing(), sheet.faults(), sheet.line("long")
        except NotComposable:
            continue
        times.append(1000 * (time.perf_counter() - start))
    print(
        f"commands: {len(times)} forms, {statistics.median(times):.1f} ms in the middle, "
        f"{max(times):.0f} ms at most"
    )


if __name__ == "__main__":
    main()
