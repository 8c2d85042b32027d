"""Forms that were filled in, each by the line that came of it: JSON Lines, the newest last."""

from __future__ import annotations

import os

from dowsing.model.record import Record
from dowsing.userdata import FORMS
from dowsing.userdata.json_lines import read_records, written_records
from dowsing.userdata.user_files import change, read_text

MOST_KEPT = 60


class KeptForm(Record):
    """A form: the `title` of what was composed, the `line`, the `kind` of the line of a file (""
    for a command line), and the day (ISO 8601).
    """

    title: str
    line: str
    kind: str
    day: str


def keep_form(folder: str, form: KeptForm) -> None:
    """Keep a form, as the newest; the same line is kept once. Raises CannotKeep."""

    def edit(text: str) -> str:
        known = read_records(text, KeptForm)
        others = [one for one in known if (one.line, one.kind) != (form.line, form.kind)]
        return written_records([*others, form][-MOST_KEPT:])

    change(os.path.join(folder, FORMS), edit)


def kept_now(folder: str, title: str, line: str, kind: str) -> None:
    """Keep a form under today's date. Raises CannotKeep."""
    import time

    keep_form(folder, KeptForm(title, line, kind, time.strftime("%Y-%m-%d")))


def kept_forms(folder: str) -> list[KeptForm]:
    """The forms, the newest first. Lines that make no sense are passed over. Raises CannotKeep if
    the file cannot be read.
    """
    return read_records(read_text(os.path.join(folder, FORMS)), KeptForm)[::-1]
