"""Words of a sentence that may be names: those that are no ordinary language, and others where a
name is to be expected.
"""

from __future__ import annotations

import re

from dowsing.knowledge.lexicon import singular
from dowsing.knowledge.stems import EMPTY, stem
from dowsing.tasks.patterns import Pattern

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.tasks.taking import Take

#: Nouns behind which a name may stand, with the kind of value that it then is.
NOUNS = {
    "folder": "name",
    "directory": "name",
    "file": "name",
    "user": "name",
    "branch": "name",
    "service": "name",
    "package": "name",
    "group": "name",
    "host": "name",
    "program": "name",
    "process": "name",
    "machine": "name",
    "server": "name",
    "tag": "name",
    "daemon": "name",
    "database": "name",
    "account": "name",
    "remote": "name",
    "container": "name",
    "unit": "name",
    "alias": "name",
    "variable": "name",
    "target": "name",
    "job": "name",
    "word": "text",
    "text": "text",
    "string": "text",
    "phrase": "text",
    "pattern": "text",
    "message": "text",
    "term": "text",
    "expression": "text",
    "column": "text",
    "field": "text",
    "command": "command",
    "script": "name",
    "link": "name",
    "symlink": "name",
    "archive": "name",
    "module": "name",
    "timer": "name",
    "interface": "name",
    "device": "name",
    "repository": "name",
    "network": "name",
    "table": "name",
    "session": "name",
}
_AFTER = Pattern(
    r"\s+(folder|directory|branch|user|service|group|package|database|daemon|process|program|tag"
    r"|container|account|field|column|key|table|image|pod|deployment|volume|network)\b",
    exact=True,
)
#: A name before the noun that says what it is of: `the web container`.
_NAMED_BEFORE = Pattern(r"\b(?:the|my|our|your|this|that) ([\w.-]+) \w+\s+$", exact=True)
_CALL_IT = Pattern(r"\b(?:call|name) (?:it|them|that)\s+$", "call", "name")
_PLACE = Pattern(r"\b(?:under|below|beneath|inside|within|called|named)\s+$")
_TOWARDS = Pattern(r"\b(?:in|into|to|from|of)\s+(?:my |the )?$")
#: Words of the language that folders are often named by.
FOLDER_NAMES = frozenset(
    """
        downloads documents pictures photos music videos desktop docs src build logs backup
        backups archive archives release releases dist bin lib tests test data tmp public work
        projects templates assets images notes reports mail inbox outbox config scripts examples
        media uploads exports imports old new drafts letters books papers recipes library vendor
        target output
    """.split()
)
#: What stands behind `in` without being a place.
_NO_PLACE = frozenset(
    """
        reverse order megabytes gigabytes kilobytes bytes parallel place background foreground
        full color colour columns bold use total utc english german advance detail short csv yaml
        html capitals capital lowercase uppercase seconds minutes hours days percent memory real
        time turn front general common action charge alphabetical numerical random
    """.split()
)
_CONTAINING = frozenset(
    "containing contains contain mention mentions mentioning say says saying matching match "
    "matches having contained".split()
)
_OWN_PLACE = Pattern(r"\s+(?:folder|directory|branch)\b")
#: What is said of a folder or a branch without being its name.
_QUALITIES = frozenset(
    """
        big bigger biggest large larger largest small smaller smallest right wrong certain
        different single entire local remote actual real full shared common private own top sub
        temporary parent target destination existing complete specific particular second third
        good best recent latest newest oldest older newer compressed huge long separate special
        safe read write only more many some any such what which whose how no one two three every
        each both several few most least less
    """.split()
)
_ACCOUNTS = frozenset("admin root guest postgres nobody backup deploy".split())
_ACTED_ON = Pattern(
    r"\b(?:quit|kill|stop|end|close|restart|start|terminate|reload) (?:the "
    r"|my )?([a-z]\w+)(?=\s*(?:,|$))",
    "quit",
    "kill",
    "stop",
    "end",
    "close",
    "start",
    "terminate",
    "reload",
)
_FROM_TO = Pattern(r"\bfrom (?:the )?([a-z]\w+) (?:in)?to (?:the )?([a-z]\w+)\b(?! ?\d)", "from ")
_MANY = "folders|directories|files|branches|users|groups|services|packages|tables|tags|hosts"
#: Several names behind one noun: `the folders left and right`.
_SEVERAL_OF = Pattern(rf"\b({_MANY})\s+(?:[\w.-]+\s+(?:and|with|to)\s+)?$", exact=True)
_TWO_OF = Pattern(
    rf"\b({_MANY}) ([a-z]\w+) (?:and|with|to) ([a-z]\w+)\b(?![./])", *_MANY.split("|")
)
#: A field by its name: `the name field of every row`.
_FIELD = Pattern(
    r"\b(?:the|every|each|all|by|only) (?:the )?(\w+) (?:field|column|key|attribute|property)s?\b",
    "field",
    "column",
    "key",
    "attribute",
    "property",
)
#: What lines have that are wanted: `lines with timeout`.
_LINES_WITH = Pattern(
    r"\b(?:lines|rows|entries|records|ones) (?:with|that have|having|about) (?:the word )?"
    r"([A-Za-z][\w-]+)(?=\s*(?:$|[,.;?!])|\s(?:and|or|in|but|from|of|to|into|per|as)\b)",
    "lines",
    "rows",
    "entries",
    "records",
    "ones",
)
_BUT_NOT = Pattern(r"\b(?:but|and) not (\w[\w-]+)(?=\s*(?:$|[,.;?!]))", " not ")
_PLACE_ENDS = Pattern(
    r"\s*(?:$|[,.;?!]|\s(?:and|or|older|newer|bigger|larger|smaller|that|which|ignoring|with"
    r"|without|whatever|by|to|except|but|as|into|on|at|for|after"
    r"|before|did|do|does|was|were|have|had|are|can|should|will|i|we|you|they|it|he|she|there|where"
    r"|when|recursively|readable|not|using|one|is|has|from|over|under|changed|modified|owned"
    r"|belonging|whose)\b)"
)
#: Words that follow or precede a noun in ordinary sentences without being its name.
_NO_NAME = frozenset(
    """
        that which who with without and or but is are was has have had in on of to from for by as
        at into under below named called where when than then so if it they already again here
        there now via whose contains containing only whole other another current new old same
        every each all first last next previous this empty hidden given certain running single
        systemd system home working file files folder folders directory user users group groups
        service services process processes runs run starts ends listens uses owns belongs exists
        needs takes does inside names recursively first twice one
    """.split()
)


