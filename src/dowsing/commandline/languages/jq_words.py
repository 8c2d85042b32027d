"""The steps of jq filters in words."""

from __future__ import annotations

import re

from dowsing.commandline.languages.jq_steps import steps
from dowsing.commandline.languages.reading import listed, ordinal

_PLAIN = {
    ".": "all of it as it is",
    "..": "it and all that is in it, however deep",
    ".[]": "each of its elements",
    ".[]?": "each of its elements, if it has any",
    "length": "how many there are, or how long it is",
    "keys": "its keys, sorted",
    "keys_unsorted": "its keys",
    "values": "only what is not null",
    "add": "all of them added up",
    "any": "whether any is true",
    "all": "whether all are true",
    "flatten": "lists within lists made one list",
    "unique": "each only once, sorted",
    "sort": "sorted",
    "reverse": "the other way round",
    "min": "the least",
    "max": "the greatest",
    "first": "the first",
    "last": "the last",
    "not": "the contrary",
    "type": "of what type it is",
    "tostring": "as text",
    "tonumber": "as a number",
    "to_entries": "its pairs as objects of key and value",
    "from_entries": "objects of key and value made one object",
    "tojson": "as JSON in a text",
    "fromjson": "the JSON that the text holds",
    "empty": "nothing at all",
    "paths": "the paths to all that is in it",
    "ascii_downcase": "in small letters",
    "ascii_upcase": "in capitals",
    "transpose": "rows and columns exchanged",
    "now": "the time now",
    "todate": "the time as a date",
    "input": "the next input",
    "inputs": "all other inputs",
    "@csv": "as a row of CSV",
    "@tsv": "as a row with tabs between",
    "@json": "as JSON",
    "@text": "as text",
    "@html": "as text for HTML",
    "@uri": "as text for an address",
    "@sh": "quoted for the shell",
    "@base64": "in base64",
    "@base64d": "read from base64",
    "null": "null",
    "true": "true",
    "false": "false",
}
_CALL = re.compile(r"([a-z_]\w*)\((.*)\)", re.DOTALL)
#: What is asked of it.
_ASKS = {
    "has": "has the key {0}",
    "test": "matches {0}",
    "contains": "holds {0}",
    "inside": "is part of {0}",
    "startswith": "begins with {0}",
    "endswith": "ends with {0}",
}
_CALLS = {
    "map": "of each element: {0}",
    "select": "only where {0}",
    "sort_by": "sorted by {0}",
    "group_by": "in groups of the same {0}",
    "unique_by": "each {0} only once",
    "min_by": "the one with the least {0}",
    "max_by": "the one with the greatest {0}",
    "del": "without {0}",
    "join": "joined with {0} between",
    "split": "split at {0}",
    "ltrimstr": "without {0} at the beginning",
    "rtrimstr": "without {0} at the end",
    "range": "the numbers up to {0}",
    "first": "the first of {0}",
    "last": "the last of {0}",
    "limit": "at most so many: {0}",
    "map_values": "of each value: {0}",
    "with_entries": "of each pair: {0}",
    "any": "whether for any {0}",
    "all": "whether for all {0}",
    "sub": "with the first match replaced: {0}",
    "gsub": "with every match replaced: {0}",
    "recurse": "it and what it leads to by {0}",
    "error": "an error",
    "input_line_number": "the number of the line",
    "strftime": "the time, written as {0}",
    "flatten": "lists within lists made one list, {0} deep",
    "paths": "the paths to what is {0}",
    "getpath": "what is at the path {0}",
    "index": "where {0} stands",
    "walk": "everything in it changed: {0}",
}
_COMPARED = {
    "==": "is",
    "!=": "is not",
    ">=": "is at least",
    "<=": "is at most",
    ">": "is more than",
    "<": "is less than",
}
_CHANGES = {
    "=": "with {0} set to {1}",
    "|=": "with {0} changed to {1}",
    "+=": "with {1} added to {0}",
    "-=": "with {1} taken from {0}",
    "//=": "with {0} set to {1} if it is missing",
}
_PATH = re.compile(r"\.(?:[A-Za-z_]\w*|\"(?:\\.|[^\"\\])*\")\??|\.?\[[^\[\]]*\]\??|\.(?=\[)")


