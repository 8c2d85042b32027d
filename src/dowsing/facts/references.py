"""References: the pages that a text names."""

from __future__ import annotations

import re

from dowsing.facts.walk import body_text
from dowsing.model.document import Reference

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Document

REFERENCE = re.compile(r"([A-Za-z0-9_.:+@\[-]*[A-Za-z0-9_+\]])\s?\(([1-9][a-zA-Z]{0,5}|n|l)\)")


def references(text: str) -> list[Reference]:
    """The pages named in bare text as `name(section)`, each once."""
    found = dict.fromkeys(REFERENCE.findall(text))
    return [Reference(name, section) for name, section in found]


def read_see_also(document: Document) -> list[Reference]:
    """The pages of the sections that say what else to see."""
    text = "\n".join(
        body_text(section.blocks)
        for section in document.sections
        if section.title.upper().startswith(("SEE ALSO", "RELATED", "SEE"))
    )
    own = {(name, document.section) for name in document.names}
    return [r for r in references(text) if (r.name, r.section) not in own]
