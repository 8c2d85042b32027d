"""The source `info`: the node of a name in the Info manuals, with all nodes below it."""

from __future__ import annotations

from dowsing.facts import with_facts
from dowsing.model.document import Document
from dowsing.sources.source import Holding, Subject, nothing

NAME = "info"


def holdings(subject: Subject) -> list[Holding]:
    """The nodes that the Info manuals have for the name, the likeliest first."""
    found = [
        Holding(NAME, True, where=f"({place.manual}){place.node} {place.path}", path=place.path, detail=place.node)
        for place in subject.store.info_places(subject.name)[:3]
    ]
    return found[:1] or nothing(NAME, "no Info manual has a node for it")


def read(subject: Subject, holding: Holding) -> Document:
    """The node and what is below it."""
    return read_node(subject, holding, holding.detail)


def read_node(subject: Subject, holding: Holding, node: str) -> Document:
    """Another node of the same manual, by its name. Raises Unreadable if there is none."""
    from dowsing.readers.info.info_file import read_info_file
    from dowsing.readers.info.node_document import node_document

    info = read_info_file(holding.path)
    document = with_facts(node_document(info, node, subject.name))
    document.origin = "; ".join(info.problems)
    return document
