"""The source `info`: the node of a name in the Info manuals, with all nodes below it."""

from __future__ import annotations

from dowsing.facts import with_facts
from dowsing.model.source_name import SourceName
from dowsing.sources.source import Availability, Subject, nothing

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Document
    from dowsing.readers.info.info_file import InfoFile

NAME = SourceName.INFO


def availability(subject: Subject) -> list[Availability]:
    """The nodes that the Info manuals have for the name, the likeliest first."""
    found = [
        Availability(
            NAME,
            True,
            where=f"({place.manual}){place.node} {place.path}",
            path=place.path,
            detail=place.node,
        )
        for place in subject.store.info_places(subject.name)[:3]
    ]
    return found[:1] or nothing(NAME, "no Info manual has a node for it")


def read(subject: Subject, held: Availability) -> Document:
    """The node and what is below it."""
    return read_node(subject, held, held.detail)


def read_node(subject: Subject, held: Availability, node: str) -> Document:
    """Another node of the same manual, by its name. Raises Unreadable if there is none."""
    from dowsing.readers.info.node_document import node_document

    info = manual_of(subject, held.path)
    document = with_facts(node_document(info, node, subject.name))
    document.origin = "; ".join(info.problems)
    return document


def manual_of(subject: Subject, path: str) -> InfoFile:
    """A whole Info manual, kept for the time of a run: one has the nodes of many names. Raises
    Unreadable.
    """
    from dowsing.readers.info.info_file import read_info_file

    kept: dict[str, InfoFile] = subject.store.memory.setdefault("Info manuals", {})
    if path not in kept:
        kept[path] = read_info_file(path)
    return kept[path]
