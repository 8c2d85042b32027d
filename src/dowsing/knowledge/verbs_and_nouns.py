"""What an entry does, and to what: verbs and nouns worked out from its summary, its name and its
kind.

A summary is read as English imperatives and noun phrases are: `remove files or directories`,
`Removes files`, `tool to remove files`, `file removal tool`. The words come from the lexicon; the
last word of what is acted on counts even if the lexicon does not know it.
"""

from __future__ import annotations

import re
from functools import lru_cache

from dowsing.knowledge.lexicon import Lexicon, lexicon, singular
from dowsing.model.record import Record

_BEFORE_VERB = frozenset(
    "to which that for and or can will may then also automatically interactively "
    "recursively".split()
)
#: What `to` leads on to a thing after, not to a doing.
_BEFORE_NOUN = frozenset(
    "introduction access interface guide reference related due according front frontend".split()
)
_DETERMINERS = frozenset("a an the all one any some its their your this these each every".split())
_ENDS_OBJECT = frozenset(
    """
        using with by via from to into on onto in for that which as when if between according
        over under through at without within against around upon before after about whose where
        during based while is are be can not per than inside across until unless like such was
        were there
    """.split()
)
_NO_NOUN = frozenset(
    """
        a an the of and or all any some one two its their your this these those every each other
        another new more most same various several given following e g i etc it them they you we
        only also both no out up down off who what how whether which things
    """.split()
)
#: Say how much of something; no noun before `of`.
_VAGUE = frozenset(
    "set sets list lists number numbers amount amounts part parts content contents kind type way "
    "ways use".split()
)
_TOOLS = frozenset(
    "tool tools utility utilities program programs command commands script interface function "
    "functions".split()
)
#: What stands after a word that is a noun, if it could be a verb as well.
_AFTER_NOUN = frozenset(
    [
        "",
        "of",
        "for",
        "file",
        "files",
        "format",
        "manager",
        "in",
        "on",
        ".",
        ",",
        "and",
        "/",
        *_TOOLS,
        "to",
    ]
)
_NOUNS_TOO = frozenset("file user group time date input output".split())
#: Verbs that have `for` after them.
_WITH_FOR = frozenset("test check wait listen search look".split())
#: They say of which sort a thing is, and are no things themselves.
_ADJECTIVES = frozenset(
    """
        based nothing free used open running available common reserved specific local remote
        special ordinary current own full simple basic generic old last first next raw single
        main public private windows linux gnu things nearest least little much many few wide bit
    """.split()
)
_NOT_FIRST = frozenset(
    "how what which when where who like in on of for with and or not to by is are am was do does "
    "can why whose my has have if would could should will may might must did there only".split()
)
_PARENTHESES = re.compile(r"\([^()]*\)|\[[^\[\]]*\]")
_TOKEN = re.compile(r"[A-Za-z0-9][A-Za-z0-9+.#'-]*[A-Za-z0-9+#]|[A-Za-z0-9]|[,;:/]|\.(?!\w)")
_VERBS_ON_LY = frozenset("apply supply reply multiply comply imply rely fly reapply".split())
#: Verbs that say nothing of what is done where their object is a doing itself: `make links`.
_MAKING = frozenset("create perform take".split())
_MAY_LEAD = _BEFORE_VERB | _DETERMINERS | {"simple", "simply"}
_AFTER_VERB = _DETERMINERS | _ENDS_OBJECT
_NO_OBJECT = _NO_NOUN | _ENDS_OBJECT
_NO_THING = _NO_NOUN | _ADJECTIVES
_NAMED_NOUNS = ("4", "5", "7")
MOST = 4


class VerbsAndNouns(Record):
    """Verbs (what it does) and nouns (to what), each the word that stands for its group, likeliest
    first.
    """

    verbs: list[str]
    nouns: list[str]


def meaning(summary: str, name: str = "", section: str = "") -> VerbsAndNouns:
    """The verbs and nouns of an entry. Sections 4, 5 and 7 name things: an ambiguous first word is
    a noun there.
    """
    found = _of_summary(summary, section[:1])
    if not found.verbs and section[:1] in ("1", "8", "6", "2"):
        verbs = _of_name(name, lexicon())
        return VerbsAndNouns(verbs, found.nouns) if verbs else found
    return found


