"""An owner and a group: `name`, `name:group`, `name:`, `:group` (POSIX.1-2017, chown)."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading


def read(value: str, dialect: str = "") -> Reading:
    """Whom it belongs to then."""
    if re.fullmatch(r"[\w$-]+", value):
        return Reading([], f"to {value}")
    match = re.fullmatch(r"([\w$.-]*)([:.]?)([\w$-]*)", value)
    if not match or not match[2] or "." in match[2]:
        return NOTHING
    owner, _, group = match.groups()
    cutter = Cutter(value)
    cutter.cut(len(owner), "the owner")
    if group:
        cutter.cut(len(owner) + 1)
        cutter.cut(len(value), "the group")
        says = f"to {owner} and the group {group}" if owner else f"to the group {group}"
    else:
        cutter.cut(len(value), f"the group that {owner} logs in with")
        says = f"to {owner} and the group that {owner} logs in with"
    return cutter.finish(says) if owner or group else NOTHING
