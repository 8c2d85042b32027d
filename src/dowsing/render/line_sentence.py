"""One sentence for a whole line, made from its pieces: what it does, to what, and where the output
goes.
"""

from __future__ import annotations

import os
import re

from dowsing.commandline.sayings import Manner
from dowsing.model.roles import Role
from dowsing.model.value_kinds import FILE_KINDS, ValueKind
from dowsing.render.phrases import words

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.pieces import Piece, Unpicked

MOST_OBJECTS = 3
_NAMED_KINDS = FILE_KINDS | {ValueKind.URL, ValueKind.HOST, ValueKind.PATTERN, ValueKind.GLOB}
#: Operands that are lines of their own.
_LINES = (Manner.SHELL_LINE, Manner.LATER_LINE)
#: Titles of sections whose options say what is done, of which one is given.
_OPERATION = re.compile(
    r"\boperations?\b|\bmodes?\b|\bactions?\b|\bfunctions?\b|\bcommands?\b", re.IGNORECASE
)
#: First words of option texts that tell about the option itself, not about what is done.
_ABOUT = frozenset(
    "use specify set same like if do give be show enable disable turn make select allow".split()
)


def sentence(found: Unpicked) -> str:
    """The line in words; "" if there is no command in it."""
    text = _Teller(found.verbs).line(found.pieces, 0).lstrip(",; ")
    return text[:1].upper() + text[1:] + "." if text else ""


class _Teller:
    """Puts pieces into words."""

    def __init__(self, verbs: frozenset[str]) -> None:
        self.verbs = verbs

    def line(self, pieces: list[Piece], depth: int) -> str:
        """What the pieces of that depth say, up to where a line of less depth goes on."""
        parts: list[str] = []
        joint = ""
        n = 0
        while n < len(pieces) and pieces[n].depth >= depth:
            piece = pieces[n]
            end = n + 1
            if piece.depth > depth:
                pass
            elif piece.role == Role.COMMAND:
                end = _clause_end(pieces, n, depth)
                parts.append(joint + self.clause(pieces[n:end]))
                joint = ", then "
            elif piece.text == "[[":
                end = _test_end(pieces, n)
                parts.append(_test(pieces[n + 1 : end - 1], joint))
                joint = ", then "
            elif piece.role in (Role.OPERATOR, Role.KEYWORD):
                joint = _joint(pieces, n, joint)
                if piece.text == "&" and parts:
                    parts[-1] += ", in the background"
                    joint = ", and at once "
            else:
                parts += _beside(piece, bool(parts))
            n = end
        return "".join(parts)

    def clause(self, pieces: list[Piece]) -> str:
        """What one command does, to what."""
        command = pieces[0]
        depth = command.depth
        own = [piece for piece in pieces[1:] if piece.depth == depth]
        inner = next(
            (
                n
                for n, piece in enumerate(pieces)
                if n and piece.role == Role.COMMAND and piece.depth == depth + 1
            ),
            None,
        )
        in_value = any(
            piece.inside and piece.role in (Role.SUBSTITUTION, Role.OPERAND) for piece in own
        )
        does = self.does(command, own)
        if inner is not None and not in_value:
            return f"{does}{_objects(own, command)} – {self.clause(pieces[inner:])}"
        if inner is not None and any(_is(p, *_LINES) for p in own):
            return (
                f"{does}{_objects([p for p in own if not p.inside], command)} – "
                f"{self.line(pieces[inner:], depth + 1)}"
            )
        return does + _objects(own, command)

    def does(self, command: Piece, own: list[Piece]) -> str:
        """The verb phrase: of a subcommand, of the command's summary, or of the first option that
        says what is done.
        """
        name = " ".join(
            [os.path.basename(command.text), *(p.text for p in own if p.role == Role.SUBCOMMAND)]
        )
        said = [p.says for p in own if p.role == Role.SUBCOMMAND and p.says]
        summary = _phrase(said[-1] if said else command.says or words(command.meaning))
        if summary and self.is_verb(summary):
            return f"{summary} ({name})"
        for piece in own:
            if piece.role == Role.OPTION and piece.says and _OPERATION.search(piece.group):
                phrase = _phrase(piece.says)
                if self.is_verb(phrase) and phrase.split()[0] not in _ABOUT:
                    return f"{phrase} ({name})"
        if not summary or not (command.page or said):
            return f"run {name}"
        return f"run {name} ({summary})"

    def is_verb(self, phrase: str) -> bool:
        first = re.split(r"[^a-z]", phrase, maxsplit=1)[0]
        return bool(first) and first in self.verbs and not re.match(r"\w+ (?:of|is)\b", phrase)


def _is(piece: Piece, *manners: Manner) -> bool:
    return piece.manner is not None and piece.manner.code in manners


