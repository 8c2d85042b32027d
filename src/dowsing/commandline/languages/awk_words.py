"""Expressions and statements of awk in words."""

from __future__ import annotations

import re
from enum import Enum

from dowsing.commandline.languages.reading import listed, ordinal
from dowsing.commandline.languages.regex import phrase
from dowsing.model.record import Record

#: What `NR` is called once all lines were read.
LINES_IN_ALL = "NR_IN_ALL"
_NR = re.compile(r"\"(?:\\.|[^\"\\])*\"|\bNR\b")

_TOKEN = re.compile(
    r"\s+|\"(?:\\.|[^\"\\])*\"|\d+(?:\.\d+)?(?:[eE][-+]?\d+)?|\.\d+|[A-Za-z_]\w*|\+\+|--|[-+*/%^!=<>]=|&&|\|\||!~"
    r"|>>|[-+*/%^!<>~=?:,()\[\]{}$|;]|.",
    re.DOTALL,
)
_BEFORE_PATTERN = frozenset(("(", ",", "=", "!", "~", "!~", "&&", "||", "?", ":", ""))
_COMPARED = {
    "==": "is",
    "!=": "is not",
    "<": "is less than",
    "<=": "is at most",
    ">": "is more than",
    ">=": "is at least",
}
_SUMS = {
    "+": "plus",
    "-": "minus",
    "*": "times",
    "/": "divided by",
    "%": "modulo",
    "^": "to the power of",
}
_VARIABLES = {
    "NR": "the number of the line",
    LINES_IN_ALL: "the number of lines",
    "FNR": "the number of the line in its file",
    "NF": "the number of fields",
    "FS": "the separator of fields",
    "OFS": "the separator of what is printed",
    "RS": "the separator of lines",
    "ORS": "what ends each printed line",
    "FILENAME": "the name of the file",
    "RSTART": "where the match begins",
    "RLENGTH": "how long the match is",
}
_FUNCTIONS = {
    "length": "the length of {0}",
    "toupper": "{0} in capitals",
    "tolower": "{0} in small letters",
    "int": "{0} without decimals",
    "sqrt": "the square root of {0}",
    "substr": "a part of {0} from character {1}",
    "index": "where {1} stands in {0}",
    "sprintf": "text made by {0}",
    "strftime": "the time, written as {0}",
    "systime": "the time now",
    "rand": "a random number",
    "split": "splits {0} into {1}",
    "sub": "puts {1} in the place of the first {0}",
    "gsub": "puts {1} in the place of every {0}",
    "gensub": "puts {1} in the place of {0}",
    "match": "looks for {1} in {0}",
    "system": "runs {0}",
    "close": "closes {0}",
}
_DOING = frozenset(("sub", "gsub", "system", "close", "split"))
_ALONE = {
    "next": "goes on to the next line",
    "nextfile": "goes on to the next file",
    "exit": "stops",
    "break": "leaves the loop",
    "continue": "goes on with the loop",
    "else": "otherwise",
    "do": "does this at least once",
    "getline": "reads the next line",
    "return": "gives nothing back",
}
_ASSIGNED = {
    "=": "sets {0} to {1}",
    "+=": "adds {1} to {0}",
    "-=": "takes {1} from {0}",
    "*=": "multiplies {0} by {1}",
    "/=": "divides {0} by {1}",
}


class When(Enum):
    """When a rule is done: for every line, before or after all of them, the first time that the
    line or another value comes up, from some line to another, or for some lines.
    """

    ALWAYS = ""
    BEFORE = "before the first line"
    AFTER = "after the last line"
    NEW_LINE = "the first time that the line comes up"
    NEW_VALUE = "the first time that {0} comes up"
    RANGE = "from {0}"
    LINES = "on {0}"
    UNTOLD = "untold"


class Condition(Record):
    """When a rule is done, and the value or the lines that it is done for."""

    when: When
    what: str = ""

    @property
    def words(self) -> str:
        """All of it, "" if there is none, or none that can be told."""
        return "" if self.when is When.UNTOLD else self.when.value.format(self.what)


ALWAYS = Condition(When.ALWAYS)
_UNTOLD = Condition(When.UNTOLD)


