"""Tests of the shell, `[ -f x ]` and `[[ $a == b* ]]`, as conditions: `x is a file`."""

from __future__ import annotations

_UNARY = {
    "-e": "{0} is there",
    "-a": "{0} is there",
    "-f": "{0} is a file",
    "-d": "{0} is a folder",
    "-r": "{0} can be read",
    "-w": "{0} can be written",
    "-x": "{0} can be run",
    "-s": "{0} is a file that is not empty",
    "-L": "{0} is a link",
    "-h": "{0} is a link",
    "-p": "{0} is a named pipe",
    "-S": "{0} is a socket",
    "-b": "{0} is a block device",
    "-c": "{0} is a character device",
    "-O": "{0} belongs to you",
    "-G": "{0} belongs to your group",
    "-u": "{0} runs as its owner",
    "-g": "{0} runs as its group",
    "-k": "{0} is sticky",
    "-n": "{0} is not empty",
    "-z": "{0} is empty",
    "-v": "the variable {0} is set",
    "-t": "stream {0} is a terminal",
    "-o": "the option {0} of the shell is on",
}
_NOT = {
    " is there": " is not there",
    " is not empty": " is empty",
    " is empty": " is not empty",
    " is a ": " is not a ",
    " can be ": " cannot be ",
    " belongs to ": " does not belong to ",
    " is set": " is not set",
    " is ": " is not ",
    " matches ": " does not match ",
}
_BINARY = {
    "=": "{0} is {1}",
    "==": "{0} is {1}",
    "!=": "{0} is not {1}",
    "=~": "{0} matches {1}",
    "<": "{0} sorts before {1}",
    ">": "{0} sorts after {1}",
    "-eq": "{0} is {1}",
    "-ne": "{0} is not {1}",
    "-lt": "{0} is less than {1}",
    "-le": "{0} is at most {1}",
    "-gt": "{0} is more than {1}",
    "-ge": "{0} is at least {1}",
    "-nt": "{0} is newer than {1}",
    "-ot": "{0} is older than {1}",
    "-ef": "{0} and {1} are the same file",
}
_JOINTS = {"-a": "and", "&&": "and", "-o": "or", "||": "or"}
_SPECIAL = {
    "$#": "the number of arguments",
    "$?": "the status of the command before",
    "$@": "the arguments",
    "$*": "the arguments",
}


def test_words(words: list[str]) -> str:
    """The condition that the words of a test make; "" if it is none that is known."""
    words = [word for word in words if word not in ("(", ")", "\\(", "\\)")]
    for joint in ("||", "-o", "&&", "-a"):
        places = [n for n, word in enumerate(words) if word == joint and 0 < n < len(words) - 1]
        if places:
            first, last = words[: places[0]], words[places[0] + 1 :]
            said = test_words(first), test_words(last)
            return f"{said[0]} {_JOINTS[joint]} {said[1]}" if all(said) else ""
    if words[:1] == ["!"]:
        return _denied(test_words(words[1:]))
    if len(words) == 3 and words[1] in _BINARY:
        return _compared(words[0], words[1], words[2])
    if len(words) == 2 and words[0] in _UNARY:
        return _UNARY[words[0]].format(_value(words[1]))
    if len(words) == 1:
        return f"{_value(words[0])} is not empty"
    return ""


def _compared(first: str, sign: str, last: str) -> str:
    said = _value(last)
    if sign in ("=", "==") and any(char in last for char in "*?[") and last[:1] not in "\"'":
        return f"{_value(first)} matches {said}"
    if said == "nothing":
        said = "empty"
    return _BINARY[sign].format(_value(first), said)


def _value(text: str) -> str:
    bare = text[1:-1] if len(text) > 1 and text[0] == text[-1] and text[0] in "\"'" else text
    if bare in _SPECIAL:
        return _SPECIAL[bare]
    if bare[:1] == "$" and bare[1:].isdecimal():
        return f"argument {bare[1:]}"
    return bare or "nothing"


def _denied(said: str) -> str:
    if not said or " and " in said or " or " in said:
        return f"it is not so that {said}" if said else ""
    for begin, instead in _NOT.items():
        if begin in said:
            return said.replace(begin, instead, 1)
    return f"it is not so that {said}"
