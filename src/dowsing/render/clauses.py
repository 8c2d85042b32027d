"""One command as a clause of a sentence: `sorts the lines of data.csv, each only once`.

What a clause is made of stands with the facts of commands (knowledge/commands/sentences), a table
for each command with

    does    what it does, by what must hold: `"-c -z" = "…"`, the first that holds counts, "" always
            does. A condition is an option (`-c|-x` for one of them), with `=VALUE` behind it one
            with that value; the name of an operand, `1` or `*`, which must be there; `inner`
            for a command that it carries; `|` where it reads what comes in by a pipe; `either`
            where an expression has alternatives
    adds    what an option adds: `"-k" = "{}"`; "" for one that need not be told

In the texts `{X}` is the value of the option or operand X, in words where it is written in a small
language; `{X|text}` has what is said where there is none; `{=X}` is it as it stands, `{!X}` the
contrary. `{1}`, `{2-}`, `{-1}`, `{*}` are operands, `{in}` those that it reads, `{names}` those
without an equals sign and `{settings}` those with one, `{inner}` and `{line}` what it runs,
`{adds}` what its tests add, told in this place. What stands in brackets is left out where something
in it is missing.
"""

from __future__ import annotations

from dowsing.commandline.model.tree import CommandNode
from dowsing.knowledge.command_classes import CommandClass
from dowsing.knowledge.command_facts import Act, Frame
from dowsing.render.clause_filling import Filler, Missing, added
from dowsing.render.clause_lookup import Given, acts_now
from dowsing.render.clause_text import in_a_row, listed_words, shown, singular
from dowsing.render.told_clauses import Clause, Shape

#: Options with which any command only tells something.
_TELLING = {"--version": "tells the version of", "--help": "tells how to use"}


def clause(node: CommandNode, given: Given) -> Clause | None:
    """The clause of a command that our facts have words for; None if they have none."""
    if node.is_lost:  # its subcommand is a mistake
        return None
    for flag, text in _TELLING.items():
        if node.use_of(flag) is not None or flag in node.unknown:
            return Clause(f"{text} {node.known.words}")
    second_best: Clause | None = None
    for act in acts_now(node, given):
        filler = Filler(node, given)
        filler.tell_values(act.when)
        try:
            said = filler.fill(act.says)
        except Missing:
            continue
        untold = filler.untold()
        told = said + (f": {untold}" if untold else "")
        more = added(node, filler)
        text = singular(in_a_row([told, *more]))
        whole = _of_shape(act, node, text).changed(is_bare=not more and not untold)
        if not untold:
            return whole
        second_best = second_best or whole
    return second_best


def _of_shape(act: Act, node: CommandNode, text: str) -> Clause:
    if act.frame is Frame.PRINTS:
        return Clause(text, Shape.PRINTS, act.frame)
    if act.frame is Frame.WHETHER:
        return Clause(text, Shape.TESTS, act.frame)
    if node.is_of(CommandClass.DOES_NOTHING) and not node.operands:
        return Clause(text, Shape.NOTHING)
    if node.is_of(CommandClass.READS_LINE) and node.operands:
        names = listed_words([shown(use.word) for use in node.operands])
        return Clause(text, Shape.READS, names=names)
    return Clause(text)
