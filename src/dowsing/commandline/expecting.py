"""What may come next in a half-typed line, whether it can be run as it stands, and where it went
wrong.
"""

from __future__ import annotations

import os

from dowsing.commandline.grammar.problems import Problem
from dowsing.commandline.grammar.repairs import open_at_end
from dowsing.commandline.grammar.sayings import UNFINISHED, Lack, Meaning
from dowsing.commandline.grammar.shell_grammar import parse_shell
from dowsing.commandline.grammar.shell_words import SimpleCommand, Word
from dowsing.commandline.judging.certainty import adds_operands
from dowsing.commandline.model.exclusion import excluded, missing
from dowsing.commandline.model.form_facts import is_command_place
from dowsing.commandline.model.operands import best_fit
from dowsing.commandline.reading.line_reader import LineReader
from dowsing.commandline.reading.usual import options_by_use, subcommand_words
from dowsing.index.command_rows import commands_beginning
from dowsing.index.convention_rows import conventions_of
from dowsing.knowledge.command_classes import CommandClass
from dowsing.machine.known_values import MOST_VALUES, values_here
from dowsing.machine.project_names import names_of_project
from dowsing.model.record import Record
from dowsing.model.roles import Role
from dowsing.model.told import Told, told
from dowsing.model.value_kinds import FILE_KINDS, PROJECT_KINDS, ValueKind, value_range
from dowsing.model.values import OperandRole

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.model.command import Spelling
    from dowsing.commandline.model.tree import CommandNode, Slot
    from dowsing.commandline.reading.command_finder import CommandFinder

MOST_COMMANDS = 40
MOST_OF_GROUP = 6  # options of a group of which one is wanted, that are named


class Expected(Record):
    """Something that may come next. `what`: command, subcommand, option, value or operand.

    `text` is what may be typed ("" where the user has to say), `placeholder` the name of what is
    wanted, `values` those there are, `range` its least and greatest value, `flags` all spellings of
    an option, `page` the text that says so. `says` is what that text says, `meaning` what is known
    without it.
    """

    what: Role
    text: str
    placeholder: str = ""
    values: list[str] | None = None
    required: bool = False
    says: str = ""
    meaning: Told | None = None
    kind: str = ""
    range: list[str] = []  # noqa: RUF012 - a record is immutable
    flags: list[str] = []  # noqa: RUF012
    page: str = ""


class Next(Record):
    """The answer: `complete` if the line can be run as it stands; `typed` is the word that is being
    typed.

    `missing`: what it still needs; `problem`: the place and reason of a mistake.
    """

    line: str
    at: int
    typed: str
    complete: bool
    problem: Problem | None
    missing: list[Told]
    expects: list[Expected]


def what_next(line: str, finder: CommandFinder, at: int | None = None, home: str = "") -> Next:
    """What may come at place `at` of the line (its end if None), counted in characters. Never
    raises.
    """
    at = len(line) if at is None else max(0, min(at, len(line)))
    begin = _innermost(line[:at])
    head = line[begin:at]
    typed = _word_at_end(head)
    before = head[: len(head) - len(typed.text)] if typed is not None else head
    state, at_command = _state_of(before, finder)
    word = typed.value if typed is not None else ""
    whole = LineReader(finder)
    # the name of a command that is still being typed is not looked up: it is no mistake yet
    whole.read(before if at_command else head)
    asker = _Asker(finder, state, word, home)
    expects = asker.commands() if at_command else asker.all()
    problem = None
    for one in whole.problems:
        if not (one.reason.code in UNFINISHED and one.end >= len(head.rstrip())):
            last = typed is not None and one.start >= len(before)
            if last and any(new.text.startswith(word) or new.values for new in expects):
                continue  # it may still become one of these
            start, end = one.marked
            problem = Problem(begin + start, begin + end, one.reason, one.nearest)
            break
    lacks = (
        _lacks(whole, whole.problem, head)
        if not at_command
        else _lacks_command(finder, word, before, state)
    )
    lacks = _in_the_making(word, expects, state) or lacks
    if begin and not lacks:  # the bracket before it is still open
        lacks = [told(Lack.ELEMENT, ")")]
    return Next(line, at, word, not lacks and problem is None, problem, lacks, expects)


