"""Expansions of the shell's parameters: `$x`, `${x%.*}`, `${#a[@]}` (POSIX.1-2017, XCU 2.6, with
those of bash).
"""

from __future__ import annotations

import re
from enum import Enum

from dowsing.commandline.languages.reading import NOTHING, Part, Reading, counted, ordinal

_SPECIAL = {
    "@": "all arguments, each a word of its own",
    "*": "all arguments in one word",
    "#": "the number of arguments",
    "?": "the exit status of the command before",
    "$": "the process number of the shell",
    "!": "the process number of what was started last in the background",
    "0": "the name of the script or shell",
    "-": "the options that the shell runs with",
    "_": "the last word of the command before",
}
_WELL_KNOWN = {
    "HOME": "your home folder",
    "PWD": "the folder that you are in",
    "OLDPWD": "the folder that you were in before",
    "USER": "your user name",
    "PATH": "the folders that commands are looked for in",
    "SHELL": "your shell",
    "RANDOM": "a random number",
    "SECONDS": "the seconds since the shell began",
    "LINENO": "the number of the line",
    "HOSTNAME": "the name of this machine",
    "UID": "the number of your user",
    "EUID": "the number of the user in force",
    "IFS": "the characters that part words",
    "REPLY": "what was read",
    "PIPESTATUS": "the statuses of the last pipeline",
    "BASH_SOURCE": "the file that is being run",
    "FUNCNAME": "the function that is being run",
}
_NAME = r"[A-Za-z_]\w*|\d+|[@*#?$!_-]"
_BRACED = re.compile(
    rf"\$\{{(?P<sign>[#!]?)(?P<name>{_NAME})(?P<index>\[[^\]]*\])?(?P<rest>.*)\}}", re.DOTALL
)
_INSTEAD = {
    "-": "{0}, or {1} if it is not set{2}",
    "=": "{0}; if it is not set{2}, it is set to {1} first",
    "?": "{0}; if it is not set{2}, this ends with the message {1}",
    "+": "{1}, but only if {0} is set{2}",
}
_CUTS = {
    "##": "without the longest beginning that matches {0}",
    "#": "without the shortest beginning that matches {0}",
    "%%": "without the longest end that matches {0}",
    "%": "without the shortest end that matches {0}",
}
_CASES = {
    "^^": "in capitals",
    ",,": "in small letters",
    "^": "with a capital first",
    ",": "with a small letter first",
    "~~": "with capitals and small letters exchanged",
}
_MADE = {
    "Q": "quoted for the shell",
    "E": "with its escapes carried out",
    "P": "as a prompt",
    "A": "as the assignment that makes it",
    "a": "its attributes",
    "U": "in capitals",
    "u": "with a capital first",
    "L": "in small letters",
    "K": "as quoted pairs",
}
#: Beginnings and ends that are cut off so often that there is a plainer word for them.
_USUAL_CUTS = {
    ("##", "*/"): "its name without the folders",
    ("%", "/*"): "the folder that it is in",
    ("%.", "*"): "without its last ending",
    ("##", "*."): "its last ending",
}


def read(value: str, dialect: str = "") -> Reading:
    """What the shell puts there."""
    says = expansion_words(value)
    return Reading([Part(value, says)], says) if says else NOTHING


def expansion_words(text: str) -> str:
    """What an expansion becomes, "" if it is none."""
    plain = re.fullmatch(rf"\$(?:({_NAME})|\{{({_NAME})\}})", text)
    if plain:
        return name_words(plain[1] or plain[2])
    match = _BRACED.fullmatch(text)
    if not match:
        return ""
    sign, name, index = match["sign"], match["name"], match["index"] or ""
    if sign == "!" and not index and match["rest"] in ("*", "@"):
        return f"the names of all variables that begin with {name}"
    return _operated(_subject(sign, name, index), match["rest"], _unit(name, index), name)


def name_words(name: str) -> str:
    """What a parameter is."""
    if name in _SPECIAL:
        return _SPECIAL[name]
    if name.isdecimal():
        return f"the {ordinal(name)} argument"
    if name in _WELL_KNOWN:
        return _WELL_KNOWN[name]
    return f"the value of {name}"


