"""Programs of Perl on the line that are a few plain statements, done for each line or once
(perlrun, perlsyn); of any other only what can be told at a glance.
"""

from __future__ import annotations

import re

from dowsing.commandline.languages import program
from dowsing.commandline.languages.reading import Cutter, Reading, listed, ordinal
from dowsing.commandline.languages.regex import phrases
from dowsing.model.record import Record

MOST_STATEMENTS = 4
LONGEST = 400  # characters of a program that is looked at closely
#: Quotes, patterns and blocks, in which a semicolon ends nothing.
_TOKEN = re.compile(
    r"\"(?:\\.|[^\"\\])*\"|'[^']*'|(?<![\w$)\]])(?:m|s|y|tr)?/(?:\\.|[^/\\\n])*/(?:\\.|[^/\\;\n])*"
    r"|\{[^{}]*\}|.",
    re.DOTALL,
)
_BLOCK = re.compile(r"(BEGIN|END)\s*\{(.*)\}", re.DOTALL)
_WHEN = re.compile(r"(.*\S)\s+(if|unless)\s+(.+)", re.DOTALL)
_PATTERN = r"m?/((?:\\.|[^/\\])+)/[imsx]*"
_LETTERS = re.compile(r"(?:tr|y)(\W)((?:\\.|(?!\1).)*)\1((?:\\.|(?!\1).)*)\1([cds]*)", re.DOTALL)
_NEWLINE = re.compile(r"\\n\Z")
_ALONE = {
    "print": "prints the line",
    "next": "goes on to the next line",
    "last": "stops",
    "exit": "stops",
    "chomp": "",  # nothing that shows
}
_PRINTS_LINE = frozenset(("print", "print $_", 'print "$_"', 'print "$_\\n"', "say"))
_COMPARED = {
    "==": "is", "!=": "is not", "<": "is less than", "<=": "is at most", ">": "is more than",
    ">=": "is at least", "eq": "is", "ne": "is not",
}  # fmt: skip
_VALUES = {
    "$_": "the line",
    "$.": "the number of the line",
    "$&": "what matched",
    "@F": "the fields",
    "scalar @F": "the number of fields",
    "length": "the length of the line",
    "length $_": "the length of the line",
    "$0": "the name of the program",
    "$ARGV": "the name of the file",
}


def read(value: str, dialect: str = "") -> Reading:
    """Each statement, where all of them are plain; else what can be told at a glance."""
    if len(value) > LONGEST:
        return program.read(value, "perl").changed(says="")
    replaced = program.substitution(value)
    if replaced.says:
        return replaced
    cutter = Cutter(value)
    told: list[str] = []
    for text in _statements(value):
        bare = text.strip().rstrip(";").strip()
        says = _statement(bare) if bare else ""
        if bare and not says and bare not in _ALONE:
            return program.read(value, "perl").changed(says="")
        told += [says] if says else []
        end = cutter.at + len(text)
        cutter.cut(end - text.endswith(";"), says)
        cutter.cut(end)
    if not told or len(told) > MOST_STATEMENTS:
        return program.read(value, "perl").changed(says="")
    return cutter.finish(", then ".join(told))


class _Where(Record):
    """When a statement is done, and the lines that it is done for, "" if that says less."""

    words: str
    lines: str


def _statements(value: str) -> list[str]:
    """The statements as they stand, each with its semicolon."""
    found = [""]
    for match in _TOKEN.finditer(value):
        is_block = match[0][:1] == "{" and found[-1].strip() in ("BEGIN", "END")
        found[-1] += match[0]
        if match[0] == ";" or is_block:
            found.append("")
    return [one for one in found if one]


def _statement(text: str) -> str:
    """What a statement does, "" if that is not known."""
    block = _BLOCK.fullmatch(text)
    if block:
        inner = [_statement(one.strip()) for one in block[2].split(";") if one.strip()]
        when = "after the last line" if block[1] == "END" else "before the first line"
        return f"{when}: {' and '.join(inner)}" if inner and all(inner) else ""
    conditional = _WHEN.fullmatch(text)
    if conditional:
        where = _where(conditional[3].strip(), conditional[2] == "unless")
        if where is None:
            return ""
        if conditional[1] in _PRINTS_LINE and where.lines:
            return f"prints {where.lines}"
        does = _simple(conditional[1])
        return f"{does} {where.words}" if does else ""
    return _simple(text)


