"""The inline mdoc macros: one macro line to marked text.

A macro line is a list of words in which macro names call macros. Words are put together with blanks
except where punctuation, `Ns` and its kin say otherwise; what must touch the line before or after
is told to the builder with the JOIN mark.
"""

from __future__ import annotations

from collections.abc import Callable

from dowsing.model.markup import BOLD, CODE, ITALIC, ROMAN, link, plain
from dowsing.readers.roff.machine import _split_quoted
from dowsing.readers.roff.marks import JOIN, ZERO
from dowsing.readers.roff.mdoc_names import ATT, LIBRARIES, STANDARDS, SYSTEMS

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.readers.roff.machine import Machine

OPENING = frozenset("([")
# macros whose words are one run of their font, not a run each
_FONT_AS_ONE = frozenset(("Em", "Sy", "Li", "Pa", "Sx", "An", "Nm", "Cm", "Ic"))
# what a macro says that is given no words
_FONT_DEFAULTS = {"Ar": "file ...", "Pa": "~", "Fl": "-"}
CLOSING = frozenset((".", ",", ":", ";", ")", "]", "?", "!"))
CELL = "\x16"  # between the cells of a row

FONTS = {
    "Ar": ITALIC,
    "Cm": BOLD,
    "Ic": BOLD,
    "Fl": BOLD,
    "Em": ITALIC,
    "Sy": BOLD,
    "Li": CODE,
    "No": ROMAN,
    "Nm": BOLD,
    "Pa": ITALIC,
    "Ev": CODE,
    "Dv": CODE,
    "Er": CODE,
    "Va": ITALIC,
    "Vt": ITALIC,
    "Fa": ITALIC,
    "Ft": ITALIC,
    "Fd": BOLD,
    "Cd": BOLD,
    "Ad": ITALIC,
    "An": ROMAN,
    "Ms": BOLD,
    "Tn": ROMAN,
    "Sx": ITALIC,
    "Hf": CODE,
    "Ot": ITALIC,
    "Fr": ROMAN,
    "Me": BOLD,
    "Tx": ROMAN,
}
ENCLOSED = {
    "Op": ("[", "]"), "Aq": ("<", ">"), "Bq": ("[", "]"), "Brq": ("{", "}"), "Dq": ("“", "”"),
    "Sq": ("‘", "’"), "Pq": ("(", ")"), "Qq": ('"', '"'), "Ql": ("‘", "’"),
}  # fmt: skip
OPENERS = {
    "Ao": "<",
    "Bo": "[",
    "Bro": "{",
    "Do": "“",
    "Oo": "[",
    "Po": "(",
    "Qo": '"',
    "So": "‘",
    "Xo": "",
}
CLOSERS = {
    "Ac": ">",
    "Bc": "]",
    "Brc": "}",
    "Dc": "”",
    "Oc": "]",
    "Pc": ")",
    "Qc": '"',
    "Sc": "’",
    "Xc": "",
}

_SPECIAL = """
    Ns Ap Pf Xr Fn Fo Fc Lk Mt In St Lb Eo Ec En Es Ta Sm Tg Nd Bt Ud
""".split()
CALLABLE = frozenset((*FONTS, *ENCLOSED, *OPENERS, *CLOSERS, *SYSTEMS, *_SPECIAL)) - {
    "Fd",
    "Fr",
    "Nd",
}


class MacroLine:
    """Text being put together from words."""

    def __init__(self, spacing: bool = True) -> None:
        self.text = ""
        self.touch = True  # the next word touches what is there
        self.touch_first = False  # the first word touches the line before
        self.spacing = spacing

    def add(self, text: str, touch: bool = False) -> None:
        """Add a word; with `touch`, without a blank before it."""
        if not self.text and touch:
            self.touch_first = True
        if self.text and not (touch or self.touch) and self.spacing:
            self.text += " "
        self.text += text
        self.touch = False

    def word(self, text: str, font: str = ROMAN) -> None:
        """Add a word in `font`; punctuation stays upright and touches its neighbour."""
        if text in CLOSING:
            self.add(text, touch=True)
        elif text in OPENING:
            self.add(text)
            self.touch = True
        elif text == "|" or font == ROMAN:
            self.add(text)
        else:
            self.add(f"{font}{text}{ROMAN}")

    def hold(self) -> None:
        """The next word touches."""
        if not self.text:
            self.touch_first = True
        self.touch = True


