"""Ways in which libraries lay a usage text out, each with what it is told by, and how its lines are
written in the general way: spellings with what they take, a gap, the text.

The ways are tried in order and all that fit are applied, for a text may be in a box and of a tree
of commands. What fits none is read as it stands.
"""

from __future__ import annotations

import re
from collections.abc import Callable

from dowsing.model.record import Record
from dowsing.readers.usage.boxes import unboxed
from dowsing.readers.usage.cleaning import indentation

Lines = list[str]


class Layout(Record):
    """A way: its name, whether lines are laid out so, and the lines in the general way."""

    name: str
    fits: Callable[[Lines], bool]
    general: Callable[[Lines], Lines]


def in_general(lines: Lines) -> Lines:
    """The lines of a usage text in the general way."""
    for layout in LAYOUTS:
        if layout.fits(lines):
            lines = layout.general(lines)
    return lines


def names_of(lines: Lines) -> list[str]:
    """The names of the ways in which lines are laid out."""
    return [layout.name for layout in LAYOUTS if layout.fits(lines)]


def _some(pattern: str, least: int = 1) -> Callable[[Lines], bool]:
    """Whether so many lines have the pattern."""
    compiled = re.compile(pattern)
    return lambda lines: sum(compiled.search(line) is not None for line in lines) >= least


# --- types in brackets at the end of a text: `--litres  So much  [number] [default: 5]`
# --------------------------------------------------------------------------------------

_TYPED = r"\[(boolean|string|number|array|count)\]"
_TYPE = re.compile(rf"\s*{_TYPED}")
#: What an option of a type takes, as it is written in the general way.
_TAKEN = {"string": " <string>", "number": " <number>", "array": " <array>", "count": " ..."}
_HEAD = re.compile(r"(\s*)(-{1,2}[\w?][^\s,]*(?:, -{1,2}[\w?][^\s,]*)*)(?:\s{2,}(.*))?\Z")


def _without_types(lines: Lines) -> Lines:
    found: Lines = []
    for entry in _entries(lines):
        head = _HEAD.match(entry[0])
        texts = [head[3] or "", *entry[1:]] if head else []
        kind = next((match[1] for text in texts if (match := _TYPE.search(text))), "")
        if head is None:
            found += [_TYPE.sub("", line) for line in entry]
            continue
        text = " ".join(_TYPE.sub("", " ".join(texts)).split())
        found.append(f"{head[1]}{head[2]}{_TAKEN.get(kind, '')}  {text}".rstrip())
    return found


def _entries(lines: Lines) -> list[Lines]:
    """The lines in groups: each with those below it that are set in far more."""
    groups: list[Lines] = []
    for line in lines:
        is_more = (
            groups
            and line
            and groups[-1][0]
            and indentation(line) > indentation(groups[-1][0]) + 6
            and not _HEAD.match(line)
        )
        if is_more:
            groups[-1].append(line)
        else:
            groups.append([line])
    return groups


# --- words for types behind a spelling: `--litres int`, `-v, --verbose count`
# ----------------------------------------------------------------------------

_COUNTED = re.compile(r"(\s*(?:-\w, )?--[\w-]+) count(?=\s{2,}|\Z)")


def _counted(lines: Lines) -> Lines:
    """A count is no value: the option may be given again."""
    return [_COUNTED.sub(r"\1 ...", line) for line in lines]


# --- the default where a placeholder would stand: `--litres=5`, `--mode="mist"`
# ------------------------------------------------------------------------------

_DEFAULTED = re.compile(r"(\s*(?:-\w, )?--([\w-]+))=(\"[^\"]*\"|[a-z0-9./~][^\s]*)(\s{2,}\S.*|)\Z")


def _placeholders(lines: Lines) -> Lines:
    found: Lines = []
    for n, line in enumerate(lines):
        match = _DEFAULTED.match(line)
        if match is None:
            found.append(line)
            continue
        name = match[2].upper().replace("-", "_")
        more = "" if n + 1 < len(lines) and _goes_on(lines[n + 1], line) else "."
        text = match[4].rstrip(".") if more else match[4]
        default = match[3].strip('"')
        found.append(f"{match[1]}={name}{text or '  '} (default: {default}){more}")
    return found


def _goes_on(line: str, before: str) -> bool:
    """Whether a line goes on with the text of the one before."""
    return bool(line) and indentation(line) > indentation(before) + 6


# --- a command and what it takes on a line, its text below
# ---------------------------------------------------------

_COMMANDS = re.compile(r"(?:Sub)?[Cc]ommands:\Z")
_COMMAND_LINE = re.compile(r"\s+([a-z][\w-]*)(?: [a-z][\w-]*)*(?: (?:<|\[).*)?\Z")


def _has_texts_below(lines: Lines) -> bool:
    return any(
        _COMMANDS.match(line)
        and _COMMAND_LINE.match(lines[n + 1])
        and indentation(lines[n + 2]) > indentation(lines[n + 1]) > 0
        for n, line in enumerate(lines[:-2])
    )


