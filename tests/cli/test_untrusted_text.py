"""Text from outside, of every source, through every output: it reaches neither a terminal nor a
file as anything but text.
"""

from __future__ import annotations

import json
import os
from pathlib import Path

import pytest
from conftest import Program
from hostile import CALLS, EXPORTS, PAYLOAD, WITH_PAYLOAD, make_library, unsafe_in


@pytest.fixture(scope="module")
def hostile(tmp_path_factory: pytest.TempPathFactory) -> Program:
    """The program on the hostile library, its index built."""
    folder = tmp_path_factory.mktemp("hostile")
    (folder / "man").mkdir()
    made = Program(folder)
    make_library(made)
    assert made.run("index").returncode == 0
    return made


@pytest.mark.parametrize("call", CALLS)
def test_every_answer_is_text(hostile: Program, call: str) -> None:
    """As text, in colour and as JSON; what is said on stderr too."""
    for more in ([], ["--color", "always"], ["--format", "json"]):
        done = hostile.run(*call.replace("read odd", "read od").split(), *more)
        assert not unsafe_in(done.stdout, "always" in more), (call, more, done.stdout)
        assert not unsafe_in(done.stderr), (call, more, done.stderr)
        assert "Traceback" not in done.stderr
        if "json" in more and done.stdout and "complete" not in call and "--script" not in call:
            json.loads(done.stdout)


@pytest.mark.parametrize("arguments", WITH_PAYLOAD, ids=lambda one: f"{one[0][:4]}-{len(one)}")
def test_what_is_typed_comes_back_as_text(hostile: Program, arguments: tuple[str, ...]) -> None:
    done = hostile.run(*arguments)
    assert not unsafe_in(done.stdout) and not unsafe_in(done.stderr), (
        arguments,
        done.stdout,
        done.stderr,
    )
    assert "Traceback" not in done.stderr


@pytest.mark.parametrize("call", EXPORTS)
@pytest.mark.parametrize("form", ["html", "markdown", "text"])
def test_exports_are_text(hostile: Program, call: str, form: str, tmp_path: Path) -> None:
    written = tmp_path / "export"
    arguments = [*call.split(), "--format", form]
    assert not unsafe_in(hostile.run(*arguments).stdout)
    assert hostile.run(*arguments, "-o", str(written)).returncode == 0
    assert not unsafe_in(written.read_text())
    assert len(written.read_text()) > 60


def test_json_loses_nothing_of_a_kept_line(hostile: Program) -> None:
    """What is kept is what was kept: JSON has it to the letter, escaped."""
    answers = json.loads(hostile.out("saved", "--format", "json"))["answers"]
    assert [answer["line"] for answer in answers][-2:] == [
        f"printf '{PAYLOAD}'",
        f"evil -a '{PAYLOAD}' <file>",
    ]


def test_a_script_of_kept_lines_does_what_they_do(program: Program) -> None:
    """Control characters of a line stand escaped in the script, and come out of it as they were."""
    import subprocess

    line = "printf %s 'a\tb\x1b\u202e\x9b'\\''\\n'; printf %s <name>"
    program.out("--demo", "save", line, "--for", f"ring{PAYLOAD}\nthe bell")
    script = program.out("--demo", "saved", "--script")
    assert not unsafe_in(script)
    environment = {**os.environ, "LC_ALL": "C.UTF-8"}
    done = subprocess.run(
        ["bash", "-s", "a b"],
        input=script,
        capture_output=True,
        text=True,
        env=environment,
        check=True,
    )
    assert done.stdout == "a\tb\x1b\u202e\x9b'\\na b"
