"""What is wrong with the settings file is told once, and left out."""

from __future__ import annotations

import pytest
from conftest import Program

from dowsing.machine.settings_checks import faults_of

PAGE = ".TH T 1\n.SH NAME\ntie \\- fasten\n.SH D\nx\n"


@pytest.mark.parametrize(
    ("key", "value", "fault"),
    [
        ("colour", "never", "there is no key 'colour'; nearest: color"),
        ("color", "nevr", "color is auto, always or never, not 'nevr'"),
        ("width", "abc", "width is a number from 1 to 10000, not 'abc'"),
        ("width", 0, "width is a number from 1 to 10000, not '0'"),
        ("width", "9" * 5000, f"width is a number from 1 to 10000, not '{'9' * 40}'"),
        ("terminal", "grey", "terminal is light or dark, not 'grey'"),
        (
            "man_path",
            "/a\0b",
            r"man_path is a text or a list of texts without NUL, not '/a\x00b'",
        ),
        ("man_path", ["/a", 3], "man_path is a text or a list of texts without NUL, not"),
        ("language", 3, "language is a text without NUL, not '3'"),
        ("qqq", 1, "there is no key 'qqq'; there are: color, pager, width"),
    ],
)
def test_a_key_or_value_that_will_not_do(key: str, value: object, fault: str) -> None:
    good, faults = faults_of({key: value, "usage": "never"})
    assert good == {"usage": "never"}
    assert faults[0].startswith(fault)


def test_what_will_do() -> None:
    found = {
        "color": "never", "width": 80, "man_path": ["/a", "/b"], "shell": {"sod": {"path": "/s"}},
        "keys": {"next": "f6"}, "background": "never", "terminal": "dark",
    }  # fmt: skip
    assert faults_of(dict(found)) == (found, [])
    assert faults_of({"shell": "zsh", "width": "72"}) == ({"shell": "zsh", "width": "72"}, [])


def test_it_is_told_once(program: Program) -> None:
    program.page("tie.1", PAGE)
    (program.folder / "config").mkdir()
    settings = program.folder / "config" / "config.toml"
    settings.write_text('background = "never"\ncolour = "never"\nman_path = "/a\\u0000b"\n')
    done = program.run("find", "tie")
    assert done.returncode == 0 and "there is no key 'colour'; nearest: color" in done.stderr
    assert program.run("find", "tie").stderr == ""
    settings.write_text('background = "never"\nwidth = "abc"\n')
    assert "width is a number" in program.run("find", "tie").stderr
    assert program.run("find", "tie").stderr == ""


def test_a_folder_of_settings_that_is_none(program: Program) -> None:
    program.page("tie.1", PAGE)
    place = program.folder / "plain"
    place.write_text("")
    done = program.run("find", "tie", DOWSING_CONFIG=str(place))
    assert f"{place}, where the settings are looked for, is no folder" in done.stderr
    assert done.stdout.split()[:2] == ["1", "tie(1)"]


def test_columns_of_thousands_of_digits(program: Program) -> None:
    program.page("tie.1", PAGE)
    for columns in ("9" * 5000, "0" * 5000 + "80", "-3", "٣" * 9):
        assert program.run("tie", COLUMNS=columns).stdout.startswith("tie(1)"), columns[:9]
    done = program.run("tie", "--width", "9" * 5000)
    assert done.returncode == 2 and "a width is a number from 1 to 10000" in done.stderr
