"""Simple equations (`.EQ` … `.EN` and inline ones) as a line of text.

A typewriter has one line for an equation: fractions become `a / b`, powers `a^b`, indices `a_b`.
"""

from __future__ import annotations

import re

from dowsing.model.markup import ITALIC, ROMAN

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.readers.roff.interpreter import Interpreter

_TOKEN = re.compile(r'"[^"]*"|[{}~^]|<=|>=|==|!=|->|<-|<<|>>|\+-|\.\.\.|[^\s{}~^"]+')
_WORDS = {
    "alpha": "α",
    "beta": "β",
    "gamma": "γ",
    "delta": "δ",
    "epsilon": "ε",
    "zeta": "ζ",
    "eta": "η",
    "theta": "θ",
    "iota": "ι",
    "kappa": "κ",
    "lambda": "λ",
    "mu": "μ",
    "nu": "ν",
    "xi": "ξ",
    "omicron": "ο",
    "pi": "π",
    "rho": "ρ",
    "sigma": "σ",
    "tau": "τ",
    "upsilon": "υ",
    "phi": "φ",
    "chi": "χ",
    "psi": "ψ",
    "omega": "ω",
    "GAMMA": "Γ",
    "DELTA": "Δ",
    "THETA": "Θ",
    "LAMBDA": "Λ",
    "XI": "Ξ",
    "PI": "Π",
    "SIGMA": "Σ",
    "PHI": "Φ",
    "PSI": "Ψ",
    "OMEGA": "Ω",
    "inf": "∞",
    "infinity": "∞",
    "times": "×",
    "cdot": "·",
    "prime": "′",
    "partial": "∂",
    "half": "½",
    "sum": "∑",
    "int": "∫",
    "prod": "∏",
    "union": "∪",
    "inter": "∩",
    "nothing": "",
    "approx": "≈",
    "del": "∇",
    "grad": "∇",
    "dot": "",
    "bar": "",
    "hat": "",
    "tilde": "",
    "vec": "",
    "dyad": "",
    "under": "",
    "<=": "≤",
    ">=": "≥",
    "!=": "≠",
    "==": "≡",
    "+-": "±",
    "->": "→",
    "<-": "←",
    "...": "…",
    "cdots": "⋯",
    "ldots": "…",
}
_SKIP = frozenset(
    """
        roman italic bold fat left right ceiling floor mark lineup back fwd up down size font
    """.split()
)
_SKIP_WITH_ARGUMENT = frozenset(
    ["size", "font", "gsize", "gfont", "fwd", "back", "up", "down", "delim"]
)
_FUNCTIONS = frozenset(
    """
        sin cos tan log ln exp max min lim and for if det sinh cosh tanh Re Im arc
    """.split()
)
_MOST_TOKENS = 5000


def read_equation(machine: Interpreter, lines: list[str]) -> None:
    """Run the lines of an equation block: definitions and settings, or an equation to show."""
    shown = []
    for line in lines:
        if line[:1] == "." and line[1:3].isalpha():
            machine.control_line(line)
            continue
        words = line.split()
        if words[:1] == ["delim"]:
            machine.inline_equations = _marks(words)
        elif words[:1] in (["define"], ["ndefine"], ["tdefine"]) and len(words) > 2:
            if words[0] != "tdefine":
                body = line.split(None, 2)[2].strip()
                machine.equation_macros[words[1]] = body[1:-1] if len(body) > 1 else ""
        elif words:
            shown.append(line)
    if shown:
        machine.builder.line_break()
        machine.builder.text(in_text(machine, " ".join(shown)))
        machine.builder.line_break()


_MOST_JOINED = 8  # lines of an equation within the text


def join_lines(lines: list[str]) -> list[str]:
    """The lines of a page with those in one that an equation within the text goes on over."""
    marks: tuple[str, str] | None = None
    done: list[str] = []
    at = 0
    while at < len(lines):
        line = lines[at]
        at += 1
        words = line.split()
        if words[:1] == ["delim"] and len(words) == 2:
            marks = _marks(words)
        elif marks and line[:1] not in (".", "'") and _is_open(line, marks):
            more = _rest_of_equation(line, lines[at : at + _MOST_JOINED], marks)
            line = " ".join([line, *more])
            at += len(more)
        done.append(line)
    return done


