"""A word as the shell reads it before a command gets it: quotes, expansions, patterns of names."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Part, Reading

_NAME = r"[A-Za-z_]\w*|[0-9@*#?$!_-]"
_TOKEN = (
    rf"(?P<sum>\$\(\((?:[^()]|\((?:[^()]|\([^()]*\))*\))*\)\))|(?P<expansion>\$(?:{_NAME}))"
    r"|(?P<single>'[^']*')|(?P<ansi>\$'(?:\\.|[^'\\])*')|(?P<quote>\")|(?P<escape>\\.)"
    r"|(?P<tilde>\A~[\w-]*(?=/|\Z))|(?P<other>[^$'\"\\`~<>]+|.)"
)
#: What a word must have for the shell to change it.
_MAY_CHANGE = frozenset("$`*?[{~")
_ALONE = re.compile(r"\"?\$(?:[A-Za-z_]\w*|\{[A-Za-z_]\w*\})\"?\Z")


def read(value: str, dialect: str = "") -> Reading:
    """What the shell puts in the place of parts of the word; nothing of one that it leaves as it
    is, and of one that is just a variable. With the dialect `data` it is no pattern of names.
    """
    if not _MAY_CHANGE & set(value) or re.match(_ALONE, value):
        return NOTHING
    if dialect != "data" and not re.search(r"[$'\"`\\]", value):
        return _names(value)
    cutter = Cutter(value)
    in_quotes = False
    token = re.compile(_TOKEN, re.DOTALL)
    while cutter.at < len(value):
        braced = _braced_end(value, cutter.at)
        if braced:
            text = value[cutter.at : braced]
            cutter.cut(braced, _expansion(text) if text[1] == "{" else "")
            continue
        match = token.match(value, cutter.at)
        if match is None:
            break
        in_quotes ^= match.lastgroup == "quote"
        if match.lastgroup == "single" and in_quotes:  # an apostrophe within double quotes
            cutter.cut(cutter.at + 1)
            continue
        cutter.cut(match.end(), _says(match))
    return cutter.finish()


def _says(match: re.Match[str]) -> str:
    kind, text = match.lastgroup, match[0]
    if kind == "sum":
        from dowsing.commandline.languages.arithmetic import sum_words

        return sum_words(text[3:-2])
    if kind == "expansion":
        return _expansion(text)
    if kind == "tilde":
        return tilde_words(text)
    if kind == "ansi":
        return "with its escapes carried out: \\n is a new line, \\t a tab"
    return ""


def _expansion(text: str) -> str:
    from dowsing.commandline.languages.expansion import expansion_words

    return expansion_words(text)


def tilde_words(text: str) -> str:
    """`~`, `~name`, `~-`."""
    return {
        "~": "your home folder",
        "~+": "the folder that you are in",
        "~-": "the folder that you were in before",
    }.get(text, f"the home folder of {text[1:]}")


def _braced_end(value: str, at: int) -> int:
    """Where `${…}`, `$(…)` or a pair of backquotes ends that begins there; 0 if none does."""
    if value[at] == "`":
        end = value.find("`", at + 1)
        return end + 1 if end > 0 else 0
    if value[at] != "$" or value[at + 1 : at + 2] not in ("{", "(") or value.startswith("$((", at):
        return 0
    opener = value[at + 1]
    closer = "}" if opener == "{" else ")"
    depth = 0
    for end in range(at + 1, len(value)):
        depth += (value[end] == opener) - (value[end] == closer)
        if not depth:
            return end + 1
    return 0


def _names(value: str) -> Reading:
    """A word without quotes: braces, a home folder, a pattern of names."""
    cutter = Cutter(value)
    made = _expanded(value) if "{" in value else ""
    if made:
        cutter.cut(len(value), f"becomes: {made}")
        return cutter.finish()
    tilde = re.match(r"~[\w+-]*(?=/|\Z)", value)
    if tilde:
        cutter.cut(tilde.end(), tilde_words(tilde[0]))
    if re.search(r"[*?]|\[.+\]", value):
        folder, _, name = value.rpartition("/")
        cutter.cut(max(cutter.at, len(value) - len(name)))
        cutter.cut(len(value), _glob_words(name, folder), _glob_parts(name))
    return cutter.finish()


def _expanded(value: str) -> str:
    """The words that braces make, "" if they make none."""
    from dowsing.commandline.languages.braces import expanded, words_shown

    made = expanded(value)
    return words_shown(made) if made else ""


def _glob_parts(name: str) -> list[Part]:
    """The signs of a pattern that is not plain."""
    from dowsing.commandline.languages.glob import is_simple, read

    return [] if is_simple(name) else read(name).parts


def _glob_words(name: str, folder: str) -> str:
    from dowsing.commandline.languages.glob import phrase

    where = " there" if folder else " here"
    if not re.search(r"[*?\[]", name):
        return ""
    return f"the names{where} {phrase(name)}" if name != "*" else f"all names{where}"
