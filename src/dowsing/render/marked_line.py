"""A command line as it stands, with what is wrong in it marked below."""

from __future__ import annotations

from dowsing.model.markup import BOLD, BOLD_ITALIC, ROMAN, clean_line
from dowsing.render.cell_width import display_width
from dowsing.render.wrap import wrap

INDENT = 3
#: A mistake: its place, why, and what may be meant.
Mistake = tuple[int, int, str, list[str]]


def marked_lines(line: str, mistakes: list[Mistake], width: int) -> list[str]:
    """The line, and under each mistake a caret and the reason. A long line is shown around each
    mistake.
    """
    lines: list[str] = []
    shown = line.rstrip("\n").replace("\t", " ")
    if display_width(clean_line(shown)) + INDENT <= width and "\n" not in shown:
        lines.append(" " * INDENT + BOLD + clean_line(shown) + ROMAN)
        for mistake in mistakes:
            lines += _under(shown, 0, mistake, width)
        return lines
    if not mistakes:
        for part in shown[:2000].split("\n"):
            lines += wrap(f"{BOLD}{clean_line(part)}{ROMAN}", width, INDENT, 2)
        return lines
    for mistake in mistakes:
        room = max(width - INDENT - 4, 20)
        begin = max(0, mistake[0] - room // 2)
        part = shown[begin : begin + room].replace("\n", " ")
        head = "… " if begin else ""
        tail = " …" if begin + room < len(shown) else ""
        lines.append(f"{' ' * INDENT}{BOLD}{head}{clean_line(part)}{tail}{ROMAN}")
        lines += _under(head + part, begin - len(head), mistake, width)
    return lines


def _under(text: str, offset: int, mistake: Mistake, width: int) -> list[str]:
    start, end, says, nearest = mistake
    start, end = max(start - offset, 0), max(end - offset, 0)
    before = INDENT + display_width(clean_line(text[:start]))
    size = max(display_width(clean_line(text[start : min(end, len(text))])), 1)
    reason = clean_line(says) + (
        f"; nearest: {', '.join(clean_line(one) for one in nearest)}" if nearest else ""
    )
    carets = " " * before + BOLD_ITALIC + "^" * size + ROMAN
    if before + size + 1 + display_width(reason) <= width:
        return [f"{carets} {reason}"]
    return [carets, *wrap(reason, width, INDENT)]
