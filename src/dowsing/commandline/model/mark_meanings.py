"""What the shell's own marks mean, as sayings."""

from __future__ import annotations

from dowsing.commandline.grammar.sayings import Meaning
from dowsing.model.roles import Role
from dowsing.model.told import Told, told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Inner, Mark

_SUBSTITUTIONS = {"<": Meaning.FILE_OF_OUTPUT, ">": Meaning.FILE_FOR_INPUT}


def assignment_meaning(text: str) -> Told:
    """What `NAME=value` does."""
    name, _, value = text.partition("=")
    return told(Meaning.SETS, name, value) if value else told(Meaning.EMPTIES, name)


def substitution_meaning(inner: Inner) -> Told:
    """What a substitution puts in its place."""
    return told(_SUBSTITUTIONS.get(inner.text[:1], Meaning.OUTPUT_OF))


def mark_meaning(mark: Mark) -> Told | None:
    """What a mark of the shell means."""
    if mark.role == Role.OPERATOR:
        if isinstance(mark.code, Meaning) and mark.code is not Meaning.TEST:
            return told(mark.code)
        return told(Meaning.TEST if mark.code is Meaning.TEST else Meaning.OPERATOR, mark.text)
    if mark.role == Role.KEYWORD:
        return told(Meaning.KEYWORD, mark.text)
    if mark.role == Role.ASSIGNMENT:
        return assignment_meaning(mark.text)
    if mark.role == Role.COMMENT:
        return told(Meaning.COMMENT)
    if mark.role == Role.REDIRECTION:
        if isinstance(mark.code, Meaning):
            return told(mark.code)
        return told(Meaning.REDIRECTION, mark.operator, mark.word.value if mark.word else "")
    return None
