"""The list of what a search found."""

from __future__ import annotations

from dowsing.model.entry import EntryKind
from dowsing.model.markup import BOLD, ITALIC, ROMAN, clean_line
from dowsing.model.names import is_typed
from dowsing.render.cell_width import display_width
from dowsing.render.line_marks import FAINT
from dowsing.render.search_words import relaxed_words, score_words
from dowsing.render.wrap import unbroken, wrap

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable

    from dowsing.model.entry import Entry
    from dowsing.search.hints import Hint
    from dowsing.search.searching import Hit, SearchAnswer

WIDEST_LABEL = 30
NARROWEST_SUMMARY = 24
MARKED = 0.5  # how much a word counts for the one searched for, at least, to be marked


def hit_lines(
    found: SearchAnswer, width: int, program: str, more: list[Hint], rich: bool, why: bool
) -> list[str]:
    """Numbered hits with their summaries, what was loosened, and how to go on.

    `rich`: kind and package of each hit, with the words that were found marked. `why`: the reasons
    under each.
    """
    lines: list[str] = []
    relaxed = relaxed_words(found)
    if relaxed:
        lines += [f"{FAINT}{line}" for line in wrap(clean_line(relaxed), width)]
    number_width = len(str(len(found.hits)))
    label_width = min(max((len(hit.entry.label) for hit in found.hits), default=0), WIDEST_LABEL)
    indent = number_width + 2 + label_width + 2
    if width - indent < NARROWEST_SUMMARY:
        indent = number_width + 4
    marked = _marker(found) if rich else clean_line
    for number, hit in enumerate(found.hits, 1):
        label = clean_line(hit.entry.label)
        head = f"{number:>{number_width}}  {BOLD}{label}{ROMAN}"
        told = (marked(hit.entry.summary) or "(no summary)") + _alias(found, hit.entry)
        body = wrap(told + _tail(hit, rich), width, indent)
        used = number_width + 2 + display_width(label)
        if used + 2 <= indent:
            lines.append(head + " " * (indent - used) + body[0][indent:])
            lines += body[1:]
        else:
            lines += [head, *body]
        for option in hit.options:
            said = f"{BOLD}{', '.join(option.flags)}{ROMAN}  {marked(option.text)}"
            lines += wrap(said, width, indent, 4)
        if why:
            lines += [
                f"{FAINT}{line}"
                for line in wrap(
                    "; ".join([f"{hit.score:.1f}", *score_words(hit.breakdown)]), width, indent
                )
            ]
    return lines + [f"{FAINT}{line}" for line in _next(found, width, program, more)]


def _alias(found: SearchAnswer, entry: Entry) -> str:
    """The other name of an entry that a pattern matches where its own does not, and the shell of a
    builtin that is not the user's.
    """
    patterns = [pattern.casefold() for pattern in found.query.patterns]
    names = [alias.partition("(")[0] for alias in entry.aliases]
    told = ""
    if patterns and not _is_like(entry.name, patterns):
        also = next((name for name in names if _is_like(name, patterns)), "")
        told = f"  {FAINT}also {clean_line(also)}{ROMAN}" if also else ""
    if entry.section == "builtin" and found.query.shell not in ("", entry.package):
        told += f"  {FAINT}of {clean_line(entry.package or '')}{ROMAN}"
    return told


def _is_like(name: str, patterns: list[str]) -> bool:
    from fnmatch import fnmatchcase

    return any(fnmatchcase(name.casefold(), pattern) for pattern in patterns)


def _tail(hit: Hit, rich: bool) -> str:
    """What stands after a summary: kind and package, and what is folded."""
    tail = ""
    if rich:
        kind = "" if hit.entry.kind in (EntryKind.COMMAND, EntryKind.OTHER) else hit.entry.kind
        told = " · ".join(part for part in (kind, hit.entry.package or "") if part)
        tail += (
            f"  {FAINT}{clean_line(told)}{ROMAN}".replace(" ·", "\xa0·").replace("· ", "·\xa0")
            if told
            else ""
        )
    if hit.folded:
        tail += f"  {FAINT}… and {hit.folded} more in this family{ROMAN}"
    return tail


def _marker(found: SearchAnswer) -> Callable[[str], str]:
    """A function that marks the words of a text that were searched for, or that stand for them."""
    import re

    from dowsing.knowledge.stems import stem, stems

    wanted = {
        variant for term in found.terms for variant, weight in term.variants if weight >= MARKED
    }
    wanted |= {one for term in found.terms for one in stems(term.word)}
    wanted |= set(stems(found.query.filters.takes))

    def marked(text: str) -> str:
        return re.sub(
            r"[^\W_]+",
            lambda match: (
                f"{ITALIC}{match[0]}{ROMAN}" if stem(match[0].casefold()) in wanted else match[0]
            ),
            clean_line(text),
        )

    return marked


def _next(found: SearchAnswer, width: int, program: str, more: list[Hint]) -> list[str]:
    """The last line: how many there are, what would narrow or widen the list, and how to go on."""
    from dowsing.render.typed import typed

    shown = len(found.hits)
    first = found.hits[0].entry if found.hits else None
    left = found.total - shown - sum(hit.folded for hit in found.hits)
    parts = []
    if found.total > shown:
        parts.append(f"{found.total} match, {shown} shown")
    if left > 0 and shown:
        parts.append(f"--limit {min(shown * 2, found.total)} shows more")
    family = next((hit for hit in found.hits if hit.folded), None)
    if family is not None:
        parts.append(f"--family {typed(family.entry.family or '')} shows that family")
    steps = [f"--{hint.option} {typed(hint.value)} ({hint.count})" for hint in more]
    if first is not None:
        steps.append(f"next: {program} {typed(_shortest(found, first.name))}")
    lines = wrap(unbroken(parts), width) if parts else []
    lines += wrap(("narrow: " if more else "") + unbroken(steps), width) if steps else []
    return ["", *lines] if lines else []


def _shortest(found: SearchAnswer, name: str) -> str:
    """The name, with its section where a name alone means another entry."""
    first = found.hits[0].entry
    same = [hit for hit in found.hits if hit.entry.name == name]
    return first.label if len(same) > 1 or not is_typed(first.section) else name
