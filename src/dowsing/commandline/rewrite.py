"""A line with its options written long or short, or without what is the default anyway."""

from __future__ import annotations

import re
from itertools import groupby

from dowsing.commandline.sayings import Manner
from dowsing.commandline.tree import OptionUse, WordUse
from dowsing.model.told import Code

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable, Iterator

    from dowsing.commandline.pieces import Unpicked
    from dowsing.commandline.shell_words import Word
    from dowsing.commandline.tree import CommandNode

_IS_DEFAULT = re.compile(
    r"\b[Tt]his is the default\b|\((?:the )?default\)|\b[Tt]he default(?: behaviou?r)?\.\Z"
)
_LETTER = re.compile(r"-[A-Za-z0-9]\Z")


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
    for node in found.commands:
        seen: set[str] = set()
        for uses in _words_of_options(node):
            for use in uses:
                reason = _needless(use, seen)
                seen.add(use.spelling.option.flags[0])
                if reason is None:
                    continue
                if len(uses) == 1:
                    edits += [_Edit(word.start, word.end, None) for word in _words(use)]
                elif use.place is not None and use.value is None:
                    place = use.word.start + use.place
                    edits.append(_Edit(place, place + 1, ""))
                else:
                    continue
                said.append((" ".join([use.flag, *([use.value] if use.value else [])]), reason))
    return _apply(found.line, edits), said


def _words(use: OptionUse) -> Iterator[Word]:
    yield use.word
    yield from use.value_words


def _needless(use: OptionUse, seen: set[str]) -> Needless | None:
    option = use.spelling.option
    if use.value is not None:
        return Needless.DEFAULT if use.value == option.default else None
    if _IS_DEFAULT.search(option.text) and not option.default:
        return Needless.DEFAULT
    return Needless.REPEATED if option.flags[0] in seen and not option.repeatable else None


def _edits(found: Unpicked, write: Callable[[list[OptionUse]], list[_Edit]]) -> list[_Edit]:
    """The words that options stand in, rewritten."""
    return [
        edit for node in found.commands for uses in _words_of_options(node) for edit in write(uses)
    ]


def _words_of_options(node: CommandNode) -> Iterator[list[OptionUse]]:
    """The options of each word of a command of which all is known, and that may be changed."""
    for _, group in groupby(node.uses, key=lambda use: id(use.word)):
        uses = [use for use in group if isinstance(use, (OptionUse, WordUse))]
        options = [use for use in uses if isinstance(use, OptionUse)]
        if options and len(options) == len(uses) and not any(map(_is_mistaken, options)):
            yield options


def _is_mistaken(use: OptionUse) -> bool:
    """Whether an option is not as it should be, or stands where the line cannot be changed."""
    if not all(word.placed for word in _words(use)):
        return True
    if use.value is None:
        return use.spelling.needs
    return use.raw_value is None or not (use.spelling.takes or use.manner is not None)


def _long(uses: list[OptionUse]) -> list[_Edit]:
    """A word with the long spellings of its options; a value that stood behind all of them goes
    with its own.
    """
    written: list[str] = []
    moved: list[_Edit] = []
    for use in uses:
        spelling = _long_spelling(use) or _kept_letter(use)
        if not spelling:
            return []
        if use.value is None:
            written.append(spelling)
        elif not use.value_words:
            written.append(f"{spelling}={use.raw_value}")
        elif use is uses[-1]:
            written.append(spelling)
        else:
            written.append(f"{spelling}={use.raw_value}")
            moved += [_Edit(word.start, word.end, None) for word in use.value_words]
    if all(_LETTER.match(one) for one in written):  # none of them has a long spelling
        return []
    word = uses[0].word
    return [_Edit(word.start, word.end, " ".join(written)), *moved]


def _short(uses: list[OptionUse]) -> list[_Edit]:
    """A word with a long option as the short one."""
    if len(uses) > 1 or uses[0].flag[:2] != "--":
        return []
    use = uses[0]
    spelling = _short_spelling(use)
    if not spelling:
        return []
    raw = use.raw_value or ""
    if use.value is not None and not use.value_words:
        joined = use.spelling.option.argument_optional or not raw[:1].isalnum()
        spelling += raw if joined else f" {raw}"
    return [_Edit(use.word.start, use.word.end, spelling)]


def _long_spelling(use: OptionUse) -> str:
    """The long spelling that goes with the one in the line, "" if there is none or the option is no
    plain one.
    """
    flags = use.spelling.option.flags
    if use.flag[:2] == "--":
        return next((flag for flag in flags if flag.startswith(use.flag)), use.flag)
    if use.is_manner(Manner.SAME_AS):
        return next((flag for flag in flags if flag.startswith("--")), "")
    letter = use.flag if use.flag[:1] == "-" else "-" + use.flag
    after = flags[flags.index(letter) + 1 :] if letter in flags else []
    return next((flag for flag in after if flag.startswith("--")), "")


def _kept_letter(use: OptionUse) -> str:
    """A letter that has no long spelling and takes no value here, which stays as it is."""
    is_letter = _LETTER.match(use.flag) and use.value is None and use.manner is None
    return use.flag if is_letter else ""


def _short_spelling(use: OptionUse) -> str:
    flags = use.spelling.option.flags
    whole = use.spelling.flag if use.is_manner(Manner.SHORT_FOR) else use.flag
    if whole not in flags:
        return ""
    shorts = [flag for flag in flags[: flags.index(whole)] if _LETTER.match(flag)]
    if use.value is not None:
        shorts = [flag for flag in shorts if flag not in use.spelling.option.bare]
    return shorts[-1] if shorts else ""


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
