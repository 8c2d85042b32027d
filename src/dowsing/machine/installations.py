"""Whether a page and a program came with the same installation, told by where they lie."""

from __future__ import annotations

import os


def is_of_another(page: str, program: str) -> bool:
    """Whether the page came with another installation than the program: another version below
    /usr/local, or in the user's own folders. False where a page lies in no folder of manuals.
    """
    page_root, found, _ = page.partition("/man/")
    if not found or not program:
        return False
    program_root = os.path.dirname(os.path.dirname(program))
    is_of_system = program_root in ("", "/", "/usr")
    return page_root.removesuffix("/share") != ("/usr" if is_of_system else program_root)
