"""Why an entry was found and stands where it does, in words."""

from __future__ import annotations

from dowsing.index.schema import HEAD_FIELDS, HEADS, MIDDLE, TEXT_FIELDS, UNIT
from dowsing.index.store import Store
from dowsing.index.word_reader import Said, postings, standings
from dowsing.model.entry import Candidate
from dowsing.search.matching import Matches
from dowsing.search.ranking import Phrase
from dowsing.search.weights import WEIGHTS, field_worths, section_costs

_PLACES = {
    "whole_name": "is its name", "in_name": "in its name", "in_alias": "in another name of it",
    "in_summary": "in its summary", "is_meaning": "what it does or to what", "in_task": "in a task it is for",
    "is_flag": "in an option", "in_lead": "in its first paragraph", "in_heading": "in a heading",
    "in_option": "in the text of an option",
}  # fmt: skip


def reasons(
    store: Store, shown: list[Candidate], matches: Matches, said_of_it: dict[int, Said]
) -> dict[int, list[str]]:
    """For each entry: where each word was found and what that is worth, the task it fits, and how it stands."""
    worths = field_worths(WEIGHTS, len(matches.terms))
    lists: dict[str, list] = {}  # type: ignore[type-arg]
    for posting in postings(store, {variant for term in matches.terms for variant, _ in term.variants}):
        places = dict(zip(posting.entries, posting.fields, strict=True))
        lists.setdefault(posting.term, []).append((posting.part, places))
    standing = standings(store)
    costs = section_costs({term.term for term in matches.terms}, WEIGHTS)
    phrase = Phrase(matches)
    found = {}
    for one in shown:
        said = []
        for n, term in enumerate(matches.terms):
            gain = matches.gains[n].get(one.number)
            if gain is None:
                continue
            best: tuple[float, str, int, int] | None = None
            for variant, weight in term.variants:
                for part, places in lists.get(variant, ()):
                    fields = places.get(one.number, 0)
                    worth = weight * worths[part][fields]
                    if fields and (best is None or worth > best[0]):
                        best = worth, variant, part, fields
            if best is None:
                said.append(f"“{term.word}” in its text or a longer word of its names (+{gain:.1f})")
                continue
            _, variant, part, fields = best
            bits = HEAD_FIELDS if part == HEADS else TEXT_FIELDS
            where = " and ".join(text for name, text in _PLACES.items() if fields & bits.get(name, 0))
            instead = f" as “{variant}”" if variant != term.term else ""
            said.append(f"“{term.word}”{instead} {where} (+{gain:.1f})")
        if not said:
            said.append("every word is somewhere in its text")
        texts = said_of_it[one.number]
        fitting = [(phrase.fit(terms), task) for task, terms in zip(texts.tasks, texts.task_terms, strict=True)]
        if fitting and max(fitting)[0] > 0.2:
            said.append(f"it is for: {max(fitting)[1]}")
        mark = (standing[one.number] - MIDDLE) / UNIT * WEIGHTS.standing
        cost = costs.get(one.section[:1], 2.0)
        said.append(f"how it stands among pages and packages ({mark:+.1f})")
        if cost:
            said.append(f"section {one.section or 'none'} ({-cost:+.1f})")
        found[one.number] = said
    return found
