"""Info files to nodes. The format is described in the Texinfo manual, "Info Format Specification".

Nodes are found by their own headers, so that a damaged tag table does no harm; what is wrong with
it is told.
"""

from __future__ import annotations

import os
import re

from dowsing.model.errors import Unreadable
from dowsing.model.markup import clean, clean_line
from dowsing.readers.decoding import decode, packed_or_not, read_bytes

_SPLIT = re.compile(r"\n?\x1f\x0c?\n")
_FIELD = re.compile(r"(File|Node|Next|Prev|Up):\s+(?:\x7f([^\x7f]*)\x7f|([^,\t\n]*))")
_DIR_ENTRY = re.compile(
    r"^\* ([^:\n]+): +\(([^)\n]*)\)([^.\n\t]*)\.[ \t]*(.*(?:\n[ \t]+\S.*)*)", re.MULTILINE
)
_DIR_BLOCK = re.compile(
    r"^START-INFO-DIR-ENTRY\n(.*?)^END-INFO-DIR-ENTRY", re.MULTILINE | re.DOTALL
)
_TAG = re.compile(r"^(Node|Ref): (.*)\x7f(-?\d+)", re.MULTILINE)
MOST_PIECES = 400


class Node:
    """A node: its name, its neighbours' names ("" for none) and its text without the header
    line.
    """

    __slots__ = ("name", "next", "prev", "start", "text", "up")

    def __init__(self, name: str, fields: dict[str, str], text: str, start: int) -> None:
        self.name = name
        self.next = fields.get("Next", "")
        self.prev = fields.get("Prev", "")
        self.up = fields.get("Up", "")
        self.text = text
        self.start = start  # of its header, in characters from the beginning of all text


class DirEntry:
    """What an Info directory lists: a label, the manual and node it leads to, and a description."""

    __slots__ = ("file", "label", "node", "text")

    def __init__(self, label: str, file: str, node: str, text: str) -> None:
        self.label = label
        self.file = file
        self.node = node or "Top"
        self.text = text


class InfoFile:
    """A manual: all nodes by name in the order of the file, its directory entries, and what is
    wrong with it.

    `anchors` are other names for a place in a node, with the node's name.
    """

    def __init__(self, path: str) -> None:
        self.path = path
        self.nodes: dict[str, Node] = {}
        self.anchors: dict[str, str] = {}
        self.entries: list[DirEntry] = []
        self.problems: list[str] = []

    def find(self, name: str) -> Node | None:
        """The node of that name or anchor, without regard to case and blanks if there is none
        exactly so.
        """
        wanted = name_of_node(name)
        node = self.nodes.get(wanted) or self.nodes.get(self.anchors.get(wanted, ""))
        if node is not None:
            return node
        key = wanted.casefold()
        for other in self.nodes.values():
            if " ".join(other.name.split()).casefold() == key:
                return other
        return None


def read_info_file(path: str) -> InfoFile:
    """All nodes of the manual whose main file is `path`. Raises Unreadable."""
    info = InfoFile(path)
    text = _text(path)
    parts = _SPLIT.split(text)
    info.entries = directory_entries("\n".join(_DIR_BLOCK.findall(parts[0])))
    indirect = next((part for part in parts if part.startswith("Indirect:")), None)
    tags = next((part for part in parts if part.startswith("Tag Table:")), None)
    if indirect is not None:
        at = 0
        for piece in _pieces(indirect, info, path):
            _take_nodes(piece, info, at)
            at += len(piece)
    else:
        _take_nodes(text, info, 0)
    if not info.nodes:
        raise Unreadable("there is no node in it")
    _check_tags(tags, info, len(text.encode()) if indirect is None else None)
    return info


def _text(path: str) -> str:
    return decode(
        read_bytes(path)
        .replace(b"\x00\x08[", b"\x02[")
        .replace(b"\x00\x08]", b"\x03]")
        .replace(b"\x00", b"")
    )


def _pieces(indirect: str, info: InfoFile, path: str) -> list[str]:
    """The texts of the pieces of a split manual; those missing are told."""
    texts = []
    names = re.findall(r"^(\S[^\n:]*): \d+", indirect, re.MULTILINE)
    for name in names[:MOST_PIECES]:
        base = os.path.join(os.path.dirname(path), os.path.basename(name))
        file = packed_or_not(base)
        if file is None:
            info.problems.append(f"its part {clean_line(name)} is missing")
            continue
        try:
            texts.append(_text(file))
        except Unreadable as error:
            info.problems.append(f"its part {clean_line(name)} cannot be read: {error}")
    return texts


def _take_nodes(text: str, info: InfoFile, offset: int) -> None:
    at = text.find("\x1f")
    while at >= 0:
        end = text.find("\x1f", at + 1)
        part = text[at + 1 : end if end >= 0 else len(text)].lstrip("\x0c").lstrip("\n")
        header, _, body = part.partition("\n")
        if "Node:" in header:
            fields = {
                match[1]: name_of_node(match[2] if match[2] is not None else match[3])
                for match in _FIELD.finditer(header)
            }
            name = fields.get("Node", "")
            if name and name not in info.nodes:
                info.nodes[name] = Node(name, fields, body.rstrip("\n"), offset + at)
        at = end


def name_of_node(written: str) -> str:
    """The name of a node as it is kept and shown: one line without control characters, whatever the
    file holds.
    """
    return " ".join(clean(written).split())


def _check_tags(tags: str | None, info: InfoFile, size: int | None) -> None:
    """Take the anchors from the tag table; say what is wrong with it."""
    if tags is None:
        return
    starts = sorted((node.start, node.name) for node in info.nodes.values())
    lost = []
    for kind, name, place in _TAG.findall(tags):
        if kind == "Node":
            if name_of_node(name) not in info.nodes or (
                size is not None and not 0 <= int(place) <= size
            ):
                lost.append(name)
        else:
            # places are counted in bytes, ours in characters: near enough, as anchors stand inside
            # nodes
            before = [node for start, node in starts if start <= int(place)]
            if before:
                info.anchors[name_of_node(name)] = before[-1]
    if lost:
        info.problems.append(
            f"its tag table is broken ({len(lost)} places are wrong, such as "
            f"“{clean_line(lost[0][:40])}”); "
            "the nodes were found by their own headers"
        )


def read_directory(folder: str) -> list[DirEntry]:
    """The entries of the `dir` file of a folder; none if there is none that can be read."""
    path = packed_or_not(os.path.join(folder, "dir"))
    if path is None:
        return []
    try:
        return directory_entries(_text(path))
    except Unreadable:
        return []


def directory_entries(text: str) -> list[DirEntry]:
    """The entries of an Info directory or of a file's own block for it."""
    return [
        DirEntry(
            name_of_node(label), clean_line(file.strip()), name_of_node(node), name_of_node(words)
        )
        for label, file, node, words in _DIR_ENTRY.findall(text)
    ]