def words(rest: str) -> list[str]:
    """The words of a macro line; quoted ones are marked so that they call nothing."""
    if '"' not in rest:
        return rest.split()
    found, marked = _split_quoted(rest), []
    quoted = rest.replace('""', "")
    for word in found:
        is_quoted = f'"{word}"' in quoted and (
            word in CALLABLE or word in CLOSING or word in OPENING
        )
        marked.append(ZERO + word if is_quoted else word)
    return marked


class Inline:
    """Evaluates the words of one line."""

    def __init__(self, machine: Machine, items: list[str], line: MacroLine) -> None:
        self.machine = machine
        self.items = items
        self.at = 0
        self.line = line
        self.depth = 0

    def run(self) -> None:
        """Evaluate all words."""
        while self.at < len(self.items):
            word = self.items[self.at]
            self.at += 1
            if word in CALLABLE:
                self.call(word)
            else:
                self.line.word(word)

    def call(self, name: str) -> None:
        """Evaluate the macro `name`, whose words begin at `self.at`."""
        line = self.line
        if name in FONTS:
            self._font(name)
        elif name in ENCLOSED:
            self._enclosed(*ENCLOSED[name])
        elif name in OPENERS:
            if OPENERS[name]:
                line.add(OPENERS[name])
                line.touch = True
        elif name in CLOSERS:
            if CLOSERS[name]:
                line.add(CLOSERS[name], touch=True)
        elif name in SYSTEMS:
            self._system(name)
        else:
            handler = _HANDLERS.get(name)
            if handler:
                handler(self)

    def own(self) -> list[str]:
        """The words up to the next macro: the arguments of the macro being called."""
        start = self.at
        while self.at < len(self.items) and self.items[self.at] not in CALLABLE:
            self.at += 1
        return self.items[start : self.at]

    def _font(self, name: str) -> None:
        """A macro that sets its words in a font of its own."""
        own = self.own()
        if own and own[0] in ("-split", "-nosplit", "-words", "-nowords"):
            own = own[1:]
            if not own:
                return
        content = [
            word for word in own if word not in CLOSING and word not in OPENING and word != "|"
        ]
        if not content:
            self._font_default(name, own)
            return
        font = FONTS[name]
        state = self.machine.mdoc
        if name == "Nm" and state is not None and not getattr(state, "name", ""):
            state.name = plain(content[0]).replace(ZERO, "")
        if name in _FONT_AS_ONE and own == content:
            self.line.word(" ".join(own), font)
            return
        for word in own:
            if name == "Fl" and word in content:
                word = "-" + word
            self.line.word(word, font)

    def _font_default(self, name: str, own: list[str]) -> None:
        """What such a macro says when it is given no words, between the marks around it."""
        line = self.line
        lead = [word for word in own if word in OPENING]
        for word in lead:
            line.word(word)
        default = (
            getattr(self.machine.mdoc, "name", "") if name == "Nm" else _FONT_DEFAULTS.get(name)
        )
        if default:
            line.word(default, FONTS[name])
            if name == "Fl" and self.at < len(self.items) and not own:
                line.touch = True
        for word in own[len(lead) :]:
            line.word(word)

    def _enclosed(self, before: str, after: str) -> None:
        end = len(self.items)
        while end > self.at and self.items[end - 1] in CLOSING:
            end -= 1
        tail, self.items = self.items[end:], self.items[:end]
        self.line.add(before)
        self.line.touch = True
        self.depth += 1
        if self.depth < 30:
            self.run()
        self.depth -= 1
        self.line.add(after, touch=True)
        for word in tail:
            self.line.word(word)

    def _system(self, name: str) -> None:
        own = self.own()
        text = SYSTEMS[name]
        version = own.pop(0) if own and own[0] not in CLOSING and name != "Ux" else ""
        if name == "At":
            text = ATT.get(version, "") + " " + text if version in ATT else f"{text} {version}"
        elif name == "Bx":
            text = f"{version}{text}"
            if own and own[0] not in CLOSING:
                text += "-" + own.pop(0)
        elif version:
            text = f"{text} {version}"
        self.line.word(text.strip())
        for word in own:
            self.line.word(word)


def _no_space(self: Inline) -> None:
    self.line.hold()


def _apostrophe(self: Inline) -> None:
    self.line.add("'", touch=True)
    self.line.touch = True


def _prefix(self: Inline) -> None:
    if self.at < len(self.items):
        self.line.word(self.items[self.at])
        self.at += 1
        self.line.touch = True


def _reference(self: Inline) -> None:
    own = self.own()
    if not own:
        return
    name, rest = own[0], own[1:]
    section = rest.pop(0) if rest and rest[0] not in CLOSING else ""
    shown = f"{BOLD}{name}{ROMAN}({section})" if section else f"{BOLD}{name}{ROMAN}"
    self.line.add(link(plain(f"{name}({section})" if section else name), shown))
    for word in rest:
        self.line.word(word)


