"""What git fetches or pushes: `[+]source:target` (gitglossary, refspec)."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading


def read(value: str, dialect: str = "") -> Reading:
    """What goes where; nothing of a name alone."""
    match = re.fullmatch(r"(\+?)([^:+\s][^:\s]*)?(?:(:)([^:\s]*))?", value)
    if not match or not (match[1] or match[3]):
        return NOTHING
    plus, source, colon, target = match.groups()
    cutter = Cutter(value)
    cutter.cut(len(plus), "by force, even if commits are lost there")
    if colon and not source:
        cutter.cut(len(value), f"{target} is removed there")
        return cutter.finish(target)
    cutter.cut(len(plus) + len(source or ""), "what goes")
    if colon:
        cutter.cut(cutter.at + 1)
        cutter.cut(len(value), "the name that it gets there" if target else "")
    says = f"{source} as {_short(target)}" if target else source or ""
    return cutter.finish(says + (" (by force, even if commits are lost there)" if plus else ""))


def _short(name: str) -> str:
    return re.sub(r"\Arefs/(?:heads|tags)/", "", name)
