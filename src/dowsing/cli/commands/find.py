"""`find`: entries by words, patterns on names, verbs, nouns, options and what else narrows."""

from __future__ import annotations

import argparse

from dowsing.index.absent_rows import absent_for, says_all
from dowsing.index.command_rows import pageless_programs
from dowsing.machine.shells.choice import own_shell
from dowsing.model.errors import Failure
from dowsing.model.markup import clean_line
from dowsing.render.entry_list import hit_lines
from dowsing.render.line_marks import FAINT
from dowsing.render.typed import typed
from dowsing.render.wrap import wrap
from dowsing.search.filters import KINDS, Filters
from dowsing.search.message_words import may_be_pasted
from dowsing.search.searching import Hit, SearchAnswer, make_query, search
from dowsing.session.session import Session
from dowsing.session.user_data import own_matching
from dowsing.tasks.remembered import ListKind, Remembered, remember
from dowsing.userdata.matches import KeptMatches

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.knowledge.absent import AbsentCommand
    from dowsing.tasks.answers import Task

#: Fewer than so many found: what was never asked may be it.
FEW_FOUND = 5
MOST_SHOWN = 20  # entries, unless it is said
MOST_ABSENT = 2  # commands that are not here
BEST = 3  # hits that may do what is looked for

DESCRIPTION = (
    "Finds entries by what they are for: words or a whole sentence, the best first. "
    "A word with * ? or [...] is a pattern that a name must match (quote it)."
)
MOST_FILTER = 200
#: Options whose value may look like an option itself: `--takes --dry-run`.
TAKES_OPTIONS = ("--takes",)
#: Lists of `words`, and the filter that each is for.
LISTS = {
    "verbs": "does",
    "nouns": "what",
    "packages": "package",
    "families": "family",
    "kinds": "kind",
}


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument(
        "words", nargs="*", metavar="WORD", help="a word, or a pattern such as '*zip*'"
    )
    add_filters(parser)
    parser.add_argument(
        "--limit", type=_count, default=MOST_SHOWN, metavar="N", help="at most so many (20)"
    )
    parser.add_argument("--count", action="store_true", help="only say how many match")
    parser.add_argument(
        "--why", action="store_true", help="say of each why it was found and stands where it does"
    )


def add_filters(parser: argparse.ArgumentParser) -> None:
    """The options that narrow entries."""
    group = parser.add_argument_group("narrow to (each a word, a name or a pattern)")
    group.add_argument(
        "--does", default="", metavar="VERB", help="what it does: remove, list, convert …"
    )
    group.add_argument("--what", default="", metavar="NOUN", help="to what: file, disk, user …")
    group.add_argument(
        "--takes",
        default="",
        metavar="OPTION",
        help="an option: recursive, --takes=-r, 'exclude dir'",
    )
    group.add_argument("--package", default="", metavar="P", help="entries of this package")
    group.add_argument("--family", default="", metavar="F", help="a program and its subcommands")
    group.add_argument("--without", default="", metavar="F", help="leave this family out")
    group.add_argument("--kind", default="", metavar="K", help=", ".join(KINDS[:8]) + " …")
    group.add_argument(
        "--section", default="", metavar="S", help="a section, such as 1 or 3pm, or builtin"
    )


def filters_of(options: argparse.Namespace) -> Filters:
    """The filters of a command line. Raises Failure for a kind that there is not."""
    kind = options.kind
    if kind and not any(sign in kind for sign in "*?[") and kind not in KINDS:
        from dowsing.model.nearness import nearest_words

        near = nearest_words(kind, KINDS, 1)
        meant = f"nearest: {near[0]}; " if near else ""
        kinds = ", ".join(KINDS)
        raise Failure(f"there is no kind “{kind[:40]}”; {meant}kinds are {kinds}", status=2)
    return Filters(**{name: getattr(options, name)[:MOST_FILTER] for name in Filters._fields})


