"""A script that was read as JSON has it (the contract is docs/reference.md)."""

from __future__ import annotations

from dowsing.render.phrases import words
from dowsing.render.piece_text import done_by
from dowsing.render.script_outline import outline

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.scripts.script import Named, PlacedEffect, PlacedProblem, Script


def script_json(script: Script, only: str = "") -> dict[str, object]:
    """The script; `only` its `problems` or `effects`."""
    found: dict[str, object] = {"file": script.name, "kind": script.kind, "lines": script.lines}
    if only != "effects":
        found["problems"] = [_problem(one) for one in script.problems]
    if only != "problems":
        found["effects"] = [_effect(one) for one in script.effects]
    if only:
        return found
    for name in ("reads", "writes", "missing", "unknown"):
        found[name] = [_named(one) for one in getattr(script, name)]
    found["unsafe"] = [{"line": one.line, "text": one.text} for one in script.unsafe]
    found["not_read"] = script.not_read
    found["commands"] = script.commands
    found["steps"] = [
        {"line": row.line, "depth": row.depth, "text": row.text, "says": row.says}
        for row in outline(script)
    ]
    return found


def _named(one: Named) -> dict[str, object]:
    return {"name": one.name, "lines": one.lines}


def _problem(one: PlacedProblem) -> dict[str, object]:
    problem = one.problem
    return {
        "line": one.line,
        "text": one.text,
        "says": words(problem.reason),
        "nearest": problem.nearest,
        "grade": problem.grade,
    }


def _effect(one: PlacedEffect) -> dict[str, object]:
    effect = one.effect
    return {
        "line": one.line,
        "does": effect.kind,
        "words": effect.words,
        "says": done_by(effect),
        "look": effect.look or None,
    }