def _simple(text: str) -> str:
    """A statement without a condition."""
    if text in _ALONE:
        return _ALONE[text]
    replaced = program.substitution(text)
    if replaced.says:
        return replaced.says
    letters = _LETTERS.fullmatch(text)
    if letters:
        _, old, new, flags = letters.groups()
        if "d" in flags and not new:
            return f"removes each of {old}"
        return f"puts {new or old} in the place of {old}, letter by letter"
    printed = re.fullmatch(r"(?:print|say)\b\s*\(?(.*?)\)?", text, re.DOTALL)
    if printed:
        values = [_value(one.strip()) for one in _separated(printed[1])]
        return f"prints {listed(values)}" if values and all(values) else ""
    counted = re.fullmatch(r"(?:\$(\w+)(\+\+|--)|(\+\+|--)\$(\w+))", text)
    if counted:
        name, sign = counted[1] or counted[4], counted[2] or counted[3]
        return f"adds 1 to {name}" if sign == "++" else f"takes 1 from {name}"
    added = re.fullmatch(r"\$(\w+)\s*([+-])=\s*(.+)", text)
    if added:
        value = _value(added[3].strip())
        verb, joint = ("adds", "to") if added[2] == "+" else ("takes", "from")
        return f"{verb} {value} {joint} {added[1]}" if value else ""
    removed = re.fullmatch(r"unlink\s*\(?\s*(?:glob\s*\(?\s*)?([\"'])(.+?)\1\s*\)*", text)
    return f"removes {removed[2]}" if removed else ""


def _where(text: str, negated: bool) -> _Where | None:
    """When a statement is done, None if that is not known."""
    if text[:1] == "!":
        return _where(text[1:].strip(), not negated)
    ranged = re.fullmatch(r"(.+?)\s*\.\.\.?\s*(.+)", text)
    if ranged and not negated:
        ends = [_line(one.strip()) for one in ranged.groups()]
        said = f"from {ends[0]} to {ends[1]}"
        return _Where(said, f"the lines {said}") if all(ends) else None
    seen = re.fullmatch(r"\$\w+\{(.+)\}\s*\+\+", text)
    if seen and negated:
        what = _value(seen[1])
        lines = "each line the first time that it comes up" if seen[1] == "$_" else ""
        return _Where(f"the first time that {what} comes up", lines) if what else None
    pattern = re.fullmatch(_PATTERN, text)
    if pattern:
        said = phrases(pattern[1], "perl")[negated]
        return _Where(f"on lines {said}", f"the lines {said}")
    if re.fullmatch(r"eof(?:\(\))?", text):
        lines = "all lines but the last" if negated else "the last line"
        return _Where(f"on {lines}", lines)
    return None if negated else _compared(text)


def _compared(text: str) -> _Where | None:
    """A comparison of two values."""
    match = re.fullmatch(r"(.+?)\s*(==|!=|<=|>=|<|>|\beq\b|\bne\b)\s*(.+)", text)
    if match is None:
        return None
    left, right = _value(match[1].strip()), _value(match[3].strip())
    if match[1].strip() == "$." and match[2] == "==":
        return _Where(f"on line {right}", f"line {right}")
    said = f"where {left} {_COMPARED[match[2]]} {right}"
    return _Where(said, f"the lines {said}") if left and right else None


def _line(text: str) -> str:
    """An end of a range of lines."""
    pattern = re.fullmatch(_PATTERN, text)
    if pattern:
        return f"lines {phrases(pattern[1], 'perl')[0]}"
    number = re.fullmatch(r"(?:\$\.\s*==\s*)?(\d+)", text)
    if number:
        return f"line {number[1]}"
    return "the last line" if re.fullmatch(r"eof(?:\(\))?", text) else ""


def _value(text: str) -> str:
    """A value in words, "" if it is not known."""
    if text in _VALUES:
        return _VALUES[text]
    if re.fullmatch(r"-?\d+(?:\.\d+)?", text) or re.fullmatch(r"\$[a-z]\w*", text):
        return text
    field = re.fullmatch(r"\$F\[(-?\d+)\]", text)
    if field:
        number = int(field[1])
        return "the last field" if number == -1 else f"field {number + 1}" if number >= 0 else ""
    group = re.fullmatch(r"\$(\d)", text)
    if group:
        return f"what the {ordinal(group[1])} group matched"
    quoted = re.fullmatch(r"([\"'])(.*)\1", text, re.DOTALL)
    return _text(quoted[2], quoted[1] == '"') if quoted else ""


def _text(text: str, is_filled: bool) -> str:
    """A text in quotes: the one value that stands in it, or as it stands."""
    bare = _NEWLINE.sub("", text)
    if is_filled and re.fullmatch(r"\$(?:\w+|[._&])(?:\[-?\d+\])?", bare):
        return _value(bare)
    return f"“{bare}”" if bare else "a new line"


def _separated(text: str) -> list[str]:
    """Values with commas between, a new line at their end left out."""
    found = re.findall(r"(?:\"(?:\\.|[^\"\\])*\"|'[^']*'|\([^()]*\)|\[[^\]]*\]|[^,])+", text)
    if len(found) > 1 and found[-1].strip() in ('"\\n"', "$/"):
        found.pop()
    return found
