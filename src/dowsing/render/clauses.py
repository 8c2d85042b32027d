"""One command as a clause of a sentence: `sorts the lines of data.csv, each only once`.

What a clause is made of stands with the facts of commands (knowledge/commands/sentences), a table
for each command with

    does    what it does, by what must hold: `"-c -z" = "…"`, the first that holds counts, "" always
            does. A condition is an option (`-c|-x` for one of them), with `=VALUE` behind it one
            with that value; the name of an operand, `1` or `*`, which must be there; `inner`
            for a command that it carries; `|` where it reads what comes in by a pipe
    adds    what an option adds: `"-k" = "{}"`; "" for one that need not be told

In the texts `{X}` is the value of the option or operand X, in words where it is written in a small
language; `{X|text}` has what is said where there is none; `{=X}` is it as it stands, `{!X}` the
contrary. `{1}`, `{2-}`, `{-1}`, `{*}` are operands, `{in}` those that it reads, `{inner}` and
`{line}` what it runs. What stands in brackets is left out where something in it is missing.
"""

from __future__ import annotations

import re

from dowsing.commandline.annotate import read_held
from dowsing.commandline.command import Spelling
from dowsing.commandline.tree import CommandNode, OperandUse, OptionUse, WordUse
from dowsing.commandline.value_language import (
    LanguageValue,
    language_of_operand,
    language_of_option,
)
from dowsing.model.document import Option
from dowsing.model.roles import Role
from dowsing.model.values import OperandRole
from dowsing.render.wrap import first_sentence

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.command import Command
    from dowsing.commandline.shell_words import Word

MOST_OPERANDS = 3
_EITHER = frozenset(("-o", "-or", ","))
_JOINTS = {"-o": "or", "-or": "or", "-a": "and", "-and": "and", ",": "or", "(": "(", ")": ")"}
_NOT = frozenset(("!", "-not"))
_LONGEST = 60  # characters of a value that stands in a sentence
_OPTIONAL = re.compile(r"\[([^\[\]]*)\]")
_PLACE = re.compile(r"\{([=!]?)([^{}|]*)(?:\|([^{}]*))?\}")
_READ = frozenset((OperandRole.SOURCE, OperandRole.SUBJECT))
#: Words behind which the placeholder stands for a thing and not for its name.
_DETERMINERS = r"(?<!\ba )(?<!\ban )(?<!\bthe )(?<!\bone )(?<!\bthis )(?<!\beach )"
#: What is counted in the texts of facts.
_COUNTED = "level|line|time|folder|field|byte|block|character|job|thread|commit|second|picture|file"
#: Options with which any command only tells something.
_TELLING = {"--version": "tells the version of", "--help": "tells how to use"}
_FEEDERS = frozenset(("xargs", "parallel"))
_PROGRAMS = ("sed", "awk", "jq")
_SHOWN = {
    ".": "this folder",
    "./": "this folder",
    "..": "the folder above",
    "../": "the folder above",
    "~": "your home folder",
    "~/": "your home folder",
    "-": "its input",
    "": "nothing",
    " ": "a space",
    "\t": "a tab",
    "\\t": "a tab",
    "\n": "a new line",
    "\\n": "a new line",
    "\\0": "a null character",
    "{}": "them",
}


class Given:
    """What a command is given from outside. `piped`: by the command before it in a pipe; `source`:
    what it reads in place of its input, "" for that itself; `inner`: the clause of the command that
    it carries, `line` that of the lines in its values, "" without one.
    """

    def __init__(
        self, piped: bool = False, source: str = "", inner: str = "", line: str = ""
    ) -> None:
        self.piped, self.source, self.inner, self.line = piped, source, inner, line


class _Missing(Exception):
    """Something that a text needs is not there."""


def clause(node: CommandNode, given: Given) -> str:
    """The clause of a command that our facts have words for; "" if they have none."""
    if node.is_lost:  # its subcommand is a mistake
        return ""
    for flag, text in _TELLING.items():
        if node.use_of(flag) is not None or flag in node.unknown:
            return f"{text} {node.known.words}"
    second_best = ""
    for condition, text in _texts(node, given):
        filler = _Filler(node, given)
        filler.tell_values(condition)
        try:
            said = filler.fill(text)
        except _Missing:
            continue
        untold = filler.untold()
        told = said + (f": {untold}" if untold else "")
        told = told.replace(" that are ", " that is ") if "everything" in told else told
        whole = _singular(_in_a_row([told, *_added(node, filler)]))
        if not untold:
            return whole
        second_best = second_best or whole
    return second_best


