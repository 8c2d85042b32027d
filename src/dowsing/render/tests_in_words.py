"""Tests of the shell, `[ -f x ]` and `[[ $a == b* ]]`, as conditions: `x is a file`."""

from __future__ import annotations

_UNARY = {
    "-e": ("{0} is there", "{0} is not there"),
    "-a": ("{0} is there", "{0} is not there"),
    "-f": ("{0} is a file", "{0} is not a file"),
    "-d": ("{0} is a folder", "{0} is not a folder"),
    "-r": ("{0} can be read", "{0} cannot be read"),
    "-w": ("{0} can be written", "{0} cannot be written"),
    "-x": ("{0} can be run", "{0} cannot be run"),
    "-s": ("{0} is a file that is not empty", "{0} is empty or not there"),
    "-L": ("{0} is a link", "{0} is not a link"),
    "-h": ("{0} is a link", "{0} is not a link"),
    "-p": ("{0} is a named pipe", "{0} is not a named pipe"),
    "-S": ("{0} is a socket", "{0} is not a socket"),
    "-b": ("{0} is a block device", "{0} is not a block device"),
    "-c": ("{0} is a character device", "{0} is not a character device"),
    "-O": ("{0} belongs to you", "{0} does not belong to you"),
    "-G": ("{0} belongs to your group", "{0} does not belong to your group"),
    "-u": ("{0} runs as its owner", "it is not so that {0} runs as its owner"),
    "-g": ("{0} runs as its group", "it is not so that {0} runs as its group"),
    "-k": ("{0} is sticky", "{0} is not sticky"),
    "-n": ("{0} is not empty", "{0} is empty"),
    "-z": ("{0} is empty", "{0} is not empty"),
    "-v": ("the variable {0} is set", "the variable {0} is not set"),
    "-t": ("stream {0} is a terminal", "stream {0} is not a terminal"),
    "-o": ("the option {0} of the shell is on", "the option {0} of the shell is not on"),
}
_BINARY = {
    "=": ("{0} is {1}", "{0} is not {1}"),
    "==": ("{0} is {1}", "{0} is not {1}"),
    "!=": ("{0} is not {1}", "{0} is {1}"),
    "=~": ("{0} matches {1}", "{0} does not match {1}"),
    "<": ("{0} sorts before {1}", "{0} does not sort before {1}"),
    ">": ("{0} sorts after {1}", "{0} does not sort after {1}"),
    "-eq": ("{0} is {1}", "{0} is not {1}"),
    "-ne": ("{0} is not {1}", "{0} is {1}"),
    "-lt": ("{0} is less than {1}", "{0} is at least {1}"),
    "-le": ("{0} is at most {1}", "{0} is more than {1}"),
    "-gt": ("{0} is more than {1}", "{0} is at most {1}"),
    "-ge": ("{0} is at least {1}", "{0} is less than {1}"),
    "-nt": ("{0} is newer than {1}", "{0} is not newer than {1}"),
    "-ot": ("{0} is older than {1}", "{0} is not older than {1}"),
    "-ef": ("{0} and {1} are the same file", "{0} and {1} are not the same file"),
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
    return _condition(words)[0]


#: A condition and its contrary, "" and "" of one that is not known.
_Pair = tuple[str, str]
_UNKNOWN: _Pair = ("", "")


def _condition(words: list[str]) -> _Pair:
    words = [word for word in words if word not in ("(", ")", "\\(", "\\)")]
    for joint in ("||", "-o", "&&", "-a"):
        places = [n for n, word in enumerate(words) if word == joint and 0 < n < len(words) - 1]
        if places:
            first, last = words[: places[0]], words[places[0] + 1 :]
            said = test_words(first), test_words(last)
            both = f"{said[0]} {_JOINTS[joint]} {said[1]}"
            return (both, f"it is not so that {both}") if all(said) else _UNKNOWN
    if words[:1] == ["!"]:
        plain, contrary = _condition(words[1:])
        return contrary, plain
    if len(words) == 3 and words[1] in _BINARY:
        return _compared(words[0], words[1], words[2])
    if len(words) == 2 and words[0] in _UNARY:
        return _filled(_UNARY[words[0]], _value(words[1]))
    return _filled(_UNARY["-n"], _value(words[0])) if len(words) == 1 else _UNKNOWN


def _compared(first: str, sign: str, last: str) -> _Pair:
    said = _value(last)
    is_pattern = any(char in last for char in "*?[") and last[:1] not in "\"'"
    if sign in ("=", "==") and is_pattern:
        sign = "=~"
    return _filled(_BINARY[sign], _value(first), "empty" if said == "nothing" else said)


def _filled(pair: _Pair, *values: str) -> _Pair:
    return pair[0].format(*values), pair[1].format(*values)


def _value(text: str) -> str:
    bare = text[1:-1] if len(text) > 1 and text[0] == text[-1] and text[0] in "\"'" else text
    if bare in _SPECIAL:
        return _SPECIAL[bare]
    if bare[:1] == "$" and bare[1:].isdecimal():
        return f"argument {bare[1:]}"
    return bare or "nothing"