def is_well_known(name: str) -> bool:
    """Whether a variable of this name means the same everywhere."""
    return name in _WELL_KNOWN


class Unit(Enum):
    """What a part of the value is cut into."""

    CHARACTER = "character"
    ELEMENT = "element"
    ARGUMENT = "argument"


def _unit(name: str, index: str) -> Unit:
    if name in ("@", "*"):
        return Unit.ARGUMENT
    return Unit.ELEMENT if index in ("[@]", "[*]") else Unit.CHARACTER


def _subject(sign: str, name: str, index: str) -> str:
    """What the operator is applied to."""
    every = index in ("[@]", "[*]")
    if sign == "#":
        if every:
            return f"the number of elements of {name}"
        return (
            f"the length of {name_words(name) if not index else f'element {index[1:-1]} of {name}'}"
        )
    if sign == "!":
        if every:
            return f"the keys of {name}"
        return f"the value of the variable that {name} names"
    if every:
        return f"all elements of {name}"
    if index == "[-1]":
        return f"the last element of {name}"
    if index:
        return f"element {index[1:-1]} of {name}"
    return name_words(name)


def _operated(subject: str, rest: str, unit: Unit, name: str) -> str:
    """The subject with what stands behind it in the braces."""
    if not rest:
        return subject
    instead = re.fullmatch(r"(:?)([-=?+])(.*)", rest, re.DOTALL)
    if instead:
        empty = " or empty" if instead[1] else ""
        if instead[2] == "+" and instead[1]:
            empty = " and not empty"
        return _INSTEAD[instead[2]].format(subject, instead[3] or "nothing", empty)
    sliced = _sliced(subject, rest, unit, name)
    if sliced:
        return sliced
    for read in (_cut, _replaced, _cased):
        said = read(subject, rest)
        if said:
            return said
    return ""


def _sliced(subject: str, rest: str, kind: Unit, name: str) -> str:
    match = re.fullmatch(r":\s*\(?(-?[\w$]+)\)?(?::\s*(-?[\w$]+))?", rest)
    if not match:
        return ""
    start, length = match.groups()
    unit = kind.value
    if start.startswith("-"):
        begin = f"the last {counted(start[1:], unit)}"
        return f"{begin} of {subject}" if length is None else f"{length} of {begin} of {subject}"
    base = 0 if kind is Unit.ARGUMENT else 1
    subject = name if kind is Unit.ELEMENT else subject
    place = str(int(start) + base) if start.isdecimal() else f"{start} (counted from 0)"
    if length is None:
        return f"{subject}, from {unit} {place} on"
    if length.startswith("-"):
        return f"{subject}, from {unit} {place} to {counted(length[1:], unit)} before the end"
    return f"{counted(length, unit)} of {subject}, from {unit} {place} on"


def _cut(subject: str, rest: str) -> str:
    for sign, words in _CUTS.items():
        if rest.startswith(sign) and len(rest) > len(sign):
            pattern = rest[len(sign) :]
            if (sign, pattern) in _USUAL_CUTS:
                usual = _USUAL_CUTS[sign, pattern]
                return f"{subject} {words.format(pattern)}: {usual}"
            return f"{subject} {words.format(pattern)}"
    return ""


def _replaced(subject: str, rest: str) -> str:
    match = re.fullmatch(r"/([/#%]?)((?:\\.|[^/\\])+)(?:/(.*))?", rest, re.DOTALL)
    if not match:
        return ""
    which, pattern, new = match.groups()
    what = {
        "/": f"every match of {pattern}",
        "#": f"{pattern} at the beginning",
        "%": f"{pattern} at the end",
    }.get(which, f"the first match of {pattern}")
    return f"{subject} with {what} replaced by {new}" if new else f"{subject} without {what}"


def _cased(subject: str, rest: str) -> str:
    if rest[:1] == "@" and rest[1:] in _MADE:
        return f"{subject}, {_MADE[rest[1:]]}"
    for sign, words in _CASES.items():
        if rest == sign:
            return f"{subject} {words}"
    return ""
