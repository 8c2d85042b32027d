"""Permissions as chmod takes them: octal digits, or clauses such as `u+rw,go-w` (POSIX.1-2017,
chmod).
"""

from __future__ import annotations

import re

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
    "s": "run as its owner or group",
    "t": "sticky",
    "u": "what the owner may",
    "g": "what the group may",
    "o": "what others may",
}
_CLAUSE = re.compile(r"([ugoa]*)((?:[-+=][rwxXstugo]*)+)\Z")
_VERB = {"+": "may also", "-": "may no longer", "=": "may just"}


def parts(value: str) -> list[tuple[str, str]]:
    """What each digit or clause grants."""
    octal = re.fullmatch(r"[-+=]?0*([0-7]{1,4})", value)
    if octal:
        digits = octal[1].zfill(3)
        found = []
        if len(digits) == 4:
            special = [says for bit, says in _SPECIAL if int(digits[0]) & bit]
            found.append((digits[0], ", ".join(special) or "nothing special"))
            digits = digits[1:]
        return found + [
            (digit, f"{who} may {_granted(int(digit))}")
            for digit, who in zip(digits, _DIGITS, strict=True)
        ]
    found = []
    for clause in value.split(","):
        match = _CLAUSE.match(clause)
        if not match:
            return []
        who = (
            " and ".join(_WHO[letter] for letter in match[1])
            or "everyone, as far as the umask lets"
        )
        says = []
        for sign, letters in re.findall(r"([-+=])([rwxXstugo]*)", match[2]):
            what = ", ".join(_PERMISSIONS[letter] for letter in letters) or "nothing"
            says.append(f"{_VERB[sign]} {what}")
        found.append((clause, f"{who} {'; '.join(says)}"))
    return found


def _granted(bits: int) -> str:
    names = [name for bit, name in ((4, "read"), (2, "write"), (1, "execute")) if bits & bit]
    return (
        " and ".join([", ".join(names[:-1]), names[-1]] if len(names) > 1 else names)
        or "do nothing"
    )
