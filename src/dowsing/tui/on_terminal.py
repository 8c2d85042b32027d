"""The terminal that the full-screen parts draw on, whatever the standard streams are connected
to.
"""

from __future__ import annotations

import os
import sys
from typing import Any


class OnTerminal:
    """While it lasts, stdin and stderr are the terminal; stdout stays as it is for the answer."""

    def __enter__(self) -> OnTerminal:
        self._saved: list[tuple[int, int]] = []
        terminal = -1
        for number in (0, 2):
            if not os.isatty(number):
                if terminal < 0:
                    terminal = os.open("/dev/tty", os.O_RDWR)
                self._saved.append((number, os.dup(number)))
                os.dup2(terminal, number)
        if terminal > 2:
            os.close(terminal)
        sys.stderr.flush()
        self._attributes = self._read_attributes()
        return self

    def __exit__(self, *_: object) -> None:
        import termios

        if self._attributes is not None:
            try:
                termios.tcsetattr(0, termios.TCSANOW, self._attributes)
            except termios.error:
                pass
        for number, saved in self._saved:
            os.dup2(saved, number)
            os.close(saved)

    @staticmethod
    def _read_attributes() -> list[Any] | None:
        import termios

        try:
            return termios.tcgetattr(0)
        except termios.error:
            return None
