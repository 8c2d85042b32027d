"""A line where no recipe serves: the best command's form, with the options whose texts match what
was said.
"""

from __future__ import annotations

from dowsing.commandline.model.form_facts import operands_in
from dowsing.knowledge.recipes import KINDS, Recipe, Slot
from dowsing.knowledge.stems import telling_stems
from dowsing.model.entry import Entry, EntryKind
from dowsing.model.record import Record
from dowsing.model.value_kinds import kind_of_placeholder
from dowsing.search.searching import make_query, search
from dowsing.tasks.filling import FilledRecipe, fill

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.model.command import Command
    from dowsing.commandline.reading.command_finder import CommandFinder
    from dowsing.tasks.sentence import ParsedSentence

COMMANDS = 2  # that lines are built of
MOST_OPTIONS = 2
MOST_OPERANDS = 3
FEW_WORDS = 30  # words of an option's text that are compared
#: How much of an option's first words must have been said for the option to be meant.
LEAST_SAID = 0.34


class Built(Record):
    """A line put together, and the page that it was put together from."""

    filled: FilledRecipe
    page: str


def built_lines(said: ParsedSentence, finder: CommandFinder) -> list[Built]:
    """Lines for what is said, of the commands that a search finds first. Only the words of what is
    said are searched for, and none that is taken as another one.
    """
    words = [word.text for word in said.words]
    if not words:
        return []
    found = search(finder.store, make_query(words, limit=8))
    if found.is_guessed:
        return []
    commands = [
        hit.entry
        for hit in found.hits
        if hit.entry.kind in (EntryKind.COMMAND, EntryKind.BUILTIN) and not hit.entry.aliases[9:]
    ]
    built = []
    for entry in commands[:COMMANDS]:
        known = finder.command(entry.name)
        if known.forms and known.page:
            built.append(Built(_line(said, known, entry), known.page))
    return built


def _line(said: ParsedSentence, known: Command, entry: Entry) -> FilledRecipe:
    stems = {word.stem for word in said.words} - set(telling_stems(f"{entry.summary} {entry.name}"))
    slots: list[Slot] = []
    line = [known.words or entry.name]
    for flag, argument in _options(known, stems):
        line.append(
            f"{flag} {_place(argument, slots)}" if argument and not flag.startswith("--") else flag
        )
        if argument and flag.startswith("--"):
            line[-1] = f"{flag}={_place(argument, slots)}"
    for element in operands_in(known.forms[0].elements, required=True)[:MOST_OPERANDS]:
        line.append(_place(element.text, slots))
    recipe = Recipe(
        entry.summary or entry.name, [], " ".join(line), slots, entry.name, where=entry.label
    )
    return fill(recipe, said.values)


def _options(known: Command, stems: set[str]) -> list[tuple[str, str]]:
    """The options that were spoken of: the spelling, and the argument that it needs."""
    scored: list[tuple[float, str, str]] = []
    for table in known.tables[:1]:
        for option in table.options:
            about = telling_stems(" ".join(option.text.split()[:FEW_WORDS]))[:8]
            names = telling_stems(
                " ".join(
                    flag.strip("-").replace("-", " ") for flag in option.flags if len(flag) > 3
                )
            )
            common = stems & {*about, *names}
            if not common or not about:
                continue
            much = len(common & set(names)) / max(len(names), 1) + len(common) / len(about)
            if much >= LEAST_SAID:
                flag = next((one for one in option.flags if one.startswith("--")), option.flags[0])
                scored.append(
                    (much, flag, "" if option.argument_optional else option.argument or "")
                )
    scored.sort(key=lambda one: -one[0])
    return [(flag, argument) for _, flag, argument in scored[:MOST_OPTIONS]]


def _place(placeholder: str, slots: list[Slot]) -> str:
    """A slot for a placeholder of a page; each has a name of its own."""
    name = (
        "".join(
            char if char.isalnum() and char.isascii() else "-" for char in placeholder.lower()
        ).strip("-")
        or "value"
    )
    name = name if name[0].isalpha() else f"value-{name}"
    taken = {slot.name for slot in slots}
    own, number = name, 2
    while own in taken:
        own, number = f"{name}{number}", number + 1
    kind = kind_of_placeholder(placeholder)
    slots.append(Slot(own, kind if kind in KINDS else "text"))
    return f"<{own}>"
