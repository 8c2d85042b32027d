"""What keywords and builtins are, in words of ours, where their shell has no summary of them."""

from __future__ import annotations

from functools import cache
from pathlib import Path


@cache
def shell_words() -> dict[str, str]:
    """A summary for each name."""
    import tomllib

    path = Path(__file__).with_name("shell_words.toml")
    found: dict[str, str] = tomllib.loads(path.read_text(encoding="utf-8"))["words"]
    return found
