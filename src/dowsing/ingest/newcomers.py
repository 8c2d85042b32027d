"""Pages and commands that came, changed or went since the index was made: a name that is asked for
is looked for among them, so that no look-up has to wait until they are taken up.
"""

from __future__ import annotations

import os

from dowsing.ingest.changes import stamp
from dowsing.machine.search_path import executables
from dowsing.model.entry import Entry, EntryKind
from dowsing.model.paths import is_within
from dowsing.sources import manual_folders, page_files

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store
    from dowsing.ingest.changes import Changes
    from dowsing.machine.settings import Settings
    from dowsing.sources.page_files import PageFile


class Newcomers:
    """What is not as the index has it, in the folders that changed (index/pending.py).

    `count`: how many page files came and went.
    """

    def __init__(self, store: Store, changes: Changes, settings: Settings) -> None:
        self.store = store
        self.settings = settings
        self.folders = _section_folders(changes.manual, store.folders())
        self.search_path = [one for one in settings.search_path if one in changes.others]
        self._came: dict[str, list[PageFile]] | None = None
        self._gone: set[str] = set()

    @property
    def count(self) -> int:
        """How many page files came and went."""
        return sum(map(len, self._newcomers().values())) + len(self._gone)

    def corrected(self, name: str, section: str, known: list[Entry]) -> list[Entry]:
        """See Pending."""
        found = [entry for entry in known if not self._is_gone(entry)]
        labels = {entry.label for entry in found}
        for page in self._newcomers().get(name, []) if self.folders else []:
            fits = not section or page.section == section or page.section.startswith(section)
            if fits and f"{page.name}({page.section})" not in labels:
                found.append(_entry_of(page))
        if not found and not section:
            found += [_command(name, path) for path in executables(name, self.search_path)[:1]]
        return found

    def is_outdated(self, path: str) -> bool:
        """See Pending."""
        if not is_within(path, self.folders):
            return False
        return self.store.stamp_of(path) != stamp(path)

    def _is_gone(self, entry: Entry) -> bool:
        if not entry.path:
            return False
        if entry.section and not is_within(entry.path, self.folders):
            return False
        return not os.path.exists(entry.path)

    def _newcomers(self) -> dict[str, list[PageFile]]:
        """The page files that the index does not have, by their names."""
        if self._came is None:
            self._came = {}
            for folder in self.folders:
                known = set(self.store.files_in(folder))
                now = _pages_in(folder)
                self._gone |= {path for path in known if path not in now}
                for path, page in now.items():
                    if path not in known:
                        self._came.setdefault(page.name, []).append(page)
        return self._came


def _section_folders(changed: list[str], known: dict[str, int]) -> list[str]:
    """The section folders among those that changed, and the new ones of manual folders."""
    found: dict[str, None] = {}
    for folder in changed:
        try:
            below = manual_folders.section_folders(folder)
        except OSError:
            below = []
        if not below and folder in known:
            below = [folder]
        found |= dict.fromkeys(one for one in below if one in changed or one not in known)
        if os.path.basename(folder).startswith(("man", "cat")):
            found[folder] = None
    return list(found)


def _pages_in(folder: str) -> dict[str, PageFile]:
    try:
        return {page.path: page for page in page_files.page_files(folder)}
    except OSError:
        return {}


def _entry_of(page: PageFile) -> Entry:
    """The entry of a page, by its head."""
    from dowsing.ingest.entries import make_entries
    from dowsing.ingest.head_reading import read_head
    from dowsing.ingest.scan import FoundPage

    reading = read_head((0, page.path, page.name, page.section, False))
    if reading.target:
        other = page_files.page_at(reading.target)
        page = other or page
        reading = read_head((0, page.path, page.name, page.section, False))
    made = make_entries({0: reading._replace(problem="")}, [FoundPage(page, 0)])
    if not made:
        return Entry(page.name, page.section, [], EntryKind.OTHER, "", None, None, page.path)
    entry = made[0]
    row = entry.row(reading)
    return Entry(
        entry.name,
        entry.section,
        row.alias_labels,
        entry.kind,
        entry.summary,
        None,
        None,
        page.path,
        reading.verbs.split(),
        reading.nouns.split(),
    )


def _command(name: str, path: str) -> Entry:
    """The entry of a command without a page."""
    return Entry(name, "", [], EntryKind.COMMAND, "no manual page", None, None, path, sources=[])
