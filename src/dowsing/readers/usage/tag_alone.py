"""Lines of a usage text that hold nothing but the spellings of an option, with what they take; its
text stands below.
"""

from __future__ import annotations

import re

_FLAG = r"--?(?:\[no-?\])?[\w?#@][\w.:+-]*"
#: What an option takes, where its shape tells: capitals, or words in brackets of any kind.
_CAPITALS = r"[A-Z][A-Z0-9]*(?:[_.:/|=-][A-Z0-9_]+)*"
_BRACKETED = r"\{[^{}]*\}|<[^<>]*>|\[[^\[\]]*(?:\[[^\[\]]*\])?\]"
_SHAPED = rf"(?:{_CAPITALS}|{_BRACKETED})(?:\.\.\.)?"
_TAKES = rf"(?:[ =]?{_SHAPED}|\[=[^\[\]]*\]| \.\.\.)*"
_PARTED = r"(?:, ?| ?\| ?| / |/(?=-)| or )"
_ALONE = re.compile(rf"{_FLAG}{_TAKES}(?:{_PARTED}{_FLAG}{_TAKES})*\Z")
#: `-q quality, --quality quality`, `-t tag [tag ...], --tag tag [tag ...]`: the same word behind
#: each spelling.
_MORE = r"(?: (?P=word)| \[(?P=word)(?: \.\.\.)?\])*"
_REPEATED = re.compile(
    rf"{_FLAG}[ =](?P<word>[a-z][\w-]*){_MORE}(?:, ?{_FLAG}[ =](?P=word){_MORE})+\Z"
)


def is_tag_alone(text: str) -> bool:
    """Whether a line is nothing but the tag of an option."""
    return _ALONE.match(text) is not None or _REPEATED.match(text) is not None