def _in_a_row(parts: list[str]) -> str:
    """Parts with commas between; what stands in brackets needs none."""
    told = parts[0]
    for part in parts[1:]:
        is_close = part[0] == "(" or (told == parts[0] and part.startswith(("that ", "whose ")))
        told += f" {part}" if is_close else f", {part}"
    return told


def _singular(text: str) -> str:
    """`1 level`, of a text that has room for any number."""
    text = re.sub(rf"\b1 ({_COUNTED})s\b", r"1 \1", text)
    return re.sub(rf"\bthe (first|last) 1 ({_COUNTED})\b", r"the \1 \2", text)


def meanings_here(commands: list[CommandNode]) -> dict[tuple[int, int, str], str]:
    """What options mean with their values put in, and operands that are in a small language: by our
    facts, else by their page where its text has a placeholder. By the place of the word, and the
    option or the operand as it is typed.
    """
    found: dict[tuple[int, int, str], str] = {}
    for node in commands:
        for use in node.used:
            if use.carries or use.lines:
                continue
            if not use.value:
                said = "" if use.spelling.page else _adds(node.known, use) or ""
                if said:  # no page here tells of it
                    found[use.word.start, use.word.end, use.flag] = said.removeprefix("and ")
                continue
            said = _value_in_words(node, use) or filled_in(use)
            if said:
                found[use.word.start, use.word.end, use.flag] = said
        for operand in node.operands:
            said = _operand_in_words(node, operand)
            if said:
                word = operand.word
                found[word.start, word.end, word.text] = said
    return found


def _operand_in_words(node: CommandNode, use: OperandUse) -> str:
    """An operand in the words of its small language, "" if it is in none or that says no more."""
    language = language_of_operand(node, use)
    if not language or use.lines:
        return ""
    value = LanguageValue(language, use.word.value, use.word, use)
    said = _Filler(node, Given()).in_language(value, "")
    return said if said != use.word.value else ""


def _value_in_words(node: CommandNode, use: OptionUse) -> str:
    """What an option adds with its value put in, by our facts; "" if they do not tell."""
    text = _adds(node.known, use)
    filler = _Filler(node, Given())
    if text and "{" in text:
        try:
            return filler.option_text(use, text)
        except _Missing:
            return ""
    language = language_of_option(node, use)
    word = use.value_words[0] if len(use.value_words) == 1 else use.word
    return filler.in_language(LanguageValue(language, use.value or "", word, use), "")


def filled_in(use: OptionUse) -> str:
    """The first sentence of the page's text with the value in the place of its placeholder; "" if
    the placeholder is none that nothing else is written like.
    """
    placeholder = (use.spelling.option.argument or "").strip("<>[]=")
    text = first_sentence(" ".join(use.spelling.option.text.split()))
    is_plain = re.fullmatch(r"[A-Z][A-Z0-9_-]+", placeholder) and not use.spelling.choices
    if not is_plain or use.value is None:
        return ""
    first, sign, rest = text.partition(";")
    place = re.compile(rf"{_DETERMINERS}(?<![\w-]){re.escape(placeholder)}(?![\w-])")
    if not place.search(first):
        return ""
    rest = "" if place.search(rest) else sign + rest
    value = use.value if len(use.value) <= _LONGEST else use.value[: _LONGEST - 1] + "…"
    return place.sub(lambda _: value, first) + rest


def shown(word: Word) -> str:
    """A word as it is shown in a sentence."""
    text = word.text if word.dynamic or word.glob else word.value
    if word.dynamic and len(text) > 2 and text[0] == text[-1] == '"' and '"' not in text[1:-1]:
        text = text[1:-1]
    if text in _SHOWN:
        return _SHOWN[text]
    if "\n" in text:
        text = " ".join(text.split())
    return text if len(text) <= _LONGEST else text[: _LONGEST - 1] + "…"


def listed_words(words: list[str]) -> str:
    """Words in a row, the first few of them."""
    if len(words) > MOST_OPERANDS + 1:
        return f"{', '.join(words[:MOST_OPERANDS])} and {len(words) - MOST_OPERANDS} more"
    return " and ".join([", ".join(words[:-1]), words[-1]] if len(words) > 2 else words)


# --- which text
# ----------------------------------------------------------------------------------------------


