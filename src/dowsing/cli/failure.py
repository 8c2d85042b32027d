"""Trouble that a user is told about in one line."""

from __future__ import annotations


class Failure(Exception):
    """A command cannot give its answer.

    `says` is one line that says what to do; `status` the exit status: 1 nothing found, 2 wrong usage, 3 a
    needed file or program cannot be used. `nearest` are names that may have been meant.
    """

    def __init__(self, says: str, status: int = 1, nearest: list[str] | None = None) -> None:
        super().__init__(says)
        self.says = says
        self.status = status
        self.nearest = nearest or []

    def tell(self, as_json: bool = False) -> int:
        """Print it: to stderr, or as JSON to stdout; the exit status."""
        from dowsing.cli.output.terminal import message, write
        from dowsing.core.markup import clean_line, json_escaped

        says = clean_line(self.says)
        if as_json:
            import json

            error = {"error": {"says": says, "nearest": self.nearest}}
            try:
                write(json_escaped(json.dumps(error, ensure_ascii=False)) + "\n")
            except Unwritable as unwritable:
                return unwritable.tell()
            return self.status
        if self.nearest:
            says += ": " + ", ".join(clean_line(name) for name in self.nearest)
        message(says)
        return self.status


class Unwritable(Failure):
    """The answer cannot be written to stdout: whatever is wanted, that is told on stderr."""

    def __init__(self, reason: str) -> None:
        super().__init__(f"the answer cannot be written: {reason}", status=3)

    def tell(self, as_json: bool = False) -> int:
        """Print it to stderr; the exit status."""
        return super().tell(as_json=False)
