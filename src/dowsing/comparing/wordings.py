"""What two texts say of the same thing, in their own words."""

from __future__ import annotations

import re

from dowsing.comparing.said import plain_flag
from dowsing.model.document import Document, Option
from dowsing.model.record import Record


class Wording(Record):
    """What two texts say of one thing; "" where one says nothing."""

    item: str
    one: str
    other: str


def wordings(one: Document, other: Document) -> list[Wording]:
    """What two texts say of the name and of each option that either has, where that differs."""
    found = []
    if one.summary or other.summary:
        found.append(Wording("summary", one.summary, other.summary))
    forms = ("\n".join(one.synopsis), "\n".join(other.synopsis))
    if any(forms):
        found.append(Wording("forms", *forms))
    left = list(other.options)
    for option in one.options:
        flags = {plain_flag(flag) for flag in option.flags}
        match = next((o for o in left if flags & {plain_flag(flag) for flag in o.flags}), None)
        if match is not None:
            left.remove(match)
        labels = option.flags + [
            flag for flag in (match.flags if match else []) if flag not in option.flags
        ]
        found.append(Wording(", ".join(labels), _said(option), _said(match)))
    found += [Wording(", ".join(option.flags), "", _said(option)) for option in left]
    return [wording for wording in found if _plain(wording.one) != _plain(wording.other)]


def _said(option: Option | None) -> str:
    """What is said of an option; one that only a form names is there without a word."""
    if option is None:
        return ""
    return option.text or "(only in the form)"


def _plain(text: str) -> str:
    return " ".join(re.findall(r"\w+", text.casefold()))
