"""What words are that are no name: what their shape tells, and which pages define them."""

from __future__ import annotations

import os

from dowsing.machine.shells.choice import own_shell
from dowsing.search.definitions import Definition, definitions, may_be_defined

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.search.pasted import Pasted
    from dowsing.session.session import Session


def sign_of(session: Session, words: list[str]) -> Pasted | None:
    """What the words are by their shape, whatever is named so; None if they may be a name."""
    from dowsing.search.pasted import pasted_sign

    found = pasted_sign(words)
    if found is not None:
        return found.changed(defined=_definitions(session, found))
    if len(words) != 1 or not words[0].lstrip("$").isupper():
        return None
    named = session.store.named(words[0])
    if any(words[0] in (one.name, *one.aliases) for one in named):
        return None  # a page in capitals
    return defined_by(session, words)


def defined_by(session: Session, words: list[str]) -> Pasted | None:
    """A variable or a file that pages define; None if the word is neither."""
    from dowsing.search.pasted import Pasted, PastedKind

    if len(words) != 1 or not may_be_defined(words[0]):
        return None
    is_variable = words[0].lstrip("$").isupper()
    found = Pasted(PastedKind.VARIABLE if is_variable else PastedKind.FILE, words[0])
    defined = _definitions(session, found)
    return found.changed(defined=defined) if defined else None


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
    own = found.text.replace(os.path.expanduser("~"), "~", 1)
    return [one for one in told if own in (one.tag, one.tag.replace("$HOME", "~"))]
