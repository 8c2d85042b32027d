"""A script that was read, as lines: first what somebody must know who was told to run it, then step
by step.
"""

from __future__ import annotations

from dowsing.commandline.scripts.fragments import Where
from dowsing.knowledge.effects import EffectKind
from dowsing.model.markup import BOLD, CODE, ROMAN, clean_line
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.phrases import words
from dowsing.render.piece_text import done_by, judged
from dowsing.render.script_outline import OutlineRow, outline
from dowsing.render.wrap import unbroken, wrap

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.scripts.script import (
        Named,
        PlacedEffect,
        PlacedProblem,
        Script,
        ScriptPart,
    )

INDENT = 3
MOST_NAMES = 12  # of one kind in the summary
MOST_LINES = 4  # numbers of lines behind a name
#: What the commands of a kind do, in the summary.
_KINDS = {
    EffectKind.DESTROYS: "removes",
    EffectKind.OVERWRITES: "replaces",
    EffectKind.STOPS: "stops",
    EffectKind.CHANGES: "changes",
    EffectKind.RUNS: "runs",
    EffectKind.SENDS: "sends",
}


def script_lines(script: Script, width: int, only: str = "", program: str = "dowsing") -> list[str]:
    """The summary and the outline; `only` the `problems` or the `effects`."""
    if only == "problems":
        return _problem_lines(script.problems, width) or [
            "   Nothing is wrong with it, as far as is known here."
        ]
    if only == "effects":
        return _effect_lines(script.effects, width) or [
            "   Nothing in it is known to destroy, change or send anything."
        ]
    lines = [f"{BOLD}{clean_line(script.name)}{ROMAN}  {_size(script)}", ""]
    lines += _summary(script, width)
    if script.problems:
        lines += ["", f"{HEADING}PROBLEMS", *_problem_lines(script.problems, width)]
    lines += ["", f"{HEADING}STEP BY STEP", *_steps(script, width)]
    steps = [f"{program} unpick LINE", f"{program} unpick FILE --only problems"]
    return [*lines, "", *(f"{FAINT}{one}" for one in wrap(f"Next: {unbroken(steps)}", width))]


def _size(script: Script) -> str:
    lines = f"{script.lines} line" + ("" if script.lines == 1 else "s")
    commands = f"{script.commands} command" + ("" if script.commands == 1 else "s")
    return f"{script.kind}, {lines}, {commands}"


def _summary(script: Script, width: int) -> list[str]:
    """What it does to the machine, and what is not known of it."""
    rows: list[tuple[str, str]] = []
    for kind, verb in _KINDS.items():
        found = [one for one in script.effects if one.effect.kind is kind]
        rows += [(verb, _effects_told(found))] if found else []
    rows += [("reads", _names_told(script.reads))] if script.reads else []
    rows += [("writes", _names_told(script.writes))] if script.writes else []
    rows += [("not here", _names_told(script.missing))] if script.missing else []
    if script.unknown:
        rows.append(("unknown", _names_told(script.unknown)))
    if script.unsafe:
        rows.append(("unsafe", f"quoted so that it may go wrong: {_unsafe_told(script.unsafe)}"))
    if script.not_read:
        rows.append(("not read", f"what cannot be read here: {_ranges(script.not_read)}"))
    if not rows:
        return wrap("Nothing in it is known to change, remove or send anything.", width, INDENT)
    column = INDENT + max(len(label) for label, _ in rows) + 2
    lines: list[str] = []
    for label, text in rows:
        body = wrap(text, width, column)
        left = " " * INDENT + f"{BOLD}{label}{ROMAN}" + " " * (column - INDENT - len(label))
        lines += [left + body[0][column:], *body[1:]]
    return lines


def _effects_told(found: list[PlacedEffect]) -> str:
    """The commands of one kind of effect, each once, with its lines."""
    by_words: dict[str, list[int]] = {}
    for one in found:
        lines = by_words.setdefault(clean_line(one.effect.words), [])
        lines += [one.line] * (one.line not in lines)
    return _listed([f"{name} ({_lines(lines)})" for name, lines in by_words.items()])


def _names_told(names: list[Named]) -> str:
    return _listed([f"{clean_line(one.name)} ({_lines(one.lines)})" for one in names])


