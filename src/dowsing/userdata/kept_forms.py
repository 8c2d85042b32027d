"""Forms that were filled in, each by the line that came of it: JSON Lines, the newest last."""

from __future__ import annotations

import json
import os

from dowsing.model.record import Record
from dowsing.userdata import FORMS
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
        others = [one for one in _forms(text) if (one.line, one.kind) != (form.line, form.kind)]
        return "".join(_written(one) for one in [*others, form][-MOST_KEPT:])

    change(os.path.join(folder, FORMS), edit)


def kept_now(folder: str, title: str, line: str, kind: str) -> None:
    """Keep a form under today's date. Raises CannotKeep."""
    import time

    keep_form(folder, KeptForm(title, line, kind, time.strftime("%Y-%m-%d")))


def kept_forms(folder: str) -> list[KeptForm]:
    """The forms, the newest first. Lines that make no sense are passed over. Raises CannotKeep if
    the file cannot be read.
    """
    return _forms(read_text(os.path.join(folder, FORMS)))[::-1]


def _forms(text: str) -> list[KeptForm]:
    found = []
    for line in text.split("\n"):
        try:
            row = json.loads(line)
            form = KeptForm(*(str(row[name]) for name in ("title", "line", "kind", "day")))
        except (ValueError, TypeError, KeyError):
            continue
        found.append(form)
    return found


def _written(form: KeptForm) -> str:
    row = {"title": form.title, "line": form.line, "kind": form.kind, "day": form.day}
    return json.dumps(row, ensure_ascii=True) + "\n"
