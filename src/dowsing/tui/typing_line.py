"""A line that is typed into, whose keys are taken in the order in which they came."""

from __future__ import annotations

from textual import events
from textual.binding import Binding
from textual.widgets import Input

_ACTIONS = {
    key: binding.action
    for binding in Input.BINDINGS
    if isinstance(binding, Binding)
    for key in binding.key.split(",")
}


class TypingLine(Input):
    """The library's input, which takes letters at once but hands editing keys up to the program
    and back: letters typed soon after a Backspace would be there before it, and fall to it.
    """

    def __init__(self, name: str, value: str = "") -> None:
        super().__init__(value, id=name, compact=True, select_on_focus=False)

    async def _on_key(self, event: events.Key) -> None:
        focused = self.app.focused
        if focused is not self:
            # a key before this one has led elsewhere
            event.prevent_default()
            if focused is not None:
                event.stop()
                focused.post_message(event)
            return
        action = _ACTIONS.get(event.key)
        if action is None:
            return  # a letter, which the library's own method takes next
        event.stop()
        event.prevent_default()
        await self.run_action(action)
