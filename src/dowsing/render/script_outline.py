"""A script as an outline: each statement with its line and a sentence, set in as it stands in loops
and conditions.
"""

from __future__ import annotations

from dowsing.commandline.meaning.nodes import (
    Branch,
    Cases,
    Function,
    Group,
    Over,
    Sequence,
    While,
)
from dowsing.model.record import Record
from dowsing.render.line_sentence import (
    LineTeller,
    loop_condition,
    over_words,
    pattern_words,
    source_words,
    subject_words,
)
from dowsing.render.phrases import words
from dowsing.render.redirections_in_words import redirected
from dowsing.render.told_clauses import Clause, Shape, as_condition

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.meaning.nodes import Pipe, Statement, Step
    from dowsing.commandline.scripts.script import Script, ScriptPart

#: What is said before what follows a block.
_FED = "then, with what that prints, "
_SIGNS = {"&&": "if that succeeds, ", "||": "if that fails, "}
_HOLDING = (Branch, Over, While, Cases, Function, Group)


class OutlineRow(Record):
    """A statement: the line of the file that it begins in, how deep it stands within others, its
    text up to the end of the line, and what it does.
    """

    line: int
    depth: int
    text: str
    says: str


def outline(script: Script) -> list[OutlineRow]:
    """All statements of a script in order."""
    rows: list[OutlineRow] = []
    for part in script.parts:
        teller = _OutlineTeller(part, script.verbs)
        teller.rows_of(part.meaning.statements)
        rows += teller.rows
    for step in script.steps:
        if step.step is not None:
            says = words(step.step)
            rows.append(OutlineRow(step.line, 0, step.text, says[:1].upper() + says[1:]))
    return sorted(rows, key=lambda row: row.line) if script.steps else rows


