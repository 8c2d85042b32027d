"""The words of one command as pieces: options, their values, subcommands, operands, and the command within it.

Reading follows the guidelines of POSIX.1-2017 (XBD 12.2) with what GNU getopt_long, the X toolkit's single-dash long
options and the BSD's bundles add, each as far as the command's own documentation shows such options.
"""

from __future__ import annotations

import re

from dowsing.core.commandline.conventions import Carrier, conventions
from dowsing.core.commandline.forms import Element
from dowsing.core.commandline.kinds import kind_of_placeholder, nearest_values, value_kind, wrong_kind
from dowsing.core.commandline.known import Known, Spelling, Tables
from dowsing.core.commandline.pieces import Piece
from dowsing.core.commandline.shell import Word
from dowsing.core.document import Option

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable

_ASSIGNMENT = re.compile(r"[A-Za-z_]\w*\+?=")
_EXPRESSION_OPERATORS = frozenset(("(", ")", "!", ",", "-o", "-or", "-a", "-and", "-not"))
#: How pages spell an option that a number stands for.
_NUMBERS = ("-#", "-NUM", "-<n>", "-number", "-nnn", "-NUMBER", "-<number>", "-<num>", "-<limit>")
_HELP = ("--help", "--version")
_TWO_VALUES = re.compile(r"<?([a-z]+)>?\s+<?([a-z]+)>?\Z")
_DECLARING = frozenset(("export", "declare", "local", "readonly", "typeset", "env", "alias", "set", "unset"))


class State:
    """What is known of a command while its words are read, for those who ask what may come next."""

    def __init__(self, known: Known) -> None:
        self.known = known
        self.used: list[Spelling] = []
        self.operands: list[Word] = []
        self.wanting: Spelling | None = None  # an option whose value has not come yet
        self.ended = False  # after `--`
        self.inner: State | None = None  # of the command that it carries
        self.root = known  # the program, where `known` is a subcommand


class WordReader:
    """Reads the words of commands into pieces. `line_of` reads a line of the shell that stands within a word."""

    def __init__(self, tables: Tables, add: Callable[[Piece], None], line_of: Callable[[Word, int], None]) -> None:
        self.tables = tables
        self.add = add
        self.line_of = line_of

    def command(self, words: list[Word], depth: int) -> State | None:
        """Read a command. The state is what it is left in at its last word; None if the name is not known here."""
        name = words[0]
        if name.dynamic:
            self.add(self._piece(name, "command", depth, says="the command that this stands for"))
            self._rest(words[1:], depth)
            return None
        known = self.tables.command(name.value)
        self.add(self._command_piece(name, known, depth))
        return _CommandReader(self, known, depth).read(words[1:])

    def _command_piece(self, name: Word, known: Known, depth: int) -> Piece:
        piece = self._piece(
            name,
            "command",
            depth,
            page=known.page or None,
            says=known.summary or None,
            builtin=known.builtin,
            what="keyword" if known.keyword else "",
        )
        if known.page or known.documented:
            return piece
        if known.exists:
            says = "a file of your own" if "/" in name.value else "it can be run here; nothing here documents it"
            return piece.changed(says=says)
        near = self._commands_like(name.value)
        problem = "unknown command: nothing here has that name" if near else None
        return piece.changed(says="nothing here has that name, and nothing documents it", problem=problem, nearest=near)

    def _commands_like(self, name: str) -> list[str]:
        """Commands that are spelled so nearly the same that one of them must be meant."""
        from rapidfuzz.distance import OSA

        from dowsing.core.finding.lookup import nearest_names

        labels = nearest_names(self.tables.store, name)
        names = [label.partition("(")[0] for label in labels if label.endswith(("(1)", "(8)", "(builtin)"))]
        near = [one for one in dict.fromkeys(names) if one != name and OSA.distance(one, name) <= 1 + (len(name) > 8)]
        # two letters that changed places, or a longer name that begins alike: else it may well be a tool not here
        return [
            one for one in near if sorted(one) == sorted(name) or (len(name) > 4 and one[0] == name[0] and len(one) > 4)
        ][:3]

    def _rest(self, words: list[Word], depth: int) -> None:
        for word in words:
            self.add(self._piece(word, "operand", depth))
            if word.inner:
                self.line_of(word, depth)

    @staticmethod
    def _piece(token: Word, role: str, depth: int, /, **more: object) -> Piece:
        if token.inner:
            more.setdefault("inside", True)
        fields = {"text": token.text, "start": token.start, "end": token.end, "role": role, "depth": depth, **more}
        return Piece(**fields)  # type: ignore[arg-type]


