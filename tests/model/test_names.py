"""Names in all their ways."""

from __future__ import annotations

import pytest

from dowsing.model.names import Name, is_plausible, readings, section_rank


@pytest.mark.parametrize(
    ("words", "expected"),
    [
        (["tar"], [("tar", "")]),
        (["printf(3)"], [("printf", "3")]),
        (["printf (3)"], [("printf", "3")]),
        (["Foo::Bar(3pm)"], [("Foo::Bar", "3pm")]),
        (["cd(builtin)"], [("cd", "builtin")]),
        (["printf.3"], [("printf.3", ""), ("printf", "3")]),
        (["fstab.5"], [("fstab.5", ""), ("fstab", "5")]),
        (["org.example.x1"], [("org.example.x1", "")]),
        (
            ["git", "commit"],
            [("git commit", ""), ("git-commit", ""), ("git_commit", ""), ("gitcommit", "")],
        ),
        (
            ["git commit"],
            [("git commit", ""), ("git-commit", ""), ("git_commit", ""), ("gitcommit", "")],
        ),
        (["["], [("[", "")]),
        (["."], [(".", "")]),
        (["  tar  "], [("tar", "")]),
        ([""], []),
        ([], []),
        (
            ["3", "printf"],
            [
                ("printf", "3"),
                ("3 printf", ""),
                ("3-printf", ""),
                ("3_printf", ""),
                ("3printf", ""),
            ],
        ),
    ],
)
def test_readings(words: list[str], expected: list[tuple[str, str]]) -> None:
    assert [(name.text, name.section) for name in readings(words)] == expected


def test_labels() -> None:
    assert (Name("tar").label, Name("printf", "3").label) == ("tar", "printf(3)")


def test_commands_come_before_functions_before_files() -> None:
    sections = ["5", "3", "1", "8", "3pm", "7", "2", "zz", "builtin"]
    assert sorted(sections, key=section_rank) == [
        "1",
        "8",
        "builtin",
        "2",
        "3",
        "3pm",
        "5",
        "7",
        "zz",
    ]


def test_plausible_names() -> None:
    assert is_plausible("[") and is_plausible("git commit") and is_plausible("Ünï")
    assert not any(map(is_plausible, ["", "  ", "a/b", "a\x1bb", "a\nb", "x" * 300]))
