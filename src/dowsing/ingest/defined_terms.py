"""Variables and files that a page defines: the terms of its lists that are written like one, and
what is said of each.
"""

from __future__ import annotations

import re

from dowsing.facts.walk import own_text, told_terms
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Document

_VARIABLE = re.compile(r"\$?([A-Z][A-Z0-9_]{2,})(?=\Z|[=\s,\[(])")
#: The sections whose capital terms are variables; elsewhere they are constants, or names of errors.
_OF_VARIABLES = re.compile(r"\benvironment|\bvariables?\b|\bparameters\b", re.IGNORECASE)
_PATH = re.compile(r"(?:~|\$\{?HOME\}?|\$XDG_\w+|%h)?/?(?:[\w.+@-]+/)*([\w.+@-]+)/?\Z")
_PARTED = re.compile(r"[,\n]\s*")
_OF_FILES = re.compile(r"\bfiles\b", re.IGNORECASE)
_LABELS = re.compile(r"[\w.@-]+\(\w+\)(?:,|\Z)")  # an index of terms names pages only
MOST_SAID = 200  # characters
MOST = 300  # terms of one page


class DefinedTerm(Record):
    """A variable by its name, or a file by the last part of its path; `tag`: as the page writes it;
    `says`: the beginning of what it says of it.
    """

    name: str
    tag: str
    says: str


def defined_terms(page: Document) -> list[DefinedTerm]:
    """What the page defines, in its order, each name once."""
    found: dict[str, DefinedTerm] = {}
    for section in page.sections:
        of_variables = bool(_OF_VARIABLES.search(section.title))
        of_files = bool(_OF_FILES.search(section.title))
        for terms, body in told_terms(section.blocks):
            tags = [tag.strip() for tag in _PARTED.split(terms)]
            names = [_name(tag, of_variables, of_files) for tag in tags]
            if not any(names):
                continue
            says = " ".join(own_text(body).split())[:MOST_SAID]
            for tag, name in zip(tags, names, strict=True):
                if name and says and name not in found and not _LABELS.match(says):
                    found[name] = DefinedTerm(name, tag, says)
    return list(found.values())[:MOST]


def _name(tag: str, of_variables: bool, of_files: bool) -> str:
    """The name that a term is kept under; "" if it is neither a variable nor a file."""
    variable = _VARIABLE.match(tag) if of_variables else None
    if variable:
        return variable[1]
    path = _PATH.match(tag)
    is_path = path is not None and (tag[:1] in "/~$%" or (of_files and tag[:1] == "."))
    return path[1] if path is not None and is_path else ""