class _CommandReader:
    """Reads the words of one command."""

    def __init__(self, reader: WordReader, known: Known, depth: int) -> None:
        self.reader = reader
        self.depth = depth
        self.state = State(known)
        self.rules = conventions()
        self.carrier = self.carrier_of(known)
        self.at = 0
        self.words: list[Word] = []
        self.script_rest = ""  # what the words belong to that are no options of the command any more

    @property
    def known(self) -> Known:
        return self.state.known

    def add(self, token: Word, role: str, /, **more: object) -> None:
        self.reader.add(self.reader._piece(token, role, self.depth, **more))
        if token.inner:
            self.reader.line_of(token, self.depth)

    # --- the order of things -------------------------------------------------------------------------

    def read(self, words: list[Word]) -> State:
        self.words = words
        expression = self.rules.expressions.get(self.known.name)
        while self.at < len(words):
            word = words[self.at]
            self.at += 1
            value = word.value
            if self.script_rest:
                self.add(word, "operand", what=self.script_rest)
            elif self.bundle(word) or self.inner(word):
                pass
            elif self.state.ended or len(value) < 2 or value[0] not in "-+" or (word.dynamic and value[:1] == "$"):
                self.operand(word, expression is not None)
            elif value == "--":
                self.state.ended = True
                says = "ends the options: what follows is taken as it stands"
                self.add(word, "option", flags=["--"], page=self.known.page or None, says=says)
                if self.carrier and self.carrier.after == "--":
                    self.inner_command()
            elif expression is not None and (value in _EXPRESSION_OPERATORS or value in expression):
                self.expression(word, expression)
            elif value[0] == "+" and self.known.spelling(value) is None and self.known.spelling(value[:2]) is None:
                self.operand(word, False)
            elif value.startswith("--"):
                self.long(word)
            else:
                self.short(word)
        return self.state

    def carrier_of(self, known: Known) -> Carrier | None:
        """How the command carries another: as the conventions say, else as its forms show."""
        carrier = self.rules.carriers.get(known.name)
        if carrier is None and known.parent is None and not known.subcommands:
            before = _carried_after(known)
            if before is not None and self.reader.tables.store.has_subcommands(known.name):
                before = None
            if before is not None:
                carrier = Carrier({"before": before})
        return carrier

    # --- options -------------------------------------------------------------------------------------

    def long(self, word: Word) -> None:
        """`--name` or `--name=value`, in full or shortened."""
        flag, equals, _ = word.value.partition("=")
        spelling = self.known.spelling(flag)
        says = ""
        if spelling is None:
            options = self.known.beginning(flag) if not word.dynamic else []
            if len({id(one.option) for one in options}) == 1:
                spelling = options[0]
                says = f"short for {spelling.flag}"
            elif len(options) > 1:
                names = [one.flag for one in options]
                self.add_option(word, flag, None, problem=f"{flag} may mean several options", nearest=names[:4])
                return
        if spelling is None:
            self.unknown(word, flag)
            return
        self.option(word, flag, spelling, word.value[len(flag) + 1 :] if equals else None, what=says)

    def short(self, word: Word) -> None:
        """A single dash: a long option of one dash, a cluster of letters, a number, or an option with its value."""
        value = word.value
        flag, equals, _ = value.partition("=")
        whole = self.known.spelling(value)
        if whole is not None:
            self.option(word, value, whole, None)
            return
        if equals and (named := self.known.spelling(flag)) is not None:
            self.option(word, flag, named, value[len(flag) + 1 :])
            return
        readings = (self.cluster, self.prefix, self.number)
        if self.mostly_long or (value[1:].isdecimal() and any(self.known.spelling(one) for one in _NUMBERS)):
            readings = (self.prefix, self.number, self.cluster)
        if any(reading(word) for reading in readings):
            return
        # a shortened option of a single dash, where the command has no clusters
        long = [one for one in self.known.beginning(flag) if len(one.flag) > 2 and one.flag[1] != "-"]
        if len(flag) > 2 and len({id(one.option) for one in long}) == 1 and not self.known.spelling(flag[:2]):
            self.option(word, flag, long[0], value[len(flag) + 1 :] if equals else None, what=f"short for {long[0].flag}")
            return
        self.unknown(word, self._wrong_letter(value))

    def cluster(self, word: Word) -> bool:
        """Letters that stand together, the last perhaps with its value; whether the word is such a cluster."""
        value = word.value
        if value[0] != "-":
            return False
        found: list[tuple[str, Spelling, str | None]] = []
        for n in range(1, len(value)):
            spelling = self.known.spelling("-" + value[n])
            if spelling is None and value[n].isdecimal():  # `-9v`: a level among letters
                spelling = next((one for flag in _NUMBERS if (one := self.known.spelling(flag))), None)
                if spelling is not None:
                    found.append(("-" + value[n], spelling, value[n]))
                    continue
            if spelling is None:
                return False
            if spelling.takes and n + 1 < len(value):
                found.append(("-" + value[n], spelling, value[n + 1 :]))
                break
            found.append(("-" + value[n], spelling, None))
        for n, (flag, spelling, attached) in enumerate(found):
            last = n == len(found) - 1
            self.option(word, flag, spelling, attached, place=n + 1 if len(value) > 2 else None, take_next=last)
        return True

    def number(self, word: Word) -> bool:
        """`-9`, `-20`, `-HUP`: an option that a placeholder stands for."""
        body = word.value[1:]
        is_number = body.isdecimal()
        for flag in _NUMBERS:
            spelling = self.known.spelling(flag) if is_number else None
            if spelling is not None:
                self.add_option(word, word.value, spelling, value=body)
                return True
        for flag in ("-<signal>", "-<sig>", "-signal", "-s"):
            spelling = self.known.spelling(flag)
            if flag == "-s" and self.known.name not in ("kill", "pkill", "killall"):
                continue
            if spelling is not None and not wrong_kind("signal", body) and (is_number or body.isupper()):
                self.add_option(word, word.value, spelling, value=body, kind="signal")
                return True
        for flag in ("-digest", "-cipher"):
            spelling = self.known.spelling(flag)
            if spelling is not None and not is_number and not nearest_flags(word.value, self.known.all_flags):
                self.add_option(word, word.value, spelling, value=body)
                return True
        stands_for = self.rules.numbers.get(self.known.name)
        if is_number and stands_for is not None:
            spelling = self.known.spelling(stands_for)
            what = f"the same as {stands_for} {body}" if spelling else ""
            self.add_option(word, word.value, spelling, value=body, what=what)
            return True
        return False

    def prefix(self, word: Word) -> bool:
        """An option of several letters with its value directly after it: `-std=c99`, `-Xmx2g`."""
        value = word.value
        for size in range(len(value) - 1, 1, -1):
            spelling = self.known.spelling(value[:size])
            if spelling is not None and spelling.takes and not value[size].isalpha():
                self.option(word, value[:size], spelling, value[size:])
                return True
        return False

    def option(
        self,
        word: Word,
        flag: str,
        spelling: Spelling,
        attached: str | None,
        *,
        what: str = "",
        place: int | None = None,
        take_next: bool = True,
    ) -> None:
        """Add an option with its value: the attached one, or the word that follows."""
        self.state.used.append(spelling)
        option = spelling.option
        if attached is not None:
            problem, nearest = "", list[str]()
            if option.argument is None and flag.startswith("--") and not _may_take(option):
                problem = f"value where none is wanted: {flag} takes none"
            kind = _kind(option)
            if not problem:
                problem, nearest = self.wrong_value(option, kind, attached, word.dynamic)
            self.add_option(
                word, flag, spelling, value=attached, what=what, place=place, kind=kind, problem=problem, nearest=nearest
            )
            if self.carrier and flag in self.carrier.strings and not word.dynamic:
                self.string_within(word, attached)
            return
        if not spelling.needs or not take_next:
            if spelling.needs and not take_next:
                pass
            self.add_option(word, flag, spelling, what=what, place=place)
            self.after_option(flag)
            return
        if self.at >= len(self.words):
            self.state.wanting = spelling
            wanted = option.argument or "a value"
            self.add_option(
                word, flag, spelling, what=what, place=place, problem=f"missing value: {flag} needs {wanted}"
            )
            return
        count = 2 if _TWO_VALUES.match(option.argument or "") and _two(option) else 1
        values = self.words[self.at : self.at + count]
        self.at += len(values)
        kind = _kind(option)
        self.add_option(word, flag, spelling, value=" ".join(one.value for one in values), what=what, place=place, kind=kind)
        for one in values:
            problem, nearest = self.wrong_value(option, kind, one.value, one.dynamic or one.glob)
            if (
                not problem
                and re.match(r"--?[A-Za-z]", one.value)
                and one.text[:1] == "-"
                and self.known.spelling(one.value.partition("=")[0])
                and kind in ("number", "file", "folder", "size", "duration", "user", "choice")
            ):
                problem = f"missing value: {flag} takes this option for its value"
            more: dict[str, object] = {"problem": problem or None, "nearest": nearest}
            if self.carrier and flag in self.carrier.strings:
                more["inside"] = True
            self.add(one, "value", of=flag, kind=kind, says=_value_says(option), page=spelling.page, **more)
            if self.carrier and flag in self.carrier.strings and not one.dynamic:
                self.string_within(one, one.value)
        self.after_option(flag)

    def after_option(self, flag: str) -> None:
        """Some options end the command's own words: what follows belongs to the program that they name."""
        if flag in self.rules.ends.get(re.sub(r"\d(\.\d+)?\Z", "", self.known.name), ()) or flag in self.rules.ends.get(
            self.known.name, ()
        ):
            self.script_rest = "argument of the program"

    def add_option(
        self,
        word: Word,
        flag: str,
        spelling: Spelling | None,
        *,
        value: str | None = None,
        what: str = "",
        place: int | None = None,
        kind: str = "",
        problem: str = "",
        nearest: list[str] | None = None,
        page: str | None = None,
        says: str | None = None,
    ) -> None:
        start, end = word.start, word.end
        span = [start, end]
        if place is not None and not word.quoted:
            span = [start + (0 if place == 1 else place), start + place + 1]
        elif word.text.startswith(flag):
            span = [start, start + len(flag)]
        flags = spelling.option.flags if spelling else ([flag] if not problem else None)
        if spelling is not None and re.fullmatch(r"-\d", flag) and flag in flags:  # type: ignore[operator]
            flags = [flag]
        self.add(
            word,
            "option",
            text=flag,
            word=word.text if word.text != flag else "",
            span=span,
            flags=flags,
            value=value,
            page=page or (spelling.page if spelling else None),
            says=says or (spelling.option.text or None if spelling else None),
            problem=problem or None,
            nearest=nearest or [],
            what=what,
            kind=kind,
        )

    @property
    def mostly_long(self) -> bool:
        """Whether most options are words with a single dash, as those of the X toolkit."""
        flags = [*self.known.spellings] or [*(self.known.parent.spellings if self.known.parent else ())]
        return sum(len(flag) > 2 and flag[0] == "-" != flag[1] for flag in flags) * 2 > len(flags)

    def _wrong_letter(self, value: str) -> str:
        """Of a cluster the letter that is not known, else the whole word."""
        if self.mostly_long:
            return value.partition("=")[0]
        letters = value[1:].partition("=")[0]
        known = [self.known.spelling("-" + letter) is not None for letter in letters]
        if self.known.single_letters and len(letters) > 1 and known[:1] == [True] and letters.isalnum():
            return "-" + letters[known.index(False)] if False in known else value
        return value.partition("=")[0]

    def unknown(self, word: Word, flag: str) -> None:
        """An option that no table has: one that a text mentions, one that is not documented, or a mistake."""
        known = self.known
        if flag in _HELP:
            says = "prints a help text" if flag == "--help" else "prints the version"
            self.add_option(word, flag, None, page=known.page or None, says=f"by custom, {says}")
            return
        untagged = self.rules.untagged.get(known.name, ())
        told = known if known.spellings or known.parent is None else known.parent
        if not told.documented or not told.spellings:
            valued = self.carrier is not None and word.value in self.carrier.valued and self.at < len(self.words)
            value = self.words[self.at] if valued else None
            self.add_option(word, flag, None, says="not documented here", value=value.value if value else None)
            if value is not None:
                self.at += 1
                self.add(value, "value", of=flag)
            return
        if word.dynamic and "$" in flag:
            self.add_option(word, flag, None, says="an option that the shell puts together")
            return
        place = word.value.find(flag[1:], 1) if len(flag) == 2 and len(word.value) > 2 else None
        page = known.page if flag in untagged else self.reader.tables.mentions(known, flag)
        if not page and known.parent is not None:
            page = self.reader.tables.mentions(known.parent, flag)
        if page:
            says = "named in the text of its page, without an entry of its own"
            self.add_option(word, flag, None, place=place, page=page, says=says)
            return
        near = nearest_flags(flag, known.all_flags)
        if told.tables[0].source == "usage" and not (near and flag.startswith("--")):
            # a usage text is short: what it leaves out may well exist
            self.add_option(word, flag, None, place=place, says=f"{told.page} does not tell of it")
            return
        says = f"unknown option: {known.page} has no {flag}"
        self.add_option(word, flag, None, place=place, problem=says, nearest=near)

    def wrong_value(self, option: Option, kind: str, value: str, dynamic: bool) -> tuple[str, list[str]]:
        """Why a value cannot be right, and what may be meant."""
        if dynamic or "$" in value or not value or value in ("-", "{}") or "{}" in value:
            return "", []
        if option.values and kind == "choice":
            parts = [part for part in value.split(",") if part]
            for part in parts:
                if _allowed(part, option):
                    continue
                near = nearest_values(part, option.values)
                strict = bool(re.search(r"[|{]|\bWHEN\b", option.argument or ""))
                letters = len(part) == 1 and sum(len(value) == 1 for value in option.values) > 3
                if (near or strict or letters) and re.fullmatch(r"[A-Za-z][\w-]*", part):
                    some = ", ".join(option.values[:6]) + (", …" if len(option.values) > 6 else "")
                    return f"value of a wrong kind: one of {some} is wanted", near
            return "", []
        reason = wrong_kind(kind, value, option.text)
        return (f"value of a wrong kind: {reason}", []) if reason else ("", [])

    # --- operands ------------------------------------------------------------------------------------

    def bundle(self, word: Word) -> bool:
        """A first word of option letters without a dash, as `tar xzf` and `ps aux` have it."""
        known = self.known
        if (
            known.name not in self.rules.bundles
            or self.state.operands
            or self.state.used
            or self.at != 1
            or word.value[:1] == "-"
            or not re.fullmatch(r"[A-Za-z0-9]+", word.value)
        ):
            return False
        letters = [known.spellings.get(letter) or known.spellings.get("-" + letter) for letter in word.value]
        if not all(letters):
            return False
        waiting: list[Spelling] = []
        for n, spelling in enumerate(letters):
            assert spelling is not None
            self.state.used.append(spelling)
            value = None
            if spelling.needs:
                place = self.at + len(waiting)
                value = self.words[place].value if place < len(self.words) else None
                waiting.append(spelling)
            flag = word.value[n] if spelling.flag == word.value[n] else "-" + word.value[n]
            self.add(
                word,
                "option",
                text=word.value[n],
                word=word.text if len(word.value) > 1 else "",
                span=[word.start + n, word.start + n + 1],
                flags=spelling.option.flags,
                value=value,
                page=spelling.page,
                says=spelling.option.text or None,
                problem=f"missing value: {flag} needs {spelling.option.argument}"
                if spelling.needs and value is None
                else None,
                what="without a dash",
            )
        for spelling in waiting:
            if self.at < len(self.words):
                one = self.words[self.at]
                self.at += 1
                self.add(one, "value", of=spelling.flag, kind=_kind(spelling.option), page=spelling.page)
        return True

    def inner(self, word: Word) -> bool:
        """Whether the command that this one carries begins with the word; if so, all of it is read."""
        carrier = self.carrier
        if carrier is None or carrier.never or carrier.after:
            return False
        if word.value[:1] == "-" and not self.state.ended and len(word.value) > 1:
            return False
        if carrier.string:
            if self.state.operands:
                return False
            self.state.operands.append(word)
            self.add(word, "operand", inside=True, what="a line that is run later")
            self.string_within(word, word.value)
            return True
        if carrier.assignments and _ASSIGNMENT.match(word.value):
            self.add(word, "assignment", says=_assigned(word.value))
            return True
        if len(self.state.operands) < carrier.before:
            return False
        self.at -= 1
        self.inner_command()
        return True

    def inner_command(self) -> None:
        """Read the rest of the words as the command that this one carries."""
        rest = self.words[self.at :]
        self.at = len(self.words)
        if not rest:
            return
        first = rest[0]
        if self.carrier is not None and self.carrier.joined and first.quoted and re.search(r"\s", first.value):
            for word in rest:
                self.add(word, "operand", inside=True, what="a line of the shell")
                self.string_within(word, word.value)
            return
        self.state.inner = self.reader.command(rest, self.depth + 1)

    def string_within(self, word: Word, value: str) -> None:
        """The pieces of a line that stands within a word."""
        if not word.dynamic or not value.startswith("$"):
            inner = Word(word.text, value, word.start, word.end)
            inner.quoted = word.quoted
            self.reader.line_of(inner, self.depth + 1)

    def expression(self, word: Word, carrying: list[str]) -> None:
        """An operator of an expression, or a test that runs a command up to `;` or `+`."""
        value = word.value
        spelling = self.known.spelling(value)
        if value in _EXPRESSION_OPERATORS:
            says = spelling.option.text if spelling and spelling.option.text else _OPERATOR_SAYS.get(value, "")
            self.add(word, "operator", page=self.known.page or None, says=says, flags=spelling.option.flags if spelling else None)
            return
        end = self.at
        while end < len(self.words) and self.words[end].value not in (";", "+"):
            end += 1
        inner = self.words[self.at : end]
        closer = self.words[end : end + 1]
        text = " ".join(one.value for one in [*inner, *(closer if closer and closer[0].value == "+" else [])])
        problem = "" if closer else f"missing value: {value} needs \\; or + after the command"
        if spelling:
            self.state.used.append(spelling)
        self.add_option(word, value, spelling, value=text, problem=problem, kind="command")
        self.at = end + 1
        if inner:
            self.state.inner = self.reader.command(inner, self.depth + 1)
        if closer:
            self.state.inner = None
            says = "ends the command: it is run once for each file" if closer[0].value == ";" else (
                "ends the command: it is run with as many files as fit"
            )
            self.add(closer[0], "operator", of=value, page=self.known.page or None, says=says)

    def operand(self, word: Word, expression: bool) -> None:
        """A subcommand, a word that is an option without a dash, or what the command works on."""
        value = word.value
        if expression and value in _EXPRESSION_OPERATORS:
            self.expression(word, [])
            return
        if not self.state.operands and not word.dynamic and not self.state.ended and self.subcommand(word):
            return
        if self.keyword(word):
            return
        self.state.operands.append(word)
        if self.known.name in _DECLARING and _ASSIGNMENT.match(value):
            self.add(word, "assignment", says=_assigned(value))
            return
        if self.script(word):
            return
        if value == "-":
            self.add(word, "operand", says="the standard input or output in place of a file", what="-")
            return
        name, kind = operand_of(self.known, len(self.state.operands) - 1)
        problem = ""
        if kind and not word.dynamic and not word.glob:
            plain = kind in ("mode", "duration", "signal") or (kind == "number" and name.upper().startswith("NUMBER"))
            reason = wrong_kind(kind, value) if plain else ""
            if reason:
                problem = f"value of a wrong kind: {reason}"
        self.add(word, "operand", what=name, kind=kind, problem=problem or None)

    def script(self, word: Word) -> bool:
        """The script of an interpreter: options after it are its own."""
        name = re.sub(r"\d(\.\d+)?\Z", "", self.known.name)
        if name not in self.rules.scripts and self.known.name not in self.rules.scripts:
            return False
        if len(self.state.operands) > 1:
            return False
        self.add(word, "operand", what="script", kind="file")
        self.script_rest = "argument of the script"
        return True

    def keyword(self, word: Word) -> bool:
        """An option that has no dash: `dev eth0`, `bs=1M`; whether the word is one."""
        name, equals, attached = word.value.partition("=")
        spelling = self.known.spelling(name) if name and name[0] not in "-+" else None
        if spelling is None or word.quoted or len(name) < 2:
            return False
        if equals and spelling.takes:
            self.option(word, name, spelling, attached)
            return True
        if equals or word.value.endswith("="):
            return False
        self.option(word, name, spelling, None)
        return True

    def subcommand(self, word: Word) -> bool:
        """A subcommand: by a page of its own, or listed in the command's text; whether the word is one or fails to be."""
        known, value = self.known, word.value
        page = self.reader.tables.subcommand(known, value)
        listed = known.subcommands
        short = ""
        if page is None and value not in listed and self.root_name in self.rules.shortened:
            short = next((name for name in listed if name.startswith(value) or value.startswith(name)), "")
            page = self.reader.tables.subcommand(known, short) if short else None
        if page is not None:
            self.state.known = page
            self.carrier = self.carrier_of(page)
            says = listed.get(short or value) or page.summary
            self.add(word, "subcommand", page=page.page, says=says or None, what=f"short for {short}" if short else "")
            return True
        if short or value in listed:
            inside = Known(f"{known.name}-{short or value}", f"{known.words} {value}", known)
            inside.page = known.page
            self.state.known = inside
            what = f"short for {short}" if short else ""
            self.add(word, "subcommand", page=known.page, says=listed[short or value] or None, what=what)
            return True
        if not listed and known.parent is None and self.reader.tables.store.has_subcommands(known.name):
            near = self._subcommands_like(value) if re.fullmatch(r"[a-z][\w-]*", value) else []
            if near:
                problem = f"wrong subcommand: {known.words} has no {value}"
                self.add(word, "subcommand", problem=problem, nearest=near, page=known.page)
                self.state.operands.append(word)
            return bool(near)
        if len(listed) < 3 or not re.fullmatch(r"[a-z][\w-]*", value) or word.quoted:
            return False
        near = nearest_values(value, list(listed))
        if not near and (known.parent is not None or not _wants_command(known)):
            return False
        self.add(
            word,
            "subcommand",
            problem=f"wrong subcommand: {known.page} lists no {value}",
            nearest=near,
            page=known.page,
        )
        self.state.operands.append(word)
        return True

    def _subcommands_like(self, value: str) -> list[str]:
        names = [entry.name for entry in self.reader.tables.store.of_family(self.known.name)]
        plain = [name.removeprefix(self.known.name + "-") for name in names if name.startswith(self.known.name + "-")]
        return nearest_values(value, plain)

    @property
    def root_name(self) -> str:
        return self.state.root.name


