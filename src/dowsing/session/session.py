"""What a command works with: settings, the screen, and the index, built when it is not there."""

from __future__ import annotations

import os

from dowsing.index.schema import Depth, Meta
from dowsing.index.store import Store
from dowsing.machine.settings import read_settings
from dowsing.model.errors import BadSettings, Failure, Unusable
from dowsing.model.markup import json_escaped
from dowsing.model.record import dump
from dowsing.terminal.screen import Screen, message

TYPE_CHECKING = False
if TYPE_CHECKING:
    import argparse

KEY_OF_SHELL = "DOWSING_FROM_SHELL"  # set by the snippets: a key in the shell's line has called


def from_shell() -> bool:
    """Whether a key in a shell's line has called, which shows the line itself and has no job
    control.
    """
    return bool(os.environ.get(KEY_OF_SHELL))


class Session:
    """One run of the program."""

    def __init__(self, options: argparse.Namespace) -> None:
        try:
            self.settings = read_settings(demo=options.demo)
        except BadSettings as error:
            raise Failure(str(error), status=3) from None
        values = self.settings.values
        width = options.width
        if width is None and values.get("width", "").isdecimal():
            width = int(values["width"])
        if "terminal" in values:
            from dowsing.terminal.palette import choose

            choose(values["terminal"], dict(os.environ))
        self.screen = Screen(
            options.color or values.get("color", "auto"),
            options.pager or values.get("pager", "auto"),
            width,
        )
        self.format: str = options.format
        self._store: Store | None = None
        self.mending = ""  # the error for which the index is made anew

    @property
    def json(self) -> bool:
        """Whether the answer is wanted as JSON."""
        return self.format == "json"

    @property
    def program(self) -> str:
        """How this program is called in hints: with `--demo` where that is in use."""
        return "dowsing --demo" if self.settings.demo else "dowsing"

    @property
    def store(self) -> Store:
        """The index, in step with the manual folders. Raises Failure if there cannot be one."""
        if self._store is None:
            self._store = self._open()
        return self._store

    def _open(self) -> Store:
        from dowsing.ingest.refresh import open_index

        try:
            return open_index(self.settings)[0]
        except Unusable as reason:
            passing = self._passing()
            return passing if passing is not None else self.build(str(reason))

    @property
    def _depth(self) -> Depth:
        """How much of an index is waited for: all of it where nothing may be done in the
        background.
        """
        never = self.settings.values.get("background") == "never"
        return Depth.WHOLE if never else Depth.HEADS

    def _passing(self) -> Store | None:
        """The index that is kept for the time being, where there is one, and none can be kept in
        the user's folder.
        """
        from dowsing.ingest.refresh import open_index
        from dowsing.machine.passing_cache import may_be_written, passing_cache

        folder = passing_cache(make=False)
        if not folder or may_be_written(self.settings.cache):
            return None
        settings = self.settings.changed(cache=folder)
        try:
            store = open_index(settings)[0]
        except Unusable:
            return None
        self.settings = settings
        return store

    def build(self, why: str, passing: bool = True, depth: Depth | None = None) -> Store:
        """Build the index with a progress bar on stderr, and open it. Where the folder for it
        cannot be written, it is built in a temporary one, which is told, unless not `passing`.
        `depth`: what is waited for; the rest is made in the background. None for what the settings
        say.
        """
        from dowsing.machine.passing_cache import may_be_written, passing_cache
        from dowsing.model.errors import CannotBuild

        depth = depth or self._depth
        kept = self.settings.cache
        try:
            if not may_be_written(kept):
                raise CannotBuild(f"the index cannot be kept in {kept}")
            return self._build(why, depth)
        except CannotBuild as error:
            folder = passing_cache(make=True) if passing else ""
            hint = "free some space or set DOWSING_CACHE to a folder that can be written"
            if not folder or folder == kept:
                raise Failure(f"{error}; {hint}", status=3) from None
            self.settings = self.settings.changed(cache=folder)
            try:
                store = self._build(why, depth)
            except CannotBuild:
                raise Failure(f"{error}; {hint}", status=3) from None
            message(f"{error}: it is in {folder} for now; {hint}")
            return store

    def _build(self, why: str, depth: Depth) -> Store:
        from dowsing.index.store import index_path
        from dowsing.ingest.build import build
        from dowsing.ingest.refresh import open_index, remove_old_indexes, roots_to_build
        from dowsing.terminal.progress_bar import building

        path = index_path(self.settings.cache, self.settings.indexed_too)
        try:
            with building(f"building the index: {why}", quiet=self.settings.demo) as progress:
                build(path, self.settings, roots_to_build(self.settings), progress, depth)
            self._store = open_index(self.settings)[0]
        except Unusable as error:
            raise Failure(f"{error}; remove {path} and try again", status=3) from None
        except KeyboardInterrupt:
            message("interrupted; an index that was there before is as it was")
            raise SystemExit(130) from None
        remove_old_indexes(self.settings.cache)
        if self.mending:
            from dowsing.index.writer import note_mended

            note_mended(self._store.path, self.mending)
        return self._store

    def tell_unfinished(self, says: bool = True) -> None:
        """Below an answer from an index of names and summaries: have the rest made, and say so
        unless not `says`.
        """
        if self._store is None or self._store.is_whole:
            return
        from dowsing.session.rest_of_index import have_rest_made

        how_far = have_rest_made(self._store.path, self.settings)
        if says and not (from_shell() or self.json):
            message(how_far)

    def may_be_damaged(self, error: str) -> bool:
        """Whether the index may be what an unexpected error comes from: not if it was made anew for
        that already.
        """
        return self._store is not None and self._store.meta_value(Meta.MENDED) != error

    def print_json(self, value: object) -> None:
        """Print one JSON object."""
        import json

        from dowsing.terminal.screen import write

        indent = 2 if self.screen.is_terminal else None
        write(json_escaped(json.dumps(dump(value), ensure_ascii=False, indent=indent)) + "\n")

    def only(self, *formats: str) -> None:
        """Refuse an output format that this command does not have."""
        if self.format not in formats:
            raise Failure(
                f"this command prints {' or '.join(formats)}, not {self.format}", status=2
            )
