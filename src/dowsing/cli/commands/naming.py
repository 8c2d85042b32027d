"""What the commands that take a NAME have in common."""

from __future__ import annotations

from dowsing.cli.failure import Failure
from dowsing.cli.output.terminal import message
from dowsing.cli.session import Session
from dowsing.core.document import Document
from dowsing.core.finding.lookup import Lookup, look_up
from dowsing.core.index.store import Entry
from dowsing.core.names import is_plausible, readings
from dowsing.core.sources import manual
from dowsing.core.sources.pagefile import Unreadable


def find_entry(session: Session, words: list[str]) -> Lookup:
    """The entry that the words name. Raises Failure with the nearest names if there is none."""
    asked = " ".join(words).strip()
    if not asked:
        raise Failure("say a name, for example: dowsing read tar", status=2)
    if not is_plausible(asked):
        raise Failure(f"“{asked[:60]}” cannot be a name: a name has no slash and no control characters")
    found = look_up(session.store, words)
    if found.entry is not None:
        return found
    for name in readings(words):
        problem = session.store.problem_of(name.text, name.section)
        if problem:
            raise Failure(f"the page of {asked} cannot be read: {problem.says} ({problem.path})", status=3)
    hint = "nearest names" if found.nearest else f"search with: {session.program} find {asked}"
    raise Failure(f"there is no page named {asked[:80]}; {hint}", nearest=found.nearest)


def open_document(session: Session, entry: Entry, language: str | None = None) -> Document:
    """The document of an entry, in a language if one is asked for or set and there is a translation."""
    wanted = session.settings.language if language is None else language
    path = entry.path
    code = ""
    if wanted and wanted != "en":
        translated = manual.translation(session.settings, entry.path, wanted)
        if translated:
            path, code = translated, wanted
        elif language is not None:
            message(f"{entry.label} is not translated to {wanted}; this is the page as it was written")
    try:
        return manual.read_page_file(path, entry.name, entry.section, package=entry.package, language=code)
    except Unreadable as error:
        raise Failure(f"the page {path} cannot be read: {error}", status=3) from None
