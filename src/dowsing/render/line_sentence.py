"""A sentence for a whole line, made of its meaning: what it does, to what, in what order."""

from __future__ import annotations

from dowsing.commandline.grammar.sayings import Manner, ProblemCode
from dowsing.commandline.languages import read_value
from dowsing.commandline.meaning.nodes import (
    Branch,
    Cases,
    Compared,
    Function,
    Group,
    Over,
    Simple,
    Sum,
    While,
)
from dowsing.commandline.meaning.statements import source_of
from dowsing.commandline.model.tree import OptionUse
from dowsing.commandline.reading.word_roles import is_earlier_line
from dowsing.knowledge.command_classes import CommandClass
from dowsing.render.clause_text import LONGEST, listed_words, shown
from dowsing.render.clauses import ONLY_LOOKS, clause
from dowsing.render.plain_clauses import plain_clause
from dowsing.render.redirections_in_words import redirected
from dowsing.render.tests_in_words import test_words
from dowsing.render.told_clauses import (
    NO_CLAUSE,
    TESTS_WHETHER,
    Chain,
    Clause,
    Shape,
    as_condition,
    contrary,
    in_steps,
)

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Mark, SimpleCommand
    from dowsing.commandline.meaning.nodes import Doing, Pipe, Sequence, Statement
    from dowsing.commandline.model.tree import CommandNode
    from dowsing.commandline.unpicked import Unpicked


#: Before the sentence of a line in which there surely is a mistake.
_FAILS = "Fails as it stands. What seems meant: "
_SENSELESS = "Fails as it stands: the shell cannot make sense of it."
MOST_WITHIN = 3  # substitutions that are told


def sentence(found: Unpicked) -> str:
    """The line in words; "" if there is no command in it."""
    said = LineTeller(found.verbs).sequence(found.meaning.statements).words.strip()
    return said[:1].upper() + said[1:] + "." if said else ""


def sentences(found: Unpicked) -> str:
    """The line in words, with a sentence for each of the substitutions in it; of a line with a
    mistake what seems meant, unless the shell cannot tell where its parts begin.
    """
    if any(one.reason.code is ProblemCode.SENSELESS for one in found.problems):
        return _SENSELESS
    said = sentence(found)
    told = [f"{_FAILS}{said[0].lower()}{said[1:]}" if said and found.mistaken else said]
    teller = LineTeller(found.verbs)
    for text, statements in found.meaning.within[:MOST_WITHIN]:
        said = teller.sequence(statements).words if _is_told(statements) else ""
        if said:
            shown_text = " ".join(text.split())
            is_long = len(shown_text) > LONGEST
            told.append(f"{shown_text[: LONGEST - 1] + '…' if is_long else shown_text} {said}.")
    return " ".join(one for one in told if one)


def _is_told(statements: Sequence) -> bool:
    """Whether more can be said of them than how they are called."""
    simple = [one for step in statements.steps for one in step.pipeline.statements]
    return any(
        not isinstance(one, Simple)
        or (one.doing is not None and (one.doing.act is not None or one.doing.node.root.summary))
        for one in simple
    )


