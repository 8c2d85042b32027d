"""The snippets in real shells: keys, completion, the line that arrives and is run there."""

from __future__ import annotations

import shutil
import subprocess

import pytest
from conftest import Program

from dowsing.shell.snippets import KEYS, SHELLS, sequence
from screen.conftest import Open, Window

START = {
    "bash": "bash --norc -i",
    "zsh": "zsh -f -i",
    "fish": "fish --no-config -i",
}


@pytest.fixture(params=SHELLS)
def shell(request: pytest.FixtureRequest, window: Open, garden: Program) -> Window:
    """A shell with its snippet, whose manual is the demo library."""
    name = request.param
    if shutil.which(name) is None:
        pytest.skip(f"there is no {name}")
    snippet = garden.folder / f"snippet.{name}"
    snippet.write_text(garden.out("shell", name))
    opened = window(command=f"exec {START[name]}", size=(100, 40), PS1="> ")
    opened.keys("C-u")
    opened.text(f"source {snippet}; dowsing index >/dev/null; clear; echo rea''dy")
    opened.keys("Enter")
    opened.wait("ready", without="source")
    opened.text("clear")
    opened.keys("Enter")
    opened.wait("", without="ready")
    opened.shell = name  # type: ignore[attr-defined]
    return opened


def test_what_may_come_next_is_shown_below_the_line(shell: Window) -> None:
    shell.text("vent --side ")
    shell.wait("vent --side")
    shell.keys("M-i")
    screen = shell.wait("needs SIDE for --side", "VALUE (required)")
    assert "vent --side" in screen.split("needs SIDE")[0]
    shell.text("south")
    assert "vent --side south" in shell.wait("vent --side south"), "the line goes on as it was"


def test_the_line_is_taken_apart(shell: Window) -> None:
    shell.text("vent --close palmhouse")
    shell.keys("M-j")
    screen = shell.wait("close the vents; the same as --open=0", "From vent(1)")
    assert screen.count("vent --close palmhouse") >= 1


def test_a_line_is_composed_and_run_there(shell: Window, program: Program) -> None:
    shell.text("echo before; vent --side=north pa | cat")
    for _ in range(6):
        shell.keys("Left")
    shell.keys("M-k")
    shell.wait("compose vent", "•--side SIDE", "echo before; vent --side=north pa | cat")
    shell.keys("Down", "Down")
    shell.wait("▸ -o, --open")
    shell.text("33")
    shell.wait("vent --side=north --open=33 pa | cat")
    shell.keys("Enter")
    shell.wait("echo before; vent --side=north --open=33 pa | cat", without="compose vent")
    shell.keys("C-e")
    shell.text("; echo af''ter")
    shell.keys("Enter")
    shell.wait("before", "after")


def test_escape_leaves_the_line_as_it_was(shell: Window) -> None:
    shell.text("vent --side=north  x")
    shell.keys("M-k")
    shell.wait("compose vent")
    shell.keys("Down", "Space", "Escape")
    shell.wait("vent --side=north  x", without="compose vent")
    shell.text("y")
    shell.wait("vent --side=north  xy")


def test_the_page_of_the_word(shell: Window) -> None:
    shell.text("nohup vent --close")
    shell.keys("M-m")
    shell.wait("vent(1)  open and close the roof vents of a glasshouse", "Move the roof vents")
    shell.keys("q")
    shell.wait("nohup vent --close")


def test_names_and_commands_are_completed(shell: Window) -> None:
    shell.text("dowsing exampl")
    shell.keys("Tab")
    shell.wait("dowsing examples")
    shell.text("seedba")
    shell.keys("Tab")
    shell.wait("dowsing examples seedbank")
    shell.keys("C-u")
    shell.text("dowsing compose --line fsta")
    shell.keys("Tab")
    shell.wait("dowsing compose --line fstab")


def test_the_line_that_was_run_last_is_saved(shell: Window, program: Program) -> None:
    shell.text("echo 'the beds'  are wet")
    shell.keys("Enter")
    shell.wait("the beds are wet")
    shell.text("dowsing save --last --for 'say it'")
    shell.keys("Enter")
    shell.wait("saved: say it")
    assert (
        "line = \"echo 'the beds'  are wet\""
        in (program.folder / "data" / "saved.toml").read_text()
    )


@pytest.mark.parametrize("name", SHELLS)
def test_the_shell_uses_none_of_the_keys(name: str) -> None:
    if shutil.which(name) is None:
        pytest.skip(f"there is no {name}")
    for key in KEYS.values():
        written = sequence(name, key)
        ask = {
            "bash": [
                "bash",
                "--norc",
                "-i",
                "-c",
                f"bind -p; bind -s; bind -X | grep -F '\"{written}\"'",
            ],
            "zsh": [
                "zsh",
                "-f",
                "-i",
                "-c",
                f"bindkey -M emacs '{written}'; bindkey -M viins '{written}'",
            ],
            "fish": ["fish", "--no-config", "-i", "-c", f"bind {written}; or echo none"],
        }[name]
        said = subprocess.run(
            ask, capture_output=True, text=True, check=False, stdin=subprocess.DEVNULL
        )
        if name == "bash":
            assert f'"{written}":' not in said.stdout
        else:
            assert "undefined-key" in said.stdout or "none" in said.stdout, said.stdout