def step_words(step: str) -> str:
    """What a step gives, "" if that is not to be told."""
    step = step.strip()
    if step in _PLAIN:
        return _PLAIN[step]
    for read in (_path, _several, _changed, _default, _tested, _collected, _called, _literal):
        said = read(step)
        if said:
            return said
    return _bound(step)


def _path(step: str) -> str:
    """`.a.b[0]`: what it leads to, the innermost first."""
    if not re.fullmatch(rf"(?:{_PATH.pattern})+", step):
        return ""
    said = ""
    for match in _PATH.finditer(step):
        said = _further(said, match[0].rstrip("?").lstrip("."))
    return said


def _further(before: str, text: str) -> str:
    """What one step of a path adds."""
    if not text:
        return before
    of_it = f" of {before}" if before else ""
    if text == "[]":
        return f"each element{of_it}" if before else "each of its elements"
    sliced = re.fullmatch(r"\[(-?\d*):(-?\d*)\]", text)
    if sliced:
        return f"{_slice(sliced[1], sliced[2])}{of_it}"
    place = re.fullmatch(r"\[(-?)(\d+)\]", text)
    if place:
        number = ordinal(place[2] if place[1] else str(int(place[2]) + 1))
        if place[1]:
            return (
                f"the last element{of_it}"
                if place[2] == "1"
                else f"the {number} element from the end{of_it}"
            )
        return f"the {number} element{of_it}"
    name = re.sub(r"\A\[?\"?|\"?\]?\Z", "", text)
    return f"{name}{of_it}"


def _slice(first: str, last: str) -> str:
    if not first or first == "0":
        return (
            f"the first {last} elements"
            if last and last[0] != "-"
            else f"all but the last {last[1:]} elements"
        )
    if first.startswith("-") and not last:
        return f"the last {first[1:]} elements"
    return (
        f"the elements from number {int(first) + 1} on"
        if not last
        else f"elements {int(first) + 1} to {last}"
    )


def _several(step: str) -> str:
    """Several results with commas between."""
    parts = _parts(step, ",")
    if len(parts) < 2:
        return ""
    said = [_nested(one) for one in parts]
    return listed(said) if all(said) else ""


def _parts(text: str, signs: str) -> list[str]:
    return [one for _, _, one in steps(text, signs)]


def _nested(text: str) -> str:
    """What a filter within another gives, its own steps joined."""
    parts = _parts(text, "|")
    said = ["it" if one == "." else step_words(one) for one in parts]
    if not all(said):
        return ""
    asked = _asked(parts[-1]) if len(parts) > 1 else ""
    if asked:
        return f"{said[0]} {asked}" if len(parts) == 2 else ""
    return ", ".join(said)


def _split(text: str, signs: list[str]) -> tuple[str, str, str] | None:
    """What stands before and after the first of the signs that is in no brackets and quotes."""
    depth = 0
    for match in re.finditer(
        r"\"(?:\\.|[^\"\\])*\"|//=?|\|=|[-+*]=|[=!<>]=|[=<>]|[(\[{]|[)\]}]|\band\b|\bor\b|.",
        text,
        re.DOTALL,
    ):
        token = match[0]
        if token in "([{":
            depth += 1
        elif token in ")]}":
            depth -= 1
        elif not depth and token in signs:
            return text[: match.start()].strip(), token, text[match.end() :].strip()
    return None


def _changed(step: str) -> str:
    found = _split(step, list(_CHANGES))
    if not found:
        return ""
    what, sign, value = found
    said = (_nested(what), _nested(value))
    return _CHANGES[sign].format(*said) if all(said) else ""


def _default(step: str) -> str:
    found = _split(step, ["//"])
    if not found:
        return ""
    said = (_nested(found[0]), _nested(found[2]))
    return f"{said[0]}, or {said[1]} if there is none" if all(said) else ""


