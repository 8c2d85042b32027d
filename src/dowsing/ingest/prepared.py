"""What we know beside the pages, as the index keeps it: an index without pages, made when the wheel
is built, which every index of a user's machine begins as a copy of. In a checkout it is made anew
when an index is built and one of the files that it is made of is newer.

    python -m dowsing.ingest.prepared
"""

from __future__ import annotations

import contextlib
import json
import os
import sqlite3
import sys

from dowsing.index.knowledge_writer import KnowledgeWriter
from dowsing.index.schema import Meta
from dowsing.index.writer import IndexWriter
from dowsing.ingest.meanings import tasks_of_commands
from dowsing.ingest.postings import insert_language
from dowsing.ingest.recipe_choice import insert_choice
from dowsing.ingest.terms import task_terms
from dowsing.knowledge import compiling
from dowsing.knowledge.absent import read_absent
from dowsing.knowledge.compiled import FILE as COMPILED
from dowsing.knowledge.compiled import Part, part
from dowsing.knowledge.conventions import facts_by_words, read_conventions
from dowsing.knowledge.page_phrases import purposes, special_labels
from dowsing.knowledge.recipe_terms import (
    never_names,
    ordinary_words,
    packed_recipes,
    packed_rows,
)
from dowsing.knowledge.recipes import Recipe, own_recipes
from dowsing.knowledge.stems import telling_stems

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

_PACKAGE = os.path.dirname(os.path.dirname(os.path.abspath(__file__)))
FILE = os.path.join(os.path.dirname(COMPILED), "prepared.sqlite")
#: The packages whose files it is made of.
_MADE_OF = ("knowledge", "index", "ingest")


def prepared_file() -> str:
    """The file that an index begins as, up to date; "" if this installation has none. Raises
    ValueError if a file of a command is not of the format.
    """
    compiling.bring_up_to_date()
    is_checkout = os.path.isdir(compiling.SOURCES)
    if is_checkout and (not os.path.exists(FILE) or _is_older()):
        write()
    return FILE if os.path.exists(FILE) else ""


def write() -> None:
    """Make the file. Raises sqlite3.Error, OSError."""
    beside = f"{FILE}.{os.getpid()}"
    with contextlib.suppress(FileNotFoundError):
        os.unlink(beside)
    with contextlib.closing(IndexWriter.new(beside)) as writer:
        insert_knowledge(writer, own_recipes(), is_fitted=True)
        writer.commit()
    os.replace(beside, FILE)


def insert_knowledge(writer: IndexWriter, recipes: list[Recipe], is_fitted: bool) -> None:
    """What we know beside the pages, which look-ups read quicker from here than from its files.
    `is_fitted`: the recipes are our own, whose wordings the choice is fitted to.
    """
    insert_language(writer)
    writer.set_meta(Meta.CONVENTIONS, json.dumps(read_conventions()))
    knowledge = KnowledgeWriter(writer)
    knowledge.insert_facts(facts_by_words())
    knowledge.insert_absent(
        (one, [telling_stems(text) for text in (*one.phrases, one.does)]) for one in read_absent()
    )
    fitted = insert_choice(writer, recipes) if is_fitted else frozenset()
    unfitted = [one for one in recipes if one.line not in fitted]
    # the numbers of what is found by its wordings alone are those of the first rows
    others = [one for one in recipes if one.line in fitted]
    terms = {command: sorted(found) for command, found in task_terms(recipes).items()}
    for key, value in (
        (Meta.RECIPES, packed_recipes(unfitted, others)),
        (Meta.RECIPE_ROWS, packed_rows([*unfitted, *others])),
        (Meta.PHRASES, json.dumps(purposes())),
        (Meta.SPECIAL_LABELS, json.dumps(sorted(special_labels()))),
        (Meta.COMMAND_TASKS, json.dumps(tasks_of_commands(recipes))),
        (Meta.TASK_TERMS, json.dumps(terms)),
        (Meta.ORDINARY_WORDS, ordinary_words(recipes)),
        (Meta.NEVER_NAMES, never_names()),
        (Meta.SPELLINGS, part(Part.SPELLINGS)),
    ):
        writer.set_meta(key, value)


def _is_older() -> bool:
    made = os.stat(FILE).st_mtime_ns
    return any(time > made for time in _times())


def _times() -> Iterator[int]:
    """The times of the files that it is made of, in nanoseconds."""
    for package in _MADE_OF:
        for folder, _, names in os.walk(os.path.join(_PACKAGE, package)):
            if not folder.endswith("__pycache__"):
                for name in names:
                    if not name.startswith(os.path.basename(FILE)):
                        yield os.stat(os.path.join(folder, name)).st_mtime_ns


def main() -> int:
    """Make the file, or print what is wrong."""
    try:
        compiling.write()
        write()
    except (ValueError, OSError, sqlite3.Error) as error:
        print(error, file=sys.stderr)
        return 1
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
