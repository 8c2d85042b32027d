"""Makefiles: the recipes below their targets (POSIX.1-2017, make, with what GNU's adds)."""

from __future__ import annotations

import re

from dowsing.commandline.scripts.fragments import Fragment, Where
from dowsing.commandline.scripts.logical_lines import logical_lines
from dowsing.model.told import told

_RULE = re.compile(
    r"(?P<targets>[^\s#:=][^#:=\t]*?)\s*::?(?!=)\s*(?P<needs>[^=#;]*)(?:;(?P<recipe>.*))?$"
)
_NO_RULES = (".PHONY", "export ", "include ")
#: `NAME = value`; of a line that is set in, as within a condition, only with blanks around the
#: sign, where a shell would take none.
_SETS = re.compile(
    r"(?:(?:export|override)\s+)?([A-Za-z_][\w.-]*)\s*(?::{1,3}|\?|(\+))?=(?!=)\s*(.*)"
    r"|\t\s*([A-Za-z_][\w.-]*)\s+(?::{1,3}|\?|(\+))?=(?=\s|$)\s*(.*)",
    re.DOTALL,
)
_NAMED = re.compile(r"\$\(([\w.]+)\)|\$\{([\w.]+)\}")
_MOST_DEPTH = 8  # of variables within each other
#: What make itself sets (GNU make, "Implicit Variables").
_BUILT_IN = {"CC": "cc", "CXX": "g++", "AR": "ar", "RM": "rm -f", "MAKE": "make", "LEX": "lex"}
_PREFIX = re.compile(r"[@+-]*\s*")


def recognises(name: str, text: str) -> bool:
    """Whether it is a makefile, by its name."""
    return name.lower() in ("makefile", "gnumakefile") or name.endswith(".mk")


def fragments(text: str) -> list[Fragment]:
    """Each line of a recipe, with the values of its target and of variables put in."""
    found: list[Fragment] = []
    targets, needs = "", ""
    variables = _variables(text)
    for number, line in logical_lines(text):
        recipe = ""
        if _SETS.match(line):  # a shell would take no blanks there; a rule ends with it
            targets = needs = "" if not line.startswith("\t") else targets
            continue
        if line.startswith("\t"):
            recipe = _PREFIX.sub("", line[1:].replace("\n\t", "\n"), count=1)
        elif (rule := _RULE.match(line)) and not line.startswith(_NO_RULES):
            targets, needs = rule["targets"].strip(), (rule["needs"] or "").strip()
            recipe = (rule["recipe"] or "").strip()
        if targets and recipe.strip() and not recipe.startswith("#"):
            shell = _for_shell(recipe, targets, needs, variables)
            found.append(Fragment(shell, number, told(Where.TARGET, targets)))
    return found


def _variables(text: str) -> dict[str, str]:
    """What variables are set to, each by the line that sets it last; of one that is set twice, or
    that somebody may set before make begins, it is not known.
    """
    found = dict(_BUILT_IN)
    unsure: set[str] = set()
    for _, line in logical_lines(text):
        match = _SETS.match(line)
        if match is None:
            continue
        name, sign, value = match.groups()[:3] if match[1] else match.groups()[3:]
        if sign == "+":
            found[name] = f"{found.get(name, '')} {_bare(value)}".strip()
        elif name in found and name not in _BUILT_IN:
            unsure.add(name)
        else:
            found[name] = _bare(value)
    return {name: value for name, value in found.items() if name not in unsure}


def _bare(value: str) -> str:
    """A value without the remark behind it, on one line."""
    return " ".join(re.sub(r"(?:\A|\s)#.*", "", value.replace("\\\n", " ")).split())


def _put_in(name: str, variables: dict[str, str], depth: int = 0) -> str | None:
    """The value of a variable, with those that it names put in; None if it is not known."""
    value = variables.get(name)
    if value is None or depth > _MOST_DEPTH:
        return None
    parts = []
    at = 0
    for match in _NAMED.finditer(value):
        inner = _put_in(match[1] or match[2], variables, depth + 1)
        if inner is None:
            return None
        parts += [value[at : match.start()], inner]
        at = match.end()
    told = "".join(parts) + value[at:]
    return None if "$" in told else told


def _for_shell(recipe: str, targets: str, needs: str, variables: dict[str, str]) -> str:
    """A recipe as the shell gets it: `$@` and its like are known, `$(NAME)` is a variable, `$$` a
    dollar sign.
    """
    known = {
        "$@": targets.split()[0] if targets.split() else "",
        "$<": needs.split()[0] if needs.split() else "",
        "$^": needs,
        "$?": needs,
        "$+": needs,
    }
    kept: list[str] = []
    for match in re.finditer(
        r"\$\$|\$[@<^?+]|\$\(([\w.]+)\)|\$\{([\w.]+)\}|\$\([^()]*\)|.", recipe, re.DOTALL
    ):
        token = match[0]
        name = match[1] or match[2]
        if token == "$$":
            kept.append("$")
        elif token in known:
            kept.append(known[token])
        elif name:
            value = _put_in(name, variables)
            kept.append(f"${{{name.replace('.', '_')}}}" if value is None else value)
        elif token.startswith("$("):
            kept.append("${MADE_BY_MAKE}")  # a function of make's own
        else:
            kept.append(token)
    return "".join(kept)
