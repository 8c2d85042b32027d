"""Lines taken apart, half-typed and found as JSON has them (the contract is docs/reference.md)."""

from __future__ import annotations

from dowsing.model.record import dump
from dowsing.render.fields import field_says
from dowsing.render.line_sentence import sentences
from dowsing.render.meanings import meanings_here
from dowsing.render.phrases import words
from dowsing.render.piece_text import done_by, effect_line, manner_of, says_of
from dowsing.render.pieces import judged_pieces, pieces_of

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.expecting import Expected, Next
    from dowsing.commandline.grammar.problems import Problem
    from dowsing.commandline.reading.form_words import FormPart, Syntax
    from dowsing.commandline.unpicked import Unpicked
    from dowsing.composing.field import Field
    from dowsing.composing.sheet import Sheet
    from dowsing.render.pieces import Piece
    from dowsing.tasks.answers import Answer

#: The fields of a piece that are carried as they are.
_BEFORE = ("text", "start", "end", "role", "flags", "value", "page")
_AFTER = ("nearest", "word", "span", "depth", "of")
_LAST = ("kind", "inside", "builtin", "parts")


def pieces_json(
    pieces: list[Piece], here: dict[tuple[int, int, str], str] | None = None
) -> list[dict[str, object]]:
    """Pieces with what is said of them in words. `here`: what options mean with their values put
    in, see clauses.meanings_here.
    """
    known = here or {}
    return [
        _piece_json(piece) | {"here": known.get((piece.start, piece.end, piece.text))}
        for piece in pieces
    ]


def _piece_json(piece: Piece) -> dict[str, object]:
    row: dict[str, object] = {name: getattr(piece, name) for name in _BEFORE}
    row |= {"says": says_of(piece) or None, "problem": words(piece.problem) or None}
    row |= {name: getattr(piece, name) for name in _AFTER}
    row["grade"] = piece.grade if piece.problem else None
    return row | {"what": manner_of(piece)} | {name: getattr(piece, name) for name in _LAST}


def problem_json(problem: Problem | None) -> dict[str, object] | None:
    """The problem of a line."""
    if problem is None:
        return None
    return {
        "start": problem.start,
        "end": problem.end,
        "says": words(problem.reason),
        "nearest": problem.nearest,
        "grade": problem.grade,
    }


def unpicked_json(found: Unpicked) -> dict[str, object]:
    """A line taken apart."""
    pieces, problem = judged_pieces(found)
    return {
        "line": found.line,
        "says": sentences(found),
        "pieces": pieces_json(pieces, meanings_here(found.commands)),
        "changes": [effect_line(effect) for effect in found.changes],
        "effects": [
            {
                "does": effect.kind,
                "words": effect.words,
                "says": done_by(effect),
                "look": effect.look or None,
            }
            for effect in found.changes
        ],
        "problem": problem_json(problem),
    }


def forms_json(syntax: Syntax) -> list[dict[str, object]]:
    """The forms of a name, with what is known of their elements in words."""
    return [
        {
            "line": form.line,
            "elements": [_part_json(part) for part in form.elements],
            "defines": form.defines,
            "problem": form.problem,
            "twins": form.twins,
        }
        for form in syntax.forms
    ]


def _part_json(part: FormPart) -> dict[str, object]:
    return {
        "text": part.text,
        "what": part.what,
        "required": part.required,
        "repeats": part.repeats,
        "value_kind": part.value_kind,
        "says": part.says or words(part.note),
        "elements": [_part_json(one) for one in part.elements],
    }


def next_json(found: Next) -> dict[str, object]:
    """What may come next."""
    return {
        "line": found.line,
        "at": found.at,
        "typed": found.typed,
        "complete": found.complete,
        "problem": problem_json(found.problem),
        "missing": [words(one) for one in found.missing],
        "expects": [_expected_json(one) for one in found.expects],
    }


def _expected_json(one: Expected) -> dict[str, object]:
    row: dict[str, object] = dump(one.changed(meaning=None))
    row["says"] = one.says or words(one.meaning)
    del row["meaning"]
    return row


def answer_json(answer: Answer) -> dict[str, object]:
    """A line for a task."""
    return {
        "line": answer.line,
        "task": answer.task,
        "slots": dump(answer.slots),
        "pieces": pieces_json(pieces_of(answer.read)),
        "caution": caution(answer) or None,
        "look": answer.look,
        "checked": answer.checked,
        "score": answer.score,
        "from": dump(answer.origin),
    }


def caution(answer: Answer) -> str:
    """What a line destroys or overwrites, in one line."""
    return "; ".join(effect_line(effect) for effect in answer.effects)


def sheet_json(sheet: Sheet) -> dict[str, object]:
    """A sheet: the line as it stands, its fields, what is missing and wrong."""
    ruled_out = sheet.ruled_out()
    return {
        "name": sheet.title,
        "line": sheet.line(),
        "summary": sheet.summary,
        "page": sheet.page,
        "steps": sheet.counts(),
        "fields": [_field_json(sheet, field, ruled_out.get(field.key)) for field in sheet.fields],
        "missing": [words(fault.reason) for fault in sheet.missing()],
        "faults": [
            {"field": fault.field.label, "value": fault.value, "says": words(fault.reason)}
            for fault in sheet.faults()
        ],
    }


def _field_json(sheet: Sheet, field: Field, ruled_out: str | None) -> dict[str, object]:
    return {
        "label": field.label,
        "what": field.what,
        "step": field.step,
        "flags": field.flags,
        "placeholder": field.placeholder,
        "kind": field.kind or None,
        "takes": field.takes,
        "required": field.required,
        "repeats": field.repeats,
        "values": field.values,
        "limits": field.limits,
        "default": field.default,
        "says": field_says(field),
        "page": field.page,
        "group": field.group,
        "holds": sheet.values(field),
        "ruled_out_by": ruled_out,
    }
