"""Sums of the shell: `$((n + 1))`, `((i < 3))` (POSIX.1-2017, XCU 2.6.4, with bash's operators)."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Part, Reading

_TOKEN = re.compile(
    r"\s+|\$\{[^}]*\}|\$?\w+(?:\[[^\]]*\])?|\$[#?@*]|\*\*|\+\+|--|<<=?|>>=?|[-+*/%&|^<>=!]=|&&|\|\||.",
    re.DOTALL,
)
_OPERATORS = {
    "+": "plus",
    "-": "minus",
    "*": "times",
    "/": "divided by",
    "%": "modulo",
    "**": "to the power of",
    "==": "is",
    "!=": "is not",
    "<": "is less than",
    "<=": "is at most",
    ">": "is more than",
    ">=": "is at least",
    "&&": "and",
    "||": "or",
    "&": "and, bit by bit,",
    "|": "or, bit by bit,",
    "^": "or (not both), bit by bit,",
    "<<": "shifted left by",
    ">>": "shifted right by",
    "=": "becomes",
    ",": ", then",
}
_CHANGES = {
    "+=": "grows by",
    "-=": "gets less by",
    "*=": "is multiplied by",
    "/=": "is divided by",
    "%=": "becomes the rest of a division by",
    "++": "grows by 1",
    "--": "gets less by 1",
}


def read(value: str, dialect: str = "") -> Reading:
    """The sum in words."""
    inner = re.fullmatch(r"\$?\(\((.*)\)\)", value, re.DOTALL)
    if inner and inner[1].count(";") == 2:
        return _loop(value, inner[1].split(";"))
    says = sum_words(inner[1] if inner else value)
    return Reading([Part(value, says)], says) if says else NOTHING


def _loop(value: str, sums: list[str]) -> Reading:
    """`((first; test; step))`, the head of a loop."""
    begin, test, step = (sum_words(one) for one in sums)
    said = [begin and f"first {begin}", test and f"as long as {test}", step and f"{step} each time"]
    cutter = Cutter(value)
    cutter.cut(value.index("((") + 2)
    for text, says in zip(sums, said, strict=True):
        cutter.cut(cutter.at + len(text), says)
        cutter.cut(cutter.at + 1)
    return cutter.finish(", ".join(one for one in said if one))


def sum_words(text: str) -> str:
    """An expression in words, "" if it holds what is not known."""
    chosen = re.fullmatch(r"([^?:]+)\?([^?:]+):([^?:]+)", text)
    if chosen:
        test, then, other = (sum_words(one) for one in chosen.groups())
        return f"{then} if {test}, else {other}" if test and then and other else ""
    tokens = [one for one in _TOKEN.findall(text) if one.strip()]
    said: list[str] = []
    before = ""
    for n, token in enumerate(tokens):
        word = _token_words(token, before)
        if token in ("++", "--") and n < len(tokens) - 1:
            word = None if not n else f"(then 1 {'more' if token == '++' else 'less'})"
        if word is None:
            return ""
        said.append(word)
        before = token
    text = " ".join(said).replace("( ", "(").replace(" )", ")").replace(" ,", ",")
    return re.sub(r"- (?=\w)", "-", text)


def _token_words(token: str, before: str) -> str | None:
    """A token in words; None if it is no such."""
    if token in "()":
        return token
    if token in ("-", "+") and (not before or before in _OPERATORS or before == "("):
        return token  # a sign
    if token == "!":
        return "not"
    if token == "~":
        return "the bits turned round of"
    if token in _CHANGES:
        return _CHANGES[token]
    if token in _OPERATORS:
        return _OPERATORS[token]
    if re.fullmatch(r"\$?\w+(?:\[[^\]]*\])?|\$\{.*\}|\$[#?@*]", token):
        return token.lstrip("$") if re.fullmatch(r"\$[A-Za-z_]\w*", token) else token
    return None