def _unsafe_told(found: list[PlacedProblem]) -> str:
    return _listed([f"{clean_line(one.text)} (line {one.line})" for one in found])


def _listed(told: list[str]) -> str:
    if len(told) > MOST_NAMES:
        return f"{', '.join(told[:MOST_NAMES])} and {len(told) - MOST_NAMES} more"
    return ", ".join(told)


def _lines(numbers: list[int]) -> str:
    shown = ", ".join(str(n) for n in numbers[:MOST_LINES])
    more = " …" if len(numbers) > MOST_LINES else ""
    return f"line{'s' if len(numbers) > 1 else ''} {shown}{more}"


def _ranges(numbers: list[int]) -> str:
    """`lines 3, 7 to 9`."""
    runs: list[list[int]] = []
    for n in numbers:
        if runs and n == runs[-1][-1] + 1:
            runs[-1].append(n)
        else:
            runs.append([n])
    told = [f"{run[0]} to {run[-1]}" if len(run) > 1 else str(run[0]) for run in runs]
    return f"line{'s' if len(numbers) > 1 else ''} {_listed(told)}"


def _problem_lines(problems: list[PlacedProblem], width: int) -> list[str]:
    """Each problem with its line and the words it is about."""
    size = max((len(str(one.line)) for one in problems), default=1)
    lines: list[str] = []
    for one in problems:
        says = clean_line(judged(one.problem.reason, one.problem.grade))
        if one.problem.nearest:
            says += f"; nearest: {', '.join(clean_line(near) for near in one.problem.nearest)}"
        text = " ".join(clean_line(one.text).split())
        text = text if len(text) <= 60 else text[:59] + "…"
        label = f"{one.line:>{size}}"
        body = wrap(f"{CODE}{text}{ROMAN}  {says}", width, INDENT + size + 2, 2)
        lines += [" " * INDENT + label + body[0][INDENT + size :], *body[1:]]
    return lines


def _effect_lines(effects: list[PlacedEffect], width: int) -> list[str]:
    """Each effect with its line."""
    size = max((len(str(one.line)) for one in effects), default=1)
    lines: list[str] = []
    for one in effects:
        says = f"{BOLD}{clean_line(one.effect.words)}{ROMAN}: {clean_line(done_by(one.effect))}"
        body = wrap(says, width, INDENT + size + 2, 2)
        lines += [" " * INDENT + f"{one.line:>{size}}" + body[0][INDENT + size :], *body[1:]]
    return lines


def _steps(script: Script, width: int) -> list[str]:
    """The outline, what a text is in its file before it."""
    rows = outline(script)
    heads = {part.fragment.line: _where(part) for part in script.parts if part.fragment.where}
    size = len(str(script.lines))
    marked = {one.line for one in script.effects}
    lines: list[str] = []
    before = ""
    for row in rows:
        head = heads.get(row.line, "")
        if head and head != before:
            lines += wrap(f"{BOLD}{head}{ROMAN}", width, INDENT)
            before = head
        lines += _row(row, width, size, row.line in marked)
    return lines


def _row(row: OutlineRow, width: int, size: int, is_marked: bool) -> list[str]:
    """A statement: its number, what it says, and a mark if it changes something."""
    indent = INDENT + size + 3 + 2 * min(row.depth, 8)
    mark = "!" if is_marked else " "
    body = wrap(clean_line(row.says), width, indent, 2)
    first = " " * INDENT + f"{FAINT}{row.line:>{size}}{ROMAN} {mark} "
    return [first + body[0][INDENT + size + 3 :], *body[1:]]


def _where(part: ScriptPart) -> str:
    """What a text for the shell is in its file."""
    where = part.fragment.where
    if where is None:
        return ""
    if where.code is Where.SCHEDULE:
        return _schedule(str(where.arguments[0]), str(where.arguments[1]))
    return clean_line(words(where))


def _schedule(fields: str, user: str) -> str:
    """When a job of a crontab runs, with the next times."""
    from datetime import datetime

    from dowsing.commandline.languages.cron import next_times, read

    says = read(fields).says or fields
    due = [f"{one:%a %Y-%m-%d %H:%M}" for one in next_times(fields, datetime.now().astimezone())]
    told = f"{fields}  {says}" if says != fields else fields
    told += f", as {user}" if user else ""
    return clean_line(told + (f"; next: {', '.join(due)}" if due else ""))
