"""What entries are narrowed to besides words: package, family, kind and section."""

from __future__ import annotations

from dowsing.core.record import Record

#: Kinds of entries, in the order in which they are offered.
KINDS = (
    "command",
    "subcommand",
    "builtin",
    "keyword",
    "function",
    "system-call",
    "file-format",
    "device",
    "topic",
    "other",
)


class Filters(Record):
    """Each is a name or a pattern with `*`, `?` or `[…]`, in any case; "" does not narrow.

    A section takes in those with a suffix: `3` has `3pm` in it.
    """

    package: str = ""
    family: str = ""
    kind: str = ""
    section: str = ""

    @property
    def any(self) -> bool:
        """Whether anything is narrowed."""
        return any((self.package, self.family, self.kind, self.section))

    def described(self) -> str:
        """The filters in words: `package tar, section 1`."""
        return ", ".join(f"{name} {value}" for name in self._fields if (value := getattr(self, name)))