def condition_of(pattern: str) -> Condition:
    """When a rule is done: `on lines whose field 3 is at least 1000`."""
    if pattern in ("BEGIN", "END"):
        return Condition(When.BEFORE if pattern == "BEGIN" else When.AFTER)
    seen = re.fullmatch(r"!\s*(\w+)\[(.+)\]\s*\+\+", pattern)
    if seen:
        if seen[2] == "$0":
            return Condition(When.NEW_LINE)
        what = value_words(seen[2])
        return Condition(When.NEW_VALUE, what) if what else _UNTOLD
    ranged = _split_range(pattern)
    if ranged:
        first, last = (_when(one) for one in ranged)
        return Condition(When.RANGE, f"{first} to {last}") if first and last else _UNTOLD
    lines = _when(pattern)
    return Condition(When.LINES, lines) if lines else _UNTOLD


def _split_range(pattern: str) -> list[str]:
    """The two patterns of a range; [] if it is none."""
    found = re.fullmatch(
        r"(/(?:\\.|[^/\\])+/|\w+\s*==\s*\d+)\s*,\s*(/(?:\\.|[^/\\])+/|\w+\s*==\s*\d+)", pattern
    )
    return [found[1], found[2]] if found else []


def _when(pattern: str) -> str:
    """Lines for which a condition holds: `lines with “foo”`, `line 5`."""
    whole = re.fullmatch(r"(!?)\s*/((?:\\.|[^/\\]|\[[^\]]*\])+)/", pattern)
    if whole:
        said = phrase(whole[2], "extended")
        return f"all lines but those {said}" if whole[1] else f"lines {said}"
    place = re.fullmatch(r"F?NR\s*(==|>=|<=|>|<|!=)\s*(\d+)", pattern)
    if place:
        return _line_words(place[1], place[2])
    if re.fullmatch(r"NR\s*==\s*FNR", pattern):
        return "the lines of the first file"
    if pattern == "NF":
        return "lines that are not empty"
    if pattern == "1":
        return "every line"
    every = re.fullmatch(r"NR\s*%\s*(\d+)\s*==\s*(\d+)", pattern)
    if every:
        return f"every {ordinal(every[1])} line" + (
            f", from line {every[2]}" if every[2] != "0" else ""
        )
    said = test_words(pattern)
    return f"lines where {said}" if said else ""


def _line_words(sign: str, number: str) -> str:
    return {
        "==": f"line {number}",
        "!=": f"all lines but line {number}",
        ">": f"the lines after line {number}" if number != "1" else "all lines but the first",
        ">=": f"the lines from line {number} on",
        "<": f"the lines before line {number}",
        "<=": f"the first {number} lines" if number != "1" else "the first line",
    }[sign]


def statement_words(text: str, is_after: bool = False) -> str:
    """What a statement does, "" if that is not to be told. `is_after`: all lines were read."""
    if is_after:
        text = _NR.sub(lambda match: LINES_IN_ALL if match[0] == "NR" else match[0], text)
    if text in _ALONE:
        return _ALONE[text]
    head = re.match(r"(if|while|for)\s*\((.*)\)\Z", text, re.DOTALL)
    if head:
        return _head_words(head[1], head[2].strip())
    printed = re.match(r"printf?\b", text)
    if printed:
        return _printed(text, printed[0])
    counted = re.fullmatch(r"(?:(\+\+|--)\s*)?([\w$\[\]\", .()+-]+?)\s*(\+\+|--)?", text)
    if counted and (counted[1] or counted[3]):
        name = value_words(counted[2])
        sign = counted[1] or counted[3]
        return (f"adds 1 to {name}" if sign == "++" else f"takes 1 from {name}") if name else ""
    assigned = re.fullmatch(r"([\w$]+(?:\[[^\]]*\])?)\s*([-+*/]?=)(?!=)\s*(.+)", text, re.DOTALL)
    if assigned:
        name, made = value_words(assigned[1]), value_words(assigned[3])
        return _ASSIGNED[assigned[2]].format(name, made) if name and made else ""
    left = re.fullmatch(r"(exit|return|delete)\s+(.+)", text)
    if left:
        value = value_words(left[2])
        verbs = {
            "exit": "stops with status {0}",
            "return": "gives back {0}",
            "delete": "forgets {0}",
        }
        return verbs[left[1]].format(value) if value else ""
    noted = re.fullmatch(r"(\w+)\[([^\[\]]+)\]", text)
    if noted:  # an element is there once it is named
        key = value_words(noted[2])
        return f"notes {key} in {noted[1]}" if key else ""
    called = re.match(r"(\w+)\s*\(", text)
    return value_words(text) if called and called[1] in _DOING else ""