def _texts_beside(lines: Lines) -> Lines:
    found: Lines = []
    inside = False
    margin = 0
    for n, line in enumerate(lines):
        if _COMMANDS.match(line):
            inside, margin = True, indentation(lines[n + 1]) if n + 1 < len(lines) else 0
        elif line and indentation(line) < margin:
            inside = False
        below = indentation(line) > margin if inside else False
        if below and found and _COMMAND_LINE.match(found[-1]):
            found[-1] = f"{found[-1]}  {line.strip()}"
        elif below and found and found[-1]:
            found[-1] += f" {line.strip()}"
        elif line or not inside:
            found.append(line)
    return found


# --- texts behind a hash, options in brackets: `-l, [--litres=N]  # So much`
# ---------------------------------------------------------------------------

_HASHED = re.compile(r"\A(\s.*?)\s*# (.*)\Z")
_OPTIONAL = re.compile(r"\[(--?[^\[\]\s]+(?:\[[^\[\]]*\])?[^\[\]\s]*)\]")


def _unhashed(lines: Lines) -> Lines:
    found: Lines = []
    for line in lines:
        match = _HASHED.match(line)
        if match is None:
            found.append(line)
        elif match[1].strip():
            tag = _OPTIONAL.sub(r"\1", match[1])
            found.append(f"{tag}  {match[2]}")
        elif found:
            found[-1] += f" {match[2]}"
    return found


# --- small ones
# --------------

_PROMPT = re.compile(r"\A(\s*)\$ (?=\S)")
_OPTIONS_LISTED = re.compile(r"<options: ([^<>]*)>")
_LETTERS_EITHER = re.compile(r"\bUsage: \S+ ([a-zA-Z](?:\|[a-zA-Z])+)(?= )")
_LETTER = re.compile(r"(\s+)(([a-zA-Z])\s{2,}\S.*)\Z")
_VERSION_FIRST = re.compile(r"(?:[\w.-]+,? ){1,3}v?\d+\.\d")
_RULE = re.compile(r"\s*[─═━=_-]{6,}\s*\Z")
#: `--mode [mist|drip]` at the beginning of a line.
_EITHER = re.compile(r"\A(\s+-[^\[\]]*?)\[([\w.:+-]+(?:\|[\w.:+-]+)+)\](?=\s|\Z)")
_AGAIN = re.compile(r"(--[\w-]+)( \w+) \[ --[\w-]+ \w+ \](, -\w \w+ \[ -\w \w+ \])?")


def _unprompted(lines: Lines) -> Lines:
    """A form without the prompt before it, the values of an option as others write them."""
    lines = [_PROMPT.sub(r"\1", line) for line in lines]
    return [_OPTIONS_LISTED.sub(lambda m: f"(one of: {m[1].replace('|', ', ')})", x) for x in lines]


def _either(lines: Lines) -> Lines:
    """One of several words in brackets, where nothing in brackets may be left out."""
    return [_EITHER.sub(r"\1<\2>", line) for line in lines]


def _once(lines: Lines) -> Lines:
    """An option that may be given again, written once: `--tag value [ --tag value ]`."""
    return [_AGAIN.sub(r"\1\2...", line) for line in lines]


def _unbannered(lines: Lines) -> Lines:
    """A program of many in one without the line that names all of them; letters that its form has
    in the place of options, `tar c|x|t`, with their dash.
    """
    own = lines[next((n for n, line in enumerate(lines[1:], 1) if line), 0) :]
    form = next((match[1] for line in own if (match := _LETTERS_EITHER.search(line))), "")
    letters = set(form.split("|"))
    return [
        f"{match[1]}-{match[2]}" if (match := _LETTER.match(line)) and match[3] in letters else line
        for line in own
    ]


def _unruled(lines: Lines) -> Lines:
    """Without rules: what stands below one begins anew."""
    return ["" if _RULE.match(line) else line for line in lines]


def _is_of_version(lines: Lines) -> bool:
    return bool(lines) and _VERSION_FIRST.match(lines[0]) is not None


def _version_apart(lines: Lines) -> Lines:
    """The line that says who the program is as a paragraph of its own."""
    return [lines[0], "", *lines[1:]]


def _italic_values(lines: Lines) -> Lines:
    return [re.sub(r"(?<=[ =])\*([\w-]+)\*", r"<\1>", line) for line in lines]


LAYOUTS = (
    Layout("boxes", _some(r"\A\s*[╭┌][─\- ]"), unboxed),
    Layout("version first", _is_of_version, _version_apart),
    Layout("rules", _some(_RULE.pattern), _unruled),
    Layout("types in brackets", _some(rf"{_TYPED}(?: \[[^\[\]]*\])*\Z", 2), _without_types),
    Layout("counts", _some(_COUNTED.pattern), _counted),
    Layout("defaults as placeholders", _some(_DEFAULTED.pattern), _placeholders),
    Layout("commands with texts below", _has_texts_below, _texts_beside),
    Layout("texts behind a hash", _some(r"\A\s+\S.*\s# \S", 2), _unhashed),
    Layout("prompts", _some(r"\A\s*\$ \S+ |<options: "), _unprompted),
    Layout("words in brackets", _some(r"\A\s*Usage: .*\[OPTIONS\]"), _either),
    Layout("repeated spellings", _some(_AGAIN.pattern), _once),
    Layout("many in one", _some(r"\A\w+ v[\d.]+.* multi-call binary"), _unbannered),
    Layout("values in stars", _some(r"\A\s+--?[\w-]+[= ]\*[\w-]+\*"), _italic_values),
)
