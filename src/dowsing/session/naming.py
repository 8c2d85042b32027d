"""What the commands that take a NAME have in common."""

from __future__ import annotations

from dowsing.model.errors import Failure, Unreadable
from dowsing.model.names import is_plausible, readings
from dowsing.model.paths import as_text
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


def named(session: Session, words: list[str]) -> Lookup:
    """What the words name, without the nearest names where they name nothing."""
    return look_up(session.store, words, session.settings, nearest=False)


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
    if found.entry is not None:
        return found
    for name in readings(words):
        problem = session.store.problem_of(name.text, name.section)
        if problem:
            raise Failure(
                f"the page of {asked} cannot be read: {problem.says} ({problem.path})", status=3
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
