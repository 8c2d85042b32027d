"""Regular expressions: basic and extended ones (POSIX.1-2017, XBD 9), and those that Perl's add."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import (
    NOTHING,
    Cutter,
    Fault,
    LanguageFault,
    Part,
    Reading,
    fault,
    listed,
)

_ESCAPES = {
    "d": "a digit",
    "D": "no digit",
    "s": "a blank",
    "S": "no blank",
    "w": "a letter, digit or _",
    "W": "no letter, digit or _",
    "b": "the edge of a word",
    "B": "not at the edge of a word",
    "<": "the beginning of a word",
    ">": "the end of a word",
    "t": "a tab",
    "n": "a new line",
    "`": "the very beginning",
    "'": "the very end",
    "K": "forgets what was matched before it",
    "A": "the very beginning",
    "Z": "the very end",
}
#: Those of GNU's matchers, beside Perl's.
_GNU_ESCAPES = frozenset("<>bBwWsS`'")
_CLASSES = {
    "alpha": "a letter",
    "digit": "a digit",
    "alnum": "a letter or digit",
    "upper": "a capital",
    "lower": "a small letter",
    "space": "a blank",
    "blank": "a space or tab",
    "punct": "a punctuation mark",
    "xdigit": "a hexadecimal digit",
    "print": "a printable character",
    "graph": "a visible character",
    "cntrl": "a control character",
    "word": "a letter, digit or _",
}
_ANCHORS = {".": "any character", "$": "the end of the line"}
_GROUPS = {"|": "or", "(": "begins a group", ")": "ends a group"}
_LOOKS = {
    "(?:": "begins a group",
    "(?=": "if what follows is",
    "(?!": "if what follows is not",
    "(?<=": "if what stands before is",
    "(?<!": "if what stands before is not",
}
_SWITCHES = {
    "i": "in any case",
    "s": ". matches new lines too",
    "m": "line by line",
    "x": "blanks do not count",
}
_REPEATS = {"*": "any number of times", "+": "once or more", "?": "once or not at all"}
_RELUCTANT = "as few as will do"
_TOKEN = re.compile(
    r"\\\{\d*,?\d*\\\}|\{\d*,?\d*\}|\\.|\[\^?\]?(?:\[:\w+:\]|\[[.=].[.=]\]|\\.|[^\]])*\]"
    r"|\(\?[a-z]+\)|\(\?(?:[:=!]|<[=!]|P?<\w+>)|[.*+?^$|()]|[^\\\[.*+?^$|(){}]+|.",
    re.DOTALL,
)
_LITERAL = "as it stands"


def read(value: str, dialect: str = "basic") -> Reading:
    """Each token with what it matches, and what lines with it are like."""
    wrong = pattern_fault(value, dialect)
    tokens = _tokens(value, dialect)
    says, contrary = phrases(value, dialect) if wrong is None else ("", "")
    if wrong is None and all(not means for _, means in tokens):
        return Reading([], says, contrary=contrary) if value else NOTHING
    cutter = Cutter(value)
    for text, means in tokens:
        cutter.cut(cutter.at + len(text), means or _LITERAL)
    return cutter.finish(says, wrong).changed(contrary=contrary)


def parts_of(value: str, dialect: str) -> list[Part]:
    """The parts of a pattern within a program, [] for plain text."""
    return read(value, dialect).parts


def _tokens(value: str, dialect: str) -> list[tuple[str, str]]:
    """Each token with what it means, "" for what stands for itself."""
    found: list[tuple[str, str]] = []
    for match in _TOKEN.finditer(value):
        token = match[0]
        says = _says(token, dialect, not found or found[-1][1] in ("or", "begins a group"))
        if says in _REPEATED and found:
            if says == _REPEATS["?"] and dialect == "perl" and found[-1][1] in _REPEATED:
                says = _RELUCTANT
            elif len(found[-1][0]) > 1 and found[-1][1] == "":
                before = found.pop()[0]  # only the last character is repeated
                found += [(before[:-1], ""), (before[-1], "")]
        if not says and found and not found[-1][1]:
            found[-1] = (found[-1][0] + token, "")
        else:
            found.append((token, says))
    return found


_REPEATED = frozenset(_REPEATS.values())


def _says(token: str, dialect: str, first: bool) -> str:
    """What a token means; "" for what stands for itself. `first`: nothing stands before it."""
    basic = dialect == "basic"
    if token == "^":
        return "the beginning of the line" if first or not basic else ""
    if token == "*" and not first:
        return _REPEATS["*"]
    if token in _ANCHORS:
        return _ANCHORS[token]
    if basic:  # what is special there has a backslash before it
        special = token[1:] if len(token) > 1 and token[0] == "\\" else ""
    else:
        special = token
    return _special(special) or _bracketed(token, dialect) or _escaped(token, dialect)


def _special(token: str) -> str:
    """A repetition, an alternative or a group."""
    if token in ("+", "?"):
        return _REPEATS[token]
    if token in _GROUPS:
        return _GROUPS[token]
    count = re.fullmatch(r"\{(\d*)(,?)(\d*)\\?\}?", token)
    if count and token.startswith("{") and (count[1] or count[3]):
        return _counted(count[1], count[2], count[3])
    return ""


def _bracketed(token: str, dialect: str) -> str:
    """A group of Perl's, or a set of characters."""
    if token.startswith("(?"):
        named = re.fullmatch(r"\(\?P?<(\w+)>", token)
        if named:
            return f"begins a group called {named[1]}"
        switched = [_SWITCHES.get(letter, letter) for letter in token[2:-1]]
        return _LOOKS.get(token) or f"from here on: {listed(switched)}"
    if token[0] == "[" and len(token) > 2:
        return set_words(token, escapes=dialect == "perl")
    return ""


