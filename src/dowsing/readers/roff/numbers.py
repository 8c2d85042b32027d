"""Numeric expressions as roff has them: left to right, no precedence, scaled by a unit.

Basic units: 240 to the inch; a character is 24 wide, a line 40 high.
"""

from __future__ import annotations

import re
from functools import lru_cache

UNITS = {
    "u": 1.0, "i": 240.0, "c": 94.5, "p": 240 / 72, "P": 40.0, "m": 24.0, "n": 24.0, "v": 40.0,
    "M": 0.24, "s": 1.0, "z": 1.0, "f": 65536.0,
}  # fmt: skip

_NUMBER = re.compile(r"\s*(\d*\.?\d+|\d+\.?)([icpPmnMuvszf]?)")
_OPERATOR = re.compile(r"\s*(<=|>=|==|<\?|>\?|<>|[-+*/%<>=&:])")
_DEEPEST = 20


class _NumberParser:
    def __init__(self, text: str, unit: str) -> None:
        self.text, self.unit, self.at = text, unit, 0

    def expression(self, depth: int = 0) -> float | None:
        left = self.term(depth)
        while left is not None:
            match = _OPERATOR.match(self.text, self.at)
            if not match:
                return left
            start, self.at = self.at, match.end()
            right = self.term(depth)
            if right is None:
                self.at = start
                return left
            left = _apply(match[1], left, right)
        return None

    def term(self, depth: int) -> float | None:
        while self.at < len(self.text) and self.text[self.at].isspace():
            self.at += 1
        char = self.text[self.at : self.at + 1]
        if depth > _DEEPEST:
            return None
        if char in ("-", "+", "!"):
            self.at += 1
            value = self.term(depth + 1)
            if value is None or char == "+":
                return value
            return -value if char == "-" else float(value <= 0)
        if char == "(":
            self.at += 1
            value = self.expression(depth + 1)
            if self.text[self.at : self.at + 1] == ")":
                self.at += 1
            return value
        if char == "|":
            self.at += 1
        match = _NUMBER.match(self.text, self.at)
        if not match:
            return None
        self.at = match.end()
        return float(match[1]) * UNITS[match[2] or self.unit]


def _apply(operator: str, left: float, right: float) -> float:
    if operator in "/%":
        if not right:
            return 0.0
        quotient = int(left / right)
        return float(quotient) if operator == "/" else left - quotient * right
    return {
        "+": lambda: left + right,
        "-": lambda: left - right,
        "*": lambda: left * right,
        "<": lambda: float(left < right),
        ">": lambda: float(left > right),
        "<=": lambda: float(left <= right),
        ">=": lambda: float(left >= right),
        "=": lambda: float(left == right),
        "==": lambda: float(left == right),
        "<>": lambda: float(left != right),
        "<?": lambda: min(left, right),
        ">?": lambda: max(left, right),
        "&": lambda: float(left > 0 and right > 0),
        ":": lambda: float(left > 0 or right > 0),
    }[operator]()


def evaluate(text: str, unit: str = "u") -> tuple[int | None, int]:
    """The value of the expression at the beginning of `text`, in basic units, and where it ends.

    A number without a unit is taken in `unit`. The value is None if there is no number; values are
    held within 32 bits, as the language has them.
    """
    parser = _NumberParser(text, unit)
    value = parser.expression()
    if value is None:
        return None, parser.at
    return int(max(-(2**31), min(2**31 - 1, value))), parser.at


@lru_cache(maxsize=512)
def columns(text: str, default: float = 0.0) -> float:
    """A width as a number of character columns: `4`, `4n` and `4m` are 4, `1i` is 10."""
    value, _ = evaluate(text, "n")
    return default if value is None else value / UNITS["n"]


def formatted(value: int, style: str) -> str:
    """`value` in a number format: `1`, `001`, `i`, `I`, `a` or `A`."""
    if style in ("i", "I") and 0 < value < 40000:
        numerals = ""
        for amount, sign in zip(
            (1000, 900, 500, 400, 100, 90, 50, 40, 10, 9, 5, 4, 1),
            ("m", "cm", "d", "cd", "c", "xc", "l", "xl", "x", "ix", "v", "iv", "i"),
            strict=True,
        ):
            numerals += sign * (value // amount)
            value %= amount
        return numerals if style == "i" else numerals.upper()
    if style in ("a", "A") and value > 0:
        letters = ""
        while value > 0:
            value, rest = divmod(value - 1, 26)
            letters = chr(ord(style) + rest) + letters
        return letters
    return str(value).zfill(len(style)) if style.isdigit() else str(value)
