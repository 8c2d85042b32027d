"""The choice of recipes into the index: what each stem says for each recipe, and their wordings."""

from __future__ import annotations

import json

from dowsing.index.knowledge_writer import KnowledgeWriter
from dowsing.index.schema import DOMAIN, Meta
from dowsing.index.writer import IndexWriter
from dowsing.knowledge.compiled import Part, part
from dowsing.knowledge.recipe_terms import packed_row, wording_terms
from dowsing.knowledge.recipes import CONDITIONS, Recipe
from dowsing.knowledge.task_choice import read_choice
from dowsing.knowledge.wordings import read_wordings


def insert_choice(writer: IndexWriter, recipes: list[Recipe]) -> frozenset[str]:
    """Write the model for those of these recipes that it knows; their lines."""
    choice = read_choice()
    if choice is None:
        return frozenset()
    wordings = read_wordings()
    known = {one.line: one for one in recipes}
    kept = KnowledgeWriter(writer)
    changing = set(choice.changing)
    kept.insert_task_recipes(
        (
            number,
            packed_row(known[line]),
            _terms_of(known[line], wordings.get(line, [])),
            int(number in changing),
        )
        for number, line in enumerate(choice.lines)
        if line in known
    )
    kept.insert_task_starts(
        (
            number,
            start,
            int(any(slot.name == CONDITIONS for slot in known[line].slots)),
            known[line].command,
        )
        for number, (line, start) in enumerate(zip(choice.lines, choice.offsets, strict=True))
        if line in known
    )
    kept.insert_task_stems(
        (stem, one.harm, one.change, one.numbers.tobytes(), one.steps)
        for stem, one in choice.stems.items()
    )
    kept.insert_task_telling((stem, one.telling) for stem, one in choice.stems.items())
    kept.insert_task_cues((slot, json.dumps(cues)) for slot, cues in choice.cues.items())
    domains = ((DOMAIN + command, json.dumps(stems)) for command, stems in choice.domains.items())
    kept.insert_task_cues(domains)
    kept.insert_additions(*part(Part.ASKS))
    writer.set_meta(Meta.TASK_HARM, str(choice.harm))
    writer.set_meta(Meta.TASK_CHANGE, str(choice.change))
    return frozenset(choice.lines) & frozenset(known)


def _terms_of(recipe: Recipe, wordings: list[str]) -> str:
    """The telling stems of all its wordings, a wording a line."""
    texts = [recipe.task, *recipe.also, *wordings]
    rows = (" ".join(wording_terms(text)) for text in texts)
    return "\n".join(dict.fromkeys(row for row in rows if row))
