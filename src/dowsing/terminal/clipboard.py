"""Text to the clipboard: by the program of the desktop, else by the terminal itself (OSC 52)."""

from __future__ import annotations

import os

#: Programs that take text for the clipboard, with what has to be set for them to work.
_PROGRAMS = (
    ("WAYLAND_DISPLAY", ["wl-copy"]),
    ("DISPLAY", ["xclip", "-selection", "clipboard"]),
    ("DISPLAY", ["xsel", "--clipboard", "--input"]),
    ("", ["pbcopy"]),
    ("WSL_DISTRO_NAME", ["clip.exe"]),
)
MOST = 70_000  # bytes that terminals take
SECONDS = 5.0


def copy(text: str) -> str:
    """Put the text on the clipboard; returns what did it, "" if nothing could."""
    import shutil
    import subprocess

    for variable, command in _PROGRAMS:
        if (variable and not os.environ.get(variable)) or not shutil.which(command[0]):
            continue
        try:
            # such a program goes on in the background; only its start is waited for
            done = subprocess.run(
                command,
                input=text.encode(),
                stdout=subprocess.DEVNULL,
                stderr=subprocess.DEVNULL,
                timeout=SECONDS,
                check=False,
            )
        except (OSError, subprocess.TimeoutExpired):
            continue
        if done.returncode == 0:
            return command[0]
    return "the terminal" if _by_terminal(text) else ""


def sequence(text: str, environment: dict[str, str]) -> str:
    """The control sequence OSC 52 that asks a terminal to put the text on the clipboard.

    A multiplexer passes it on to the terminal only if it is wrapped.
    """
    import base64

    plain = f"\x1b]52;c;{base64.b64encode(text.encode()).decode()}\x07"
    if environment.get("TMUX"):
        return "\x1bPtmux;" + plain.replace("\x1b", "\x1b\x1b") + "\x1b\\"
    if environment.get("TERM", "").startswith("screen"):
        return f"\x1bP{plain}\x1b\\"
    return plain


def _by_terminal(text: str) -> bool:
    if len(text.encode()) > MOST or os.environ.get("TERM", "") in ("", "dumb"):
        return False
    try:
        with open("/dev/tty", "w", encoding="utf-8") as terminal:
            terminal.write(sequence(text, dict(os.environ)))
        return True
    except OSError:
        return False
