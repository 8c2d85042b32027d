"""What we know of commands beside their pages: the notation, and that it names nothing made up."""

from __future__ import annotations

import json
import re
from pathlib import Path

import pytest

from dowsing.commandline.languages import LANGUAGES
from dowsing.knowledge.command_facts import (
    Act,
    CommandFacts,
    Dependence,
    OptionFact,
    facts_of,
    value_of,
)
from dowsing.knowledge.conventions import Conventions, facts_by_words, read_conventions
from dowsing.knowledge.effects import EffectFact, EffectKind, reason_never_asked
from dowsing.model.value_kinds import ValueKind
from dowsing.model.values import OperandRole, Value

#: Command and its flags that pages have: bench/facts.py gathers them where there are such pages.
FLAGS = Path(__file__).parent / "flags.tsv"
TOOLS = {words: facts_of(json.loads(row)) for words, row in facts_by_words().items()}
CONVENTIONS = Conventions(read_conventions(), facts_by_words().get)
EFFECTS = {
    words: found
    for words, facts in TOOLS.items()
    if (found := [act.effect for act in facts.acts if act.effect is not None])
}


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("number", Value(ValueKind.NUMBER)),
        ("path as=FILE again", Value(ValueKind.PATH, placeholder="FILE", again=True)),
        ("a|b", Value(ValueKind.CHOICE, ["a", "b"], closed=True)),
        ("a|b open", Value(ValueKind.CHOICE, ["a", "b"])),
        ("a|b list", Value(ValueKind.CHOICE, ["a", "b"], True, ",")),
        ("a|b optional", Value(ValueKind.CHOICE, ["a", "b"], True, optional=True)),
        ("size units=kM", Value(ValueKind.SIZE, units="kM")),
    ],
)
def test_the_notation_of_a_value(text: str, value: Value) -> None:
    assert value_of(text) == value


@pytest.mark.parametrize("text", ["nothing", "number lists", "text on=x", "a|b closed"])
def test_what_is_not_of_the_notation_is_refused(text: str) -> None:
    with pytest.raises(ValueError):
        value_of(text)


def test_a_table_of_a_file() -> None:
    facts = facts_of(
        {
            "forms": ["sow BED"],
            "operands": {"BED": "target folder", "*": {"language": "glob"}},
            "options": {
                "-a|-b": {"value": "none", "adds": "twice"},
                "-c,--count": {"value": "number", "needs": "-a|-b", "default": "1"},
            },
            "one_of": ["-a|-b"],
            "used": "-a -c",
            "acts": [
                {"when": "-a", "says": "sows {BED}", "effect": {"does": "changes", "says": "sows"}},
                {"effect": {"does": "stops", "says": "stops {it}", "when": ["-b"]}},
            ],
        }
    )
    assert facts == CommandFacts(
        ["sow BED"],
        facts.operands,
        [
            OptionFact(["-a"], None),
            OptionFact(["-b"], None),
            OptionFact(["-c", "--count"], Value(ValueKind.NUMBER)),
        ],
        [Dependence(["-c", "--count"], ["-a", "-b"])],
        [["-a", "-b"]],
        usual=["-a", "-c"],
        defaults={"-c": "1", "--count": "1"},
        languages={"*": "glob"},
        adds={"-a": "twice", "-b": "twice"},
        acts=[
            Act("-a", "sows {BED}", EffectFact(EffectKind.CHANGES, "sows")),
            Act("", "", EffectFact(EffectKind.STOPS, "stops {it}", when=["-b"])),
        ],
    )
    assert [act.says for act in facts.clauses] == ["sows {BED}"]
    assert facts.flags == {"-a", "-b", "-c", "--count"}
    assert facts.operands["BED"].role is OperandRole.TARGET
    assert facts.operands["BED"].value == Value(ValueKind.FOLDER)
    with pytest.raises(ValueError, match="unknown key of a command: form"):
        facts_of({"form": []})
    with pytest.raises(ValueError, match="unknown key of an option: add"):
        facts_of({"options": {"-a": {"add": "twice"}}})
    with pytest.raises(ValueError, match="unknown key of an act: does"):
        facts_of({"acts": [{"does": "sows"}]})


def test_every_command_is_of_the_format() -> None:
    for words, facts in TOOLS.items():
        program = words.split(" ")[0]
        assert all(form.split(" ")[0] == program for form in facts.forms), words
        named = " ".join(facts.forms)
        missing = [name for name in facts.operands if name not in named]
        assert missing == [] or not facts.forms, f"{words}: an operand that no form has"


def test_no_flag_is_made_up() -> None:
    """Each flag stands in a page, or the facts themselves say what it does."""
    rows = [line.split("\t") for line in FLAGS.read_text("utf-8").splitlines()]
    seen = {words: set(flags.split(" ")) for words, flags in rows}
    made_up = {}
    for words, facts in TOOLS.items():
        unknown = facts.flags - seen.get(words, set()) - set(facts.texts)
        if unknown:
            made_up[words] = sorted(unknown)
    assert made_up == {}


def test_every_effect_is_of_the_format() -> None:
    for words, effects in EFFECTS.items():
        for fact in effects:
            assert fact.says, words
            assert fact.says[0].islower(), words
            assert fact.says.count("{") == fact.says.count("}") <= 1, words


def test_effects_by_a_name_that_begins_so() -> None:
    (act,) = CONVENTIONS.acts("mkfs.newest")
    assert act.effect is not None
    assert act.effect.does is EffectKind.DESTROYS
    assert CONVENTIONS.acts("mkdir") == []


def test_programs_that_are_never_asked() -> None:
    assert reason_never_asked("mkfs.ext9") == "it changes disks and file systems"
    assert reason_never_asked("reboot") == "it turns the machine off or restarts it"
    assert reason_never_asked("ls") == ""


SENTENCES = {words: facts for words, facts in TOOLS.items() if facts.clauses}


def test_the_texts_of_commands_can_be_filled() -> None:
    for facts in SENTENCES.values():
        clauses = [(act.when, act.clause) for act in facts.clauses]
        for condition, text in [*clauses, *facts.adds.items()]:
            outside = re.sub(r"\[[^\[\]]*\]", "", text)
            assert not set("[]") & set(outside), text
            assert not re.search(r"[{}]", re.sub(r"\{[=!]?[^{}|]*(?:\|[^{}]*)?\}", "", text)), text
            assert not text.endswith((".", ",", " ")), text
            assert "  " not in text + condition
        for language in facts.languages.values():
            known = language in LANGUAGES or language.partition("-")[0] in LANGUAGES
            assert known or not language, language


def test_sentences_begin_with_a_verb_of_what_is_done() -> None:
    texts = [text for facts in SENTENCES.values() for text in [act.clause for act in facts.clauses]]
    begin = {text.split(" ")[0] for text in texts if text[0].isalpha()}
    prepositions = {"in", "on", "as", "at", "for", "every", "with", "no"}
    assert {word for word in begin - prepositions if word[-1] != "s"} == set()
