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
_PREFIX = re.compile(r"[@+-]*\s*")


def recognises(name: str, text: str) -> bool:
    """Whether it is a makefile, by its name."""
    return name.lower() in ("makefile", "gnumakefile") or name.endswith(".mk")


def fragments(text: str) -> list[Fragment]:
    """Each line of a recipe, with the values of its target put in."""
    found: list[Fragment] = []
    targets, needs = "", ""
    for number, line in logical_lines(text):
        recipe = ""
        if line.startswith("\t"):
            recipe = _PREFIX.sub("", line[1:].replace("\n\t", "\n"), count=1)
        elif (rule := _RULE.match(line)) and not line.startswith(_NO_RULES):
            targets, needs = rule["targets"].strip(), (rule["needs"] or "").strip()
            recipe = (rule["recipe"] or "").strip()
        if targets and recipe.strip() and not recipe.startswith("#"):
            shell = _for_shell(recipe, targets, needs)
            found.append(Fragment(shell, number, told(Where.TARGET, targets)))
    return found


def _for_shell(recipe: str, targets: str, needs: str) -> str:
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
            kept.append(f"${{{name.replace('.', '_')}}}")
        elif token.startswith("$("):
            kept.append("${MADE_BY_MAKE}")  # a function of make's own
        else:
            kept.append(token)
    return "".join(kept)
