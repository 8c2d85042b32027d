"""Values that are small languages of their own, taken apart: modes, dates, patterns, formats,
schedules.
"""

from __future__ import annotations

import re
from importlib import import_module

#: Kind of notation -> the module that reads it.
_MODULES = ("mode", "dates", "regex", "printf", "sed", "schedule", "signal", "amount")

#: A part of a value, and what it means.
Part = tuple[str, str]


def notation_parts(notation: str, value: str) -> list[Part]:
    """The parts of a value written in a notation, in order; [] if it does not fit it or is too
    plain to need it.

    Notations: `mode`, `dates`, `regex-basic`, `regex-extended`, `regex-perl`, `printf`, `sed`,
    `schedule`, `signal`, `amount`.
    """
    name, _, dialect = notation.partition("-")
    if name not in _MODULES or len(value) > 500:
        return []
    module = import_module(f"{__name__}.{name}")
    try:
        found: list[Part] = module.parts(value, dialect) if dialect else module.parts(value)
    except (ValueError, IndexError, re.error):
        return []
    return found
