"""The terminal's driver: its size is asked of the terminal that is drawn on, for stdout may be
captured.
"""

from __future__ import annotations

import codecs
import os
from collections.abc import Callable

from textual.drivers import linux_driver
from textual.drivers.linux_driver import LinuxDriver


def _lenient(encoding: str) -> Callable[[], codecs.IncrementalDecoder]:
    """A decoder that puts a sign in the place of what is no text: anything may be pasted."""
    decoder = codecs.getincrementaldecoder(encoding)
    return lambda: decoder("replace")


# the library decodes strictly, and what is no UTF-8 ends its reading of keys
linux_driver.getincrementaldecoder = _lenient  # type: ignore[attr-defined, assignment]


class TerminalDriver(LinuxDriver):
    """The library's driver, with the size of the terminal itself, whatever stdout and the
    environment say.
    """

    def _get_terminal_size(self) -> tuple[int, int]:
        try:
            size = os.get_terminal_size(self.fileno)
        except OSError:
            return super()._get_terminal_size()
        return size.columns or 80, size.lines or 24
