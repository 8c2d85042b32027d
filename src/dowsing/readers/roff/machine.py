"""The interpreter: runs the roff requests of a page and hands text to the builder.

It knows the language (strings, registers, macros, conditions, loops), not the macro packages:
man.py and mdoc.py bring tables of macros, requests.py the requests. Nothing in a page can reach
outside: there is no request that reads or runs anything but `.so`, which is answered by a function
given by the caller. Macro calls, loops and expansions are bounded; what exceeds the bounds is cut
off.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator

from dowsing.readers.roff import escapes
from dowsing.readers.roff.bounds import MOST_LINES, MOST_STEPS, MOST_WRITTEN, OutOfBounds
from dowsing.readers.roff.builder import Builder
from dowsing.readers.roff.marks import ZERO
from dowsing.readers.roff.prepare import prepare

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any

Handler = Callable[["Machine", str], None]
Include = Callable[[str], str | None]

MOST_DEPTH = 60


class LeaveMacro(Exception):
    """Ends the macro being run (`.return`)."""


class LeaveLoop(Exception):
    """Ends the loop being run (`.break`)."""


class Macro:
    """A macro that a page defines: the lines of its body, and how many characters these have."""

    __slots__ = ("lines", "size")

    def __init__(self, lines: list[str]) -> None:
        self.lines = lines
        self.size = sum(map(len, lines)) + len(lines)


class Machine:
    """One run over one page.

    `plain_handlers` get the rest of their line with escapes expanded, `raw_handlers` as it stands.
    `include` returns the text of a file named by `.so`, or None.
    """

    def __init__(
        self,
        plain_handlers: dict[str, Handler],
        raw_handlers: dict[str, Handler],
        include: Include | None = None,
    ) -> None:
        self.builder = Builder()
        self.plain = plain_handlers
        self.raw = raw_handlers
        self.include = include
        self.macros: dict[str, Macro | None] = {}  # None: removed by the page
        self.renamed: dict[str, str] = {}  # alias or new name -> name of a built-in
        self.strings: dict[str, str] = dict(escapes.STRINGS)
        self.registers: dict[str, int] = dict(escapes.REGISTERS)
        self.steps_of: dict[str, int] = {}
        self.formats: dict[str, str] = {}
        self.lines: Iterator[str] = iter(())
        self.arguments: list[str] = []
        self.branches: list[bool] = []
        self.depth = 0
        self.steps = 0
        self.written = 0
        self.exceeded = ""  # why the page was not read to its end
        self.escape = "\\"
        self.control = "."
        self.no_break = "'"
        self.title: list[str] = []  # of .TH or .Dt
        self.date = ""
        self.inline_equations: tuple[str, str] | None = None
        self.equation_macros: dict[str, str] = {}
        self.mdoc: Any = None  # state of the mdoc macros, kept by mdoc.py

    def step(self) -> None:
        """Count one step of macro work."""
        self.steps += 1
        if self.steps > MOST_STEPS:
            raise OutOfBounds("its macros and loops do not come to an end")

    def spend(self, characters: int) -> None:
        """Count text that does not stand in the page but is made by it."""
        self.written += characters
        if self.written > MOST_WRITTEN:
            raise OutOfBounds(
                f"its macros and loops make more than {MOST_WRITTEN // 1_000_000} million "
                "characters"
            )

    def run_source(self, source: str) -> None:
        """Run a whole source text (cleaned of control characters)."""
        if source.count("\n") > MOST_LINES:
            raise OutOfBounds(f"it has more than {MOST_LINES:,} lines")
        lines = prepare(source).split("\n")
        if "\n.EQ" in source:
            from dowsing.readers.roff.equations import join_lines

            lines = join_lines(lines)
        self.run(lines)

    def run(self, lines: Iterable[str]) -> None:
        """Run `lines`; requests may take further lines from them through `self.lines`."""
        outer, iterator = self.lines, iter(lines)
        self.lines = iterator
        builder, buffer = self.builder, self.builder.buffer
        control, no_break = self.control, self.no_break
        plain, macros, renamed = self.plain, self.macros, self.renamed
        try:
            for line in iterator:
                if not line:
                    if buffer or builder.waiting is not None:
                        builder.blank()
                elif line[0] == control or line[0] == no_break:
                    name, _, rest = line.partition(" ")
                    name = name[1:]
                    handler = plain.get(name)
                    # the common case: a request as it came with the macro package, without escapes
                    if (
                        handler is not None
                        and name not in macros
                        and name not in renamed
                        and "\\" not in rest
                    ):
                        handler(self, rest.lstrip())
                    else:
                        self.control_line(line)
                    control, no_break = self.control, self.no_break
                else:
                    if "\\" in line or self.escape != "\\" or self.inline_equations:
                        line = self.expand_text(line)
                    if builder.waiting is None and not builder.tag_font and not builder.centered:
                        buffer.append(line)
                    else:
                        builder.text(line)
        finally:
            self.lines = outer

    def run_line(self, line: str) -> None:
        """Run one line that stands inside another (the body of a condition)."""
        if not line:
            return
        if line[0] == self.control or line[0] == self.no_break:
            self.control_line(line)
        else:
            line = self.expand_text(line)
            if line:
                self.builder.text(line)

    def expand_text(self, line: str) -> str:
        """A line of text with its escapes and inline equations replaced."""
        if self.inline_equations and self.inline_equations[0] in line:
            from dowsing.readers.roff.equations import replace_inline

            line = replace_inline(self, line)
        return escapes.expand(self, line)

    def control_line(self, line: str) -> None:
        """Run a line that begins with the control character."""
        name, rest = _split_request(line)
        if not name:
            return
        if "\\" in name:
            if name.startswith("\\}"):
                self.run_line(rest)
                return
            if name.startswith("\\{"):
                self.run_line((name[2:] + " " + rest).strip())
                return
            expanded = escapes.expand(self, name + (" " + rest if rest else ""))
            name, _, rest = expanded.replace("\x05", "").strip().partition(" ")
        name = name.rstrip(ZERO)
        mark = next((n for n, char in enumerate(name) if char < " "), -1)
        if mark > 0:  # `.nf\f(CWtext`: the name ends at the font change, and what follows is text
            self.call(name[:mark], "")
            self.run_line(line[line.find(name) + mark :])
            return
        self.call(name, rest, line)

    def call(self, name: str, rest: str, line: str = "") -> None:
        """Run the macro or request `name`. `line` is the whole input line, for what turns out to be
        text.
        """
        macro = self.macros.get(name, self)
        if macro is None:
            return
        if macro is not self:
            assert isinstance(macro, Macro)
            self.run_macro(name, macro, self.split(self.expand(rest)))
            return
        name = self.renamed.get(name, name)
        handler = self.plain.get(name)
        if handler is not None:
            handler(
                self, escapes.expand(self, rest) if "\\" in rest or self.escape != "\\" else rest
            )
            return
        handler = self.raw.get(name)
        if handler is not None:
            handler(self, rest)
        elif line:
            self.unknown(name, line)

    def unknown(self, name: str, line: str) -> None:
        """A request that nothing defines: text that happens to begin with a dot, or a foreign
        macro.
        """
        is_text = line[0] == self.no_break and line[1:2] not in (" ", "") and not name.isupper()
        is_text = is_text or (len(name) > 3 and not name.isupper()) or not name[:1].isalnum()
        is_text = (
            is_text or (" " in line and name.islower()) or (len(name) > 4 and line.count(" ") > 3)
        )
        if is_text and not name.startswith(("\\", ".")) and name.strip("."):
            self.builder.text(self.expand_text(line))

    def run_macro(self, name: str, macro: Macro, arguments: list[str]) -> None:
        """Run a macro that the page defined."""
        self.step()
        if self.depth >= MOST_DEPTH:
            return
        self.spend(macro.size)
        outer = self.arguments
        self.arguments = [name, *arguments]
        self.depth += 1
        try:
            self.run(macro.lines)
        except LeaveMacro:
            pass
        finally:
            self.depth -= 1
            self.arguments = outer

    def expand(self, text: str) -> str:
        """`text` with its escapes replaced."""
        return escapes.expand(self, text) if "\\" in text or self.escape != "\\" else text

    @staticmethod
    def split(text: str) -> list[str]:
        """The arguments of a macro line: separated by blanks, quoted with `"`, `""` inside is a
        quote.
        """
        if '"' not in text:
            return [part for part in text.replace("\t", " ").split(" ") if part]
        return _split_quoted(text)


def _split_quoted(text: str) -> list[str]:
    found: list[str] = []
    at, end = 0, len(text)
    while at < end:
        if text[at] in " \t":
            at += 1
            continue
        if text[at] != '"':
            stop = at
            while stop < end and text[stop] not in " \t":
                stop += 1
            found.append(text[at:stop])
            at = stop
            continue
        part, at = "", at + 1
        while at < end:
            stop = text.find('"', at)
            if stop < 0:
                part, at = part + text[at:], end
            elif text[stop + 1 : stop + 2] == '"':
                part, at = part + text[at : stop + 1], stop + 2
            else:
                part, at = part + text[at:stop], stop + 1
                break
        found.append(part)
    return found


def _split_request(line: str) -> tuple[str, str]:
    """The name and the rest of a control line."""
    stop = 1
    while line[stop : stop + 1] in (" ", "\t") and stop < len(line):
        stop += 1
    parts = (
        line[stop:].split(None, 1)
        if line.isascii()
        else line[stop:].replace("\t", " ").split(" ", 1)
    )
    if not parts:
        return "", ""
    name = parts[0]
    if "\\" in name:  # `.if\n(xx` and the like: the name ends where an escape begins
        cut = name.find("\\")
        if cut > 0:
            return name[:cut], line[line.find(name) + cut :]
    return name, parts[1].lstrip() if len(parts) > 1 else ""
