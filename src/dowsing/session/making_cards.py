"""The card of what was found."""

from __future__ import annotations

import os

from dowsing.index.command_rows import card_facts, has_subcommands
from dowsing.index.convention_rows import conventions_of
from dowsing.model.document import Example, Subcommand
from dowsing.model.entry import EntryKind
from dowsing.model.names import is_typed, spoken
from dowsing.model.page_facts import PageFacts, unpack
from dowsing.model.source_name import SourceName
from dowsing.render.wrap import first_sentence
from dowsing.search.card import FEW_OPTIONS, Beside, Card, make_card
from dowsing.session.naming import maker_of_entry, named, open_found, subject_of
from dowsing.sources import catalogue
from dowsing.tasks.recipe_examples import as_shown, few_recipes

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.facts.c_function import CFunction
    from dowsing.search.lookup import Lookup
    from dowsing.session.session import Session

FEW_RECIPES = 3


def card_of(session: Session, found: Lookup) -> Card:
    """The card of what was found. Raises Failure."""
    entry = found.entry
    assert entry is not None
    names = entry.all_names
    # only such entries have recipes, options and subcommands that are used: passwd(5) has none of
    # passwd(1)
    at_a_prompt = is_typed(entry.section)
    usual = _usual(session, names) if at_a_prompt else []
    facts = _facts(session, found, usual)
    others = catalogue.others(subject_of(session, found, ask=False), facts.source)
    beside = Beside(found.others, [facts.source, *others])
    if at_a_prompt:
        subcommands, in_all = _subcommands(session, entry.name, usual, facts)
        beside = beside.changed(
            recipes=_recipes(session, names), subcommands=subcommands, subcommands_in_all=in_all
        )
    typed = entry.label if found.name.section else entry.name
    if entry.kind == EntryKind.TOPIC and not entry.section:  # a manual of many commands
        facts = facts.changed(options=[], options_in_all=0, examples=[], form="", forms_in_all=0)
    card = make_card(facts, entry, typed, beside, whole=session.json)
    if entry.kind in (EntryKind.FUNCTION, EntryKind.SYSTEM_CALL):
        card = card.changed(function=_function(session, found))
    return card.changed(maker=maker_of_entry(session, entry), runs=_of_elsewhere(session, found))


def _function(session: Session, found: Lookup) -> CFunction | None:
    """What the page says of the function by the name that was asked for."""
    from dowsing.facts.c_function import c_function

    entry = found.entry
    assert entry is not None
    name = found.name.text if found.name.text in entry.all_names else entry.name
    return c_function(open_found(session, found), name)


def _of_elsewhere(session: Session, found: Lookup) -> str:
    """The program that would run where the page came with another installation of it, else ""."""
    from dowsing.machine.installations import is_of_another
    from dowsing.machine.search_path import executables

    entry = found.entry
    if entry is None or entry.section[:1] not in ("1", "6", "8"):
        return ""
    name = found.name.text if found.name.text in entry.all_names else entry.name
    for program in executables(name, session.settings.search_path)[:1]:
        return program if is_of_another(entry.path, os.path.realpath(program)) else ""
    return ""


def _facts(session: Session, found: Lookup, usual: list[str]) -> PageFacts:
    """What a card shows of a page, as the index has it; of another text, or in another language,
    or with all details, it is worked out now.
    """
    entry = found.entry
    assert entry is not None
    is_english = session.settings.language in ("", "en")
    is_page = entry.section not in ("", "builtin")
    if is_page and is_english and not session.json:
        kept = card_facts(session.store, entry.path)
        if kept:
            return unpack(kept)

    from dowsing.facts.page_facts import page_facts

    is_part = entry.kind == EntryKind.SUBCOMMAND
    typed = spoken(entry.name) if is_part and " " not in entry.name else entry.name
    return page_facts(open_found(session, found), usual, typed, details=session.json)


def subcommand_card(session: Session, words: list[str]) -> Card | None:
    """The card of a subcommand that has no page, `systemctl status`: what the text of its command
    says of it; None if that has no such subcommand.
    """
    from dowsing.commandline.reading.usual import options_by_use
    from dowsing.session.subcommands import finder_of, listed_subcommands

    found = named(session, words[:1])
    if len(words) != 2 or found.entry is None or not is_typed(found.entry.section):
        return None
    told = listed_subcommands(session, words[0])
    if words[1] not in told:
        return None
    facts = _facts(session, found, words[1:])
    says = first_sentence(told[words[1]] or _said_of(words[1], facts.said, told))
    finder = finder_of(session)
    part = finder.subcommand(finder.command(words[0]), words[1])
    options = [] if part is None or part.only else [one.option for one in options_by_use(part)]
    options = list({id(one): one for one in options}.values())
    forms = [form.line for form in part.forms[:1]] if part is not None else []
    own = PageFacts(
        label=facts.label,
        source=facts.source,
        summary=says,
        form="".join(forms),
        forms_in_all=len(forms),
        options=options[:FEW_OPTIONS],
        options_in_all=len(options),
    )
    entry = found.entry.changed(
        name=" ".join(words), section="", aliases=[], kind=EntryKind.SUBCOMMAND, summary=says
    )
    beside = Beside(sources=[facts.source], recipes=_recipes(session, ["-".join(words)]))
    return make_card(own, entry, words[0], beside)


def _recipes(session: Session, names: list[str]) -> list[Example]:
    found = few_recipes(session.store, names, FEW_RECIPES)
    return [Example(one.task, as_shown(one)) for one in found]


def _subcommands(
    session: Session, name: str, usual: list[str], facts: PageFacts
) -> tuple[list[Subcommand], int]:
    """The subcommands that are used most, with what is said of them: by the index, or by a term of
    the page itself. Where it is not known which these are, all of them, and their number.
    """
    words = [word for word in usual if word[:1].isalpha()]
    wants = (
        facts.source == SourceName.USAGE
        or "command" in facts.form.casefold()
        or has_subcommands(session.store, name)
    )
    if not words and (usual or not wants):
        return [], 0
    from dowsing.session.subcommands import told_subcommands

    told = told_subcommands(session, name)
    in_all = 0 if words else len(told)
    return [
        Subcommand(word, told[word] or _said_of(word, facts.said, told))
        for word in words or list(told)
        if word in told
    ], in_all


def _said_of(word: str, said: dict[str, str], told: dict[str, str]) -> str:
    """What is said of a subcommand, or of the one word that it is the beginning of."""
    if word in said:
        return said[word]
    longer = [other for other in told if other.startswith(word) and told[other]]
    return told[longer[0]] if len(longer) == 1 else ""


def _usual(session: Session, names: list[str]) -> list[str]:
    """What is used most of a command, by any of its names; `git commit` is named `git-commit`."""
    conventions = conventions_of(session.store)
    for name in names:
        for words in (name, spoken(name)):
            if usual := conventions.facts(words).usual:
                return usual
    return []
