"""Words as they are typed to what is searched for: telling words, patterns on names, one word for
several.
"""

from __future__ import annotations

import re

from dowsing.knowledge.stems import words
from dowsing.model.record import Record
from dowsing.search.filters import Filters

MOST_WORDS = 24
MOST_PATTERN = 200
LONGEST_NAME = 5  # words
_LABEL = re.compile(
    r"(?<=\w)(?:\([1-9a-z]\w*\)|\.[1-9][a-z]{0,5})\Z"
)  # the section in `tar(1)` and `tar.1`


class Query(Record):
    """What is searched for: plain words, patterns on names, how much is wanted, and what of it may
    be a name.

    `texts`: words that nothing else has are also looked for in the texts of pages, which takes a
    while. `shell`: the user's own; builtins of others stand behind. `exact`: words of options, for
    which no other word stands.
    """

    words: list[str]
    patterns: list[str]
    limit: int = 20
    filters: Filters = Filters()
    names: list[str] = []  # noqa: RUF012 - a record is immutable
    texts: bool = True
    shell: str = ""
    exact: list[str] = []  # noqa: RUF012 - a record is immutable


def make_query(typed: list[str], limit: int = 20, filters: Filters | None = None) -> Query:
    """A query from the words of a command line; a word with `*`, `?` or `[…]` is a pattern."""
    plain: list[str] = []
    patterns: list[str] = []
    exact: list[str] = []
    for word in " ".join(typed).split():
        question = (
            word.endswith("?") and "*" not in word and "[" not in word and len(word.rstrip("?")) > 3
        )
        if not question and any(sign in word for sign in "*?["):
            patterns.append(word)
        else:
            found = words(_LABEL.sub("", word))
            plain += found
            exact += found if word.startswith("-") else []
    names = _names(typed)
    if filters is not None and filters.family and names:  # `git remote` is git-remote
        names.append(f"{filters.family.casefold()}-{names[0]}")
    return Query(
        list(dict.fromkeys(plain)), patterns, limit, filters or Filters(), names, exact=exact
    )


def _names(typed: list[str]) -> list[str]:
    """The names that the words could be, in lower case: written together, and each that has a sign
    of a name in it.
    """
    parts = [_LABEL.sub("", part) for part in " ".join(typed).casefold().split()]
    whole = ["-".join(parts), "_".join(parts)] if len(parts) <= LONGEST_NAME else []
    odd = [part for part in parts[:MOST_WORDS] if not part.isalnum()]
    dashed = [part.replace(".", "-") for part in odd if "." in part.strip(".")]
    return list(dict.fromkeys([*whole, *odd, *dashed]))
