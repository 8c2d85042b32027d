"""The statements of a line: what the shell does in what order, read from the parts of its tree."""

from __future__ import annotations

from dowsing.commandline.grammar.sayings import Manner
from dowsing.commandline.grammar.shell_words import Mark, SimpleCommand
from dowsing.commandline.meaning.nodes import (
    Branch,
    Case,
    Cases,
    Choice,
    Compared,
    Function,
    Group,
    Over,
    Pipe,
    Sequence,
    Simple,
    Step,
    Sum,
    While,
)
from dowsing.commandline.model.tree import CommandNode, start_of
from dowsing.model.roles import Role

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable

    from dowsing.commandline.meaning.nodes import Doing, Statement

    Part = CommandNode | SimpleCommand | Mark
    #: What a command does, whether another feeds it, and whether it has a source.
    DoingOf = Callable[[CommandNode, bool, bool], Doing]

#: Statements within each other; the grammar reads no more of a line that is whole.
MOST_NESTED = 60
_PIPES = ("|", "|&")
_JOINING = frozenset(("&&", "||", ";", "&"))
_ENDS = frozenset(
    ("then", "else", "elif", "fi", "do", "done", "esac", ";;", ";&", ";;&", "}", ")", "]]")
)


def source_of(marks: list[Mark]) -> Mark | None:
    """The redirection that says what is read in the place of the input."""
    for mark in marks:
        is_file = mark.operator == "<" and mark.word is not None
        if is_file or mark.operator.startswith("<<"):
            return mark
    return None


