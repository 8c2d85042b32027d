"""A document that is open for reading, with the other texts of the same name."""

from __future__ import annotations

from dowsing.model.document import Document
from dowsing.model.errors import Failure, Unreadable
from dowsing.model.source_name import SourceName
from dowsing.session.naming import find_entry, open_found, subject_of
from dowsing.session.session import Session
from dowsing.sources import catalogue


class Opened:
    """A document of a name. `sources` are all that have a text, the one that is shown first in
    `document`.
    """

    def __init__(self, session: Session, name: str) -> None:
        self.session = session
        self.found = find_entry(session, [name])
        entry = self.found.entry
        assert entry is not None
        self.label = entry.label
        self.entry = entry
        self.document: Document = open_found(session, self.found)
        self.subject = subject_of(session, self.found, ask=False)
        self.sources = [self.document.source, *catalogue.others(self.subject, self.document.source)]
        self.source = self.document.source
        self._shown: dict[str, Document] = {self.source: self.document}

    def turn_to(self, source: str) -> None:
        """Show another source. Raises Failure if it has nothing after all."""
        plain_name = source.rstrip("?")
        if plain_name not in self._shown:
            subject = subject_of(self.session, self.found, ask=True)
            held = next(
                (one for one in catalogue.availability_of(subject, plain_name) if one.present), None
            )
            if held is None:
                self.sources = [one for one in self.sources if one != source]
                raise Failure(f"{self.entry.name} has no text in the source {plain_name}")
            try:
                self._shown[plain_name] = catalogue.read(subject, held)
            except Unreadable as error:
                raise Failure(f"{held.where} cannot be read: {error}", status=3) from None
        self.sources = [plain_name if one == source else one for one in self.sources]
        self.source = plain_name
        self.document = self._shown[plain_name]

    def node(self, target: str) -> bool:
        """Turn to another node of the Info manual that is shown; whether there is one of that
        name.
        """
        from dowsing.sources import info

        subject = subject_of(self.session, self.found, ask=False)
        held = next(
            (one for one in catalogue.availability_of(subject, SourceName.INFO) if one.present),
            None,
        )
        if self.source != SourceName.INFO or held is None:
            return False
        try:
            self.document = info.read_node(subject, held, target)
        except Unreadable:
            return False
        return True
