"""What the index holds besides pages: names of shells, commands without a page, nodes of Info
manuals.
"""

from __future__ import annotations

import os

from dowsing.index.rows import EntryRow, PlaceKind
from dowsing.index.writer import IndexWriter
from dowsing.ingest.extra import (
    Extra,
    is_named_for,
    package_command,
    packages_of,
    told_command,
)
from dowsing.ingest.scan import settled
from dowsing.machine.packages import dpkg
from dowsing.machine.search_path import commands, executables
from dowsing.model.entry import EntryKind, ShellRow
from dowsing.model.errors import ShellTrouble, Unreadable
from dowsing.model.paths import as_text
from dowsing.sources.info_folders import bare_name, info_files, info_folders
from dowsing.sources.usage_cache import usage_folder

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.machine.packages.package_record import Package
    from dowsing.machine.settings import Settings
    from dowsing.readers.info.info_file import DirEntry

_PROGRAM_SECTIONS = ("1", "8", "6")


def watched(settings: Settings) -> dict[str, PlaceKind]:
    """The folders and files whose change changes what this module takes up, with their kinds."""
    from dowsing.machine.shells.installed import installed_shells

    places = {
        os.path.normpath(folder): PlaceKind.PATH
        for folder in settings.search_path
        if os.path.isabs(folder)
    }
    places[usage_folder(settings)] = PlaceKind.USAGE
    places |= dict.fromkeys(info_folders(settings), PlaceKind.INFO)
    return places | {shell.path: PlaceKind.SHELL for shell in installed_shells(settings)}


def take_others(writer: IndexWriter, settings: Settings, changed: set[str] | None = None) -> None:
    """Bring what is not a page up to date: only what changed is asked and read anew; entries that
    stay keep their rows. `changed`: the folders of PATH and of Info files, and the shells, that are
    not as they were; None for all.
    """
    known = writer.other_places()
    places = watched(settings)
    # a folder of PATH in another terminal is still known here
    places |= {
        path: kind
        for path, (_, kind) in known.items()
        if kind == PlaceKind.PATH and os.path.isdir(path)
    }
    now = {path: (_modified(path), kind) for path, kind in places.items()}
    shells = _of_kind(known, PlaceKind.SHELL) != _of_kind(now, PlaceKind.SHELL)
    info = _of_kind(known, PlaceKind.INFO) != _of_kind(now, PlaceKind.INFO)
    if shells:
        _take_shells(writer, settings)
    if info:
        _take_info(writer, settings)
    folders = {path for path, kind in places.items() if kind == PlaceKind.PATH}
    gone = {path for path, (_, kind) in known.items() if kind == PlaceKind.PATH} - folders
    order = _in_order(folders, settings)
    looked_at = folders if changed is None else folders & set(map(os.path.normpath, changed))
    commands_found = _pageless(writer, looked_at, gone, order, settings)
    taken = {extra.name for extra in commands_found} | writer.commands_outside(looked_at | gone)
    extras = [*commands_found, *_manuals(writer, taken), *(_builtins(writer) if shells else [])]
    _bring_entries(writer, extras, looked_at | gone, shells)
    if _of_kind(known, PlaceKind.USAGE) != _of_kind(now, PlaceKind.USAGE):
        _bring_told(writer, looked_at, settings)
    writer.set_other_places(now)


def _bring_entries(
    writer: IndexWriter, extras: list[Extra], folders: set[str], shells: bool
) -> None:
    """Have just these entries without a page, those that are there and the same with their rows;
    commands outside of these `folders` stay, and builtins if not `shells`.
    """
    wanted = {(extra.name, extra.section): extra for extra in extras}
    gone = []
    for row, number in writer.pageless():
        new = wanted.get(row.names[0])
        if new is not None and row == new.row(0):
            del wanted[row.names[0]]
        elif new is not None or _is_concerned(row, folders, shells):
            gone.append(number)
    writer.hide(gone)
    _insert(writer, list(wanted.values()))


def _bring_told(writer: IndexWriter, looked_at: set[str], settings: Settings) -> None:
    """Have what programs said of themselves when they were asked; those of the folders that were
    `looked_at` have it already.
    """
    rows = [
        (row, number)
        for row, number in writer.pageless()
        if not row.names[0][1] and os.path.dirname(row.path) not in looked_at
    ]
    known = {row.names[0][0]: (row, number) for row, number in rows}
    gone: list[int] = []
    wanted: list[Extra] = []
    for row, _ in rows:
        if row.kind != EntryKind.COMMAND:
            continue
        plain = Extra(row.names[0][0], "", row.kind, row.summary, row.package, row.path, "")
        told = told_command(plain, settings)
        if told[0] is plain or all(_is_as_known(writer, one, known) for one in told):
            continue
        wanted += told
        gone += [known[one.name][1] for one in told if one.name in known]
    writer.hide(gone)
    _insert(writer, wanted)