_OPERATOR_SAYS = {
    "(": "begins a group",
    ")": "ends a group",
    "!": "true if what follows is false",
    "-not": "true if what follows is false",
    "-o": "or",
    "-or": "or",
    "-a": "and",
    "-and": "and",
    ",": "both are done; the second counts",
}


def nearest_flags(flag: str, flags: list[str]) -> list[str]:
    """The spellings that are written like `flag`, the nearest first."""
    if len(flag) < 3:
        other = flag.swapcase()
        return [other] if other in flags else []
    close = nearest_values(flag, [one for one in dict.fromkeys(flags) if len(one) > 2])
    dashed = [one for one in (f"-{flag}", flag[1:] if flag.startswith("--") else "") if one in flags]
    return list(dict.fromkeys([*dashed, *close]))[:3]


def _kind(option: Option) -> str:
    return value_kind(option.argument or "", option.text, option.values)


def _allowed(part: str, option: Option) -> bool:
    """Whether a word is one of the values, or the text speaks of it."""
    values = option.values or []
    low = part.lower()
    return any(value.lower().startswith(low) for value in values) or bool(
        re.search(r"(?<![\w-])" + re.escape(part) + r"(?![\w-])", option.text, re.IGNORECASE)
    )


def _may_take(option: Option) -> bool:
    """Whether the text lets a value be given though the tag shows none."""
    return bool(re.search(r"\b(?:set to|values?|argument|format|one of|specify|specified)\b|=", option.text))


