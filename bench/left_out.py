"""How well find does for commands of which we have neither phrase nor wording: measured by leaving
whole commands out.

    python bench/left_out.py [--misses N] [--keep DIR]

The commands are dealt into two halves by their names. For each half an index is made without any
phrase or recipe, with associations that were learned from the other half alone (bench/
fit_associations.py --left-out), and the phrases and wordings of that half are asked of it. One page
is right for each, although others may answer as well; the figures are for comparing. Then it is
shown what is lost without learned associations, and without plain words. --keep leaves indexes and
queries in a folder: fit.py takes them.
"""

from __future__ import annotations

import argparse
import random
import subprocess
import sys
import tempfile
import zlib
from collections.abc import Iterator
from contextlib import ExitStack
from pathlib import Path
from unittest import mock

from finding import Query, figures, ours

from dowsing.index.store import Store
from dowsing.ingest import build, meanings, postings
from dowsing.ingest.upkeep import open_index
from dowsing.knowledge import lexicon
from dowsing.knowledge.page_phrases import purposes
from dowsing.knowledge.recipes import own_recipes
from dowsing.machine.settings import read_settings

HERE = Path(__file__).parent
SEED = 3
SHARE_OF_LARGE = 0.2  # of the pages of a very large family
LARGE = "gcloud"
RECIPES_EACH = 2


def half_of(name: str) -> int:
    """The half that a command belongs to."""
    return zlib.crc32(name.encode()) % 2


def queries(store: Store) -> Iterator[tuple[int, Query]]:
    """One phrase of each page, and two wordings of recipes of each command, with their halves."""
    draw = random.Random(SEED)
    for label, phrases in purposes().items():
        name, _, section = label.rstrip(")").partition("(")
        if not store.named(name, "" if section == "builtin" else section):
            continue
        if name.startswith(LARGE) and draw.random() > SHARE_OF_LARGE:
            continue
        yield half_of(name), Query(f"{draw.choice(phrases)}\t{label}\tphrase")
    by_command: dict[str, list[str]] = {}
    for recipe in own_recipes():
        entries = store.named(recipe.command.replace(" ", "-"))
        found = next((one for one in entries if one.section[:1] in ("1", "8")), None)
        if found is not None:
            text = draw.choice([recipe.task, *recipe.also])
            by_command.setdefault(found.label, []).append(text.translate(_UNMARKED))
    for label, texts in by_command.items():
        for text in draw.sample(texts, min(RECIPES_EACH, len(texts))):
            yield half_of(label.partition("(")[0]), Query(f"{text}\t{label}\twording")


_UNMARKED = str.maketrans(dict.fromkeys("<>[]", ""))


def bare_index(path: Path, associations: Path) -> None:
    """An index of this machine without phrases and recipes, with these associations."""
    settings = read_settings()
    roots = open_index(settings)[1]
    learned = lexicon.read_associations(str(associations))
    with ExitStack() as changes:
        for module in (postings, meanings):
            changes.enter_context(mock.patch.object(module, "purposes", dict))
        changes.enter_context(mock.patch.object(build, "own_recipes", list))
        changes.enter_context(mock.patch.object(lexicon, "read_associations", lambda: learned))
        build.build(str(path), settings, roots)


#: Parts that can be left out: which relations of words stay.
WITHOUT = {
    "learned associations": lambda: mock.patch.object(lexicon, "read_associations", list),
    "plain words": lambda: mock.patch.object(lexicon, "plain_words", list),
}


def rewrite_relations(path: Path) -> None:
    """Write the relations of words anew, as they are now."""
    import sqlite3

    db = sqlite3.connect(path)
    db.execute("DELETE FROM related")
    db.executemany("INSERT INTO related VALUES(?,?,?)", lexicon.lexicon().relations())
    db.commit()
    db.close()


def keep_queries(folder: Path, asked: list[tuple[int, Query]]) -> None:
    """Write the queries of each half beside its index, for fit.py."""
    for half in (0, 1):
        lines = (
            f"{query.text}\t{','.join(query.accepted)}\t{query.style}\n"
            for part, query in asked
            if part == half
        )
        (folder / f"half{half}.tsv").write_text("".join(lines), encoding="utf-8")


def ask(paths: list[Path], asked: list[tuple[int, Query]], misses: int) -> None:
    """The figures of phrases and of wordings."""
    stores = [Store(str(path)) for path in paths]
    ranks: dict[str, list[int]] = {}
    for half, query in asked:
        place = ours(stores[half], query)
        ranks.setdefault(query.style, []).append(place)
        if place != 1 and misses > 0:
            misses -= 1
            print(f"{place:>2} {query.text} | {','.join(query.accepted)}")
    for style, found in ranks.items():
        print(f"  {style:<8} {len(found):>5} {figures(found)}")
    for store in stores:
        store.close()


def main() -> int:
    """Learn, build and ask, for each half."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("--misses", type=int, default=0, metavar="N")
    parser.add_argument("--keep", type=Path, help="a folder for the indexes, to ask them again")
    options = parser.parse_args()
    asked = list(queries(open_index(read_settings())[0]))
    with tempfile.TemporaryDirectory() as folder:
        place = options.keep or Path(folder)
        paths = [place / f"half{half}.sqlite" for half in (0, 1)]
        learned = [place / f"half{half}.txt" for half in (0, 1)]
        for half in (0, 1):
            fit = [sys.executable, str(HERE / "fit_associations.py"), "--left-out", str(half)]
            subprocess.run([*fit, "--to", str(learned[half])], check=True)
            bare_index(paths[half], learned[half])
        if options.keep:
            keep_queries(options.keep, asked)
        print("all")
        ask(paths, asked, options.misses)
        for part, patch in WITHOUT.items():
            print(f"without {part}")
            for half in (0, 1):
                rows = lexicon.read_associations(str(learned[half]))
                known = mock.patch.object(lexicon, "read_associations", lambda rows=rows: rows)
                with known, patch():
                    rewrite_relations(paths[half])
            ask(paths, asked, 0)
    return 0


if __name__ == "__main__":
    sys.exit(main())
