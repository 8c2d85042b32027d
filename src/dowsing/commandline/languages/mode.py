"""Permissions as chmod takes them: octal digits, or clauses such as `u+rw,go-w` (POSIX.1-2017,
chmod); in find's test with `-` or `/` before them.
"""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import Cutter, Reading, listed

_WHO = {"u": "the owner", "g": "the group", "o": "others", "a": "everyone"}
_DIGITS = ("the owner", "the group", "others")
_SPECIAL = (
    (4, "runs as its owner (set-user-ID)"),
    (2, "runs as its group (set-group-ID)"),
    (1, "sticky"),
)
_PERMISSIONS = {
    "r": "read",
    "w": "write",
    "x": "execute",
    "X": "execute where it is a folder or someone may already",
    "u": "what the owner may",
    "g": "what the group may",
    "o": "what others may",
}
_MARKS = {"s": "run as its owner or group", "t": "be sticky"}
_CLAUSE = re.compile(r"([ugoa]*)((?:[-+=][rwxXstugo]*)+)\Z")
_VERB = {"+": "may also", "-": "may no longer", "=": "may just"}
#: What find's `-perm` asks of the bits, by the sign before them.
_TESTS = {"-": "all of these bits set", "/": "any of these bits set", "": "just these permissions"}


def read(value: str, dialect: str = "") -> Reading:
    """What each digit or clause grants."""
    test = re.match(r"[-/]", value) if dialect == "test" else None
    sign = test[0] if test else ""
    cutter = Cutter(value)
    if dialect == "test":
        cutter.cut(len(sign), f"with {_TESTS[sign]}")
    octal = re.fullmatch(r"[-+=]?0*([0-7]{1,4})", value[len(sign) :])
    if octal:
        _octal(cutter, octal[1].zfill(3), sign != "")
    elif not _clauses(cutter, value[len(sign) :]):
        return Reading()
    if dialect == "test":
        return cutter.finish(f"with {_TESTS[sign]}: {value[len(sign) :]}")
    return cutter.finish(", ".join(part.says for part in cutter.parts if part.says))


def _octal(cutter: Cutter, digits: str, is_test: bool) -> None:
    """The digits, the last three for the owner, the group and others. `is_test`: they are bits
    that are asked for, and a zero asks for none.
    """
    cutter.cut(max(len(cutter.value) - len(digits), cutter.at))
    if len(digits) == 4:
        special = [says for bit, says in _SPECIAL if int(digits[0]) & bit]
        cutter.cut(cutter.at + 1, listed(special) or "nothing special")
        digits = digits[1:]
    missing = len(digits) - (len(cutter.value) - cutter.at)  # `7` alone is 007
    for digit, who in list(zip(digits, _DIGITS, strict=True))[max(missing, 0) :]:
        nothing_asked = digit == "0" and is_test
        cutter.cut(cutter.at + 1, "" if nothing_asked else f"{who} may {_granted(int(digit))}")


def _clauses(cutter: Cutter, text: str) -> bool:
    """The clauses between commas; whether all are such."""
    for clause in text.split(","):
        match = _CLAUSE.match(clause)
        if not match:
            return False
        cutter.cut(cutter.at + len(clause), _clause(match))
        cutter.cut(cutter.at + 1)
    return True


def _clause(match: re.Match[str]) -> str:
    who = listed([_WHO[letter] for letter in match[1]]) or "everyone, as far as the umask lets,"
    says = []
    for sign, letters in re.findall(r"([-+=])([rwxXstugo]*)", match[2]):
        plain = [_PERMISSIONS[letter] for letter in letters if letter in _PERMISSIONS]
        marks = [_MARKS[letter] for letter in letters if letter in _MARKS]
        if plain or not letters:
            verb = _VERB[sign] if plain else "may"
            says.append(f"{who} {verb} {listed(plain) or 'do nothing'}")
        if marks:
            says.append(f"it {'is no longer to' if sign == '-' else 'is to'} {listed(marks)}")
    return "; ".join(says)


def _granted(bits: int) -> str:
    names = [name for bit, name in ((4, "read"), (2, "write"), (1, "execute")) if bits & bit]
    return listed(names) or "do nothing"
