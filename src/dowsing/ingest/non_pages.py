"""What the index holds besides pages: names of shells, commands without a page, nodes of Info manuals."""

from __future__ import annotations

import os
import sqlite3

from dowsing.ingest.scan import settled
from dowsing.machine.packages import dpkg
from dowsing.machine.search_path import commands
from dowsing.machine.settings import Settings
from dowsing.model.errors import Unreadable
from dowsing.model.paths import as_text, restored, stored
from dowsing.model.record import Record
from dowsing.sources.info_folders import bare_name, info_files, info_folders

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
    options: list[str] = []  # noqa: RUF012 - a record is immutable


#: Kinds of places that are looked at besides manual folders, as the index keeps them.
PATH, INFO, SHELL = "path", "info", "shell"
#: What stands as the size of a file that could not be taken up, to tell these from pages.
OF_SHELL, OF_INFO = -1, -2


def watched(settings: Settings) -> dict[str, str]:
    """The folders and files whose change changes what this module takes up, with their kinds."""
    from dowsing.machine.shells.installed import installed_shells

    places = {os.path.normpath(folder): PATH for folder in settings.search_path if os.path.isabs(folder)}
    places |= dict.fromkeys(info_folders(settings), INFO)
    return places | {shell.path: SHELL for shell in installed_shells(settings)}


def take_others(db: sqlite3.Connection, settings: Settings) -> None:
    """Bring what is not a page up to date: only what changed is asked and read anew; entries that stay keep their rows."""
    known = {
        restored(path): (modified, kind)
        for path, modified, kind in db.execute("SELECT path, modified, kind FROM folders WHERE kind<>'manual'")
    }
    places = watched(settings)
    # a folder of PATH in another terminal is still known here
    places |= {path: kind for path, (_, kind) in known.items() if kind == PATH and os.path.isdir(path)}
    now = {path: (_modified(path), kind) for path, kind in places.items()}
    if _of_kind(known, SHELL) != _of_kind(now, SHELL):
        _take_shells(db, settings)
    if _of_kind(known, INFO) != _of_kind(now, INFO):
        _take_info(db, settings)
    pages = {
        row[0] for row in db.execute(f"SELECT name FROM names WHERE substr(section,1,1) IN {_PROGRAM_SECTIONS!r}")
    }
    _bring_entries(db, [*_builtins(db), *_pageless(db, places, pages, settings)])
    db.execute("DELETE FROM folders WHERE kind<>'manual'")
    rows = ((stored(path), modified, kind) for path, (modified, kind) in now.items())
    db.executemany("INSERT OR IGNORE INTO folders VALUES(?,?,?)", rows)


def _bring_entries(db: sqlite3.Connection, extras: list[Extra]) -> None:
    """Have just these entries without a page: those that are there and the same keep their rows."""
    wanted = {(extra.name, extra.section): extra for extra in extras}
    rows = db.execute(
        "SELECT name, section, kind, summary, package, path, id FROM entries WHERE section IN ('', 'builtin') AND name<>''"
    )
    for *told, number in rows.fetchall():
        new = wanted.get((told[0], told[1]))
        if new is not None and told == [new.name, new.section, new.kind, new.summary, new.package, new.path]:
            del wanted[told[0], told[1]]
        else:
            db.execute("UPDATE entries SET hidden=1, name='', aliases='' WHERE id=?", (number,))
            db.execute("DELETE FROM names WHERE entry=?", (number,))
    _insert(db, list(wanted.values()))


def _of_kind(places: dict[str, tuple[int, str]], kind: str) -> dict[str, int]:
    return {path: modified for path, (modified, one) in places.items() if one == kind}


def _modified(path: str) -> int:
    try:
        return settled(os.stat(path).st_mtime_ns)
    except OSError:
        return 0


def _insert(db: sqlite3.Connection, extras: list[Extra]) -> None:
    from dowsing.index.schema import IN_LEAD
    from dowsing.ingest.postings import SearchedEntry, insert_postings
    from dowsing.ingest.terms import MOST_LEAD, Postings, option_terms
    from dowsing.knowledge.stems import stems
    from dowsing.knowledge.verbs_and_nouns import meaning

    texts, searched_entries = Postings(), []
    number = (db.execute("SELECT max(id) FROM entries").fetchone()[0] or 0) + 1
    last = db.execute("SELECT coalesce(max(rowid), 0) FROM names").fetchone()[0]
    for n, extra in enumerate(extras, number):
        # the description of a package says little of one of its commands: it is no summary to search
        summary = extra.summary if extra.section else ""
        does = meaning(summary, extra.name, extra.section)
        verbs, nouns = " ".join(does.verbs), " ".join(does.nouns)
        db.execute(
            "INSERT INTO entries VALUES(?,?,?,?,?,?,?,?,?,?,?,?,?)",
            (
                n, extra.name, extra.section, "", extra.kind, extra.summary, extra.package, None, extra.path, 0, 0,
                verbs, nouns,
            ),
        )  # fmt: skip
        db.execute("INSERT INTO names VALUES(?,?,?,?,0)", (extra.name.casefold(), extra.name, extra.section, n))
        label = f"{extra.name}({extra.section})" if extra.section else extra.name
        priority = "builtin" if extra.section else ""
        searched_entries.append(SearchedEntry(n, [extra.name], [label], summary, "", priority, verbs, nouns))
        texts.add(n, dict.fromkeys(stems(extra.words)[:MOST_LEAD], IN_LEAD) | option_terms(extra.options))
        db.execute("INSERT INTO options VALUES(?,?,NULL)", (n, "\n".join(extra.options)))
        db.execute("INSERT INTO bodies(rowid, text) VALUES(?,?)", (n, extra.words))
    insert_postings(db, searched_entries, texts)
    db.execute("INSERT INTO pieces(rowid, key) SELECT rowid, key FROM names WHERE rowid>?", (last,))


