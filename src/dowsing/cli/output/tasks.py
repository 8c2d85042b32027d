"""Lines for a task, and examples, as lines."""

from __future__ import annotations

from dowsing.cli.output.line_marks import FAINT
from dowsing.cli.output.pieces import piece_lines
from dowsing.cli.output.typed import typed
from dowsing.cli.output.wrap import unbroken, wrap
from dowsing.core.commandline.pieces import Piece
from dowsing.core.index.store import Entry
from dowsing.core.markup import BOLD, ITALIC, ROMAN, clean_line
from dowsing.core.tasks.answers import Answer, Task
from dowsing.core.tasks.examples import Shown

INDENT = 3
MOST_SAID = 400  # characters of a sentence that are shown again


def task_lines(found: Task, first: list[Piece], width: int, program: str) -> list[str]:
    """The lines with their numbers; what is open, what is dangerous, and whether the pages were found to agree.

    `first` are the pieces of the first line, which stand below it.
    """
    lines: list[str] = []
    if found.again:
        said = "; ".join([found.task, *found.again])[:MOST_SAID]
        lines += [f"{FAINT}{line}" for line in wrap(clean_line(said), width)]
    if found.understood and (found.again or any(" (" in one for one in found.understood)):
        lines += [f"{FAINT}{line}" for line in wrap(clean_line(f"understood: {' · '.join(found.understood)}"), width)]
    if found.near:
        lines += [f"{FAINT}{line}" for line in wrap("Nothing known here does just that; this comes nearest:", width)]
    for number, answer in enumerate(found.answers, 1):
        lines += [] if not lines else [""]
        lines += wrap(f"{number}  {BOLD}{clean_line(answer.line)}{ROMAN}", width, 0, INDENT)
        lines += wrap(clean_line(answer.task), width, INDENT)
        lines += _notes(answer, width)
        if number == 1:
            lines += ["", *piece_lines(first, width)]
    return [*lines, "", *(f"{FAINT}{line}" for line in wrap(_next(found, program), width))]


def _notes(answer: Answer, width: int) -> list[str]:
    lines: list[str] = []
    if answer.caution:
        look = f" (to look first: {answer.look})" if answer.look and "to look first" not in answer.caution else ""
        lines += wrap(f"{ITALIC}careful{ROMAN}: {clean_line(answer.caution + look)}", width, INDENT)
    missing = [slot.name for slot in answer.slots if slot.value is None and f"<{slot.name}>" in answer.line]
    told = [f"say {', '.join(missing)}"] if missing else []
    if answer.origin.kind == "option":
        told.append(f"no recipe: put together from the forms and options of {answer.origin.where}")
    elif answer.origin.kind == "manual":
        told.append(f"an example of {answer.origin.where}")
    elif answer.origin.kind == "saved":
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
        steps.insert(0, f"{program} find {' '.join(typed(word) for word in found.task.split()[:8])}")
    return f"Next: {unbroken(steps)}"


def example_lines(shown: list[Shown], entry: Entry, limit: int, width: int, program: str) -> list[str]:
    """Examples with numbers, what each is for above it, recipes before those of the page."""
    lines = [f"{BOLD}{entry.label}{ROMAN}  {clean_line(entry.summary)}"]
    kind = ""
    for number, one in enumerate(shown[:limit], 1):
        if one.origin.kind != kind:
            kind = one.origin.kind
            head = {"recipe": "our recipes", "saved": "kept by you"}.get(kind, f"from {one.origin.page}")
            lines += ["", f"{FAINT}{head}"]
        task = clean_line(one.task)
        lines += (
            []
            if not task
            else wrap(task if len(task) <= 2 * width else task[: 2 * width].rpartition(" ")[0] + " …", width, INDENT)
        )
        lines += wrap(f"{number:>2} {BOLD}{clean_line(one.line)}{ROMAN}", width, 0, INDENT + 2)
    if len(shown) > limit:
        lines += [
            "",
            f"{FAINT}… and {len(shown) - limit} more: {program} examples {typed(entry.name)} --limit {len(shown)}",
        ]
    steps = unbroken([f"{program} take 1 --unpick", f"{program} options {typed(entry.name)}"])
    return [*lines, "", f"{FAINT}Next: {steps}"]
