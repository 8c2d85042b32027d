"""What came back when a program was asked for its usage: a usage text, an echo, an error, an
effect, nothing.
"""

from __future__ import annotations

import re

from dowsing.model.record import Record
from dowsing.readers.usage.cleaning import clean_lines
from dowsing.readers.usage.usage_kind import UsageKind
from dowsing.readers.usage.usage_words import USAGE_WORDS

_USAGE = re.compile(
    rf"^\s*(?:\S+:\s+)?(?:(?:usage|use|synopsis)\s*(?::|$|of\b)|(?:{USAGE_WORDS})\s*[:：])"
    r"|^\s*usage\s+\S+",
    re.IGNORECASE,
)
_OPTION_LINE = re.compile(r"^\s*-{1,2}[\w?][\w-]*(?:[ =,|\[<]|\s{2,}|$)")
_HEADING = re.compile(
    r"^\s*(?:[\w ]*\b(?:options|commands|arguments|flags|switches)\b[^.]{0,60}):?\s*$",
    re.IGNORECASE,
)
_REFUSAL = re.compile(
    r"\b(?:invalid|illegal|unknown|unrecogni[sz]ed|bad|unexpected|not found|no such|cannot|can't"
    r"|missing|failed|error|permission denied|command not found|not permitted|syntax error)\b",
    re.IGNORECASE,
)


class Verdict(Record):
    """What an output is; `says` is one line about it."""

    kind: UsageKind
    says: str


def judge(output: str, flag: str, name: str, status: int | None) -> Verdict:
    """Judge what `name flag` printed. `status` is the exit status, None if it was ended."""
    lines = clean_lines(output)
    filled = [line for line in lines if line.strip()]
    if not filled:
        return Verdict(UsageKind.NOTHING, f"{name} {flag} prints nothing")
    first = filled[0].strip()
    if len(filled) <= 2 and all(
        _bare(line) in ("", flag, flag.lstrip("-"), f"{name} {flag}") for line in filled
    ):
        return Verdict(UsageKind.ECHO, f"{name} {flag} prints the words it is given")
    if looks_like_usage(filled, name):
        return Verdict(UsageKind.USAGE, "")
    refused = _REFUSAL.search(" ".join(filled[:3])) is not None
    if refused or (status and len(filled) <= 4):
        return Verdict(UsageKind.ERROR, f"{name} {flag} ends with an error: {first[:120]}")
    return Verdict(
        UsageKind.EFFECT, f"{name} {flag} prints something that is no usage text: {first[:80]}"
    )


def _bare(line: str) -> str:
    return line.strip().strip("\"'`‘’“”")


def looks_like_usage(filled: list[str], name: str) -> bool:
    """Whether lines (none empty) are a usage text.

    A usage line says so by itself; without one, lists of options or a form with brackets must.
    """
    head = filled[:40]
    if any(_USAGE.match(line) and not _is_complaint(line) for line in head):
        return True
    options = sum(_OPTION_LINE.match(line) is not None for line in filled)
    headings = sum(_HEADING.match(line) is not None for line in filled)
    if options >= 3 or (options and headings) or headings >= 2:
        return True
    form = re.compile(rf"\s*(?:\S*: )?{re.escape(name)}\s+(?:[\[<{{-]|[A-Z]{{2,}}\b|\S+ \[)")
    if any(form.match(line) for line in filled[:4]) and not _REFUSAL.search(filled[0]):
        return len(filled) > 1 or "[" in filled[0] or "<" in filled[0]
    return False


def _is_complaint(line: str) -> bool:
    """`usage: unknown option` says nothing of the usage."""
    rest = line.partition(":")[2]
    return bool(_REFUSAL.search(rest)) and "[" not in rest and "<" not in rest
