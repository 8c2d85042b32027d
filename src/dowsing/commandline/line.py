"""A command line taken apart, judged, and what it changes."""

from __future__ import annotations

from dowsing.commandline.reading.line_reader import LineReader
from dowsing.commandline.unpicked import Unpicked
from dowsing.index.convention_rows import conventions_of

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.problems import Problem
    from dowsing.commandline.reading.command_finder import CommandFinder


def unpick(line: str, finder: CommandFinder, aliases: dict[str, str] | None = None) -> Unpicked:
    """A line as a tree, with what is wrong in it and what it changes. Never raises.

    `aliases`: the words that the shell puts another line in the place of.
    """
    # only here, for those who ask what may come next need none of these
    from dowsing.commandline.meaning.effects import effects
    from dowsing.commandline.meaning.meaning import meaning_of
    from dowsing.index.word_reader import verb_words

    reader = LineReader(finder, aliases, puts_in=True)
    tree = reader.read(line)
    commands = reader.commands
    meaning = meaning_of(tree, reader.lines, commands, line)
    return Unpicked(
        line,
        tree,
        commands,
        meaning,
        problem=reader.problem,
        at_words=reader.problems,
        judged=_judged(reader),
        changes=effects(commands, reader.lines, meaning, conventions_of(finder.store)),
        verbs=verb_words(finder.store),
        unnamed=[command.words[0].text for command in reader.unnamed],
    )


def _judged(reader: LineReader) -> list[Problem]:
    """What a judge finds wrong; what the shell cannot read is not judged any further."""
    if reader.problem is not None:
        return []
    from dowsing.commandline.judging.judge import judge

    return list(judge(reader.commands, reader.lines))