def _escaped(token: str, dialect: str) -> str:
    if token[0] != "\\" or len(token) != 2:
        return ""
    if token[1].isdecimal():
        return f"the same as group {token[1]} matched"
    if token[1] in _ESCAPES and (dialect == "perl" or token[1] in _GNU_ESCAPES):
        return _ESCAPES[token[1]]
    return f"the character {token[1]}" if not token[1].isalnum() else ""


def _is_itself(token: str, dialect: str) -> bool:
    """Whether a sign with a backslash before it stands for itself."""
    if not re.fullmatch(r"\\[^\w<>`']", token) or token in _ANCHORS:
        return False
    special = token[1] if dialect == "basic" else token
    return not (_special(special) or _bracketed(token, dialect)) and token[1] not in _ESCAPES


def plain_texts(value: str, dialect: str) -> list[str]:
    """The plain texts of which a pattern finds one anywhere in a line; [] if there is more to
    it.
    """
    is_bound = value.startswith("^") or (value.endswith("$") and not value.endswith("\\$"))
    return [] if is_bound or value in (".", "") else _alternatives(value, dialect)


def quoted_texts(texts: list[str]) -> str:
    """Texts of which one is there: `“a” or “b”`."""
    return listed([f"“{one}”" for one in texts], "or")


def _counted(least: str, comma: str, most: str) -> str:
    if not comma:
        return f"{least} times" if least != "1" else "once"
    if not most:
        return f"{least} times or more"
    return f"{least or 0} to {most} times"


def set_words(token: str, escapes: bool = False) -> str:
    """What a set of characters in brackets matches."""
    inner = token[1:-1]
    negated = inner[:1] in ("^", "!")
    inner = inner[1:] if negated else inner
    found = [_CLASSES.get(name, name) for name in re.findall(r"\[:(\w+):\]", inner)]
    rest = re.sub(r"\[:\w+:\]", "", inner)
    for low, high in re.findall(r"([0-9A-Za-z])-([0-9A-Za-z])", rest):
        if (low, high) == ("0", "9"):
            found.append("a digit")
            continue
        found.append(f"a digit {low} to {high}" if low.isdecimal() else f"a letter {low} to {high}")
    rest = re.sub(r"[0-9A-Za-z]-[0-9A-Za-z]", "", rest)
    if escapes:
        found += [_ESCAPES.get(letter, letter) for letter in re.findall(r"\\([dswDSWtn])", rest)]
        rest = re.sub(r"\\[dswDSWtn]", "", rest)
    if " " in rest and rest != " ":
        found.append("a space")
        rest = rest.replace(" ", "")
    if rest:
        found.append(f"one of {rest}" if len(rest) > 1 else {" ": "a space"}.get(rest, rest))
    said = listed(found, "or")
    return f"a character that is not {said}" if negated else said


