"""What the commands that take a NAME have in common."""

from __future__ import annotations

import re

from dowsing.model.entry import EntryKind
from dowsing.model.errors import Failure, Unreadable
from dowsing.model.names import Name, is_plausible, is_typed, readings
from dowsing.model.paths import as_text
from dowsing.model.source_name import SourceName
from dowsing.readers.usage.usage_kind import UsageKind
from dowsing.render.typed import typed, typed_words
from dowsing.search.lookup import Lookup, look_up
from dowsing.sources import page_files
from dowsing.sources.manual_folders import language_of
from dowsing.terminal.screen import message

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Document
    from dowsing.model.entry import Entry
    from dowsing.session.session import Session
    from dowsing.sources.source import Subject


_SUBCOMMAND = re.compile(r"[a-z0-9][\w.:+-]*")


def named(session: Session, words: list[str]) -> Lookup:
    """What the words name, without the nearest names where they name nothing."""
    found = look_up(session.store, words, session.settings, nearest=False)
    if found.entry is None:
        return _with_own_help(session, words) or found
    return _as_made(session, found)


def maker_of_entry(session: Session, entry: Entry) -> str:
    """The program of many in one that runs for an entry, `busybox`; "" where it is its own."""
    if not is_typed(entry.section) or entry.section == "builtin" or " " in entry.name:
        return ""
    from dowsing.machine.many_in_one import maker_of

    return maker_of(entry.name, session.settings.search_path)


def _as_made(session: Session, found: Lookup) -> Lookup:
    """What was found, as what would run says: a page tells of another where one of many in one
    runs. A page that was asked for by its section stays.
    """
    entry = found.entry
    if entry is None or found.name.section or not entry.section:
        return found
    if not maker_of_entry(session, entry):
        return found
    own = entry.changed(section="", aliases=[], package=None, sources=[SourceName.USAGE])
    return found.changed(entry=own, others=[entry, *found.others])


def _with_own_help(session: Session, words: list[str]) -> Lookup | None:
    """A subcommand that only the help of its program tells of, `pip install`; None if the words are
    none. The program is asked, where its help lists the first of the words.
    """
    words = " ".join(words).split()
    if len(words) < 2 or not all(_SUBCOMMAND.fullmatch(word) for word in words):
        return None
    first = look_up(session.store, words[:1], session.settings, nearest=False).entry
    if first is None or not is_typed(first.section) or first.name != words[0]:
        return None
    from dowsing.sources import catalogue
    from dowsing.sources.subcommand_usage import ask_subcommand

    programs = catalogue.subject_of(
        words[0], first, session.store, session.settings, ask=True
    ).executables
    if not programs:
        return None
    spoken = " ".join(words)
    # a page that is there is the better text, and no reason to run anything
    asks = first.section == ""
    usage = ask_subcommand(programs[0], words[1:], session.settings, asks)
    if usage is None or usage.kind != UsageKind.USAGE:
        return None
    entry = first.changed(
        name=spoken, section="", aliases=[], kind=EntryKind.SUBCOMMAND, summary="",
        family=words[0], sources=[SourceName.USAGE],
    )  # fmt: skip
    return Lookup(spoken, Name(spoken), entry, [], [])


def find_entry(session: Session, words: list[str]) -> Lookup:
    """The entry that the words name. Raises Failure with the nearest names if there is none."""
    words = [as_text(word) for word in words]
    asked = " ".join(words).strip()
    if not asked:
        raise Failure("say a name, for example: dowsing read tar", status=2)
    if not is_plausible(asked):
        raise Failure(
            f"“{asked[:60]}” cannot be a name: a name has no slash and no control characters"
        )
    found = look_up(session.store, words, session.settings)
    found = _with_own_help(session, words) or found if found.entry is None else found
    if found.entry is not None:
        return _as_made(session, found)
    for name in readings(words):
        problem = session.store.problem_of(name.text, name.section)
        if problem:
            raise Failure(
                f"the page of {asked} cannot be read: {problem.says} ({problem.path})", status=3
            )
    from dowsing.index.absent_rows import is_known_absent

    if is_known_absent(session.store, asked):
        raise Failure(
            f"{asked[:80]} is not installed here; what is known of it: "
            f"{session.program} {typed(asked)}"
        )
    hint = (
        "nearest names"
        if found.nearest
        else f"search with: {session.program} find {typed_words(asked)}"
    )
    raise Failure(f"there is no page named {asked[:80]}; {hint}", nearest=found.nearest)


def subject_of(session: Session, found: Lookup, ask: bool) -> Subject:
    """What was looked up, for the sources. `ask`: programs may be run for their usage."""
    from dowsing.sources import catalogue

    assert found.entry is not None
    # a name in another case, or one that was only a way of writing it, is taken as the entry has it
    names = {found.entry.name, *found.entry.aliases}
    name = found.name.text if found.name.text in names else found.entry.name
    return catalogue.subject_of(
        name, found.entry, session.store, session.settings, ask=ask, section=found.name.section
    )


def open_found(session: Session, found: Lookup, language: str | None = None) -> Document:
    """The document of what was found: its page, or the best source there is for a name without
    one.
    """
    assert found.entry is not None
    if found.entry.section not in ("", "builtin"):
        return open_document(session, found.entry, language)
    from dowsing.sources import catalogue

    try:
        return catalogue.best(subject_of(session, found, ask=True))
    except Unreadable as error:
        label = found.entry.label
        raise Failure(
            f"nothing here documents {label}: {error}; where it comes from: {session.program} "
            f"resolve {typed(found.entry.name)}"
        ) from None


def open_document(session: Session, entry: Entry, language: str | None = None) -> Document:
    """The page of an entry, in a language if one is asked for or set and there is a translation."""
    wanted = session.settings.language if language is None else language
    path = entry.path
    code = language_of(path, session.settings)
    if code and code not in (wanted, wanted.split("_")[0]):
        message(f"{entry.label} is here only in the language {code}")
    elif wanted and wanted != "en" and not code:
        translated = page_files.translation(session.settings, entry.path, wanted)
        if translated:
            path, code = translated, wanted
        elif language is not None:
            message(
                f"{entry.label} is not translated to {wanted}; this is the page as it was written"
            )
    try:
        return page_files.read_page_file(
            path, entry.name, entry.section, package=entry.package, language=code
        )
    except Unreadable as error:
        raise Failure(f"the page {path} cannot be read: {error}", status=3) from None


def any_subject(session: Session, words: list[str], ask: bool) -> Subject:
    """What the words name, whether or not the index knows it: a program may be on PATH and nowhere
    else.

    Raises Failure if the words cannot be a name.
    """
    from dowsing.sources import catalogue

    asked = " ".join(words).strip()
    if not asked:
        raise Failure("say a name, for example: dowsing resolve kill", status=2)
    if not is_plausible(as_text(asked)):
        raise Failure(
            f"“{asked[:60]}” cannot be a name: a name has no slash and no control characters"
        )
    found = named(session, [as_text(word) for word in words])
    if found.entry is not None:
        return subject_of(session, found, ask)
    return catalogue.subject_of(asked, None, session.store, session.settings, ask=ask)


def unknown(session: Session, name: str) -> Failure:
    """The failure that there is nothing of that name here, with the nearest names."""
    from dowsing.index.nearest_names import nearest_names

    nearest = nearest_names(session.store, name)
    hint = (
        "nearest names"
        if nearest
        else f"search with: {session.program} find {typed_words(name[:40])}"
    )
    return Failure(f"nothing here is named {name[:80]}; {hint}", nearest=nearest)
