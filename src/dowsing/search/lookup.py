"""A name as written to its entry, and the nearest names where there is none."""

from __future__ import annotations

from dowsing.index.nearest_names import nearest_names
from dowsing.machine.shells.choice import own_shell
from dowsing.model.names import Name, readings, section_rank
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store
    from dowsing.machine.settings import Settings
    from dowsing.model.entry import Entry


class Lookup(Record):
    """What a name means: the best entry (None if there is none), others of that name, nearest
    names.

    `name` is the way of writing it that was found, with the section that was said, if any.
    """

    asked: str
    name: Name
    entry: Entry | None
    others: list[Entry]
    nearest: list[str]


def look_up(store: Store, words: list[str], settings: Settings, nearest: bool = True) -> Lookup:
    """The entry that `words` name; where no section is said, that of what would run in the user's
    shell.

    `nearest`: look for similar names if there is none.
    """
    asked = " ".join(words).strip()
    for name in readings(words):
        found = _ordered(store.named(name.text, name.section), name)
        if found and not name.section and any(entry.section == "builtin" for entry in found):
            own = own_shell(settings, store.shells())
            if any(row.shell == own for row in store.in_shells(name.text)):
                found.sort(key=lambda entry: entry.section != "builtin")
        if found:
            others = [e for e in found[1:] if e.label != found[0].label]
            if name.section:
                others += [
                    e
                    for e in _ordered(store.named(name.text), name)
                    if e.label not in {f.label for f in found}
                ]
            unique = list({entry.label: entry for entry in others}.values())
            return Lookup(asked, name, found[0], unique, [])
    return Lookup(asked, Name(asked), None, [], nearest_names(store, asked) if nearest else [])


def _ordered(entries: list[Entry], name: Name) -> list[Entry]:
    def rank(entry: Entry) -> tuple[int, str]:
        sections = [entry.section] if entry.name == name.text else []
        for alias in entry.aliases:
            if alias == name.text:
                sections.append(entry.section)
            elif alias.startswith(name.text + "("):
                sections.append(alias[len(name.text) + 1 : -1])
        return min(
            (section_rank(section) for section in sections), default=section_rank(entry.section)
        )

    return sorted(entries, key=rank)


#: So many names, summaries and tasks have a name in them that is a word of the language as well.
PLAIN_WORD = 8


def is_plain_word(store: Store, name: str) -> bool:
    """Whether a name is also a word that people search for: one that many names, summaries and
    tasks have.
    """
    from dowsing.index.word_reader import word_count

    return name.isalpha() and word_count(store, name.casefold()) >= PLAIN_WORD
