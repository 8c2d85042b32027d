"""The conventions of commands as the index keeps them, which is quicker than their files."""

from __future__ import annotations

from dowsing.index.schema import Meta
from dowsing.knowledge.conventions import Conventions, read_files

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store


def conventions_of(store: Store) -> Conventions:
    """The conventions, as the index has them."""
    found: Conventions | None = store.memory.get("conventions")
    if found is None:
        import json

        kept = store.meta_value(Meta.CONVENTIONS)
        rows = json.loads(kept) if kept else read_files()
        found = store.memory["conventions"] = Conventions(
            rows["conventions"], rows["effects"], rows["facts"]
        )
    return found