def refuse_unknown(session: Session, filters: Filters) -> None:
    """Raise Failure if a filter has a value that no entry has."""
    from dowsing.search.filters import unknown_value

    unknown = unknown_value(session.store, filters)
    if unknown is not None:
        what, value, near = unknown
        lists = next((name for name, option in LISTS.items() if what in (option, name[:-1])), "")
        hint = f"what there is: {session.program} words {lists}"
        if what == "section":
            hint = f"there are {', '.join(word for word, _ in session.store.vocabulary('section'))}"
        raise Failure(
            f"there is no {what} “{value[:40]}”; {'nearest' if near else hint}", nearest=near
        )


def _count(text: str) -> int:
    if not text.isdecimal() or not 0 < int(text) <= 100_000:
        raise argparse.ArgumentTypeError(f"a limit is a number from 1 to 100000, not {text!r}")
    return int(text)


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    filters = filters_of(options)
    if not any(word.strip() for word in options.words) and not filters.any:
        raise Failure("say what to look for, for example: dowsing find delete file", status=2)
    found = searched(session, options.words, options.limit, filters, options.why)
    return tell(session, options.words, found, options.count, options.why)


def searched(
    session: Session,
    words: list[str],
    limit: int = MOST_SHOWN,
    filters: Filters | None = None,
    why: bool = False,
) -> SearchAnswer:
    """What is found. Raises Failure where there is nothing to look for."""
    shell = own_shell(session.settings, session.store.shells())
    query = make_query(words, limit, filters).changed(shell=shell)
    if (
        not query.words
        and not query.patterns
        and (any(word.strip() for word in words) or not query.filters.any)
    ):
        raise Failure(
            f"there is nothing to look for in “{' '.join(words)[:60]}”; give a word or a pattern"
        )
    return search(session.store, query, why or session.json)


def tell(
    session: Session,
    words: list[str],
    found: SearchAnswer,
    count: bool = False,
    why: bool = False,
    task: Task | None = None,
) -> int:
    """Print what was found; `task`: a line that does what is said, which stands above it."""
    own = _kept(session, words)
    if found.hits and not count:
        labels = [hit.entry.label for hit in found.hits]
        remember(session.settings.data, Remembered(ListKind.NAMES, " ".join(words), [], labels))
    if session.json:
        absent = _absent_for(session, found)
        session.print_json({**as_json(found), "kept": own, "absent": absent})
        return 0 if found.total else 1
    if count:
        session.screen.show([str(found.total)])
        return 0 if found.total else 1
    if not found.total and own.any:
        from dowsing.render.kept_lists import kept_lines

        session.screen.show(kept_lines(own, session.screen.width, session.program))
        return 0
    if not found.total:
        raise _nothing(session, words, found)
    more = []
    rich = session.screen.is_terminal or session.screen.color
    if rich and found.total > len(found.hits):
        from dowsing.search.hints import hints

        more = hints(session.store, found.numbers, found.query.filters, found.query.words)
    lines = hit_lines(found, session.screen.width, session.program, more, rich, why)
    below = _not_here(session, _absent_for(session, found)) + _no_pages(session)
    if asked := _never_asked(session, found):
        below += [f"{FAINT}{line}" for line in wrap(asked, session.screen.width)]
    above = _above(session, words) if task is None else _line_above(session, task)
    lines = [*above, *lines, *below]
    if own.any:
        from dowsing.render.kept_lists import kept_lines

        lines += ["", *kept_lines(own, session.screen.width, session.program)]
    session.screen.show(lines)
    return 0


def _nothing(session: Session, words: list[str], found: SearchAnswer) -> Failure:
    """The failure that nothing was found, and how to look otherwise."""
    query = found.query
    if query.filters.any:
        refuse_unknown(session, query.filters)
        asked = f"for “{' '.join(words)[:100]}” " if any(words) else ""
        return Failure(
            f"nothing found {asked}in {query.filters.described()}; "
            f"{_wider(session, words, query.filters)}"
        )
    absent = _absent_for(session, found)
    if absent:
        from dowsing.render.absent_lines import not_here_words

        says = not_here_words(absent)
    else:
        says = _never_asked(session, found)
    return Failure(
        f"nothing found for “{' '.join(words)[:200]}”; try fewer or shorter words, "
        f"or a pattern: {session.program} find '*{(query.words or ['part'])[0][:20]}*'"
        f"{'; ' if says else ''}{says}"
    )