class Ordinary:
    """The words of ordinary language, and among them those that nothing is named by; all by their
    stems.

    `listed` are words that a page's name or summary has: such a one may be a name, but need not be.
    """

    def __init__(
        self,
        stems: frozenset[str] = frozenset(),
        never: frozenset[str] = frozenset(),
        listed: frozenset[str] = frozenset(),
    ) -> None:
        self.stems, self.never, self.listed = stems, never, listed

    def has(self, word: str) -> bool:
        """Whether a word, in lower case, is ordinary."""
        return word in EMPTY or stem(word) in self.stems

    def can_name(self, word: str) -> bool:
        """Whether an ordinary word may be a name all the same: `docs`, `build`, `logs`."""
        return word not in EMPTY and may_name(word) and stem(word) not in self.never


def may_name(word: str) -> bool:
    """Whether a word is neither one that goes with names nor one that says what a name is of."""
    return word not in _NO_NAME and word not in NOUNS


def noun_at(sentence: str, start: int, end: int, before: str) -> str:
    """The noun beside a name that says what it is the name of: `user fern`, `the docs folder`; ""
    if there is none.
    """
    if before in NOUNS:
        named = _NAMED_BEFORE.search(sentence[max(0, start - 60) : start])
        return "" if named and named[1] not in _QUALITIES else before
    several = _SEVERAL_OF.search(sentence[max(0, start - 60) : start])
    if several:
        return singular(several[1].lower())
    behind = _AFTER.match(sentence[end:])
    return behind[1] if behind else ""


