"""Whether a page is of the version that is installed: what the program's own usage text has and the
page has not, and the other way round.
"""

from __future__ import annotations

from dowsing.comparing.differences import Difference, DifferenceKind, within
from dowsing.comparing.things import Text, Thing, ThingKind, Things
from dowsing.model.record import Record
from dowsing.model.source_name import SourceName
from dowsing.sources.source import Subject

PAGE_AND_USAGE = (SourceName.MANUAL, SourceName.USAGE)
_OF_OPTIONS = (DifferenceKind.OPTION, DifferenceKind.SPELLING)


class Stale(Record):
    """A page beside the usage text of the program.

    `version` is the package of the program with its version, "" if not known; `page` where the
    page is, `page_date` the date that it gives, `asked` what the program was asked with. `lacking`
    is what the page has not, `surplus` what the usage text has not; `partial`: the usage text says
    itself that it is not all, and nothing follows from what it leaves out.
    """

    name: str
    version: str
    page: str
    page_date: str
    asked: str
    lacking: list[Difference]
    surplus: list[Difference]
    partial: bool

    @property
    def differs(self) -> bool:
        """Whether either has what the other has not."""
        return bool(self.lacking or (self.surplus and not self.partial))


def stale(subject: Subject, things: Things) -> Stale | None:
    """Compare the page with the usage text among these texts; None where there are not both."""
    found: dict[str, tuple[Text, Thing]] = {
        text.source: (text, thing) for thing in things.things for text in thing.texts
    }
    if not all(source in found for source in PAGE_AND_USAGE):
        return None
    page, usage = (found[source][0] for source in PAGE_AND_USAGE)
    thing = found[SourceName.USAGE][1]
    told = within(Thing(ThingKind.PROGRAM, thing.name, [page, usage]), facts=False)
    options = [one for one in told if one.what in _OF_OPTIONS]
    return Stale(
        subject.name,
        thing.version,
        page.where,
        page.document.date,
        usage.where,
        [one for one in options if SourceName.MANUAL in one.not_said_by],
        [one for one in options if SourceName.USAGE in one.not_said_by],
        usage.partial,
    )
