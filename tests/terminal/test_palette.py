"""Colours by what they mean."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from conftest import Program

from dowsing.terminal import palette


@pytest.fixture(autouse=True)
def _as_it_was() -> Iterator[None]:
    before = list(palette._chosen)
    yield
    palette._chosen[:] = before


@pytest.mark.parametrize(
    ("wanted", "told", "light"),
    [
        ("", "", False),
        ("", "0;15", True),
        ("", "0;default;7", True),
        ("", "15;0", False),
        ("light", "15;0", True),
        ("dark", "0;15", False),
        ("auto", "0;15", True),
    ],
)
def test_the_background_decides(wanted: str, told: str, light: bool) -> None:
    chosen = palette.choose(wanted, {"COLORFGBG": told} if told else {})
    assert chosen == (palette.LIGHT if light else palette.DARK) == palette.palette()


def test_what_is_printed(program: Program) -> None:
    call = ("--demo", "read", "vent", "--part", "synopsis", "--color", "always")
    assert "\x1b[3;33mHOUSE" in program.out(*call)
    assert "\x1b[3;35mHOUSE" in program.out(*call, COLORFGBG="0;15")
    program.folder.joinpath("config").mkdir(exist_ok=True)
    program.folder.joinpath("config", "config.toml").write_text('terminal = "light"\n')
    assert "\x1b[1;34mSYNOPSIS" in program.out(*call)
