"""A line with its options written long or short, or without what is the default anyway."""

from __future__ import annotations

import re
from itertools import groupby

from dowsing.commandline.grammar.sayings import Manner
from dowsing.commandline.model.tree import OptionUse, WordUse
from dowsing.model.roles import Role
from dowsing.model.told import Code, told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable, Iterator

    from dowsing.commandline.grammar.shell_words import Word
    from dowsing.commandline.model.tree import CommandNode
    from dowsing.commandline.unpicked import Unpicked
    from dowsing.model.told import Told

_IS_DEFAULT = re.compile(
    r"\b[Tt]his is the default\b|\((?:the )?default\)|\b[Tt]he default(?: behaviou?r)?\.\Z"
)
#: What a page prints in the place of a value that is a word as it stands: `--check=diagnose-first`.
_A_WORD = re.compile(r"[a-z]+(?:-[a-z]+)+")
_LETTER = re.compile(r"-[A-Za-z0-9]\Z")


class Needless(Code):
    """Why an option can be left out."""

    DEFAULT = "default"
    REPEATED = "repeated"
    IMPLIED = "implied"  # option that implies it


class Kept(Code):
    """Why an option stays as it is typed."""

    NO_LONG = "no long"  # page
    NO_SHORT = "no short"  # page
    UNKNOWN = "unknown"


class _Edit:
    """What takes the place of a part of the line; None takes it out with the blanks before it.
    `joins`: it is letters without a value, which others may stand with.
    """

    def __init__(self, start: int, end: int, text: str | None, *, joins: bool = False) -> None:
        self.start, self.end, self.text = start, end, text
        self.joins = joins


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
            and last.joins
            and edit.joins
            and found.line[last.end : edit.start].strip() == ""
        ):
            last.text += edit.text[1]  # letters next to each other stand together
            last.end = edit.end
        else:
            edits.append(edit)
    return _apply(found.line, edits)


def tidied(found: Unpicked) -> tuple[str, list[tuple[str, Told]]]:
    """The line without options that are the default anyway, given twice or implied by another, and
    what was left out with the reason.
    """
    edits: list[_Edit] = []
    said: list[tuple[str, Told]] = []
    for node in found.commands:
        needless = _needless(node)
        for uses in _words_of_options(node):
            for use in uses:
                reason = needless.get(id(use))
                if reason is None:
                    continue
                if len(uses) == 1:
                    edits += [_Edit(word.start, word.end, None) for word in _words(use)]
                elif use.place is not None and use.value is None:
                    place = use.word.start + use.place
                    edits.append(_Edit(place, place + 1, ""))
                else:
                    continue
                is_number = use.flag == f"-{use.value}"
                shown = [use.flag, *([use.value] if use.value and not is_number else [])]
                said.append((" ".join(shown), reason))
    return _apply(found.line, edits), said


def _words(use: OptionUse) -> Iterator[Word]:
    yield use.word
    yield from use.value_words


def _needless(node: CommandNode) -> dict[int, Told]:
    """The options of a command that can be left out, by their identity, with the reason. Where an
    option is turned on and off, the last counts, so all of it stays.
    """
    found: dict[int, Told] = {}
    switched = {(id(use.spelling.option), _is_off(use)) for use in node.used}
    seen: set[str] = set()
    for use in node.used:
        option = use.spelling.option
        if (id(option), not _is_off(use)) in switched:
            continue
        if _is_default(use, node):
            found[id(use)] = told(Needless.DEFAULT)
            continue
        if use.value is not None:
            continue
        # a tag of several spellings may be that of several options: `--min, --max`
        is_one = len(option.flags) <= 2
        meant = option.flags[0] if is_one else use.flag
        says_default = is_one and _IS_DEFAULT.search(option.text) and not option.default
        if says_default and not _is_off(use):
            found[id(use)] = told(Needless.DEFAULT)
        elif meant in seen and not option.repeatable:
            found[id(use)] = told(Needless.REPEATED)
        elif (other := _implied_by(use, node, found)) is not None:
            found[id(use)] = told(Needless.IMPLIED, other.flag)
        seen.add(meant)
    return found


def _is_default(use: OptionUse, node: CommandNode) -> bool:
    """Whether an option only says what holds anyway, by its page or by our facts. Where it is
    given with another value too, the last counts, so all of it stays.
    """
    option = use.spelling.option
    same = [one for one in node.used if one.spelling.option is option]
    if len({one.value for one in same}) > 1:
        return False
    defaults = node.known.facts.defaults
    flag = next((one for one in (use.flag, *option.flags) if one in defaults), "")
    if use.value is None or use.flag == f"-{use.value}":
        return bool(flag) and defaults[flag] == ""
    return use.value == option.default or bool(flag and use.value == defaults[flag])


def kept(found: Unpicked, in_long: bool) -> list[tuple[str, Told]]:
    """The options that a long or short form leaves as they are, each once, with the reason."""
    told_of: dict[str, Told] = {}
    for node in found.commands:
        for use in node.uses:
            if isinstance(use, WordUse) and use.role == Role.OPTION and use.word.value != "--":
                told_of.setdefault(use.word.text, told(Kept.UNKNOWN))
            elif isinstance(use, OptionUse) and (reason := _kept_reason(use, in_long)):
                told_of.setdefault(use.flag, reason)
    return list(told_of.items())


def _kept_reason(use: OptionUse, in_long: bool) -> Told | None:
    """Why an option stays as it is, None if it is changed or stands so already."""
    is_long = use.flag[:2] == "--"
    if is_long == in_long or (use.flag[:1] == "-" and len(use.flag) > 2 and not is_long):
        return None
    other = _long_spelling(use) if in_long else _short_spelling(use)
    if other:
        return None
    code = Kept.NO_LONG if in_long else Kept.NO_SHORT
    return told(code, use.spelling.page) if use.spelling.page else told(Kept.UNKNOWN)


def _is_off(use: OptionUse) -> bool:
    return use.spelling.turned_off_by(use.flag)


def _implied_by(use: OptionUse, node: CommandNode, left_out: dict[int, Told]) -> OptionUse | None:
    """The option of the line that stands for this one as well."""
    for other in node.used:
        if other.spelling.option is use.spelling.option or id(other) in left_out:
            continue
        for flag in other.spelling.implies:
            is_cluster = flag[:2] != "--" and node.known.spelling(flag) is None
            flags = [f"-{letter}" for letter in flag[1:]] if is_cluster else [flag]
            if any(one in use.spelling.option.flags for one in flags):
                return other
    return None


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
    if use.flag == f"-{use.value}":  # `-6`: the value is all there is
        return False
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
        # a number goes with its letter everywhere; some programs take it no other way
        is_optional = use.spelling.option.argument_optional
        joined = is_optional or not raw[:1].isalnum() or raw.isdecimal()
        spelling += raw if joined else f" {raw}"
    return [
        _Edit(use.word.start, use.word.end, spelling, joins=use.value is None or bool(use.values))
    ]


def _long_spelling(use: OptionUse) -> str:
    """The long spelling that goes with the one in the line, "" if there is none or the option is no
    plain one.
    """
    flags = use.spelling.option.flags
    if use.flag in flags and use.flag[:2] == "--":
        return use.flag
    if use.flag[:2] == "--":
        return next((flag for flag in flags if flag.startswith(use.flag)), use.flag)
    flags = [flag for flag in flags if not use.spelling.turned_off_by(flag)]
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
        printed = use.spelling.option.argument or ""
        if _A_WORD.fullmatch(printed) and printed != use.value:  # the letter stands for that word
            return ""
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
