"""The conventions of commands as the index keeps them, which is quicker than their files."""

from __future__ import annotations

from functools import partial

from dowsing.index.schema import Meta
from dowsing.knowledge.conventions import Conventions, facts_by_words, read_conventions

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store


def conventions_of(store: Store) -> Conventions:
    """The conventions, as the index has them."""
    found: Conventions | None = store.memory.get("conventions")
    if found is None:
        import json

        kept = store.meta_value(Meta.CONVENTIONS)
        rows = json.loads(kept) if kept else read_conventions()
        facts = partial(_facts, store) if kept else facts_by_words().get
        found = store.memory["conventions"] = Conventions(rows, facts)
    return found


def doing_the_same(store: Store, says: str) -> list[str]:
    """The commands of which our facts say that they do just that."""
    import json

    pattern = f"%{json.dumps(says)}%"
    rows = store.rows("SELECT words FROM command_facts WHERE facts LIKE ?", (pattern,))
    return [str(row[0]) for row in rows]


def _facts(store: Store, words: str) -> str | None:
    """The facts of a command as the index has them, None if there are none."""
    rows = store.rows("SELECT facts FROM command_facts WHERE words=?", (words,))
    return str(rows[0][0]) if rows else None
