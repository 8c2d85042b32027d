"""Names with a slip of the fingers in them: what must be meant."""

from __future__ import annotations

from dowsing.index.convention_rows import conventions_of
from dowsing.index.nearest_names import nearest_commands, nearest_names
from dowsing.index.word_reader import is_well_known, word_count
from dowsing.knowledge.effects import HARMS
from dowsing.model.nearness import distance, is_slip, nearest_words
from dowsing.session.naming import named
from dowsing.session.subcommands import listed_subcommands

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.session.session import Session

SHORTEST_PART = 2  # letters of a part of a name that is written together


def meant_name(session: Session, words: list[str]) -> list[str]:
    """The name that words with a slip must mean, [] if none must: `git commit` for `gitcommit` and
    `git comit`, `systemctl` for `sytemctl`. A word that stands anywhere is never a slip.
    """
    if not words or not all(word[:1].isalpha() for word in words[:2]):
        return []
    if len(words) == 1:
        return _parted(session, words[0]) or _command(session, words[0])
    if len(words) > 3:
        return []
    if session.store.named(words[0]):
        return _part(session, words[:2])
    first = _command(session, words[0])
    if not first:
        return []
    whole = [*first, words[1]]
    if named(session, whole).entry:
        return whole
    return begun_name(session, whole) or _part(session, whole)


def _command(session: Session, word: str) -> list[str]:
    """The command that a word is a slip of."""
    if word_count(session.store, word.casefold()):
        return []
    if len(word) == SHORTEST_PART and is_well_known(session.store, word[::-1]):
        return [word[::-1]]
    near = nearest_commands(session.store, word)
    return [name for name in near if is_slip(word, name) and not _does_harm(session, name)][:1]


def _does_harm(session: Session, name: str) -> bool:
    """Whether a command removes, formats or stops something: it is meant only by its own name."""
    facts = conventions_of(session.store).facts
    acts = [act for one in (name, name.partition(".")[0]) for act in facts(one).acts]
    return any(act.effect is not None and act.effect.does in HARMS for act in acts if not act.when)


def _parted(session: Session, word: str) -> list[str]:
    """A subcommand that is written together with its command."""
    if word_count(session.store, word.casefold()):
        return []
    for size in range(SHORTEST_PART, len(word) - SHORTEST_PART + 1):
        parts = [word[:size], word[size:]]
        if session.store.named(parts[0]) and session.store.named("-".join(parts)):
            return parts
    return []


def begun_name(session: Session, words: list[str]) -> list[str]:
    """The subcommand with a page that a shortened one is the beginning of, where the command takes
    that: `ip addr`.
    """
    if len(words) != 2 or words[0] not in conventions_of(session.store).shortened:
        return []
    listed = [word for word in listed_subcommands(session, words[0]) if word.startswith(words[1])]
    paged = [word for word in listed if session.store.named(f"{words[0]}-{word}")]
    return [words[0], paged[0]] if paged else []


def _part(session: Session, words: list[str]) -> list[str]:
    """The subcommand that the second of two words is spelled like: one with a page, or one that the
    text of the command lists.
    """
    return _page(session, words) or _listed(session, words)


def _page(session: Session, words: list[str]) -> list[str]:
    begin = f"{words[0]}-"
    for label in nearest_names(session.store, "-".join(words)):
        name = label.partition("(")[0]
        if name.startswith(begin) and _is_near(name.removeprefix(begin), words[1]):
            return [words[0], name.removeprefix(begin)]
    return []


def _listed(session: Session, words: list[str]) -> list[str]:
    listed = list(listed_subcommands(session, words[0]))
    near = [] if words[1] in listed else nearest_words(words[1], listed, 1)
    is_near = near and _is_near(near[0], words[1])
    return [words[0], near[0]] if is_near and not word_count(session.store, words[1]) else []


def _is_near(meant: str, typed: str) -> bool:
    return distance(meant, typed) <= 1 + (len(typed) > 4)
