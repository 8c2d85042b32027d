"""Which form of a synopsis a card shows."""

from __future__ import annotations

import pytest

from dowsing.facts.readable_form import readable_form


@pytest.mark.parametrize(
    ("name", "forms", "usual", "shown"),
    [
        ("hoe", ["hoe [OPTION]... BED", "hoe --all"], ["--all"], "hoe [OPTION]... BED"),
        # letters to choose among cannot be read: the form of what is used most
        (
            "bale",
            ["bale {A|c|x}[fvz] [ARG...]", "bale -A STACK", "bale -c [-f STACK]", "bale -x"],
            ["-c", "-x"],
            "bale -c [-f STACK]",
        ),
        ("tine", ["tine [-h|-V]", "tine [-l]", "tine [-o WAY] BED"], [], "tine [-o WAY] BED"),
        ("tine", ["tine --help", "tine BED"], ["--help"], "tine BED"),
        ("tine", ["tine [-q]", "tine [-q] [BED]"], [], "tine [-q] [BED]"),
        # the forms of subcommands: that of the one used most
        (
            "git stash",
            ["git stash list [<o>]", "git stash show [<s>]", "git stash drop", "git stash [push]"],
            ["push", "drop"],
            "git stash [push]",
        ),
        # two subcommands are not enough to take the first form for one of many
        ("row", ["row add NAME", "row drop NAME"], ["drop"], "row add NAME"),
        ("sow", ["#include <sow.h>", "int sow(int beds);"], [], "int sow(int beds);"),
        ("sow", [], [], ""),
    ],
)  # fmt: skip
def test_the_form(name: str, forms: list[str], usual: list[str], shown: str) -> None:
    assert readable_form(name, forms, usual) == shown