def _two(option: Option) -> bool:
    words = (option.argument or "").replace("<", "").replace(">", "").split()
    told = ("name", "value", "format", "string", "file", "key", "old", "new", "variable", "source", "destination")
    return all(word in told or kind_of_placeholder(word) != "text" for word in words)


def _value_says(option: Option) -> str | None:
    return option.argument or None


def _assigned(text: str) -> str:
    name, _, value = text.partition("=")
    return f"sets {name} to {value}" if value else f"empties {name}"


def _carried_after(known: Known) -> int | None:
    """How many operands stand before the command that the forms show: `timeout DURATION COMMAND [ARG]...`."""
    for table in known.tables:
        for form in table.forms:
            before = 0
            elements = [e for e in form.elements if e.what not in ("command", "option")]
            elements = [e for e in elements if not e.text.upper().startswith("OPTION")]
            for n, element in enumerate(elements):
                inner = [element, *element.elements]
                first = next((e for e in inner if e.what == "operand"), None)
                name = first.text.strip("<>[]").lower() if first else ""
                follows = [*element.elements[1:], *elements[n + 1 :]]
                if name in ("command", "utility", "program", "cmd") and any(
                    re.match(r"(?:.*[-_])?(?:args?|arguments?)\b", e.text.strip("<>[]").lower()) for e in follows
                ):
                    return None if known.subcommands else before
                if element.what == "operand" and element.required and not element.repeats:
                    before += 1
    return None


