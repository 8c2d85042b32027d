"""Tables that say something of each member of a closed set have a row for every member."""

from __future__ import annotations

import importlib
import pkgutil
from collections.abc import Iterator
from enum import Enum

import pytest

import dowsing

#: Tables of some members only, and why the others are never looked up.
PARTIAL = {
    "render.pieces._BY_MANNER": "asked whether it has the member",
    "commandline.scripts.fragments._MODULES": "a script of the shell is taken before",
    "commandline.languages.value_language._OF_KINDS": "asked whether it has the member",
    "comparing.differences._READERS": "gone through, never looked up in",
    "index.rows.NO_PAGE": "pages and folders of PATH have no such trouble",
    "index.writer.NO_PAGE": "the same table",
    "machine.known_values._LISTERS": "asked with get",
    "model.value_kinds.KINDS": "asked with get",
    "render.audit_report.UNANSWERED": "gone through, never looked up in",
    "render.matrices.UNANSWERED": "gone through, never looked up in",
    "render.differences._PLURAL": "gone through, never looked up in",
    "render.differences._OF_A_CONTRADICTION": "those of _CONTRADICTIONS alone, see below",
    "render.marked_line.STYLES": "asked with get",
    "render.piece_text.STYLES": "asked with get",
    "render.pasted_lines._KINDS": "asked with get",
    "render.search_words._NOTES": "what was left out has a sentence of its own",
    "tasks.retrieval.ROWS": "recipes and examples alone have rows",
}


def tables() -> Iterator[tuple[str, dict[Enum, object]]]:
    """Every table of a module whose keys are members of one closed set."""
    for module in pkgutil.walk_packages(dowsing.__path__, "dowsing."):
        if module.name.endswith((".start", ".__main__", ".confine", ".upkeep")):
            continue
        for name, value in vars(importlib.import_module(module.name)).items():
            if isinstance(value, dict) and value:
                kinds = {type(key) for key in value}
                if len(kinds) == 1 and issubclass(kinds.pop(), Enum):
                    yield f"{module.name.removeprefix('dowsing.')}.{name}", value


TABLES = dict(tables())


def missing(table: dict[Enum, object]) -> list[str]:
    """The members that a table has no row for."""
    return [one.name for one in type(next(iter(table))) if one not in table]


@pytest.mark.parametrize("name", sorted(TABLES))
def test_a_table_has_every_member(name: str) -> None:
    lacks = missing(TABLES[name])
    assert bool(lacks) == (name in PARTIAL), lacks


def test_contradictions_are_told_in_words() -> None:
    from dowsing.render import differences

    assert set(differences._CONTRADICTIONS) == set(differences._OF_A_CONTRADICTION)


def test_there_are_tables() -> None:
    assert len(TABLES) > 15 and set(PARTIAL) <= set(TABLES)
