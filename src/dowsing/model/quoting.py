"""Words as a shell of the POSIX kind reads them (POSIX.1-2017, XCU 2.2): quoting values, and
reading what is typed.
"""

from __future__ import annotations

import re

# patterns are compiled when they are first needed: most who come here want `quoted` alone
#: Characters that mean nothing to any shell wherever they stand in a word.
_PLAIN = r"[A-Za-z0-9_@%+=:,./^-]+\Z"
_SEGMENT = r"'[^']*'|\"(?:[^\"\\]|\\.)*\"|\$'(?:[^'\\]|\\.)*'|\\'"
_QUOTED_WORD = rf"(?:~[\w-]*/)?(?:{_SEGMENT}|[\w@%+=:,./^-])+\Z"
#: A word with something in single quotes and something that needs none.
_PARTLY_QUOTED = r"(?=.*')(?:'[^']*'|[\w@%+=:,./^-])+"
_PIECE = rf"({_SEGMENT})|('[^']*\Z|\"[^\"]*\Z)|([^'\"]+|(?s:.))"


def quoted(text: str) -> str:
    """The text as a word that a shell takes literally, in quotes whatever is in it.

    A quote within is written `'\\''` and not as the standard library does (`'"'"'`): lines within
    lines stay readable.
    """
    return "'" + text.replace("'", "'\\''") + "'"


def word(text: str) -> str:
    """The text as a word that a shell takes literally: as it is where nothing in it means anything,
    else in quotes.
    """
    return text if re.match(_PLAIN, text) else quoted(text)


def fish_quoted(text: str) -> str:
    """The same for fish, in which a backslash within single quotes means something before a quote
    and another one.
    """
    return "'" + text.replace("\\", "\\\\").replace("'", "\\'") + "'"


def is_quoted_word(text: str) -> bool:
    """Whether the text is one word whose special characters are all in quotes; a home folder may
    stand before them.
    """
    return any(quote in text for quote in "'\"") and re.match(_QUOTED_WORD, text) is not None


def joined_quotes(line: str) -> str:
    """A line with one pair of quotes around each word of which parts are in single quotes:
    `s/';'/,/g` becomes `'s/;/,/g'`. Options and assignments stay as they are, and so does a line
    with anything else that quotes.
    """
    if "'" not in line or '"' in line or "`" in line or "$(" in line:
        return line
    for start, part in reversed(items(line)):
        if re.fullmatch(_PARTLY_QUOTED, part) and not re.match(r"-|~|\w+=|('[^']*')+\Z", part):
            line = line[:start] + quoted(bare(part)) + line[start + len(part) :]
    return line


def file_word(path: str) -> str:
    """A path as a word that is exactly that file: nothing in it is taken for a pattern, an option
    or a home folder.

    A path that begins with `~/` means the home folder.
    """
    home = "~/" if path.startswith("~/") else ""
    rest = path[len(home) :]
    if not home and rest[:1] in ("-", "+", "~"):
        rest = "./" + rest
    return home + (word(rest) if rest or not home else "")


def value_word(value: str, *, with_patterns: bool = False) -> str:
    """A value that was typed as one word of a shell.

    What is quoted already stays as it is; a variable by itself, a home folder and, `with_patterns`,
    patterns of names are left to the shell.
    """
    if is_quoted_word(value):
        return value
    if re.fullmatch(r"\$(?:\w+|\{\w+\})(?:/[\w./-]*)?", value):
        return f'"{value}"'
    if re.fullmatch(r"~[\w-]*(?:/[\w@%+=:,./-]*)?", value):
        return value
    if (
        with_patterns
        and re.fullmatch(r"[\w@%+=:,./*?~\[\]-]+", value)
        and re.search(r"[*?\[]", value)
    ):
        return value
    return word(value)


def bare(word: str) -> str:
    """What a typed word stands for as far as its quotes tell; a quote that is still open ends with
    the word.
    """
    if "'" not in word and '"' not in word:
        return word
    return "".join(_bare_piece(*match.groups()) for match in re.finditer(_PIECE, word))


def _bare_piece(whole: str | None, unended: str | None, plain: str | None) -> str:
    if whole is None:
        return plain if unended is None else unended[1:]  # type: ignore[return-value]
    if whole == "\\'":
        return "'"
    if whole.startswith("$'"):
        return whole[2:-1]
    inner = whole[1:-1]
    return re.sub(r"\\([\"\\$`])", r"\1", inner) if whole.startswith('"') else inner


def items(text: str) -> list[tuple[int, str]]:
    """The words of what is typed, each with its quotes and where it begins. A quote left open goes
    to the end.
    """
    return [
        (match.start(), match[0])
        for match in re.finditer(rf"(?:{_SEGMENT}|'[^']*\Z|\"[^\"]*\Z|[^\s])+", text)
    ]