@lru_cache(maxsize=20_000)
def _of_summary(summary: str, section: str) -> VerbsAndNouns:
    """What a summary says. Kept, for the pages of one program in several tracks have the same
    ones.
    """
    known = lexicon()
    text = _PARENTHESES.sub(" ", summary.replace("/", " / "))
    tokens = _TOKEN.findall(text)
    lower = _joined([token.casefold().removesuffix("'s") for token in tokens], known)
    verbs, start = _leading_verbs(lower, known, section)
    if not verbs:
        verbs, start = _later_verbs(lower, known)
    if (
        not verbs
        and len(lower) > 2
        and lower[0].isalpha()
        and lower[0] not in _NOT_FIRST
        and len(lower[0]) > 1
        and lower[1] in _DETERMINERS
    ):
        verbs, start = (
            [_imperative(lower[0])],
            1,
        )  # a word that the lexicon lacks, where only a verb can stand
    nouns = _object(lower, start, known) if verbs else []
    verbs += _further_verbs(lower, start, known) if verbs else []
    if verbs and verbs[-1] in _MAKING:
        verbs += _made_doings(lower, start, known)
    if not verbs and section not in _NAMED_NOUNS:
        verbs, nouns = _done_by_a_noun(lower, known)
    if not nouns:
        nouns = (
            _all_nouns(lower[start:], known, _TOOLS)
            if verbs
            else _object(lower, 0, known) or _all_nouns(lower, known)
        )
    return VerbsAndNouns(list(dict.fromkeys(verbs))[:MOST], list(dict.fromkeys(nouns))[:MOST])


def _joined(tokens: list[str], known: Lexicon) -> list[str]:
    """The tokens, the first two as one if they are one verb said apart: `shut down`, `set up`."""
    while len(tokens) > 1 and (_is_adverb(tokens[0]) or tokens[0] == "simple"):
        tokens = tokens[1:]
    verb = known.joined.get(" ".join(tokens[:2]))
    return [verb, *tokens[2:]] if verb and known.verb(verb) else tokens


def _is_adverb(word: str) -> bool:
    return word.endswith("ly") and word not in _VERBS_ON_LY


def _imperative(word: str) -> str:
    """A verb without the ending of the third person."""
    return word[:-1] if word.endswith("s") and not word.endswith(("ss", "us")) else word


def _leading_verbs(tokens: list[str], known: Lexicon, section: str) -> tuple[list[str], int]:
    """The verbs that the text begins with (`convert and copy …`), and where what they act on
    begins.
    """
    at = 0
    while at < len(tokens) and tokens[at] in _MAY_LEAD and at < 2:
        at += 1
    if at and tokens[at - 1] in _DETERMINERS:
        return [], 0
    return _verbs_at(tokens, at, known, section)


def _verbs_at(
    tokens: list[str], at: int, known: Lexicon, section: str = ""
) -> tuple[list[str], int]:
    verbs: list[str] = []
    while at < len(tokens):
        verb = known.verb(tokens[at])
        following = tokens[at + 1] if at + 1 < len(tokens) else ""
        done = known.verb_of_doing.get(tokens[at]) and (
            not tokens[at].endswith("ing") or following in ("", "of", *_TOOLS)
        )
        if verb is None or done or tokens[at].endswith("ed"):
            break
        if (
            not verbs
            and section[:1] in ("4", "5")
            and following not in _DETERMINERS
            and not tokens[at].endswith("ing")
        ):
            break  # such pages name things
        if not verbs and known.noun(tokens[at]) and _is_noun_here(tokens, at, section):
            break
        if verbs and at and tokens[at - 1] not in ("and", "or", ",", "/"):
            break
        verbs.append(verb)
        at += 1
        before = at
        while at < len(tokens) and tokens[at] in (",", "and", "or", "/", "then", "optionally"):
            at += 1
        if at == before:
            break
        if at < len(tokens) and (known.verb(tokens[at]) is None or _ends_phrase(tokens, at)):
            break
    return verbs, at


def _ends_phrase(tokens: list[str], at: int) -> bool:
    """Whether a word that could be a verb stands where only a noun can: at the end, or before
    `of`.
    """
    following = tokens[at + 1] if at + 1 < len(tokens) else ""
    return following in ("", "of", ".", ";")


