"""Every command that the tutorial and the README show is run on the demo library."""

from __future__ import annotations

import os
import re
import subprocess
import sys
from pathlib import Path

import pytest
from conftest import Program

from screen.conftest import Open

ROOT = Path(__file__).parent.parent.parent
BIN = os.path.dirname(sys.executable)
SCREENS = ("browse", "compose glasshouse", "compose vent", "compose --line", "compose --again")


def on_screen(command: str) -> bool:
    """Whether a command takes the whole screen."""
    return "--plain" not in command and any(f"--demo {screen}" in command for screen in SCREENS)


def blocks(kind: str) -> list[str]:
    """The lines of the tutorial's blocks of a kind, in order."""
    text = (ROOT / "docs" / "tutorial.md").read_text()
    return [
        line
        for block in re.findall(rf"```{kind}\n(.*?)```", text, re.DOTALL)
        for line in block.splitlines()
    ]


def of_readme() -> list[str]:
    """The commands in the README's table of a day, with `--demo`."""
    table = (ROOT / "README.md").read_text().split("| you | type |")[1].split("\n\n")[0]
    return [
        command.replace("dowsing ", "dowsing --demo ", 1)
        for command in re.findall(r"`(dowsing [^`]*)`", table)
    ]


def run_all(program: Program, commands: list[str]) -> list[tuple[str, int, str]]:
    """The commands in one shell, one after the other: each with its status and what it said on
    stderr.
    """
    script = "\n".join(
        f"{{ {one}\n}} >/dev/null 2>err; echo $? >>statuses; cat err >>said; echo ---- >>said"
        for one in commands
    )
    subprocess.run(
        ["bash", "-c", script],
        cwd=program.folder,
        env=program.environment(PATH=f"{BIN}:{os.environ['PATH']}"),
        stdin=subprocess.DEVNULL,
        start_new_session=True,
        timeout=300,
        check=False,
    )
    statuses = [int(line) for line in (program.folder / "statuses").read_text().split()]
    said = (program.folder / "said").read_text().split("----\n")
    return list(zip(commands, statuses, said, strict=False))


def test_the_tutorial_runs(program: Program) -> None:
    commands = blocks("sh")
    assert len(commands) > 40
    done = run_all(program, commands)
    assert len(done) == len(commands)
    assert [(command, said) for command, status, said in done if status] == []
    assert (program.folder / "vent.html").read_text().startswith("<!DOCTYPE html>")


def test_the_table_of_the_readme_runs(program: Program) -> None:
    commands = [one for one in of_readme() if not on_screen(one)]
    assert len(commands) > 40
    # one form was filled in before the last one is asked for
    commands = ["dowsing --demo compose --plain vent palmhouse", *commands]
    assert [(command, said) for command, status, said in run_all(program, commands) if status] == []


@pytest.mark.parametrize(
    "command",
    [
        *blocks("screen"),
        *(one for one in of_readme() if on_screen(one)),
    ],
)
def test_the_screens_that_are_shown_open_and_close(command: str, window: Open) -> None:
    before = "echo | dowsing --demo compose --plain vent palmhouse >/dev/null 2>&1"
    shell = window(command=f"{before}; {command}; echo status $?; sleep 60")
    shell.wait("Esc leave" if "browse" in command and not command.endswith("vent") else "Esc ")
    shell.keys("C-c")
    status = 0 if "browse" in command else 130
    shell.wait(f"status {status}")


def test_the_pictures_that_are_linked_are_there() -> None:
    linked = set(re.findall(r"docs/screenshots/([\w-]+\.png)", (ROOT / "README.md").read_text()))
    there = {path.name for path in (ROOT / "docs" / "screenshots").glob("*.png")}
    assert linked == there and len(there) < 20
