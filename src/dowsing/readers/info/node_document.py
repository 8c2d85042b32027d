"""A node with all nodes below it as one Document."""

from __future__ import annotations

from dowsing.model.document import Document, Section
from dowsing.model.errors import Unreadable
from dowsing.model.markup import clean_line
from dowsing.readers.info.content import node_sections
from dowsing.readers.info.info_file import InfoFile, Node
from dowsing.readers.info.menus import below, whole


def node_document(
    info: InfoFile, node_name: str, name: str, *, package: str | None = None
) -> Document:
    """The Document of a node and what is below it. Raises Unreadable if there is no such node."""
    node = info.find(node_name)
    if node is None:
        raise Unreadable(f"it has no node “{clean_line(node_name[:60])}”")
    nodes = whole(info) if node.name == "Top" else below(info, node)
    sections: list[Section] = []
    for one, depth in nodes:
        sections += node_sections(one.text, one.name, depth)
    return Document(
        name,
        "info",
        "info",
        sections,
        names=[name],
        summary=_summary(info, node, name),
        path=info.path,
        package=package,
    )


def _summary(info: InfoFile, node: Node, name: str) -> str:
    """What the manual's own directory entry says of the name, else the node's title."""
    for entry in info.entries:
        if entry.label == name and entry.text:
            return clean_line(entry.text.rstrip("."))
    return clean_line(
        next((line.strip() for line in node.text.split("\n") if line.strip()), "")[:200]
    )