def _is_noun_here(tokens: list[str], at: int, section: str) -> bool:
    word = tokens[at]
    following, after = [*tokens[at + 1 : at + 3], "", ""][:2]
    if following == "for" and word in _WITH_FOR:
        return False
    if following in ("file", "files") and section[:1] in ("1", "8") and after not in _AFTER_NOUN:
        return False  # `display file or …`, but `dump file format`
    if section[:1] in _NAMED_NOUNS:
        return following not in _DETERMINERS
    if following in _AFTER_NOUN:
        return following not in ("and", ",", "/") or word in _NOUNS_TOO
    return word.endswith("ing") and following in ("", "of")


def _further_verbs(tokens: list[str], start: int, known: Lexicon) -> list[str]:
    """Verbs after what the first ones act on: `read from standard input and write to files`."""
    found = []
    for at in range(start + 1, len(tokens) - 1):
        joins = tokens[at - 1] in ("and", "or") and tokens[at + 1] in _AFTER_VERB
        if (
            joins
            and not tokens[at].endswith("ed")
            and not known.noun(tokens[at])
            and (verb := known.verb(tokens[at]))
        ):
            found.append(verb)
    return found


def _made_doings(tokens: list[str], start: int, known: Lexicon) -> list[str]:
    """The verb that the thing made is a doing of: `make links between files` links, `make a backup`
    backs up.
    """
    while start < len(tokens) and tokens[start] in _DETERMINERS | _ADJECTIVES:
        start += 1
    word = tokens[start] if start < len(tokens) else ""
    verb = known.verb_of_doing.get(word) or known.verb(singular(word)) if word else None
    ends = start + 1 >= len(tokens) or tokens[start + 1] in _ENDS_OBJECT | {"of", "and", ",", "."}
    return [verb] if verb and ends and verb not in _MAKING else []


def _later_verbs(tokens: list[str], known: Lexicon) -> tuple[list[str], int]:
    """`tool to remove …`, `program that displays …`, `utility for listing …`, `used to create
    …`.
    """
    for at, token in enumerate(tokens[:-1]):
        if token in ("to", "that", "which", "for") and at:
            begin = at + 1
            while begin < len(tokens) - 1 and _is_adverb(tokens[begin]):
                begin += 1
            doing = token in ("to", "that", "which") or tokens[begin].endswith("ing")
            doing = doing and tokens[at - 1] not in _BEFORE_NOUN
            verbs, start = _verbs_at(tokens, begin, known) if doing else ([], 0)
            if verbs and (
                tokens[at - 1] in _TOOLS or tokens[at - 1].endswith("ed") or token == "to"
            ):
                return verbs, start
        if token in (",", ":", ";") and at < 8:
            verbs, start = _verbs_at(tokens, at + 1, known)
            if verbs and (start < len(tokens) and tokens[start] in _DETERMINERS):
                return verbs, start
    return [], 0


def _done_by_a_noun(tokens: list[str], known: Lexicon) -> tuple[list[str], list[str]]:
    """`file removal tool`, `stream editor`, `conversion of …`: the noun of a doing, and what stands
    before it.
    """
    for at, token in enumerate(tokens):
        head = known.verb_of_doing.get(token) or known.verb_of_doing.get(singular(token))
        agent = at and token.endswith(("er", "or")) and at + 1 == len(tokens)
        if head is None and agent and not known.noun(token):
            head = next(
                (verb for cut in (token[:-2], token[:-1]) if (verb := known.verb_of.get(cut))), None
            )
        if (
            head is None
            and token.endswith("ing")
            and at + 1 < len(tokens)
            and tokens[at + 1] in _TOOLS
        ):
            head = known.verb(token)
        if head is None or token in _ENDS_OBJECT:
            continue
        before = [one for one in tokens[max(at - 3, 0) : at] if one not in _NO_OBJECT]
        nouns = [noun for one in before if (noun := known.noun(one))]
        if (
            before
            and (not nouns or not known.noun(before[-1]))
            and before[-1].isalpha()
            and not before[-1].endswith(("ed", "al", "ic", "ive", "ly"))
        ):
            nouns = [singular(before[-1]), *nouns]
        if at + 1 < len(tokens) and tokens[at + 1] in ("of", "for"):
            nouns += _object(tokens, at + 2, known)
        return [head], nouns
    return [], []


