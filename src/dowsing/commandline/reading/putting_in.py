"""Puts in what the shell itself is known to put in before a command gets its words: braces, and
variables and lists that were set earlier on the same line.
"""

from __future__ import annotations

import re
import shlex
from collections import Counter

from dowsing.commandline.grammar.shell_words import Mark, SimpleCommand, Word
from dowsing.commandline.languages.braces import expanded
from dowsing.model.roles import Role

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Item

MOST_WORDS = 20  # that one word becomes; of more it is told as it stands
_SETS = re.compile(r"([A-Za-z_]\w*)=(.*)", re.DOTALL)
_USE = re.compile(r"\$(?:([A-Za-z_]\w*)|\{([A-Za-z_]\w*)(?:\[[@*]\])?\})")
#: A variable in quotes of its own, within a word.
_QUOTED = re.compile(r'"(\$(?:[A-Za-z_]\w*|\{[A-Za-z_]\w*\}))"')
#: What makes a value more than the text that stands there.
_MADE = frozenset("$`*?[{~<>|&;\\")


class Variables:
    """The variables whose value is known: set once, to plain text, where nothing else may set
    them. `values`: the words that each becomes.
    """

    def __init__(self, items: list[Item], text: str) -> None:
        self.values: dict[str, list[str]] = {}
        marks = [one for one in items if isinstance(one, Mark)]
        sets = Counter(_name_of(one) for one in marks if one.role == Role.ASSIGNMENT)
        is_plain = not any(one.role == Role.KEYWORD for one in marks)  # no loops, no branches
        #: Those that stay as they are, by their names, from the item behind which they are set.
        self._lasting = {name for name, count in sets.items() if count == 1} if is_plain else set()
        self._text = text

    def note(self, item: Item, following: Item | None) -> None:
        """An item was passed: it may set a variable for what follows."""
        if not isinstance(item, Mark) or item.role != Role.ASSIGNMENT:
            return
        if isinstance(following, SimpleCommand):
            start = following.words[0].start
            if "\n" not in self._text[item.end : start]:
                return  # it is set for that command alone
        match = _SETS.fullmatch(item.text)
        if match and match[1] in self._lasting:
            value = _plain_value(match[2])
            if value is not None:
                self.values[match[1]] = value

    def put_in(self, words: list[Word]) -> list[Word]:
        """The words of a command, with what is known put in."""
        found: list[Word] = []
        for word in words:
            made = self._made_of(word)
            found += [_put(one, word) for one in made] if made is not None else _apart(word)
        return found

    def _made_of(self, word: Word) -> list[str] | None:
        """The words that one becomes, None if it stays as it is."""
        if word.inner:
            return None
        if word.dynamic:
            return self._with_values(word)
        if "{" not in word.text or word.quoted:
            return None
        made = expanded(word.text)
        return made if 1 < len(made) <= MOST_WORDS else None

    def _with_values(self, word: Word) -> list[str] | None:
        bare = word.text
        is_quoted = len(bare) > 1 and bare[0] == bare[-1] == '"' and '"' not in bare[1:-1]
        bare = bare[1:-1] if is_quoted else _QUOTED.sub(r"\1", bare)
        uses = list(_USE.finditer(bare))
        if not uses or set(_USE.sub("", bare)) & (_MADE | set("\"'")):
            return None
        names = [match[1] or match[2] for match in uses]
        if any(name not in self.values for name in names):
            return None
        if len(uses) == 1 and uses[0][0] == bare:
            values = self.values[names[0]]
            is_list = "[" in bare or len(values) == 1
            joined = values if is_list else values[:1]
            return joined if is_quoted else [one for text in joined for one in text.split()]
        if any(len(self.values[name]) != 1 for name in names):
            return None
        text = _USE.sub(lambda match: self.values[match[1] or match[2]][0], bare)
        is_whole = is_quoted or all(len(self.values[name][0].split()) == 1 for name in names)
        return [text] if is_whole else text.split()


def _name_of(mark: Mark) -> str:
    return mark.text.partition("=")[0].rstrip("+")


def _plain_value(text: str) -> list[str] | None:
    """The words of a value that is nothing but text: one, or those of a list; None of another."""
    is_list = text[:1] == "(" and text[-1:] == ")"
    body = text[1:-1] if is_list else text
    if set(body) & _MADE:
        return None
    try:
        words = shlex.split(body)
    except ValueError:
        return None
    return words if is_list else [" ".join(words)] if len(words) < 2 else None


def _apart(word: Word) -> list[Word]:
    """The words that the braces of one make whose variables are not known: `"$f"{,.bak}`."""
    texts = expanded(word.text) if word.dynamic and not word.inner else []
    if not 1 < len(texts) <= MOST_WORDS:
        return [word]
    found = [_made(text, text, word) for text in texts]
    for one in found:
        one.quoted, one.variables = word.quoted, word.variables
        one.dynamic = "$" in one.text
    return found


def _put(text: str, word: Word) -> Word:
    """A word that another becomes, at its place."""
    is_glob = not word.dynamic and any(char in text for char in "*?[")
    made = _made(text if is_glob else shlex.quote(text), text, word)
    made.glob = is_glob
    return made


def _made(text: str, value: str, word: Word) -> Word:
    made = Word(text, value, word.start, word.end)
    made.placed, made.source = False, word
    return made
