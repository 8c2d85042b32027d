"""A sentence for a whole line, made from its tree: what it does, to what, in what order."""

from __future__ import annotations

from dowsing.commandline.grammar.sayings import Manner
from dowsing.commandline.grammar.shell_words import Mark, SimpleCommand
from dowsing.commandline.judging.certainty import looks_only
from dowsing.commandline.languages import read_value
from dowsing.commandline.model.tree import CommandNode, Line, start_of
from dowsing.commandline.reading.word_roles import is_earlier_line
from dowsing.knowledge.command_classes import CommandClass
from dowsing.model.roles import Role
from dowsing.render.clause_filling import ONLY_LOOKS
from dowsing.render.clause_lookup import Given, acts_on_last
from dowsing.render.clause_text import listed_words, shown
from dowsing.render.clauses import clause
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
    from dowsing.commandline.model.unpicked import Unpicked

    Part = CommandNode | SimpleCommand | Mark

_PIPES = ("|", "|&")
_JOINING = frozenset(("&&", "||", ";", "&"))
_ENDS = frozenset(
    ("then", "else", "elif", "fi", "do", "done", "esac", ";;", ";&", ";;&", "}", ")", "]]")
)


def sentence(found: Unpicked) -> str:
    """The line in words; "" if there is no command in it."""
    return sentence_of(found.tree, found.line, found.verbs) if found.tree else ""


def sentence_of(line: Line, text: str, verbs: frozenset[str]) -> str:
    """A line, or a part of one, in words. `text` is the whole line, in whose places the parts
    stand.
    """
    said = LineTeller(line.parts, text, verbs).sequence().words.strip()
    return said[:1].upper() + said[1:] + "." if said else ""


