"""Which word is meant."""

from __future__ import annotations

import pytest

from dowsing.model.nearness import Near, distance, is_slip, nearest, nearest_words


@pytest.mark.parametrize(
    ("word", "choices", "near"),
    [
        ("alwys", ["always", "never", "auto"], ["always"]),
        ("restrat", ["restart", "reload"], ["restart"]),
        ("sttus", ["status", "rebuild", "stats"], ["status"]),
        ("xyz", ["always", "never"], []),
    ],
)
def test_what_is_written_like_a_word_the_likeliest_first(
    word: str, choices: list[str], near: list[str]
) -> None:
    assert nearest_words(word, choices) == near


def test_how_like_a_word_must_be_and_how_many_there_are() -> None:
    choices = ["bed", "bead", "beds", "bet"]
    assert nearest("bed", choices, count=2) == [Near("bed", 1.0, 0), Near("bead", 0.75, 1)]
    assert nearest_words("bed", choices, count=9, least=0.7) == ["bed", "bead", "beds"]
    assert nearest_words("bed", choices, count=9, least=0.76) == ["bed"]


def test_two_letters_that_changed_places_are_one_step() -> None:
    assert (distance("prnue", "prune"), distance("prun", "prune"), distance("pune", "prunes")) == (
        1,
        1,
        2,
    )


@pytest.mark.parametrize(
    ("typed", "meant", "slip"),
    [
        ("sl", "ls", True),  # swapped
        ("tarr", "tar", True),  # doubled
        ("kilall", "killall", True),  # one of two lost
        ("sytemctl", "systemctl", True),  # another letter, in a long word that begins alike
        ("grpe", "grpc", False),  # a short word with another letter is another word
        ("tar", "tar", False),
        ("car", "tar", False),
        ("comand", "demand", False),
        ("glasshouse", "grasshopper", False),
    ],
)
def test_slips_of_the_fingers(typed: str, meant: str, slip: bool) -> None:
    assert is_slip(typed, meant) is slip
