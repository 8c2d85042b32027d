"""What may come next, as lines."""

from __future__ import annotations

from dowsing.model.markup import BOLD, ITALIC, ROMAN, clean_line
from dowsing.model.roles import Role
from dowsing.render.cell_width import display_width
from dowsing.render.column_layout import in_columns
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.marked_line import Mistake, marked_lines
from dowsing.render.phrases import words
from dowsing.render.piece_text import KINDS
from dowsing.render.typed import typed
from dowsing.render.wrap import first_sentence, wrap

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.expecting import Expected, Next

INDENT = 3
WIDEST_LABEL = 30
_TITLES = {
    Role.COMMAND: "COMMANDS",
    Role.SUBCOMMAND: "SUBCOMMANDS",
    Role.OPTION: "OPTIONS",
    Role.OPERAND: "OPERAND",
    Role.VALUE: "VALUE",
    Role.OPERATOR: "OPERATOR",
    Role.REDIRECTION: "REDIRECTION",
    Role.ASSIGNMENT: "ASSIGNMENT",
    Role.SUBSTITUTION: "SUBSTITUTION",
    Role.KEYWORD: "KEYWORD",
    Role.COMMENT: "COMMENT",
}


def expected_lines(
    found: Next, width: int, program: str, limit: int, seen: bool = False
) -> list[str]:
    """The line, whether it can be run, and what may come, what must come first.

    `seen`: the line stands just above, so that it is shown only to mark a mistake in it.
    """
    mistakes: list[Mistake] = []
    if found.problem is not None:
        problem = found.problem
        mistakes = [(problem.start, problem.end, words(problem.reason), problem.nearest)]
    lines = (
        marked_lines(found.line[: found.at], mistakes, width)
        if found.line.strip() and (mistakes or not seen)
        else []
    )
    lines += [f"{FAINT}{line}" for line in wrap(_status(found), width, INDENT)]
    for what in dict.fromkeys(one.what for one in found.expects):
        group = [one for one in found.expects if one.what == what]
        lines += ["", f"{HEADING}{_title(what, group)}", *_group(group, width, limit)]
        if len(group) > limit:
            lines.append(
                f"{FAINT}{' ' * INDENT}… and {len(group) - limit} more: "
                f"{_more(found, group, program)}"
            )
    if not found.expects and found.problem is None:
        lines.append(f"{FAINT}   nothing is known of what may come here")
    return lines


def _status(found: Next) -> str:
    if found.complete:
        return "can be run as it stands"
    if found.missing:
        return f"cannot be run yet: needs {clean_line(', '.join(map(words, found.missing)))}"
    return "cannot be run as it stands" if found.problem else ""


def _title(what: Role, group: list[Expected]) -> str:
    required = " (required)" if all(one.required for one in group) else ""
    if what is Role.OPERAND and group[0].text:  # names that the project has
        return f"{clean_line(group[0].placeholder)}{required or ' (may be left out)'}"
    return _TITLES[what] + required


def _more(found: Next, group: list[Expected], program: str) -> str:
    name = group[0].page.partition("(")[0]
    if group[0].what == Role.OPTION and name:
        return f"{program} options {typed(name)}"
    return "type the beginning of what you look for"


def _group(group: list[Expected], width: int, limit: int) -> list[str]:
    shown = group[:limit]
    if group[0].what in (Role.VALUE, Role.OPERAND) and not group[0].text:
        lines: list[str] = []
        for one in shown:
            lines += _wanted(one, width, limit)
        return lines
    labels = [_label(one) for one in shown]
    column = min(max(display_width(label) for label in labels), WIDEST_LABEL)
    indent = INDENT + column + 2
    lines = []
    for one, label in zip(shown, labels, strict=True):
        body = wrap(clean_line(brief(one.says or words(one.meaning))), width, indent)[:2]
        size = display_width(label)
        if size <= column:
            lines += [
                " " * INDENT + label + " " * (column + 2 - size) + body[0][indent:],
                *body[1:],
            ]
        else:
            lines += [" " * INDENT + label, *body]
    return lines


def _label(one: Expected) -> str:
    flags = one.flags or [one.text]
    text = ", ".join(f"{BOLD}{clean_line(flag)}{ROMAN}" for flag in flags[:3])
    if one.what is Role.OPERAND:
        return text
    return text + (f" {ITALIC}{clean_line(one.placeholder)}{ROMAN}" if one.placeholder else "")


def brief(text: str) -> str:
    """The first sentence, shortened if it is long."""
    first = first_sentence(text)
    return first if len(first) <= 160 else first[:160].rpartition(" ")[0] + " …"


def _wanted(one: Expected, width: int, limit: int) -> list[str]:
    """A value or an operand: its name and kind, what is said of it, and those there are."""
    kind = KINDS.get(one.kind, "")
    limits = f"from {one.range[0]} to {one.range[1]}" if one.range else ""
    told = ", ".join(
        part for part in (kind, limits, "" if one.required else "may be left out") if part
    )
    head = f"{BOLD}{clean_line(one.placeholder)}{ROMAN}" + (f"  {told}" if told else "")
    lines = [" " * INDENT + head]
    if one.says or one.meaning:
        lines += wrap(clean_line(brief(one.says or words(one.meaning))), width, INDENT + 2)
    if one.values:
        shown = in_columns([clean_line(value) for value in one.values], width, INDENT + 2)
        lines += shown[:limit]
        if len(shown) > limit:
            lines.append(f"{FAINT}{' ' * (INDENT + 2)}… and more: type the beginning")
    elif one.values is not None:
        lines.append(f"{FAINT}{' ' * (INDENT + 2)}nothing here begins so")
    return lines