def _head_words(keyword: str, inside: str) -> str:
    each = re.fullmatch(r"(\w+)\s+in\s+(\w+)", inside)
    if keyword == "for" and each:
        return f"for each key {each[1]} of {each[2]}"
    if keyword == "for":
        counted = re.fullmatch(
            r"(\w+)\s*=\s*(.+?);\s*\1\s*(<=?)\s*(.+?);\s*(?:\1\+\+|\+\+\1)", inside
        )
        if not counted:
            return "again and again"
        low, high = value_words(counted[2]), value_words(counted[4])
        below = "below " if counted[3] == "<" else ""
        return (
            f"for each {counted[1]} from {low} to {below}{high}"
            if low and high
            else "again and again"
        )
    said = test_words(inside)
    return f"{'if' if keyword == 'if' else 'as long as'} {said}" if said else ""


def _printed(text: str, verb: str) -> str:
    rest = text[len(verb) :].strip()
    target = ""
    sent = re.search(r"(?:\s|\A)(>>?|\|)\s*(\"[^\"]*\"|[\w$.]+)\Z", rest)
    if sent:
        where = sent[2].strip('"')
        target = {">": f", into {where}", ">>": f", to the end of {where}", "|": f", to {where}"}[
            sent[1]
        ]
        rest = rest[: sent.start()].strip()
    inner = _outer_brackets(rest)
    given = [value_words(one) for one in split_values(inner)]
    if not rest:
        return f"prints the line{target}"
    if not all(given):
        return (
            f"prints what is computed{target}"
            if verb == "print"
            else f"prints a text made of values{target}"
        )
    if verb == "printf":
        values = f" with {listed(given[1:])}" if given[1:] else ""
        return f"prints {given[0]}{values}{target}"
    return f"prints {_fields(split_values(inner))}{target}"


def _fields(values: list[str]) -> str:
    """Values in words; `fields 1, 3 and 5`, where that is all there is."""
    numbers = [match[1] for one in values if (match := re.fullmatch(r"\s*\$([1-9]\d*)\s*", one))]
    if len(numbers) == len(values) > 1:
        return f"fields {listed(numbers)}"
    return listed([value_words(one) for one in values])


def _outer_brackets(text: str) -> str:
    if (
        text[:1] == "("
        and text[-1:] == ")"
        and len(split_values(text)) == 1
        and text.count("(") == 1
    ):
        return text[1:-1]
    return text


def split_values(text: str) -> list[str]:
    """What stands between commas that are in no brackets and quotes."""
    found, depth, last = [""], 0, ""
    for match in _tokens(text):
        depth += match in ("(", "[")
        depth -= match in (")", "]")
        if match == "," and not depth:
            found.append("")
        else:
            found[-1] += match
        last = match.strip() or last
    return [one.strip() for one in found]


def _tokens(text: str) -> list[str]:
    """The tokens of an expression, patterns as one each."""
    found: list[str] = []
    at, last = 0, ""
    while at < len(text):
        if text[at] == "/" and last in _BEFORE_PATTERN:
            pattern = re.compile(r"/(?:\\.|\[[^\]]*\]|[^/\\\[])*/").match(text, at)
            if pattern:
                found.append(pattern[0])
                at, last = pattern.end(), pattern[0]
                continue
        match = _TOKEN.match(text, at)
        if match is None:
            break
        found.append(match[0])
        at, last = match.end(), match[0].strip() or last
    return found


def test_words(text: str) -> str:
    """A condition in words, "" if that is not to be told."""
    for sign, joint in (("||", "or"), ("&&", "and")):
        parts = _split_at(text, sign)
        if len(parts) > 1:
            said = [test_words(_bare(one)) for one in parts]
            return f" {joint} ".join(said) if all(said) else ""
    text = _bare(text)
    for sign in ("!~", "~"):
        parts = _split_at(text, sign)
        if len(parts) == 2:
            return _matched(parts[0], parts[1], sign == "!~")
    for sign, words in _COMPARED.items():
        parts = _split_at(text, sign)
        if len(parts) == 2:
            first, last = value_words(parts[0]), value_words(parts[1])
            if not first or not last:
                return ""
            last = "empty" if last == "nothing" else last
            return f"{first} {words} {last}"
    return _bare_test(text)


def _matched(what: str, pattern: str, negated: bool) -> str:
    first = value_words(what)
    said = re.fullmatch(r"/(.*)/", pattern.strip(), re.DOTALL)
    if not first:
        return ""
    verb = "does not match" if negated else "matches"
    return f"{first} {verb} {said[1] if said else pattern.strip()}"


