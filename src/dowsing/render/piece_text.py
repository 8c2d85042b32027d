"""A line taken apart, as lines."""

from __future__ import annotations

from dowsing.commandline.grammar.sayings import Grade, Manner
from dowsing.model.markup import BOLD, CODE, ITALIC, ROMAN, clean_line
from dowsing.model.roles import Role
from dowsing.model.source_name import OWN_HELP
from dowsing.render.cell_width import display_width
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.line_sentence import sentences
from dowsing.render.marked_line import STYLES, Mistake, marked_lines
from dowsing.render.meanings import meanings_here
from dowsing.render.phrases import subject_of, words
from dowsing.render.pieces import judged_pieces
from dowsing.render.typed import typed
from dowsing.render.wrap import first_sentence, unbroken, wrap

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.problems import Problem
    from dowsing.commandline.model.effect import Effect
    from dowsing.commandline.unpicked import Unpicked
    from dowsing.model.told import Told
    from dowsing.render.pieces import Piece

INDENT = 3
WIDEST_LABEL = 26
LONGEST_PHRASE = 50  # characters of what is said of a value as a whole, besides its parts
WIDEST_PART = 16  # of a value, beside which the meanings stand in a column
MOST_SAID = 230

KINDS = {
    "file": "a file",
    "folder": "a folder",
    "path": "a path",
    "number": "a number",
    "size": "a size",
    "duration": "a time",
    "date": "a date",
    "user": "a user",
    "group": "a group",
    "host": "a host",
    "address": "an address",
    "port": "a port",
    "url": "an address of the web",
    "pattern": "a pattern",
    "glob": "a pattern of names",
    "signal": "a signal",
    "mode": "permissions",
    "command": "a command",
}


def unpicked_lines(found: Unpicked, width: int, program: str, seen: bool = False) -> list[str]:
    """The line with its mistakes marked, the sentence, what it changes, the pieces with what they
    mean, how to go on.

    `seen`: the line stands just above, so that it is shown only to mark a mistake in it.
    """
    pieces, problem = judged_pieces(found)
    mistakes = _mistakes(pieces, problem)
    lines = marked_lines(found.line, mistakes, width, pieces) if mistakes or not seen else []
    says = sentences(found)
    if says:
        lines += [*([""] if lines else []), *wrap(clean_line(says), width, INDENT)]
    if found.changes:
        lines += ["", f"{HEADING}CHANGES", *_change_lines(found, width)]
    table = piece_lines(pieces, width, meanings_here(found.commands))
    lines += ["", *table] if table else []
    lines += ["", *(f"{FAINT}{line}" for line in _next(pieces, width, program))]
    return lines


def brief_lines(found: Unpicked, width: int, program: str) -> list[str]:
    """The line with its mistakes, the sentence and what it changes, without the pieces."""
    pieces, problem = judged_pieces(found)
    lines = marked_lines(found.line, _mistakes(pieces, problem), width, pieces)
    says = sentences(found)
    if says:
        lines += ["", *wrap(clean_line(says), width, INDENT)]
    if found.changes:
        lines += ["", f"{HEADING}CHANGES", *_change_lines(found, width)]
    step = f"{program} unpick {typed(found.line)}"
    return [*lines, "", *(f"{FAINT}{line}" for line in wrap(f"Next: {unbroken([step])}", width))]


def _change_lines(found: Unpicked, width: int) -> list[str]:
    """What a line changes."""
    lines: list[str] = []
    for effect in found.changes:
        says = f"{BOLD}{clean_line(effect.words)}{ROMAN}: {clean_line(done_by(effect))}"
        lines += wrap(says, width, INDENT, 2)
    return lines


def piece_lines(
    pieces: list[Piece], width: int, here: dict[tuple[int, int, str], str] | None = None
) -> list[str]:
    """The pieces, each with what it means beside it. `here`: what options mean with their values
    put in, see clauses.meanings_here.
    """
    rows = _rows(pieces, here or {})
    return _table(rows, width) if rows else []


def judged(problem: Told, grade: Grade) -> str:
    """What is wrong in words; of what can be run all the same, that one should take care."""
    return f"careful: {words(problem)}" if grade is Grade.WARNING else words(problem)


def mistakes_of(found: Unpicked) -> list[Mistake]:
    """The mistakes of a line in order."""
    return _mistakes(*judged_pieces(found))


