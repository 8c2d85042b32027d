"""What the full-screen parts have in common: colours of the terminal, keys to leave, windows that
are too small.
"""

from __future__ import annotations

import os
from collections.abc import Callable

# how long (in ms) after an Escape more of a key is waited for; the library reads it when it is
# imported
os.environ.setdefault("ESCDELAY", "40")

from rich.style import Style
from rich.text import Text
from textual.app import App
from textual.binding import Binding
from textual.events import Resize
from textual.widgets import Input, Static

from dowsing.model.errors import Failure
from dowsing.session.session import from_shell
from dowsing.tui.driver import TerminalDriver
from dowsing.tui.on_terminal import OnTerminal

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.tui.key_help import Group

LEAST_WIDTH, LEAST_HEIGHT = 40, 10
LOOK_AFTER = 1.0  # seconds between looks whether the terminal is still there


class Program(App):  # type: ignore[type-arg]
    """A full-screen program that gives a line back, or None."""

    ENABLE_COMMAND_PALETTE = False
    ESCAPE_TO_MINIMIZE = False
    CSS = """
    Screen { background: ansi_default; color: ansi_default; layers: base above; }
    #too-small { layer: above; display: none; width: 100%; height: 100%; background: ansi_default; }
    Screen.small #too-small { display: block; }
    .bar { height: 1; color: ansi_default; }
    Static { link-color: ansi_default; link-background: ansi_default; link-style: none;
        link-color-hover: ansi_default; link-background-hover: ansi_default;
        link-style-hover: underline; }
    * { scrollbar-color: ansi_bright_black; scrollbar-color-hover: ansi_white;
        scrollbar-color-active: ansi_white;
        scrollbar-background: ansi_default; scrollbar-background-hover: ansi_default;
        scrollbar-background-active: ansi_default; }
    """
    BINDINGS = [  # noqa: RUF012 - as the library has it
        Binding("ctrl+c", "leave", "leave", priority=True, show=False),
        Binding("ctrl+q", "leave", "leave", priority=True, show=False),
        Binding("ctrl+z", "rest", "suspend", priority=True, show=False),
        Binding("f1", "all_keys", priority=True, show=False),
    ]

    def __init__(self) -> None:
        super().__init__(driver_class=TerminalDriver, ansi_color=True)
        self.theme = "ansi-dark"
        self.animation_level = "none"
        self.answer: str | None = None
        self.trouble: Exception | None = None

    def on_ready(self) -> None:
        """Once all is there: memory is given back again, which a short look-up does without."""
        import gc

        gc.freeze()
        gc.enable()
        self.set_interval(LOOK_AFTER, self.check_terminal)

    def check_terminal(self) -> None:
        """End at once when the terminal is gone: there is nobody to hang up where a shell's key has
        called.
        """
        import termios

        try:
            termios.tcgetattr(0)
        except termios.error:
            os._exit(129)

    def too_small(self) -> Static:
        """What stands on the screen while the window is too small."""
        return Static(
            f"make the window at least {LEAST_WIDTH} columns wide and {LEAST_HEIGHT} lines high",
            id="too-small",
        )

    def on_resize(self, event: Resize) -> None:
        """A window in which nothing fits says so until it is larger."""
        size = event.size
        self.screen.set_class(size.width < LEAST_WIDTH or size.height < LEAST_HEIGHT, "small")

    def in_turn(self, call: Callable[..., object], *values: object) -> None:
        """Do this after what was typed before, which an input may not have taken yet."""
        focused = self.focused
        if isinstance(focused, Input):
            focused.call_later(call, *values)
        else:
            call(*values)

    def key_groups(self) -> list[Group]:
        """All keys of the screen, by what they are for."""
        raise NotImplementedError

    def action_all_keys(self) -> None:
        """All keys, laid over the screen; once more takes them away."""
        if len(self.screen_stack) > 1:
            self.pop_screen()
            return
        from dowsing.tui.key_help import key_help

        self.push_screen(key_help(self.key_groups()))

    def action_leave(self) -> None:
        """Leave without an answer."""
        self.exit(None)

    def action_rest(self) -> None:
        """Into the background, where a shell can bring it back from."""
        if not from_shell():
            self.action_suspend_process()

    def _handle_exception(self, error: Exception) -> None:
        """A fault of ours ends the screen, and is told in one line when the terminal is as it
        was.
        """
        self.trouble = error
        self.exit(None)

    def hand_out(self, line: str) -> None:
        """End with this line."""
        self.answer = line
        self.exit(line)


def key_bar(keys: list[tuple[str, str]], width: int, last: str = "F1 keys") -> Text:
    """Keys with what they do, as many as fit, and at the end what always stands there."""
    bar = Text(no_wrap=True)
    for name, says in keys:
        if bar.cell_len + len(name) + len(says) + 3 > width - len(last):
            break
        bar.append(name, "bold")
        bar.append(f" {says}  ")
    name, _, says = last.partition(" ")
    bar.append(name, Style(bold=True, meta={"@click": "app.all_keys"}))
    bar.append(f" {says}", Style(meta={"@click": "app.all_keys"}))
    return bar


def run_program(program: Program) -> str | None:
    """Run it on the terminal and leave that as it was found; the line that it gives back. Raises
    Failure.
    """
    with OnTerminal():
        program.run()
    if program.trouble is not None:
        if os.environ.get("DOWSING_TRACE"):
            raise program.trouble
        kind = type(program.trouble).__name__
        raise Failure(
            f"the screen could not go on ({kind}: {program.trouble}); please report it", status=3
        )
    return program.answer
