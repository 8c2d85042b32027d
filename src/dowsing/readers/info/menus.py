"""Menus and indices: the entries that lead from one node to others."""

from __future__ import annotations

import re

from dowsing.model.markup import clean
from dowsing.readers.info.info_file import InfoFile, Node, name_of_node

_ENTRY = re.compile(
    r"\* +(?:(?P<short>(?:\([^)]*\))?[^:\n]+)::|(?P<label>(?:[^:\n]"
    r"|:(?![ \t]))+(?:\n[ \t]+[^:\n]+)?):[ \t]+(?:\n[ \t]*)?"
    r"(?P<target>\([^)\n]*\)[^.,\t\n]*|\x7f[^\x7f]*\x7f|(?:[^.,\t\n]|\.(?=\S)"
    r"|,(?=\S))+)[.,]?)(?P<rest>.*)"
)
_LINE = re.compile(r"\s*\(line\s+\d+\)\s*\Z")
INDEX_MARK = "\x02[index\x03]"


class MenuEntry:
    """An entry: what it is called, the node it leads to (of another manual with that in brackets),
    a description.
    """

    __slots__ = ("label", "target", "text")

    def __init__(self, label: str, target: str, text: str) -> None:
        self.label = label
        self.target = target
        self.text = text


def menu_entries(node: Node) -> list[MenuEntry]:
    """The entries of the node's menu, in order."""
    start = node.text.find("* Menu:")
    if start < 0:
        return []
    return parse_menu(node.text[start:].split("\n")[1:])


def parse_menu(lines: list[str]) -> list[MenuEntry]:
    """The entries in the lines of a menu; other lines set in deeply go on with the description
    before them.
    """
    found: list[MenuEntry] = []
    at = 0
    while at < len(lines):
        line = lines[at]
        at += 1
        if line.startswith("* ") and not line.startswith("* Menu:"):
            match = _ENTRY.match(line)
            if (match is None or match.end() < len(line.rstrip())) and at < len(lines):
                longer = _ENTRY.match(
                    line + "\n" + lines[at]
                )  # a long label or target goes on in the next line
                if longer and longer.end() > len(line):
                    match = longer
                    at += 1
            if match is None:
                text = name_of_node(line[2:])
                found.append(MenuEntry(text, text, ""))
                continue
            label = name_of_node(match["short"] or match["label"])
            target = label if match["short"] else name_of_node(match["target"])
            found.append(MenuEntry(label, target, clean(_LINE.sub("", match["rest"])).strip()))
        elif (
            found
            and line.startswith("   ")
            and line.strip()
            and not line.lstrip().startswith("(line")
        ):
            found[-1].text = f"{found[-1].text} {line.strip()}".strip()
    return found


def is_index(node: Node) -> bool:
    """Whether the node is an index of terms."""
    return INDEX_MARK in node.text or (node.name.endswith("Index") and "* Menu:" in node.text)


def below(info: InfoFile, node: Node) -> list[tuple[Node, int]]:
    """The node and all below it in the order of reading, with how deep each lies (0 for the node
    itself).

    Each node comes once; entries of indices lead sideways, not down, and so do those to nodes that
    say they are below another.
    """
    found: list[tuple[Node, int]] = []
    seen: set[str] = set()
    waiting = [(node, 0)]
    while waiting:
        current, depth = waiting.pop()
        if current.name in seen:
            continue
        seen.add(current.name)
        found.append((current, depth))
        if is_index(current):
            continue
        children = []
        for entry in menu_entries(current):
            child = info.nodes.get(entry.target)
            if (
                child is not None
                and child.name not in seen
                and (child.up == current.name or not child.up)
            ):
                children.append((child, depth + 1))
        waiting += reversed(children)
    return found


def whole(info: InfoFile) -> list[tuple[Node, int]]:
    """All nodes of the manual: those below its first one, then those that no menu leads to."""
    top = info.nodes.get("Top") or next(iter(info.nodes.values()))
    found = below(info, top)
    seen = {node.name for node, _ in found}
    return found + [(node, 1) for node in info.nodes.values() if node.name not in seen]