class LineTeller:
    """Puts the parts of a line into words, one after the other. `verbs`: the words that summaries
    of commands here begin with.
    """

    def __init__(self, parts: list[Part], text: str, verbs: frozenset[str]) -> None:
        self.parts = [
            one for one in parts if not (isinstance(one, Mark) and one.role == Role.COMMENT)
        ]
        self.text = text
        self.verbs = verbs
        self.at = 0

    # --- looking at the parts
    # ------------------------------------------------------------------------

    def peek(self) -> Part | None:
        """The next part."""
        return self.parts[self.at] if self.at < len(self.parts) else None

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

    # --- lists and pipelines
    # ---------------------------------------------------------------------------

    def sequence(self) -> Clause:
        """Commands one after the other, up to a sign that ends them."""
        chain = Chain()
        joint = ""
        while self.peek() is not None and not self.is_end():
            if self.sign() in _JOINING:
                joint = self.sign()
                if joint == "&":
                    chain.in_background()
                self.at += 1
                continue
            before = self.at
            said = self.pipeline()
            self.at += self.at == before  # what cannot be told is passed over
            if said.words:
                chain.add(joint, said)
                joint = ""
        return chain.clause()

    def pipeline(self) -> Clause:
        """Commands with pipes between them, as steps."""
        negated = self.take("!")
        steps: list[Clause] = []
        piped = False
        while True:
            said = self.element(piped)
            if said.words:
                steps.append(said)
            if not self.take(*_PIPES):
                break
            piped = True
        if not steps:
            return NO_CLAUSE
        told = in_steps(steps)
        return contrary(told) if negated else told

    def element(self, piped: bool) -> Clause:
        """One command with its redirections, or a compound one."""
        part = self.peek()
        sign = self.sign()
        compound = {
            "if": self.condition,
            "for": self.loop,
            "select": self.loop,
            "while": self.repeated,
            "until": self.repeated,
            "case": self.cases,
            "[[": self.shell_test,
            "function": self.function,
            "{": self.group,
            "(": self.group,
        }.get(sign)
        if compound is not None:
            said = compound()
            return redirected(said, self.redirections(), "")
        if isinstance(part, Mark) and part.role == Role.OPERAND:
            return self.loose(part)
        return self.simple(piped)

    def redirections(self) -> list[Mark]:
        """The redirections that stand next."""
        found = []
        while isinstance(part := self.peek(), Mark) and part.role == Role.REDIRECTION:
            found.append(part)
            self.at += 1
        return found

    def simple(self, piped: bool) -> Clause:
        """A simple command with what stands before and behind it."""
        sets = self.assignments()
        before = self.redirections()
        command = self.peek()
        if isinstance(command, Mark) or command is None or self.is_apart(sets, command):
            told = Clause("; ".join(self.assigned(one) for one in sets))
            return redirected(told, before, "")
        self.at += 1
        marks = [*before, *self.redirections()]
        source = _source(marks)
        said = self.clause(command, Given(piped, source))
        is_elevated = isinstance(command, CommandNode) and command.is_of(CommandClass.ELEVATES)
        said = redirected(said, marks, source, is_elevated)
        if sets:
            return said.followed(
                f", with {listed_words([_set_words(one, 'set to') for one in sets])}"
            )
        return said

    def assignments(self) -> list[Mark]:
        """The assignments that stand next."""
        found: list[Mark] = []
        while isinstance(part := self.peek(), Mark) and part.role == Role.ASSIGNMENT:
            if found and "\n" in self.text[found[-1].end : part.start]:
                break
            found.append(part)
            self.at += 1
        return found

    def is_apart(self, sets: list[Mark], command: CommandNode | SimpleCommand) -> bool:
        """Whether a line ends between assignments and a command."""
        start = start_of(command)
        return bool(sets) and "\n" in self.text[sets[-1].end : start]

    def assigned(self, mark: Mark) -> str:
        """`NAME=value` alone."""
        return f"sets {_set_words(mark)}" if "=" in mark.text else ""

    # --- commands
    # -----------------------------------------------------------------------------------

    def clause(self, command: CommandNode | SimpleCommand, given: Given) -> Clause:
        """What one command does, with those that it carries."""
        if isinstance(command, SimpleCommand):
            rest = [shown(word) for word in command.words[1:]]
            more = f" with {listed_words(rest)}" if rest else ""
            return Clause(f"runs {command.words[0].text}{more}")
        if command.is_of(CommandClass.TEST) and not command.carried:
            return self.bracket_test(command)
        if is_earlier_line(command.name):
            return Clause("runs the line run before again")
        inner = given.inner = given.line = self.inner(command, given) or self.lines_of(command)
        said = clause(command, given)
        if said is None:
            said = Clause(plain_clause(command, self.verbs))
            if looks_only(command):
                said = said.followed(f", {ONLY_LOOKS}")
            return said.followed(f", and with it {inner}") if inner else said
        said = said.changed(has_source=given.has_source, takes_them=given.takes_them)
        acts = command.known.facts.clauses
        is_told = any("{inner}" in act.says or "{line}" in act.says for act in acts)
        if not inner or is_told:
            return said
        only = ", of the latter only," if acts_on_last(command) else ""
        return said.followed(f", and{only} {inner}")

    def inner(self, command: CommandNode, given: Given) -> str:
        """The clauses of the commands that one carries."""
        carried = [one for one in command.carried if one is not command]
        said = [self.clause(one, Given(source="")) for one in carried]
        given.takes_them = any(one.takes_them for one in said)
        return " and ".join(one.words for one in said if one.words)

    def lines_of(self, command: CommandNode) -> str:
        """What the lines in its values do."""
        lines = [line for use in command.uses for line in use.lines]
        told = [LineTeller(line.parts, self.text, self.verbs).sequence().words for line in lines]
        return "; then ".join(one for one in told if one)

    def bracket_test(self, command: CommandNode) -> Clause:
        """`[ … ]` and `test …`."""
        words = []
        for use in command.uses:
            words.append(use.word.text)
            words += [word.text for word in getattr(use, "value_words", [])]
        words = [word for word in words if word != "]"]
        return _tested(words)

    # --- compound commands
    # --------------------------------------------------------------------------

    def shell_test(self) -> Clause:
        """`[[ … ]]`."""
        self.at += 1
        words = []
        while (part := self.peek()) is not None and self.sign() != "]]":
            words.append(part.text if isinstance(part, Mark) else "")
            self.at += 1
        self.take("]]")
        return _tested(words)

    def condition(self) -> Clause:
        """`if …; then …; elif …; else …; fi`."""
        self.at += 1
        told = f"{as_condition('if', self.sequence())}, "
        self.take("then")
        told += self.sequence().words or "does nothing"
        while self.take("elif"):
            told += f"; otherwise, {as_condition('if', self.sequence())}, "
            self.take("then")
            told += self.sequence().words
        if self.take("else"):
            told += f"; otherwise, {self.sequence().words}"
        self.take("fi")
        return Clause(told, Shape.CONDITION)

    def is_end(self) -> bool:
        """Whether the next sign ends a sequence."""
        return self.sign() in _ENDS

    def loop(self) -> Clause:
        """`for x in …; do …; done`."""
        head = self.loop_head()
        return Clause(f"{head}: {self.body()}")

    def loop_head(self) -> str:
        """`for x in …`."""
        self.at += 1
        name, values = "", []
        while (part := self.peek()) is not None and self.sign() not in ("do", "{"):
            if isinstance(part, Mark) and part.code is Manner.LOOP_VARIABLE:
                name = part.text
            elif isinstance(part, Mark) and part.code is Manner.LOOP_VALUE:
                values.append((part.word and shown(part.word)) or part.text)
            elif isinstance(part, Mark) and part.code is Manner.ARITHMETIC:
                values.append(read_value("arithmetic", part.text).says or part.text)
            self.at += 1
        over = listed_words(values) if values else "the arguments"
        return f"for each {name} of {over}" if name else over

    def repeated(self) -> Clause:
        """`while …; do …; done`."""
        word = "as long as" if self.sign() == "while" else "until"
        self.at += 1
        condition = self.sequence()
        body = self.body()
        head = loop_condition(word, condition, _source(self.redirections()))
        return Clause(f"{head}: {body}")

    def body(self) -> str:
        """What a loop does each time."""
        self.take(";")
        self.take("do", "{")
        said = self.sequence()
        self.take("done", "}")
        return said.words

    def cases(self) -> Clause:
        """`case x in a) …;; esac`."""
        self.at += 1
        subject, told = self.case_subject(), []
        while self.peek() is not None and not self.take("esac"):
            part = self.peek()
            if isinstance(part, Mark) and part.code is Manner.CASE_PATTERN:
                patterns = self.case_patterns()
                told.append(f"{patterns}: {self.sequence().words or 'does nothing'}")
                self.take(";;", ";&", ";;&")
            else:
                self.at += 1
        return Clause(f"by what {subject} is – {'; '.join(told)}")

    def case_subject(self) -> str:
        """What a `case` looks at."""
        part = self.peek()
        if not isinstance(part, Mark) or part.code is not Manner.CASE_VALUE:
            return "this"
        self.at += 1
        return shown(part.word) if part.word else part.text

    def case_patterns(self) -> str:
        """`a|b)`."""
        patterns = []
        while isinstance(part := self.peek(), Mark) and not self.take(")"):
            if part.code is Manner.CASE_PATTERN:
                patterns.append(part.text)
            self.at += 1
        return "anything else" if patterns == ["*"] else " or ".join(patterns)

    def function(self) -> Clause:
        """`function name { … }`."""
        self.at += 1
        part = self.peek()
        return self.loose(part) if isinstance(part, Mark) else NO_CLAUSE

    def loose(self, part: Mark) -> Clause:
        """A name before a function's body, a sum, a word of a loop."""
        self.at += 1
        if part.code is Manner.FUNCTION_NAME:
            return self.defined(part)
        if part.code is Manner.ARITHMETIC:
            return Clause(f"works out {read_value('arithmetic', part.text).says or part.text}")
        return NO_CLAUSE

    def defined(self, name: Mark) -> Clause:
        """What a function does."""
        self.take("(")
        self.take(")")
        body = self.group() if self.sign() in ("{", "(") else self.sequence()
        return Clause(f"defines the function {name.text}: {body.words}")

    def group(self) -> Clause:
        """`{ …; }` and `( … )`."""
        self.at += 1
        said = self.sequence()
        self.take("}", ")")
        return said


