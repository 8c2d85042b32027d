"""The names that lead to a node of an Info manual."""

from __future__ import annotations

import re
from collections.abc import Iterator

from dowsing.readers.info.info_file import DirEntry, InfoFile
from dowsing.readers.info.menus import is_index, menu_entries

_ABOUT = re.compile(
    r"(?:Invoking|Running|Using) ([\w.+-]+)\Z|([\w.+-]+) [Ii]nvocation\Z"
    r"|The ([\w.+-]+) (?:[Cc]ommand|[Bb]uiltin|[Pp]rogram)\Z"
)
_OF_COMMANDS = re.compile(r"built-?in|command|program|reserved", re.IGNORECASE)
_WORD = re.compile(r"[\w.+:\[-]+\Z")

#: How sure a name's node is, best first.
BY_DIRECTORY, BY_TITLE, BY_MANUAL, BY_INDEX = range(4)


def names_of(
    info: InfoFile, manual: str, listed: list[DirEntry] | None = None
) -> list[tuple[str, str, int]]:
    """Names with the node each leads to and how sure that is, each name once.

    `listed` are the entries of the folder's directory file, which may know more than the manual's
    own.
    """
    found: dict[str, tuple[str, int]] = {}
    for name, node, rank in [
        *_listed_names(info, manual, listed or []),
        *title_names(info),
        (manual, "Top" if "Top" in info.nodes else next(iter(info.nodes)), BY_MANUAL),
        *_index_names(info),
    ]:
        if name and (name not in found or rank < found[name][1]):
            found[name] = (node, rank)
    return [(name, node, rank) for name, (node, rank) in found.items()]


def _listed_names(
    info: InfoFile, manual: str, listed: list[DirEntry]
) -> Iterator[tuple[str, str, int]]:
    """Names that the directory has for this manual's nodes."""
    for entry in [*info.entries, *listed]:
        own = entry.file.casefold() == manual.casefold()
        if own and _WORD.match(entry.label) and info.find(entry.node):
            # an entry for the manual as a whole says less than a node about the command
            yield entry.label, entry.node, BY_DIRECTORY if entry.node != "Top" else BY_MANUAL


def title_names(info: InfoFile) -> Iterator[tuple[str, str, int]]:
    """Names that are the titles of nodes (“sort invocation”), with the node."""
    for node in info.nodes.values():
        match = _ABOUT.match(node.name)
        if match:
            yield match[1] or match[2] or match[3], node.name, BY_TITLE


def _index_names(info: InfoFile) -> Iterator[tuple[str, str, int]]:
    """Names of the manual's indexes. An index of terms names what a text mentions; only one of
    commands, or a title, says that the node is about it.
    """
    for node in info.nodes.values():
        if not is_index(node):
            continue
        for item in menu_entries(node):
            about = _OF_COMMANDS.search(node.name) or item.label in item.target.split()
            named = len(item.label) > 1 and _WORD.match(item.label)
            if about and named and item.target in info.nodes:
                yield item.label, item.target, BY_INDEX
