"""What a name would run, as lines."""

from __future__ import annotations

import os

from dowsing.model.markup import BOLD, CODE, ROMAN, clean_line
from dowsing.model.source_name import SourceName
from dowsing.render.layout import title_lines
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.typed import typed
from dowsing.render.wrap import unbroken, wrap
from dowsing.sources.resolution import Resolution, Resolved, ResolvedKind

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.machine.links import LinkStep

INDENT = 3
SOURCE = 14  # the column of sources
MOST_FILES = 12


def resolution_lines(found: Resolution, width: int, program: str) -> list[str]:
    """What runs first, each candidate with where it comes from, and the files that belong to the
    name.
    """
    name = clean_line(found.name)
    first = found.candidates[0] if found.candidates else None
    lines = title_lines(name, _runs(first), [], width)
    for n, candidate in enumerate(found.candidates, 1):
        lines += ["", *_candidate_lines(candidate, n, width)]
    if found.documents:
        lines += ["", f"{HEADING}DOCUMENTATION"]
        lines += _document_lines(found.documents, width)
    if found.sources:
        lines += ["", f"{HEADING}SOURCE TEXT"]
        lines += [f"{' ' * INDENT}{clean_line(path)}" for path in found.sources[:MOST_FILES]]
        lines += _more(len(found.sources), program, name)
    if found.problems:
        lines += ["", f"{HEADING}PATH"]
        for folder, says in found.problems.items():
            lines += wrap(f"{clean_line(folder) or '(empty)'} {says}", width, INDENT, 2)
    shown = typed(found.name)
    steps = [f"{program} sources {shown}", f"{program} read {shown}"]
    return [*lines, "", *(f"{FAINT}{line}" for line in wrap("Next: " + unbroken(steps), width))]


def _document_lines(documents: list[tuple[str, str]], width: int) -> list[str]:
    """A line for each file; those of a package's folder together. Paths stay whole, to be
    copied.
    """
    lines: list[str] = []
    folders: dict[str, list[str]] = {}
    for path, source in documents:
        if source != SourceName.PACKAGE:
            lines.append(f"{' ' * INDENT}{source:<{SOURCE}}{clean_line(path)}")
            continue
        above = next(
            (folder for folder in folders if path.startswith(folder + os.sep)),
            os.path.dirname(path),
        )
        folders.setdefault(above, []).append(os.path.relpath(path, above))
    for folder, files in folders.items():
        more = f" and {len(files) - MOST_FILES} more" if len(files) > MOST_FILES else ""
        lines.append(f"{' ' * INDENT}{'package':<{SOURCE}}{clean_line(folder)}")
        lines += wrap(clean_line(", ".join(files[:MOST_FILES]) + more), width, INDENT + SOURCE)
    return lines


def _more(count: int, program: str, name: str) -> list[str]:
    if count <= MOST_FILES:
        return []
    return [
        f"{FAINT}{' ' * INDENT}… and {count - MOST_FILES} more: {program} resolve {typed(name)} "
        "--format json"
    ]


def _runs(first: Resolved | None) -> str:
    if first is None:
        return "nothing of that name would run here"
    if first.kind in (ResolvedKind.ALIAS, ResolvedKind.FUNCTION):
        return f"runs the {first.kind} of the start-up files of {first.shell}"
    if first.kind in (ResolvedKind.KEYWORD, ResolvedKind.BUILTIN):
        return f"is taken by {first.shell} itself: a {first.kind}"
    if first.kind == ResolvedKind.SUBCOMMAND:
        return f"is a subcommand: {clean_line(first.path)} runs it"
    return f"runs {clean_line(first.path)}"


def _candidate_lines(candidate: Resolved, number: int, width: int) -> list[str]:
    where = f"of {candidate.shell} {candidate.path}".strip() if candidate.shell else candidate.path
    if candidate.kind == ResolvedKind.SUBCOMMAND:
        where = f"of {candidate.path}"
    mark = f"{number}  {BOLD}{candidate.kind}{ROMAN} {clean_line(where)}"
    lines = [mark + ("  (this runs)" if number == 1 else "")]
    for step in candidate.links:
        lines += wrap(_step(step), width, INDENT, 2)
    facts = []
    if candidate.kind in (ResolvedKind.COMMAND, ResolvedKind.SUBCOMMAND):
        facts.append(candidate.file_kind if candidate.file else "the links lead nowhere")
        if candidate.same_as:
            facts.append(f"the same file as {clean_line(candidate.same_as)}")
        elif candidate.package is None:
            facts.append("no package is known to own it")
    lines += [line for fact in facts if fact for line in wrap(fact, width, INDENT, 2)]
    if candidate.package and not candidate.same_as:
        package = candidate.package
        head = " ".join(
            part for part in (package.name, package.version, f"({package.manager})") if part
        )
        lines += wrap(f"package {clean_line(head)}", width, INDENT, 2)
        if package.home_page:
            lines += wrap(clean_line(package.home_page), width, INDENT, 2)
    if candidate.text:
        lines += [f"{' ' * INDENT}{CODE}{line}{ROMAN}" for line in candidate.text.split("\n")[:20]]
    return lines


def _step(step: LinkStep) -> str:
    kind = "the folder is a link: " if step.folder else "a link: "
    return f"{kind}{clean_line(step.path)} → {clean_line(step.target)}"
