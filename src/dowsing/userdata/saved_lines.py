"""The user's own lines: recipes in the format of ours, in one file, the newest last."""

from __future__ import annotations

import os

from dowsing.knowledge.recipes import Recipe, make_recipe
from dowsing.knowledge.toml_blocks import Block, blocks_of
from dowsing.model.record import Record
from dowsing.userdata import SAVED
from dowsing.userdata.dropping import take_out
from dowsing.userdata.user_files import change, toml_string


class Kept(Record):
    """What `save` did: the recipe, whether it was there already, and whether only its task is
    new.
    """

    recipe: Recipe
    known: bool
    renamed: bool


def save(folder: str, recipe: Recipe, day: str) -> Kept:
    """Keep a line. One that is kept already only gets the new task. Raises CannotKeep."""
    result = Kept(recipe, False, False)

    def edit(text: str) -> str:
        nonlocal result
        for block, old in _with_line(text, recipe.line):
            if not recipe.task or old.task == recipe.task:
                result = Kept(old, True, False)
                return text
            result = Kept(recipe, True, True)
            return (
                text[: block.start]
                + _renamed(text[block.start : block.end], recipe.task)
                + text[block.end :]
            )
        return _before_a_block(text) + written(recipe, day)

    change(os.path.join(folder, SAVED), edit)
    return result


def _before_a_block(text: str) -> str:
    """A file as it is, so that a block can follow: nothing is taken from its end, which may be of a
    block that is damaged.
    """
    if not text.strip():
        return text + _HEAD
    ending = "" if text.endswith("\n\n") else "\n" if text.endswith("\n") else "\n\n"
    return text + ending


_HEAD = "# Lines kept with dowsing save. You may edit this file; the format is that of recipes.\n\n"


def written(recipe: Recipe, day: str = "") -> str:
    """A recipe as a block of a file."""
    rows = ["[[recipe]]", f"task = {toml_string(recipe.task)}"]
    if recipe.also:
        rows.append(f"also = [{', '.join(toml_string(one) for one in recipe.also)}]")
    rows.append(f"line = {toml_string(recipe.line)}")
    if recipe.command:
        rows.append(f"command = {toml_string(recipe.command)}")
    for slot in recipe.slots:
        told = [f"kind = {toml_string(slot.kind)}"] if slot.kind != "conditions" else []
        told += [f"like = {toml_string(slot.like)}"] if slot.like else []
        told += [f"default = {toml_string(slot.default)}"] if slot.default is not None else []
        if told:
            rows.append(f"slots.{slot.name} = {{ {', '.join(told)} }}")
    for name, phrases in recipe.parts.items():
        rows.append(f"parts.{name} = [{', '.join(toml_string(one) for one in phrases)}]")
    rows += [f"changes = {toml_string(recipe.changes)}"] if recipe.changes else []
    rows += [f"look = {toml_string(recipe.look)}"] if recipe.look else []
    rows += [f"saved = {toml_string(day)}"] if day else []
    return "\n".join(rows) + "\n"


def drop(folder: str, line: str) -> bool:
    """Take a line out of the file; it is put at the end of another one, so that it is not lost.
    Raises CannotKeep.
    """
    taken = False

    def edit(text: str) -> str:
        nonlocal taken
        for block, _ in _with_line(text, line):
            taken = True
            return take_out(folder, text, block)
        return text

    change(os.path.join(folder, SAVED), edit)
    return taken


def _with_line(text: str, line: str) -> list[tuple[Block, Recipe]]:
    """The blocks of a file that keep this line. Only those that have it in them in one way of
    writing are read.
    """
    found: list[tuple[Block, Recipe]] = []
    for block in blocks_of(text, "recipe", (line, toml_string(line)[1:-1])):
        try:
            recipe = make_recipe(block.row or {}, "", "")
        except ValueError:
            continue
        if recipe.line == line:
            found.append((block, recipe))
    return found


def _renamed(block: str, task: str) -> str:
    """A block with another task; all else in it, comments too, stays as it is."""
    import tomlkit

    document = tomlkit.parse(block)
    document["recipe"][0]["task"] = task
    return tomlkit.dumps(document)