def _texts(node: CommandNode, given: Given) -> list[tuple[str, str]]:
    """The texts whose conditions hold, with these, in order."""
    does = node.known.facts.does
    return [
        (condition, text)
        for condition, text in does.items()
        if all(_holds(one, node, given) for one in condition.split())
    ]


def _holds(condition: str, node: CommandNode, given: Given) -> bool:
    if condition == "|":
        return given.piped and not _inputs(node)
    if condition == "inner":
        return bool(given.inner)
    if condition == "either":
        return any(use.word.value in _EITHER for use in _operators(node))
    if condition == "--":
        return node.ended
    if condition[0] == "-":
        flags, _, value = condition.partition("=")
        use = _use_of(node, flags)
        return use is not None and (not value or use.value == value)
    keyed = node.use_of(condition)  # `of=`, which has no dash
    if keyed is not None or _operands(node, condition):
        return True
    return not node.operands and _is_fed(node) and not condition[:1].isdecimal()


def _use_of(node: CommandNode, flags: str) -> OptionUse | None:
    """The use of one of these options, `-a|--all`, also of a command that no page here tells of."""
    names = flags.split("|")
    use = node.use_of(*names)
    if use is not None:
        return use
    for one in node.uses:
        if isinstance(one, WordUse) and one.role == Role.OPTION and one.word.value in names:
            spelling = Spelling(one.word.value, Option([one.word.value]), "")
            value = one.value_word.value if one.value_word is not None else None
            loose = OptionUse(one.word.value, spelling, one.word, value)
            loose.value_words = [one.value_word] if one.value_word is not None else []
            return loose
    return None


def _is_fed(node: CommandNode) -> bool:
    """Whether its operands come from the command that carries it, as those of xargs do."""
    return node.carrier is not None and node.carrier.root.name in _FEEDERS


def _operators(node: CommandNode) -> list[WordUse]:
    """The operators of a command's own expression, as find has them."""
    return [use for use in node.uses if isinstance(use, WordUse) and use.role == Role.OPERATOR]


def acts_on_last(node: CommandNode) -> bool:
    """Whether the actions of an expression are for the last of its alternatives alone."""
    depth, found = 0, False
    for use in _operators(node):
        depth += {"(": 1, ")": -1}.get(use.word.value, 0)
        found = found or (not depth and use.word.value in _EITHER)
    return found


def _inputs(node: CommandNode) -> list[OperandUse]:
    """The operands that it reads."""
    return [use for use in node.operands if use.slot is not None and use.slot.role in _READ]


def _operands(node: CommandNode, name: str) -> list[OperandUse]:
    """The operands that a name of a text stands for."""
    uses = node.operands
    if name == "*":
        return uses
    if name in ("names", "settings"):
        is_setting = name == "settings"
        return [use for use in uses if ("=" in use.word.value) == is_setting]
    if name == "-1":
        return uses[-1:]
    counted = re.fullmatch(r"(\d)(-?)", name)
    if counted:
        first = int(counted[1]) - 1
        return uses[first:] if counted[2] else uses[first : first + 1]
    return [use for use in uses if use.slot is not None and use.slot.name == name]


# --- what it says
# --------------------------------------------------------------------------------------------


