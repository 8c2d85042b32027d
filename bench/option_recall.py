"""How many of the words that look like the tag of an option are in the table of their page.

    python bench/option_recall.py [FOLDER…] [--misses]

A word counts if it begins a line of the laid-out text of a page of section 1 or 8, outside of
forms, examples and lists of other pages, and is spelled as an option. Without a folder the manual
folders of the machine are gone through; very large families are left out, for they are of one
maker.
"""

from __future__ import annotations

import argparse
import os
import re
from collections.abc import Iterator

from dowsing.commandline.model.option_rows import options_in
from dowsing.machine.settings import read_settings
from dowsing.model.document import Document, document_text
from dowsing.model.errors import Unreadable
from dowsing.sources import page_files
from dowsing.sources.manual_folders import roots

LEFT_OUT = ("gcloud", "kubectl-", "git-")
WIDEST = 90  # characters of a line that may be a tag
_NOT_THEIRS = re.compile("EXAMPLE|SEE ALSO|SYNOPSIS|ENVIRON|HISTORY|BUGS")
_TAG = re.compile(
    r"\s*(-{1,2}[A-Za-z][\w-]*)((?:,? ?(?:\||or)? ?)(-{1,2}[A-Za-z][\w-]*))?(?=[\s=\[,|:]|$)"
)


def pages(folders: list[str]) -> Iterator[Document]:
    """The pages of sections 1 and 8 that can be read."""
    for folder in folders:
        for section in ("man1", "man8"):
            place = os.path.join(folder, section)
            for file in sorted(os.listdir(place)) if os.path.isdir(place) else ():
                name, _, end = re.sub(r"\.(?:gz|xz|bz2|zst)\Z", "", file).rpartition(".")
                if name.startswith(LEFT_OUT):
                    continue
                try:
                    yield page_files.read_page_file(os.path.join(place, file), name, end)
                except Unreadable:
                    continue


def tags(document: Document) -> set[str]:
    """The words of a page that look like tags of options."""
    found: set[str] = set()
    for section in document.sections:
        if _NOT_THEIRS.search(section.title.upper()):
            continue
        for line in document_text([section]).split("\n"):
            match = _TAG.match(line) if len(line) < WIDEST else None
            found.update(flag for flag in (match[1], match[3]) if flag) if match else None
    return found


def main() -> int:
    """Print the share that no table has, and the totals of options."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("folders", nargs="*")
    parser.add_argument("--misses", action="store_true", help="print what is in no table")
    asked = parser.parse_args()
    folders = asked.folders or [str(root) for root in roots(read_settings())]
    seen = missing = options = bare = 0
    for document in pages(folders):
        table = options_in(document)
        options += len(table)
        bare += sum(not option.text for option in table)
        found = tags(document)
        lacks = found - {flag for option in table for flag in option.flags}
        seen, missing = seen + len(found), missing + len(lacks)
        if asked.misses and lacks:
            print(f"  {document.label}: {' '.join(sorted(lacks)[:8])}")
    print(f"{seen} words, {missing} in no table ({missing / max(1, seen):.2%})")
    print(f"{options} options, {bare} without a text")
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
