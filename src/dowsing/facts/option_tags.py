"""The tag of an option: its spellings and the placeholder of its argument."""

from __future__ import annotations

import re

from dowsing.model.record import Record

_SEPARATOR = re.compile(
    r"\s*(?:,|\||\n|;|/(?=\s*-)|\s+or\s|\s+and\s+(?=-))\s*(?=[-+]|\[-)|\s+(?=--?[A-Za-z])"
)
_BLANKS = re.compile(r"[^\S\n]{2,}|\n\s+(?=\n)")
_FLAG = re.compile(
    r"(\[?)([-+]{1,2}(?:\[[-\w]+\])?[^\s=\[\]<>,|{}()]*(?:\[[-\w]+\][\w-]*)?)(.*)", re.DOTALL
)
_IN_BRACKETS = re.compile(r"\s\((-{1,2}[\w-]+)\)")
_EITHER = re.compile(r"(--?)\[([\w-]+)\](.+)")
_PART = re.compile(r"(-{1,2}[\w-]+)\[(-?[\w-]+)\]([\w-]*)")
_NUMERIC = re.compile(r"\[?(-<\w+>)")
_SPAN = re.compile(r"(-\d)\s*(?:\.{2,3}|…|to|through|-)\s*-(\d)\Z")
MOST_ARGUMENT = 60  # characters of a placeholder
#: A remark of the page behind a flag or its placeholder: `-sS (TCP SYN scan)`, `-y (global)`. One
#: with a bar in it is a choice.
_REMARK = re.compile(r"(?:\A|\s)\s*\([^()|]*(?:\([^()]*\)[^()|]*)*\)\s*\Z")
_NEGATABLE = re.compile(r"\A\[?!\]?\s+(?=-)")  # `[!] -p, --protocol protocol`
#: What pages print where a switch may be given its value: `--detach=true|false`, `--all=false`.
SWITCH_VALUES = frozenset(("true", "false", "true|false", "false|true", "*true*|*false*"))
#: Numbers and dates that begin with a sign are values shown as examples.
_NO_FLAG = re.compile(r"[-+]\d+\w*:|\+\d+[a-z]|[-+]{1,2}[.,;:]+\Z")
#: Single letters and words without a dash, as BSD programs and those of key words take them.
LETTER = re.compile(r"([A-Za-z])(?:\s+([a-z]+))?\Z")
KEYED = re.compile(r"([a-z][\w-]*)=([A-Z][A-Z0-9_.,-]*|<[^<>]+>)\Z")
WORDED = re.compile(r"([a-z][\w-]*)(?:\s+<?([A-Z][\w-]*)>?)?(?:\s+\(default\))?\Z")


class Tag(Record):
    """What a tag says. `bare`: the spellings that take no argument, though another of the tag may
    have one. `written`: the spellings with their arguments as they are printed, [] without any.
    """

    flags: list[str]
    argument: str | None
    argument_optional: bool
    repeatable: bool
    bare: list[str]
    written: list[str] = []  # noqa: RUF012 - a record is immutable


def read_tag(text: str) -> Tag | None:
    """What a tag says, lines of it being several spellings; None if it names no option."""
    text = _BLANKS.sub(" ", text)  # the separators try each run of blanks in many ways
    text = _NEGATABLE.sub("", text)
    text = _IN_BRACKETS.sub(r", \1", text)
    reader = _TagReader()
    for piece in _SEPARATOR.split(text):
        spelled, rest, repeats = _spelled(piece.strip())
        if spelled:
            reader.add(spelled, rest, repeats)
    return reader.tag()


def _spelled(piece: str) -> tuple[list[str], str, bool]:
    """The spellings that a piece of a tag stands for, what is written behind, and whether dots end
    the spelling; none if it is no option.
    """
    span = _SPAN.match(piece)
    if span and span[1][1] < span[2]:
        return [f"-{n}" for n in range(int(span[1][1]), int(span[2]) + 1)], "", False
    numeric = _NUMERIC.match(piece)
    if numeric:
        return [numeric[1]], "", False
    match = _FLAG.fullmatch(piece)
    if not match or not match[2].strip("-+") or _NO_FLAG.match(piece):
        return [], "", False
    flag, rest = match[2].rstrip(".:;") or match[2], match[3]
    part = _PART.fullmatch(flag)
    if part and _argument_in(part):
        flag, rest = part[1], f"[{part[2]}]"
    if flag[-1] == "#" and len(flag) > 2 and not rest:
        flag, rest = flag[:-1], "#"
    return _spellings(flag), rest, match[2].endswith("...")