def _is_as_known(writer: IndexWriter, told: Extra, known: dict[str, tuple[EntryRow, int]]) -> bool:
    """Whether the index has an entry with the same summary and options."""
    if told.name not in known:
        return False
    row, number = known[told.name]
    return row == told.row(0) and writer.option_lines(number) == told.options


def _is_concerned(row: EntryRow, folders: set[str], shells: bool) -> bool:
    """Whether an entry without a page is one of those that were looked for."""
    if row.names[0][1] == "builtin":
        return shells
    return row.kind == EntryKind.TOPIC or os.path.dirname(row.path) in folders


def _of_kind(places: dict[str, tuple[int, PlaceKind]], kind: PlaceKind) -> dict[str, int]:
    return {path: modified for path, (modified, one) in places.items() if one == kind}


def _modified(path: str) -> int:
    try:
        return settled(os.stat(path).st_mtime_ns)
    except OSError:
        return 0


def _insert(writer: IndexWriter, extras: list[Extra]) -> None:
    from dowsing.index.schema import IN_LEAD
    from dowsing.ingest.meanings import Meanings, labels_of
    from dowsing.ingest.postings import SearchedEntry, insert_postings
    from dowsing.ingest.terms import MOST_LEAD, Postings, option_terms
    from dowsing.knowledge.stems import stems
    from dowsing.knowledge.verbs_and_nouns import VerbsAndNouns, meaning

    meanings = Meanings.kept(writer)
    texts = Postings()
    searched: list[SearchedEntry] = []
    rows: list[EntryRow] = []
    for number, extra in enumerate(extras, writer.next_number()):
        # the description of a package says little of one of its commands, unless the package is
        # named for it: else it is no summary to search
        is_telling = extra.section or is_named_for(extra.package or "", extra.name)
        summary = (extra.summary if extra.section else extra.words) if is_telling else ""
        told = meaning(summary, extra.name, extra.section)
        does = meanings.of([(extra.name, extra.section)], told, VerbsAndNouns([], []))
        verbs, nouns = " ".join(does.verbs), " ".join(does.nouns)
        rows.append(extra.row(number, verbs, nouns))
        priority = "builtin" if extra.section else ""
        searched.append(
            SearchedEntry(
                number,
                [extra.name],
                labels_of(extra.name, extra.section),
                summary,
                extra.family or "",
                priority,
                verbs,
                nouns,
            )
        )
        texts.add(
            number,
            dict.fromkeys(stems(extra.words)[:MOST_LEAD], IN_LEAD) | option_terms(extra.options),
        )
    writer.insert_entries(rows)
    numbered = list(zip([row.number for row in rows], extras, strict=True))
    writer.insert_options((number, "\n".join(extra.options), None) for number, extra in numbered)
    writer.insert_bodies((number, extra.words) for number, extra in numbered)
    insert_postings(writer, searched, texts, meanings)


def _take_shells(writer: IndexWriter, settings: Settings) -> None:
    from dowsing.machine.shells.installed import installed_shells

    writer.forget_shells()
    for shell in installed_shells(settings):
        try:
            names = shell.names()
        except ShellTrouble as trouble:
            writer.insert_trouble(PlaceKind.SHELL, shell.path, "", str(trouble))
            continue
        manual = list(shell.manual)
        writer.insert_shell_names(
            ShellRow(shell.name, shell.path, one.name, one.kind, one.summary, one.text, manual)
            for one in names
        )


def _builtins(writer: IndexWriter) -> list[Extra]:
    """One entry for each name that shells know, of the first shell that says something of it."""
    from dowsing.ingest.terms import option_lines
    from dowsing.knowledge.shell_words import shell_words
    from dowsing.sources.builtin import help_document

    found: dict[str, Extra] = {}
    for row in writer.shell_names():
        if row.name not in found:
            options = option_lines(help_document(row))
            summary = row.summary or shell_words().get(row.name, "")
            text = f"{summary}\n{row.text}"
            found[row.name] = Extra(
                row.name, "builtin", row.kind, summary, row.shell, row.path, text, options
            )
    return list(found.values())


