"""What a package manager records of a package."""

from __future__ import annotations

from dowsing.model.record import Record


class Package(Record):
    """An installed package. `manager`: dpkg, rpm, homebrew, pip or npm. `home_page` as recorded, ""
    if none is.
    """

    name: str
    manager: str
    version: str = ""
    home_page: str = ""
    summary: str = ""
