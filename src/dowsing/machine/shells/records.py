"""What our scripts in shells print: records of fields, each parted by a control character."""

from __future__ import annotations

from dowsing.readers.usage.cleaning import clean_lines

SEPARATOR = "\x1f"
RECORD_END = "\x1e"


def records(output: str) -> list[list[str]]:
    """The fields of each record that a script printed."""
    return [
        record.lstrip("\n").split(SEPARATOR)
        for record in output.split(RECORD_END)
        if record.strip("\n")
    ]


def bare(text: str) -> str:
    """Printed text without control sequences."""
    return "\n".join(clean_lines(text))
