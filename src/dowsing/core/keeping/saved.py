"""The user's own lines: recipes in the format of ours, in one file, the newest last."""

from __future__ import annotations

import os
import re

from dowsing.core.keeping import DROPPED, SAVED
from dowsing.core.keeping.files import change, quoted, read_text
from dowsing.core.language.stems import stems
from dowsing.core.record import Record
from dowsing.core.tasks.recipe import Fault, Recipe, parse_recipes

_BLOCK = re.compile(r"^\[\[recipe\]\]", re.MULTILINE)


class Kept(Record):
    """What `save` did: the recipe, whether it was there already, and whether only its task is new."""

    recipe: Recipe
    known: bool
    renamed: bool


def saved_recipes(folder: str) -> tuple[list[Recipe], list[Fault]]:
    """The user's own lines, and what is wrong in their file. Raises CannotKeep if it cannot be read."""
    path = os.path.join(folder, SAVED)
    text = read_text(path)
    if not _BLOCK.search(text):
        return [], []
    recipes, faults = parse_recipes(path, text)
    return [recipe.changed(where="saved") for recipe in recipes], faults


def having(lines: list[Recipe], wanted: set[str]) -> list[Recipe]:
    """The lines that have all of these stems, in themselves or in what they are for."""
    return [one for one in lines if wanted <= set(stems(" ".join([one.task, *one.also, one.line])))]


def save(folder: str, recipe: Recipe, day: str) -> Kept:
    """Keep a line. One that is kept already only gets the new task. Raises CannotKeep."""
    result = Kept(recipe, False, False)

    def edit(text: str) -> str:
        nonlocal result
        for start, end in _blocks(text):
            old = _recipe_of(text[start:end])
            if old is None or old.line != recipe.line:
                continue
            if not recipe.task or old.task == recipe.task:
                result = Kept(old, True, False)
                return text
            result = Kept(recipe, True, True)
            block = re.sub(
                r"^task = .*$",
                lambda _: f"task = {quoted(recipe.task)}",
                text[start:end],
                count=1,
                flags=re.MULTILINE,
            )
            return text[:start] + block + text[end:]
        head = text.rstrip("\n") + "\n\n" if text.strip() else _HEAD
        return head + written(recipe, day)

    change(os.path.join(folder, SAVED), edit)
    return result


_HEAD = "# Lines kept with dowsing save. You may edit this file; the format is that of recipes.\n\n"


def written(recipe: Recipe, day: str = "") -> str:
    """A recipe as a block of a file."""
    rows = ["[[recipe]]", f"task = {quoted(recipe.task)}"]
    if recipe.also:
        rows.append(f"also = [{', '.join(quoted(one) for one in recipe.also)}]")
    rows.append(f"line = {quoted(recipe.line)}")
    if recipe.command:
        rows.append(f"command = {quoted(recipe.command)}")
    for slot in recipe.slots:
        told = [f"kind = {quoted(slot.kind)}"] if slot.kind != "conditions" else []
        told += [f"like = {quoted(slot.like)}"] if slot.like else []
        told += [f"default = {quoted(slot.default)}"] if slot.default is not None else []
        if told:
            rows.append(f"slots.{slot.name} = {{ {', '.join(told)} }}")
    for name, phrases in recipe.parts.items():
        rows.append(f"parts.{name} = [{', '.join(quoted(one) for one in phrases)}]")
    rows += [f"changes = {quoted(recipe.changes)}"] if recipe.changes else []
    rows += [f"look = {quoted(recipe.look)}"] if recipe.look else []
    rows += [f"saved = {quoted(day)}"] if day else []
    return "\n".join(rows) + "\n"


def drop(folder: str, line: str) -> bool:
    """Take a line out of the file; it is put at the end of another one, so that it is not lost. Raises CannotKeep."""
    taken = ""

    def edit(text: str) -> str:
        nonlocal taken
        for start, end in _blocks(text):
            old = _recipe_of(text[start:end])
            if old is not None and old.line == line:
                taken = text[start:end].rstrip("\n") + "\n\n"
                break
        else:
            return text
        change(os.path.join(folder, DROPPED), lambda rest: rest + taken)
        return text[:start] + text[end:]

    change(os.path.join(folder, SAVED), edit)
    return bool(taken)


def _blocks(text: str) -> list[tuple[int, int]]:
    starts = [match.start() for match in _BLOCK.finditer(text)]
    return list(zip(starts, [*starts[1:], len(text)], strict=False))


def _recipe_of(block: str) -> Recipe | None:
    recipes, _ = parse_recipes("", block)
    return recipes[0] if recipes else None