def _bare_test(text: str) -> str:
    """A condition that is a single value."""
    member = re.fullmatch(r"(!?)\s*\(?\s*([\w$]+)\s+in\s+(\w+)\s*\)?", text)
    if member:
        key = value_words(member[2])
        return f"{key} is {'no' if member[1] else 'a'} key of {member[3]}" if key else ""
    pattern = re.fullmatch(r"(!?)\s*/(.*)/", text, re.DOTALL)
    if pattern:
        return f"the line {'does not match' if pattern[1] else 'matches'} {pattern[2]}"
    if text.startswith("!"):
        value = value_words(text[1:].strip())
        return f"{value} is empty or 0" if value else ""
    value = value_words(text)
    return f"{value} is not empty or 0" if value and not value.isdecimal() else ""


def _bare(text: str) -> str:
    text = text.strip()
    while text[:1] == "(" and text[-1:] == ")" and _closes_last(text):
        text = text[1:-1].strip()
    return text


def _closes_last(text: str) -> bool:
    depth = 0
    for n, char in enumerate(text):
        depth += char == "("
        depth -= char == ")"
        if not depth and n < len(text) - 1:
            return False
    return True


def _split_at(text: str, sign: str) -> list[str]:
    """What stands between these signs, where they are in no brackets, quotes and patterns."""
    found, depth = [""], 0
    for token in _tokens(text):
        depth += token in ("(", "[")
        depth -= token in (")", "]")
        if token == sign and not depth:
            found.append("")
        else:
            found[-1] += token
    return [one.strip() for one in found]


def value_words(text: str) -> str:
    """A value in words, "" if that is not to be told."""
    text = _bare(text)
    simple = _simple_value(text)
    if simple:
        return simple
    called = re.fullmatch(r"(\w+)\s*(?:\((.*)\))?", text, re.DOTALL)
    if called and called[1] in _FUNCTIONS:
        return _called(called[1], called[2])
    for sign, words in _SUMS.items():
        parts = _split_at(text, sign)
        if len(parts) > 1 and all(parts):
            said = [value_words(one) for one in parts]
            return f" {words} ".join(said) if all(said) else ""
    parts = _joined(text)
    joined = [value_words(one) for one in parts] if len(parts) > 1 else []
    return listed(joined) if joined and all(joined) else ""


def _simple_value(text: str) -> str:
    """A number, a text, a field, a variable, an element of an array."""
    if re.fullmatch(r"-?\d+(?:\.\d+)?", text):
        return text
    quoted = re.fullmatch(r"\"((?:\\.|[^\"\\])*)\"", text)
    if quoted:
        return {"": "nothing", "\\t": "a tab", "\\n": "a new line", " ": "a space"}.get(
            quoted[1], f"“{quoted[1]}”"
        )
    if text == "$0":
        return "the line"
    field = re.fullmatch(r"\$(\d+)", text)
    if field:
        return f"field {field[1]}"
    if re.fullmatch(r"\$\(?\s*NF\s*\)?", text):
        return "the last field"
    before = re.fullmatch(r"\$\(\s*NF\s*-\s*(\d+)\s*\)", text)
    if before:
        return f"the field {before[1]} before the last"
    if re.fullmatch(r"\$[A-Za-z_]\w*", text):
        return f"the field whose number is {text[1:]}"
    element = re.fullmatch(r"([A-Za-z_]\w*)\[(.+)\]", text)
    if element and "[" not in element[2]:
        key = value_words(element[2])
        return f"{element[1]} for {key}" if key else ""
    if text in _VARIABLES:
        return _VARIABLES[text]
    is_name = re.fullmatch(r"[A-Za-z_]\w*", text) and text not in _FUNCTIONS and text not in _ALONE
    return text if is_name else ""


def _called(name: str, inside: str | None) -> str:
    given = [_argument(one) for one in split_values(inside)] if inside else []
    if name == "length" and not given:
        return "the length of the line"
    wanted = _FUNCTIONS[name].count("{")
    if len(given) < wanted or not all(given):
        return ""
    said = _FUNCTIONS[name].format(*given)
    target = given[2:3] if name in ("sub", "gsub") else []
    return f"{said} in {target[0]}" if target else said


def _argument(text: str) -> str:
    pattern = re.fullmatch(r"/(.*)/", text, re.DOTALL)
    return f"match of {pattern[1]}" if pattern else value_words(text)


def _joined(text: str) -> list[str]:
    """Values that stand side by side, which awk joins."""
    found = [""]
    depth = 0
    for token in _tokens(text):
        depth += token in ("(", "[")
        if not depth and not token.strip():
            found.append("")
        elif not depth and token[:1] == '"' and found[-1]:
            found += [token, ""]
        else:
            found[-1] += token
        depth -= token in (")", "]")
    return [one.strip() for one in found if one.strip()]
