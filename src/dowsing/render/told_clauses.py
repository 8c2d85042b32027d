"""Clauses of a sentence with what they are, so that nothing has to be read out of their words: a
test becomes a condition, what is printed may be written to a file.
"""

from __future__ import annotations

from enum import Enum

from dowsing.model.record import Record


class Shape(Enum):
    """What a clause tells: that something is done, that its `text` is printed, whether that is so,
    the contrary of its `inner`, nothing, that a line is read into its `text`, or that something
    depends on a condition.
    """

    ACT = "act"
    PRINTS = "prints"
    TESTS = "tests"
    CONTRARY = "contrary"
    NOTHING = "nothing"
    READS = "reads"
    CONDITION = "condition"


class Clause(Record):
    """A clause: `begin` and `text` are its words. `is_bare`: nothing was added behind what it
    prints; `inner`: what it is the contrary of; `names`: the variables that a line is read into;
    `has_source`: it says what it reads; `takes_them`: it does something to what comes before it.
    """

    text: str
    shape: Shape = Shape.ACT
    begin: str = ""
    is_bare: bool = True
    inner: Clause | None = None
    names: str = ""
    has_source: bool = False
    takes_them: bool = False

    @property
    def words(self) -> str:
        """The clause as it is told."""
        return self.begin + self.text

    def followed(self, text: str) -> Clause:
        """The clause with more behind it."""
        return self.changed(text=self.text + text, is_bare=False)


NO_CLAUSE = Clause("")
#: How tests of the shell are told.
TESTS_WHETHER = "tests whether "
#: What stands between clauses for the signs of the shell; "" for the end of a line.
_JOINTS = {
    "&&": "; if that succeeds, ",
    "||": "; if that fails, ",
    ";": "; then ",
    "": "; then ",
    "&": "; at the same time, ",
}
_NEGATED = {"if": "unless", "as long as": "until", "until": "as long as"}


class Chain:
    """Clauses one after the other, with the signs of the shell between them."""

    def __init__(self) -> None:
        self.steps: list[tuple[str, Clause]] = []

    def add(self, sign: str, said: Clause) -> None:
        """One more; a test before `&&` or `||` is its condition."""
        if self.steps and sign in ("&&", "||"):
            before, last = self.steps[-1]
            if before not in ("&&", "||") and last.shape is Shape.TESTS:
                word = "if" if sign == "&&" else "unless"
                told = f"{word} {last.text}, {said.words}"
                self.steps[-1] = (before, Clause(told, Shape.CONDITION))
                return
        self.steps.append((sign, said))

    def in_background(self) -> None:
        """The last one is not waited for."""
        if self.steps:
            sign, last = self.steps[-1]
            self.steps[-1] = (sign, last.followed(", in the background"))

    def clause(self) -> Clause:
        """All of them as one."""
        if not self.steps:
            return NO_CLAUSE
        if len(self.steps) == 1:
            return self.steps[0][1]
        told = self.steps[0][1].words
        for (_, before), (sign, said) in zip(self.steps, self.steps[1:], strict=False):
            told += _joint(before, sign, said) + said.words
        return Clause(told)


def _joint(before: Clause, sign: str, said: Clause) -> str:
    if sign == "||" and before.shape is Shape.CONDITION:
        return "; otherwise, "
    if sign in (";", "") and said.shape is Shape.CONDITION:
        return "; then, "
    return _JOINTS[sign]


def contrary(said: Clause) -> Clause:
    """`! …`."""
    if said.shape is Shape.TESTS and said.begin == TESTS_WHETHER:
        return said.changed(text=f"it is not so that {said.text}")
    return Clause(said.words, Shape.CONTRARY, "the contrary of this: ", inner=said)


def as_condition(word: str, said: Clause) -> str:
    """A clause behind `if`, `as long as` or `until`."""
    if said.shape is Shape.NOTHING and word == "as long as":
        return "again and again"
    if said.shape is Shape.TESTS:
        return f"{word} {said.text}"
    if said.shape is Shape.CONTRARY and said.inner is not None:
        if said.inner.shape is Shape.TESTS:
            return f"{_NEGATED.get(word, word)} {said.inner.text}"
        return f"{word} this fails ({said.inner.words})"
    return f"{word} this succeeds ({said.words})"


def in_steps(steps: list[Clause]) -> Clause:
    """The steps of a pipeline."""
    if len(steps) == 1:
        return steps[0]
    if len(steps) == 2 and steps[1].takes_them:
        return Clause(f"{steps[0].words}, and {steps[1].words}")
    return Clause(", then ".join(one.words for one in steps))
