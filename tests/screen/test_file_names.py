"""Names of files that would act if they were typed as they are: in the form, and completed in real
shells.
"""

from __future__ import annotations

import shutil

import pytest
from conftest import Program

from screen.conftest import Open

PAGE = """.TH TIDY 1
.SH NAME
tidy \\- remove files
.SH SYNOPSIS
.B tidy
.I FILE\\fR...
.SH OPTIONS
.TP
\\-f
be quick
"""


@pytest.mark.parametrize("name", ["~", "*", "-rf", "$(touch x)", "a b"])
def test_tab_and_enter_take_just_that_file(window: Open, program: Program, name: str) -> None:
    """In a folder with a file named `~`, Tab and Enter must not make `rm ~`."""
    program.page("tidy.1", PAGE)
    program.run("index")
    place = program.folder / "beds"
    place.mkdir()
    (place / name).write_text("x")
    call = (
        'cd beds; dowsing compose tidy >../partly; echo "$? $(cat ../partly)" '
        f">{program.folder}/answer; sleep 60"
    )
    form = window(command=call)
    form.wait("*FILE", "Enter take the line")
    form.keys("Tab")
    form.wait("•FILE")
    form.keys("Enter")
    status, _, line = form.result().rstrip("\n").partition(" ")
    assert status == "0"
    script = f"cd {place}; tidy() {{ printf '%s\\n' \"$@\" >../got; }}; {line}"
    import subprocess

    subprocess.run(["bash", "-c", script], check=True)
    got = [one for one in (program.folder / "got").read_text().split("\n") if one and one != "--"]
    assert [one.removeprefix("./") for one in got] == [name]
    assert not (place / "x").exists()


@pytest.mark.parametrize("shell", ["bash --norc -i", "zsh -f -i", "fish --no-config -i"])
def test_completed_names_of_pages_do_not_act(window: Open, program: Program, shell: str) -> None:
    """A page's file may be named `reap$(touch pwned);x`: completed and entered it is one word."""
    name = shell.split()[0]
    if shutil.which(name) is None:
        pytest.skip(f"there is no {name}")
    program.page("reap$(touch pwned);touch pwned&`touch pwned`|x.1", PAGE.replace("tidy", "cutter"))
    snippet = program.folder / f"snippet.{name}"
    snippet.write_text(program.out("shell", name))
    program.run("index")
    opened = window(command=f"exec {shell}", size=(140, 40), PS1="> ")
    opened.text(f"source {snippet}; clear; echo rea''dy")
    opened.keys("Enter")
    opened.wait("ready", without="source")
    opened.text("dowsing read reap")
    opened.keys("Tab")
    opened.wait("touch")
    opened.keys("Enter")
    opened.wait("remove files")
    assert not (program.folder / "pwned").exists()
