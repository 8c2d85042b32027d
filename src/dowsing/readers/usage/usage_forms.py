"""The forms in a usage text: the lines after `usage:`, and where they end."""

from __future__ import annotations

import re

from dowsing.readers.usage.cleaning import indentation
from dowsing.readers.usage.usage_words import USAGE_WORDS

_MARK = re.compile(
    r"(?P<before>\s*(?:\S+:\s+)?)(?P<mark>" + USAGE_WORDS + r")(?P<colon>\s*[:：])\s*(?P<rest>.*)",
    re.IGNORECASE,
)
_BARE_MARK = re.compile(r"\s*(?:USAGE|SYNOPSIS)\s*$")
_OR = re.compile(r"\s*or\b\s*:?\s+(?=\S)")
_DEFINITION = re.compile(r"\s*(?:where\s+)?[A-Z][A-Z_-]* := ")
MOST_FORMS = 60


class Forms:
    """Forms, and the lines that they were: `start` the first, `end` the one after the last."""

    def __init__(self, forms: list[str], start: int, end: int) -> None:
        self.forms = forms
        self.start = start
        self.end = end


def find_forms(lines: list[str], name: str) -> Forms | None:
    """The first group of forms in the lines of a usage text, or None."""
    for n, line in enumerate(lines):
        match = _MARK.match(line)
        if match and (
            not match["before"].strip() or match["before"].strip().rstrip(":").endswith(name)
        ):
            if match["rest"]:
                return _beside(lines, n, match)
            return _below(lines, n, name)
        if _BARE_MARK.match(line):
            return _below(lines, n, name)
    return _unmarked(lines, name)


def _beside(lines: list[str], start: int, match: re.Match[str]) -> Forms:
    """`usage: name …` with more forms and continued lines below it."""
    margin = indentation(lines[start])
    column = match.start("rest")
    forms = [match["rest"].strip()]
    first_word = forms[0].split()[0]
    end = start + 1
    while end < len(lines) and lines[end] and len(forms) < MOST_FORMS:
        line = lines[end]
        other = _OR.match(line)
        again = _MARK.match(line)
        if again and again["rest"]:
            forms.append(again["rest"].strip())
        elif other:
            forms.append(line[other.end() :].strip())
        elif indentation(line) <= margin or line.lstrip()[0] == "(":
            if indentation(line) <= margin:
                break
        elif line.split()[0] == first_word and indentation(line) <= column:
            forms.append(line.strip())
        elif (
            re.match(r"\s*-{1,2}\S+(?: \S+)*\s{2,}\S", line) and "[" not in line[: line.index("-")]
        ):
            break  # a list of options begins without a line between
        elif (
            indentation(line) < column
            and line.lstrip()[0] not in "[<{(|-"
            and not forms[-1].endswith(("|", "\\"))
        ):
            break
        else:
            forms[-1] = f"{forms[-1].rstrip(chr(92)).rstrip()} {line.strip()}"
        end += 1
    return _with_definitions(lines, Forms(forms, start, end))


def _with_definitions(lines: list[str], found: Forms) -> Forms:
    """Take along what defines the placeholders: `where OPTIONS := { -V[ersion] | -f[amily] NAME
    }`.
    """
    end = found.end
    while end < len(lines) and lines[end]:
        if _DEFINITION.match(lines[end]):
            found.forms.append(lines[end].strip().removeprefix("where").strip())
        elif end > found.end and indentation(lines[end]) > 2:
            found.forms[-1] += " " + lines[end].strip()
        else:
            break
        end += 1
    found.end = end
    return found


def _below(lines: list[str], start: int, name: str) -> Forms | None:
    """`Usage:` on a line of its own, the forms on the lines after it."""
    margin = indentation(lines[start])
    end = start + 1
    while end < len(lines) and not lines[end]:
        end += 1
    if end >= len(lines):
        return None
    inner = indentation(lines[end])
    if inner <= margin and lines[end].split()[0] != name:
        return None
    forms: list[str] = []
    while end < len(lines) and lines[end] and len(forms) < MOST_FORMS:
        here = indentation(lines[end])
        if here < inner or (inner > margin and here <= margin):
            break
        if here > inner and forms:
            forms[-1] += " " + lines[end].strip()
        else:
            other = _OR.match(lines[end])
            forms.append(_form_of(lines[end][other.end() if other else 0 :].strip(), name))
        end += 1
    return Forms(forms, start, end)


def _form_of(text: str, name: str) -> str:
    """A form without what is said of it in a column beside it."""
    return re.split(r"\s{2,}(?=[A-Za-z])", text)[0] if text.startswith(f"{name} ") else text


def _unmarked(lines: list[str], name: str) -> Forms | None:
    """A first line that is a form without saying so: the name, then brackets or placeholders."""
    for n, line in enumerate(lines[:3]):
        words = line.split()
        if (
            words
            and words[0] == name
            and len(words) > 1
            and re.search(r"[\[<{]|\.\.\.|\b[A-Z]{3,}\b", line)
        ):
            return Forms([line.strip()], n, n + 1)
        if words:
            break
    return None
