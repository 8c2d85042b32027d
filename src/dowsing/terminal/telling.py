"""Telling that a command cannot give its answer."""

from __future__ import annotations

from dowsing.model.errors import Failure, Unwritable
from dowsing.model.markup import clean_line, json_escaped
from dowsing.terminal.screen import message, write


def tell(failure: Failure, as_json: bool = False) -> int:
    """Print it: to stderr, or as JSON to stdout; the exit status. What cannot be written is told on
    stderr.
    """
    says = clean_line(failure.says)
    if as_json and not isinstance(failure, Unwritable):
        import json

        error = {"error": {"says": says, "nearest": failure.nearest}}
        try:
            write(json_escaped(json.dumps(error, ensure_ascii=False)) + "\n")
        except Unwritable as unwritable:
            return tell(unwritable)
        return failure.status
    if failure.nearest:
        says += ": " + ", ".join(clean_line(name) for name in failure.nearest)
    message(says)
    return failure.status


def tell_once(lines: list[str], cache: str) -> None:
    """Tell lines on stderr, unless just these were told before; where that cannot be noted they are
    told again.
    """
    import os
    import zlib

    from dowsing.model.replacing import replace_text

    mark = f"{zlib.crc32(chr(10).join(lines).encode('utf-8', 'surrogateescape')):08x}"
    place = os.path.join(cache, "told")
    try:
        with open(place, encoding="ascii", errors="replace") as file:
            if file.read(20) == mark:
                return
    except OSError:
        pass
    for line in lines:
        message(line)
    try:
        os.makedirs(cache, mode=0o700, exist_ok=True)
        replace_text(place, mark, lasting=False)
    except OSError:
        pass
