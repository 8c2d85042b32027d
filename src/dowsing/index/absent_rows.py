"""Commands that may not be here, as the index keeps them."""

from __future__ import annotations

from dowsing.knowledge.absent import AbsentCommand

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store
    from dowsing.model.entry import Entry

FEWEST_TERMS = 2  # of a phrase that is asked for


def absent_command(store: Store, name: str) -> AbsentCommand | None:
    """What is known of a command of that name, whether it is here or not."""
    rows = store.rows(
        "SELECT name, section, package, does, usual FROM absent WHERE name=?", (name,)
    )
    return _made(rows[0]) if rows else None


def is_known_absent(store: Store, name: str) -> bool:
    """Whether anything is known of a command of that name, which is not here."""
    from dowsing.index.convention_rows import conventions_of

    known = absent_command(store, name) is not None
    return known or bool(conventions_of(store).facts(name).clauses)


def absent_for(store: Store, terms: list[str]) -> list[AbsentCommand]:
    """The commands of which one phrase has all of these terms, or all but one of at least three;
    those with most of them and the shortest phrase first.
    """
    wanted = len(set(terms))
    if wanted < FEWEST_TERMS:
        return []
    marks = ",".join("?" * len(terms))
    rows = store.rows(
        "SELECT a.name, a.section, a.package, a.does, a.usual FROM absent_terms t "
        "JOIN absent_phrases p ON p.number=t.phrase JOIN absent a ON a.name=p.name "
        f"WHERE t.term IN ({marks}) GROUP BY t.phrase HAVING count(*)>=? "
        "ORDER BY count(*) DESC, p.size, t.phrase",
        (*terms, max(FEWEST_TERMS, wanted - (wanted > FEWEST_TERMS))),
    )
    found: dict[str, AbsentCommand] = {}
    for row in rows:
        found.setdefault(str(row[0]), _made(row))
    return list(found.values())


def says_all(store: Store, entries: list[Entry], terms: list[str]) -> bool:
    """Whether the summary of one of these entries, or one of its tasks, has all of the terms."""
    wanted = set(terms)
    for entry in entries:
        rows = store.rows(
            "SELECT s.terms, s.task_terms FROM names n JOIN said s ON s.entry=n.entry "
            "WHERE n.key=? AND n.name=? AND n.section=? AND n.alias=0",
            (entry.name.casefold(), entry.name, entry.section),
        )
        texts = [text for summary, tasks in rows for text in (summary, *str(tasks).split("\n"))]
        if any(wanted <= set(str(text).split(" ")) for text in texts):
            return True
    return False


def _made(row: tuple[object, ...]) -> AbsentCommand:
    name, section, package, does, usual = map(str, row[:5])
    return AbsentCommand(name, section, package, does, usual)
