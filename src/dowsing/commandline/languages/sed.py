"""Scripts of sed of any length (POSIX.1-2017, sed, with the additions of GNU)."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import (
    Cutter,
    Fault,
    LanguageFault,
    Part,
    Reading,
    fault,
    ordinal,
)
from dowsing.commandline.languages.regex import (
    parts_of,
    pattern_fault,
    plain_texts,
    quoted_texts,
)
from dowsing.model.record import Record

_COMMANDS = {
    "d": "deletes the line",
    "p": "prints the line",
    "q": "stops",
    "Q": "stops without printing",
    "=": "prints the line's number",
    "n": "goes on to the next line",
    "N": "adds the next line",
    "D": "deletes up to the first new line and begins again",
    "P": "prints up to the first new line",
    "h": "keeps the line aside",
    "H": "adds the line to what is kept aside",
    "g": "takes back what was kept aside",
    "G": "adds what was kept aside",
    "x": "exchanges it with what is kept aside",
    "l": "prints the line with its odd characters shown",
    "F": "prints the name of the file",
    "z": "empties the line",
}
_TEXTS = {
    "a": "adds a line after it: {0}",
    "i": "adds a line before it: {0}",
    "c": "puts this in the line's place: {0}",
    "r": "adds the contents of {0} after it",
    "R": "adds a line of {0} after it",
    "w": "writes the line to {0}",
    "W": "writes up to the first new line to {0}",
    "e": "runs {0} and adds what it prints",
    "#": "a remark",
}
#: What is done to lines that an address names: `{1}`.
_ON_LINES = {
    "d": "deletes {1}",
    "p": "prints {1}",
    "a": "adds a line after {1}: {0}",
    "i": "adds a line before {1}: {0}",
}
_JUMPS = {
    ":": "the label {0}",
    "b": "goes to {0}",
    "t": "goes to {0} if something was replaced",
    "T": "goes to {0} if nothing was replaced",
}
_FLAGS = {
    "g": "every time in the line",
    "p": "prints changed lines",
    "i": "in any case",
    "I": "in any case",
    "e": "runs the result",
    "m": "^ and $ at each new line in it",
    "M": "^ and $ at each new line in it",
    "w": "writes changed lines to a file",
}
_NUMBER = re.compile(r"\d+(?:~\d+)?|\$|\+\d+|~\d+")
_BLANKS = " \t"
_MOST_TOLD = 4  # commands of a script that are put into words
#: What is put somewhere and would not be seen.
_SHOWN = {"": "nothing", " ": "a space", "\\t": "a tab", "\\n": "a new line"}


def read(value: str, dialect: str = "basic") -> Reading:
    """Each address, command and argument."""
    reader = _ScriptReader(value, dialect or "basic")
    wrong = reader.read_all()
    return reader.cutter.finish(reader.phrase() if wrong is None else "", wrong)


class _Command(Record):
    """A command: its letter, the lines that it is for, what it does, and its text."""

    letter: str
    lines: str
    says: str
    text: str = ""

    @property
    def phrase(self) -> str:
        """What it does, and on which lines."""
        if self.lines and self.letter in _ON_LINES:
            return _ON_LINES[self.letter].format(self.text, self.lines)
        return f"{self.says} on {self.lines}" if self.says and self.lines else self.says


class _ScriptReader:
    """Reads a script from its beginning; `said` are its commands, `lines` those that the next is
    for.
    """

    def __init__(self, script: str, dialect: str) -> None:
        self.script = script
        self.dialect = dialect
        self.cutter = Cutter(script)
        self.groups: list[int] = []
        self.said: list[_Command] = []
        self.lines = ""

    @property
    def at(self) -> int:
        return self.cutter.at

    def script_fault(self, code: LanguageFault, *arguments: str, start: int = -1) -> Fault:
        """A fault at the next character, or from `start`."""
        begin = min(self.at if start < 0 else start, max(len(self.script) - 1, 0))
        return fault(begin, begin + 1, code, *arguments)

    def script_end(self) -> Fault | None:
        """What is not closed at the end."""
        if not self.groups:
            return None
        return self.script_fault(LanguageFault.NOT_CLOSED, "{", start=self.groups[-1])

    def read_all(self) -> Fault | None:
        """Read it all; the first thing that sed would refuse."""
        while self.at < len(self.script):
            if self.peek() in " \t\n;":
                self.cutter.cut(self.at + 1)
                continue
            wrong = self.addresses() or self.command()
            if wrong is not None:
                return wrong
        return self.script_end()

    def phrase(self) -> str:
        """What the whole does, where it is a few commands one after the other."""
        if not self.said or len(self.said) > _MOST_TOLD:
            return ""
        if len(self.said) > 1 and any(one.letter in _JUMPS for one in self.said):
            return ""
        told = [one.phrase for one in self.said]
        return ", then ".join(told) if all(told) else ""

    def peek(self) -> str:
        return self.script[self.at : self.at + 1]

    # --- addresses
    # -----------------------------------------------------------------------------------

    def addresses(self) -> Fault | None:
        """The lines that a command is for, cut as one part."""
        start, self.lines = self.at, ""
        end, first, wrong = self.one_address(start)
        if wrong is not None:
            return wrong
        last = ""
        after = self.past_blanks(end)
        if end > start and self.script[after : after + 1] == ",":
            end, last, wrong = self.one_address(self.past_blanks(after + 1))
            if wrong is not None:
                return wrong
        after = self.past_blanks(end)
        negated = self.script[after : after + 1] == "!"
        if negated:
            end = after + 1
        if end > start:
            says = _place(first) + (f" to {_place(last)}" if last else "")
            if first.isdecimal() and last.isdecimal():
                says = f"lines {first} to {last}" if first != last else f"line {first}"
            elif first.startswith("/") and last.startswith("/"):
                says = f"the lines from one that matches {first} to one that matches {last}"
            self.lines = f"all lines but {says}" if negated else says
            inside = [part for text in (first, last) for part in self.pattern_parts(text)]
            self.cutter.cut(end, f"on {self.lines}", inside)
        self.cutter.cut(self.past_blanks(self.at))
        return None

    def pattern_parts(self, address: str) -> list[Part]:
        match = re.fullmatch(r"/(.*)/[IM]*", address, re.DOTALL)
        return parts_of(match[1], self.dialect) if match else []

    def one_address(self, at: int) -> tuple[int, str, Fault | None]:
        """The end of an address that begins there, and its text; "" if there is none."""
        number = _NUMBER.match(self.script, at)
        if number:
            return number.end(), number[0], None
        start, sign = at, self.script[at : at + 1]
        if sign == "\\" and at + 1 < len(self.script):
            at += 1
            sign = self.script[at]
        elif sign != "/":
            return at, "", None
        end = self.end_of(sign, at)
        if end < 0:
            return at, "", self.script_fault(LanguageFault.NOT_CLOSED, sign, start=at)
        pattern = self.script[at + 1 : end - 1]
        wrong = pattern_fault(pattern, self.dialect)
        if wrong is not None:
            return at, "", wrong.changed(start=at + 1 + wrong.start, end=at + 1 + wrong.end)
        while self.script[end : end + 1] in ("I", "M"):
            end += 1
        text = self.script[start:end]
        return end, text if sign == "/" else f"/{pattern}/", None

    def past_blanks(self, at: int) -> int:
        while at < len(self.script) and self.script[at] in _BLANKS:
            at += 1
        return at

    def end_of(self, sign: str, start: int, in_pattern: bool = True) -> int:
        """The place behind the next `sign` that is not escaped; -1 without one."""
        at, in_set = start + 1, False
        while at < len(self.script):
            char = self.script[at]
            if char == "\\":
                at += 2
                continue
            if in_pattern and char == "[" and not in_set:
                in_set = True
                at += 1 + (self.script[at + 1 : at + 2] in ("]", "^"))
            elif char == "]":
                in_set = False
            elif char == sign and not in_set:
                return at + 1
            at += 1
        return -1

    # --- commands
    # ------------------------------------------------------------------------------------

    def command(self) -> Fault | None:
        letter = self.peek()
        if letter in ("s", "y") and letter:
            return self.substitution(letter)
        if letter == "{":
            self.groups.append(self.at)
            self.cutter.cut(self.at + 1, "begins a group")
            self.said.append(_Command(letter, self.lines, ""))
        elif letter == "}":
            if not self.groups:
                return self.script_fault(LanguageFault.CLOSES_NOTHING, letter)
            self.groups.pop()
            self.cutter.cut(self.at + 1, "ends the group")
        elif letter in _TEXTS:
            self.text(letter)
        elif letter in _JUMPS:
            self.jump(letter)
        elif letter in _COMMANDS:
            end = re.compile(r"[ \d]*").match(self.script, self.at + 1)
            says = _COMMANDS[letter]
            self.said.append(_Command(letter, self.lines, says))
            self.cutter.cut(self.at + 1, says)
            self.cutter.cut(
                end.end() if end else self.at, "with this status" if end and end[0].strip() else ""
            )
        elif letter:
            return self.script_fault(LanguageFault.UNKNOWN_COMMAND, letter)
        return None

    def text(self, letter: str) -> None:
        """A command whose text goes on to the end of the line, over escaped line ends."""
        at = self.at + 1
        while at < len(self.script) and self.script[at] != "\n":
            at += 2 if self.script[at] == "\\" and letter in "aic" else 1
        at = min(at, len(self.script))
        text = re.sub(r"\A\s*\\?\n?\s*", "", self.script[self.at + 1 : at])
        text = " ".join(text.split()) or "nothing"
        says = _TEXTS[letter].format(text)
        self.said.append(_Command(letter, self.lines, says, text))
        self.cutter.cut(at, says)

    def jump(self, letter: str) -> None:
        """A label, or a jump to one."""
        end = re.compile(r"[ \t]*([^;\n}\s]*)").match(self.script, self.at + 1)
        label = end[1] if end else ""
        says = _JUMPS[letter].format(
            f"the label {label}" if label and letter != ":" else label or "the end"
        )
        self.said.append(_Command(letter, self.lines, says))
        self.cutter.cut(end.end() if end else self.at + 1, says)

    def substitution(self, letter: str) -> Fault | None:
        """`s/old/new/flags` and `y/abc/xyz/`."""
        start = self.at
        sign = self.script[start + 1 : start + 2]
        middle = self.end_of(sign, start + 1) if sign and sign not in "\n\\" else -1
        if middle < 0:
            return self.script_fault(LanguageFault.PART_MISSING, letter, sign or "/")
        end = self.end_of(sign, middle - 1, in_pattern=False)
        if end < 0:
            return self.script_fault(LanguageFault.PART_MISSING, letter, sign)
        old, new = self.script[start + 2 : middle - 1], self.script[middle : end - 1]
        wrong = pattern_fault(old, self.dialect) if letter == "s" else None
        if wrong is not None and sign not in "()[]{}":
            return wrong.changed(start=start + 2 + wrong.start, end=start + 2 + wrong.end)
        if letter == "y":
            says = f"puts {new} in the place of {old}, letter by letter"
            self.cutter.cut(end, says)
            return self.flags(letter, says, says)
        replaced = f"puts {_replacement(new)} in the place of "
        self.cutter.cut(end, f"{replaced}what matches {old}", parts_of(old, self.dialect))
        flags = re.compile(r"[^ ;}\n#\t]*").match(self.script, end)
        which = "every" if flags and "g" in flags[0] else "the first"
        texts = plain_texts(old, self.dialect)
        what = f"{which} {quoted_texts(texts) if texts else f'match of {old}'}"
        return self.flags(letter, f"{replaced}{what}", f"{replaced}what matches {old}")

    def flags(self, letter: str, phrase: str, says: str) -> Fault | None:
        """What stands behind the last sign. `phrase`: the command in a sentence."""
        notes = []
        is_counted = False  # `s/a/b/2`: not the first
        while self.at < len(self.script) and self.peek() not in " ;}\n#\t":
            flag = self.peek()
            number = re.compile(r"\d+").match(self.script, self.at)
            if number:
                notes.append(f"only the {ordinal(number[0])} time in the line")
                self.cutter.cut(number.end(), notes[-1])
                is_counted = True
                continue
            if flag not in _FLAGS or letter == "y":
                return self.script_fault(LanguageFault.UNKNOWN_FLAG, flag, letter)
            notes.append(_FLAGS[flag])
            if flag == "w":
                end = self.script.find("\n", self.at)
                self.cutter.cut(end if end >= 0 else len(self.script), notes[-1])
                break
            self.cutter.cut(self.at + 1, notes[-1])
        told = [note for note in notes if note != _FLAGS["g"]]
        does = ", ".join([says if is_counted else phrase, *told])
        self.said.append(_Command(letter, self.lines, does))
        return None


def _place(address: str) -> str:
    if address == "$":
        return "the last line"
    if address.startswith("/"):
        bare = address.rstrip("IM")
        says = "empty lines" if bare == "/^$/" else f"lines that match {bare}"
        return says + (", in any case" if "I" in address[len(bare) :] else "")
    if "~" in address:
        first, step = address.split("~")
        return (
            f"every {ordinal(step)} line from line {first}"
            if first
            else f"the next line that is a multiple of {step}"
        )
    return f"{address[1:]} lines further" if address.startswith("+") else f"line {address}"


def _replacement(new: str) -> str:
    """What is put there, with what its signs stand for."""
    if not new.strip(" ") or new in _SHOWN:
        return _SHOWN.get(new, "spaces")
    groups = re.findall(r"\\(\d)", new)
    notes = [f"\\{n}: what group {n} matched" for n in dict.fromkeys(groups)]
    if re.search(r"(?<!\\)&", new):
        notes.append("&: what was matched")
    return f"{new} ({', '.join(notes)})" if notes else new
