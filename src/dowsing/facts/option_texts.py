"""What the text of an option says of its value: the default, the allowed ones, whether it may be
given again.
"""

from __future__ import annotations

import re

from dowsing.facts.walk import flatten
from dowsing.model.document import Block, Item
from dowsing.model.markup import plain
from dowsing.model.value_kinds import kind_of_placeholder

_DEFAULT = re.compile(
    r"(?:[(\[]default(?:s to| is|:)?:?|(?:The )?[Dd]efault (?:value )?is|[Dd]efaults? to"
    r"|[Dd]efault:)\s+'*([^\s',;()\[\]]+)"
)
_AFTER_VALUE = re.compile(r"'([\w.+-]+)'{0,2} \((?:the )?default\b(?! if)")
_WITHOUT = re.compile(
    r"'([\w.+-]+)' \(default if (?:omitted|not specified|not given)\)"
    r"|[Ii]f (?:the )?[\w<> -]{1,24} (?:is|are) (?:omitted|not (?:given"
    r"|specified)),? (?:it )?(?:defaults to |is )'?([\w.+-]+)"
)
_AGAIN = re.compile(
    r"\b(?:multiple|several|many) times\b|\bmore than once\b|\b(?:can|may) be repeated\b"
    r"|\brepeated use\b"
    r"|\bspecified twice\b|\bgiven twice\b|\b[Mm]ultiple -{1,2}[\w-]+ (?:options|flags)\b"
    r"|\b[Cc]an be used multiple\b",
)
_VAGUE = frozenset(
    "if the a an to on off not all as no in for by used set same that this taken based "
    "determined".split()
)
#: What introduces a list of the values that there are.
_INTRODUCTION = re.compile(
    r"\b(?:one of(?: the following)?(?: values| words| keywords)?|(?:can|may|must"
    r"|should) be(?: one of| either| any of)?|"
    r"either|(?:possible|valid|allowed|available|supported|accepted|recognized|known) "
    r"(?:values|choices|options|arguments|types|modes|formats|levels|words|keywords|methods)"
    r"(?: for [\w<>-]+)?(?: are| is)?|choices(?: are)?|values(?: are)?)\b\s*:?\s*",
    re.IGNORECASE,
)
#: `WORD: none, size, time (-t)`: a list after a colon of the words that the placeholder stands for.
_OWN = re.compile(
    r"\b([A-Z][A-Z_]+) (?:is|are|can be|may be|must be|should be)(?: one of| either)? "
)
_ELSEWHERE = re.compile(
    r"\b([A-Z][A-Z_]{3,})(?: argument)?\s+(?:defaults? to '([\w-]+)'\s+and\s+)?"
    r"(?:can|may|must|should)(?:\s+also)?\s+be\s+(?:one of\s+)?"
)
#: `[possible values: a, b]`, `(choices: "a", "b")`: a list in brackets of its own.
_IN_BRACKETS = re.compile(
    r"[\[(](?:(?:possible |valid |allowed )?values|choices|one of|options):?\s+"
    r"([^()\[\]\s,|]+(?:(?:,\s*|\|)[^()\[\]\s,|]+)+)[\])]",
    re.IGNORECASE,
)
#: `Possible values: A, B` at the end of a text, or before what its default is.
_AT_END = re.compile(
    r"\b(?:possible|valid|allowed) values: ([\w.+-]+(?:, ?[\w.+-]+)+)"
    r"(?=\.?\s*(?:\Z|[\[(]|Default))",
    re.IGNORECASE,
)
#: Values that have a line of their own, with what is said of each.
_IN_LINES = re.compile(r"[Pp]ossible values:((?:\s*\n\s*- [\w.+-]+(?::[^\n]*)?)+)")
_ASIDE = re.compile(r"\s*\([^()]*\)")
_LINK = re.compile(r"\s*(?:,\s*(?:or|and)\s+|,\s*|\|\s*|\s+(?:or|and)\s+)")
_END = re.compile(r"\s*(?:[.;(]|\Z)")
_LISTED = re.compile(r":\s+((?:[a-z][\w-]*(?: \([^)]*\))?, ){2,}(?:or )?[a-z][\w-]*)(?=[\s.;(]|\Z)")
_QUOTED = re.compile(r"'{1,2}([\w.+/-]+)'{1,2}")
_WORD = re.compile(r"[A-Za-z0-9][\w.+/-]*")
_CHOICE = re.compile(
    r"[{(<\[]?[=]?([\w.+-]+(?:\|[\w.+-]+)+)[)}>\]]?\Z|\{([\w.+-]+(?:,\s?[\w.+-]+)+)\}\Z"
)
#: Names of what a value is; a bar between such names parts kinds of values, not values.
_KINDS = frozenset(
    """
        file filename path pathname uri url name pattern unit number num n id pid uid gid dir
        directory size count list user group host device string text expr regex address port
        value range task key
    """.split()
)
#: Quotes of all makers as one.
_QUOTES = str.maketrans('"“”‘’`', "''''''")
_LITERAL_TAG = re.compile(r"['=]?([a-z0-9][\w.+-]*|[A-Z])'?(?=\s*(?:\Z|[,(=:\[]))")