def _take_shells(db: sqlite3.Connection, settings: Settings) -> None:
    from dowsing.machine.shells.installed import installed_shells
    from dowsing.model.errors import ShellTrouble

    db.execute("DELETE FROM shell_names")
    db.execute("DELETE FROM files WHERE size=?", (OF_SHELL,))
    for shell in installed_shells(settings):
        try:
            names = shell.names()
        except ShellTrouble as trouble:
            row = (stored(shell.path), "", OF_SHELL, str(trouble))
            db.execute("INSERT OR REPLACE INTO files VALUES(?,?,0,?,NULL,?)", row)
            continue
        db.executemany(
            "INSERT INTO shell_names VALUES(?,?,?,?,?,?,?)",
            (
                (shell.name, stored(shell.path), n.name, n.kind, n.summary, n.text, "\n".join(shell.manual))
                for n in names
            ),
        )


def _builtins(db: sqlite3.Connection) -> list[Extra]:
    """One entry for each name that shells know, of the first shell that says something of it."""
    from dowsing.ingest.terms import option_lines
    from dowsing.model.entry import ShellRow
    from dowsing.sources.builtin import help_document

    found: dict[str, Extra] = {}
    rows = db.execute("SELECT shell, path, name, kind, summary, text FROM shell_names ORDER BY summary='', rowid")
    for shell, path, name, kind, summary, text in rows.fetchall():
        if name not in found:
            options = option_lines(help_document(ShellRow(shell, path, name, kind, summary, text, [])))
            found[name] = Extra(name, "builtin", kind, summary, shell, path, f"{summary}\n{text}", options)
    return list(found.values())


def _pageless(db: sqlite3.Connection, places: dict[str, str], pages: set[str], settings: Settings) -> list[Extra]:
    """The commands in the folders of PATH that no page describes. The packages of all commands are taken up too."""
    files: dict[str, str] = {}
    owned: list[tuple[str, str]] = []
    owners = dpkg.owners(("/bin/", "/sbin/", "/games/", "/lib/"), settings.package_lists, settings.package_root)
    for folder, kind in places.items():
        if kind != PATH:
            continue
        for name in commands(folder):
            path = os.path.join(folder, name)
            package = _owner(path, owners) if owners else None
            if package:
                owned.append((stored(path), package))
            if name not in pages and name.isprintable():
                files.setdefault(name, path)
    db.execute("DELETE FROM programs")
    db.executemany("INSERT OR IGNORE INTO programs VALUES(?,?)", owned)
    packages = dict(owned)
    described = dpkg.descriptions(settings.package_lists) if files else {}
    found = []
    for name, path in files.items():
        package = packages.get(stored(path))
        says = described.get(package or "", "")
        summary = f"no manual page; part of {package}" if package else "no manual page"
        summary = f"{summary}: {says}" if says else summary
        found.append(Extra(name, "", "command", summary, package, stored(path), says))
    return found


def _owner(path: str, owners: dict[str, str]) -> str | None:
    """The package of a file or, where no package brought a link, of what it leads to."""
    for spelled in (dpkg.spellings(path), dpkg.spellings(os.path.realpath(path))):
        for one in spelled:
            if one in owners:
                return owners[one]
    return None


def _take_info(db: sqlite3.Connection, settings: Settings) -> None:
    """The nodes that names lead to: by the directory entries, the titles of nodes, and the indices."""
    from dowsing.readers.info.info_file import read_directory, read_info_file
    from dowsing.readers.info.node_names import names_of

    db.execute("DELETE FROM info_names")
    db.execute("DELETE FROM files WHERE size=?", (OF_INFO,))
    for folder in info_folders(settings):
        try:
            files = info_files(folder)
        except OSError as error:
            says = (error.strerror or "it cannot be read").lower()
            db.execute("INSERT OR REPLACE INTO files VALUES(?,?,0,?,NULL,?)", (stored(folder), "", OF_INFO, says))
            continue
        listed = read_directory(folder)
        for path in files:
            try:
                info = read_info_file(path)
            except Unreadable as error:
                db.execute(
                    "INSERT OR REPLACE INTO files VALUES(?,?,0,?,NULL,?)",
                    (stored(path), stored(folder), OF_INFO, f"as an Info file: {error}"),
                )
                continue
            manual = as_text(bare_name(os.path.basename(path)))
            db.executemany(
                "INSERT INTO info_names VALUES(?,?,?,?,?)",
                ((name, stored(path), manual, node, rank) for name, node, rank in names_of(info, manual, listed)),
            )