def _mistakes(pieces: list[Piece], problem: Problem | None) -> list[Mistake]:
    mistakes: list[Mistake] = []
    for piece in pieces:
        if piece.problem:
            start, end = (piece.span or [piece.start, piece.end])[:2]
            mistakes.append((start, end, judged(piece.problem, piece.grade), piece.nearest))
    if problem is not None:
        says = judged(problem.reason, problem.grade)
        mistakes.append((problem.start, problem.end, says, problem.nearest))
    return sorted(mistakes, key=lambda one: one[0])


#: A row: how deep it stands, its label, what is said, the page, and the parts of a value.
_Row = tuple[int, str, str, str, list[list[str]]]


def _rows(pieces: list[Piece], here: dict[tuple[int, int, str], str]) -> list[_Row]:
    rows: list[_Row] = []
    page = ""
    n = 0
    while n < len(pieces):
        piece = pieces[n]
        n += 1
        follows = _values_of(piece, pieces, n)
        n += len(follows)
        place = (piece.start, piece.end)
        in_place = here.get((*place, piece.text)) or here.get((*place, f"-{piece.text}"), "")
        says, parts = _says_and_parts(piece, clean_line(in_place))
        parts += [part for one in follows for part in one.parts]
        if in_place and len(parts) == 1 and parts[0][0] == piece.value:
            parts = []
        cited = piece.page or "" if piece.role != Role.OPERATOR else ""
        row = (piece.depth, _label(piece, follows), says, cited if cited != page else "", parts)
        rows.append(row)
        page = cited or page
    return rows


def _values_of(piece: Piece, pieces: list[Piece], n: int) -> list[Piece]:
    """The values of an option that stand next, as words of their own."""
    follows: list[Piece] = []
    if piece.role != Role.OPTION or piece.value is None:
        return follows
    for one in pieces[n:]:
        is_its = one.role == Role.VALUE and one.of in (piece.text, *(piece.flags or ()))
        if not is_its or one.inside or one.problem:
            break
        follows.append(one)
    return follows


def _label(piece: Piece, follows: list[Piece]) -> str:
    """What is on the left: the word, an option with its value."""
    style = STYLES.get(piece.role, "")
    label = f"{style}{clean_line(piece.text)}{ROMAN if style else ''}"
    attached = bool(piece.word) and not follows
    value = " ".join(one.text for one in follows) if follows else piece.value
    if piece.role != Role.OPTION or not value or not (follows or attached):
        return label
    if piece.kind == "command" or (attached and clean_line(piece.text).endswith(value)):
        return label
    joint = "" if attached else " "
    if attached and piece.text.startswith("--"):
        joint = "="
    return f"{label}{joint}{ITALIC}{clean_line(_short(value))}{ROMAN}"


def _says_and_parts(piece: Piece, here: str) -> tuple[str, list[list[str]]]:
    """What a piece means, and the parts of its word that are not told with that."""
    says, parts = _says(piece, here), list(piece.parts)
    if here and piece.role == Role.OPERAND:
        if len(parts) > 1 and len(here) > LONGEST_PHRASE:
            return says, parts
        says = ": ".join(one for one in (says, here) if one)
        return says, parts if len(parts) > 1 else []
    if is_one_part(piece) and piece.role != Role.OPTION:
        meaning = clean_line(parts.pop()[1])
        says = ": ".join(one for one in (says, meaning) if one)
    return says, parts


def is_one_part(piece: Piece) -> bool:
    """Whether the word of a piece is told as a whole."""
    texts = (piece.text, piece.plain, piece.text.strip('"'))
    return len(piece.parts) == 1 and piece.parts[0][0] in texts


def says_of(piece: Piece) -> str:
    """What a piece means: what its page says, else what is known without it."""
    return piece.says or words(piece.meaning)


def manner_of(piece: Piece) -> str:
    """What else is told of what a piece is: the name that a form has for it, or how it came to be
    that.
    """
    return words(piece.manner) or piece.what


def done_by(effect: Effect) -> str:
    """What an effect does, with the harmless line to look first."""
    does = effect.does if isinstance(effect.does, str) else words(effect.does)
    return f"{does} (to look first: {effect.look})" if effect.look else does


def effect_line(effect: Effect) -> str:
    """An effect in one line."""
    return f"{effect.words}: {done_by(effect)}"


def _is(piece: Piece, manner: Manner) -> bool:
    return piece.manner is not None and piece.manner.code is manner


