"""Kept lines as a shell script: each with its task as a comment, slots as arguments of the
script.
"""

from __future__ import annotations

from dowsing.commandline.grammar.shell_grammar import is_readable, parse_shell
from dowsing.knowledge.recipes import PART, SLOT, Recipe, quoted_slots, shell_script_slots
from dowsing.model.markup import escaped, has_unsafe


def script_of(recipes: list[Recipe], day: str) -> str:
    """The script. Slots become variables, which are the arguments in the order in which they first
    occur; what a shell cannot read is left out, which a comment says.
    """
    names = list(dict.fromkeys(name for one in recipes for name in SLOT.findall(_whole(one))))
    defaults = {
        slot.name: slot.default for one in recipes for slot in one.slots if slot.default is not None
    }
    rows = [
        "#!/usr/bin/env bash",
        f"# Written by dowsing saved --script, {day}.",
        "set -euo pipefail",
    ]
    if names:
        rows += ["", f"# arguments: {' '.join(names)}"]
    for place, name in enumerate(names, 1):
        kept = defaults.get(name)
        said = f"say the {name.replace('-', ' ')}"
        rows.append(
            f"{_variable(name)}=${{{place}:-{_literal(kept)}}}"
            if kept is not None
            else f"{_variable(name)}=${{{place}:?{said}}}"
        )
    rows += [_check(name) for name in names if name in _checked(recipes)]
    for one in recipes:
        rows += [
            "",
            *(f"# {line}" for line in escaped(one.task).split("\\n")),
            *_taken_over(_with_variables(_whole(one))),
        ]
    return "\n".join(rows) + "\n"


def _checked(recipes: list[Recipe]) -> set[str]:
    """The slots within quotes that no shell reads: a program of another language, in which quoting
    is of no help.
    """
    found: set[str] = set()
    for one in recipes:
        line = _whole(one)
        found |= set(quoted_slots(line)) - shell_script_slots(line)
    return found


def _check(name: str) -> str:
    says = f"{name.replace('-', ' ')}: letters, digits and ._:@%+,- alone"
    variable = _variable(name)
    return (
        f"case ${variable} in '' | *[!A-Za-z0-9._:@%+,-]* | [.:@%+,-]*) echo '{says}' >&2; "
        "exit 2 ;; esac"
    )


def _taken_over(line: str) -> list[str]:
    """The line as it stands in the script; one that a shell cannot read is told as a comment."""
    if is_readable(line) or parse_shell(line).problem is None:
        return [_readable(line)]
    return [
        "# left out, for a shell cannot read it:",
        *(f"#   {one}" for one in escaped(line).split("\\n")),
    ]


def _readable(line: str) -> str:
    """The line so that no control character stands in the script: escaped as a whole, where it
    holds any but tabs.
    """
    if not has_unsafe(line):
        return line
    return (
        f"eval $'{escaped(line.replace(chr(92), chr(92) * 2).replace(chr(39), chr(92) + chr(39)))}'"
    )


def _whole(recipe: Recipe) -> str:
    """The line with what its slots call for, without its named parts."""
    return PART.sub(lambda match: match[2] if match[1] is None else "", recipe.line)


def _variable(name: str) -> str:
    return name.replace("-", "_")


def _literal(text: str) -> str:
    return "".join(f"\\{char}" if char in "\\\"$`}'" else char for char in text)


def _with_variables(line: str) -> str:
    """The line with its slots as variables, quoted as the place that each stands in needs it.

    Where another shell reads the text that a slot stands in, the value is quoted for that shell as
    well.
    """
    scripts = shell_script_slots(line)
    made: list[str] = []
    quote = ""
    at = 0
    while at < len(line):
        match = SLOT.match(line, at)
        if match:
            name = _variable(match[1])
            value = f"${{{name}@Q}}" if quote and match[1] in scripts else f"${{{name}}}"
            made.append({"": f'"${name}"', '"': value, "'": f"'\"{value}\"'"}[quote])
            at = match.end()
            continue
        char = line[at]
        if char == "\\" and quote != "'":
            made.append(line[at : at + 2])
            at += 2
            continue
        if char in "'\"" and quote in ("", char):
            quote = "" if quote else char
        made.append(char)
        at += 1
    return "".join(made)