def _in_the_making(word: str, expects: list[Expected], state: CommandNode | None) -> list[Told]:
    """What a word needs that is only the beginning of something: of a subcommand, of an option, or
    of one whose value stands behind its sign.
    """
    begun = [one for one in expects if one.what == Role.SUBCOMMAND]
    if word and begun and all(one.text != word for one in begun):
        return [told(Lack.REST_OF_SUBCOMMAND, word)]
    flag, equals, value = word.partition("=")
    dashed = word[:1] == "-" and state is not None and not state.ended
    if equals and not value and any(one.what == Role.VALUE for one in expects):
        placeholder = next(one.placeholder for one in expects if one.what == Role.VALUE)
        return [told(Lack.VALUE_FOR, placeholder, flag)]
    longer = [one for one in expects if one.what == Role.OPTION and one.text.startswith(word)]
    if dashed and not equals and longer and all(word not in one.flags for one in longer):
        return [told(Lack.REST_OF_OPTION, word)]
    return []


def _lacks_command(
    finder: CommandFinder, word: str, before: str, state: CommandNode | None
) -> list[Told]:
    """What is missing while the name of a command is typed: the rest of it, or what the command
    wants. `state`: of the command that carries it.
    """
    known = (
        finder.command(word)
        if word and any(e.name == word for e in finder.store.named(word))
        else None
    )
    if known is None:
        return [told(Lack.REST_OF_COMMAND, word) if word else told(Lack.COMMAND)]
    if state is not None and state.is_of(CommandClass.FILLS_IN):
        return []
    return _elements(missing(known, set(), 0))


def _innermost(text: str) -> int:
    """Where the command that is being typed begins: after the last substitution or group that is
    still open.
    """
    opened = [one for one in open_at_end(text) if one.closer == ")"]
    return max((one.place + one.width for one in opened), default=0)


def _word_at_end(text: str) -> Word | None:
    """The word that the text ends in; None after a blank."""
    items = parse_shell(text).items
    if not items or not isinstance(items[-1], SimpleCommand):
        return None
    word = items[-1].words[-1]
    return word if word.end == len(text) and not (text[-1:].isspace() and not word.quoted) else None


def _state_of(text: str, finder: CommandFinder) -> tuple[CommandNode | None, bool]:
    """What the command before is left in; and whether a command is to come."""
    items = parse_shell(text).items
    if not text.strip() or not items or not isinstance(items[-1], SimpleCommand):
        targets = bool(items) and getattr(items[-1], "role", "") in (Role.REDIRECTION, Role.OPERAND)
        return None, not targets
    reader = LineReader(finder)
    reader.read(text)
    state = reader.last_state()
    return state, state is not None and state.wants_inner


def _lacks(reader: LineReader, problem: Problem | None, text: str) -> list[Told]:
    """What the line needs before it can be run. `problem`: what the shell cannot read."""
    if problem is not None:
        return [problem.reason]
    if not reader.states:
        return [] if text.strip() else [told(Lack.COMMAND)]
    state = reader.last_state()
    if state is None:
        return []
    if state.wanting is not None:
        wanted = state.wanting.option.argument or told(Lack.VALUE)
        return [told(Lack.VALUE_FOR, wanted, state.wanting.flag)]
    if state.wants_inner and not state.is_of(CommandClass.NEEDS_NONE):
        return [told(Lack.COMMAND_TO_RUN)] if state.needs_inner else []
    return _elements(_missing_in(state))


def _missing_in(state: CommandNode) -> list[str]:
    """What the forms demand beside what is there: of our facts where they tell the forms."""
    if adds_operands(state):
        return []
    facts = state.known.facts
    groups = [
        " | ".join(group[:MOST_OF_GROUP]) for group in facts.needs if state.use_of(*group) is None
    ]
    if facts.forms:
        fit = best_fit(state.known, len(state.operands), state.flags)
        return [*groups, *(slot.name for slot in fit.lacking)]
    return groups or missing(state.known, state.flags, len(state.operands))


