"""What is known of a command that is not here: our facts and recipes of it, and how it is
brought.
"""

from __future__ import annotations

import re

from dowsing.index.absent_rows import absent_command, absent_for
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
    from dowsing.knowledge.command_facts import CommandFacts
    from dowsing.session.session import Session

MOST_OPTIONS = 8
FEW_RECIPES = 3
_PLACE = re.compile(r"\{[^{}]*\}")
_ANY_PLACE = re.compile(r"[\[{]")


def absent_sheet(session: Session, name: str) -> AbsentSheet | None:
    """What is known of a command that is not here, None if nothing is."""
    known = absent_command(session.store, name)
    facts = conventions_of(session.store).facts(name)
    acts = facts.clauses
    if known is None and not acts:
        return None
    act = next((one for one in acts if not one.when), acts[-1] if acts else None)
    plain = act.clause if act is not None and not _ANY_PLACE.search(act.clause) else ""
    recipes = few_recipes(session.store, [name], FEW_RECIPES)
    return AbsentSheet(
        name,
        known.does if known is not None else plain,
        known.usual if known is not None else "",
        how_to_get(known.package, session.settings.search_path) if known is not None else "",
        _options(facts)[:MOST_OPTIONS],
        [Example(one.task, as_shown(one)) for one in recipes],
        doing_the_same(session.store, act.says) if act is not None else [],
    )


def absent_doing(session: Session, terms: list[str], most: int) -> list[AbsentCommand]:
    """Commands that are not here, can be had on this system, and do what these terms say; none in
    the demo, which stands for no machine.
    """
    if session.settings.demo:
        return []
    found = [
        one
        for one in absent_for(session.store, terms)
        if is_of_this_system(one.package) and not finder_of(session).is_here(one.name)
    ]
    return found[:most]


def absent_lookup(session: Session, words: list[str]) -> Lookup | None:
    """A command that is known and not here, as if it were found; None if it is here, or nothing is
    known of it.
    """
    if not words or named(session, words[:1]).entry is not None:
        return None
    sheet = absent_sheet(session, words[0])
    if sheet is None:
        return None
    entry = Entry(sheet.name, "", [], EntryKind.COMMAND, sheet.does, None, None, "", sources=[])
    return Lookup(sheet.name, Name(sheet.name), entry, [], [])


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
