"""shell: the snippets, their keys, installing them; completion; the page of the word at a place."""

from __future__ import annotations

import shutil
import subprocess

import pytest
from conftest import Program

from dowsing.shell.snippets import SHELLS, BadKey, sequence, snippet


@pytest.mark.parametrize("name", SHELLS)
def test_a_shell_can_read_its_snippet(name: str, program: Program) -> None:
    text = program.out("shell", name)
    assert "#key" not in text and "@KEY@" not in text
    if shutil.which(name) is None:
        pytest.skip(f"there is no {name}")
    path = program.folder / "snippet"
    path.write_text(text)
    done = subprocess.run([name, "-n", str(path)], capture_output=True, text=True, check=False)
    assert (done.returncode, done.stderr) == (0, "")


def test_keys_are_written_as_each_shell_has_them() -> None:
    assert [sequence(name, "alt-i") for name in SHELLS] == [r"\ei", "^[i", r"\ei"]
    assert [sequence(name, "ctrl-x n") for name in SHELLS] == [r"\C-xn", "^xn", r"\cxn"]
    assert [sequence(name, "F6") for name in SHELLS] == [r"\e[17~", "^[[17~", r"\e[17~"]
    for key in ("alt-", "meta-x", "f13", "", "x;rm"):
        with pytest.raises(BadKey):
            sequence("bash", key)


def test_keys_can_be_chosen_and_left_out(program: Program) -> None:
    text = snippet("bash", {"next": "alt-n", "read": ""})
    assert r'"\en": _dowsing_next' in text and "-x" in text and ": _dowsing_read'" not in text
    assert r'"\ef": _dowsing_next' in program.out("shell", "bash", "--key", "next=alt-f")
    folder = program.folder / "config"
    folder.mkdir(exist_ok=True)
    (folder / "config.toml").write_text('[keys]\ncompose = "f7"\n')
    assert r'"\e[18~": _dowsing_compose' in program.out("shell", "bash")
    (folder / "config.toml").write_text('[keys]\ncompose = "shift-7"\n')
    assert "“shift-7” is no key" in program.run("shell", "zsh").stderr


def test_wrong_use(program: Program) -> None:
    for arguments, says in (
        ((), "say which shell: dowsing shell bash|zsh|fish"),
        (("tcsh",), "say which shell"),
        (("bash", "--key", "next"), "--key takes WHAT=KEY"),
        (("bash", "--key", "leap=alt-i"), "there is no key for “leap”"),
    ):
        done = program.run("shell", *arguments)
        assert done.returncode == 2 and says in done.stderr


@pytest.mark.parametrize(
    ("name", "start"),
    [("bash", ".bashrc"), ("zsh", ".zshrc"), ("fish", ".config/fish/config.fish")],
)
def test_installing_adds_one_line_once(name: str, start: str, program: Program) -> None:
    path = program.folder / start
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_text("# mine")
    for _ in range(2):
        assert program.run("shell", name, "--install").returncode == 0
    assert not (path.parent / f"{path.name}.lock").exists()
    lines = path.read_text().split("\n")
    assert lines[0] == "# mine" and len(lines) == 3 and str(program.folder / "data") in lines[1]
    if shutil.which(name):
        environment = program.environment(PATH="/usr/bin:/bin")
        done = subprocess.run(
            [name, "-i", "-c", "type dowsing"],
            env=environment,
            capture_output=True,
            text=True,
            check=False,
            stdin=subprocess.DEVNULL,
        )
        assert "function" in done.stdout


def complete(program: Program, *words: str) -> list[str]:
    """What may complete the last of some words."""
    return program.out("--demo", "shell", "complete", "--", *words).split("\n")[:-1]


def test_completion_of_commands_options_values_and_names(program: Program) -> None:
    assert complete(program, "unp") == ["unpick"]
    assert complete(program, "read", "glasshouse-s") == ["glasshouse-shade"]
    assert "vent" in complete(program, "ven") and "near" in complete(program, "nea")
    assert complete(program, "find", "--pac") == ["--package"]
    assert complete(program, "find", "--package", "lo") == ["loam"]
    assert complete(program, "find", "--package=lo") == ["--package=loam"]
    assert complete(program, "read", "vent", "--from", "us") == ["usage"]
    assert complete(program, "words", "v") == ["verbs"]
    assert complete(program, "compose", "--line", "bed") == ["bedplan"]
    assert complete(program, "shell", "") == ["bash", "zsh", "fish"]
    assert complete(program, "--form") == ["--format"]
    assert complete(program, "--format", "js") == []
    assert complete(program, "read", "vent", "x") == []
    described = program.out(
        "--demo", "shell", "complete", "--described", "--", "read", "mul"
    ).split("\n")
    assert described == ["mulch\tCover the bed you stand in", ""]


def test_the_page_of_the_word_at_a_place(program: Program) -> None:
    page = program.out("--demo", "shell", "page", "--at", "2", "--", "vent --close | mist -f x")
    assert page.startswith("vent(1)")
    assert program.out("--demo", "shell", "page", "--", "vent --close | mist -f x").startswith(
        "mist(1)"
    )
    done = program.run("--demo", "shell", "page", "--", "nosuch")
    assert done.returncode == 1 and "nothing here documents “nosuch”" in done.stderr
    assert (
        "there is no word at the cursor" in program.run("--demo", "shell", "page", "--", "").stderr
    )


def test_save_last_needs_the_shell(program: Program) -> None:
    done = program.run("--demo", "save", "--last")
    assert done.returncode == 3 and "dowsing shell bash --install" in done.stderr
    assert program.run("--demo", "save", "--last", DOWSING_LAST_LINE="").returncode == 1
    said = program.out(
        "--demo", "save", "--last", "--for", "air", DOWSING_LAST_LINE="\t vent --all "
    )
    assert said.startswith("saved: air\n   vent --all\n")
    assert program.run("--demo", "save", "--last", "vent").returncode == 2
