"""The full-screen parts on a hostile library: what is drawn is text, whatever a document, a node or
a file is named.
"""

from __future__ import annotations

import fcntl
import os
import pty
import re
import select
import signal
import struct
import sys
import termios
import time

import pytest
from conftest import Program
from hostile import make_library

DOWSING = os.path.join(os.path.dirname(sys.executable), "dowsing")
#: The shape of the pointer, which the library for screens sets: the only such sequence that is its
#: own.
OWN = "\x1b]22;default\x07"
#: What of the payload would act: a title, the clipboard, 8-bit controls, directions, the bell.
ACTING = re.compile("\x1b\\]|[\x80-\x9f\u061c\u200f\u202e\u2066]|\x07")


def drawn(program: Program, arguments: list[str], keys: list[str], ready: str) -> str:
    """All that the program writes to its terminal while these keys are typed, from when `ready` is
    on the screen.
    """
    pid, terminal = pty.fork()
    if pid == 0:
        os.chdir(program.folder)
        os.execve(DOWSING, [DOWSING, *arguments], program.environment(TERM="xterm-256color"))
    fcntl.ioctl(terminal, termios.TIOCSWINSZ, struct.pack("HHHH", 30, 100, 0, 0))
    data = b""
    until = time.monotonic() + 30

    def read(seconds: float, text: str = "") -> None:
        nonlocal data
        end = time.monotonic() + seconds
        while time.monotonic() < end and not (text and text in data.decode("utf-8", "replace")):
            if select.select([terminal], [], [], 0.05)[0]:
                try:
                    data += os.read(terminal, 65536)
                except OSError:
                    return

    read(until - time.monotonic(), ready)
    assert ready in data.decode("utf-8", "replace"), "it came on the screen"
    for key in keys:
        os.write(terminal, key.encode())
        read(0.5)
    os.kill(pid, signal.SIGKILL)
    os.waitpid(pid, 0)
    os.close(terminal)
    return data.decode("utf-8", "replace").replace(OWN, "")


@pytest.fixture
def hostile(program: Program) -> Program:
    make_library(program)
    program.run("index")
    return program


@pytest.mark.parametrize("source", ["1", "2", "3"])
def test_browse_draws_text_alone(hostile: Program, source: str) -> None:
    """Each source of the page, its contents, its links and the search within it."""
    text = drawn(
        hostile,
        ["browse", "evil"],
        [source, "g", "\x1b[B", "\r", "\t", "\r", "/wreck\r", "e"],
        "evil",
    )
    assert ACTING.findall(text) == []


def test_the_finder_draws_text_alone(hostile: Program) -> None:
    assert (
        ACTING.findall(
            drawn(hostile, ["browse"], list("wreck") + ["\x1b[B", "\x1b[B", "\t"], "find")
        )
        == []
    )


def test_the_form_draws_text_alone(hostile: Program) -> None:
    """Its fields, their help, the names of files that Tab offers, and what was pasted."""
    keys = ["fi", "\t", "\t", "\x1b[B", "?", "\x1b", "\x1b[200~a\x1b]0;title\x07b\x1b[201~"]
    assert ACTING.findall(drawn(hostile, ["compose", "evil"], keys, "evil")) == []
