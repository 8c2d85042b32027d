"""Options read from manual pages, against lists made by hand: precision, recall and F1 of flags and
of arguments.

    python bench/options.py FILE.jsonl [--misses]
    python bench/options.py --machine [--misses]

A line of the file is a page: `page`, `origin`, `options` (each with `flags` and `arg`). Flags count
once a page. An argument counts for every spelling that it stands with; entries marked doubtful
count in neither, and where a list covers part of a page (`partial`, `scope`) what it lacks is not
held against the reading. `--machine` counts, over all commands of the machine's sections 1 and 8,
those with an option table, and the synopses that are read whole.
"""

from __future__ import annotations

import argparse
import json
import re

from dowsing.ingest.upkeep import open_index
from dowsing.machine.settings import read_settings
from dowsing.model.document import Document
from dowsing.model.names import Name
from dowsing.sources import page_files

Pairs = set[tuple[str, str]]


def same(argument: str) -> str:
    """An argument without case, blanks and brackets."""
    return re.sub(r"[\s<>\[\]]", "", argument).lower()


def gold_of(page: dict) -> tuple[set[str], Pairs, set[str], set[str]]:  # type: ignore[type-arg]
    """The flags, the pairs of flag and argument, and the flags and those of them that do not
    count.
    """
    flags: set[str] = set()
    pairs: Pairs = set()
    loose: set[str] = set()
    doubtful: set[str] = set()
    for option in page["options"]:
        if "doubtful" in option:
            doubtful.update(option["flags"])
            if "arg" not in option["doubtful"].split(":")[0]:
                loose.update(option["flags"])
                continue
        flags.update(option["flags"])
        loose.update(option.get("stacked_with", ()))
        if "doubtful" not in option and option["arg"] is not None:
            pairs |= {(flag, same(option["arg"])) for flag in option.get("arg_of", option["flags"])}
    return flags, pairs, loose - flags, doubtful


def read_of(document: Document) -> tuple[set[str], Pairs]:
    """The flags of a document, and the pairs of flag and argument."""
    flags: set[str] = set()
    pairs: Pairs = set()
    for option in document.options:
        flags.update(option.flags)
        if option.argument is not None:
            pairs |= {
                (flag, same(option.argument)) for flag in option.flags if flag not in option.bare
            }
    return flags, pairs


class Tally:
    """Hits, false ones and misses."""

    def __init__(self) -> None:
        self.hits = self.false = self.missed = 0

    def add(self, hits: int, false: int, missed: int) -> None:
        """Add those of a page."""
        self.hits += hits
        self.false += false
        self.missed += missed

    def __str__(self) -> str:
        precision = self.hits / max(1, self.hits + self.false)
        recall = self.hits / max(1, self.hits + self.missed)
        f1 = 2 * precision * recall / max(1e-9, precision + recall)
        return f"{precision:.4f}  {recall:.4f}  {f1:.4f}"


def machine(misses: bool) -> None:
    """The share of commands with an option table, and of synopses read whole; the others by
    reason.
    """
    from dowsing.facts.command_table import unpack

    store = open_index(read_settings())[0]
    rows = store.rows(
        "SELECT e.name, e.section, e.kind, o.command FROM entries e LEFT JOIN options o ON "
        "o.entry=e.id WHERE substr(e.section,1,1) IN ('1','8') AND NOT e.hidden"
    )
    kept = commands = tables = synopses = whole = 0
    reasons: dict[str, list[str]] = {}
    for name, section, _, packed in rows:
        if not packed:
            continue
        kept += 1
        table = unpack(packed)
        commands += 1
        tables += bool(table.options)
        if not table.lines:
            continue
        synopses += 1
        problems = [form.problem for form in table.forms if form.problem]
        whole += not problems
        for problem in problems[:1]:
            reasons.setdefault(problem, []).append(f"{name}({section})")
    print(f"{commands} commands, {tables} with an option table ({tables / commands:.4f})")
    print(f"{synopses} with a synopsis, {whole} read whole ({whole / synopses:.4f}); the others:")
    for problem, names in sorted(reasons.items(), key=lambda pair: -len(pair[1])):
        print(f"  {len(names):>3}  {problem}" + (f": {', '.join(names)}" if misses else ""))


def main() -> int:
    """Print a line for each page, each origin and all."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("file", nargs="?")
    parser.add_argument(
        "--machine", action="store_true", help="count over all commands of the machine"
    )
    parser.add_argument(
        "--misses", action="store_true", help="print what was missed and what was false"
    )
    asked = parser.parse_args()
    if asked.machine:
        machine(asked.misses)
    if not asked.file:
        return 0
    store = open_index(read_settings())[0]
    flag_tallies: dict[str, Tally] = {}
    argument_tallies: dict[str, Tally] = {}
    print(f"{'':28}flags: precision, recall, F1    arguments: precision, recall, F1")
    with open(asked.file, encoding="utf-8") as file:
        pages = [json.loads(line) for line in file if line.strip()]
    for page in pages:
        name, _, section = page["page"].rstrip(")").partition("(")
        found = store.named(Name(name).text, section)
        if not found:
            print(f"{page['page']:28}is not on this machine")
            continue
        document = page_files.read_page_file(found[0].path, found[0].name, found[0].section)
        flags, pairs, loose, doubtful = gold_of(page)
        ours, our_pairs = read_of(document)
        ours -= loose
        if page.get("partial") or page.get("scope"):
            ours &= flags
        our_pairs = {pair for pair in our_pairs if pair[0] in flags and pair[0] not in doubtful}
        # where one spelling is told without an argument beside one with it, either reading is right
        pairs = {pair for pair in pairs if pair[0] not in doubtful}
        result = (
            (flag_tallies, (len(ours & flags), len(ours - flags), len(flags - ours))),
            (
                argument_tallies,
                (len(our_pairs & pairs), len(our_pairs - pairs), len(pairs - our_pairs)),
            ),
        )
        own = []
        for tallies, counts in result:
            one = Tally()
            one.add(*counts)
            own.append(one)
            for key in (page["origin"], "all"):
                tallies.setdefault(key, Tally()).add(*counts)
        print(f"{page['page']:28}{own[0]}          {own[1]}")
        if asked.misses:
            for label, extra in (("false", ours - flags), ("missed", flags - ours)):
                print(
                    f"    {label}: {' '.join(sorted(extra))}" if extra else "",
                    end="\n" if extra else "",
                )
            for label, extra_pairs in (("false", our_pairs - pairs), ("missed", pairs - our_pairs)):
                for flag, argument in sorted(extra_pairs):
                    print(f"    {label} argument: {flag} {argument}")
    for key in sorted(flag_tallies, key=lambda key: (key == "all", key)):
        print(f"{key:28}{flag_tallies[key]}          {argument_tallies[key]}")
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
