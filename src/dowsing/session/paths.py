"""What a path of this machine is."""

from __future__ import annotations

import os
import stat

from dowsing.model.plainfile import plain_only

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.session.session import Session

_BEGIN = (b"\x7fELF", b"#!", b"\xcf\xfa\xed\xfe", b"\xca\xfe\xba\xbe", b"MZ")
_KINDS = (
    (stat.S_ISDIR, "a folder"),
    (stat.S_ISBLK, "a block device"),
    (stat.S_ISCHR, "a character device"),
    (stat.S_ISFIFO, "a named pipe"),
    (stat.S_ISSOCK, "a socket"),
)


def path_words(session: Session, path: str) -> str:
    """What kind of file it is and which package it comes from; "" if nothing is there."""
    from dowsing.machine.packages.owner import owner

    whole = os.path.expanduser(path)
    try:
        mode = os.stat(whole).st_mode
    except OSError:
        return "a link that leads nowhere" if os.path.islink(whole) else ""
    kind = next((words for test, words in _KINDS if test(mode)), "")
    if not kind:
        kind = "a program" if mode & stat.S_IXUSR and _may_run(whole) else "a file"
    if os.path.islink(whole):
        kind += f", by a link to {os.readlink(whole)}"
    package = owner(whole, session.settings)
    return f"{kind}, of the package {package.name}" if package is not None else kind


def _may_run(path: str) -> bool:
    """Whether a file begins as programs and scripts do."""
    try:
        with open(path, "rb", opener=plain_only) as file:
            return file.read(4).startswith(_BEGIN)
    except OSError:
        return True  # it may not be read: the mode alone tells
