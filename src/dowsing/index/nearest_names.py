"""Names that are written like one that nothing has."""

from __future__ import annotations

from dowsing.index.word_reader import is_well_known
from dowsing.model.names import Name, readings, section_rank
from dowsing.model.nearness import SLIP, Near, is_slip, nearest

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store

#: Under what the names stand in the memory of a run.
_KEPT = "names_and_keys"


def nearest_names(store: Store, asked: str, count: int = 5) -> list[str]:
    """Names that are written like `asked`, likeliest first, with their sections."""
    tries = readings([asked]) if asked else []
    if not tries:
        return []
    wanted = tries[0].text.casefold().replace(" ", "-")
    names, keys = _names_and_keys(store)
    found = nearest(wanted, keys, count * 4)

    def order(near: Near) -> tuple[float, bool, tuple[int, str]]:
        name, section = names[near.place]
        likeness = near.likeness + SLIP * is_slip(wanted, near.word)
        return -round(likeness, 2), not is_well_known(store, name), section_rank(section)

    ranked = sorted(found, key=order)
    labels = [Name(*names[near.place]).label for near in ranked]
    return list(dict.fromkeys(labels))[:count]


def nearest_commands(store: Store, asked: str) -> list[str]:
    """The names of commands and builtins that are written like one that nothing has, likeliest
    first, without their sections.
    """
    names = [
        label.partition("(")[0]
        for label in nearest_names(store, asked)
        if label.endswith(("(1)", "(8)", "(builtin)"))
    ]
    return [name for name in dict.fromkeys(names) if name != asked]


def _names_and_keys(store: Store) -> tuple[list[tuple[str, str]], list[str]]:
    """All names, and how each is compared; kept for the run, for a line may have many words that
    nothing is named.
    """
    if _KEPT not in store.memory:
        names = store.all_names()
        store.memory[_KEPT] = (
            names,
            [name.casefold().replace("_", "-") for name, _ in names],
        )
    found: tuple[list[tuple[str, str]], list[str]] = store.memory[_KEPT]
    return found
