"""What can be done with the command line that is chosen in a text."""

from __future__ import annotations

from dowsing.model.entry import EntryKind
from dowsing.model.errors import Failure
from dowsing.tui.above import Above
from dowsing.tui.browse_state import BrowseState
from dowsing.tui.reader_places import ReaderPlaces


class ChosenLine(ReaderPlaces):
    """The part of the reader that does something with a line."""

    state: BrowseState

    def here(self) -> tuple[str, str, int] | None:
        """Where one reads now."""
        raise NotImplementedError

    def chosen_line(self) -> str:
        spot = self.page.chosen
        return spot.target if spot is not None and spot.what == "line" else ""

    def compose_line(self) -> None:
        """Compose the line that is chosen, the command that the text is about, or a line of the
        file that it is about.
        """
        assert self.opened is not None
        entry = self.opened.entry
        spoken = (
            entry.name.replace("-", " ", 1) if entry.kind == EntryKind.SUBCOMMAND else entry.name
        )
        self.state.compose = self.chosen_line() or spoken
        self.state.of_file = entry.kind == EntryKind.FILE_FORMAT and not self.chosen_line()
        self.state.now = self.here()
        self.exit(None)

    def unpick_line(self) -> None:
        line = self.chosen_line()
        if not line:
            self.say("choose a line with Tab first")
            return
        from dowsing.commandline.line import unpick
        from dowsing.commandline.reading.command_finder import CommandFinder
        from dowsing.render.piece_text import unpicked_lines

        found = unpick(line, CommandFinder(self.session.store, self.session.settings))
        program = self.session.program
        self.push_screen(
            Above(lambda width: unpicked_lines(found, width, program), "Esc back · arrows scroll")
        )

    def save_line(self) -> None:
        line = self.chosen_line()
        if not line:
            self.say("choose a line with Tab first")
            return
        from dowsing.session.keeping import keep_line

        try:
            kept = keep_line(self.session, line, "")
            self.say(f"saved: {kept.recipe.task}" if not kept.known else "saved already")
        except Failure as failure:
            self.say(failure.says)

    def copy_line(self) -> None:
        line = self.chosen_line()
        if not line:
            self.say("choose a line with Tab first")
            return
        from dowsing.terminal.clipboard import copy

        by = copy(line)
        self.say(
            f"copied by {by}: {line}"
            if by
            else "there is no clipboard program here and no terminal that takes it"
        )