class _Filler:
    """Fills the texts of one command. `told`: the options and operands that were told."""

    def __init__(self, node: CommandNode, given: Given) -> None:
        self.node = node
        self.given = given
        self.told: set[int] = set()

    def tell_values(self, condition: str) -> None:
        """A text for an option with a certain value, `-x=l`, tells that value itself."""
        for one in condition.split():
            flag, equals, _ = one.partition("=")
            use = _use_of(self.node, flag) if equals and flag[:1] == "-" else None
            self.told |= {id(use), id(use.word)} if use is not None else set()

    def fill(self, text: str) -> str:
        """A text with all its places filled. Raises _Missing if one cannot be."""
        for _, name, instead in _PLACE.findall(text):  # `{adds}` is what these leave
            for one in (name, instead):
                use = _use_of(self.node, one) if one[:1] == "-" else None
                self.told |= {id(use), id(use.word)} if use is not None else set()

        def optional(match: re.Match[str]) -> str:
            try:
                return self.places(match[1])
            except _Missing:
                return ""

        return self.places(_OPTIONAL.sub(optional, text))

    def places(self, text: str) -> str:
        """The places that stand in no brackets."""
        return _PLACE.sub(self.place, text)

    def place(self, match: re.Match[str]) -> str:
        how, name, instead = match.groups()
        found = self.named(name, how)
        if found is None and instead is not None:
            found = self.otherwise(instead.split("|"), how)
            if instead == "its input" and self.given.piped:
                found = "what comes in"
        if found is None:
            raise _Missing
        return found

    def otherwise(self, instead: list[str], how: str) -> str | None:
        """The first of several options that is there, or the text behind them."""
        for name in instead:
            found = self.named(name, how) if name[:1] == "-" else name
            if found is not None:
                return found
        return None

    def named(self, name: str, how: str) -> str | None:
        """What a name stands for, None if there is nothing."""
        if name in ("inner", "line"):
            found = self.given.inner if name == "inner" else self.given.line
            return found or None
        if name == "in":
            return self.input()
        if name == "adds":
            return self.expression()
        if (name[0] == "-" and name != "-1") or self.node.use_of(name) is not None:
            return self.option(name, how)
        uses = _operands(self.node, name)
        if not uses:
            gets_more = _is_fed(self.node) and not self.node.operands
            return self.given.source or "them" if gets_more else None
        self.told |= {id(use) for use in uses}
        return listed_words([self.operand(use, how) for use in uses])

    def expression(self) -> str | None:
        """What the tests of an expression ask for, in order."""
        said: list[str] = []
        negated = False
        for use in self.node.uses:
            if isinstance(use, WordUse) and use.role == Role.OPERATOR:
                negated = negated or use.word.value in _NOT
                joint = _JOINTS.get(use.word.value, "")
                if joint == "(" and said and said[-1] not in _JOINTS.values():
                    said.append("and")
                said += [joint] if joint else []
                continue
            text = _adds(self.node.known, use) if isinstance(use, OptionUse) else None
            if not isinstance(use, OptionUse) or id(use) in self.told or text is None:
                continue
            if text.startswith("and ") or not text:
                continue  # an action
            test = _option_said(use, text, self)
            if said and said[-1] not in _JOINTS.values():
                said.append("and")
            said.append(f"not {test}" if negated else test)
            negated = False
            self.told.add(id(use))
        return " ".join(said).replace("( ", "(").replace(" )", ")") if any(said) else None

    def input(self) -> str | None:
        """What it reads, None where that is its input."""
        uses = _inputs(self.node)
        if not uses and not any(use.slot is not None for use in self.node.operands):
            uses = self.node.operands
        self.told |= {id(use) for use in uses}
        if uses:
            return listed_words([self.operand(use, "=") for use in uses])
        if _is_fed(self.node):
            return self.given.source or "them"
        return self.given.source or None

    def option(self, name: str, how: str) -> str | None:
        use = _use_of(self.node, name)
        if use is None or use.value is None:
            return None
        option = use.spelling.option
        same = [one for one in self.node.used if one.spelling.option is option] or [use]
        language = language_of_option(self.node, use)
        if len(same) > 1 and language.startswith(_PROGRAMS):
            raise _Missing  # several programs make one
        self.told |= {id(one) for one in same} | {id(use.word)}
        joint = " or " if language.startswith("regex") else " and "
        return joint.join(dict.fromkeys(self.value(one, how) for one in same if one.value))

    def value(self, use: OptionUse, how: str = "") -> str:
        """The value of an option, in words where it is in a small language."""
        language = language_of_option(self.node, use) if how != "=" else ""
        word = use.value_words[0] if len(use.value_words) == 1 else use.word
        plain = shown(word) if use.value_words and len(use.value_words) == 1 else use.value or ""
        if language and use.value:
            said = self.in_language(LanguageValue(language, use.value, word, use), how)
            if said:
                return said
            if language.startswith(_PROGRAMS):
                raise _Missing  # it is not put into words
        return _SHOWN.get(plain, plain)

    def operand(self, use: OperandUse, how: str) -> str:
        language = language_of_operand(self.node, use) if how != "=" else ""
        if language:
            value = LanguageValue(language, use.word.value, use.word, use)
            said = self.in_language(value, how)
            if said:
                return said
        if use.slot is not None and use.slot.role is OperandRole.PROGRAM and how != "=":
            raise _Missing  # a program that is not put into words
        told = self.node.known.facts.languages.get(use.slot.name, "") if use.slot else ""
        if told.startswith("regex") and not language and how != "=":  # taken as it stands
            return pattern_words(shown(use.word), how == "!")
        return shown(use.word)

    def in_language(self, value: LanguageValue, how: str) -> str:
        """A value in the words of its language, "" if it has none."""
        reading = read_held(value)
        base = value.language.partition("-")[0]
        if base == "regex":
            says = reading.says or f"matching {shown(value.word)}"
            return _denied(says) if how == "!" else says
        return reading.says if len(reading.says) <= 2 * _LONGEST else ""

    def option_text(self, use: OptionUse, text: str) -> str:
        """What an option adds, its value put in."""

        def place(match: re.Match[str]) -> str:
            how, name, _ = match.groups()
            if name.isdecimal():  # the first or second of two values
                words = use.value_words[int(name) - 1 : int(name)]
                if not words:
                    raise _Missing
                return shown(words[0])
            if name:
                return self.place(match)
            if use.value is None:
                raise _Missing
            return self.value(use, how)

        said = _PLACE.sub(place, text)
        return re.sub(r"“(a (?:space|tab|new line|null character))”", r"\1", said)

    def untold(self) -> str:
        """The operands that the text leaves out, in a row."""
        left = [
            use
            for use in self.node.operands
            if id(use) not in self.told and not use.lines
            if use.slot is None or use.slot.role is not OperandRole.PROGRAM
        ]
        return listed_words([shown(use.word) for use in left])