def _of_name(name: str, known: Lexicon) -> list[str]:
    parts = [part for part in re.split(r"[-_.]", name.casefold()) if part]
    found = known.verb_of.get(parts[-1]) if len(parts) > 1 else None
    return [found] if found else []


def named_verb(name: str) -> str | None:
    """The verb that a name is, `truncate`, or ends in, `mysqldump`; that a name of several parts
    ends in is found by `meaning`.
    """
    known = lexicon().verb_of
    return known.get(name.casefold()) or known.get(glued_verb(name))


@lru_cache(maxsize=20_000)
def glued_verb(name: str) -> str:
    """The word that a name written as one ends in, if it is a verb: `dump` of `mysqldump`; "" if
    there is none, or the name is a word itself.
    """
    known = lexicon()
    name = name.casefold()
    if not name.isalpha() or known.verb(name) or known.noun(name):
        return ""
    cuts = range(1, len(name) - LEAST_GLUED + 1)
    ends = (name[at:] for at in cuts if name[:at] not in _TURNING and not known.verb(name[:at]))
    return next((end for end in ends if end in known.verb_of), "")


LEAST_GLUED = 4  # letters of the verb that a name ends in
_TURNING = frozenset("un de re dis over mis in out up th sp b".split())  # `unlink` does not link


def nouns_said(text: str) -> list[str]:
    """All nouns of the lexicon in a text, whatever is done to them."""
    tokens = [token.casefold() for token in _TOKEN.findall(_PARENTHESES.sub(" ", text))]
    return list(dict.fromkeys(_all_nouns(tokens, lexicon())))


def _object(tokens: list[str], start: int, known: Lexicon) -> list[str]:
    """The nouns of what is acted on: as far as a preposition other than `of` or the end of the
    clause.
    """
    nouns: list[str] = []
    last: str | None = None  # the noun or unknown word read last: the head of a phrase, perhaps
    for at in range(start, min(len(tokens), start + 16)):
        token = tokens[at]
        following = tokens[at + 1] if at + 1 < len(tokens) else ""
        if token in _ENDS_OBJECT or token in (".", ";", ":"):
            if at == start or (tokens[at - 1] in _TOOLS and token == "for"):
                last = None
                continue
            break
        if (token in _VAGUE and following == "of") or (token in _TOOLS and following == "for"):
            continue
        if token in ("of", "and", "or", ",", "/"):
            nouns += _head(last, known)
            last = None
            if token != "of" and start and _begins_clause(following, known):
                break  # what else it does
            continue
        if (nouns or last) and start and _said_of_it(token, following):
            break
        if _qualifies(token):
            continue
        noun = known.noun(token)
        if noun:
            nouns.append(noun)
        last = token
    return nouns + _head(last, known)


def _head(word: str | None, known: Lexicon) -> list[str]:
    """The last word of a phrase as a noun, if the lexicon has not named it already."""
    if word is None or known.noun(word) or len(word) <= 2:
        return []
    return [singular(word)] if word.replace("-", "").isalpha() else []


def _begins_clause(word: str, known: Lexicon) -> bool:
    """Whether a word behind `and` is another verb, not another noun."""
    return bool(word) and bool(known.verb(word)) and not known.noun(word)


def _said_of_it(token: str, following: str) -> bool:
    """Whether a participle begins what is said of the object: `files listed in …`."""
    if token.endswith("ed"):
        return following in _ENDS_OBJECT
    return token.endswith("ing") and following in ("with", "by")


def _qualifies(token: str) -> bool:
    """Whether a word only says of what kind the noun is."""
    if token in _NO_NOUN or token in _ADJECTIVES or token.isdigit() or token.endswith("ly"):
        return True
    return token.endswith("ed") and len(token) > 4


def _all_nouns(
    tokens: list[str], known: Lexicon, skipped: frozenset[str] = frozenset()
) -> list[str]:
    return [
        noun
        for token in tokens
        if token not in _NO_THING and token not in skipped and (noun := known.noun(token))
    ]
