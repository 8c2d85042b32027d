"""What a sentence denies, and recipes that say the contrary."""

from __future__ import annotations

from dowsing.tasks.negation import contradictions, denied_in


def test_what_stands_behind_a_negation_is_denied() -> None:
    assert denied_in(["port", "no", "udp", "tcp"]) == {"udp"}
    assert denied_in(["not", "not", "merg"]) == {"merg"}
    assert denied_in(["without"]) == frozenset()


def test_a_recipe_of_which_many_wordings_say_what_is_denied_contradicts() -> None:
    wordings = [["tcp", "udp", "port"], ["listen", "udp"], ["open", "port"]]
    assert contradictions(frozenset({"port"}), frozenset({"udp"}), wordings) == ["udp"]
    assert contradictions(frozenset(), frozenset({"open"}), [*wordings, ["a"]]) == []
    assert contradictions(frozenset(), frozenset({"udp"}), [*wordings, ["no", "udp"]]) == []
    assert contradictions(frozenset(), frozenset({"udp"}), []) == []


def test_a_recipe_of_which_most_wordings_deny_what_is_said_contradicts() -> None:
    wordings = [["branch", "not", "merg"], ["never", "merg", "branch"], ["left", "branch"]]
    assert contradictions(frozenset({"merg", "branch"}), frozenset(), wordings) == ["merg"]
    assert contradictions(frozenset(), frozenset({"merg"}), wordings) == []
    assert contradictions(frozenset({"merg"}), frozenset(), wordings[1:]) == []
