"""Shells asked for their names: real ones where they are installed, and one that the settings
describe.
"""

from __future__ import annotations

import os
import shutil
import subprocess
from pathlib import Path

import pytest

from dowsing.machine.settings import Settings
from dowsing.machine.shells.any_shell import ShellName, quoted
from dowsing.machine.shells.choice import own_shell
from dowsing.machine.shells.installed import installed_shells, shell_named
from dowsing.model.errors import ShellTrouble


def settings(path: list[str], **more: object) -> Settings:
    return Settings("", "", "", None, path, **more)  # type: ignore[arg-type]


def real(name: str):  # type: ignore[no-untyped-def]
    path = shutil.which(name)
    if path is None:
        pytest.skip(f"{name} is not installed")
    return shell_named(name, path, settings(["/usr/bin", "/bin"]))


def test_bash_says_what_its_names_do() -> None:
    names = {name.name: name for name in real("bash").names()}
    assert (
        names["cd"].kind == "builtin"
        and names["if"].kind == "keyword"
        and names["["].kind == "builtin"
    )
    assert names["cd"].summary == "Change the shell working directory"
    assert names["cd"].text.startswith("cd: cd [")
    assert names["then"] == ShellName("then", "keyword")
    assert list(names).index("if") < list(names).index("cd")


def test_a_shell_that_lists_nothing_is_asked_name_by_name() -> None:
    names = {name.name: name.kind for name in real("dash").names()}
    assert (names["cd"], names["if"]) == ("builtin", "keyword")
    assert "dirs" not in names and "[[" not in names


def test_zsh() -> None:
    names = {name.name: name.kind for name in real("zsh").names()}
    assert (names["autoload"], names["while"]) == ("builtin", "keyword")


def test_fish() -> None:
    names = {name.name: name.kind for name in real("fish").names()}
    assert (names["string"], names["while"]) == ("builtin", "keyword")


def test_a_builtin_is_asked_for_its_usage() -> None:
    outcome = real("bash").help_for("cd")
    assert outcome is not None and outcome.out.startswith("cd: cd [")


def stand_in(folder: Path, script: str) -> dict[str, dict[str, object]]:
    path = folder / "sod"
    path.write_text(f"#!/bin/sh\n{script}\n")
    path.chmod(0o755)
    return {
        "sod": {
            "path": str(path),
            "list": ["names"],
            "help": ["help", "{name}"],
            "line": ["run", "{line}"],
        }
    }


SOD = r"""
case $1 in
names) printf 'dib\tbuiltin\tDig a hole\nfor\tkeyword\nbad\033[1m\t\t\n' ;;
help) [ "$2" = dib ] && printf 'dib: dib [-d]\n    Dig\n' || exit 1 ;;
run) echo "ran $2" ;;
esac
"""


def test_a_shell_that_the_settings_describe(tmp_path: Path) -> None:
    sod = installed_shells(settings([], shells=stand_in(tmp_path, SOD)))[0]
    assert sod.names() == [
        ShellName("dib", "builtin", "Dig a hole", "dib: dib [-d]\n    Dig"),
        ShellName("for", "keyword"),
        ShellName("bad", "builtin"),
    ]
    outcome = sod.help_for("dib")
    assert outcome is not None and outcome.out == "ran dib --help\n"
    assert sod.help_for("dib it") is None, "how it quotes is not known"


@pytest.mark.parametrize(("script", "says"), [("kill -9 $$", "signal 9"), ("exec /no/such", "")])
def test_a_shell_in_trouble(tmp_path: Path, script: str, says: str) -> None:
    sod = installed_shells(settings([], shells=stand_in(tmp_path, script)))[0]
    if says:
        with pytest.raises(ShellTrouble, match=says):
            sod.names()
    else:
        assert sod.names() == []


def test_a_shell_that_is_not_there() -> None:
    gone = installed_shells(settings([], shells={"gone": {"path": "/no/gone", "list": ["x"]}}))[0]
    with pytest.raises(
        ShellTrouble, match="the shell /no/gone cannot be asked: it could not be started"
    ):
        gone.names()
    mute = installed_shells(settings([], shells={"mute": {"path": "/bin/sh"}}))[0]
    with pytest.raises(ShellTrouble, match="do not say how the shell mute lists its names"):
        mute.names()


def test_which_shell_is_the_users_own() -> None:
    assert own_shell(settings([], shell="/usr/bin/zsh"), ["bash", "zsh"]) == "zsh"
    assert (
        own_shell(
            settings([], shell="/usr/bin/zsh", values={"shell": "fish"}), ["bash", "zsh", "fish"]
        )
        == "fish"
    )
    assert own_shell(settings([], shell="/usr/bin/odd"), ["dash", "bash"]) == "bash"
    assert own_shell(settings([]), ["loam"]) == "loam"
    assert own_shell(settings([]), []) == ""


def test_words_are_quoted() -> None:
    assert quoted("it's $HOME") == "'it'\\''s $HOME'"


HOSTILE = [
    "a\\'b",
    "a'; touch pwned; '",
    "\\",
    "$(touch pwned)",
    "a\\\\'; touch pwned #",
    "(touch pwned)",
    "a\nb",
    "*",
]


@pytest.mark.parametrize("name", ["bash", "zsh", "fish"])
def test_a_name_is_quoted_by_the_rules_of_the_shell_that_is_asked(
    name: str, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """In fish a backslash within single quotes is none of the POSIX kind: `a\\'; touch pwned` would
    run.
    """
    path = shutil.which(name)
    if path is None:
        pytest.skip(f"there is no {name}")
    monkeypatch.chdir(tmp_path)
    monkeypatch.setenv("HOME", str(tmp_path))
    shell = shell_named(name, path, settings([]))
    for asked in HOSTILE:
        shell.defined(asked)
        assert os.listdir(tmp_path) == [] or "pwned" not in os.listdir(tmp_path), asked
        done = subprocess.run(
            [path, "-c", f"printf %s {shell.quoted(asked)}"],
            capture_output=True,
            text=True,
            check=True,
        )
        assert done.stdout == asked