def _says(piece: Piece, here: str = "") -> str:
    """What a piece means, in a sentence or two; `here` with its value put in."""
    text = clean_line(" ".join(says_of(piece).split()))
    if piece.role == Role.COMMAND:
        where = (
            "keyword of the shell; "
            if _is(piece, Manner.KEYWORD)
            else ("builtin of the shell; " if piece.builtin else "")
        )
        if piece.nearest:
            text += f"; nearest: {', '.join(clean_line(one) for one in piece.nearest)}"
        return (where if piece.page and not piece.page.endswith("(builtin)") else "") + text
    if piece.problem and not text:
        return subject_of(piece.problem)
    if piece.role == Role.OPTION:
        said = here or _shortened(text)
        long = next((flag for flag in piece.flags or [] if flag.startswith("--")), "")
        notes = "" if _is(piece, Manner.NO_DASH) else manner_of(piece)
        is_long = piece.text.startswith("--")
        head = f"{BOLD}{long}{ROMAN}: " if long and not is_long and not notes else ""
        if piece.turns_off:
            head = "the contrary of: "
        return (
            f"{head}{said}" + (f"  ({clean_line(notes)})" if notes else "")
            if said or notes or head
            else "not documented here"
        )
    if piece.role == Role.SUBCOMMAND:
        return _shortened(text) + (f"  ({manner_of(piece)})" if manner_of(piece) else "")
    if piece.role == Role.VALUE:
        return f"the value of {piece.of}"
    if piece.role == Role.OPERAND:
        kind = KINDS.get(piece.kind, "")
        return text or ", ".join(part for part in (clean_line(manner_of(piece)), kind) if part)
    return text


def _shortened(text: str) -> str:
    first = first_sentence(text)
    if len(first) > MOST_SAID:
        return first[:MOST_SAID].rpartition(" ")[0] + " …"
    return first


def _short(value: str) -> str:
    return value if len(value) <= 40 else value[:39] + "…"


def _table(rows: list[_Row], width: int) -> list[str]:
    """Labels and what is said beside them; inner commands are set in."""
    sizes = sorted(display_width(label) + 2 * depth for depth, label, _, _, _ in rows)
    most = min(WIDEST_LABEL, max(width // 3, 8))
    column = max([size for size in sizes if size <= most] or [most])
    indent = INDENT + column + 2
    lines: list[str] = []
    for depth, label, says, page, parts in rows:
        left = " " * (INDENT + 2 * min(depth, 6)) + label
        text = says + (f"  {FAINT}{clean_line(page)}{ROMAN}" if page else "")
        body = wrap(text, width, indent)
        if display_width(left) + 2 <= indent:
            lines += [left + " " * (indent - display_width(left)) + body[0][indent:], *body[1:]]
        else:
            lines += [*wrap(label, width, INDENT + 2 * min(depth, 6), 2), *(body if text else [])]
        lines += _part_lines(parts, width, indent)
    return lines


def _part_lines(parts: list[list[str]], width: int, indent: int) -> list[str]:
    """The parts of a value, each with what it means beside it."""
    shown = [
        (clean_line(" ".join(part.split(" "))), clean_line(meaning)) for part, meaning in parts
    ]
    sizes = [display_width(part) for part, _ in shown]
    column = max([size for size in sizes if size <= WIDEST_PART] or [0])
    lines: list[str] = []
    for (part, meaning), size in zip(shown, sizes, strict=True):
        gap = " " * max(column - size, 0)
        text = f"{CODE}{part}{ROMAN}{gap}  {meaning}"
        hang = column + 2 if size <= column else 4
        lines += wrap(text, width, indent, hang)
    return lines


def _next(pieces: list[Piece], width: int, program: str) -> list[str]:
    pages = list(dict.fromkeys(piece.page for piece in pieces if piece.page))
    names = [
        page.partition("(")[0].removesuffix(OWN_HELP)
        for page in pages
        if page.endswith((")", OWN_HELP))
    ]
    steps = (
        [f"{program} options {typed(names[-1])}", f"{program} syntax {typed(names[-1])}"]
        if names
        else []
    )
    told = f"From {', '.join(pages[:6])}{' …' if len(pages) > 6 else ''}." if pages else ""
    text = f"{told} Next: {unbroken(steps)}" if steps else told
    return wrap(text.strip(), width) if text else []
