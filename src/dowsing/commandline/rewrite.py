"""A line with its options written long or short, or without what is the default anyway."""

from __future__ import annotations

import re

from dowsing.commandline.command_pieces import commands_of
from dowsing.commandline.sayings import Manner
from dowsing.model.roles import Role
from dowsing.model.told import Code

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable

    from dowsing.commandline.pieces import Piece, Unpicked

_IS_DEFAULT = re.compile(
    r"\b[Tt]his is the default\b|\((?:the )?default\)|\b[Tt]he default(?: behaviou?r)?\.\Z"
)


class Needless(Code):
    """Why an option can be left out."""

    DEFAULT = "default"
    REPEATED = "repeated"


class _Edit:
    """What takes the place of a part of the line; None takes it out with the blanks before it."""

    def __init__(self, start: int, end: int, text: str | None) -> None:
        self.start, self.end, self.text = start, end, text


def long_form(found: Unpicked) -> str:
    """The line with every option in its long spelling, as far as it has one."""
    return _apply(found.line, _edits(found, _long))


def short_form(found: Unpicked) -> str:
    """The line with every option in its short spelling, letters put together where they may be."""
    edits: list[_Edit] = []
    for edit in sorted(_edits(found, _short), key=lambda one: one.start):
        last = edits[-1] if edits else None
        if (
            last is not None
            and last.text is not None
            and edit.text is not None
            and re.fullmatch(r"-[A-Za-z0-9]+", last.text)
            and re.fullmatch(r"-[A-Za-z0-9]", edit.text)
            and found.line[last.end : edit.start].strip() == ""
        ):
            last.text += edit.text[1]  # letters next to each other stand together
            last.end = edit.end
        else:
            edits.append(edit)
    return _apply(found.line, edits)


def tidied(found: Unpicked) -> tuple[str, list[tuple[str, Needless]]]:
    """The line without options that are the default anyway or given twice, and what was left out
    with the reason.
    """
    edits: list[_Edit] = []
    said: list[tuple[str, Needless]] = []
    for _, own in commands_of(found.pieces):
        seen: set[str] = set()
        for n, piece in enumerate(own):
            if piece.role != Role.OPTION or piece.problem or not piece.flags:
                continue
            reason = _needless(piece, seen)
            seen.add(piece.flags[0])
            if not reason:
                continue
            alone = sum(p.start == piece.start and p.role == Role.OPTION for p in own) == 1
            if not alone:
                if len(piece.span) == 2 and piece.value is None:
                    start = max(piece.span[0], piece.start + 1)
                    edits.append(_Edit(start, piece.span[1], ""))
                    said.append((piece.text, reason))
                continue
            edits.append(_Edit(piece.start, piece.end, None))
            if piece.value is not None and n + 1 < len(own) and own[n + 1].role == Role.VALUE:
                edits.append(_Edit(own[n + 1].start, own[n + 1].end, None))
            said.append(
                (piece.text if piece.value is None else f"{piece.text} {piece.value}", reason)
            )
    return _apply(found.line, edits), said


def _needless(piece: Piece, seen: set[str]) -> Needless | None:
    assert piece.flags
    if piece.value is not None and piece.default is not None and piece.value == piece.default:
        return Needless.DEFAULT
    if piece.value is None and piece.says and _IS_DEFAULT.search(piece.says) and not piece.default:
        return Needless.DEFAULT
    if piece.flags[0] in seen and piece.value is None and not piece.repeatable:
        return Needless.REPEATED
    return None


def _edits(
    found: Unpicked, write: Callable[[list[Piece], list[Piece]], list[_Edit]]
) -> list[_Edit]:
    """The words that options stand in, rewritten."""
    edits: list[_Edit] = []
    for _, own in commands_of(found.pieces):
        n = 0
        while n < len(own):
            piece = own[n]
            if piece.role != Role.OPTION:
                n += 1
                continue
            group = [piece]
            while n + len(group) < len(own) and own[n + len(group)].start == piece.start:
                group.append(own[n + len(group)])
            n += len(group)
            values: list[Piece] = []
            while n < len(own) and own[n].role == Role.VALUE:
                values.append(own[n])
                n += 1
            edits += write(group, values)
    return edits


