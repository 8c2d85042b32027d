"""What a command works with: settings, the screen, and the index, built when it is not there."""

from __future__ import annotations

import os

from dowsing.index.schema import Depth
from dowsing.index.store import Store
from dowsing.machine.settings import read_settings
from dowsing.model.errors import BadSettings, CannotBuild, Failure, Unusable
from dowsing.model.markup import json_escaped
from dowsing.model.record import dump
from dowsing.terminal.screen import Screen, message

TYPE_CHECKING = False
if TYPE_CHECKING:
    import argparse

    from dowsing.ingest.changes import Changes

MANY_CAME = 20  # pages; fewer are taken up without a word
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
        if self.settings.complaints and not from_shell():
            from dowsing.terminal.telling import tell_once

            tell_once(self.settings.complaints, self.settings.cache)
        self._store: Store | None = None
        self.waits = False  # for the whole index: nothing is done in the background

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
        from dowsing.ingest.upkeep import open_as_it_is

        self._use_a_safe_cache()
        try:
            store, changes = open_as_it_is(self.settings)
        except Unusable as reason:
            passing = self._passing()
            return passing if passing is not None else self.build(str(reason))
        if not self._in_background and (changes.any or not store.is_whole):
            return self._in_step(store)
        self._have_upkeep(store, changes)
        return store

    def _in_step(self, store: Store) -> Store:
        """The index made whole, with what came and went taken up, which is waited for."""
        from dowsing.ingest.upkeep import bring_up_to_date, open_as_it_is
        from dowsing.machine.passing_cache import may_be_written
        from dowsing.terminal.progress_bar import building

        if not may_be_written(self.settings.cache):
            return store
        came = store.pending.count if store.pending else 0
        why = f"{came} pages came or went" if store.is_whole else "the whole of every page is read"
        quiet = self.settings.demo or (store.is_whole and came < MANY_CAME)
        store.close()
        try:
            with building(f"bringing the index up to date: {why}", quiet) as progress:
                bring_up_to_date(self.settings, progress)
        except CannotBuild as error:
            message(f"what came and went could not be taken up: {error}")
        return open_as_it_is(self.settings)[0]

    def _have_upkeep(self, store: Store, changes: Changes) -> None:
        """Have what the index lacks be taken up in the background, if nobody is at it."""
        from dowsing.ingest.upkeep import is_due
        from dowsing.session.background import begin, may_begin

        if self.waits or not may_begin(self.settings, store.path):
            return
        if is_due(store, changes):
            begin(self.settings)

    @property
    def _in_background(self) -> bool:
        """Whether the settings let anything be done in the background."""
        return not self.waits and self.settings.values.get("background") != "never"

    def _use_a_safe_cache(self) -> None:
        """Where others may write into the cache folder, use the one for the time being."""
        from dowsing.machine.passing_cache import is_safe, passing_cache

        kept = self.settings.cache
        if is_safe(kept):
            return
        hint = f"chmod go-w {kept}, or set DOWSING_CACHE to a folder of your own"
        folder = passing_cache(make=True)
        if not folder:
            raise Failure(f"others can write into the folder {kept}; {hint}", status=3)
        if not os.listdir(folder):
            message(f"others can write into the folder {kept}, so {folder} is used; {hint}")
        self.settings = self.settings.changed(cache=folder)

    def _passing(self) -> Store | None:
        """The index that is kept for the time being, where there is one and none can be kept in the
        user's folder, or could not be a short time ago.
        """
        from dowsing.ingest.upkeep import open_as_it_is
        from dowsing.machine.passing_cache import may_be_tried, passing_cache

        folder = passing_cache(make=False)
        if not folder or may_be_tried(self.settings.cache, folder):
            return None
        settings = self.settings.changed(cache=folder)
        try:
            store, changes = open_as_it_is(settings)
        except Unusable:
            return None
        self.settings = settings
        self._have_upkeep(store, changes)
        return store

    def build(self, why: str, passing: bool = True, whole: bool = False) -> Store:
        """Build the index with a progress bar on stderr, and open it. Where the folder for it
        cannot be written, it is built in a temporary one, which is told, unless not `passing`.
        `whole`: all of it is waited for; else the rest is made in the background, where the
        settings let it.
        """
        from dowsing.machine.passing_cache import may_be_written, note_tried, passing_cache

        whole = whole or not self._in_background
        kept = self.settings.cache
        try:
            if not may_be_written(kept):
                raise CannotBuild(f"the index cannot be kept in {kept}")
            return self._build(why, whole)
        except CannotBuild as error:
            folder = passing_cache(make=True) if passing else ""
            hint = "free some space or set DOWSING_CACHE to a folder that can be written"
            if not folder or folder == kept:
                raise Failure(f"{error}; {hint}", status=3) from None
            self.settings = self.settings.changed(cache=folder)
            try:
                store = self._build(why, whole)
            except CannotBuild:
                raise Failure(f"{error}; {hint}", status=3) from None
            note_tried(folder)
            message(f"{error}: it is in {folder} for now; {hint}")
            return store

    def _build(self, why: str, whole: bool) -> Store:
        from dowsing.index.index_file import index_path
        from dowsing.ingest.build import build
        from dowsing.ingest.upkeep import bring_up_to_date, open_as_it_is, roots_to_build
        from dowsing.terminal.progress_bar import building

        path = index_path(self.settings.cache, self.settings.indexed_too)
        try:
            with building(f"building the index: {why}", quiet=self.settings.demo) as progress:
                if whole:
                    bring_up_to_date(self.settings, progress, anew=True)
                else:
                    build(path, self.settings, roots_to_build(self.settings), progress, Depth.HEADS)
            self._store, changes = open_as_it_is(self.settings)
        except Unusable as error:
            raise Failure(
                f"{error}, though it was just made: {self.program} index --remove takes away all "
                "that can be made anew",
                status=3,
            ) from None
        except KeyboardInterrupt:
            message("interrupted; an index that was there before is as it was")
            raise SystemExit(130) from None
        self._have_upkeep(self._store, changes)
        return self._store

    def tell_unfinished(self) -> None:
        """Below an answer, what the index does not have yet."""
        if self._store is None or from_shell() or self.json or not self._in_background:
            return
        pending = self._store.pending
        if self._store.is_whole and pending is None:
            return
        from dowsing.session.background import told

        if says := told(self._store, pending.count if pending else 0):
            message(says)

    def is_index_damaged(self) -> bool:
        """Whether the index is not as it was written: then it may be what an unexpected error comes
        from.
        """
        from dowsing.index.index_file import damage_of

        return self._store is not None and bool(damage_of(self._store.path))

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
