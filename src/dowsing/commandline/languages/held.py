"""Reads values in which the shell puts something: what it may become is kept whole."""

from __future__ import annotations

import re

from dowsing.commandline.languages import read_value
from dowsing.commandline.languages.reading import Part, Reading

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.languages.value_language import LanguageValue

#: What the shell puts something in the place of, kept from the readers of languages.
_EXPANSION = r"\$\{[^}]*\}|\$\([^()]*\)|`[^`]*`|\$[A-Za-z_]\w*|\$[0-9@*#?$!-]"
_FIRST_HELD = 0xE100  # characters of private use stand for what is held back


def read_held(value: LanguageValue) -> Reading:
    """What a value says; what the shell puts in it is kept whole, whatever it may become."""
    text = value.value
    if not value.word.dynamic:
        return read_value(value.language, text)
    held: list[str] = []

    def hold(match: re.Match[str]) -> str:
        held.append(match[0])
        return chr(_FIRST_HELD + len(held) - 1)

    reading = read_value(value.language, re.sub(_EXPANSION, hold, text))

    def show(text: str) -> str:
        return re.sub(
            "[\ue100-\uf8ff]",
            lambda match: (
                held[ord(match[0]) - _FIRST_HELD]
                if ord(match[0]) - _FIRST_HELD < len(held)
                else match[0]
            ),
            text,
        )

    def shown(part: Part) -> Part:
        return Part(show(part.text), show(part.says), [shown(one) for one in part.inside])

    # what it becomes may well be what is missing
    parts = [shown(part) for part in reading.parts]
    return Reading(parts, show(reading.says), contrary=show(reading.contrary))
