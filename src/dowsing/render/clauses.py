"""One command as a clause of a sentence: `sorts the lines of data.csv, each only once`."""

from __future__ import annotations

from dowsing.commandline.judging.certainty import AboutItself
from dowsing.commandline.model.tree import OptionUse
from dowsing.knowledge.command_classes import CommandClass
from dowsing.knowledge.command_facts import Frame
from dowsing.render.bound_words import BoundTeller, as_typed
from dowsing.render.clause_text import listed_words, shown
from dowsing.render.told_clauses import Clause, Shape

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.meaning.nodes import Added, Doing

#: What is told of a command that only tells of itself.
_TELLING = {
    AboutItself.VERSION: "tells the version of",
    AboutItself.USAGE: "tells how to use",
}
ONLY_LOOKS = "only to see what it would do"
_ON_LAST = "and, of the latter only, "


def clause(doing: Doing, inner: str, source: str) -> Clause | None:
    """The clause of a command that our facts have words for; None if they have none. `inner`: what
    those do that it carries; `source`: what it reads in the place of its input, in words.
    """
    if doing.tells is not None:
        return Clause(f"{_TELLING[doing.tells]} {doing.node.known.words}")
    if doing.act is None:
        return None
    teller = BoundTeller(doing.node, inner, source)
    untold = listed_words([shown(use.word) for use in doing.untold])
    told = teller.words(doing.said) + (f": {untold}" if untold else "")
    more = _added(doing, teller)
    made = _of_shape(doing, told + "".join(more))
    return made.changed(
        is_bare=not more and not untold,
        has_source=doing.names_source,
        takes_them=doing.takes_them,
    )


def _of_shape(doing: Doing, text: str) -> Clause:
    node, frame = doing.node, doing.act.frame if doing.act else None
    if frame is not None:
        return Clause(text, Shape.PRINTS if frame is Frame.PRINTS else Shape.TESTS, frame)
    if node.is_of(CommandClass.DOES_NOTHING) and not node.operands:
        return Clause(text, Shape.NOTHING)
    if node.is_of(CommandClass.READS_LINE) and node.operands:
        names = listed_words([shown(use.word) for use in node.operands])
        return Clause(text, Shape.READS, names=names)
    return Clause(text)


def _added(doing: Doing, teller: BoundTeller) -> list[str]:
    """What the options add, each with what joins it to the words before; those that nothing is
    known of as they stand.
    """
    found: dict[str, bool] = {}  # what is said, and whether it is close
    for one in doing.added:
        if one.said or one.looks:
            found.setdefault(_one_added(one, teller), one.is_close)
    unknown = [_as_typed(one) for one in doing.added if not (one.said or one.looks)]
    if unknown:
        found[f"with {listed_words(list(dict.fromkeys(unknown)))}"] = False
    return [
        f" {said}" if is_close and (not n or said[0] == "(") else f", {said}"
        for n, (said, is_close) in enumerate(found.items())
    ]


def _one_added(added: Added, teller: BoundTeller) -> str:
    if added.looks:
        return ONLY_LOOKS
    said = teller.words(added.said)
    if added.on_last:
        return _ON_LAST + said
    return f"and {said}" if added.is_beside else said


def _as_typed(added: Added) -> str:
    use = added.use
    if isinstance(use, OptionUse):
        return as_typed(use)
    return f"{use.word.text} {use.value.word.text}" if use.value is not None else use.word.text