class StatementReader:
    """Goes through the parts of a line. `text` is the whole line, in whose places the parts stand;
    `doing` says what a command does. Never raises: what cannot be read is passed over.
    """

    def __init__(self, parts: list[Part], text: str, doing: DoingOf) -> None:
        self.doing = doing
        self.parts = [
            one for one in parts if not (isinstance(one, Mark) and one.role == Role.COMMENT)
        ]
        self.text = text
        self.at = 0
        self.depth = 0  # of what is being read within others
        self.compound: dict[str, Callable[[int], Statement | None]] = {
            "if": self.branch,
            "for": self.over,
            "select": self.over,
            "while": self.repeated,
            "until": self.repeated,
            "case": self.cases,
            "[[": self.compared,
            "function": self.function,
            "{": self.group,
            "(": self.group,
        }

    # --- looking at the parts
    # ------------------------------------------------------------------------

    def peek(self) -> Part | None:
        """The next part."""
        return self.parts[self.at] if self.at < len(self.parts) else None

    def place(self) -> int:
        """Where the next part begins in the text."""
        part = self.peek()
        return start_of(part) if part is not None else len(self.text)

    def sign(self) -> str:
        """The next part's text, if it is an operator or a keyword; "" otherwise."""
        part = self.peek()
        is_sign = isinstance(part, Mark) and part.role in (Role.OPERATOR, Role.KEYWORD)
        return part.text.strip() if is_sign and isinstance(part, Mark) else ""

    def take(self, *signs: str) -> bool:
        """Go past one of these signs, if it is next."""
        if self.sign() in signs:
            self.at += 1
            return True
        return False

    def marks(self, role: Role) -> list[Mark]:
        """The marks of a role that stand next."""
        found = []
        while isinstance(part := self.peek(), Mark) and part.role == role:
            found.append(part)
            self.at += 1
        return found

    # --- lists and pipelines
    # ---------------------------------------------------------------------------

    def sequence(self) -> Sequence:
        """Statements one after the other, up to a sign that ends them."""
        steps: list[Step] = []
        joint = ""
        while self.peek() is not None and self.sign() not in _ENDS:
            if self.sign() in _JOINING:
                joint = self.sign()
                if joint == "&" and steps:
                    steps[-1] = steps[-1].changed(is_behind=True)
                self.at += 1
                continue
            before = self.at
            pipe = self.pipe()
            self.at += self.at == before  # what cannot be read is passed over
            if pipe.statements:
                steps.append(Step(joint, pipe))
                joint = ""
        return Sequence(steps)

    def pipe(self) -> Pipe:
        """Statements with pipes between them."""
        start = self.place()
        negated = self.take("!")
        found: list[Statement] = []
        is_fed = False
        while True:
            statement = self.statement(is_fed)
            if statement is not None:
                found.append(statement)
            if not self.take(*_PIPES):
                return Pipe(start, found, negated)
            is_fed = True

    def statement(self, is_fed: bool) -> Statement | None:
        """One command with its redirections, or a compound one; None for what is neither.
        `is_fed`: by the one before it.
        """
        start, part = self.place(), self.peek()
        compound = self.compound.get(self.sign())
        if compound is not None and self.depth < MOST_NESTED:
            self.depth += 1
            made = compound(start)
            self.depth -= 1
            behind = self.marks(Role.REDIRECTION)
            if made is None or not behind:
                return made
            return made.changed(redirections=[*made.redirections, *behind])
        if isinstance(part, Mark) and part.role == Role.OPERAND:
            return self.loose(start, part)
        return self.simple(start, is_fed)

    def simple(self, start: int, is_fed: bool) -> Statement | None:
        """A simple command with what stands before and behind it."""
        sets = self.assignments()
        before = self.marks(Role.REDIRECTION)
        command = self.peek()
        if isinstance(command, Mark) or command is None or self.is_apart(sets, command):
            return Simple(start, before, sets=sets) if sets or before else None
        self.at += 1
        marks = [*before, *self.marks(Role.REDIRECTION)]
        if isinstance(command, SimpleCommand):
            return Simple(start, marks, unnamed=command, sets=sets)
        doing = self.doing(command, is_fed, source_of(marks) is not None)
        return Simple(start, marks, doing, sets=sets)

    def assignments(self) -> list[Mark]:
        """The assignments that stand next, on one line."""
        found: list[Mark] = []
        while isinstance(part := self.peek(), Mark) and part.role == Role.ASSIGNMENT:
            if found and "\n" in self.text[found[-1].end : part.start]:
                break
            found.append(part)
            self.at += 1
        return found

    def is_apart(self, sets: list[Mark], command: CommandNode | SimpleCommand) -> bool:
        """Whether a line ends between assignments and a command."""
        return bool(sets) and "\n" in self.text[sets[-1].end : start_of(command)]

    # --- compound commands
    # --------------------------------------------------------------------------

    def branch(self, start: int) -> Statement:
        """`if …; then …; elif …; else …; fi`."""
        cases: list[tuple[Choice, Sequence]] = []
        begins = start
        while not cases or self.sign() == "elif":
            begins = self.place()
            self.at += 1
            condition = Choice(begins, self.sequence())
            self.take("then")
            cases.append((condition, self.sequence()))
        begins = self.place()
        otherwise = Choice(begins, self.sequence()) if self.take("else") else None
        self.take("fi")
        return Branch(start, [], cases, otherwise)

    def over(self, start: int) -> Statement:
        """`for x in …; do …; done`."""
        self.at += 1
        name, values = "", []
        while (part := self.peek()) is not None and self.sign() not in ("do", "{"):
            if isinstance(part, Mark) and part.code is Manner.LOOP_VARIABLE:
                name = part.text
            elif isinstance(part, Mark) and part.code in (Manner.LOOP_VALUE, Manner.ARITHMETIC):
                values.append(part)
            self.at += 1
        return Over(start, [], name, values, self.body())

    def repeated(self, start: int) -> Statement:
        """`while …; do …; done`."""
        until = self.sign() == "until"
        self.at += 1
        condition = self.sequence()
        return While(start, [], until, condition, self.body())

    def body(self) -> Sequence:
        """What a loop does each time."""
        self.take(";")
        self.take("do", "{")
        done = self.sequence()
        self.take("done", "}")
        return done

    def cases(self, start: int) -> Statement:
        """`case x in a) …;; esac`."""
        self.at += 1
        subject = self.peek()
        is_value = isinstance(subject, Mark) and subject.code is Manner.CASE_VALUE
        self.at += is_value
        found: list[Case] = []
        while self.peek() is not None and not self.take("esac"):
            part, begins = self.peek(), self.place()
            if isinstance(part, Mark) and part.code is Manner.CASE_PATTERN:
                found.append(Case(begins, self.patterns(), self.sequence()))
                self.take(";;", ";&", ";;&")
            else:
                self.at += 1
        is_mark = is_value and isinstance(subject, Mark)
        return Cases(start, [], subject if is_mark else None, found)  # type: ignore[arg-type]

    def patterns(self) -> list[Mark]:
        """`a|b)`."""
        found = []
        while isinstance(part := self.peek(), Mark) and not self.take(")"):
            if part.code is Manner.CASE_PATTERN:
                found.append(part)
            self.at += 1
        return found

    def compared(self, start: int) -> Statement:
        """`[[ … ]]`."""
        self.at += 1
        words = []
        while (part := self.peek()) is not None and self.sign() != "]]":
            words.append(part.text if isinstance(part, Mark) else "")
            self.at += 1
        self.take("]]")
        return Compared(start, [], words)

    def function(self, start: int) -> Statement | None:
        """`function name { … }`."""
        self.at += 1
        part = self.peek()
        return self.loose(start, part) if isinstance(part, Mark) else None

    def loose(self, start: int, part: Mark) -> Statement | None:
        """A name before a function's body, a sum; None for another word."""
        self.at += 1
        if part.code is Manner.FUNCTION_NAME:
            return self.defined(start, part)
        if part.code is Manner.ARITHMETIC:
            return Sum(start, [], part.text)
        return None

    def defined(self, start: int, name: Mark) -> Statement:
        """What a function does."""
        self.take("(")
        self.take(")")
        if self.sign() in ("{", "("):
            body = self.in_brackets()
        else:
            body = self.sequence()
        return Function(start, [], name.text, body)

    def group(self, start: int) -> Statement:
        """`{ …; }` and `( … )`."""
        own_shell = self.sign() == "("
        return Group(start, [], own_shell, self.in_brackets())

    def in_brackets(self) -> Sequence:
        """What stands between brackets."""
        self.at += 1
        done = self.sequence()
        self.take("}", ")")
        return done
