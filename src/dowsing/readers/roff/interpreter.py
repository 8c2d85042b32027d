"""What escapes and equations need of the interpreter that runs a page (machine.py)."""

from __future__ import annotations

from typing import Protocol

from dowsing.readers.roff.builder import Builder


class Interpreter(Protocol):
    """The state of one run over one page.

    `strings`, `registers`, `steps_of` and `formats` are what the page defined, by name; `arguments`
    those of the macro being run; `escape` the escape character; `depth` counts names within names.
    """

    builder: Builder
    strings: dict[str, str]
    registers: dict[str, int]
    steps_of: dict[str, int]
    formats: dict[str, str]
    arguments: list[str]
    depth: int
    escape: str
    inline_equations: tuple[str, str] | None
    equation_macros: dict[str, str]

    def step(self) -> None: ...

    def spend(self, characters: int) -> None: ...

    def expand(self, text: str) -> str: ...

    def control_line(self, line: str) -> None: ...