def _long(group: list[Piece], values: list[Piece]) -> list[_Edit]:
    written: list[str] = []
    left = list(values)
    taken: list[Piece] = []
    for piece in group:
        spelling = _long_spelling(piece) or _kept_letter(piece)
        if not spelling or piece.page is None or piece.problem:
            return []
        value = (
            next((v for v in left if v.of in (piece.text, *(piece.flags or ()))), None)
            if piece.value is not None
            else None
        )
        if piece.value is not None and value is None:  # it stands in the same word
            raw = raw_value(piece)
            written.append(f"{spelling}={raw}")
        elif (
            value is not None
            and (len(group) > 1 or _is(piece, Manner.NO_DASH))
            and piece is not group[-1]
        ):
            left.remove(value)
            taken.append(value)
            written.append(f"{spelling}={value.text}")
        else:
            written.append(spelling)
    if all(len(one) == 2 for one in written):  # none of them has a long spelling
        return []
    return [
        _Edit(group[0].start, group[0].end, " ".join(written)),
        *(_Edit(v.start, v.end, None) for v in taken),
    ]


def _short(group: list[Piece], values: list[Piece]) -> list[_Edit]:
    written: list[str] = []
    if not any(piece.text.startswith("--") for piece in group):
        return []
    for piece in group:
        spelling = _short_spelling(piece)
        if not spelling or piece.page is None or piece.problem:
            return []
        attached = piece.value is not None and not any(
            v.of in (piece.text, *(piece.flags or ())) for v in values
        )
        if attached:
            raw = raw_value(piece)
            written.append(
                spelling + raw if piece.optional or not raw[:1].isalnum() else f"{spelling} {raw}"
            )
        else:
            written.append(spelling)
    letters = all(len(one) == 2 for one in written)
    text = (
        "-" + "".join(one[1] for one in written)
        if letters and len(written) > 1
        else " ".join(written)
    )
    return [_Edit(group[0].start, group[0].end, text)]


def _long_spelling(piece: Piece) -> str:
    """The long spelling that goes with the one in the line, "" if there is none or the option is no
    plain one.
    """
    flags = piece.flags or []
    if piece.text.startswith("--"):
        exact = next((flag for flag in flags if flag.startswith(piece.text)), piece.text)
        return exact
    text = piece.text if piece.text[:1] == "-" else "-" + piece.text
    if text not in flags:
        return (
            next((f for f in flags if f.startswith("--")), "") if _is(piece, Manner.SAME_AS) else ""
        )
    after = flags[flags.index(text) + 1 :]
    return next((flag for flag in after if flag.startswith("--")), "")


def _kept_letter(piece: Piece) -> str:
    """A letter that has no long spelling and takes no value here, which stays as it is."""
    letter = re.fullmatch(r"-[A-Za-z0-9]", piece.text)
    return piece.text if letter and piece.value is None and not piece.manner else ""


def _short_spelling(piece: Piece) -> str:
    flags = piece.flags or []
    if re.fullmatch(r"-[A-Za-z]", piece.text):
        return piece.text
    whole = piece.text
    if _is(piece, Manner.SHORT_FOR) and piece.manner is not None:
        whole = str(piece.manner.arguments[0])
    if whole not in flags:
        return ""
    before = flags[: flags.index(whole)]
    shorts = [flag for flag in before if re.fullmatch(r"-[A-Za-z0-9]", flag)]
    if piece.value is not None:
        shorts = [flag for flag in shorts if flag not in piece.bare]
    return shorts[-1] if shorts else ""


def _is(piece: Piece, manner: Manner) -> bool:
    return piece.manner is not None and piece.manner.code is manner


def raw_value(piece: Piece) -> str:
    """The value of an option as it stands in its word, quotes included."""
    word = piece.word or piece.text
    if _is(piece, Manner.SAME_AS):
        return piece.value or ""
    if piece.text.startswith("--") or "=" in word[: len(piece.text) + 1]:
        return word.partition("=")[2]
    offset = piece.span[1] - piece.start if piece.span else len(piece.text)
    return word[offset:]


def _apply(line: str, edits: list[_Edit]) -> str:
    for edit in sorted(edits, key=lambda one: one.start, reverse=True):
        if edit.text is None:
            start = edit.start
            while start > 0 and line[start - 1] == " ":
                start -= 1
            line = line[:start] + line[edit.end :]
        else:
            line = line[: edit.start] + edit.text + line[edit.end :]
    return line
