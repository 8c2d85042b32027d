"""Words that are options: long and short, clusters, numbers, with their values."""

from __future__ import annotations

import re

from dowsing.commandline.grammar.sayings import Lack, Manner, ProblemCode
from dowsing.commandline.judging.value_checks import (
    may_take,
    nearest_flags,
    takes_two,
    wrong_value,
)
from dowsing.commandline.model.tree import OptionUse, WordUse
from dowsing.commandline.model.word_problems import mark_of, problem_at, wrong_option
from dowsing.model.roles import Role
from dowsing.model.told import Told, told
from dowsing.model.value_kinds import ValueKind, wrong_kind

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Word
    from dowsing.commandline.model.command import Command, Spelling
    from dowsing.commandline.reading.command_reading import CommandReading

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


class OptionWords:
    """Reads the words of a command that are options."""

    def __init__(self, reading: CommandReading) -> None:
        self.reading = reading

    @property
    def known(self) -> Command:
        """What is known of the command that is being read."""
        return self.reading.known

    def long(self, word: Word) -> None:
        """`--name` or `--name=value`, in full or shortened."""
        flag, equals, _ = word.value.partition("=")
        spelling = self.known.spelling(flag)
        manner: Told | None = None
        if spelling is None:
            exact = word.dynamic or self.reading.root_name in self.reading.rules.exact
            options = [] if exact else self.known.beginning(flag)
            if len({id(one.option) for one in options}) == 1:
                spelling = options[0]
                manner = told(Manner.SHORT_FOR, spelling.flag)
            elif len(options) > 1:
                reason = told(ProblemCode.AMBIGUOUS_OPTION, flag)
                names = [one.flag for one in options][:4]
                self.reading.take_loose(word, flag, problem=wrong_option(word, flag, reason, names))
                return
        if spelling is None:
            self.reading.unknown.read(word, flag)
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
            self.reading.take_option(OptionUse(value, whole, word, None))
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
        if not self.shortened(word):
            self.reading.unknown.read(word, self.reading.unknown.wrong_letter(value))

    def shortened(self, word: Word) -> bool:
        """The beginning of an option of a single dash, where the command has no clusters; whether
        the word is one.
        """
        flag, equals, attached = word.value.partition("=")
        if len(flag) <= 2 or self.known.spelling(flag[:2]):
            return False
        long = [
            one for one in self.known.beginning(flag) if len(one.flag) > 2 and one.flag[1] != "-"
        ]
        if len({id(one.option) for one in long}) != 1:
            return False
        manner = told(Manner.SHORT_FOR, long[0].flag)
        self.option(word, flag, long[0], attached if equals else None, manner=manner)
        return True

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
        found = self._letters(value)
        if not found:
            return False
        if self.mostly_long and len(value) > 2 and any(attached for _, _, attached in found):
            return False  # `-bf` is no `-b f` there
        for n, (flag, spelling, attached) in enumerate(found):
            last = n == len(found) - 1
            place = n + 1 if len(value) > 2 else None
            self.option(word, flag, spelling, attached, place=place, take_next=last)
        return True

    def _letters(self, value: str) -> list[tuple[str, Spelling, str | None]]:
        """The letters of a cluster with what is attached to the last; [] if it is none."""
        sign = value[0]
        if sign not in ("-", "+") or len(value) > MOST_LETTERS:
            return []
        found: list[tuple[str, Spelling, str | None]] = []
        behind = 1  # the last letter with its number
        for n in range(1, len(value)):
            if n < behind:
                continue
            spelling = self.known.spelling("-" + value[n])
            if spelling is None and value[n].isdecimal():  # `-9v`: a level among letters
                spelling = self._spelling_of_number()
                if spelling is not None:
                    found.append((sign + value[n], spelling, value[n]))
                    continue
            if spelling is None:
                return []
            number_only = self._number_behind(spelling, value[n + 1 :])
            if number_only is not None:  # `-0777pe`: other letters may follow
                behind = n + 1 + len(number_only)
                found.append((sign + value[n], spelling, number_only or None))
                continue
            # a number after a letter whose long spelling may have one: `-o33` where the page has
            # `-o, --open[=PERCENT]`
            number = spelling.option.argument_optional and value[n + 1 :].isdecimal()
            if (
                spelling.takes or (number and self.known.spelling("-" + value[n + 1]) is None)
            ) and n + 1 < len(value):
                found.append((sign + value[n], spelling, value[n + 1 :]))
                break
            found.append((sign + value[n], spelling, None))
        return found

    @staticmethod
    def _number_behind(spelling: Spelling, rest: str) -> str | None:
        """The digits of an option whose value is a number that may be left out, "" for none; None
        of another option, or where something else follows the digits.
        """
        is_number = spelling.kind == ValueKind.NUMBER and spelling.takes and not spelling.needs
        if not is_number or not rest:
            return None
        digits = rest[: len(rest) - len(rest.lstrip("0123456789"))]
        return digits if rest[len(digits) :].isalpha() or not rest[len(digits) :] else None

    def _spelling_of_number(self) -> Spelling | None:
        return next((one for flag in _NUMBERS if (one := self.known.spelling(flag))), None)

    def number(self, word: Word) -> bool:
        """`-9`, `-20`, `-HUP`: an option that a placeholder stands for; whether the word is one."""
        if not word.value[1:].isdecimal():
            return self.signal(word) or self.algorithm(word) or self.short_for_number(word)
        spelling = self._spelling_of_number()
        if spelling is not None:
            return self.alone(word, spelling)
        return self.signal(word) or self.short_for_number(word)

    def alone(self, word: Word, spelling: Spelling, kind: str = "") -> bool:
        """Take up a word that is the value of the option that it stands for."""
        use = OptionUse(word.value, spelling, word, word.value[1:])
        use.kind = kind
        self.reading.take_option(use)
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
            if is_number and self.reading.node.use_of(flag) is not None:
                self.reading.operands.operand(word)  # `kill -9 -1`: a group of processes
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
        rules = self.reading.rules
        stands_for = rules.numbers.get(self.known.name)
        body = word.value[1:]
        letters = rules.number_letters.get(self.known.name, "")
        if stands_for is None or not re.fullmatch(rf"\d+[{letters} ]*", body):
            return False
        spelling = self.known.spelling(stands_for)
        if spelling is None:
            self.reading.take_loose(word, word.value, attached=body)
            return True
        switches = self._switches_behind(body)
        number = body[: len(body) - len(switches)]
        manner = told(Manner.SAME_AS, stands_for, number)
        place = 1 if switches else None
        flag = f"-{number}" if switches else word.value
        made = OptionUse(flag, spelling, word, number, place=place, manner=manner)
        self.reading.take_option(made)
        for n, one in enumerate(switches):
            self.option(word, one.flag, one, None, place=len(number) + 1 + n, take_next=False)
        return True

    def _switches_behind(self, body: str) -> list[Spelling]:
        """The switches whose letters stand behind a number: `-5f`."""
        letters = body.lstrip("0123456789")
        found = [self.known.spelling(f"-{letter}") for letter in letters]
        return [one for one in found if one is not None and not one.needs] if all(found) else []

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
        """Take up an option with its value: the attached one, or the word that follows."""
        reading = self.reading
        use = OptionUse(flag, spelling, word, attached, place=place, manner=manner)
        reading.take_option(use)
        if attached is not None:
            self._with_attached(use, attached)
            return
        is_code = flag in reading.rules.code.get(reading.interpreter, ())
        reading.has_code = reading.has_code or is_code
        if spelling.may_be_several and take_next and self._comes_value():
            self._with_next(use)
        elif not (spelling.needs or is_code) or not take_next:
            self._after(flag)
        elif reading.at >= len(reading.words):
            reading.node.wanting = spelling
            wanted = spelling.placeholder or told(Lack.VALUE)
            reason = told(ProblemCode.MISSING_VALUE, flag, wanted)
            use.problem = wrong_option(word, flag, reason, place=place)
        else:
            self._with_next(use)
            self._after(flag)

    def _comes_value(self) -> bool:
        """Whether the next word may be a value: there is one, and it is no option."""
        reading = self.reading
        return reading.at < len(reading.words) and reading.words[reading.at].value[:1] != "-"

    def _with_attached(self, use: OptionUse, attached: str) -> None:
        """The value of an option that stands in the same word."""
        word, flag, spelling = use.word, use.flag, use.spelling
        option = spelling.option
        use.kind = spelling.kind
        # an option that only our facts tell of may have a value that they do not
        bare = option.argument is None and flag.startswith("--") and bool(spelling.page)
        if bare and not may_take(option, attached):
            reason = told(ProblemCode.NO_VALUE_WANTED, flag)
            use.problem = wrong_option(word, flag, reason, place=use.place)
        elif not attached and flag[:1].isalpha():  # `of=`
            reason = told(ProblemCode.MISSING_VALUE, flag, spelling.placeholder)
            use.problem = wrong_option(word, flag, reason, place=use.place)
        else:
            wrong, nearest = wrong_value(spelling, attached, word.dynamic)
            is_last = bool(attached) and word.text.endswith(attached)
            mark = (word.end - len(attached), word.end) if is_last else None
            mark = mark or mark_of(word, flag, use.place)
            use.problem = problem_at(word, wrong, nearest, mark)
        if self.reading.runs_its_value(flag) and not word.dynamic:
            use.lines = self.reading.line_in(word, attached)

    def _with_next(self, use: OptionUse) -> None:
        """The value of an option, or two, in the words that follow."""
        reading, flag, spelling = self.reading, use.flag, use.spelling
        count = 2 if takes_two(spelling.option) else 1
        words = reading.words[reading.at : reading.at + count]
        reading.at += len(words)
        runs = reading.runs_its_value(flag)
        use.kind = ValueKind.COMMAND if runs else spelling.kind
        use.value = " ".join(one.value for one in words)
        for word in words:
            reason, nearest = wrong_value(spelling, word.value, word.dynamic or word.glob)
            if reason is None and use.kind in _NEVER_OPTIONS and self.is_option_of_ours(word):
                reason = told(ProblemCode.OPTION_AS_VALUE, flag)
            value = WordUse(
                word,
                Role.VALUE,
                page=spelling.page,
                says=spelling.placeholder,
                problem=problem_at(word, reason, nearest),
                kind=use.kind,
            )
            reading.take_value(value, use)
            if runs and not word.dynamic:
                use.lines += reading.line_in(word, word.value)

    def is_option_of_ours(self, word: Word) -> bool:
        """Whether a word that was taken for a value is spelled as an option of the command."""
        dashed = re.match(r"--?[A-Za-z]", word.value) and word.text[:1] == "-"
        return bool(dashed and self.known.spelling(word.value.partition("=")[0]))

    def _after(self, flag: str) -> None:
        """Some options end the command's own words: what follows belongs to the program that they
        name.
        """
        if flag in self.reading.rules.ends.get(self.reading.interpreter, ()):
            self.reading.script_rest = Manner.PROGRAM_ARGUMENT

    @property
    def mostly_long(self) -> bool:
        """Whether most options are words with a single dash, as those of the X toolkit."""
        known = self.known
        if known.facts.words or (known.parent and known.parent.facts.words):
            return True
        flags = [*known.spellings] or [*(known.parent.spellings if known.parent else ())]
        return sum(len(flag) > 2 and flag[0] == "-" != flag[1] for flag in flags) * 2 > len(flags)