def _pageless(
    writer: IndexWriter, folders: set[str], gone: set[str], order: list[str], settings: Settings
) -> list[Extra]:
    """The commands that these folders of PATH have, or had, and that no page describes. The
    packages of all commands in them are taken up too; `gone` are folders that are no more, `order`
    all folders.
    """
    owners = (
        dpkg.owners(
            ("/bin/", "/sbin/", "/games/", "/lib/"), settings.package_lists, settings.package_root
        )
        if folders
        else {}
    )
    names: dict[str, None] = {}
    owned: dict[str, str] = {}
    for folder in order:
        for name in commands(folder) if folder in folders else ():
            names[name] = None
            path = os.path.join(folder, name)
            package = _owner(path, owners) if owners else None
            if package:
                owned[path] = package
    writer.set_programs(folders | gone, owned.items())
    names |= dict.fromkeys(writer.commands_in(folders | gone))
    pages = writer.names_in_sections(_PROGRAM_SECTIONS) if names else set()
    described = dpkg.descriptions(settings.package_lists) if names.keys() - pages else {}
    found: list[Extra] = []
    outside: dict[str, dict[str, Package]] = {}
    for name in names:
        path = "" if name in pages or not name.isprintable() else _first(name, order)
        if path:
            package = owned.get(path) or (_owner(path, owners) if owners else None)
            says = described.get(package or "", "")
            other = None if package else _package_outside(path, outside)
            if other is not None:
                package, says = other.name, other.summary
            found += told_command(package_command(name, path, package, says), settings)
    return found


def _package_outside(path: str, known: dict[str, dict[str, Package]]) -> Package | None:
    """The package of a program that is none of the system's. `known`: those of folders that were
    looked through.
    """
    folder, name = os.path.split(path)
    if folder not in known:
        known[folder] = packages_of(folder)
    return known[folder].get(name)


def _first(name: str, order: list[str]) -> str:
    """The first executable of that name, "" if there is none."""
    return next(iter(executables(name, order)), "")


def _in_order(folders: set[str], settings: Settings) -> list[str]:
    """Folders of PATH in their order, those of other terminals behind."""
    own = [os.path.normpath(folder) for folder in settings.search_path]
    return [*dict.fromkeys(one for one in own if one in folders), *sorted(folders - set(own))]


def _manuals(writer: IndexWriter, commands_found: set[str]) -> list[Extra]:
    """The Info manuals that are named like no page and no command: `diffutils`."""
    from dowsing.readers.info.info_file import read_directory

    listed: dict[str, list[DirEntry]] = {}
    found = []
    for name, path in writer.info_manuals().items():
        if name in commands_found or not name.isprintable():
            continue
        folder = os.path.dirname(path)
        if folder not in listed:
            listed[folder] = read_directory(folder)
        says = next(
            (one.text for one in listed[folder] if one.file == name and one.node == "Top"), ""
        )
        says = " ".join(says.split()).rstrip(".")
        summary = f"{says} (an Info manual)" if says else "an Info manual"
        found.append(Extra(name, "", EntryKind.TOPIC, summary, None, path, says))
    return found


def _owner(path: str, owners: dict[str, str]) -> str | None:
    """The package of a file or, where no package brought a link, of what it leads to."""
    for spelled in (dpkg.spellings(path), dpkg.spellings(os.path.realpath(path))):
        for one in spelled:
            if one in owners:
                return owners[one]
    return None


def _take_info(writer: IndexWriter, settings: Settings) -> None:
    """The nodes that names lead to: by the directory entries, the titles of nodes, and the
    indices.
    """
    from dowsing.readers.info.info_file import read_directory

    writer.forget_info()
    for folder in info_folders(settings):
        try:
            files = info_files(folder)
        except OSError as error:
            says = (error.strerror or "it cannot be read").lower()
            writer.insert_trouble(PlaceKind.INFO, folder, "", says)
            continue
        listed = read_directory(folder)
        for path in files:
            _take_info_file(writer, folder, path, listed)


def _take_info_file(writer: IndexWriter, folder: str, path: str, listed: list[DirEntry]) -> None:
    """`listed`: the entries of the folder's directory file."""
    from dowsing.readers.info.info_file import read_info_file
    from dowsing.readers.info.node_names import names_of

    try:
        info = read_info_file(path)
    except Unreadable as error:
        writer.insert_trouble(PlaceKind.INFO, path, folder, f"as an Info file: {error}")
        return
    manual = as_text(bare_name(os.path.basename(path)))
    writer.insert_info_names(path, manual, names_of(info, manual, listed))