class _OutlineTeller:
    """Tells statements as rows: one that holds others as a head, with these below it."""

    def __init__(self, part: ScriptPart, verbs: frozenset[str]) -> None:
        self.part = part
        self.teller = LineTeller(verbs)
        self.depth = 0
        self.rows: list[OutlineRow] = []

    def rows_of(self, sequence: Sequence) -> None:
        """Statements one after the other, each a row; what `&&` and `||` join is one. Where the
        first or last one holds others, these stand below a row of their own.
        """
        for steps in _apart(sequence):
            self.joined(steps, "")

    def joined(self, steps: list[Step], word: str) -> None:
        """Statements that signs and pipes join. `word`: what stands before them."""
        first = steps[0].pipeline.statements[0]
        rest = _behind_first(steps)
        if rest and isinstance(first, _HOLDING) and not steps[0].pipeline.negated:
            self.holding(first)
            is_piped = len(steps[0].pipeline.statements) > 1
            self.joined(rest, _FED if is_piped else _SIGNS[rest[0].sign])
            return
        holding = _holding(steps[-1].pipeline)
        said = self.teller.sequence(Sequence(_before(steps) if holding else steps))
        if holding is not None and (said.words or word):
            self.behind(steps, said, holding, word)
        elif holding is not None:
            self.holding(holding)
        elif said.words:
            self.add(steps[0].pipeline.start, word + said.words)

    def behind(self, steps: list[Step], before: Clause, holding: Statement, word: str) -> None:
        """A statement that holds others, behind others that a sign or a pipe joins to it."""
        start = steps[0].pipeline.start
        said = word + _joined(before, steps[-1]) if before.words else word.rstrip(", ")
        body = getattr(holding, "body", None)
        if body is None:
            self.add(start, f"{said}:")
            self.depth += 1
            self.holding(holding)
            self.depth -= 1
            return
        is_plain = isinstance(holding, Group) and not holding.own_shell
        head = "" if is_plain else f", {self.head(holding)}"
        self.add(start, f"{said}{head}:")
        self.below(body)

    def add(self, start: int, says: str, *, as_is: bool = False) -> None:
        """A row for what begins at a place. `as_is`: its first letter is of the script."""
        text = self.part.fragment.text[start:].partition("\n")[0].strip()
        line = self.part.line_of(start)
        told = says if as_is else says[:1].upper() + says[1:]
        self.rows.append(OutlineRow(line, self.depth, text, told))

    def below(self, sequence: Sequence) -> None:
        """Statements within another."""
        self.depth += 1
        self.rows_of(sequence)
        self.depth -= 1

    def holding(self, statement: Statement) -> None:
        """A statement that holds others."""
        if isinstance(statement, Branch):
            self.branch(statement)
        elif isinstance(statement, Cases):
            self.cases(statement)
        else:
            self.add(statement.start, f"{self.head(statement)}:")
            self.below(getattr(statement, "body", Sequence()))

    def head(self, statement: Statement) -> str:
        """What is said of a loop, a function, a group, with where its output goes."""
        source = source_words(statement.redirections)
        said = Clause("in a shell of its own")
        if isinstance(statement, Over):
            said = Clause(over_words(statement))
        elif isinstance(statement, While):
            condition = self.teller.sequence(statement.condition)
            said = Clause(loop_condition(statement.until, condition, source))
            said = said.changed(has_source=condition.shape is Shape.READS)
        elif isinstance(statement, Function):
            said = Clause(f"defines the function {statement.name}")
        elif isinstance(statement, Group) and not statement.own_shell:
            said = Clause("together")
        return redirected(said, statement.redirections, source).words

    def branch(self, statement: Branch) -> None:
        """`if`: a row for each condition, with what is done then below it."""
        word = ""
        for condition, body in statement.cases:
            told = as_condition("if", self.teller.sequence(condition.sequence))
            self.add(condition.start, f"{word}{told}:")
            self.below(body)
            word = "otherwise, "
        if statement.otherwise is not None:
            self.add(statement.otherwise.start, "otherwise:")
            self.below(statement.otherwise.sequence)

    def cases(self, statement: Cases) -> None:
        """`case`: a row for each pattern."""
        self.add(statement.start, f"by what {subject_words(statement)} is:")
        self.depth += 1
        for one in statement.cases:
            told = pattern_words(one.patterns)
            self.add(one.start, f"{told or 'anything else'}:", as_is=bool(told))
            self.below(one.body)
        self.depth -= 1


def _apart(sequence: Sequence) -> list[list[Step]]:
    """The steps of which each is a row of its own, with those that `&&` and `||` join to it."""
    found: list[list[Step]] = []
    for step in sequence.steps:
        if found and step.sign in ("&&", "||"):
            found[-1].append(step)
        else:
            found.append([step.changed(sign="")])
    return found


def _holding(pipe: Pipe) -> Statement | None:
    """The statement that holds others, at the end of a pipe."""
    last = pipe.statements[-1]
    return last if isinstance(last, _HOLDING) and not pipe.negated else None


def _behind_first(steps: list[Step]) -> list[Step]:
    """The steps without the first statement of the first."""
    first, *others = steps
    rest = first.pipeline.statements[1:]
    if not rest:
        return others
    pipe = first.pipeline.changed(statements=rest, start=rest[0].start)
    return [first.changed(pipeline=pipe), *others]


def _before(steps: list[Step]) -> list[Step]:
    """The steps without the last statement of the last."""
    *first, last = steps
    rest = last.pipeline.statements[:-1]
    if not rest:
        return first
    return [*first, last.changed(pipeline=last.pipeline.changed(statements=rest))]


def _joined(before: Clause, last: Step) -> str:
    """What comes before a statement, up to what joins it."""
    if len(last.pipeline.statements) > 1:
        return f"{before.words}, then"
    if before.shape is Shape.TESTS:
        return f"{'if' if last.sign == '&&' else 'unless'} {before.text}"
    return f"{before.words}; if that {'succeeds' if last.sign == '&&' else 'fails'}"
