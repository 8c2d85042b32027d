"""Options that the forms of a synopsis name: `[-C <path>]`, `[--bare]`, `[-abc]`."""

from __future__ import annotations

import re

from dowsing.model.document import Option

_TOKEN = re.compile(
    r"(?<![\w\]<>=-])(?P<flag>--?[A-Za-z0-9?@#][\w?@#-]*|-\[[\w@#?]+\])"
    r"(?P<value>\[=[^\]]*\]|=(?:<[^>]*>(?:=<[^>]*>)?|[\w.:/{}|,-]+)|[ ](?:<[^>]*>(?:=<[^>]*>)?"
    r"|[A-Za-z][\w:.@=-]*(?=[\]\s|)]|$))|<[^>]*>)?"
)
_SHORTENED = re.compile(r"\[([a-z-]+)\]")
_VOWELS = frozenset("aeiouy")


def options_of_forms(forms: list[str], known: list[Option]) -> list[Option]:
    """The options in `forms` whose flags are not among those of `known`, in order, each once."""
    seen = {flag for option in known for flag in option.flags}
    spelled_long = any(re.fullmatch(r"-\w{2,}", flag) for flag in seen)
    found: list[Option] = []
    for form in forms:
        for match in _TOKEN.finditer(form):
            flag = match["flag"].replace("[", "").replace("]", "")
            rest = _SHORTENED.match(form, match.end("flag"))
            if rest and not match["value"]:  # `-V[ersion]`: a flag and what it is short for
                if flag not in seen:
                    found.append(Option([flag, flag + rest[1]]))
                seen.add(flag)
                continue
            if flag in seen or flag in ("-", "--"):
                continue
            letters = _cluster(flag, form, match.end("flag"), spelled_long)
            if letters:
                found += [Option([f"-{letter}"]) for letter in letters if f"-{letter}" not in seen]
                seen |= {f"-{letter}" for letter in letters}
                continue
            value = match["value"] or ""
            argument = re.sub(r"^\[?=?|^ ", "", value).rstrip("]")
            whole = re.fullmatch(r"<([^<>]*)>", argument)
            glued = re.fullmatch(
                r"(-[A-Z])([a-z]{3,})", flag
            )  # `-Olevel`: the value follows without a blank
            if glued and not argument:
                flag, argument = glued[1], glued[2]
            if flag not in seen:
                found.append(
                    Option([flag], (whole[1] if whole else argument) or None, value.startswith("["))
                )
            seen.add(flag)
    return found


def _cluster(flag: str, form: str, end: int, spelled_long: bool) -> str:
    """The letters of a flag that stands for several single ones; "" if it is one flag.

    Nothing but the letters tells: clusters repeat none and often go by the alphabet, words have a
    vowel early.
    """
    letters = flag[1:]
    if (
        flag.startswith("--")
        or len(letters) < 2
        or len(set(letters)) < len(letters)
        or "-" in letters
    ):
        return ""
    if form[end : end + 1] not in ("]", " ", ""):
        return ""
    if form[: end - len(flag)].rstrip()[-1:] != "[" and _VOWELS & set(letters.lower()):
        return ""
    mixed = letters != letters.lower() and letters != letters.upper()
    in_order = list(letters.lower()) == sorted(letters.lower())
    word = (
        not mixed
        and letters.isalpha()
        and not in_order
        and bool(_VOWELS & set(letters[:3].lower()))
    )
    if word and (len(letters) > 3 or spelled_long):
        return ""
    return letters
