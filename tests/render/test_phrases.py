"""Every code has its words."""

from __future__ import annotations

import re

import pytest

from dowsing.commandline.grammar.sayings import EffectCode, Lack, Manner, Meaning, ProblemCode
from dowsing.commandline.rewriting.rewrite import Needless
from dowsing.composing.faults import FaultCode
from dowsing.model.told import Code, Told, told
from dowsing.model.value_kinds import WrongValue
from dowsing.render.phrases import words

CODES = [
    code
    for kind in (ProblemCode, Meaning, Manner, Lack, EffectCode, Needless, FaultCode, WrongValue)
    for code in kind
]


@pytest.mark.parametrize("code", CODES, ids=str)
def test_a_code_has_words_and_they_have_what_goes_into_them(code: Code) -> None:
    by_text = {
        Meaning.OPERATOR: "|",
        Meaning.KEYWORD: "if",
        Meaning.TEST: "-e",
        Meaning.BRACKET_TEST: "=",
    }
    arguments = {Meaning.REDIRECTION: (">", "rope")}.get(
        code, (by_text.get(code, "one"), "two", "three")
    )
    said = words(told(code, *arguments))
    assert said and not re.search(r"(?<!\$)\{", said)


def test_a_saying_within_another() -> None:
    wrong = told(WrongValue.NO_NUMBER)
    assert (
        words(told(ProblemCode.WRONG_VALUE, wrong))
        == "value of a wrong kind: a number is wanted here"
    )
    assert words(None) == ""


@pytest.mark.parametrize(
    ("saying", "said"),
    [
        (told(FaultCode.NEEDED, "--pack", "--unpack"), "needs --pack or --unpack"),
        (told(Meaning.REDIRECTION, "2>&", "1"), "its errors go where its output goes"),
        (told(Meaning.REDIRECTION, ">>", "log"), "what it prints goes to the end of log"),
        (
            told(Meaning.REDIRECTION, "&>", "/dev/null"),
            "what it prints and its errors are thrown away",
        ),
        (
            told(Meaning.REDIRECTION, ">", "log"),
            "what it prints goes to log, whose contents are replaced",
        ),
        (told(Meaning.REDIRECTION, "3>&", "-"), "closes stream 3"),
        (told(Meaning.REDIRECTION, "<<END", ""), "input is the lines that follow, up to END"),
        (told(Meaning.OPERATOR, "%%"), ""),
    ],
)
def test_words(saying: Told, said: str) -> None:
    assert words(saying) == said
