"""A table of options as lines."""

from __future__ import annotations

from dowsing.model.document import Option
from dowsing.model.entry import Entry, EntryKind
from dowsing.model.markup import BOLD, ROMAN, clean_line
from dowsing.render.cards import flags_text, option_lines
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.typed import typed
from dowsing.render.wrap import unbroken, wrap

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.model.option_rows import Listed, Options

INDENT = 3
FEW = 12  # so many are shown with their whole texts


def table_of_options(
    table: Options, label: str, asked: list[str], width: int, program: str, entry: Entry
) -> list[str]:
    """The options by the sections of their text: whole texts for a few that were asked for, else a
    line each.
    """
    count = f"{len(table.options)} of {table.total} options" if asked else f"{table.total} options"
    about = f" for {clean_line(' '.join(asked))}" if asked else ""
    lines = [f"{BOLD}{label}{ROMAN}  {count}{about}"]
    whole = bool(asked) and len(table.options) <= FEW
    for section in dict.fromkeys(option.section for option in table.options):
        group = [option for option in table.options if option.section == section]
        lines += ["", f"{HEADING}{clean_line(section) or 'IN THE FORMS ONLY'}"]
        if whole:
            for n, option in enumerate(group):
                lines += ([""] if n else []) + _whole(option, width)
        else:
            lines += option_lines([_plain(option) for option in group], width)
    lines += ["", *(f"{FAINT}{line}" for line in wrap(_next(table, asked, program, entry), width))]
    return lines


def _plain(option: Listed) -> Option:
    notes = _notes(option)
    text = option.text.split("\n\n")[0]
    if notes:
        from dowsing.render.wrap import first_sentence

        text = first_sentence(text) + f" ({'; '.join(notes)})"
    return Option(
        option.flags,
        option.argument,
        option.argument_optional,
        text,
        written=option.written,
    )


def _notes(option: Listed) -> list[str]:
    """What a line of the table says besides the text: the default and the values, where the first
    sentence has them not.
    """
    notes = []
    first = option.text.split(". ")[0]
    if option.values and not all(value in first for value in option.values[:3]):
        values = ", ".join(option.values[:6]) + (", …" if len(option.values) > 6 else "")
        notes.append(f"one of {clean_line(values)}")
    if option.default and option.default not in first:
        notes.append(f"default {clean_line(option.default)}")
    return notes


def _whole(option: Listed, width: int) -> list[str]:
    lines = wrap(
        flags_text(
            Option(
                option.flags,
                option.argument,
                option.argument_optional,
                written=option.written,
            )
        ),
        width,
        INDENT,
        2,
    )
    for part in option.text.split("\n"):
        lines += wrap(clean_line(part), width, INDENT + 5) if part else []
    facts = []
    if option.values:
        facts.append(f"values: {', '.join(option.values)}")
    if option.default:
        facts.append(f"default: {option.default}")
    if option.assumed:
        facts.append(f"without a value: {option.assumed}")
    if option.bare:
        facts.append(f"no value after {', '.join(option.bare)}")
    if option.repeatable:
        facts.append("may be given again")
    if option.abbreviation:
        facts.append(f"may be shortened to {option.abbreviation}")
    return (
        lines
        + [f"{FAINT}{line}" for line in wrap(clean_line(" · ".join(facts)), width, INDENT + 5)]
        if facts
        else lines
    )


def _next(table: Options, asked: list[str], program: str, entry: Entry) -> str:
    name = typed(entry.name)
    steps = [f"{program} options {name}"] if asked else [f"{program} options {name} WORD"]
    steps += [f"{program} syntax {name}", f"{program} read {name} --part options"]
    above = ""
    if entry.kind == EntryKind.SUBCOMMAND and entry.family:
        above = (
            "Options before the subcommand: "
            f"{unbroken([f'{program} options {typed(entry.family)}'])}. "
        )
    return f"From {table.page}. {above}Next: {unbroken(steps)}"
