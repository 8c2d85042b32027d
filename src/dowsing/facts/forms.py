"""The forms of a synopsis as trees: a grammar of the notation that manual pages write.

    form      = element*
    element   = unit ["..."]          repeated
    unit      = "[" choice "]"        may be left out
              | "{" choice "}" | "(" choice ")"
              | "<" text ">"          to be replaced
              | word                  an option, a literal word, or a name to be replaced
    choice    = form ("|" form)*      one of

Between bare words a bar parts single units, in brackets it parts whole sequences, as POSIX.1-2017
(XBD 12.1) and the pages of all makers have it. What stands in one word with brackets,
`--color[=WHEN]` or `[user@]host`, is one unit.
"""

from __future__ import annotations

import re
from enum import StrEnum

from dowsing.model.record import Record

CLOSERS = {"[": "]", "{": "}", "(": ")", "<": ">"}
MOST_NESTED = 40  # brackets within brackets; pages have five
_DOTS = re.compile(r"(?:\.\.\.?|…)")
_ALL_DOTS = re.compile(r"\.{2,}|…")
_NAMED = re.compile(r"[A-Z][A-Z0-9_.:/-]*\Z")
_OPTION = re.compile(
    r"(?:--?[A-Za-z0-9?@#\[$!%^&*:.,_~]|\+[a-z](?![a-z])|\+[A-Z](?![A-Z])|-\Z|--\Z)"
)


#: A placeholder of several words: `[Scan Type...]`, `{target specification}`.
_PHRASE = (
    r"(\[(?=[A-Z]|[a-z]+ (?:flags|options)\])|\{)"
    r"([A-Z]?[a-z]+(?: [A-Z][a-z]+)+|[a-z]{3,}(?: [a-z]{3,})+)"
    r"(\.\.\.)?[\]}](?=\s|\Z)"
)


#: Words of which one is to be typed, parted by commas: `{create,edit,view}`.
_LISTED_WORDS = r"\{([a-z][\w-]*(?:,[a-z][\w-]*)+)\}(?=\s|\Z)"


class ElementKind(StrEnum):
    """What an element of a form is; the values are those of the JSON contract."""

    COMMAND = "command"
    OPTION = "option"
    OPERAND = "operand"
    LITERAL = "literal"
    CHOICE = "choice"
    GROUP = "group"


class Element(Record):
    """A part of a form. `what`: command, option, operand, literal, choice or group.

    `required`: it must be given; `repeats`: it may be given again; `elements`: the parts of a group
    in their order, the alternatives of a choice, the argument of an option. `written` tells how it
    stands in the form again.
    """

    text: str
    what: ElementKind
    required: bool = True
    repeats: bool = False
    elements: list[Element] = []  # noqa: RUF012 - a record is immutable


class Form(Record):
    """A form: its line, its elements, and what kept it from being read whole ("" if nothing did).

    `defines`: the placeholder that the form spells out, as in `OBJECT := { link | address }`.
    """

    line: str
    elements: list[Element]
    problem: str = ""
    defines: str = ""


class Notation(Record):
    """What the text tells of words: `literals` are to be typed as they stand, `names` are the
    command's own.

    `replaced`: words in italics, which stand for something else; `valued`: spellings of options
    that take an argument, so that the word after one is its argument.
    """

    names: list[str]
    literals: list[str] = []  # noqa: RUF012
    valued: list[str] = []  # noqa: RUF012
    replaced: list[str] = []  # noqa: RUF012


def parse_form(line: str, notation: Notation) -> Form:
    """The tree of a form. Never raises: what does not fit the grammar is a problem of the form."""
    line = " ".join(line.split()).replace(" / ", " | ")  # `[options / URLs]`
    defined = re.match(r"<?([A-Z][\w-]*)>? ?(?::=|::=) ?", line)
    parser = _FormParser(line, notation, defined.end() if defined else 0)
    if defined:
        parser.names_left = 0
    elements = parser.sequence("")
    if parser.at < len(line):
        parser.problem = parser.problem or f"“{line[parser.at]}” closes nothing"
        parser.at = len(line)
    return Form(line, elements, parser.problem, defined[1] if defined else "")


def written(elements: list[Element]) -> str:
    """Elements as a form writes them."""
    return " ".join(_written(element) for element in elements)


def _written(element: Element) -> str:
    if element.what == ElementKind.CHOICE:
        inner = " | ".join(_written_in(one) for one in element.elements)
        text = f"[{inner}]" if not element.required else f"{{{inner}}}"
    elif element.what == ElementKind.GROUP:
        inner = written(element.elements)
        text = f"[{inner}]" if not element.required else f"({inner})"
    else:
        text = element.text if element.required else f"[{element.text}]"
    return text + ("..." if element.repeats else "")


def _written_in(element: Element) -> str:
    """An alternative: a sequence needs no brackets of its own there."""
    if element.what == ElementKind.GROUP and element.required and not element.repeats:
        return written(element.elements)
    return _written(element)