class _TagReader:
    """Gathers the spellings of one tag and the arguments that are written with them."""

    def __init__(self) -> None:
        self.flags: list[str] = []
        self.written: dict[str, str] = {}  # what follows each spelling
        self.alone: list[str] = []  # spellings without an argument of their own
        self.loose: list[str] = []  # spellings whose own argument may be left out
        self.short_takes = False  # a short spelling shows an argument of its own
        self.argument: str | None = None
        self.optional = self.repeatable = False

    def add(self, spelled: list[str], rest: str, repeats: bool) -> None:
        """Spellings, what is written behind them, and whether dots follow them."""
        self.repeatable = self.repeatable or repeats
        self.flags += [one for one in spelled if one not in self.flags]
        rest = _without_remark(rest)
        shown = rest.strip()
        if shown == "..." and rest[:1] == " ":  # `-f|--force ...`: it may be given again
            self.repeatable, shown = True, ""
        behind = ""
        if shown:
            self.repeatable = self.repeatable or shown.endswith("...")
            behind = self.shown_argument(spelled, rest)
        for one in spelled:
            self.written[one] = self.written.get(one) or behind
        if not shown or self.argument is None:
            self.alone += spelled

    def shown_argument(self, spelled: list[str], rest: str) -> str:
        """Take up what stands behind spellings; it as it is printed, "" if it is no argument."""
        own, may_lack = _argument(rest)
        may_lack = may_lack or own in SWITCH_VALUES
        if own is not None:
            self.short_takes = self.short_takes or (len(spelled[0]) == 2 and not may_lack)
            if may_lack or any(flag in self.alone for flag in spelled):
                self.loose += spelled  # also where it stands in the tag without one
        if self.argument is None:
            self.argument, self.optional = own, may_lack
        return rest.rstrip() if own is not None else ""

    def tag(self) -> Tag | None:
        """All that was gathered; None if there was no spelling."""
        flags, argument, optional = self.flags, self.argument, self.optional
        if argument:  # `-Lfolder / -L folder` is one spelling
            flags = [
                flag
                for flag in flags
                if not (flag.endswith(argument) and flag.removesuffix(argument) in flags)
            ]
        if not flags:
            return None
        # an optional argument belongs to the spellings that show it: the short one beside takes
        # none and so do short ones beside another that shows its own
        strict = optional or self.short_takes
        bare = [flag for flag in self.alone if len(flag) == 2] if strict else []
        if argument is not None and not optional:
            if self.loose and set(flags) <= set(self.loose) | set(self.alone):
                optional = True
            else:
                bare += self.loose
        written = [flag + self.written[flag] for flag in flags] if argument is not None else []
        return Tag(flags, argument, optional, self.repeatable, bare, written)


def read_keyword(text: str) -> Tag | None:
    """What a tag without a dash says: `U userlist`, `bs=BYTES`, `dev IFNAME`."""
    for pattern in (KEYED, LETTER, WORDED):
        match = pattern.match(text)
        if match:
            argument = match[2].strip("<>") if match[2] else None
            written = [match[0]] if argument else []
            return Tag([match[1]], argument, False, False, [], written)
    return None


def _spellings(flag: str) -> list[str]:
    """`--[no-]x`, `--reference[-if-able]` and `--colo[u]r` are two each."""
    either = _EITHER.fullmatch(flag)
    if either:
        return [either[1] + either[3], either[1] + either[2] + either[3]]
    part = _PART.fullmatch(flag)
    if part and _argument_in(part) is None:
        return [part[1] + part[3], part[1] + part[2] + part[3]]
    return [flag]


def _argument_in(part: re.Match[str]) -> str | None:
    """The placeholder in brackets that stands close to a letter, as in `-i[SUFFIX]`; None if it is
    part of the name.
    """
    from dowsing.model.value_kinds import kind_of_placeholder

    short = len(part[1]) == 2 and not part[3]
    return (
        part[2] if short and (part[2].isupper() or kind_of_placeholder(part[2]) != "text") else None
    )


def _without_remark(rest: str) -> str:
    """What is written behind a flag, without a remark in brackets at its end."""
    return _REMARK.sub("", rest) if ")" in rest else rest


def _argument(rest: str) -> tuple[str | None, bool]:
    """The placeholder after a flag and whether it may be left out."""
    inner = rest.strip()
    optional = inner.startswith("[") and _closing(inner) == len(inner) - 1
    if optional:
        inner = inner[1:-1]
    elif re.fullmatch(r"(?:\[[^\[\]]*\])+", inner):  # `[<n>][/<m>]`: all of it may be left out
        optional = True
    if inner == "=":
        return "", optional
    inner = inner.removeprefix("=").strip()
    match = re.match(r"<([^<>]*)>\Z|(.*)", inner, re.DOTALL)
    name = (match[1] or match[2] or "").strip() if match else ""
    name = name.split("\n")[0].rstrip(",;:")
    if name in ("|", "/", "-", "--"):  # what parts it from another spelling
        return None, False
    if len(name) > MOST_ARGUMENT and rest.lstrip()[:1] in "=[":
        return name[:MOST_ARGUMENT] + "…", optional
    if (
        not name
        or len(name) > MOST_ARGUMENT
        or (" " in name and not re.search(r"[<\[=|]|\.\.\.", name) and len(name) > 24)
    ):
        return None, False
    return name, optional


def _closing(text: str) -> int:
    """Where the bracket that `text` begins with is closed; the last place if it never is."""
    depth = 0
    for at, char in enumerate(text):
        depth += {"[": 1, "]": -1}.get(char, 0)
        if not depth:
            return at
    return len(text) - 1
