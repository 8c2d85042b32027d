"""Lines for a task, and examples, as lines."""

from __future__ import annotations

from dowsing.knowledge.stems import EMPTY
from dowsing.model.markup import BOLD, ITALIC, ROMAN, clean_line, escaped
from dowsing.model.roles import Role
from dowsing.render.line_marks import FAINT
from dowsing.render.line_sentence import sentence
from dowsing.render.piece_text import effect_line, piece_lines, says_of
from dowsing.render.pieces import pieces_of
from dowsing.render.typed import typed
from dowsing.render.wrap import unbroken, wrap
from dowsing.tasks.answers import SURE
from dowsing.tasks.origin import OriginKind
from dowsing.tasks.recipe_ranking import OWN

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.entry import Entry
    from dowsing.render.pieces import Piece
    from dowsing.tasks.answers import Answer, Task
    from dowsing.tasks.recipe_examples import Shown

INDENT = 3
MOST_SAID = 400  # characters of a sentence that are shown again


def task_lines(found: Task, width: int, program: str, height: int | None = None) -> list[str]:
    """The lines with their numbers; what is open, what is dangerous, and whether the pages were
    found to agree.

    The pieces of the first line stand below it. Where all of it would not fit on a terminal of so
    many lines (`height`), the other answers are told in short, and only as many as there is room
    for.
    """
    head = _understood(found, width)
    head += [] if not head else [""]
    head += _answer_lines("1  ", found.answers[0], width)
    if not found.answers[0].line.startswith(f"{OWN} "):
        head += ["", *piece_lines(_told_once(pieces_of(found.answers[0].read)), width)]
    tail = ["", *(f"{FAINT}{line}" for line in wrap(_next(found, program), width))]
    others = [
        ["", *_answer_lines(f"{number}  ", one, width)]
        for number, one in enumerate(found.answers[1:], 2)
    ]
    if height is None or len(head) + sum(map(len, others)) + len(tail) < height:
        return [*head, *(line for one in others for line in one), *tail]
    room = height - len(head) - len(tail) - 3
    shown: list[str] = [""]
    for number, one in enumerate(found.answers[1:], 2):
        short = _answer_lines(f"{number}  ", one, width, short=True)
        if len(short) > room:
            more = (
                f"… and {len(found.answers) - number + 1} more, with {program} take N or in a "
                "larger window"
            )
            shown += [f"{FAINT}{line}" for line in wrap(more, width)]
            break
        room -= len(short)
        shown += short
    return [*head, *(shown if others else []), *tail]


def line_in_short(found: Task, width: int, program: str) -> list[str]:
    """The first line alone with what it does, and how to see what it rests on."""
    lines = _answer_lines("", found.answers[0], width, short=True)
    more = f"more about this line: {program} task {typed(found.task)}"
    return [*lines, *(f"{FAINT}{line}" for line in wrap(more, width, INDENT))]


def _told_once(pieces: list[Piece]) -> list[Piece]:
    """The pieces without options and operators that say the same as one before."""
    seen: set[tuple[str, str, int]] = set()
    left: list[Piece] = []
    dropped = ""
    for piece in pieces:
        if piece.role == Role.VALUE and piece.of == dropped:
            continue
        dropped = ""
        if piece.role in (Role.OPTION, Role.OPERATOR) and not piece.problem:
            key = (piece.flags[0] if piece.flags else piece.text, says_of(piece), piece.depth)
            if key in seen:
                dropped = piece.text
                continue
            seen.add(key)
        left.append(piece)
    return left


def _understood(found: Task, width: int) -> list[str]:
    """What was said, if it was said in several steps, and what of it was understood."""
    told: list[str] = []
    if found.again:
        told.append("; ".join([found.task, *found.again])[:MOST_SAID])
    told += [f"“{one.typed}” read as “{one.read}”" for one in found.misspelled]
    if found.understood and (found.again or any(" (" in one for one in found.understood)):
        told.append(f"understood: {' · '.join(found.understood)}")
    if found.lacks:
        told.append(f"not in the line: {', '.join(found.lacks)}")
    if found.near:
        told.append("Nothing known here does just that; this comes nearest:")
    elif found.likely < SURE:
        told.append("Probably this; look at it before you use it:")
    return [f"{FAINT}{line}" for one in told for line in wrap(clean_line(one), width)]


