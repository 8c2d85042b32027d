"""What is known of a command that is not here: our facts and recipes of it, and how it is
brought.
"""

from __future__ import annotations

import re

from dowsing.index.absent_rows import absent_command
from dowsing.index.convention_rows import conventions_of, doing_the_same
from dowsing.knowledge.command_facts import without_joint
from dowsing.machine.packages.getting import how_to_get, is_of_this_system
from dowsing.model.document import Example, Option
from dowsing.model.entry import Entry, EntryKind
from dowsing.model.names import Name
from dowsing.search.absent_sheet import AbsentSheet
from dowsing.search.lookup import Lookup
from dowsing.session.naming import named
from dowsing.session.subcommands import finder_of
from dowsing.tasks.recipe_examples import as_shown, few_recipes

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.knowledge.absent import AbsentCommand
    from dowsing.knowledge.command_facts import Act, CommandFacts
    from dowsing.session.session import Session

MOST_OPTIONS = 8
FEW_RECIPES = 3
_PLACE = re.compile(r"\{[^{}]*\}")
_ANY_PLACE = re.compile(r"[\[{]")


def absent_sheet(session: Session, name: str) -> AbsentSheet | None:
    """What is known of a command that is not here, None if nothing is."""
    known, acts = _known(session, name)
    if known is None and not acts:
        return None
    act = _usual_act(acts)
    recipes = few_recipes(session.store, [name], FEW_RECIPES)
    return AbsentSheet(
        name,
        _does(known, acts),
        known.usual if known is not None else "",
        how_to_get(known.package, session.settings.search_path) if known is not None else "",
        _options(conventions_of(session.store).facts(name))[:MOST_OPTIONS],
        [Example(one.task, as_shown(one)) for one in recipes],
        doing_the_same(session.store, act.says) if act is not None else [],
    )


def not_here(session: Session, known: list[AbsentCommand]) -> list[AbsentCommand]:
    """Those of these commands that are not here and can be had on this system; none in the demo,
    which stands for no machine.
    """
    if session.settings.demo:
        return []
    is_here = finder_of(session).is_here
    return [one for one in known if is_of_this_system(one.package) and not is_here(one.name)]


def absent_lookup(session: Session, words: list[str]) -> Lookup | None:
    """A command that is known and not here, as if it were found; None if it is here, or nothing is
    known of it.
    """
    if not words or named(session, words[:1]).entry is not None:
        return None
    name = words[0]
    known, acts = _known(session, name)
    if known is None and not acts:
        return None
    does = _does(known, acts)
    entry = Entry(name, "", [], EntryKind.COMMAND, does, None, None, "", sources=[])
    return Lookup(name, Name(name), entry, [], [])


def _known(session: Session, name: str) -> tuple[AbsentCommand | None, list[Act]]:
    """What the list of such commands has of it, and what our facts say that it does."""
    facts = conventions_of(session.store).facts(name)
    return absent_command(session.store, name), facts.clauses


def _does(known: AbsentCommand | None, acts: list[Act]) -> str:
    """What it does: of our facts only what needs no value."""
    if known is not None:
        return known.does
    act = _usual_act(acts)
    return act.clause if act is not None and not _ANY_PLACE.search(act.clause) else ""


def _usual_act(acts: list[Act]) -> Act | None:
    """What it does without a condition, else the last act."""
    return next((one for one in acts if not one.when), acts[-1] if acts else None)


def _options(facts: CommandFacts) -> list[Option]:
    """The options that are used most, with what each adds."""
    values = {flag: one.value for one in facts.options for flag in one.flags}
    found = []
    for flag in facts.usual:
        told = facts.texts.get(flag) or without_joint(facts.adds.get(flag, ""))
        if not flag.startswith("-") or not _PLACE.sub("", told).strip():
            continue
        value = values.get(flag)
        name = (value.placeholder if value is not None else "") or "VALUE"
        takes = _PLACE.search(told) is not None or value is not None
        text = _PLACE.sub(name, told.strip("()"))
        found.append(Option([flag], name if takes else None, text=text))
    return found
