"""What a form held before: steps back, and forward again."""

from __future__ import annotations

from dowsing.composing.sheet import Sheet

MOST_STEPS = 200

State = dict[str, list[str]]


class History:
    """The states of a sheet, in the order in which they were. Letters typed one after the other
    into a field are one step.
    """

    def __init__(self, sheet: Sheet) -> None:
        self.sheet = sheet
        self._states: list[State] = [sheet.state()]
        self._keys: list[str] = [""]  # the field that each state changed
        self._at = 0
        self._open = ""  # the field that is being typed into

    def note(self, key: str, typed: bool = False) -> None:
        """Take up the state of the sheet after a field was changed. `typed`: by a letter; the next
        one in the same field belongs to it.
        """
        state = self.sheet.state()
        if state == self._states[self._at]:
            return
        if typed and self._open == key and self._at == len(self._states) - 1 and self._at:
            self._states[self._at] = state
            return
        del self._states[self._at + 1 :], self._keys[self._at + 1 :]
        self._states.append(state)
        self._keys.append(key)
        if len(self._states) > MOST_STEPS:
            del self._states[0], self._keys[0]
        self._at = len(self._states) - 1
        self._open = key if typed else ""

    def rest(self) -> None:
        """What is typed next is a step of its own."""
        self._open = ""

    def undo(self) -> str | None:
        """One step back; the field that is as it was, None if there is nothing to go back to."""
        if not self._at:
            return None
        key = self._keys[self._at]
        self._at -= 1
        return self._restored(key)

    def redo(self) -> str | None:
        """One step forward again; the field that is changed, None if there is none."""
        if self._at + 1 >= len(self._states):
            return None
        self._at += 1
        return self._restored(self._keys[self._at])

    def _restored(self, key: str) -> str:
        self._open = ""
        self.sheet.restore(self._states[self._at])
        return key
