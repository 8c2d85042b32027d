"""What one documentation of a name says and another does not: options and their arguments, facts,
wording.

Only texts of the same thing are compared with each other: those of the shell's builtin, and those
of the program of that name; a text that is the same as another is left out.
"""

from __future__ import annotations

import re

from dowsing.comparing.source_table import Compared
from dowsing.model.document import Document, Option, block_texts
from dowsing.model.markup import plain
from dowsing.model.record import Record
from dowsing.model.source_name import SourceName

OF_SHELL = ("builtin", "shell-manual", "builtin-usage")
OF_PROGRAM = ("manual", "usage", "info", "standard")

_NAME = r"([A-Z][A-Z0-9_]+)"
#: A name in capitals is a variable where it is written or spoken of as one.
_VARIABLE = re.compile(
    rf"\$\{{?{_NAME}\b|\b{_NAME} (?:shell |environment )?variable|\bvariables? {_NAME}\b"
)
_LISTED = re.compile(rf"(?:^|\n){_NAME}\b")
_FILE = re.compile(
    r"(?<![\w/.:~-])(~?/(?:etc|usr|var|dev|proc|sys|run|boot|lib|opt)(?:/[\w.@+-]+)+|~/\.[\w./-]+)"
)
_STATUS = re.compile(r"(?:^|\n)\s*(\d{1,3})\b")


class Difference(Record):
    """Something that some texts say and others do not.

    `what` is `option`, `argument`, `default`, `variable`, `file` or `exit status`; `item` which
    one; `said_by` and `not_said_by` are sources; `where` the titles of the sections that say it, by
    source; `says` the wording of the first.
    """

    what: str
    item: str
    said_by: list[str]
    not_said_by: list[str]
    where: dict[str, str]
    says: str = ""


class Wording(Record):
    """What two texts say of one thing; "" where one says nothing."""

    item: str
    one: str
    other: str


def differences(compared: Compared, sources: tuple[str, ...] = ()) -> list[Difference]:
    """All differences, those of options first. `sources`: only these texts, all with each other."""
    found: list[Difference] = []
    groups = [sources] if sources else [OF_SHELL, OF_PROGRAM]
    same = {row.source for row in compared.rows if row.same_as}
    for group in groups:
        documents: dict[str, Document] = {}
        for source, document in compared.documents:
            if source in group and source not in documents and (sources or source not in same):
                if (
                    source != SourceName.MANUAL
                    or sources
                    or document.section[:1] in ("1", "6", "8")
                ):
                    documents[source] = document
        if len(documents) > 1:
            found += _options(documents)
            if not sources:  # a usage text is short by nature: that it names no file says nothing
                documents = {
                    s: d for s, d in documents.items() if s not in ("usage", "builtin-usage")
                }
            found += _facts(documents)
    return found


def _options(documents: dict[str, Document]) -> list[Difference]:
    """Options by any of their flags: a text that has one spelling has the option."""
    tables = {source: _telling(document) for source, document in documents.items()}
    known = {
        source: {flag for flags, _ in table for flag in flags} for source, table in tables.items()
    }
    seen: set[str] = set()
    missing, arguments = [], []
    for first, table in zip(documents, tables.values(), strict=True):
        own = first == next(iter(documents))
        for flags, option in table:
            # within one text two options may share a spelling; in another text a shared one makes
            # it the same option
            if flags <= seen or (not own and flags & seen):
                seen |= flags
                continue
            seen |= flags
            by_source = {
                s: found
                for s, table in tables.items()
                if (found := _counterpart(flags, table)) is not None
            }
            item = ", ".join(option.flags)
            where = {source: one.section for source, one in by_source.items()}
            absent = [source for source, there in known.items() if there and not there & flags]
            if absent:
                missing.append(
                    Difference("option", item, list(by_source), absent, where, _short(option.text))
                )
            arguments += _arguments(item, by_source, where)
    return missing + arguments


def _telling(document: Document) -> list[tuple[set[str], Option]]:
    """The options with their flags as they are compared; numbers such as `+N`, which texts write in
    many ways, go.
    """
    named = {flag for option in document.options for flag in option.flags}
    return [
        ({normal_flag(flag) for flag in option.flags}, option)
        for option in document.options
        if not (set(option.flags) <= {"+n", "+N"} or (option.flags == ["-N"] and "+N" in named))
    ]


