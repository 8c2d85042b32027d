"""The few colours, by what they mean; one set for dark terminals, one for light ones.

Everything that has a colour is told apart without it too: by bold, italics, a mark or a word.
"""

from __future__ import annotations

import os

from dowsing.model.record import Record

#: Names of colours and what they are in the standard's sequences.
CODES = {"red": 31, "yellow": 33, "blue": 34, "magenta": 35, "cyan": 36}
LIGHT_BACKGROUNDS = ("7", "15")  # as terminals number them that tell it in COLORFGBG


class Palette(Record):
    """What stands for a value (`placeholder`), what is typed as it stands (`code`), headings, what
    to be careful with, what is wrong: the names of colours.
    """

    placeholder: str
    code: str
    heading: str
    careful: str
    wrong: str


DARK = Palette("yellow", "cyan", "cyan", "yellow", "red")
LIGHT = Palette("magenta", "blue", "blue", "magenta", "red")
_chosen: list[Palette] = []


def palette() -> Palette:
    """The palette of this run; that of dark terminals where nothing was chosen."""
    return _chosen[0] if _chosen else choose("", dict(os.environ))


def choose(wanted: str, environment: dict[str, str]) -> Palette:
    """Take the palette that the settings name (`light`, `dark`), else the one for the background
    that the terminal tells of.
    """
    told = environment.get("COLORFGBG", "").rpartition(";")[2]
    light = wanted == "light" or (wanted != "dark" and told in LIGHT_BACKGROUNDS)
    _chosen[:] = [LIGHT if light else DARK]
    return _chosen[0]
