"""Our facts of commands against the pages of this machine.

    python bench/facts.py [--flags FILE]

Prints each flag that the facts name and no page of its command has, and each fact that a page
contradicts: a value where the page shows none, or none where it shows one, and words that the page
lists and the facts do not. Commands without a page here are counted, not judged. `--flags` brings
the file of flags that pages have up to date (tests/knowledge/flags.tsv): it keeps what other
machines have found, so run it wherever there are other pages.
"""

from __future__ import annotations

import argparse
import json
import os

from dowsing.commandline.model.command import Command
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.ingest.upkeep import open_index
from dowsing.knowledge.command_facts import facts_of
from dowsing.knowledge.conventions import facts_by_words
from dowsing.machine.settings import read_settings
from dowsing.model.document import Option
from dowsing.model.source_name import SourceName
from dowsing.model.values import Value

#: Texts that tell of all options.
_WHOLE = (SourceName.MANUAL, SourceName.BUILTIN)


def found(finder: CommandFinder, words: str) -> Command | None:
    """What is known of a command by its words; None if no page tells of it."""
    first, *rest = words.split(" ")
    known: Command | None = finder.command(first)
    for word in rest:
        above = known
        known = finder.subcommand(above, word) or above.listed(word) if above else None
    above_all = known
    while above_all is not None and not above_all.tables:
        above_all = above_all.parent
    if above_all is None or above_all.tables[0].source not in _WHOLE:
        return None
    return known


def page_options(known: Command) -> dict[str, Option]:
    """The options of all pages of a command, and of those above it, as they stand there."""
    options: dict[str, Option] = {}
    one: Command | None = known
    while one is not None:
        for table in [*one.tables, *one.deferred]:
            for option in table.options:
                for flag in option.flags:
                    options.setdefault(flag, option)
        one = one.parent
    return options


def contradiction(flag: str, value: Value | None, option: Option) -> str:
    """What a page says against a fact, "" if nothing."""
    if value is None and option.argument:
        return f"takes {option.argument} there, none here"
    if value is not None and option.argument is None:
        return "takes nothing there"
    missing = [
        one for one in option.values or () if value and value.closed and one not in value.choices
    ]
    return f"has {', '.join(missing)} too" if missing else ""


def read_flags(path: str) -> set[tuple[str, str]]:
    """The flags that were found before: command and spelling."""
    if not os.path.exists(path):
        return set()
    with open(path, encoding="utf-8") as file:
        rows = [line.rstrip("\n").split("\t") for line in file]
    return {(row[0], flag) for row in rows for flag in row[1].split(" ")}


def write_flags(path: str, flags: set[tuple[str, str]]) -> None:
    """The flags, a command a line."""
    with open(path, "w", encoding="utf-8") as file:
        for words in sorted({words for words, _ in flags}):
            file.write(
                f"{words}\t{' '.join(sorted(one for name, one in flags if name == words))}\n"
            )


def main() -> int:
    """Compare, print, and write the flags."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("--flags", metavar="FILE", help="the file of flags to bring up to date")
    options = parser.parse_args()
    settings = read_settings()
    finder = CommandFinder(open_index(settings)[0], settings)
    seen: set[tuple[str, str]] = set()
    unknown = without = against = 0
    for words, row in facts_by_words().items():
        facts = facts_of(json.loads(row))
        known = found(finder, words)
        if known is None:
            without += 1
            continue
        table = page_options(known)
        for flag in sorted(facts.flags):
            if flag in table:
                seen.add((words, flag))
            else:
                unknown += 1
                print(f"{words}: no page has {flag}")
        for one in facts.options:
            for flag in one.flags:
                says = contradiction(flag, one.value, table[flag]) if flag in table else ""
                if says:
                    against += 1
                    print(f"{words}: {flag} {says}")
    if options.flags:
        write_flags(options.flags, read_flags(options.flags) | seen)
    print(
        f"{unknown} flags unknown, {against} facts contradicted, {without} commands without a page"
    )
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
