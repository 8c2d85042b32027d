"""Where the installed program begins: nothing is loaded here before an interrupt is provided
for.
"""

from __future__ import annotations

import os
import sys

TYPE_CHECKING = False
if TYPE_CHECKING:
    from types import FrameType


def program() -> None:
    """Run the program. What cannot be loaded is told in one line."""
    try:
        # the module `signal` makes enums of its numbers, which takes a fiftieth of a look-up's time
        import _signal  # type: ignore[import-not-found]

        _signal.signal(_signal.SIGINT, _interrupted)
        from dowsing.cli.main import program as run

        run()
    except KeyboardInterrupt:
        _leave()
    except (ImportError, OSError, MemoryError) as error:
        os.write(2, f"dowsing: it cannot be loaded: {error}\n".encode("utf-8", "replace"))
        os._exit(3)


def _interrupted(number: int, frame: FrameType | None) -> None:
    """Ctrl-C: an exception, but at once the end while modules load: the interpreter's locks on them
    would never open.
    """
    while frame is not None:
        if frame.f_code.co_filename.startswith("<frozen importlib"):
            _leave()
        frame = frame.f_back
    raise KeyboardInterrupt


def _leave() -> None:
    """End with the status of an interrupted program."""
    try:
        sys.stdout.flush()
        os.write(2, b"dowsing: interrupted\n")
    except (OSError, ValueError, AttributeError):
        pass
    os._exit(130)
