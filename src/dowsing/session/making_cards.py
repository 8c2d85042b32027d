"""The card of what was found."""

from __future__ import annotations

from dowsing.index.convention_rows import conventions_of
from dowsing.model.document import Example, Subcommand
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
    usual = _usual(session, names)
    return make_card(
        document,
        found.entry,
        typed,
        found.others,
        [document.source, *others],
        session.json,
        recipes,
        usual,
        _subcommands(session, found.entry.name, usual),
    )


def _subcommands(session: Session, name: str, usual: list[str]) -> list[Subcommand]:
    """Of what is used most of a command, what is a subcommand of it, with what is said of it."""
    words = [word for word in usual if word[:1].isalpha()]
    if not words:
        return []
    from dowsing.commandline.command_finder import CommandFinder
    from dowsing.commandline.usual import subcommand_words

    finder = CommandFinder(session.store, session.settings)
    told = subcommand_words(finder.command(name), finder)[1]
    return [Subcommand(word, told[word]) for word in words if word in told]


def _usual(session: Session, names: list[str]) -> list[str]:
    """What is used most of a command, by any of its names; `git commit` is named `git-commit`."""
    conventions = conventions_of(session.store)
    for name in names:
        for words in (name, name.replace("-", " ", 1)):
            if usual := conventions.facts(words).usual:
                return usual
    return []