def pattern_words(text: str, denied: bool = False) -> str:
    """What lines with a pattern in them are like, where its language is not known."""
    return f"{'without' if denied else 'with'} “{text}”"


def _denied(says: str) -> str:
    """The contrary of what lines are like."""
    for begin, instead in (
        ("with nothing", "with more"),
        ("with ", "without "),
        ("that are not ", "that are "),
        ("that are ", "that are not "),
    ):
        if says.startswith(begin):
            return instead + says[len(begin) :]
    return f"not {says}"


# --- what options add
# ----------------------------------------------------------------------------------------


def _adds(known: Command, use: OptionUse) -> str | None:
    """What an option adds by our facts, None if these do not tell."""
    is_off = use.spelling.turned_off_by(use.flag)
    flags = [f"{use.flag}={use.value}", use.flag, *([] if is_off else use.spelling.option.flags)]
    owner: Command | None = known
    while owner is not None:
        for flag in flags:
            if flag in owner.facts.adds:
                return owner.facts.adds[flag]
        owner = owner.parent
    return None


def _added(node: CommandNode, filler: _Filler) -> list[str]:
    """What the options say that were not told yet; those that nothing is known of as they stand."""
    found: list[str] = []
    unknown: list[str] = []
    for use in node.uses:
        if isinstance(use, OptionUse):
            text = _adds(node.known, use)
            if text is None:
                if id(use) not in filler.told:
                    unknown.append(_as_typed(use))
                continue
            if id(use) in filler.told:
                continue
            said = _option_said(use, text, filler)
            if said.startswith("and ") and acts_on_last(node):
                said = f"and, of the latter only, {said[4:]}"
            if said and said not in found:
                found.append(said)
        elif isinstance(use, WordUse) and use.role == Role.OPTION and use.word.value != "--":
            found += [] if id(use.word) in filler.told else _undocumented(node.known, use)
    if unknown:
        found.append(f"with {listed_words(list(dict.fromkeys(unknown)))}")
    return found


def _undocumented(known: Command, use: WordUse) -> list[str]:
    """What an option adds that no page here tells of, but our facts: alone or as letters."""
    text = use.word.value
    letters = [f"-{letter}" for letter in text[1:]] if re.fullmatch(r"-[A-Za-z]{2,4}", text) else []
    for flags in ([text], letters):
        said = [known.facts.adds.get(flag) for flag in flags]
        if flags and all(one is not None and "{" not in one for one in said):
            return [one for one in said if one]
    value = f" {use.value_word.text}" if use.value_word is not None else ""
    return [f"with {use.word.text}{value}"]


def _option_said(use: OptionUse, text: str, filler: _Filler) -> str:
    if "{" in text and use.value is None:
        return ""
    try:
        return filler.option_text(use, text)
    except _Missing:
        return _as_typed(use)


def _as_typed(use: OptionUse) -> str:
    if use.value is None:
        return use.flag
    value = use.raw_value or use.value
    return f"{use.flag}={value}" if use.flag[:2] == "--" else f"{use.flag} {value}"
