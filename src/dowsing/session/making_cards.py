"""The card of what was found."""

from __future__ import annotations

from dowsing.model.document import Example
from dowsing.search.card_options import Card, make_card
from dowsing.session.naming import open_found, subject_of
from dowsing.sources import catalogue
from dowsing.tasks.recipe_examples import as_shown, few_recipes

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.search.lookup import Lookup
    from dowsing.session.session import Session

FEW_RECIPES = 3


def card_of(session: Session, found: Lookup) -> Card:
    """The card of what was found. Raises Failure."""
    assert found.entry is not None
    document = open_found(session, found)
    others = catalogue.others(subject_of(session, found, ask=False), document.source)
    typed = found.entry.label if found.name.section else found.entry.name
    names = [found.entry.name, *(alias.partition("(")[0] for alias in found.entry.aliases)]
    recipes = [
        Example(one.task, as_shown(one)) for one in few_recipes(session.store, names, FEW_RECIPES)
    ]
    return make_card(
        document,
        found.entry,
        typed,
        found.others,
        [document.source, *others],
        session.json,
        recipes,
    )
