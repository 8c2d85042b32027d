"""The terminal's driver: its size is asked of the terminal that is drawn on, for stdout may be captured."""

from __future__ import annotations

import os

from textual.drivers.linux_driver import LinuxDriver


class TerminalDriver(LinuxDriver):
    """The library's driver, with the size of the terminal itself, whatever stdout and the environment say."""

    def _get_terminal_size(self) -> tuple[int, int]:
        try:
            size = os.get_terminal_size(self.fileno)
        except OSError:
            return super()._get_terminal_size()
        return size.columns or 80, size.lines or 24