# --- in a phrase
# ---------------------------------------------------------------------------------------------


#: What lines are like that match a pattern, and what those are like that do not.
_USUAL = {
    "^$": ("that are empty", "that are not empty"),
    ".": ("that are not empty", "that are empty"),
    "": ("of any kind", "of no kind"),
} | dict.fromkeys(
    ("^\\s*$", "^[[:space:]]*$", "^[ \\t]*$"), ("with nothing but blanks", "with more than blanks")
)


def phrase(value: str, dialect: str) -> str:
    """What lines that match are like: `with “error”`, `beginning with “a”`, `that are empty`."""
    return phrases(value, dialect)[0]


def phrases(value: str, dialect: str) -> tuple[str, str]:
    """What lines that match are like, and what those are like that do not."""
    if value in _USUAL:
        return _USUAL[value]
    begins = value.startswith("^")
    ends = value.endswith("$") and not value.endswith("\\$")
    core = value[begins : len(value) - ends]
    literals = _alternatives(core, dialect)
    if not literals or (len(literals) > 1 and (begins or ends) and not _is_group(core, dialect)):
        return f"matching {value}", f"not matching {value}"
    said = quoted_texts(literals)
    if begins and ends:
        return f"that are {said}", f"that are not {said}"
    if begins or ends:
        where = "beginning" if begins else "ending"
        return f"{where} with {said}", f"not {where} with {said}"
    return f"with {said}", f"without {said}"


def _is_group(core: str, dialect: str) -> bool:
    return core.startswith("\\(" if dialect == "basic" else "(")


def _alternatives(core: str, dialect: str) -> list[str]:
    """The plain texts that a pattern is made of; [] if there is more to it."""
    opener, closer, bar = ("\\(", "\\)", "\\|") if dialect == "basic" else ("(", ")", "|")
    if core.startswith(opener) and core.endswith(closer):
        core = core[len(opener) : -len(closer)].removeprefix("?:")
    found = [_plain(one, dialect) for one in core.split(bar)]
    return [one for one in found if one] if all(found) else []


def _plain(text: str, dialect: str) -> str:
    """The text that a pattern without anything special stands for; "" if there is such."""
    kept = ""
    for token, says in _tokens(text, dialect):
        if not says:
            kept += token
        elif _is_itself(token, dialect):
            kept += token[1]
        else:
            return ""
    return "" if re.search(r"\\", kept) else kept


# --- what is wrong
# -------------------------------------------------------------------------------------------


def pattern_fault(pattern: str, dialect: str) -> Fault | None:
    """A set or a group of a regular expression that is not closed."""
    at = 0
    opened: list[int] = []
    opens, closes = ("\\(", "\\)") if dialect == "basic" else ("(", ")")
    while at < len(pattern):
        pair = pattern[at : at + 2]
        if opens in (pair, pattern[at]):
            opened.append(at)
        elif closes in (pair, pattern[at]):
            if not opened:  # an extended one takes it as it stands
                is_wrong = dialect not in ("extended", "awk")
                place = (at, at + len(closes), LanguageFault.CLOSES_NOTHING, closes)
                return fault(*place) if is_wrong else None
            opened.pop()
        if pattern[at] == "\\":
            if at + 1 == len(pattern):
                return fault(at, at + 1, LanguageFault.ENDS_IN_BACKSLASH)
            at += 2
            continue
        if pattern[at] == "[":
            end = _end_of_set(pattern, at)
            if end < 0:
                return fault(at, at + 1, LanguageFault.NOT_CLOSED, "[")
            at = end
            continue
        at += 1
    if not opened:
        return None
    return fault(opened[-1], opened[-1] + len(opens), LanguageFault.NOT_CLOSED, opens)


def _end_of_set(pattern: str, start: int) -> int:
    """The place behind a set, `[]a]` and `[[:alpha:]]` read rightly; -1 if it is not closed."""
    at = start + 1
    if pattern[at : at + 1] == "^":
        at += 1
    if pattern[at : at + 1] == "]":
        at += 1
    while at < len(pattern):
        inner = re.compile(r"\[([:.=]).*?\1\]").match(pattern, at)
        if inner:
            at = inner.end()
        elif pattern[at] == "]":
            return at + 1
        else:
            at += 1
    return -1
