"""Words that are options: long and short, clusters, numbers, with their values."""

from __future__ import annotations

import re

from dowsing.commandline.grammar.sayings import Lack, Manner, ProblemCode
from dowsing.commandline.grammar.shell_words import Word
from dowsing.commandline.judging.value_checks import (
    may_take,
    nearest_flags,
    takes_two,
    wrong_value,
)
from dowsing.commandline.model.tree import CommandNode, OptionUse, WordUse
from dowsing.commandline.reading.piece_maker import PieceMaker
from dowsing.index.convention_rows import conventions_of
from dowsing.model.roles import Role
from dowsing.model.told import Told, told
from dowsing.model.value_kinds import ValueKind, wrong_kind

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.model.command import Command, Spelling
    from dowsing.commandline.model.tree import Line
    from dowsing.knowledge.conventions import Carrier

#: How pages spell an option that a number stands for.
_NUMBERS = ("-#", "-NUM", "-<n>", "-number", "-nnn", "-NUMBER", "-<number>", "-<num>", "-<limit>")
MOST_LETTERS = 64  # of a cluster
#: Kinds of values that do not begin with a dash and a letter.
_NEVER_OPTIONS = frozenset(
    (
        ValueKind.NUMBER, ValueKind.FILE, ValueKind.FOLDER, ValueKind.SIZE, ValueKind.DURATION,
        ValueKind.USER, ValueKind.CHOICE,
    )
)  # fmt: skip
_SIGNALLING = frozenset(("kill", "pkill", "killall"))
#: What a word is that is neither option, value nor operand.
_OTHERS = frozenset((Role.SUBCOMMAND, Role.OPERATOR, Role.ASSIGNMENT))


