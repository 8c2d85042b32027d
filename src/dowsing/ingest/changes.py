"""What is not as the index saw it, told by the times of folders and files."""

from __future__ import annotations

import os

from dowsing.model.paths import is_within
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store
    from dowsing.machine.settings import Settings


class Changes(Record):
    """What is not as the index saw it. `manual`: folders of manual pages; `others`: folders of PATH
    and of Info files, and shells; `order`: it has not worked out what this order of manual folders
    changes.
    """

    manual: list[str]
    others: list[str]
    order: bool = False

    @property
    def any(self) -> bool:
        """Whether there is anything."""
        return bool(self.manual or self.others or self.order)


def stamp(path: str) -> tuple[int, int]:
    """Modification time (ns) and size of a file or link itself; zeros if there is none."""
    try:
        state = os.lstat(path)
    except OSError:
        return 0, 0
    return state.st_mtime_ns, state.st_size


def changed_folders(store: Store, settings: Settings, roots: list[str]) -> Changes:
    """The places whose contents are not what the index saw. Costs one `stat` a place."""
    changed = Changes([], [])
    known = store.watched()
    for place, modified, kind in known:
        if kind == "manual" and not is_within(place, roots):
            continue  # of another terminal, which takes up what changed there
        try:
            same = os.stat(place).st_mtime_ns == modified
        except OSError:
            same = not modified
        if not same:
            (changed.manual if kind == "manual" else changed.others).append(place)
    paths = {row[0] for row in known}
    changed.manual.extend(
        root for root in roots if root not in paths and os.access(root, os.R_OK | os.X_OK)
    )
    changed.others.extend(
        folder
        for folder in settings.search_path
        if folder not in paths and folder.startswith("/") and os.path.normpath(folder) not in paths
    )
    return changed