def _wants_command(known: Known) -> bool:
    """Whether the forms demand a command."""
    for table in known.tables:
        for form in table.forms:
            first = next((e for e in form.elements if e.what not in ("command", "option") and e.required), None)
            if first is not None and re.fullmatch(
                r"(?:sub-?)?(?:command|cmd|verb|object)s?", first.text.strip("<>[]"), re.IGNORECASE
            ):
                return True
            if first is not None and first.what == "choice" and len(first.elements) > 3:
                return True
    return False


_OPTIONS = re.compile(r"options?\b|flags\b", re.IGNORECASE)


def _operands(elements: list[Element]) -> list[Element]:
    """The operands in their order, those in groups too."""
    found: list[Element] = []
    for element in elements:
        if element.what == "operand":
            found.append(element)
        elif element.what == "group":
            found += _operands(element.elements)
        elif element.what == "choice" and element.elements:
            found += _operands(element.elements[:1])
    return found


def operand_of(known: Known, place: int) -> tuple[str, str]:
    """The name and kind of the operand at that place in the forms, "" where they differ or do not tell."""
    for table in known.tables:
        for form in table.forms:
            names = [e for e in _operands(form.elements) if not _OPTIONS.search(e.text)]
            if not names:
                continue
            element = names[min(place, len(names) - 1)]
            if place >= len(names) and not element.repeats:
                continue
            name = re.match(r"[\[<]*([^\[\]<>]*)", element.text)[1].strip("' ,") or element.text  # type: ignore[index]
            kind = value_kind(name, "file mode" if name.isupper() else "")
            return name, kind
    return "", ""
