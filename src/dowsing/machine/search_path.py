"""The folders of PATH: the executables in them, and what is wrong with the folders."""

from __future__ import annotations

import os


def executables(name: str, search_path: list[str]) -> list[str]:
    """The executable files of that name in the folders of PATH, in order; a folder counts once."""
    found = []
    for folder in dict.fromkeys(
        os.path.normpath(folder) for folder in search_path if os.path.isabs(folder)
    ):
        file = os.path.join(folder, name)
        if name and "/" not in name and os.path.isfile(file) and os.access(file, os.X_OK):
            found.append(file)
    return found


def commands(folder: str) -> list[str]:
    """The names of the executable files in a folder; none if it cannot be read."""
    found = []
    try:
        for entry in os.scandir(folder):
            try:
                if entry.is_file() and os.access(entry.path, os.X_OK):
                    found.append(entry.name)
            except OSError:  # a link that goes round in a circle
                continue
    except OSError:
        return []
    return found


def folder_problems(search_path: list[str]) -> dict[str, str]:
    """What is wrong with folders of PATH, by their paths; those in order are not listed."""
    problems: dict[str, str] = {}
    for folder in search_path:
        if not os.path.isabs(folder):
            problems[folder] = "is not given from the root; what it means depends on where you are"
        elif os.path.isfile(folder):
            problems[folder] = "is a file, not a folder"
        else:
            try:
                os.scandir(folder).close()
            except FileNotFoundError:
                problems[folder] = "does not exist"
            except OSError as error:
                reason = (error.strerror or "cannot be read").lower()
                problems[folder] = (
                    "is a link that goes round in a circle" if "symbolic" in reason else reason
                )
    return problems