def _counterpart(flags: set[str], table: list[tuple[set[str], Option]]) -> Option | None:
    """The option that has most of the flags in common and fewest others."""
    sharing = [
        (len(flags & theirs), -len(theirs), -n)
        for n, (theirs, _) in enumerate(table)
        if flags & theirs
    ]
    return table[-max(sharing)[2]][1] if sharing else None


def _arguments(item: str, by_source: dict[str, Option], where: dict[str, str]) -> list[Difference]:
    """Whether all texts give the option an argument, and the same default."""
    found = []
    taking = {source: option for source, option in by_source.items() if option.argument}
    # a form's cluster of letters says nothing of their arguments
    bare = [source for source, option in by_source.items() if not option.argument and option.text]
    if taking and bare:
        said = next(iter(taking.values()))
        found.append(
            Difference(
                "argument", f"{item} {said.argument}", list(taking), bare, where, _short(said.text)
            )
        )
    defaults = {source: option.default for source, option in by_source.items() if option.default}
    if len({value.casefold() for value in defaults.values()}) > 1:
        listed = ", ".join(f"{value} ({source})" for source, value in defaults.items())
        found.append(Difference("default", f"{item}: {listed}", list(defaults), [], where))
    return found


def normal_flag(flag: str) -> str:
    """A flag as it is compared: without a value's mark at its end."""
    return flag.rstrip("=").split("=")[0].rstrip("[")


def _short(text: str) -> str:
    return " ".join(text.split())[:200]


def _facts(documents: dict[str, Document]) -> list[Difference]:
    """Variables, files and exit statuses that some texts speak of."""
    found: list[Difference] = []
    for what, reader in (("variable", _variables), ("file", _files), ("exit status", _statuses)):
        items: dict[str, dict[str, str]] = {}
        for source, document in documents.items():
            for item, title in reader(document).items():
                items.setdefault(item, {}).setdefault(source, title)
        speaking = {source for by_source in items.values() for source in by_source}
        for item, where in items.items():
            # a text that speaks of no exit status at all leaves them all out: that is said once by
            # its absence
            absent = [
                s for s in documents if s not in where and (what != "exit status" or s in speaking)
            ]
            if absent:
                found.append(Difference(what, item, list(where), absent, where))
    return found


def _section_texts(document: Document) -> list[tuple[str, str]]:
    texts = []
    for section in document.sections:
        parts: list[str] = []
        block_texts(section.blocks, parts)
        texts.append((section.title, plain("\n".join(parts))))
    return texts


def _variables(document: Document) -> dict[str, str]:
    found: dict[str, str] = {}
    for title, text in _section_texts(document):
        names = [name for groups in _VARIABLE.findall(text) for name in groups if name]
        if "ENVIRONMENT" in title.upper():
            names += _LISTED.findall(text)
        for name in names:
            if len(name) > 1:
                found.setdefault(name, title)
    return found


def _files(document: Document) -> dict[str, str]:
    return {
        name.rstrip("."): title
        for title, text in reversed(_section_texts(document))
        for name in _FILE.findall(text)
    }


def _statuses(document: Document) -> dict[str, str]:
    """Numbers that sections on the exit status begin their lines with."""
    found = {}
    for title, text in _section_texts(document):
        if re.search(r"exit (?:status|code|value)|return (?:value|code)", title, re.IGNORECASE):
            found.update(dict.fromkeys(_STATUS.findall(text), title))
    return found


def wordings(one: Document, other: Document) -> list[Wording]:
    """What two texts say of the name and of each option that either has, where that differs."""
    found = []
    if one.summary or other.summary:
        found.append(Wording("summary", one.summary, other.summary))
    forms = ("\n".join(one.synopsis), "\n".join(other.synopsis))
    if any(forms):
        found.append(Wording("forms", *forms))
    left = list(other.options)
    for option in one.options:
        flags = {normal_flag(flag) for flag in option.flags}
        match = next((o for o in left if flags & {normal_flag(flag) for flag in o.flags}), None)
        if match is not None:
            left.remove(match)
        labels = option.flags + [
            flag for flag in (match.flags if match else []) if flag not in option.flags
        ]
        found.append(Wording(", ".join(labels), _said(option), _said(match)))
    found += [Wording(", ".join(option.flags), "", _said(option)) for option in left]
    return [wording for wording in found if _plain(wording.one) != _plain(wording.other)]


def _said(option: Option | None) -> str:
    """What is said of an option; one that only a form names is there without a word."""
    if option is None:
        return ""
    return option.text or "(only in the form)"


def _plain(text: str) -> str:
    return " ".join(re.findall(r"\w+", text.casefold()))