def default_of(text: str) -> str | None:
    """The value that applies when nothing is said, as the text says; None if it does not."""
    if "efault" not in text:
        return None
    text = text.translate(_QUOTES)
    for pattern in (_AFTER_VALUE, _DEFAULT):
        found = pattern.search(text)
        if found:
            value = found[1].rstrip(".:")
            if value.lower() not in _VAGUE:
                return value or None
    return None


def assumed_of(text: str) -> str | None:
    """The value that applies when an optional one is left out."""
    found = _WITHOUT.search(text.translate(_QUOTES))
    value = (found[1] or found[2]).rstrip(".") if found else None
    return value if value and value.lower() not in _VAGUE else None


def is_repeatable(text: str) -> bool:
    """Whether the text says that the option may be given again."""
    return bool(_AGAIN.search(text))


def values_of(argument: str, text: str, body: list[Block]) -> list[str] | None:
    """The allowed values: of a placeholder that is a choice, listed in the text, or as items
    below.
    """
    choice = _CHOICE.match(argument)
    if choice:
        either = [value.strip() for value in re.split(r"[|,]", choice[1] or choice[2])]
        return either if not any(_is_kind(value) for value in either) else None
    # below a number, items are its units, not values
    number = kind_of_placeholder(argument) in ("number", "size", "duration")
    listed = _from_text(text, argument) or ([] if number or argument == "n" else _from_items(body))
    listed = [value for value in dict.fromkeys(listed) if value not in ("or", "and")]
    return listed if len(listed) > 1 else None


def _is_kind(value: str) -> bool:
    word = re.split(r"[_-]", value.lower())[-1]
    return word in _KINDS or word.removesuffix("s") in _KINDS


def values_elsewhere(text: str) -> dict[str, list[str]]:
    """The values that a page's running text tells of placeholders in capitals: `The WHEN argument
    can be …`.
    """
    told: dict[str, list[str]] = {}
    text = text.translate(_QUOTES)
    for found in _ELSEWHERE.finditer(text):
        if found[1] not in told:
            tail = " ".join(text[found.end() : found.end() + 300].split())
            values = ([found[2]] if found[2] else []) + _series(tail, 0)
            if len(values) > 1:
                told[found[1]] = list(dict.fromkeys(values))
    return told


def _listed_by_itself(text: str) -> list[str]:
    """The values of a list that nothing but values can be in."""
    lines = _IN_LINES.search(text)
    if lines:
        return re.findall(r"- ([\w.+-]+)", re.sub(r":[^\n]*", "", lines[1]))
    listed = _IN_BRACKETS.search(text) or _AT_END.search(text)
    return [one.strip("'\" ") for one in re.split(r"[,|]", listed[1])] if listed else []


def _from_text(text: str, argument: str) -> list[str]:
    if values := _listed_by_itself(text):
        return values
    text = " ".join(text.translate(_QUOTES).split())
    if argument.isupper():
        own = re.search(
            rf"\b{re.escape(argument)} (?:is|are|can be|may be|must be|should be)(?: one of"
            r"| either)? ",
            text,
        )
        values = _series(text, own.end()) if own else []
        if len(values) > 1:
            return values
    for found in _INTRODUCTION.finditer(text):
        values = _series(text, found.end())
        if len(values) > 1:
            return values
    colon = _LISTED.search(text)
    if colon:
        return [re.sub(r"\s*\(.*?\)|^or ", "", part).strip() for part in re.split(r", ", colon[1])]
    return []


def _series(text: str, at: int) -> list[str]:
    """Values in a row from there: quoted ones, or words with commas and an `or` between them."""
    values: list[str] = []
    quoted = bool(_QUOTED.match(text, at))
    joined = False
    while True:
        match = (_QUOTED if quoted else _WORD).match(text, at)
        if not match:
            break
        values.append(match[1] if quoted else match[0].rstrip("."))
        at = match.end() if quoted else match.start() + len(values[-1])
        aside = _ASIDE.match(text, at)
        at = aside.end() if aside else at
        link = _LINK.match(text, at)
        if not link:
            break
        joined = joined or "or" in link[0] or "and" in link[0] or "|" in link[0]
        at = link.end()
    # bare words are values only in a list that ends as lists do, and where the sentence ends with
    # them
    if not quoted and (not joined or len(values) < 2 or not _END.match(text, at)):
        return []
    return values


def _from_items(body: list[Block]) -> list[str]:
    found: list[str] = []
    for block in flatten(body):
        if isinstance(block, Item) and not block.bullet:
            tag = plain(block.tag).strip().translate(_QUOTES)
            for part in re.split(r",\s*|\n", tag):
                literal = _LITERAL_TAG.match(part)
                if not literal or len(part.split()) > 3:
                    return []
                found.append(literal[1])
    return found
