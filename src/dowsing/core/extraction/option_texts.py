"""What the text of an option says of its value: the default, the allowed ones, whether it may be given again."""

from __future__ import annotations

import re

from dowsing.core.commandline.kinds import kind_of_placeholder
from dowsing.core.document import Block, Item
from dowsing.core.extraction.walk import flatten
from dowsing.core.markup import plain

_DEFAULT = re.compile(
    r"(?:[(\[]default(?:s to| is|:)?:?|(?:The )?[Dd]efault (?:value )?is|[Dd]efaults? to|[Dd]efault:)\s+"
    r"[\"'“‘`]*([^\s\"'”’`,;()\[\]]+)"
)
_AFTER_VALUE = re.compile(r"[\"'“‘`]([\w.+-]+)[\"'”’`]?[\"'”’`]? \((?:the )?default\b(?! if)")
_WITHOUT = re.compile(
    r"[\"'“‘`]([\w.+-]+)[\"'”’`] \(default if (?:omitted|not specified|not given)\)"
    r"|[Ii]f (?:the )?[\w<> -]{1,24} (?:is|are) (?:omitted|not (?:given|specified)),? (?:it )?(?:defaults to |is )"
    r"[\"'“‘`]?([\w.+-]+)"
)
_AGAIN = re.compile(
    r"\b(?:multiple|several|many) times\b|\bmore than once\b|\b(?:can|may) be repeated\b|\brepeated use\b"
    r"|\bspecified twice\b|\bgiven twice\b|\b[Mm]ultiple -{1,2}[\w-]+ (?:options|flags)\b|\b[Cc]an be used multiple\b",
)
_VAGUE = frozenset(
    "the a an to on off not all as no in for by used set same that this taken based determined".split()
)
#: What introduces a list of the values that there are.
_INTRODUCTION = re.compile(
    r"\b(?:one of(?: the following)?(?: values| words| keywords)?|(?:can|may|must|should) be(?: one of| either| any of)?|"
    r"either|(?:possible|valid|allowed|available|supported|accepted|recognized|known) "
    r"(?:values|choices|options|arguments|types|modes|formats|levels|words|keywords|methods)"
    r"(?: for [\w<>-]+)?(?: are| is)?|choices(?: are)?|values(?: are)?)\b\s*:?\s*",
    re.IGNORECASE,
)
#: `WORD: none, size, time (-t)`: a list after a colon of the words that the placeholder stands for.
_LISTED = re.compile(r":\s+((?:[a-z][\w-]*(?: \([^)]*\))?, ){2,}(?:or )?[a-z][\w-]*)(?=[\s.;(]|\Z)")
_QUOTED = re.compile(r"[\"'“‘`]{1,2}([\w.+/-]+)[\"'”’`]{1,2}")
_WORD = re.compile(r"[A-Za-z0-9][\w.+/-]*")
_CHOICE = re.compile(r"[{(<\[]?[=]?([\w.+-]+(?:\|[\w.+-]+)+)[)}>\]]?\Z|\{([\w.+-]+(?:,\s?[\w.+-]+)+)\}\Z")
#: Names of what a value is; a bar between such names parts kinds of values, not values.
_KINDS = re.compile(
    r"(?:.*[_-])?(?:file|filename|path|pathname|uri|url|name|names|pattern|unit|number|num|n|id|pid|uid|gid|dir|directory|"
    r"size|count|list|user|group|host|device|string|text|expr|regex|address|port|value|range|task|key|id)s?\Z",
    re.IGNORECASE,
)
_LITERAL_TAG = re.compile(r"[\"'“‘`=]?([a-z0-9][\w.+-]*|[A-Z])[\"'”’`]?(?=\s*(?:\Z|[,(=:\[]))")


def default_of(text: str) -> str | None:
    """The value that applies when nothing is said, as the text says; None if it does not."""
    for pattern in (_AFTER_VALUE, _DEFAULT):
        found = pattern.search(text)
        if found:
            value = found[1].rstrip(".:")
            if value.lower() not in _VAGUE:
                return value or None
    return None


def assumed_of(text: str) -> str | None:
    """The value that applies when an optional one is left out."""
    found = _WITHOUT.search(text)
    value = (found[1] or found[2]).rstrip(".") if found else None
    return value if value and value.lower() not in _VAGUE else None


def is_repeatable(text: str) -> bool:
    """Whether the text says that the option may be given again."""
    return bool(_AGAIN.search(text))


def values_of(argument: str, text: str, body: list[Block]) -> list[str] | None:
    """The allowed values: of a placeholder that is a choice, listed in the text, or as items below."""
    choice = _CHOICE.match(argument)
    if choice:
        either = [value.strip() for value in re.split(r"[|,]", choice[1] or choice[2])]
        return either if not any(_KINDS.match(value) for value in either) else None
    # below a number, items are its units, not values
    number = kind_of_placeholder(argument) in ("number", "size", "duration")
    listed = _from_text(text, argument) or ([] if number or argument == "n" else _from_items(body))
    listed = [value for value in dict.fromkeys(listed) if value not in ("or", "and")]
    return listed if len(listed) > 1 else None


def values_elsewhere(argument: str, text: str) -> list[str] | None:
    """The values that a page's running text tells of a placeholder in capitals: `The WHEN argument can be …`."""
    values: list[str] = []
    for found in re.finditer(rf"\b{re.escape(argument)}(?: argument)? ", text):
        tail = text[found.end() : found.end() + 300]
        default = re.match(r"defaults? to [\"'‘“`]([\w-]+)[\"'’”`] and ", tail)
        said = re.match(
            r"(?:can|may|must|should)(?: also)? be (?:one of )?", tail[default.end() :] if default else tail
        )
        if said:
            start = found.end() + (default.end() if default else 0) + said.end()
            values = ([default[1]] if default else []) + _series(" ".join(text[start:].split()), 0)
            if len(values) > 1:
                return list(dict.fromkeys(values))
    return None


def _from_text(text: str, argument: str) -> list[str]:
    text = " ".join(text.split())
    if argument.isupper():
        own = re.search(
            rf"\b{re.escape(argument)} (?:is|are|can be|may be|must be|should be)(?: one of| either)? ", text
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
        at = match.end()
        aside = re.compile(r"\s*\([^()]*\)").match(text, at)
        at = aside.end() if aside else at
        link = re.compile(r"\s*(?:,\s*(?:or|and)\s+|,\s*|\|\s*|\s+(?:or|and)\s+)").match(text, at)
        if not link:
            break
        joined = joined or "or" in link[0] or "and" in link[0] or "|" in link[0]
        at = link.end()
    # bare words are values only in a list that ends as lists do, and where the sentence ends with them
    if not quoted and (not joined or len(values) < 2 or not re.compile(r"\s*(?:[.;(]|\Z)").match(text, at)):
        return []
    return values


def _from_items(body: list[Block]) -> list[str]:
    found: list[str] = []
    for block in flatten(body):
        if isinstance(block, Item) and not block.bullet:
            tag = plain(block.tag).strip()
            for part in re.split(r",\s*|\n", tag):
                literal = _LITERAL_TAG.match(part)
                if not literal or len(part.split()) > 3:
                    return []
                found.append(literal[1])
    return found
