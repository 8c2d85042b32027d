"""Whether words may have been pasted: told at once, before what knows the messages is loaded."""

from __future__ import annotations

#: Words that messages have, and few sentences do.
TELLING = frozenset(
    """
        such denied permitted found not empty busy space quota read-only many long broken refused
        timed reset unreachable route already verification exec interpreter loading cross-device
        levels memory oom oom-kill oom-killer segmentation core bus error invalid bad inappropriate
        unavailable unexpected unbound substitution ambiguous unary expected expression overwritten
        merge conflict push non-fast-forward fetch detached unable candidate could interrupted
        certificate cannot can't stale killed exists unknown resolution identification tty
    """.split()
)


def may_be_pasted(words: list[str]) -> bool:
    """Whether the words may be a message, or one word a variable, a signal or a file."""
    parts = " ".join(words).casefold().split()
    if len(parts) == 1:
        return not parts[0].isalpha() or words[0].isupper()
    return any(part.endswith(":") for part in parts) or not TELLING.isdisjoint(parts)
