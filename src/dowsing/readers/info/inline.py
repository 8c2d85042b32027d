"""The inline text of Info files to marked text: quotes, emphasis, cross references."""

from __future__ import annotations

import re

from dowsing.model.markup import BOLD, CODE, ITALIC, ROMAN, clean, link, plain

_NOTE = re.compile(
    r"(?P<see>[Ss]ee )?\*(?P<note>[Nn]ote)\s+(?:(?P<short>(?:\([^)]*\))?[^:]+?)::"
    r"|(?P<label>[^:]+?):\s+(?P<target>\([^)]*\)[^.,;\t]*|[^.,;\t]+)(?=[.,;\t]|\Z))"
)
_QUOTE = re.compile(r"‘([^‘’\n]{1,120})’|`([^`'\n]{1,120})'")
#: In a tag straight quotes count too: `'-a FILE'` on a line of its own.
_TAG_QUOTE = re.compile(r"‘([^‘’]*)’|`([^`']*)'|(?<!\w)'([^'\n]+)'(?!\w)")
_STRONG = re.compile(r"(?<![\w*\\/.])\*(?=\w)([^*\n]{0,80}\w)\*(?![\w*])")
_EMPHASIS = re.compile(r"(?<![\w_\\/.$-])_(?=[^\W_])([^_\n]{0,80}[^\W_])_(?![\w_])")
_IMAGE = re.compile(r"\x02\[image([^\x03]*)\x03\]")
_FIELD = re.compile(r'(\w+)="((?:[^"\\]|\\.)*)"', re.DOTALL)


def inline(text: str) -> str:
    """Marked text of one paragraph."""
    text = _cleaned(text)
    quoted: list[str] = []

    def keep(match: re.Match[str]) -> str:
        quoted.append(match[0][0] + CODE + (match[1] or match[2]) + ROMAN + match[0][-1])
        return f"\x16{len(quoted) - 1}\x16"

    text = _QUOTE.sub(keep, text)  # nothing inside quotes is markup
    text = _STRONG.sub(rf"{BOLD}\1{ROMAN}", text)
    text = _EMPHASIS.sub(rf"{ITALIC}\1{ROMAN}", text)
    text = _NOTE.sub(_reference, text)
    return re.sub("\x16(\\d+)\x16", lambda match: quoted[int(match[1])], text)


def tag(text: str) -> str:
    """The tag of a list entry: what is quoted is code, and the quotes go."""
    text = _cleaned(text)
    return _TAG_QUOTE.sub(lambda m: CODE + (m[1] or m[2] or m[3] or "") + ROMAN, text)


def literal(text: str) -> str:
    """Lines that stay as they are."""
    return _cleaned(text)


def heading(text: str) -> str:
    """The title of a node, as bare text."""
    return " ".join(_cleaned(text).split())


def _cleaned(text: str) -> str:
    return clean(_IMAGE.sub(_picture, text))


def _picture(match: re.Match[str]) -> str:
    """A picture's own text, its description, or its name."""
    fields = {
        name: value.replace('\\"', '"').replace("\\\\", "\\")
        for name, value in _FIELD.findall(match[1])
    }
    return fields.get("text") or f"[picture: {fields.get('alt') or fields.get('src', '')}]"


def _reference(match: re.Match[str]) -> str:
    """`*note Label: (manual)Node.` as a link to the node, with the label as its text."""
    word = "" if match["see"] else "See " if match["note"] == "Note" else "see "
    target = " ".join(plain(match["short"] or match["target"]).split())
    label = " ".join((match["short"] or match["label"]).split())
    shown = (
        label
        if label == target
        else f"{label} ({target})"
        if not target.startswith("(")
        else f"{label} {target}"
    )
    return f"{match['see'] or word}{link(target, shown)}"
