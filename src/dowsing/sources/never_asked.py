"""Programs without a page that nobody has looked up yet, so that nothing is known of them."""

from __future__ import annotations

import os
from collections import Counter

from dowsing.model.paths import is_within
from dowsing.sources import usage_cache

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.machine.settings import Settings

LEAST_PROGRAMS = 3  # a folder of fewer is not worth a word
MOST_LOOKED_AT = 1000  # programs; a file of each is looked for
#: Folders of the system: what has no page there has none for a reason.
_OF_SYSTEM = ["/usr/bin", "/usr/sbin", "/bin", "/sbin", "/usr/games"]


def never_asked(paths: list[str], settings: Settings) -> dict[str, int]:
    """Folders of PATH that are none of the system's, with how many of these programs in them were
    never asked; {} where programs may not be asked.
    """
    if not usage_cache.may_ask(settings):
        return {}
    folders = {one for one in settings.search_path if not is_within(one, _OF_SYSTEM)}
    outside = [path for path in paths if os.path.dirname(path) in folders]
    counts: Counter[str] = Counter()
    for path in outside[:MOST_LOOKED_AT]:
        key = usage_cache.key_of(path, usage_cache.word_for(path))
        counts[os.path.dirname(path)] += usage_cache.has_text(settings, key) is None
    return {folder: count for folder, count in counts.items() if count >= LEAST_PROGRAMS}