class OptionReader:
    """Reads the options of one command; what comes between them is the business of those derived
    from it.
    """

    def __init__(self, maker: PieceMaker, name: Word, known: Command, depth: int) -> None:
        self.maker = maker
        self.depth = depth
        self.state = CommandNode(name, known)
        self.rules = conventions_of(maker.finder.store)
        self.carrier: Carrier | None = None
        self.at = 0
        self.has_code = False  # an interpreter was given its program on the line
        self.words: list[Word] = []
        self.script_rest: Manner | None = (
            None  # what the words belong to that are no options of the command any more
        )

    @property
    def known(self) -> Command:
        return self.state.known

    def add(self, token: Word, role: Role, /, **more: object) -> int:
        """Take up the piece of a word; its number."""
        if role in _OTHERS and "of" not in more:
            self.state.uses.append(WordUse(token, role, str(more.get("says") or "")))
        number = self.maker.add(self.maker.piece(token, role, self.depth, **more))
        if token.inner:
            self.maker.line_of(token, self.depth)
        return number

    def use(
        self,
        word: Word,
        flag: str,
        spelling: Spelling,
        value: str | None,
        *,
        place: int | None = None,
        manner: Told | None = None,
    ) -> OptionUse:
        """Take up that an option is there."""
        made = OptionUse(flag, spelling, word, value, place=place, manner=manner)
        self.state.used.append(made)
        self.state.uses.append(made)
        return made

    def string_within(self, word: Word, value: str) -> list[Line]:
        """The line that stands within a word, its pieces taken up; [] if it is not known."""
        if word.dynamic and value.startswith("$"):
            return []
        inner = Word(word.text, value, word.start, word.end)
        inner.quoted, inner.placed = word.quoted, word.placed
        return self.maker.line_of(inner, self.depth + 1)

    def operand(self, word: Word, expression: bool) -> None:
        """A word that is no option."""
        raise NotImplementedError

    def unknown(self, word: Word, flag: str) -> None:
        """A word that is spelled as an option and that no table has."""
        raise NotImplementedError

    def wrong_letter(self, value: str) -> str:
        """Of a cluster the letter that is not known, else the whole word."""
        raise NotImplementedError

    @property
    def root_name(self) -> str:
        """The program, also where a subcommand is being read."""
        return self.state.root.name

    # --- options
    # -------------------------------------------------------------------------------------

    def long(self, word: Word) -> None:
        """`--name` or `--name=value`, in full or shortened."""
        flag, equals, _ = word.value.partition("=")
        spelling = self.known.spelling(flag)
        manner: Told | None = None
        if spelling is None:
            exact = word.dynamic or self.root_name in self.rules.exact
            options = [] if exact else self.known.beginning(flag)
            if len({id(one.option) for one in options}) == 1:
                spelling = options[0]
                manner = told(Manner.SHORT_FOR, spelling.flag)
            elif len(options) > 1:
                names = [one.flag for one in options]
                problem = told(ProblemCode.AMBIGUOUS_OPTION, flag)
                self.add_option(word, flag, None, problem=problem, nearest=names[:4])
                return
        if spelling is None:
            self.unknown(word, flag)
            return
        self.option(
            word, flag, spelling, word.value[len(flag) + 1 :] if equals else None, manner=manner
        )

    def short(self, word: Word) -> None:
        """A single dash: a long option of one dash, a cluster of letters, a number, or an option
        with its value.
        """
        value = word.value
        flag, equals, _ = value.partition("=")
        whole = self.known.spelling(value)
        if whole is not None and "<" in value:  # `-<signal>`: its value is in it
            self.use(word, value, whole, None)
            self.add_option(word, value, whole)
            return
        if whole is not None:
            self.option(word, value, whole, None)
            return
        if equals and (named := self.known.spelling(flag)) is not None:
            self.option(word, flag, named, value[len(flag) + 1 :])
            return
        if self.specified(word):
            return
        readings = (self.cluster, self.prefix, self.number)
        if self.mostly_long or (
            value[1:].isdecimal() and any(self.known.spelling(one) for one in _NUMBERS)
        ):
            readings = (self.prefix, self.number, self.cluster)
        if any(reading(word) for reading in readings):
            return
        # a shortened option of a single dash, where the command has no clusters
        long = [
            one for one in self.known.beginning(flag) if len(one.flag) > 2 and one.flag[1] != "-"
        ]
        if (
            len(flag) > 2
            and len({id(one.option) for one in long}) == 1
            and not self.known.spelling(flag[:2])
        ):
            attached = value[len(flag) + 1 :] if equals else None
            self.option(word, flag, long[0], attached, manner=told(Manner.SHORT_FOR, long[0].flag))
            return
        self.unknown(word, self.wrong_letter(value))

    def specified(self, word: Word) -> bool:
        """An option of a single dash with the part that it is for: `-b:v 64k`."""
        flag, colon, part = word.value.partition(":")
        spelling = self.known.spelling(flag) if colon and part and self.mostly_long else None
        if spelling is None:
            return False
        self.option(word, word.value, spelling, None)
        return True

    def cluster(self, word: Word) -> bool:
        """Letters that stand together, the last perhaps with its value; whether the word is such a
        cluster.
        """
        value = word.value
        sign = value[0]
        if sign not in ("-", "+") or len(value) > MOST_LETTERS:
            return False
        found: list[tuple[str, Spelling, str | None]] = []
        for n in range(1, len(value)):
            spelling = self.known.spelling("-" + value[n])
            if spelling is None and value[n].isdecimal():  # `-9v`: a level among letters
                spelling = next(
                    (one for flag in _NUMBERS if (one := self.known.spelling(flag))), None
                )
                if spelling is not None:
                    found.append((sign + value[n], spelling, value[n]))
                    continue
            if spelling is None:
                return False
            # a number after a letter whose long spelling may have one: `-o33` where the page has
            # `-o, --open[=PERCENT]`
            number = spelling.option.argument_optional and value[n + 1 :].isdecimal()
            if (
                spelling.takes or (number and self.known.spelling("-" + value[n + 1]) is None)
            ) and n + 1 < len(value):
                found.append((sign + value[n], spelling, value[n + 1 :]))
                break
            found.append((sign + value[n], spelling, None))
        if self.mostly_long and len(value) > 2 and any(attached for _, _, attached in found):
            return False  # `-bf` is no `-b f` there
        for n, (flag, spelling, attached) in enumerate(found):
            last = n == len(found) - 1
            self.option(
                word,
                flag,
                spelling,
                attached,
                place=n + 1 if len(value) > 2 else None,
                take_next=last,
            )
        return True

    def number(self, word: Word) -> bool:
        """`-9`, `-20`, `-HUP`: an option that a placeholder stands for; whether the word is one."""
        body = word.value[1:]
        if not body.isdecimal():
            return self.signal(word) or self.algorithm(word) or self.short_for_number(word)
        for flag in _NUMBERS:
            if (spelling := self.known.spelling(flag)) is not None:
                return self.alone(word, spelling)
        return self.signal(word) or self.short_for_number(word)

    def alone(self, word: Word, spelling: Spelling, kind: str = "") -> bool:
        """Take up a word that is the value of the option that it stands for."""
        body = word.value[1:]
        self.use(word, word.value, spelling, body)
        self.add_option(word, word.value, spelling, value=body, kind=kind)
        return True

    def signal(self, word: Word) -> bool:
        """`-9`, `-HUP`: whether the word is a signal."""
        body = word.value[1:]
        is_number = body.isdecimal()
        is_signal = not wrong_kind(ValueKind.SIGNAL, body) and (is_number or body.isupper())
        for flag in ("-<signal>", "-<sig>", "-signal", "-s"):
            spelling = self.known.spelling(flag)
            if spelling is None or (flag == "-s" and self.known.name not in _SIGNALLING):
                continue
            if is_number and self.state.use_of(flag) is not None:
                self.operand(word, False)  # `kill -9 -1`: a group of processes
                return True
            return is_signal and self.alone(word, spelling, ValueKind.SIGNAL)
        return False

    def algorithm(self, word: Word) -> bool:
        """`-sha256` of a page that tells of `-digest`: whether the word is such an option."""
        for flag in ("-digest", "-cipher"):
            spelling = self.known.spelling(flag)
            if spelling is not None and not nearest_flags(word.value, self.known.all_flags):
                return self.alone(word, spelling)
        return False

    def short_for_number(self, word: Word) -> bool:
        """`-20`, where that is the same as another option with that value."""
        stands_for = self.rules.numbers.get(self.known.name)
        body = word.value[1:]
        letters = self.rules.number_letters.get(self.known.name, "")
        if stands_for is None or not re.fullmatch(rf"\d+[{letters} ]*", body):
            return False
        spelling = self.known.spelling(stands_for)
        manner = None
        if spelling is not None:
            manner = told(Manner.SAME_AS, stands_for, body)
            self.use(word, word.value, spelling, body, manner=manner)
        self.add_option(word, word.value, spelling, value=body, manner=manner)
        return True

    def prefix(self, word: Word) -> bool:
        """An option of several letters with its value directly after it: `-std=c99`, `-Xmx2g`."""
        value = word.value
        for size in range(len(value) - 1, 1, -1):
            spelling = self.known.spelling(value[:size])
            if spelling is not None and spelling.takes and not value[size].isalpha():
                self.option(word, value[:size], spelling, value[size:])
                return True
        return False

    def option(  # noqa: PLR0913 - three by keyword only
        self,
        word: Word,
        flag: str,
        spelling: Spelling,
        attached: str | None,
        *,
        manner: Told | None = None,
        place: int | None = None,
        take_next: bool = True,
    ) -> None:
        """Add an option with its value: the attached one, or the word that follows."""
        use = self.use(word, flag, spelling, attached, place=place, manner=manner)
        if attached is not None:
            self._with_attached(use, attached)
            return
        is_code = flag in self.rules.code.get(self.interpreter, ())
        self.has_code = self.has_code or is_code
        if spelling.may_be_several and take_next and self._comes_value():
            self._with_next(use)
        elif not (spelling.needs or is_code) or not take_next:
            self.add_option(word, flag, spelling, manner=manner, place=place)
            self.after_option(flag)
        elif self.at >= len(self.words):
            self.state.wanting = spelling
            wanted = spelling.placeholder or told(Lack.VALUE)
            problem = told(ProblemCode.MISSING_VALUE, flag, wanted)
            self.add_option(word, flag, spelling, manner=manner, place=place, problem=problem)
        else:
            self._with_next(use)
            self.after_option(flag)

    def _comes_value(self) -> bool:
        """Whether the next word may be a value: there is one, and it is no option."""
        return self.at < len(self.words) and self.words[self.at].value[:1] != "-"

    def _with_attached(self, use: OptionUse, attached: str) -> None:
        """An option with its value in the same word."""
        word, flag, spelling = use.word, use.flag, use.spelling
        option = spelling.option
        kind = spelling.kind
        nearest: list[str] = []
        # an option that only our facts tell of may have a value that they do not
        bare = option.argument is None and flag.startswith("--") and bool(spelling.page)
        unwanted = bare and not may_take(option, attached)
        problem = told(ProblemCode.NO_VALUE_WANTED, flag) if unwanted else None
        if not attached and flag[:1].isalpha():  # `of=`
            problem = told(ProblemCode.MISSING_VALUE, flag, spelling.placeholder)
        elif not unwanted:
            problem, nearest = wrong_value(spelling, attached, word.dynamic)
        self.add_option(
            word,
            flag,
            spelling,
            value=attached,
            manner=use.manner,
            place=use.place,
            kind=kind,
            problem=problem,
            nearest=nearest,
            in_value=problem is not None and not unwanted,
        )
        if self.runs_its_value(flag) and not word.dynamic:
            use.lines = self.string_within(word, attached)

    def _with_next(self, use: OptionUse) -> None:
        """An option with its value, or two, in the words that follow."""
        word, flag, spelling = use.word, use.flag, use.spelling
        option = spelling.option
        count = 2 if takes_two(option) else 1
        values = self.words[self.at : self.at + count]
        self.at += len(values)
        runs = self.runs_its_value(flag)
        kind = ValueKind.COMMAND if runs else spelling.kind
        value = " ".join(one.value for one in values)
        use.value, use.value_words = value, values
        self.add_option(
            word, flag, spelling, value=value, manner=use.manner, place=use.place, kind=kind
        )
        for one in values:
            problem, nearest = wrong_value(spelling, one.value, one.dynamic or one.glob)
            if problem is None and kind in _NEVER_OPTIONS and self.is_option_of_ours(one):
                problem = told(ProblemCode.OPTION_AS_VALUE, flag)
            more: dict[str, object] = {"inside": True} if runs else {}
            self.add(
                one,
                Role.VALUE,
                of=flag,
                kind=kind,
                says=spelling.placeholder or None,
                page=spelling.page,
                problem=problem,
                nearest=nearest,
                **more,
            )
            if runs and not one.dynamic:
                use.lines += self.string_within(one, one.value)

    def runs_its_value(self, flag: str) -> bool:
        """Whether the value of an option is a line that is run."""
        return self.carrier is not None and flag in self.carrier.strings

    def is_option_of_ours(self, word: Word) -> bool:
        """Whether a word that was taken for a value is spelled as an option of the command."""
        dashed = re.match(r"--?[A-Za-z]", word.value) and word.text[:1] == "-"
        return bool(dashed and self.known.spelling(word.value.partition("=")[0]))

    @property
    def interpreter(self) -> str:
        """The name of the command without a version: `python` of python3.11."""
        return re.sub(r"\d(\.\d+)?\Z", "", self.known.name)

    def after_option(self, flag: str) -> None:
        """Some options end the command's own words: what follows belongs to the program that they
        name.
        """
        if flag in self.rules.ends.get(self.interpreter, ()):
            self.script_rest = Manner.PROGRAM_ARGUMENT

    def add_option(  # noqa: PLR0913 - a piece has so many fields; all by keyword
        self,
        word: Word,
        flag: str,
        spelling: Spelling | None,
        *,
        value: str | None = None,
        manner: Told | None = None,
        place: int | None = None,
        kind: str = "",
        problem: Told | None = None,
        nearest: list[str] | None = None,
        page: str | None = None,
        meaning: Told | None = None,
        in_value: bool = False,
    ) -> None:
        if spelling is None:
            self.state.uses.append(WordUse(word, Role.OPTION))
        start, end = word.start, word.end
        span = [start, end]
        if place is not None and not word.quoted:
            span = [start + (0 if place == 1 else place), start + place + 1]
        elif word.text.startswith(flag):
            span = [start, start + len(flag)]
        if in_value and value and word.text.endswith(value):  # what is wrong is the value
            span = [end - len(value), end]
        flags = spelling.option.flags if spelling else ([flag] if not problem else None)
        if (
            spelling is not None
            and re.fullmatch(r"-\d", flag)
            and sum(bool(re.fullmatch(r"-\d", one)) for one in flags or []) > 1
        ):
            flags = [flag]
        self.add(
            word,
            Role.OPTION,
            text=flag,
            word=word.text if word.text != flag else "",
            span=span,
            flags=flags,
            value=value,
            page=page or (spelling.page if spelling else None),
            says=spelling.option.text or None if spelling else None,
            meaning=meaning,
            problem=problem,
            nearest=nearest or [],
            manner=manner,
            kind=kind,
            group=spelling.option.section if spelling else "",
            default=spelling.option.default if spelling else None,
            repeatable=bool(spelling and spelling.option.repeatable),
            optional=bool(spelling and spelling.option.argument_optional),
            bare=spelling.option.bare if spelling else [],
            turns_off=spelling is not None and spelling.turned_off_by(flag),
        )

    @property
    def mostly_long(self) -> bool:
        """Whether most options are words with a single dash, as those of the X toolkit."""
        if self.known.facts.words or (self.known.parent and self.known.parent.facts.words):
            return True
        flags = [*self.known.spellings] or [
            *(self.known.parent.spellings if self.known.parent else ())
        ]
        return sum(len(flag) > 2 and flag[0] == "-" != flag[1] for flag in flags) * 2 > len(flags)
