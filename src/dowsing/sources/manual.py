"""The sources `manual` and `standard`: manual pages, told apart by the suffix of their section."""

from __future__ import annotations

import re

from dowsing.model.errors import Unreadable
from dowsing.model.source_name import SourceName
from dowsing.readers.decoding import read_text
from dowsing.sources import page_files
from dowsing.sources.source import Availability, Subject, nothing

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Document
    from dowsing.model.entry import Entry

_STANDARD = r"[0-9](?:p|posix|x|susv[0-9])\Z"
_SAYS_STANDARD = r"POSIX|IEEE|Open Group|Single UNIX|ISO/IEC"


def is_standard(entry: Entry) -> bool:
    """Whether a page is that of a standard: its section has the suffix, and the page says so."""
    if len(entry.section) < 2 or not re.match(_STANDARD, entry.section, re.IGNORECASE):
        return False
    if entry.section.endswith("posix"):
        return True
    try:
        return re.search(_SAYS_STANDARD, read_text(entry.path)[:4000]) is not None
    except Unreadable:
        return False


def availability(subject: Subject, source: str = "manual") -> list[Availability]:
    """The pages of the name that belong to the source."""
    found = [
        Availability(
            source, True, where=f"{entry.label} {entry.path}", path=entry.path, detail=entry.label
        )
        for entry in subject.entries
        if entry.path
        and entry.section not in ("", "builtin")
        and is_standard(entry) == (source == SourceName.STANDARD)
    ]
    if source == SourceName.STANDARD:
        return found or nothing(source, "no page of a standard")
    return found or nothing(source, "no manual page")


def read(subject: Subject, held: Availability) -> Document:
    """The page."""
    for entry in subject.entries:
        if entry.label == held.detail:
            page = page_files.read_page_file(
                entry.path, entry.name, entry.section, package=entry.package
            )
            page.source = held.source
            return page
    raise Unreadable("the page is not in the index any more")