def _function(self: Inline) -> None:
    own = self.own()
    tail: list[str] = []
    while own and own[-1] in CLOSING:
        tail.insert(0, own.pop())
    if not own:
        return
    arguments = ", ".join(f"{ITALIC}{word.replace(' ', chr(0xA0))}{ROMAN}" for word in own[1:])
    self.line.add(f"{BOLD}{own[0]}{ROMAN}({arguments})")
    for word in tail:
        self.line.word(word)


def _function_open(self: Inline) -> None:
    own = self.own()
    self.machine.strings["mdoc:function"] = own[0] if own else ""
    self.line.add(f"{BOLD}{own[0] if own else ''}{ROMAN}(")
    self.line.touch = True


def _function_close(self: Inline) -> None:
    self.line.add(")", touch=True)
    for word in self.own():
        self.line.word(word)


def _web(self: Inline) -> None:
    own = self.own()
    tail: list[str] = []
    while own and own[-1] in CLOSING:
        tail.insert(0, own.pop())
    if own:
        target = plain(own[0])
        text = " ".join(own[1:])
        shown = link(target, target)
        self.line.add(f"{text} <{shown}>" if text else shown)
    for word in tail:
        self.line.word(word)


def _mail(self: Inline) -> None:
    for word in self.own():
        if word in CLOSING:
            self.line.word(word)
        else:
            self.line.add(link("mailto:" + plain(word), word))


def _include(self: Inline) -> None:
    for word in self.own():
        if word in CLOSING:
            self.line.word(word)
        else:
            self.line.add(f"{BOLD}#include <{word}>{ROMAN}")


def _named(names: dict[str, str]) -> Callable[[Inline], None]:
    def run(self: Inline) -> None:
        for word in self.own():
            self.line.word(names.get(word, word.lstrip("-") if names is STANDARDS else word))

    return run


def _custom_open(self: Inline) -> None:
    own = self.own()
    if own:
        self.line.add(own[0])
        self.line.touch = True
        for word in own[1:]:
            self.line.word(word)
    else:
        self.line.touch = True


def _custom_close(self: Inline) -> None:
    own = self.own()
    for word in own[:1]:
        self.line.add(word, touch=True)
    for word in own[1:]:
        self.line.word(word)


def _set_enclosure(self: Inline) -> None:
    own = self.own()
    state = self.machine.mdoc
    state.enclosure = (own + ["", ""])[:2]


def _in_enclosure(self: Inline) -> None:
    before, after = getattr(self.machine.mdoc, "enclosure", ("", ""))
    self._enclosed(before, after)


def _cell(self: Inline) -> None:
    self.line.add(CELL, touch=True)
    self.line.touch = True


def _spacing(self: Inline) -> None:
    own = self.own()
    state = self.machine.mdoc
    on = own[0] == "on" if own else not state.spacing
    state.spacing = self.line.spacing = on
    state.unspaced = False
    for word in own[1:]:
        self.line.word(word)


def _ignored(self: Inline) -> None:
    self.own()


def _says(text: str) -> Callable[[Inline], None]:
    return lambda self: self.line.add(text)


_HANDLERS: dict[str, Callable[[Inline], None]] = {
    "Ns": _no_space, "Ap": _apostrophe, "Pf": _prefix, "Xr": _reference, "Fn": _function,
    "Fo": _function_open, "Fc": _function_close, "Lk": _web, "Mt": _mail, "In": _include,
    "St": _named(STANDARDS), "Lb": _named(LIBRARIES), "Eo": _custom_open, "Ec": _custom_close,
    "Es": _set_enclosure, "En": _in_enclosure, "Ta": _cell, "Sm": _spacing, "Tg": _ignored,
    "Bt": _says("is currently in beta test."), "Ud": _says("currently under development."),
}  # fmt: skip


def emit(machine: Machine, line: MacroLine) -> None:
    """Hand a finished line to the builder."""
    builder = machine.builder
    parts = builder.buffer if builder.waiting is None else builder.tag_parts
    state = machine.mdoc
    if parts and (line.touch_first or (not line.spacing and state.unspaced)):
        parts[-1] += JOIN
    text = line.text
    if not text:
        return
    state.unspaced = not line.spacing
    if line.touch:
        text += JOIN
    builder.text(text)


def evaluate(machine: Machine, items: list[str]) -> MacroLine:
    """The line that `items` make."""
    line = MacroLine(getattr(machine.mdoc, "spacing", True))
    Inline(machine, items, line).run()
    return line