def bare_names(sentence: str, ordinary: Ordinary, take: Take) -> None:
    """Words that are no ordinary language; those of ordinary language only where a name is to be
    expected.
    """
    for match in _FROM_TO.finditer(sentence):
        for place in (1, 2):
            if ordinary.has(match[place].lower()) and ordinary.can_name(match[place].lower()):
                take(*match.span(place), match[place], "name", "", False)
    for match in _TWO_OF.finditer(sentence):
        for place in (2, 3):
            if ordinary.has(match[place].lower()) and match[place].lower() not in EMPTY:
                take(*match.span(place), match[place], "name", "", False)
    for match in _FIELD.finditer(sentence):
        word = match[1].lower()
        if word not in _QUALITIES and word not in EMPTY and not word.isdecimal():
            take(*match.span(1), match[1], "text", "", False)
    for match in _LINES_WITH.finditer(sentence):
        if match[1].lower() not in _NO_NAME and match[1].lower() not in EMPTY:
            take(*match.span(1), match[1], "text", "", False)
    for match in _BUT_NOT.finditer(sentence):
        take(*match.span(1), match[1], "text", "", False)
    for match in _ACTED_ON.finditer(sentence):
        if ordinary.has(match[1].lower()) and may_name(match[1].lower()):
            take(*match.span(1), match[1], "name", "", False)
    for match in re.finditer(r"[^\W\d_][\w]*", sentence):
        word = match[0]
        low = word.lower()
        behind = sentence[match.end() :]
        if low in EMPTY or len(word) < 2 or behind[:2] in ("'t", "’t") or behind[:1] == "-":
            continue
        before = word_before(sentence, match.start())
        kind = NOUNS.get(before, "name")
        if before in ("named", "called", "call", "name") or _CALL_IT.search(
            sentence[: match.start()]
        ):
            take(*match.span(), word, kind, "", not ordinary.has(low) or before != "name")
        elif not ordinary.has(low):
            alone = re.match(r"\s*(?:,|$)", behind) and re.search(
                r",\s*$", sentence[: match.start()]
            )
            if before or alone:
                take(
                    *match.span(),
                    word,
                    kind,
                    "",
                    stem(low) not in ordinary.listed
                    or before in NOUNS
                    or bool(_AFTER.match(behind)),
                )
        elif before in _CONTAINING and may_name(low):
            take(*match.span(), word, "text", "", False)
        elif before in ("as", "user") and low in _ACCOUNTS:
            take(*match.span(), word, "name")
        elif may_name(low) and (
            (before in NOUNS and before != "file" and _PLACE_ENDS.match(behind))
            or (low not in _QUALITIES and _OWN_PLACE.match(behind) and before)
        ):
            take(*match.span(), word, kind, "", False)
        elif (ordinary.can_name(low) or low in FOLDER_NAMES) and (
            before in NOUNS
            or (_AFTER.match(behind) and not re.match(r"\s+(?:process|program)", behind))
            or (_PLACE.search(sentence[: match.start()]) and _PLACE_ENDS.match(behind))
            or (low in FOLDER_NAMES and before == "and")
            or (before == "in" and low not in _NO_PLACE and _PLACE_ENDS.match(behind))
            or (
                low in FOLDER_NAMES
                and _TOWARDS.search(sentence[: match.start()])
                and _PLACE_ENDS.match(behind)
            )
        ):
            take(*match.span(), word, kind, "", before in ("under", "below", "beneath", "inside"))


def word_before(sentence: str, start: int) -> str:
    """The word of the same clause before a place, articles left out; "" if there is none."""
    clause = re.split(r"[,;:.?!]\s", sentence[max(0, start - 40) : start].lower())[-1]
    words = re.findall(r"[\w']+", clause)
    while words and words[-1] in ("the", "a", "an", "my", "our", "this", "that"):
        words.pop()
    return words[-1] if words else ""
