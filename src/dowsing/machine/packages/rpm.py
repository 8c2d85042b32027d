"""rpm packages: the headers in rpm's own SQLite database, in the format of its "Package Format"
description.
"""

from __future__ import annotations

import os
import sqlite3
import struct

from dowsing.machine.packages.package_record import Package

PLACES = ("/usr/lib/sysimage/rpm/rpmdb.sqlite", "/var/lib/rpm/rpmdb.sqlite")
NAME, VERSION, RELEASE, SUMMARY, URL = 1000, 1001, 1002, 1004, 1020
DIR_INDEXES, BASE_NAMES, DIR_NAMES = 1116, 1117, 1118
INT32, STRING, STRING_ARRAY, I18N_STRING = 4, 6, 8, 9


def _database(places: tuple[str, ...]) -> sqlite3.Connection | None:
    for place in places:
        if os.path.isfile(place):
            try:
                return sqlite3.connect(f"file:{place}?mode=ro&immutable=1", uri=True)
            except sqlite3.Error:
                continue
    return None


def read_header(blob: bytes) -> dict[int, list[str] | list[int]]:
    """The tags of a header with their values. Raises ValueError if the data are no header."""
    try:
        count, size = struct.unpack_from(">II", blob, 0)
        start = 8 + 16 * count
        store = blob[start : start + size]
        found: dict[int, list[str] | list[int]] = {}
        for n in range(count):
            tag, kind, offset, number = struct.unpack_from(">IIII", blob, 8 + 16 * n)
            if kind in (STRING, STRING_ARRAY, I18N_STRING):
                texts = store[offset:].split(b"\x00", number)[:number]
                found[tag] = [text.decode("utf-8", "replace") for text in texts]
            elif kind == INT32:
                found[tag] = list(struct.unpack_from(f">{number}I", store, offset))
        return found
    except struct.error as error:
        raise ValueError(str(error)) from None


def header_files(header: dict[int, list[str] | list[int]]) -> list[str]:
    """The files of a package by their full paths."""
    folders = [str(folder) for folder in header.get(DIR_NAMES, [])]
    places = [int(place) for place in header.get(DIR_INDEXES, [])]
    names = [str(name) for name in header.get(BASE_NAMES, [])]
    return [
        f"{folders[place]}{name}"
        for place, name in zip(places, names, strict=False)
        if place < len(folders)
    ]


def _header_of(path: str, places: tuple[str, ...]) -> dict[int, list[str] | list[int]] | None:
    database = _database(places)
    if database is None:
        return None
    try:
        base = os.path.basename(path)
        rows = database.execute(
            "SELECT p.blob FROM Basenames b JOIN Packages p ON p.hnum = b.hnum WHERE b.key = ?",
            (base,),
        ).fetchall()
        for (blob,) in rows:
            try:
                header = read_header(blob)
            except ValueError:
                continue
            if path in header_files(header):
                return header
    except sqlite3.Error:
        return None
    finally:
        database.close()
    return None


def owner(path: str, places: tuple[str, ...] = PLACES) -> Package | None:
    """The package that brought the file, or None."""
    header = _header_of(path, places)
    if header is None:
        return None

    def text(tag: int) -> str:
        return str((header.get(tag) or [""])[0])

    version = "-".join(part for part in (text(VERSION), text(RELEASE)) if part)
    return Package(text(NAME), "rpm", version, text(URL), text(SUMMARY))


def files(path: str, places: tuple[str, ...] = PLACES) -> list[str]:
    """The files of the package that the file belongs to."""
    header = _header_of(path, places)
    return header_files(header) if header else []
