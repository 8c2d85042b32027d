"""Names that are written like one that nothing has."""

from __future__ import annotations

from dowsing.model.names import Name, readings, section_rank
from dowsing.model.nearness import nearest

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store


def nearest_names(store: Store, asked: str, count: int = 5) -> list[str]:
    """Names that are written like `asked`, likeliest first, with their sections."""
    tries = readings([asked]) if asked else []
    if not tries:
        return []
    wanted = tries[0].text.casefold().replace(" ", "-")
    names, keys = _names_and_keys(store)
    found = nearest(wanted, keys, count * 4)
    ranked = sorted(
        found, key=lambda near: (-round(near.likeness, 2), section_rank(names[near.place][1]))
    )
    labels = [Name(*names[near.place]).label for near in ranked]
    return list(dict.fromkeys(labels))[:count]


def _names_and_keys(store: Store) -> tuple[list[tuple[str, str]], list[str]]:
    """All names, and how each is compared; kept for the run, for a line may have many words that
    nothing is named.
    """
    if "names and keys" not in store.memory:
        names = store.all_names()
        store.memory["names and keys"] = (
            names,
            [name.casefold().replace("_", "-") for name, _ in names],
        )
    found: tuple[list[tuple[str, str]], list[str]] = store.memory["names and keys"]
    return found