def _tested(words: list[str]) -> Clause:
    """A test of the shell; as it stands where it is not known what it asks."""
    said = test_words(words)
    if not said:
        return Clause(f"tests {' '.join(words)}")
    return Clause(said, Shape.TESTS, TESTS_WHETHER)


def loop_condition(word: str, condition: Clause, source: str = "") -> str:
    """The head of a loop; `while read …` is done for each line."""
    if condition.shape is not Shape.READS:
        return as_condition(word, condition)
    return f"for each line{f' of {source}' if source else ''}, read into {condition.names}"


def _source(marks: list[Mark]) -> str:
    """What a command reads in the place of its input, "" for that itself."""
    for mark in marks:
        if mark.operator == "<" and mark.word is not None:
            return shown(mark.word)
        if mark.operator.startswith("<<<") and mark.word is not None:
            return f"the text “{shown(mark.word)}”"
        if mark.operator.startswith("<<"):
            return "the lines that follow"
    return ""


def _set_words(mark: Mark, joint: str = "to") -> str:
    """`NAME to value`, of an assignment."""
    name, _, value = mark.text.partition("=")
    if mark.word is not None and mark.word.inner and mark.text.endswith(mark.word.text):
        return f"{name} {joint} what {mark.word.text} gives"
    shown_value = shown(mark.word) if mark.word is not None else value
    if name.endswith("+"):
        return f"{name[:-1]} {joint} itself and {shown_value}"
    return f"{name} {joint} {shown_value or 'nothing'}"