def _marks(words: list[str]) -> tuple[str, str] | None:
    """What the words of `delim` set before and behind equations in the text; None for nothing."""
    mark = words[1] if len(words) > 1 else "off"
    return (mark[0], mark[1]) if len(mark) == 2 else None


def _is_open(text: str, marks: tuple[str, str]) -> bool:
    """Whether an equation begins in the text that does not end there."""
    first, last = marks
    return text.count(first) % 2 == 1 if first == last else text.rfind(first) > text.rfind(last)


def _rest_of_equation(line: str, after: list[str], marks: tuple[str, str]) -> list[str]:
    """The lines behind this one up to where its equation ends; none if it does not end."""
    for count, more in enumerate(after, 1):
        if more[:1] in (".", "'"):
            break
        line += more
        if not _is_open(line, marks):
            return after[:count]
    return []


def replace_inline(machine: Interpreter, line: str) -> str:
    """`line` with the equations between the page's delimiters replaced."""
    first, last = machine.inline_equations or ("", "")
    done, at = "", 0
    while True:
        start = line.find(first, at)
        end = line.find(last, start + 1) if start >= 0 else -1
        if start < 0 or end < 0:
            return done + line[at:]
        done += line[at:start] + in_text(machine, line[start + 1 : end])
        at = end + 1


def in_text(machine: Interpreter, equation: str) -> str:
    """An equation as marked text on one line."""
    tokens = _TOKEN.findall(machine.expand(equation))[:_MOST_TOKENS]
    text = _Line(tokens, machine.equation_macros).sequence(0)
    return re.sub(r"\s+([,;.)])", r"\1", re.sub(r"\s{2,}", " ", text)).strip()


class _Line:
    def __init__(self, tokens: list[str], macros: dict[str, str]) -> None:
        self.tokens = list(reversed(tokens))
        self.macros = macros
        self.expansions = 0

    def sequence(self, depth: int) -> str:
        parts: list[str] = []
        while self.tokens and self.tokens[-1] != "}":
            parts.append(self.item(depth))
        return " ".join(part for part in parts if part)

    def item(self, depth: int) -> str:
        text = self.atom(depth)
        while self.tokens and self.tokens[-1] in ("sup", "sub", "over", "to", "from"):
            operator = self.tokens.pop()
            other = self.atom(depth)
            if operator == "over":
                text = f"{_grouped(text)} / {_grouped(other)}"
            else:
                text += {"sup": "^", "sub": "_", "from": "_", "to": "^"}[operator] + _grouped(other)
        return text

    def atom(self, depth: int) -> str:
        """The next token, or what stands in the braces that it opens."""
        if not self.tokens:
            return ""
        token = self.tokens.pop()
        if token == "{":
            inside = self.sequence(depth + 1) if depth < 50 else ""
            if self.tokens and self.tokens[-1] == "}":
                self.tokens.pop()
            return inside
        if token == "sqrt":
            return "√" + _grouped(self.atom(depth + 1))
        if token in self.macros and self.expansions < 500:
            self.expansions += 1
            self.tokens.extend(reversed(_TOKEN.findall(self.macros[token])))
            return self.atom(depth + 1) if depth < 50 else ""
        if token in _SKIP:
            if token in _SKIP_WITH_ARGUMENT and self.tokens:
                self.tokens.pop()
            return self.atom(depth + 1) if depth < 50 else ""
        return _symbol(token)


def _grouped(text: str) -> str:
    return f"({text})" if " " in text.strip() and not text.startswith("(") else text


def _symbol(token: str) -> str:
    """A single token as it is read."""
    if token == "}":
        return ""
    if token in ("~", "^"):
        return " "
    if token.startswith('"'):
        return token.strip('"')
    if token in _WORDS:
        return _WORDS[token]
    if token.isalpha() and token not in _FUNCTIONS:
        return f"{ITALIC}{token}{ROMAN}"
    return token
