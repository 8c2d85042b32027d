"""The snippet of a shell, with the keys that the user wants."""

from __future__ import annotations

import os
import re

from dowsing.model.quoting import fish_quoted, quoted

SHELLS = {"bash": "bash.sh", "zsh": "zsh.zsh", "fish": "fish.fish"}
#: What the keys do, each with a key that none of the shells uses.
KEYS = {"next": "alt-i", "compose": "alt-k", "unpick": "alt-j", "read": "alt-m"}
SAYS = {
    "next": "what may come next",
    "compose": "compose the line",
    "unpick": "take the line apart",
    "read": "read the page of the word",
}
_FUNCTION = {
    1: "OP",
    2: "OQ",
    3: "OR",
    4: "OS",
    5: "[15~",
    6: "[17~",
    7: "[18~",
    8: "[19~",
    9: "[20~",
    10: "[21~",
    11: "[23~",
    12: "[24~",
}
_HERE = os.path.dirname(os.path.abspath(__file__))


class BadKey(ValueError):
    """A key that cannot be bound; the message says what can."""


def snippet(shell: str, keys: dict[str, str]) -> str:
    """The text that a shell is to source. `keys` are those that differ from the usual ones, "" for
    none.

    Raises BadKey.
    """
    unknown = next((name for name in keys if name not in KEYS), "")
    if unknown:
        raise BadKey(f"there is no key for “{unknown}”; keys are for {', '.join(KEYS)}")
    chosen = {**KEYS, **keys}
    lines = []
    with open(os.path.join(_HERE, SHELLS[shell]), encoding="utf-8") as file:
        for line in file.read().split("\n"):
            match = re.match(r"#key (\w+) (.*)", line)
            if match is None:
                lines.append(line)
            elif chosen[match[1]]:
                lines.append(match[2].replace("@KEY@", sequence(shell, chosen[match[1]])))
    return "\n".join(lines)


def sequence(shell: str, key: str) -> str:
    """A key, such as `alt-i`, `ctrl-x n` or `f6`, as the shell writes what the terminal sends.
    Raises BadKey.
    """
    return "".join(_one(shell, part) for part in key.lower().split()) or _one(shell, key)


def _one(shell: str, key: str) -> str:
    escape = "^[" if shell == "zsh" else r"\e"
    match = re.fullmatch(r"(?:(alt|ctrl)-)?([a-z0-9,;:=])|f(\d{1,2})", key)
    if match is None or (match[3] and int(match[3]) not in _FUNCTION):
        raise BadKey(f"“{key}” is no key: write alt-i, ctrl-o, ctrl-x n or f6")
    if match[3]:
        return escape + _FUNCTION[int(match[3])]
    if match[1] == "alt":
        return escape + match[2]
    if match[1] == "ctrl":
        return {"bash": r"\C-", "zsh": "^", "fish": r"\c"}[shell] + match[2]
    return match[2]


def startup_file(shell: str, environment: dict[str, str]) -> str:
    """The file that the shell reads when it starts."""
    home = environment.get("HOME") or os.path.expanduser("~")
    if shell == "zsh":
        return os.path.join(environment.get("ZDOTDIR") or home, ".zshrc")
    if shell == "fish":
        return os.path.join(
            environment.get("XDG_CONFIG_HOME") or os.path.join(home, ".config"),
            "fish",
            "config.fish",
        )
    return os.path.join(home, ".bashrc")


def source_line(shell: str, path: str) -> str:
    """The one line for the start-up file, which does nothing where the snippet is gone."""
    if shell == "fish":
        word = fish_quoted(path)
        return f"test -f {word}; and source {word}"
    word = quoted(path)
    return f"[ -f {word} ] && . {word}"