class _FormParser:
    def __init__(self, line: str, notation: Notation, at: int) -> None:
        self.line = line
        self.notation = notation
        self.at = at
        self.problem = ""
        self.names_left = 6  # so many words may belong to the name
        self.nested = 0  # how many brackets are open here
        self.closed_at = _closings(line)

    def sequence(self, closer: str) -> list[Element]:
        """The elements up to `closer`, which is taken too."""
        alternatives: list[list[Element]] = [[]]
        bar = False  # between bare words, a bar has just been read
        closed = not closer
        while self.at < len(self.line):
            char = self.line[self.at]
            if char == " ":
                self.at += 1
            elif char == closer or char in "]})":
                closed = True
                self.close(char, closer)
                break
            elif char == "|":
                self.at += (
                    2 if self.line.startswith("||", self.at) else 1
                )  # doubled, it means the same
                if closer:
                    alternatives.append([])
                else:
                    bar = bool(alternatives[-1])
            elif self.take_repetition():
                _repeated(alternatives[-1])
            else:
                bar = _taken_up(alternatives[-1], self.unit(), bar)
        if not closed:
            self.problem = self.problem or f"“{closer}” is missing"
        alternatives = [self.arguments(one, bool(closer)) for one in alternatives]
        if len(alternatives) == 1:
            return alternatives[0]
        return [_choice([one for one in alternatives if one])]

    def close(self, char: str, closer: str) -> None:
        """Take the bracket that ends a sequence; the wrong one is a problem, and one that nothing
        opened stays.
        """
        if not closer:
            return
        self.at += 1
        if char != closer:
            self.problem = self.problem or f"“{closer}” expected, “{char}” found"

    def take_repetition(self) -> bool:
        """Take dots of repetition, if they stand here."""
        match = _DOTS.match(self.line, self.at) and _ALL_DOTS.match(self.line, self.at)
        if not match:
            return False
        self.at = match.end()
        return True

    def unit(self) -> list[Element]:
        """The next unit with its dots; groups that stand close together are several."""
        char = self.line[self.at]
        if char in "[{" and (whole := self.whole_bracket()):
            return [whole]
        if char in "[{(" and self.nested >= MOST_NESTED:
            self.problem = self.problem or "its brackets are nested too deep"
        elif char in "[{(" and self.closes_whole():
            self.at += 1
            self.nested += 1
            inner = self.sequence(CLOSERS[char])
            self.nested -= 1
            repeats = self.dots()
            return [_grouped(inner, char != "[", repeats)] if inner else []
        text = self.chunk()
        repeats = False
        ending = _ALL_DOTS.search(text)
        if ending and ending.end() == len(text) and ending.start():
            text, repeats = text[: ending.start()], True
        return [self.word(text, repeats)]

    def whole_bracket(self) -> Element | None:
        """The element that a bracket stands for as a whole: a placeholder of several words, or
        words of which one is to be typed.
        """
        inside = self.line[self.at : self.closing(self.at)]
        if " " not in inside and "," not in inside:  # most brackets: no pattern is needed
            return None
        phrase = re.compile(_PHRASE).match(self.line, self.at)
        if phrase:
            self.at = phrase.end()
            return Element(phrase[2], ElementKind.OPERAND, phrase[1] != "[", bool(phrase[3]))
        listed = re.compile(_LISTED_WORDS).match(self.line, self.at)
        if listed:
            self.at = listed.end()
            return _choice([[Element(one, ElementKind.LITERAL)] for one in listed[1].split(",")])
        return None

    def dots(self) -> bool:
        """Whether dots follow, which are taken."""
        match = re.compile(r" ?(?:\.{2,}|…)(?![\w/])").match(self.line, self.at)
        if match:
            self.at = match.end()
        return bool(match)

    def closes_whole(self) -> bool:
        """Whether the bracket here is closed at the end of a word, so that it is a group and no
        part of a word.
        """
        end = self.closing(self.at)
        after = self.line[end + 1 : end + 2]
        if after == "[":  # `[OWNER][:[GROUP]]` is one word, `[-a][-b]` are two groups
            inside = self.line[self.at + 1 : end]
            return (
                inside[:1] in "-+ <"
                or " " in inside
                or self.line[end + 2 : end + 3] in ("-", " ", "<")
            )
        return end >= len(self.line) or after in (
            "",
            " ",
            "[",
            "]",
            "}",
            ")",
            "|",
            "{",
            ".",
            "…",
            "(",
        )

    def closing(self, start: int) -> int:
        """Where the bracket at `start` is closed; the length of the line if it never is."""
        return self.closed_at.get(start, len(self.line))

    def chunk(self) -> str:
        """The next word, with the brackets that stand in it."""
        start = self.at
        while self.at < len(self.line):
            char = self.line[self.at]
            if char == "<" or (char in "[{(" and self.at > start):
                end = self.closing(self.at)
                if end >= len(self.line):
                    if char != "<":
                        self.problem = self.problem or f"“{CLOSERS[char]}” is missing"
                    self.at += 1
                    continue
                if (
                    char == "["
                    and self.line[self.at + 1 : self.at + 2] in ("-", " ")
                    and self.at > start
                ):
                    if self.line[start] != "-" or self.line[self.at + 1] == " ":
                        break  # a group of its own that stands close
                self.at = end + 1
            elif char in "[{(" and self.at == start:
                end = self.closing(self.at)
                self.at = min(end + 1, len(self.line))
            elif char in " ]})" or (char == "|" and not self.glued(start)):
                break
            else:
                self.at += 1
        if self.at == start:
            self.at += 1
        return self.line[start : self.at]

    def glued(self, start: int) -> bool:
        """Whether the bar here is within one word, such as `on|off`: the alternatives are then its
        text.
        """
        before, after = self.line[self.at - 1 : self.at], self.line[self.at + 1 : self.at + 2]
        word = self.line[start : self.at]
        return "=" in word and before not in " >]" and after not in (" ", "", "|")

    def word(self, text: str, repeats: bool) -> Element:
        """A word: part of the name, an option, a literal word, or a name to be replaced."""
        if self.names_left and self.names(text):
            self.names_left -= 1
            return Element(text, ElementKind.COMMAND, repeats=repeats)
        self.names_left = 0
        if _OPTION.match(text):
            argument = re.match(r"(--?[\w?#@-]+)(\[=?|=)?(.*)", text)
            value = argument[3].rstrip("]") if argument and argument[2] else ""
            inside = (
                [Element(value, ElementKind.OPERAND, required=argument[2][0] != "[")]
                if argument and value
                else []
            )
            return Element(text, ElementKind.OPTION, repeats=repeats, elements=inside)
        listed = text in self.notation.literals and not _NAMED.match(text) and "<" not in text
        sign = not any(char.isalnum() for char in text)
        return Element(
            text, ElementKind.LITERAL if listed or sign else ElementKind.OPERAND, repeats=repeats
        )

    def names(self, text: str) -> bool:
        """Whether the word is one of those that the command is called by."""
        whole = self.notation.names
        return text in whole or any(
            text in name.replace("_", "-").split("-") for name in whole if "-" in name
        )

    def arguments(self, elements: list[Element], in_brackets: bool) -> list[Element]:
        """Options with the word after them that is their argument."""
        done: list[Element] = []
        for element in elements:
            before = done[-1] if done else None
            if (
                before is not None
                and before.what == ElementKind.OPTION
                and before.text.strip("-")
                and not before.elements
                and not before.repeats
                and element.what in (ElementKind.OPERAND, ElementKind.LITERAL, ElementKind.CHOICE)
                and (element.required or before.text in self.notation.valued)
                and (before.text in self.notation.valued or (in_brackets and len(elements) == 2))
            ):
                done[-1] = Element(
                    f"{before.text} {_written(element)}",
                    ElementKind.OPTION,
                    before.required,
                    elements=[element],
                )
                continue
            done.append(element)
        return done


