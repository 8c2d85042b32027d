"""Files that the user asked for."""

from __future__ import annotations

from dowsing.cli.failure import Failure


def write_file(path: str, text: str) -> None:
    """Write a text to a file. Raises Failure if that is not possible."""
    try:
        with open(path, "w", encoding="utf-8") as file:
            file.write(text)
    except OSError as error:
        raise Failure(f"cannot write {path}: {(error.strerror or 'failed').lower()}", status=3) from None
