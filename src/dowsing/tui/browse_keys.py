"""The keys of `browse`, for those who ask for all of them."""

from __future__ import annotations

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.tui.key_help import Group

KEYS: list[Group] = [
    ("Finding", [
        ("letters", "search as you type: words, a sentence, a name, a pattern"),
        ("↑ ↓, page keys", "another result; its card is shown"),
        ("Enter", "open it, or narrow by what is chosen at the left"),
        ("Tab", "to what narrows the list, and back"),
        ("Esc", "take back the words and what narrows; then leave"),
    ]),
    ("Reading", [
        ("Tab, Enter", "the next link or line, and follow it or hand it out"),
        ("⌫ or [, ]", "back and forward"),
        ("/, n, N", "search in the text; ↑ brings back what was looked for before"),
        ("-", "go to an option by typing it"),
        ("g", "the contents, to choose a part; o options, e examples"),
        ("1 to 9", "another source of the same name"),
        ("v, w", "the next source beside this one; the keys to the other text"),
        ("Space, Home, End", "a screen on, the beginning, the end"),
        ("f or Esc", "back to the finder; q leaves"),
    ]),
    ("Keeping", [
        ("m", "mark the part that is read, or no longer; it stands on the first page"),
        ("r", "write a remark on what is read"),
    ]),
    ("A line that is chosen", [
        ("Enter", "hand it out"),
        ("c, u", "compose it, take it apart"),
        ("s, y", "save it, copy it"),
    ]),
]  # fmt: skip
