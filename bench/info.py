"""Reads every Info file of the machine: nodes, nodes that can be reached, words kept.

    python bench/info.py

Words are counted in the raw text by code of this file that shares nothing with the reader: runs of
two and more letters and digits outside the headers, tag tables and `Local Variables`, without
`*note` and `(line N)`. A word counts as kept if it occurs in what was read at least as often.
"""

from __future__ import annotations

import collections
import glob
import gzip
import os
import re
import sys

from dowsing.machine.settings import read_settings
from dowsing.model.document import document_text
from dowsing.model.errors import Unreadable
from dowsing.readers.info.info_file import read_info_file
from dowsing.readers.info.node_document import node_document
from dowsing.search.parts import choose_part
from dowsing.sources.info_folders import info_files, info_folders

WORD = re.compile(r"[^\W_]{2,}")


def raw_text(path: str) -> str:
    """The text of a manual with all its pieces, as it is in the files."""
    stem = path.removesuffix(".gz")
    pieces = sorted(
        glob.glob(glob.escape(stem) + "-[0-9]*"), key=lambda p: int(re.findall(r"-(\d+)", p)[-1])
    )
    texts = []
    for file in pieces or [path]:
        with gzip.open(file) if file.endswith(".gz") else open(file, "rb") as opened:
            texts.append(opened.read().decode("utf-8", "replace"))
    return "\n\x1f\n".join(texts)


def raw_words(text: str) -> collections.Counter[str]:
    """The words of the nodes' texts."""
    counted: collections.Counter[str] = collections.Counter()
    for part in re.split(r"\x1f\x0c?\n?", text)[1:]:
        if part.startswith("File:"):
            body = part.partition("\n")[2]
            body = re.sub(
                r"\0\x08\[index\0\x08\]|\(line\s+\d+\)|^\* Menu:|\*[Nn]ote\b",
                " ",
                body,
                flags=re.MULTILINE,
            )
            body = re.sub(r"\0\x08\[image(.*?)\0\x08\]", _picture, body, flags=re.DOTALL)
            counted.update(WORD.findall(body))
    return counted


def _picture(match: re.Match[str]) -> str:
    text = re.search(r'text="((?:[^"\\]|\\.)*)"', match[1], re.DOTALL)
    return text[1] if text else ""


def main() -> int:
    """Print a line for each manual, and the sums."""
    kept_in_all = words_in_all = nodes_in_all = reached_in_all = failures = 0
    for folder in info_folders(read_settings()):
        for path in info_files(folder):
            try:
                info = read_info_file(path)
            except Unreadable as error:
                failures += 1
                print(f"{path}: {error}")
                continue
            top = node_document(
                info, "Top" if "Top" in info.nodes else next(iter(info.nodes)), "top"
            )
            reached = 0
            for name in info.nodes:
                sections = choose_part(top, name).sections
                reached += bool(sections)
            read = collections.Counter(WORD.findall(document_text(top.sections)))
            raw = raw_words(raw_text(path))
            kept = sum(min(count, read[word]) for word, count in raw.items())
            lost = [word for word, count in (raw - read).items() for _ in range(count)]
            total = sum(raw.values())
            print(
                f"{os.path.basename(path):<22} {len(info.nodes):>4} nodes {reached:>4} reached "
                f"{total:>7} words "
                f"{100 * kept / total:8.3f} %  {' '.join(lost[:8])} {'; '.join(info.problems)}"
            )
            kept_in_all += kept
            words_in_all += total
            nodes_in_all += len(info.nodes)
            reached_in_all += reached
    print(
        f"{nodes_in_all} nodes, {reached_in_all} reached by name, {words_in_all} words, "
        f"{100 * kept_in_all / max(words_in_all, 1):.4f} % kept, {failures} files not read"
    )
    return int(failures > 0 or reached_in_all < nodes_in_all or kept_in_all < 0.999 * words_in_all)


if __name__ == "__main__":
    sys.exit(main())
