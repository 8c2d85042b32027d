"""A script as an outline: each statement with its line and a sentence, set in as it stands in loops
and conditions.
"""

from __future__ import annotations

from dowsing.commandline.grammar.sayings import Manner
from dowsing.commandline.grammar.shell_words import Mark, SimpleCommand
from dowsing.commandline.model.tree import CommandNode, start_of
from dowsing.model.record import Record
from dowsing.render.line_sentence import LineTeller, loop_condition
from dowsing.render.told_clauses import NO_CLAUSE, Chain, Clause, as_condition

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.scripts.script import Script, ScriptPart


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
        teller.sequence()
        rows += teller.rows
    return rows


class _OutlineTeller(LineTeller):
    """Tells statements as rows; what stands in one statement is told as LineTeller does."""

    def __init__(self, part: ScriptPart, verbs: frozenset[str]) -> None:
        super().__init__(part.tree.parts, part.fragment.text, verbs)
        self.part = part
        self.depth = 0
        self.rows: list[OutlineRow] = []

    def sequence(self) -> Clause:
        """Statements one after the other, each a row; nothing is left to be told."""
        chain, joint, start = Chain(), "", -1
        while self.peek() is not None and not self.is_end():
            sign = self.sign()
            if sign in (";", "&"):
                if sign == "&":
                    chain.in_background()
                self.row(start, chain.clause())
                chain, joint, start = Chain(), "", -1
                self.at += 1
                continue
            if sign in ("&&", "||"):
                joint = sign
                self.at += 1
                continue
            if chain.steps and not joint:  # a line has ended
                self.row(start, chain.clause())
                chain, start = Chain(), -1
            before, rows = self.at, len(self.rows)
            begins = self.place()
            said = self.pipeline()
            self.at += self.at == before
            if len(self.rows) > rows and not chain.steps:
                continue
            start = begins if start < 0 else start
            if said.words:
                chain.add(joint, said)
            joint = ""
        self.row(start, chain.clause())
        return NO_CLAUSE

    def place(self) -> int:
        """Where the next part begins in the text."""
        part = self.peek()
        return start_of(part) if part is not None else len(self.text)

    def row(self, start: int, said: Clause) -> None:
        """A statement is done."""
        if said.words and start >= 0:
            self.add(start, said.words)

    def add(self, start: int, says: str) -> None:
        """A row for what begins at a place."""
        text = self.text[start:].partition("\n")[0].strip()
        line = self.part.line_of(start)
        self.rows.append(OutlineRow(line, self.depth, text, says[:1].upper() + says[1:]))

    def block(self) -> None:
        """Statements within another."""
        self.depth += 1
        self.sequence()
        self.depth -= 1

    # --- what holds others
    # --------------------------------------------------------------------------

    def tested(self) -> Clause:
        """A condition, in the words of a single line."""
        return LineTeller(self.condition_parts(), self.text, self.verbs).sequence()

    def condition_parts(self) -> list[CommandNode | SimpleCommand | Mark]:
        """The parts up to `then` or `do`."""
        begin = self.at
        depth = 0
        while self.peek() is not None:
            sign = self.sign()
            if not depth and sign in ("then", "do"):
                break
            depth += sign in ("if", "while", "until", "for", "case")
            depth -= sign in ("fi", "done", "esac")
            self.at += 1
        return self.parts[begin : self.at]

    def condition(self) -> Clause:
        """`if`: a row for each condition, with what is done then below it."""
        start = self.place()
        self.at += 1
        self.add(start, f"{as_condition('if', self.tested())}:")
        self.take("then")
        self.block()
        while self.sign() == "elif":
            start = self.place()
            self.at += 1
            self.add(start, f"otherwise, {as_condition('if', self.tested())}:")
            self.take("then")
            self.block()
        if self.sign() == "else":
            self.add(self.place(), "otherwise:")
            self.at += 1
            self.block()
        self.take("fi")
        return NO_CLAUSE

    def loop(self) -> Clause:
        """`for`."""
        start = self.place()
        head = self.loop_head()
        self.add(start, f"{head}:")
        return self.looped()

    def repeated(self) -> Clause:
        """`while` and `until`."""
        start = self.place()
        word = "as long as" if self.sign() == "while" else "until"
        self.at += 1
        self.add(start, f"{loop_condition(word, self.tested())}:")
        return self.looped()

    def looped(self) -> Clause:
        """What a loop does each time."""
        self.take(";")
        self.take("do", "{")
        self.block()
        self.take("done", "}")
        return NO_CLAUSE

    def cases(self) -> Clause:
        """`case`: a row for each pattern."""
        start = self.place()
        self.at += 1
        subject = self.case_subject()
        self.add(start, f"by what {subject} is:")
        self.depth += 1
        while self.peek() is not None and not self.take("esac"):
            part = self.peek()
            if isinstance(part, Mark) and part.code is Manner.CASE_PATTERN:
                begins = self.place()
                self.add(begins, f"{self.case_patterns()}:")
                self.block()
                self.take(";;", ";&", ";;&")
            else:
                self.at += 1
        self.depth -= 1
        return NO_CLAUSE

    def defined(self, name: Mark) -> Clause:
        """A function: a row, with what it does below it."""
        self.add(name.start, f"defines the function {name.text}:")
        self.take("(")
        self.take(")")
        if self.sign() in ("{", "("):
            self.at += 1
            self.block()
            self.take("}", ")")
        else:
            self.block()
        return NO_CLAUSE

    def group(self) -> Clause:
        """`{ …; }` and `( … )`."""
        own = "in a shell of its own:" if self.sign() == "(" else "together:"
        self.add(self.place(), own)
        self.at += 1
        self.block()
        self.take("}", ")")
        return NO_CLAUSE
