"""`options`: the option table of a name, or the options that a spelling or words are about."""

from __future__ import annotations

import argparse

from dowsing.commandline.model.option_rows import option_table, options_in
from dowsing.facts.command_table import CommandTable, unpack
from dowsing.index.command_rows import command_table
from dowsing.model.entry import Entry
from dowsing.model.errors import Failure
from dowsing.model.source_name import SourceName
from dowsing.render.typed import typed
from dowsing.search.lookup import Lookup
from dowsing.session.naming import find_entry, named, open_found, subject_of
from dowsing.session.session import Session

DESCRIPTION = (
    "The options of a name: all, those of a spelling, or those whose texts have the words."
)
OTHERS_ARE_WORDS = True


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument(
        "words",
        nargs="*",
        metavar="NAME [FLAG or WORD]",
        help="tar, tar -C, tar compress, git commit --amend",
    )


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    found, asked = named_first(session, options.words)
    assert found.entry is not None
    entry, label = found.entry, found.entry.label
    kept = kept_table(session, entry) if not asked and not session.json else None
    if kept is not None:  # a line each is all that is shown: the index has that
        table = option_table(kept.name, entry.section, kept.label, kept.options, [])
    else:
        document = open_found(session, found)
        executables = subject_of(session, found, ask=False).executables
        program = executables[0] if executables else ""
        table = option_table(
            document.name, document.section, document.label, options_in(document), asked, program
        )
    if not table.options and asked and table.total:
        from dowsing.commandline.judging.value_checks import nearest_flags

        flags = [flag for option in options_in(document) for flag in option.flags]
        near = nearest_flags(asked[0], flags) if asked[0].startswith("-") else []
        hint = (
            "nearest"
            if near
            else f"all of them: {session.program} options {typed(found.entry.name)}"
        )
        about = f"option for “{' '.join(asked)[:60]}”"
        if document.source == SourceName.USAGE:  # which seldom lists all that there is
            raise Failure(f"{document.label} lists no {about}; {hint}", nearest=near)
        raise Failure(f"{label} has no {about}; {hint}", nearest=near)
    if not table.total:
        raise Failure(
            f"the text of {label} lists no options; its forms: {session.program} syntax "
            f"{typed(found.entry.name)}; "
            f"other texts: {session.program} sources {typed(found.entry.name)}"
        )
    if session.json:
        session.print_json(table)
    else:
        from dowsing.render.option_tables import table_of_options

        lines = table_of_options(
            table, label, asked, session.screen.width, session.program, found.entry
        )
        session.screen.show(lines, paged=True)
    return 0


def kept_table(session: Session, entry: Entry) -> CommandTable | None:
    """The table of an entry's page that the index keeps; None if it keeps none, or a translation is
    wanted.
    """
    if entry.section in ("", "builtin") or session.settings.language not in ("", "en"):
        return None
    data = command_table(session.store, entry.path)
    return unpack(data) if data else None


def named_first(session: Session, words: list[str]) -> tuple[Lookup, list[str]]:
    """The entry that the first words name, as many as belong to it, and the words after them.
    Raises Failure.
    """
    plain = 0
    while plain < len(words) and not (words[plain].startswith("-") and len(words[plain]) > 1):
        plain += 1
    for count in range(min(plain, 6), 1, -1):
        found = named(session, words[:count])
        if found.entry is not None:
            return found, words[count:]
    return find_entry(session, words[:1]), words[1:]
