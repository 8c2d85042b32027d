"""Examples of a name: recipes for it first, then the lines that its own texts give."""

from __future__ import annotations

from dowsing.index.schema import Meta
from dowsing.knowledge.recipes import CONDITIONS, Recipe, with_values
from dowsing.knowledge.stems import stems
from dowsing.model.names import spoken
from dowsing.model.record import Record
from dowsing.tasks.origin import Origin, OriginKind
from dowsing.tasks.retrieval import recipe_of, rows_of

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store
    from dowsing.model.document import Document

MOST = 60


class Shown(Record):
    """A line with what it is for, and where it is from."""

    task: str
    line: str
    origin: Origin


def recipes_for(store: Store, names: list[str]) -> list[Recipe]:
    """The recipes of a command, by any of its names; of `git commit` those whose line begins so."""
    wanted = set(names)
    starts = [f"{spoken(name)} " for name in names if "-" in name]
    hints = [*(f'"{name}"' for name in names), *starts]
    near = [row for row in rows_of(store, Meta.RECIPES) if any(hint in row for hint in hints)]
    found = [
        one
        for one in map(recipe_of, near)
        if one.command in wanted or any(f"{one.line} ".startswith(start) for start in starts)
    ]
    return sorted(found, key=lambda one: -_usual(one))


def as_shown(recipe: Recipe) -> str:
    """The line of a recipe for nobody's values: conditions on files stand for one of them."""
    return with_values(recipe.line, {CONDITIONS: "-name <glob>"})


def _usual(recipe: Recipe) -> float:
    """How usual a use is: it is said in many ways, and its line is short and one command."""
    joints = sum(recipe.line.count(sign) for sign in ("| ", "; ", "&& ", "-exec", "$("))
    return min(len(recipe.also), 5) - 2 * joints - 0.4 * len(as_shown(recipe).split())


def few_recipes(store: Store, names: list[str], count: int) -> list[Recipe]:
    """The first recipes of a command that differ in more than their last words."""
    found: dict[str, Recipe] = {}
    for recipe in recipes_for(store, names):
        found.setdefault(" ".join(recipe.line.split()[:2]), recipe)
    return list(found.values())[:count]


def examples_of(
    store: Store, document: Document, names: list[str], words: list[str], own: list[Recipe]
) -> list[Shown]:
    """The examples of a name, those with all of the words if some are given; each line once.

    `own` are recipes of the user's, those that are about the name are among the examples.
    """
    found = [
        Shown(
            recipe.task, as_shown(recipe), Origin(OriginKind.RECIPE, document.label, recipe.where)
        )
        for recipe in recipes_for(store, names)
    ]
    found += [
        Shown(one.task, one.line, Origin(OriginKind.MANUAL, document.label, document.source))
        for one in document.examples
    ]
    found += [
        Shown(one.task, as_shown(one), Origin(OriginKind.SAVED, document.label, "saved"))
        for one in own
        if one.command in names or set(names) & set(one.line.split())
    ]
    wanted = stems(" ".join(words))
    if wanted:
        found = [one for one in found if set(wanted) <= set(stems(f"{one.task} {one.line}"))]
    once: dict[str, Shown] = {}
    for one in found:
        once.setdefault(one.line, one)
    return list(once.values())[:MOST]
