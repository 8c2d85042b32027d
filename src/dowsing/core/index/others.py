"""What the index holds besides pages: names of shells, commands without a page, nodes of Info manuals."""

from __future__ import annotations

import os
import sqlite3

from dowsing.core.infofile.places import bare_name, info_files, info_folders
from dowsing.core.packages import dpkg
from dowsing.core.record import Record
from dowsing.core.resolution.search_path import commands
from dowsing.core.settings import Settings
from dowsing.core.sources.pagefile import Unreadable

_PROGRAM_SECTIONS = ("1", "8", "6")


class Extra(Record):
    """An entry that has no page: a builtin, a keyword or a command."""

    name: str
    section: str
    kind: str
    summary: str
    package: str | None
    path: str
    words: str


def watched(settings: Settings) -> list[str]:
    """The folders and files whose change changes what this module takes up."""
    from dowsing.core.shells.installed import installed_shells

    folders = [os.path.normpath(folder) for folder in settings.search_path if os.path.isabs(folder)]
    return list(dict.fromkeys([*folders, *info_folders(settings), *(s.path for s in installed_shells(settings))]))


def take_others(db: sqlite3.Connection, settings: Settings) -> None:
    """Bring what is not a page up to date. Entries that stay keep their rows."""
    folders = {row[0] for row in db.execute("SELECT path FROM folders WHERE kind='other'")}
    places = [*watched(settings), *sorted(folder for folder in folders if os.path.exists(folder))]
    _take_shells(db, settings)
    _take_info(db, settings)
    pages = {
        row[0]
        for row in db.execute(
            f"SELECT name FROM names WHERE substr(section,1,1) IN {_PROGRAM_SECTIONS!r} OR section='builtin'"
        )
    }
    wanted = {(extra.name, extra.section): extra for extra in [*_builtins(db), *_pageless(places, pages, settings)]}
    known = {
        (row[1], row[2]): (row[0], Extra(row[1], row[2], row[3], row[4] or "", row[5], row[6], ""))
        for row in db.execute(
            "SELECT id, name, section, kind, summary, package, path FROM entries WHERE section IN ('', 'builtin') AND name<>''"
        )
    }
    for key, (number, old) in known.items():
        new = wanted.get(key)
        if new is not None and (new.kind, new.summary, new.package, new.path) == (
            old.kind,
            old.summary,
            old.package,
            old.path,
        ):
            del wanted[key]
        else:
            db.execute("UPDATE entries SET hidden=1, name='', aliases='' WHERE id=?", (number,))
            db.execute("DELETE FROM names WHERE entry=?", (number,))
    _insert(db, list(wanted.values()))
    db.execute("DELETE FROM folders WHERE kind='other'")
    db.executemany(
        "INSERT OR IGNORE INTO folders VALUES(?,?,'other')",
        ((place, _modified(place)) for place in dict.fromkeys(places)),
    )


def _modified(path: str) -> int:
    try:
        return os.stat(path).st_mtime_ns
    except OSError:
        return 0


def _insert(db: sqlite3.Connection, extras: list[Extra]) -> None:
    number = (db.execute("SELECT max(id) FROM entries").fetchone()[0] or 0) + 1
    last = db.execute("SELECT coalesce(max(rowid), 0) FROM names").fetchone()[0]
    for n, extra in enumerate(extras, number):
        db.execute(
            "INSERT INTO entries VALUES(?,?,?,?,?,?,?,?,?,?,?)",
            (n, extra.name, extra.section, "", extra.kind, extra.summary, extra.package, None, extra.path, 0, 0),
        )
        db.execute("INSERT INTO names VALUES(?,?,?,?,0)", (extra.name.casefold(), extra.name, extra.section, n))
        # the description of a package says little of one of its commands: it is no summary to search
        summary = extra.summary if extra.section else ""
        db.execute("INSERT INTO heads(rowid, names, summary) VALUES(?,?,?)", (n, extra.name, summary))
        db.execute("INSERT INTO bodies(rowid, text) VALUES(?,?)", (n, extra.words))
    db.execute("INSERT INTO pieces(rowid, key) SELECT rowid, key FROM names WHERE rowid>?", (last,))


def _take_shells(db: sqlite3.Connection, settings: Settings) -> None:
    from dowsing.core.shells.installed import installed_shells
    from dowsing.core.shells.shell import ShellTrouble

    db.execute("DELETE FROM shell_names")
    for shell in installed_shells(settings):
        try:
            names = shell.names()
        except ShellTrouble as trouble:
            db.execute("INSERT OR REPLACE INTO files VALUES(?,?,0,0,NULL,?)", (shell.path, "", str(trouble)))
            continue
        db.executemany(
            "INSERT INTO shell_names VALUES(?,?,?,?,?,?,?)",
            ((shell.name, shell.path, n.name, n.kind, n.summary, n.text, "\n".join(shell.manual)) for n in names),
        )


def _builtins(db: sqlite3.Connection) -> list[Extra]:
    """One entry for each name that shells know, of the first shell that says something of it."""
    found: dict[str, Extra] = {}
    rows = db.execute("SELECT shell, path, name, kind, summary, text FROM shell_names ORDER BY summary='', rowid")
    for shell, path, name, kind, summary, text in rows.fetchall():
        if name not in found:
            found[name] = Extra(name, "builtin", kind, summary, shell, path, f"{summary}\n{text}")
    return list(found.values())


def _pageless(places: list[str], pages: set[str], settings: Settings) -> list[Extra]:
    """The commands in the folders of PATH that no page describes."""
    files: dict[str, str] = {}
    for folder in places:
        if os.path.isdir(folder):
            for name in commands(folder):
                if name not in pages and name.isprintable():
                    files.setdefault(name, os.path.join(folder, name))
    if not files:
        return []
    owners = dpkg.owners(("/bin/", "/sbin/", "/games/"), settings.package_lists, settings.package_root)
    described = dpkg.descriptions(settings.package_lists)
    found = []
    for name, path in files.items():
        package = next((owners[one] for one in dpkg.spellings(path) if one in owners), None)
        says = described.get(package or "", "")
        summary = (
            f"no manual page; part of {package}" + (f": {says}" if says else "") if package else "no manual page"
        )
        found.append(Extra(name, "", "command", summary, package, path, says))
    return found


def _take_info(db: sqlite3.Connection, settings: Settings) -> None:
    """The nodes that names lead to: by the directory entries, the titles of nodes, and the indices."""
    from dowsing.core.infofile.names import names_of
    from dowsing.core.infofile.reader import read_info_file

    db.execute("DELETE FROM info_names")
    for folder in info_folders(settings):
        try:
            files = info_files(folder)
        except OSError as error:
            says = (error.strerror or "it cannot be read").lower()
            db.execute("INSERT OR REPLACE INTO files VALUES(?,?,0,0,NULL,?)", (folder, "", says))
            continue
        for path in files:
            try:
                info = read_info_file(path)
            except Unreadable as error:
                db.execute(
                    "INSERT OR REPLACE INTO files VALUES(?,?,0,0,NULL,?)", (path, folder, f"as an Info file: {error}")
                )
                continue
            manual = bare_name(os.path.basename(path))
            db.executemany(
                "INSERT INTO info_names VALUES(?,?,?,?,?)",
                ((name, path, manual, node, rank) for name, node, rank in names_of(info, manual)),
            )
