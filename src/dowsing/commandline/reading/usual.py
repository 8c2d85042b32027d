"""What is usual of a command: its options by how much is made of them, and its subcommands."""

from __future__ import annotations

import re

from dowsing.commandline.model.form_facts import wants_command
from dowsing.index.command_rows import subcommands_of

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.model.command import Command, Spelling
    from dowsing.commandline.reading.command_finder import CommandFinder

_FLAG = r"(?<![\w-])-{1,2}[A-Za-z0-9][\w-]*"


def options_by_use(known: Command, lines: list[str] | None = None) -> list[Spelling]:
    """The spellings by how much their options are used, as our facts say; the others by how much
    the page makes of them: shown in a form, with a long and a short spelling, mentioned. Each of
    the `lines` that uses one counts like three mentions.
    """
    first = {flag: n for n, flag in enumerate(known.facts.usual)}
    if known.only and known.parent is not None and not known.spellings:
        known = known.parent  # a subcommand without a text of its own
    spellings = list(known.spellings.values())
    texts = " ".join(
        [
            *(o.text for t in known.tables for o in t.options),
            *(line for t in known.tables for line in t.lines),
        ]
    )
    mentions: dict[str, int] = {}
    for word in re.findall(_FLAG, texts):
        mentions[word] = mentions.get(word, 0) + 1
    used: dict[str, int] = {}
    for line in lines or ():
        for word in re.findall(_FLAG, line):
            is_bundle = word not in known.spellings and re.match(r"-[A-Za-z]{2,}", word)
            letters = [f"-{letter}" for letter in word[1:]] if is_bundle else []
            for flag in {word, *letters}:
                used[flag] = used.get(flag, 0) + 1

    def weight(item: tuple[int, Spelling]) -> tuple[float, float, int]:
        n, one = item
        flags = one.option.flags
        place = min((first[flag] for flag in flags if flag in first), default=len(first))
        said = sum(mentions.get(flag, 0) for flag in flags)
        both = any(len(f) == 2 for f in flags) and any(len(f) > 2 for f in flags)
        last = {"--help", "--version"} & set(flags)
        shown = sum(used.get(flag, 0) for flag in flags)
        return place, -(min(said, 6) + 2 * both + 3 * shown - 20 * bool(last)), n

    return [one for _, one in sorted(enumerate(spellings), key=weight)]


def subcommand_words(known: Command, finder: CommandFinder) -> tuple[bool, dict[str, str]]:
    """The words that may be the subcommand of a command, each with what is said of it; and whether
    it needs one.
    """
    listed = dict(known.subcommands)
    prefix = f"{known.name}-"
    for entry in subcommands_of(finder.store, known.name):
        word = entry.name.removeprefix(prefix).removeprefix(known.name + "_")
        if "-" not in word or word not in listed:
            listed[word] = listed.get(word) or entry.summary
    return wants_command(known) or (not known.forms and bool(listed)), listed
