"""A command line taken apart into pieces."""

from __future__ import annotations

from dowsing.commandline.grammar.problems import Problem
from dowsing.commandline.model.pieces import Unpicked
from dowsing.commandline.reading.line_reader import LineReader
from dowsing.index.convention_rows import conventions_of

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.reading.command_finder import CommandFinder


def unpick(line: str, finder: CommandFinder, aliases: dict[str, str] | None = None) -> Unpicked:
    """The pieces of a line, each with what it means and the text that says so. Never raises.

    `aliases`: the words that the shell puts another line in the place of.
    """
    # only here, for those who ask what may come next need none of these
    from dowsing.commandline.meaning.effects import effects
    from dowsing.commandline.reading.annotate import annotate
    from dowsing.index.word_reader import verb_words

    reader = LineReader(finder, aliases)
    found = reader.read(line)
    found = _with_problems(found, reader)
    pieces = annotate(found.pieces, reader.commands)
    return found.changed(
        pieces=pieces,
        tree=reader.line,
        commands=reader.commands,
        changes=effects(
            reader.commands,
            reader.lines,
            conventions_of(finder.store),
        ),
        verbs=verb_words(finder.store),
    )


def _with_problems(found: Unpicked, reader: LineReader) -> Unpicked:
    """The pieces with what a judge finds wrong. A problem of a place that is no piece, or of more
    than one, is the line's.
    """
    if found.problem is not None:  # what the shell cannot read is not judged any further
        return found
    from dowsing.commandline.judging.judge import judge

    pieces = list(found.pieces)
    line_problem: Problem | None = None
    for problem in judge(reader.commands, reader.lines):
        place = (problem.start, problem.end)
        at = next((n for n, p in enumerate(pieces) if (p.start, p.end) == place), None)
        if at is None:
            line_problem = line_problem or problem
        elif not any(p.problem for p in pieces if (p.start, p.end) == place):
            pieces[at] = pieces[at].changed(
                problem=problem.reason, nearest=problem.nearest, grade=problem.grade
            )
    return found.changed(pieces=pieces, problem=line_problem)
