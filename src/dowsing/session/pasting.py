"""What words are that are no name: what their shape tells, and which pages define them."""

from __future__ import annotations

import os

from dowsing.machine.shells.choice import own_shell
from dowsing.search.definitions import Definition, definitions, may_be_defined

LONGEST_SIGN = 6  # characters

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.search.pasted import Pasted
    from dowsing.session.session import Session


def sign_of(session: Session, words: list[str]) -> Pasted | None:
    """What the words are by their shape, whatever is named so; None if they may be a name."""
    from dowsing.search.pasted import pasted_sign

    found = _known_sign(session, " ".join(words)) or pasted_sign(words)
    if found is not None:
        return _with_fact(found).changed(defined=_definitions(session, found))
    if len(words) != 1 or not words[0].lstrip("$").isupper():
        return None
    named = session.store.named(words[0])
    if any(words[0] in (one.name, *one.aliases) for one in named):
        return None  # a page in capitals
    return defined_by(session, words)


def _known_sign(session: Session, text: str) -> Pasted | None:
    """A sign of the shell that is known as it is written, and no name of a builtin or a page."""
    from dowsing.knowledge.signs import SignKind, sign_fact
    from dowsing.search.pasted import IN_SHELLS, OPERATORS, Pasted, PastedKind

    if text.isalnum() or len(text) > LONGEST_SIGN:
        return None
    if text not in OPERATORS and session.store.named(text):
        return None
    fact = sign_fact(SignKind.SIGN, text)
    if fact is None:
        return None
    shells = [f"{shell}(1)" for shell in fact.shells] or IN_SHELLS
    return Pasted(PastedKind.SIGN, text, fact.says, see=fact.see or shells)


def _with_fact(found: Pasted) -> Pasted:
    """The same with what is known of the variable or the file."""
    from dowsing.knowledge.signs import SignKind, sign_fact
    from dowsing.search.pasted import PastedKind

    if found.kind is PastedKind.VARIABLE:
        fact = sign_fact(SignKind.VARIABLE, found.text.lstrip("$"))
    elif found.kind in (PastedKind.PATH, PastedKind.FILE):
        own = _below_home(found.text)
        name = os.path.basename(own)
        fact = sign_fact(SignKind.FILE, own)
        if fact is None and name.startswith("."):
            fact = sign_fact(SignKind.FILE, name)
    else:
        return found
    if fact is None:
        return found
    return found.changed(says=fact.says, see=list(dict.fromkeys([*fact.see, *found.see])))


def defined_by(session: Session, words: list[str]) -> Pasted | None:
    """A variable or a file that pages define; None if the word is neither."""
    from dowsing.search.pasted import Pasted, PastedKind

    if len(words) != 1 or not (may_be_defined(words[0]) or words[0][:1].isupper()):
        return None
    is_variable = words[0].lstrip("$").isupper() or words[0].endswith("_proxy")
    found = Pasted(PastedKind.VARIABLE if is_variable else PastedKind.FILE, words[0])
    defined = _definitions(session, found)
    known = _with_fact(found)
    if defined or known.says:
        return known.changed(defined=defined)
    family = words[0].lstrip("$").partition("_")[0].lower()
    if is_variable and "_" in words[0] and session.store.named(family):  # `GIT_TRACE`
        return found.changed(see=[family])
    return None


def _definitions(session: Session, found: Pasted) -> list[Definition]:
    """The pages that define the variable, or the file, that was pasted."""
    from dowsing.search.pasted import PastedKind

    if found.kind not in (PastedKind.VARIABLE, PastedKind.FILE, PastedKind.PATH):
        return []
    name = os.path.basename(found.text.rstrip("/"))
    shell = own_shell(session.settings, session.store.shells())
    told = definitions(session.store, name, shell)
    if found.kind is not PastedKind.PATH:
        return told
    own = _below_home(found.text)
    return [one for one in told if own in (one.tag, one.tag.replace("$HOME", "~"))]


def _below_home(path: str) -> str:
    """A path as pages write it: `~` for the user's home."""
    return path.replace(os.path.expanduser("~"), "~", 1)
