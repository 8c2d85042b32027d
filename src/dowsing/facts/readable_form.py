"""The form of a synopsis that a first look needs: one that can be read, of the usual use."""

from __future__ import annotations

import re

#: Letters to choose among, as old forms have them: `{A|c|d}`, or a bundle of them without a dash.
_LETTERS = re.compile(r"\{\w(?:\|\w){2,}\}|(?<![\w-])\[(?=[A-Za-z]*[a-z][A-Z])[A-Za-z]{6,}\](?!\.)")
_ONLY_ASKS = re.compile(r"\S+ \[?-[hV](?:\|-[hV])*\]?\Z|\S+ --?(?:help|version)\Z")
_GROUP = re.compile(r"\[[^\[\]]*\]|\{[^{}]*\}|\([^()]*\)")
FEW = 3  # so many subcommands have forms of their own, where no form is for all


def readable_form(name: str, forms: list[str], usual: list[str]) -> str:
    """The first form, unless it cannot be read, asks for help only, takes nothing, or is that of
    one subcommand among several: then that of what is used most.

    `name`: as it is typed, `git stash`; `usual`: its options and subcommands, most used first.
    """
    forms = [form for form in forms if not form.startswith("#include")] or forms
    if not forms:
        return ""
    own = _subcommands(name, forms)
    if not _poor(forms[0], own):
        return forms[0]
    place = {word: n for n, word in enumerate(usual)}

    def order(form: str) -> tuple[bool, int, bool]:
        words = re.split(r"[\s\[\]]+", form)
        used = min((place[word] for word in words if word in place), default=len(usual))
        return (
            _cannot_be_read(form),
            used if own or _LETTERS.search(forms[0]) else 0,
            _takes_nothing(form),
        )

    return min(forms, key=order)


def _poor(form: str, subcommands: set[str]) -> bool:
    return _cannot_be_read(form) or _takes_nothing(form) or bool(subcommands & set(form.split()))


def _cannot_be_read(form: str) -> bool:
    return bool(_LETTERS.search(form) or _ONLY_ASKS.fullmatch(form))


def _takes_nothing(form: str) -> bool:
    """Whether nothing may be given but options and their values."""
    bare, before = form, ""
    while bare != before:
        before, bare = bare, _GROUP.sub(lambda group: _kept(group[0]), bare)
    return not any(word[:1] != "-" for word in bare.split()[1:])


def _kept(group: str) -> str:
    """What an optional group leaves: an operand, but no option and no `[options]`."""
    first = (group[1:-1].split() or [""])[0]
    return "" if first[:1] in ("", "-") or "option" in first.casefold() else " operand "


def _subcommands(name: str, forms: list[str]) -> set[str]:
    """The words that forms have behind the name, each a form of its own."""
    size = len(name.split())
    behind = [form.split()[size : size + 1] for form in forms]
    words = {word[0] for word in behind if word and re.fullmatch(r"[a-z][a-z-]+", word[0])}
    return words if len(words) >= FEW else set()