def _ends(piece: Piece) -> bool:
    if piece.role in (Role.COMMAND, Role.REDIRECTION, Role.COMMENT, Role.KEYWORD):
        return True
    return piece.role == Role.OPERATOR and piece.page is None and piece.of is None


_JOINTS = {
    "|": "; its output goes to: ",
    "|&": "; its output and errors go to: ",
    "&&": "; if that succeeds, ",
    "||": "; if that fails, ",
    ";": "; then ",
    "if": "if this succeeds: ",
    "elif": "; else if this succeeds: ",
    "then": " – ",
    "else": "; else ",
    "while": "as long as this succeeds: ",
    "until": "until this succeeds: ",
    "!": "the contrary of: ",
}


def _joint(pieces: list[Piece], n: int, joint: str) -> str:
    """What leads from the clause before to the one after the mark at `n`."""
    piece = pieces[n]
    after = pieces[n + 1].text if n + 1 < len(pieces) else ""
    if piece.text in ("for", "select"):
        values = [one.text for one in pieces[n + 1 :] if _is(one, Manner.LOOP_VALUE)]
        return (
            f"{joint if joint.endswith('then ') else ''}for each of {_listed(values)}: "
            if values
            else "again and again: "
        )
    if piece.text in ("do", "in", "done", "fi", "esac", "{", "}", "(", ")", "[[", "]]"):
        return joint
    if piece.text == ";" and after in ("do", "then", "done", "fi"):
        return joint
    return _JOINTS.get(piece.text, ", then ")


def _phrase(text: str) -> str:
    """The first clause of a text, its first letter small."""
    text = re.sub(r"\s*\([^()]*\)", "", " ".join(text.split()))
    text = re.split(
        r"(?<=[\w)])[.;:](?:\s|\Z)|, (?:which|so that|but|instead|unless)\b| – ", text, maxsplit=1
    )[0].strip()
    if len(text) > 90:
        text = text[:90].rpartition(" ")[0] + " …"
    first = text.split(" ")[0]
    return text[:1].lower() + text[1:] if first[1:] == first[1:].lower() else text


def _objects(own: list[Piece], command: Piece) -> str:
    """What it is done to: the operands, and what options name."""
    operands = [
        p.text
        for p in own
        if p.role == Role.OPERAND and not p.problem and not _is(p, Manner.SCRIPT_ARGUMENT)
    ]
    operands += [p.text for p in own if p.role == Role.SUBSTITUTION]
    named: list[str] = []
    for piece in own:
        if (
            piece.role == Role.OPTION
            and piece.value
            and not piece.inside
            and piece.kind in _NAMED_KINDS
            and piece.value != "-"
        ):
            label = next(
                (flag.lstrip("-") for flag in piece.flags or [] if flag.startswith("--")), ""
            )
            label = label or piece.text.lstrip("-")
            named.append(f"{label.replace('-', ' ')} {piece.value}")
    if command.text in ("[", "test"):
        named, operands = (
            [],
            [
                p.text
                for p in own
                if p.role in (Role.OPTION, Role.VALUE, Role.OPERAND) or p.role == Role.OPERATOR
            ],
        )
        operands = [" ".join(operands).removesuffix(" ]")]
    return (f": {_listed(operands)}" if operands and any(operands) else "") + (
        f", {', '.join(named[:3])}" if named else ""
    )


def _listed(words: list[str]) -> str:
    if len(words) > MOST_OBJECTS:
        return f"{', '.join(words[:MOST_OBJECTS])} and {len(words) - MOST_OBJECTS} more"
    return " and ".join([", ".join(words[:-1]), words[-1]] if len(words) > 2 else words)


def _clause_end(pieces: list[Piece], start: int, depth: int) -> int:
    """Where the words of the command that stands at `start` end."""
    end = start + 1
    while end < len(pieces) and not (pieces[end].depth <= depth and _ends(pieces[end])):
        end += 1
    return end


def _test_end(pieces: list[Piece], start: int) -> int:
    """The place behind the end of a test that begins at `start`."""
    ends = (n + 1 for n in range(start, len(pieces)) if pieces[n].text == "]]")
    return next(ends, len(pieces))


def _test(pieces: list[Piece], joint: str) -> str:
    """A test of the shell's, as it is written."""
    joint = joint.replace("if this succeeds: ", "if ")
    return f"{joint}the test {' '.join(piece.text for piece in pieces)} holds"


def _beside(piece: Piece, begun: bool) -> list[str]:
    """A redirection or an assignment; `begun` where something stands before it."""
    if piece.role == Role.REDIRECTION and begun and words(piece.meaning):
        return [f"; {words(piece.meaning)}"]
    if piece.role == Role.ASSIGNMENT:
        return [(", and " if begun else "") + words(piece.meaning)]
    return []
