"""Words and parts of a clause as they are shown."""

from __future__ import annotations

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Word

MOST_OPERANDS = 3
LONGEST = 60  # characters of a value that stands in a sentence
SHOWN = {
    ".": "this folder",
    "./": "this folder",
    "..": "the folder above",
    "../": "the folder above",
    "~": "your home folder",
    "~/": "your home folder",
    "-": "its input",
    "": "nothing",
    " ": "a space",
    "\t": "a tab",
    "\\t": "a tab",
    "\n": "a new line",
    "\\n": "a new line",
    "\\0": "a null character",
    "{}": "them",
}


def shown(word: Word) -> str:
    """A word as it is shown in a sentence."""
    text = word.text if word.dynamic or word.glob else word.value
    if word.dynamic and len(text) > 2 and text[0] == text[-1] == '"' and '"' not in text[1:-1]:
        text = text[1:-1]
    if text in SHOWN:
        return SHOWN[text]
    if "\n" in text:
        text = " ".join(text.split())
    return text if len(text) <= LONGEST else text[: LONGEST - 1] + "…"


def listed_words(words: list[str]) -> str:
    """Words in a row, the first few of them."""
    if len(words) > MOST_OPERANDS + 1:
        return f"{', '.join(words[:MOST_OPERANDS])} and {len(words) - MOST_OPERANDS} more"
    return " and ".join([", ".join(words[:-1]), words[-1]] if len(words) > 2 else words)


def pattern_words(text: str, denied: bool = False) -> str:
    """What lines with a pattern in them are like, where its language is not known."""
    return f"{'without' if denied else 'with'} “{text}”"
