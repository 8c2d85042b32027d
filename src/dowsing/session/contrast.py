"""What tells two commands apart: how each is written, and which of the options that each is mostly
used with the other has not.
"""

from __future__ import annotations

from dowsing.search.side import Side
from dowsing.session.making_cards import card_of
from dowsing.session.naming import named
from dowsing.session.subcommands import finder_of

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.session.session import Session

MOST_OPTIONS = 6  # of each that the other has not


def contrast(session: Session, names: list[str]) -> list[Side]:
    """The two sides; [] if one of the names is not here."""
    found = [named(session, name.split()) for name in names]
    if len(found) != 2 or any(one.entry is None for one in found):
        return []
    cards = [card_of(session, one) for one in found]
    flags = [set(finder_of(session).command(name.split()[0]).all_flags) for name in names]
    sides = []
    for card, of_other in zip(cards, reversed(flags), strict=True):
        own = [one for one in card.options if of_other.isdisjoint(one.flags)]
        sides.append(Side(card.entry, card.summary, card.form, own[:MOST_OPTIONS]))
    return sides
