"""What somebody pasted, as lines: what it means, what usually causes it, where to look."""

from __future__ import annotations

import re

from dowsing.commandline.grammar.sayings import Meaning
from dowsing.model.markup import BOLD, ROMAN, clean_line
from dowsing.model.told import told
from dowsing.render.column_layout import named_rows
from dowsing.render.layout import section_lines
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.phrases import redirection_words, words
from dowsing.render.typed import typed
from dowsing.render.wrap import first_sentence, unbroken, wrap
from dowsing.search.pasted import Pasted, PastedKind

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Document, Section
    from dowsing.model.entry import Entry

INDENT = 3
MOST_PASSAGE = 20  # lines
_SHOWN = 100  # characters of what was pasted
_KINDS = {
    PastedKind.MESSAGE: "a message",
    PastedKind.STATUS: "an exit status",
    PastedKind.SIGNAL: "a signal",
    PastedKind.VARIABLE: "a variable",
    PastedKind.FILE: "a file",
    PastedKind.SIGN: "a sign of the shell",
    PastedKind.PATH: "a path",
}


def says_of_pasted(found: Pasted) -> str:
    """What it means, in words."""
    if found.says or found.kind is not PastedKind.SIGN:
        return found.says
    redirected = re.fullmatch(r"((?:\d|&)?[<>][<>|&]*)(\d?)-?", found.text)
    if redirected and found.text not in ("<", "<<<", "<<"):
        said = redirection_words(redirected[1], redirected[2] or "a file")
        if said:
            return said
    operator = words(told(Meaning.OPERATOR, found.text)) or words(told(Meaning.KEYWORD, found.text))
    return operator or redirection_words(found.text, "a file")


def pasted_lines(found: Pasted, entries: list[Entry], width: int, program: str) -> list[str]:
    """The lines; `entries` are those of the names to look at that are here."""
    lines = _heading(found, width)
    says = says_of_pasted(found)
    if says:
        lines += ["", *wrap(clean_line(says[:1].upper() + says[1:]) + ".", width, INDENT)]
    for title, texts in (("USUAL CAUSES", found.causes), ("WHAT HELPS", found.remedies)):
        if texts:
            lines += ["", f"{HEADING}{title}"]
            lines += [line for text in texts for line in _row(text, width)]
    if found.look:
        lines += ["", *wrap(f"To look further: {unbroken(found.look)}", width, INDENT)]
    defining = [(one.entry.label, first_sentence(one.says)) for one in found.defined]
    about = [(entry.label, entry.summary) for entry in entries]
    # where it is known what it is, the pages about it are known, too
    first, last = (about, defining) if found.says else (defining, about)
    rows = [*first, *(row for row in last if row[0] not in dict(first))]
    if rows:
        lines += ["", *named_rows(rows, width, INDENT, width)]
    defining_entries = [one.entry for one in found.defined]
    ordered = [*entries, *defining_entries] if found.says else [*defining_entries, *entries]
    steps = _steps(found, ordered, program)
    return [*lines, "", *(f"{FAINT}{line}" for line in wrap(f"Next: {unbroken(steps)}", width))]


def passage_lines(
    text: str, document: Document, passage: Section, width: int, program: str
) -> list[str]:
    """A message that is not known, and what the page of its program says with the same words."""
    name = document.name
    about = Pasted(PastedKind.MESSAGE, text, program=name)
    lines = [*_heading(about, width), "", f"   What {document.label} says with these words:", ""]
    told = section_lines([passage], width)
    lines += told[:MOST_PASSAGE]
    part = typed(passage.title.casefold())
    more = f"{program} read {typed(name)} --part {part}"
    return [*lines, "", *(f"{FAINT}{line}" for line in wrap(f"Next: {unbroken([more])}", width))]


def _heading(found: Pasted, width: int) -> list[str]:
    """What was pasted and what it is; of a message so much as goes into a line."""
    kind = _KINDS.get(found.kind, "")
    if found.kind is PastedKind.MESSAGE and found.program:
        kind = f"a message of {found.program}"
    if found.code and found.code != found.text:
        kind += f" ({found.code})"
    text = clean_line(found.text)
    most = max(_SHOWN // 4, min(_SHOWN, width - len(kind) - 2))
    text = text if len(text) <= most else text[: most - 1] + "…"
    return wrap(f"{BOLD}{text}{ROMAN}  {kind}", width)


def _row(text: str, width: int) -> list[str]:
    """A cause, or a line that helps with what it does."""
    return wrap(f"– {clean_line(text)}", width, INDENT, 2)


def above_lines(found: Pasted, width: int) -> list[str]:
    """What it means, in a line or two above what was found for its words."""
    defined = found.defined
    says = says_of_pasted(found) or (first_sentence(defined[0].says) if defined else "")
    if not says:
        return []
    where = f" ({', '.join(one.entry.label for one in defined[:3])})" if defined else ""
    kind = _KINDS.get(found.kind, "").removeprefix("a ").removeprefix("an ")
    text = f"{clean_line(found.code or found.text)}, {kind}: {clean_line(says).rstrip('.')}{where}"
    return [f"{FAINT}{line}" for line in wrap(text, width)]


def _steps(found: Pasted, entries: list[Entry], program: str) -> list[str]:
    if found.kind in (PastedKind.SIGN, PastedKind.VARIABLE, PastedKind.FILE) and entries:
        name = next((one for one in entries if one.name.endswith("sh")), entries[0])
        return [f"{program} read {typed(name.name)} --around {typed(found.text)}"]
    names = list(dict.fromkeys(entry.name for entry in entries))[:2]
    return [f"{program} {typed(name)}" for name in names] or [f"{program} find {typed(found.text)}"]
