"""`words`: the vocabulary to search with, with counts."""

from __future__ import annotations

import argparse
from fnmatch import fnmatchcase

from dowsing.cli.commands.find import LISTS, add_filters, filters_of, refuse_unknown
from dowsing.cli.listed import remember_own
from dowsing.index.word_reader import meaning_groups
from dowsing.model.errors import Failure
from dowsing.model.paths import as_text
from dowsing.render.entry_groups import Counted, count_lines
from dowsing.render.typed import typed
from dowsing.search.filters import COLUMNS, narrowed
from dowsing.session.session import Session

DESCRIPTION = (
    "Which verbs, nouns, packages, families and kinds there are to search by, with the number of "
    "their entries. A verb or noun stands for a group of words that mean the same."
)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument("what_words", choices=list(LISTS), metavar="WHICH", help=", ".join(LISTS))
    parser.add_argument(
        "pattern", nargs="?", default="", metavar="PATTERN", help="only these: 're*', or a part"
    )
    add_filters(parser)
    parser.add_argument(
        "--limit",
        type=int,
        choices=range(1, 100_001),
        default=40,
        metavar="N",
        help="at most so many (40)",
    )


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    filters = filters_of(options)
    within = narrowed(session.store, filters, options=True)
    which = options.what_words
    option = LISTS[which]
    equal = meaning_groups(session.store, which) if which in ("verbs", "nouns") else {}
    counts = [
        Counted(word, count, equal.get(word, []))
        for word, count in session.store.vocabulary(COLUMNS[option], within)
    ]
    asked = as_text(options.pattern).casefold()
    if asked:
        counts = [one for one in counts if _is_asked(one, asked)]
    if session.json:
        session.print_json({"what": which, "total": len(counts), "words": counts[: options.limit]})
        return 0 if counts else 1
    if not counts:
        refuse_unknown(session, filters)
        like = f" like “{asked[:40]}”" if asked else ""
        raise Failure(f"there are no {which}{like} in {filters.described() or 'the index'}")
    remember_own(session, [["find", f"--{option}", one.word] for one in counts[: options.limit]])
    example = f"{session.program} find --{option} {typed(counts[0].word)}"
    session.screen.show(count_lines(which, counts, options.limit, session.screen.width, example))
    return 0


def _is_asked(one: Counted, pattern: str) -> bool:
    """Whether the word, or one that means the same, matches a pattern, or has it as a part."""
    if not set(pattern) & set("*?["):
        pattern = f"*{pattern}*"
    return any(fnmatchcase(word.casefold(), pattern) for word in (one.word, *one.equal))