def _elements(texts: list[str]) -> list[Told]:
    """What a form demands, as it is written there."""
    return [told(Lack.ELEMENT, text) for text in texts]


class _Asker:
    """Collects what may come, for a word that begins as typed."""

    def __init__(
        self, finder: CommandFinder, state: CommandNode | None, typed: str, home: str
    ) -> None:
        self.finder, self.state, self.typed, self.home = finder, state, typed, home
        self.rules = conventions_of(finder.store)

    def commands(self) -> list[Expected]:
        """Commands that begin so."""
        found = []
        for entry in (
            commands_beginning(self.finder.store, self.typed, MOST_COMMANDS) if self.typed else []
        ):
            found.append(
                Expected(
                    Role.COMMAND, entry.name, says=entry.summary, required=True, page=entry.label
                )
            )
        if not found and not self.typed:
            found.append(
                Expected(
                    Role.COMMAND,
                    "",
                    "COMMAND",
                    required=True,
                    meaning=told(Lack.COMMAND_TO_RUN),
                    kind=ValueKind.COMMAND,
                )
            )
        return found

    def all(self) -> list[Expected]:
        """What may come after the command."""
        state = self.state
        if self.typed.startswith("$"):
            return [self.variables()]
        if state is None:
            files = values_here(ValueKind.FILE, "", self.typed, self.home)
            meaning = told(Lack.FILE)
            return [
                Expected(
                    Role.VALUE,
                    "",
                    "FILE",
                    files,
                    required=True,
                    meaning=meaning,
                    kind=ValueKind.FILE,
                )
            ]
        if state.wanting is not None:
            return [self.value(state.wanting, self.typed)]
        flag, equals, part = self.typed.partition("=")
        if equals and flag.startswith("-"):
            spelling = state.known.spelling(flag)
            if spelling is not None and spelling.takes:
                return [self.value(spelling, part)]
        if equals and state.known.facts.keyed:
            key = state.known.spellings.get(flag)
            return [self.value(key, part)] if key is not None else []
        closing = self.closers()
        if closing:
            return closing
        dashed = self.typed.startswith("-") and not state.ended
        found = [] if dashed else [*self.subcommands(), *self.operands()]
        if (dashed or not self.typed) and not state.ended:
            found += self.options()
        if not dashed and self.typed:
            found += self.keywords()
        return sorted(found, key=lambda one: not one.required)

    def variables(self) -> Expected:
        """The variables of the environment that begin as typed; `${` is kept."""
        sign = "${" if self.typed.startswith("${") else "$"
        close = "}" if sign == "${" else ""
        part = self.typed.removeprefix(sign)
        names = sorted(name for name in os.environ if name.startswith(part) and name.isidentifier())
        values = [f"{sign}{name}{close}" for name in names]
        return Expected(Role.VALUE, "", "VARIABLE", values, meaning=told(Lack.VARIABLE))

    def value(self, spelling: Spelling, typed: str) -> Expected:
        """The value that an option wants."""
        option = spelling.option
        kind = spelling.kind
        values = _choices(spelling, typed) if spelling.choices else None
        if values is None:
            values = values_here(kind, spelling.placeholder, typed, self.home)
        return Expected(
            Role.VALUE,
            "",
            spelling.placeholder,
            values,
            spelling.needs,
            option.text,
            None,
            kind,
            value_range(option.text),
            [spelling.flag],
            spelling.page,
        )

    def subcommands(self) -> list[Expected]:
        """The subcommands, while none has come."""
        state = self.state
        assert state is not None
        known = state.known
        if state.operands or known.only:
            return []
        needed, listed = subcommand_words(known, self.finder)
        return [
            Expected(Role.SUBCOMMAND, word, says=says, required=needed, page=known.page)
            for word, says in listed.items()
            if word.startswith(self.typed)
        ]

    def closers(self) -> list[Expected]:
        """What ends the command that a test of an expression runs."""
        state = self.state
        assert state is not None
        outer = state.carrier
        if outer is None or outer.root.name not in self.rules.expressions or self.typed:
            return []
        signs = (("\\;", Meaning.ONCE_EACH), ("+", Meaning.AS_MANY_AS_FIT))
        ends = [
            Expected(Role.OPERATOR, text, required=True, meaning=told(code), page=outer.known.page)
            for text, code in signs
        ]
        return [*ends, *self.operands()]

    def operands(self) -> list[Expected]:
        """The operand that comes at this place."""
        state = self.state
        assert state is not None
        known = state.known
        count = len(state.operands)
        slot = best_fit(known, count + 1, state.flags).slots[count]
        if slot is None or is_command_place(slot.name):
            return []
        name, kind = slot.name, slot.kind
        needed = bool(_missing_in(state))
        if slot.choices:
            values: list[str] | None = [
                word for word in slot.choices if word.startswith(self.typed)
            ]
            return [Expected(Role.OPERAND, "", name, values, needed, kind=kind, page=known.page)]
        if kind in PROJECT_KINDS and (named := names_of_project(kind)):
            return [
                Expected(Role.OPERAND, word, name, required=needed, says=says, kind=kind)
                for word, says in named.items()
                if word.startswith(self.typed)
            ]
        values = values_here(kind, name, self.typed, self.home)
        values = [*self.git_names(slot), *(values or [])] or values
        if values == [] and self.typed and kind in FILE_KINDS:
            values = None
        return [Expected(Role.OPERAND, "", name, values, needed, kind=kind, page=known.page)]

    def git_names(self, slot: Slot) -> list[str]:
        """Branches, tags and remotes of the repository here, where the place is for such."""
        from dowsing.machine.git_names import branches, remotes

        if slot.role in (OperandRole.BRANCH, OperandRole.REVISION):
            names = branches()
        elif slot.role is OperandRole.REMOTE:
            names = remotes()
        else:
            return []
        return [name for name in names if name.startswith(self.typed)][:MOST_VALUES]

    def options(self) -> list[Expected]:
        """The options that may still come, the usual first."""
        state = self.state
        assert state is not None
        known = state.known
        used = state.flags
        out = excluded(known, used)
        found: dict[int, Expected] = {}
        for spelling in options_by_use(known):
            option = spelling.option
            flags = [flag for flag in option.flags if flag.startswith(self.typed)]
            gone = used & set(option.flags) and not option.repeatable
            if (
                not flags
                or gone
                or out & set(option.flags)
                or id(option) in found
                or option.flags[0][0] not in "-+"
            ):
                continue
            text = max(flags, key=lambda flag: (flag.startswith("--"), -len(flag)))
            if self.typed in ("-", ""):
                text = flags[0]
            found[id(option)] = _option(text, spelling)
        return list(found.values())

    def keywords(self) -> list[Expected]:
        """Options without a dash."""
        state = self.state
        assert state is not None
        return [
            _option(flag, one)
            for flag, one in state.known.spellings.items()
            if flag[0] not in "-+" and flag.startswith(self.typed) and len(flag) > 1
        ]


def _choices(spelling: Spelling, typed: str) -> list[str] | None:
    """The words that a value may be; of several with a sign between them those for the last. None
    where there are others and none of these fits.
    """
    separator = spelling.fact.separator if spelling.fact is not None else ""
    before, sign, last = typed.rpartition(separator) if separator else ("", "", typed)
    found = [before + sign + word for word in spelling.choices if word.startswith(last)]
    is_open = spelling.fact is not None and not spelling.fact.closed
    return None if not found and is_open else found


def _option(text: str, spelling: Spelling) -> Expected:
    """An option that may come, with the spelling to be typed."""
    option = spelling.option
    return Expected(
        Role.OPTION,
        text,
        spelling.placeholder if spelling.takes else "",
        says=option.text,
        flags=option.flags,
        page=spelling.page,
    )
