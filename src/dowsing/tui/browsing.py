"""`browse` from beginning to end: the browser, forms that are opened from it, and the line that
comes of it.
"""

from __future__ import annotations

from dowsing.model.errors import Failure
from dowsing.session.session import Session
from dowsing.tui.browse_state import BrowseState
from dowsing.tui.browser import Browser
from dowsing.tui.program import run_program


def browse_on_screen(session: Session, name: str) -> str | None:
    """Let the user find and read; the line that was chosen, None if none was."""
    state = BrowseState(name)
    says = ""
    while True:
        state.compose = ""
        browser = Browser(session, state)
        browser.first_says = says
        line = run_program(browser)
        if line is not None or not state.compose:
            return line
        from dowsing.session.sheets import command_sheet, line_sheet
        from dowsing.tui.composer import compose_on_screen

        says = ""
        try:
            sheet = (
                line_sheet(session, state.compose, "")
                if state.of_file
                else command_sheet(session, state.compose)
            )
            line = compose_on_screen(session, sheet)
        except Failure as failure:
            says = failure.says
        if line is not None:
            return line