def _no_pages(session: Session) -> list[str]:
    """That there are no manual pages here, which what is found goes without, and how they come
    back.
    """
    if session.store.pages:
        return []
    from dowsing.machine.pages_left_out import how_pages_come_back

    says = f"There are no manual pages here: {how_pages_come_back(session.settings)}."
    return [f"{FAINT}{line}" for line in wrap(says, session.screen.width)]


def _never_asked(session: Session, found: SearchAnswer) -> str:
    """Where little was found, the folder of PATH with most programs that have no page and were
    never asked, in words; "" if there is none.
    """
    from dowsing.render.search_words import relaxed_words

    if session.settings.demo or (found.total >= FEW_FOUND and not relaxed_words(found)):
        return ""
    from dowsing.sources.never_asked import never_asked

    folders = never_asked(pageless_programs(session.store), session.settings)
    if not folders:
        return ""
    folder, count = max(folders.items(), key=lambda one: one[1])
    shown = clean_line(folder)
    return (
        f"{count} programs in {shown} have no manual page and were never asked what they do: "
        f"{session.program} index --usage {typed(shown)}"
    )


def _above(session: Session, words: list[str]) -> list[str]:
    """What the words mean where they are a message or another thing that is pasted, not a name."""
    if not may_be_pasted(words):
        return []
    from dowsing.render.pasted_lines import above_lines
    from dowsing.search.pasted import pasted_message
    from dowsing.session.pasting import sign_of

    pasted = sign_of(session, words) or pasted_message(words)
    return above_lines(pasted, session.screen.width) if pasted is not None else []


def _not_here(session: Session, absent: list[AbsentCommand]) -> list[str]:
    """Commands that are not here, in a line or two."""
    if not absent:
        return []
    from dowsing.render.absent_lines import not_here_lines

    return not_here_lines(absent, session.screen.width)


def with_first(session: Session, found: SearchAnswer, command: str) -> SearchAnswer:
    """The same with the page of a command first, if it has one."""
    from dowsing.session.naming import named

    entry = named(session, command.split()).entry
    if entry is None:
        return found
    first = [hit for hit in found.hits if hit.entry.label == entry.label]
    others = [hit for hit in found.hits if hit.entry.label != entry.label]
    if not first:
        first = [Hit(entry, 0.0, None, 0, [])]
        others = others[: found.query.limit - 1]
    return found.changed(hits=[*first, *others])


def _absent_for(session: Session, found: SearchAnswer) -> list[AbsentCommand]:
    """Commands that are not here and do what is looked for, where none of the best that are here
    says that it does.
    """
    terms = [term.term for term in found.terms]
    known = absent_for(session.store, terms)
    best = [hit.entry for hit in found.hits[:BEST]]
    if not known or says_all(session.store, best, terms):
        return []
    from dowsing.session.absent import not_here

    return not_here(session, known)[:MOST_ABSENT]


def _line_above(session: Session, task: Task) -> list[str]:
    """The line for a request, and how to get more than it."""
    from dowsing.render.task_answers import line_in_short

    return [*line_in_short(task, session.screen.width, session.program), ""]


def _kept(session: Session, words: list[str]) -> KeptMatches:
    """What the user keeps that has these words."""
    if not any(words):
        return KeptMatches([], [])
    return own_matching(session, words)


def _wider(session: Session, words: list[str], filters: Filters) -> str:
    """How to look without filters, or at what there is to narrow to."""
    if any(words):
        return (
            f"without that: {session.program} find {' '.join(typed(word) for word in words)[:100]}"
        )
    which = next((name for name, option in LISTS.items() if getattr(filters, option)), "")
    return f"what there is: {session.program} words {which or 'verbs'}"


def as_json(found: SearchAnswer) -> dict[str, object]:
    """The answer in the form of the JSON contract."""
    from dowsing.render.search_words import relaxed_words, score_words

    entries = []
    for hit in found.hits:
        entry = {name: getattr(hit.entry, name) for name in hit.entry._fields}
        told = {
            "score": hit.score,
            "why": score_words(hit.breakdown),
            "folded": hit.folded,
            "options": hit.options,
        }
        entries.append({**entry, **told})
    return {
        "query": found.query,
        "total": found.total,
        "relaxed": relaxed_words(found) or None,
        "entries": entries,
    }