def _answer_lines(begin: str, answer: Answer, width: int, short: bool = False) -> list[str]:
    """A line with what it does; `begin` stands before it."""
    lines = wrap(f"{begin}{BOLD}{escaped(answer.line)}{ROMAN}", width, 0, INDENT)
    does = (sentence(answer.read) if answer.longer else "") or answer.task
    lines += wrap(clean_line(does), width, INDENT)
    notes = _notes(answer, width)
    return lines + ([one for one in notes if not one.startswith(FAINT)] if short else notes)


def _notes(answer: Answer, width: int) -> list[str]:
    lines: list[str] = []
    if answer.effects:
        told_already = any(effect.look for effect in answer.effects)
        look = f" (to look first: {answer.look})" if answer.look and not told_already else ""
        caution = "; ".join(effect_line(effect) for effect in answer.effects)
        lines += wrap(f"{ITALIC}careful{ROMAN}: {clean_line(caution + look)}", width, INDENT)
    missing = [
        slot.name for slot in answer.slots if slot.value is None and f"<{slot.name}>" in answer.line
    ]
    told = [f"say {', '.join(missing)}"] if missing else []
    if answer.origin.kind == OriginKind.OPTION:
        told.append(f"no recipe: put together from the forms and options of {answer.origin.where}")
    elif answer.origin.kind == OriginKind.MANUAL:
        told.append(f"an example of {answer.origin.where}")
    elif answer.origin.kind == OriginKind.SAVED:
        told.append("kept by you")
    if answer.checked:
        told.append(f"every option found in {answer.origin.page}" if answer.origin.page else "")
    else:
        told.append("not checked: its command, or an option of it, is not documented here")
    return lines + [f"{FAINT}{line}" for line in wrap("; ".join(filter(None, told)), width, INDENT)]


def _next(found: Task, program: str) -> str:
    open_places = any(f"<{slot.name}>" in found.answers[0].line for slot in found.answers[0].slots)
    steps = [f"{program} task --again 'what to do otherwise'"]
    steps.insert(0, f"{program} take 1 --copy" if open_places else f"{program} take 1 --run")
    if found.near:
        words = [word for word in found.task.split() if word.lower() not in EMPTY]
        steps.insert(0, f"{program} find {' '.join(typed(word) for word in words[:8])}")
    return f"Next: {unbroken(steps)}"


def numbered(number: int, line: str, width: int) -> list[str]:
    """A command line with its number before it, in the column of numbers."""
    body = wrap(f"{BOLD}{escaped(line)}{ROMAN}", width, INDENT, 2)
    return [f"{number:>2} {body[0][INDENT:]}", *body[1:]]


def example_lines(
    shown: list[Shown], entry: Entry, limit: int, width: int, program: str
) -> list[str]:
    """Examples with numbers, what each is for above it, recipes before those of the page."""
    lines = [f"{BOLD}{entry.label}{ROMAN}  {clean_line(entry.summary)}"]
    kind = ""
    for number, one in enumerate(shown[:limit], 1):
        if one.origin.kind != kind:
            kind = one.origin.kind
            head = {OriginKind.RECIPE: "our recipes", OriginKind.SAVED: "kept by you"}.get(
                kind, f"from {one.origin.page}"
            )
            lines += ["", f"{FAINT}{head}"]
        task = clean_line(one.task)
        lines += (
            []
            if not task
            else wrap(
                task if len(task) <= 2 * width else task[: 2 * width].rpartition(" ")[0] + " …",
                width,
                INDENT,
            )
        )
        lines += numbered(number, one.line, width)
    if len(shown) > limit:
        lines += [
            "",
            f"{FAINT}… and {len(shown) - limit} more: {program} examples {typed(entry.name)} "
            f"--limit {len(shown)}",
        ]
    steps = unbroken([f"{program} take 1 --unpick", f"{program} options {typed(entry.name)}"])
    return [*lines, "", f"{FAINT}Next: {steps}"]
