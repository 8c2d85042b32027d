"""What a text says anywhere, in a list of options or in passing: the ground on which something may
be called missing.
"""

from __future__ import annotations

import re
from functools import cached_property

#: A flag wherever it stands: after a blank, a bracket, a quote or a bar, and not within a word.
_FLAG = re.compile(r"(?<![\w-])(?:--?|\+)(?:[\[({](?:no|un)-?[\])},]*)?[\w?#@%!$*:^][\w.-]*")
#: `--[no-]recurse`, `--(no-)recurse` and `--{no-,}recurse` are two flags each.
_WITH_NO = re.compile(r"--[\[({]((?:no|un)-?)[\])},]+(?=\w)")
#: Letters given together: `[-LP]`, `[-neE]`.
_CLUSTER = re.compile(r"\[-([A-Za-z0-9]{2,12})\]")
_NUMBERED = re.compile(r"[-+](?:\d+|[A-Z]{2,}\d*|[nN]|<\w+>|n(?:um|umber)?)\Z")
_LETTERS = re.compile(r"-[A-Za-z0-9]{3,}\Z")
_WITH_NUMBER = re.compile(r"(-[A-Za-z])\d+\Z")
LETTER = re.compile(r"[-+][A-Za-z0-9?@#%]\Z")


class Said:
    """The flags and words of a text. `text` has no marks; it is looked at when first asked."""

    def __init__(self, text: str) -> None:
        self.text = text

    @cached_property
    def flags(self) -> frozenset[str]:
        """Every flag as it is written, without a value that is joined to it."""
        text = _WITH_NO.sub(lambda match: f"--{match[1].rstrip('-')}-", self.text)
        both = text if text == self.text else text + "\n" + _WITH_NO.sub("--", self.text)
        found = {token.rstrip(".-:") for token in _FLAG.findall(both)}
        for letters in _CLUSTER.findall(self.text):
            if len(set(letters)) == len(letters):  # `[-Olevel]` is one flag with its value
                found |= {f"-{letter}" for letter in letters}
        return frozenset(found)

    @cached_property
    def _folded(self) -> frozenset[str]:
        return frozenset(flag.casefold() for flag in self.flags if not LETTER.match(flag))

    @cached_property
    def _words(self) -> frozenset[str]:
        return frozenset(re.findall(r"\w+", self.text))

    def has_flag(self, flag: str, others: frozenset[str] = frozenset()) -> bool:
        """Whether the flag stands anywhere, in any case if it is a word, or with a value joined to
        it, or among letters that are given together. `others` are flags of other options:
        `-delete` is then no `-d` with a value, and `-ilrsD` is five letters.
        """
        if flag in self.flags:
            return True
        if not LETTER.match(flag):
            return flag.casefold() in self._folded
        return any(
            one.startswith(flag) or (flag[1] in one and is_cluster(one, others))
            for one in self.flags
            if one not in others and not one.startswith("--")
        )

    def has_exactly(self, flag: str) -> bool:
        """Whether the flag stands as such."""
        return flag in self.flags

    def has_name(self, name: str) -> bool:
        """Whether the name (of a variable, a setting, a file) stands as such."""
        return name in self._words if re.fullmatch(r"\w+", name) else name in self.text

    def has_number(self, number: str) -> bool:
        """Whether the number stands by itself."""
        return re.search(rf"(?<![\w.,]){re.escape(number)}(?![\w,]|\.\d)", self.text) is not None


def is_cluster(flag: str, letters: frozenset[str]) -> bool:
    """Whether what looks like a flag is several letters given together: `-ilrsD`."""
    if not _LETTERS.match(flag):
        return False
    return all(f"-{letter}" in letters for letter in flag[1:])


def plain_flag(flag: str) -> str:
    """A flag as it is compared: without a value's mark at its end, or a number joined to it."""
    bare = flag.rstrip("=").split("=")[0].split("[")[0].split("<")[0]
    return _WITH_NUMBER.sub(r"\1", bare)


def is_number(flag: str) -> bool:
    """Whether the flag stands for a number or another value: `-NUM`, `+FORMAT`, `-5`."""
    return _NUMBERED.match(flag) is not None
