"""How those that find values in a sentence hand them on."""

from __future__ import annotations

from typing import Protocol


class Take(Protocol):
    """Takes what stands in a place of the sentence (characters) for a value, if nothing was taken
    there. `sure`: it is no word of ordinary language.
    """

    def __call__(
        self, start: int, end: int, text: str, kind: str, unit: str = "", sure: bool = True
    ) -> None: ...