def _tested(step: str) -> str:
    for joint in ("or", "and"):
        found = _split(step, [joint])
        if found:
            said = (_tested(found[0]) or _nested(found[0]), _tested(found[2]) or _nested(found[2]))
            return f"{said[0]} {joint} {said[1]}" if all(said) else ""
    found = _split(step, list(_COMPARED))
    if not found:
        return ""
    said = (_nested(found[0]), _nested(found[2]))
    return f"{said[0]} {_COMPARED[found[1]]} {said[1]}" if all(said) else ""


def _collected(step: str) -> str:
    """`{a, b: .c}` and `[…]`."""
    if step[:1] == "[" and step[-1:] == "]" and len(_parts(step, "|,")) == 1:
        said = _nested(step[1:-1]) if step[1:-1].strip() else "nothing"
        return f"a list of {said}" if said else ""
    if step[:1] != "{" or step[-1:] != "}":
        return ""
    names = []
    for pair in _parts(step[1:-1], ","):
        match = re.match(r"\"?([\w$@-]+)\"?\s*(?::|\Z)|(\()", pair)
        if not match:
            return ""
        names.append((match[1] or "a computed key").lstrip("$"))
    return f"an object with {listed(names)}" if names else "an empty object"


def _called(step: str) -> str:
    asked = _asked(step)
    if asked:
        return f"whether it {asked}"
    match = _CALL.fullmatch(step)
    if not match or match[1] not in _CALLS:
        return ""
    asked = _asked(match[2]) if match[1] in ("select", "any", "all") else ""
    inside = f"it {asked}" if asked else _given(match[2])
    return _CALLS[match[1]].format(inside) if inside else ""


def _asked(step: str) -> str:
    """What a call asks of what it gets: `begins with “a”`; "" if it asks nothing."""
    match = _CALL.fullmatch(step.strip())
    inside = _given(match[2]) if match and match[1] in _ASKS else ""
    return _ASKS[match[1]].format(inside) if match and inside else ""


def _given(text: str) -> str:
    """What a call is given, "" if that cannot be told."""
    said = [_tested(one) or _nested(one) for one in _parts(text, ";")]
    return ", ".join(said) if said and all(said) else ""


def _literal(step: str) -> str:
    if re.fullmatch(r"-?\d+(?:\.\d+)?", step):
        return step
    if re.fullmatch(r"\$\w+(?:\.\w+)*", step):
        return step
    text = re.fullmatch(r"\"((?:\\.|[^\"\\])*)\"", step, re.DOTALL)
    if text and "\\(" not in text[1]:
        return f"“{text[1]}”"
    if step[:1] == '"' and step[-1:] == '"':
        inside = re.findall(r"\\\(([^()]*)\)", step)
        return f"a text made of {listed(inside) or 'values'}"
    return ""


def _bound(step: str) -> str:
    """`if`, `reduce`, `… as $x`, `not` behind something, a step with a question mark."""
    if step.endswith("?"):
        said = step_words(step[:-1])
        return f"{said}, if it has such" if said else ""
    bound = re.fullmatch(r"(.+?)\s+as\s+(\$\w+)", step, re.DOTALL)
    if bound:
        said = _nested(bound[1])
        return f"{said}, called {bound[2]} from here on" if said else ""
    chosen = re.fullmatch(r"if\b(.+?)\bthen\b(.+?)(?:\belse\b(.+?))?\bend", step, re.DOTALL)
    if chosen and "if" not in chosen[2] + (chosen[3] or ""):
        test = _tested(chosen[1].strip()) or _nested(chosen[1].strip())
        then = _nested(chosen[2].strip())
        other = _nested(chosen[3].strip()) if chosen[3] else "it as it is"
        return f"if {test}: {then}, otherwise {other}" if test and then and other else ""
    if re.match(r"reduce\b", step):
        return "one value put together of many"
    return _sum(step)


def _sum(step: str) -> str:
    for sign, words in (
        ("+", "plus"),
        ("-", "minus"),
        ("*", "times"),
        ("/", "divided by"),
        ("%", "modulo"),
    ):
        parts = _parts(step, sign)
        if len(parts) > 1:
            said = [_nested(one) for one in parts]
            return f" {words} ".join(said) if all(said) else ""
    return ""