class LineTeller:
    """Puts statements into words. `verbs`: the words that summaries of commands here begin with."""

    def __init__(self, verbs: frozenset[str]) -> None:
        self.verbs = verbs

    # --- lists and pipelines
    # ---------------------------------------------------------------------------

    def sequence(self, sequence: Sequence) -> Clause:
        """Statements one after the other."""
        chain = Chain()
        sign = ""
        for step in sequence.steps:
            sign = step.sign or sign
            said = self.pipe(step.pipeline)
            if said.words:
                chain.add(sign, said)
                sign = ""
            if step.is_behind:
                chain.in_background()
        return chain.clause()

    def pipe(self, pipe: Pipe) -> Clause:
        """Statements of which each feeds the next."""
        steps = [said for one in pipe.statements if (said := self.statement(one)).words]
        if not steps:
            return NO_CLAUSE
        told = in_steps(steps)
        return contrary(told) if pipe.negated else told

    def statement(self, statement: Statement) -> Clause:
        """One statement, with where its input comes from and its output goes to."""
        if isinstance(statement, Simple):
            return self.simple(statement)
        marks = statement.redirections
        source = source_words(marks)
        return redirected(self.compound(statement, source), marks, source)

    def compound(self, statement: Statement, source: str) -> Clause:
        """A statement with others in it."""
        if isinstance(statement, Branch):
            return self.branch(statement)
        if isinstance(statement, Over):
            return Clause(f"{over_words(statement)}: {self.sequence(statement.body).words}")
        if isinstance(statement, While):
            condition = self.sequence(statement.condition)
            head = loop_condition(statement.until, condition, source)
            said = Clause(f"{head}: {self.sequence(statement.body).words}")
            return said.changed(has_source=condition.shape is Shape.READS)
        if isinstance(statement, Cases):
            return self.cases(statement)
        if isinstance(statement, Compared):
            return tested(statement.words)
        if isinstance(statement, Function):
            body = self.sequence(statement.body).words
            return Clause(f"defines the function {statement.name}: {body}")
        if isinstance(statement, Group):
            return self.sequence(statement.body)
        if isinstance(statement, Sum):
            return Clause(f"works out {sum_words(statement.text)}")
        return NO_CLAUSE

    # --- simple commands
    # -------------------------------------------------------------------------------

    def simple(self, statement: Simple) -> Clause:
        """A command with what stands before and behind it."""
        sets, marks = statement.sets, statement.redirections
        source = source_words(marks)
        if statement.doing is not None:
            said = self.doing(statement.doing, source)
            is_elevated = statement.doing.node.is_of(CommandClass.ELEVATES)
        elif statement.unnamed is not None:
            said, is_elevated = unnamed_clause(statement.unnamed), False
        else:
            told = "; ".join(f"sets {set_words(one)}" for one in sets if "=" in one.text)
            return redirected(Clause(told), marks, "")
        said = redirected(said, marks, source, is_elevated)
        if sets:
            return said.followed(
                f", with {listed_words([set_words(one, 'set to') for one in sets])}"
            )
        return said

    def doing(self, doing: Doing, source: str = "") -> Clause:
        """What one command does, with those that it carries."""
        node = doing.node
        if node.is_of(CommandClass.TEST) and not node.carried:
            return bracket_test(node)
        if is_earlier_line(node.name):
            return Clause("runs the line run before again")
        inner = self.inner(doing)
        said = clause(doing, inner, source)
        if said is None:
            said = Clause(plain_clause(node, self.verbs))
            if doing.looks:
                said = said.followed(f", {ONLY_LOOKS}")
            return said.followed(f", and with it {inner}") if inner else said
        if not inner or doing.tells_inner:
            return said
        only = ", of the latter only," if doing.on_last else ""
        return said.followed(f", and{only} {inner}")

    def inner(self, doing: Doing) -> str:
        """What the commands do that one carries, else the lines in its values."""
        carried = [self.doing(one).words for one in doing.carried]
        if any(carried):
            return " and ".join(one for one in carried if one)
        lines = [self.sequence(line).words for line in doing.lines]
        return "; then ".join(one for one in lines if one)

    # --- compound commands
    # --------------------------------------------------------------------------

    def branch(self, statement: Branch) -> Clause:
        """`if …; then …; elif …; else …; fi`."""
        told = []
        for condition, body in statement.cases:
            head = as_condition("if", self.sequence(condition.sequence))
            told.append(f"{head}, {self.sequence(body).words or 'does nothing'}")
        if statement.otherwise is not None:
            told.append(self.sequence(statement.otherwise.sequence).words)
        return Clause("; otherwise, ".join(told), Shape.CONDITION)

    def cases(self, statement: Cases) -> Clause:
        """`case x in a) …;; esac`."""
        told = []
        for one in statement.cases:
            body = self.sequence(one.body).words or "does nothing"
            told.append(f"{pattern_words(one.patterns) or 'anything else'}: {body}")
        return Clause(f"by what {subject_words(statement)} is – {'; '.join(told)}")


def unnamed_clause(command: SimpleCommand) -> Clause:
    """A command whose name is only known when it runs."""
    rest = [shown(word) for word in command.words[1:]]
    more = f" with {listed_words(rest)}" if rest else ""
    return Clause(f"runs {command.words[0].text}{more}")


def bracket_test(node: CommandNode) -> Clause:
    """`[ … ]` and `test …`."""
    words = []
    for use in node.uses:
        words.append(use.word.text)
        if isinstance(use, OptionUse):
            words += [word.text for word in use.value_words]
    return tested([word for word in words if word != "]"])


def tested(words: list[str]) -> Clause:
    """A test of the shell; as it stands where it is not known what it asks."""
    said = test_words(words)
    if not said:
        return Clause(f"tests {' '.join(words)}")
    return Clause(said, Shape.TESTS, TESTS_WHETHER)


def over_words(statement: Over) -> str:
    """`for x in …`."""
    values = [
        sum_words(one.text)
        if one.code is Manner.ARITHMETIC
        else (one.word and shown(one.word)) or one.text
        for one in statement.values
    ]
    over = listed_words(values) if values else "the arguments"
    return f"for each {statement.name} of {over}" if statement.name else over


def sum_words(text: str) -> str:
    """A sum in words."""
    return read_value("arithmetic", text).says or text


def loop_condition(until: bool, condition: Clause, source: str = "") -> str:
    """The head of a loop; `while read …` is done for each line."""
    if condition.shape is not Shape.READS:
        return as_condition("until" if until else "as long as", condition)
    return f"for each line{f' of {source}' if source else ''}, read into {condition.names}"


def subject_words(statement: Cases) -> str:
    """What a `case` looks at."""
    subject = statement.subject
    if subject is None:
        return "this"
    return shown(subject.word) if subject.word else subject.text


def pattern_words(patterns: list[Mark]) -> str:
    """`a|b)`; "" for all that is left."""
    texts = [one.text for one in patterns]
    return "" if texts == ["*"] else " or ".join(texts)


def source_words(marks: list[Mark]) -> str:
    """What a command reads in the place of its input, "" for that itself."""
    mark = source_of(marks)
    if mark is None:
        return ""
    if mark.word is None or mark.operator in ("<<", "<<-"):
        return "the lines that follow"
    said = shown(mark.word)
    return said if mark.operator == "<" else f"the text “{said}”"


def set_words(mark: Mark, joint: str = "to") -> str:
    """`NAME to value`, of an assignment."""
    name, _, value = mark.text.partition("=")
    if mark.word is not None and mark.word.inner and mark.text.endswith(mark.word.text):
        return f"{name} {joint} what {mark.word.text} gives"
    shown_value = shown(mark.word) if mark.word is not None else value
    if name.endswith("+"):
        return f"{name[:-1]} {joint} itself and {shown_value}"
    return f"{name} {joint} {shown_value or 'nothing'}"
