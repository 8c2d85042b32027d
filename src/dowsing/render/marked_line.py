"""A command line as it stands, with what is wrong in it marked below."""

from __future__ import annotations

from dowsing.model.markup import BOLD, BOLD_ITALIC, CODE, ITALIC, ROMAN, clean_line
from dowsing.model.roles import Role
from dowsing.render.cell_width import display_width
from dowsing.render.wrap import wrap

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.render.pieces import Piece

INDENT = 3
#: How words are shown by what they are; operands are plain.
STYLES = {
    Role.COMMAND: BOLD,
    Role.SUBCOMMAND: BOLD,
    Role.KEYWORD: BOLD,
    Role.OPTION: CODE,
    Role.VALUE: ITALIC,
    Role.OPERATOR: BOLD_ITALIC,
    Role.REDIRECTION: BOLD_ITALIC,
    Role.ASSIGNMENT: ITALIC,
}
#: A mistake: its place, why, and what may be meant.
Mistake = tuple[int, int, str, list[str]]


def marked_lines(
    line: str, mistakes: list[Mistake], width: int, pieces: list[Piece] | None = None
) -> list[str]:
    """The line, and under each mistake a caret and the reason. A long line is shown around each
    mistake. Its words are shown by what they are, where the `pieces` tell that.
    """
    lines: list[str] = []
    shown = line.rstrip("\n").replace("\t", " ")
    if display_width(clean_line(shown)) + INDENT <= width and "\n" not in shown:
        lines.append(" " * INDENT + styled_line(shown, pieces or []))
        for mistake in mistakes:
            lines += _under(shown, 0, mistake, width)
        return lines
    if not mistakes:
        at = 0
        for part in shown[:2000].split("\n"):
            lines += wrap(styled_line(part, pieces or [], at), width, INDENT, 2)
            at += len(part) + 1
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


def styled_line(text: str, pieces: list[Piece], offset: int = 0) -> str:
    """A line with the style of each word. `offset`: where it begins in what the pieces are of."""
    if not pieces:
        return f"{BOLD}{clean_line(text)}{ROMAN}"
    styles = [ROMAN] * len(text)
    for piece in pieces:  # what stands within a word comes behind it
        start, end = piece.span[:2] if len(piece.span) > 1 else (piece.start, piece.end)
        for at in range(max(start - offset, 0), min(end - offset, len(text))):
            styles[at] = STYLES.get(piece.role, ROMAN)
        if piece.role == Role.OPTION and piece.word and piece.value:  # attached to it
            first = max(piece.end - len(piece.value) - offset, 0)
            attached = piece.word.endswith(piece.value)
            for at in range(first, min(piece.end - offset, len(text)) if attached else first):
                styles[at] = ITALIC
    told, before = "", ROMAN
    start = 0
    for at in range(len(text) + 1):
        if at == len(text) or styles[at] != before:
            told += clean_line(text[start:at])
            start = at
            if at < len(text):
                told += ROMAN + (styles[at] if styles[at] != ROMAN else "")
                before = styles[at]
    return told + ROMAN


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