def _closings(line: str) -> dict[int, int]:
    """Where each bracket that is closed is closed; brackets of another kind between the two do not
    count.
    """
    found: dict[int, int] = {}
    openers = {closer: opener for opener, closer in CLOSERS.items()}
    opened: dict[str, list[int]] = {opener: [] for opener in CLOSERS}
    for at, char in enumerate(line):
        if char in opened:
            opened[char].append(at)
        elif char in openers and opened[openers[char]]:
            found[opened[openers[char]].pop()] = at
    return found


def _repeated(elements: list[Element]) -> None:
    """The last element may be given more than once."""
    if elements:
        elements[-1] = elements[-1].changed(repeats=True)


def _taken_up(elements: list[Element], found: list[Element], bar: bool) -> bool:
    """Add what was read; behind a bar, its first is another choice for the last. Returns whether
    the bar still waits for something.
    """
    if bar and found:
        elements[-1] = _either(elements[-1], found[0])
        found = found[1:]
        bar = False
    elements += found
    return bar


def _either(first: Element, second: Element) -> Element:
    """The two, or what the first is already one of, as a choice that stands without brackets."""
    if first.what == ElementKind.CHOICE and first.required and not first.repeats:
        return _choice(
            [
                [*one.elements] if one.what == ElementKind.GROUP else [one]
                for one in (*first.elements, second)
            ]
        )
    return _choice([[first], [second]])


def _choice(alternatives: list[list[Element]]) -> Element:
    each = [
        one[0] if len(one) == 1 else Element(written(one), ElementKind.GROUP, elements=one)
        for one in alternatives
    ]
    return Element(" | ".join(_written_in(one) for one in each), ElementKind.CHOICE, elements=each)


def _grouped(inner: list[Element], required: bool, repeats: bool) -> Element:
    """What stood in brackets: one element for itself, or a group."""
    if len(inner) == 1:
        only = inner[0]
        if only.what == ElementKind.CHOICE and only.required and not only.repeats:
            return only.changed(required=required, repeats=repeats)
        if only.required or not required:
            return only.changed(required=required, repeats=repeats or only.repeats)
    return Element(written(inner), ElementKind.GROUP, required, repeats, inner)
