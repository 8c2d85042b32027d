"""What one text of a name says and another does not, and where two contradict each other.

Texts of one thing are compared with each other; then the builtin with the program of that name, and
with what another package has under it. Something is called missing only where the whole of a text
does not have it: in its list of options, in passing, or in another part of the manual that it is
cut from.
"""

from __future__ import annotations

import re
from enum import StrEnum

from dowsing.comparing import items
from dowsing.comparing.meanings import contradicting, default_values, gives_value, may_take_value
from dowsing.comparing.said import Said, is_cluster, is_number, plain_flag
from dowsing.comparing.things import Text, Thing, ThingKind, Things
from dowsing.model.document import Document, Option
from dowsing.model.record import Record
from dowsing.model.source_name import SourceName

USAGES = (SourceName.USAGE, SourceName.BUILTIN_USAGE)
#: Flags that nearly every program has: told only where they are asked for.
GENERAL = frozenset(("--help", "--version", "--usage", "-?", "-help", "-version"))
#: Parts of a shell's page that list what is no option of the shell.
_OF_OTHERS = re.compile(
    r"built-?ins?\b.*commands|conditional expr|arithmetic|readline|key ?bindings?|history exp",
    re.IGNORECASE,
)
_FORMERLY = re.compile(
    r"(?:(?:original|old|former|previous) name of (?:this|the) option (?:is|was)|renamed from"
    r"|(?:formerly|previously|once) (?:known as|called|named))[ `‘'“\"]+(--?[\w-]+)",
    re.IGNORECASE,
)
MOST_SAID = 160
LETTER_SIZE = len("-x")
LEAST_ESCAPES = 2  # so many of a kind make an explanation of it


class DifferenceKind(StrEnum):
    """What a difference is of; in the order in which they are told."""

    MEANING = "meaning"  # one flag, two meanings
    DEFAULT = "default"
    ARGUMENT = "argument"
    OPTION = "option"
    SPELLING = "spelling"  # another way to write an option that both have
    ESCAPE = "escape"
    VARIABLE = "variable"
    SETTING = "setting"
    FILE = "file"
    EXIT_STATUS = "exit status"


class Difference(Record):
    """Something that some texts say and others do not, or say otherwise.

    `item` is what it is about; `said_by` and `not_said_by` are sources; `where` the titles of the
    sections that say it, by source; `says` the wording of the first. `in_prose`: texts that say it
    in passing only, with the section; `elsewhere`: those that say it in another part of the manual,
    with the part. `otherwise` is what each text says, by source, of a contradiction. `between`: ""
    for texts of one thing, else the kind of the thing that has it not.
    """

    what: DifferenceKind
    item: str
    said_by: list[str]
    not_said_by: list[str]
    where: dict[str, str]
    says: str = ""
    in_prose: dict[str, str] = {}  # noqa: RUF012 - a record is immutable
    elsewhere: dict[str, str] = {}  # noqa: RUF012
    otherwise: dict[str, str] = {}  # noqa: RUF012
    between: str = ""


class Listed:
    """An option of a text, with its flags as they are compared."""

    __slots__ = ("flags", "option")

    def __init__(self, flags: list[str], option: Option) -> None:
        self.flags = flags
        self.option = option


class Table:
    """The options that a text lists."""

    def __init__(self, text: Text, general: bool) -> None:
        self.text = text
        self.rows = list(_rows(text.document, general))
        self.flags = frozenset(flag for row in self.rows for flag in row.flags)

    def counterpart(self, flags: list[str]) -> Listed | None:
        """The option that has most of the flags in common and fewest others."""
        wanted = set(flags)
        sharing = [
            (len(wanted & set(row.flags)), -len(row.flags), -n)
            for n, row in enumerate(self.rows)
            if wanted & set(row.flags)
        ]
        return self.rows[-max(sharing)[2]] if sharing else None


def differences(found: Things, *, general: bool = False, facts: bool = True) -> list[Difference]:
    """All differences, contradictions first. `general`: also of `--help` and `--version`; without
    `facts` only those of options.
    """
    told: list[Difference] = []
    for thing in found.things:
        told += within(thing, general=general, facts=facts)
    order = list(DifferenceKind)
    told.sort(key=lambda one: order.index(one.what))
    for other in found.things:
        if facts and other.kind == ThingKind.PROGRAM:
            for thing in found.things:
                if thing.kind in (ThingKind.BUILTIN, ThingKind.OTHER_PACKAGE):
                    told += between(thing, other)
    return told


def within(thing: Thing, *, general: bool = False, facts: bool = True) -> list[Difference]:
    """The differences of texts about one thing."""
    tables = [Table(text, general) for text in thing.texts]
    if len(tables) < 2:
        return []
    every = frozenset(flag for table in tables for flag in table.flags)
    clusters = {flag for flag in every if is_cluster(flag, every)}
    named = every - clusters
    told: list[Difference] = []
    done: set[str] = set(clusters)
    for table in tables:
        first = table is tables[0]
        for row in table.rows:
            new = [flag for flag in row.flags if flag not in done]
            if not new:
                continue
            same = {
                one.text.source: listed
                for one in tables
                if (listed := one.counterpart(row.flags)) is not None
            }
            told += _of_option(row, new, table.text, tables, same, named)
            if first or len(new) == len(row.flags):
                told += _contradictions(row, same, thing)
            done.update(row.flags)
    return told + _facts(thing) if facts else told


def _rows(document: Document, general: bool) -> list[Listed]:
    """The options of a text. Numbers such as `+N`, which texts write in many ways, go."""
    counted = {"+n", "+N"} & {flag for option in document.options for flag in option.flags}
    rows = []
    for option in document.options:
        if document.source == SourceName.MANUAL and _OF_OTHERS.search(option.section):
            continue
        flags = list(dict.fromkeys(plain_flag(flag) for flag in [*option.flags, *_former(option)]))
        flags = [flag for flag in flags if not is_number(flag) or (flag in "-n-N" and not counted)]
        if not flags or (not general and GENERAL & set(flags)):
            continue
        rows.append(Listed(flags, option))
    return rows


def _former(option: Option) -> list[str]:
    """Spellings that the text of an option says it had before: they are taken still."""
    return [flag.rstrip(".,;") for flag in _FORMERLY.findall(option.text)]


def _of_option(
    row: Listed,
    new: list[str],
    own: Text,
    tables: list[Table],
    same: dict[str, Listed],
    named: frozenset[str],
) -> list[Difference]:
    """Texts that do not have an option, or not all its spellings. `new`: those that were not told
    of yet; `same`: the option in each text that lists it; `named`: the flags of all texts.
    """
    flags = frozenset(row.flags).union(*(listed.flags for listed in same.values()))
    said = [flag for flag in new if own.said.has_exactly(flag)]
    if not said:
        return []
    missing: list[str] = []
    in_prose: dict[str, str] = {}
    elsewhere: dict[str, str] = {}
    unlisted: dict[str, list[str]] = {}
    for table in tables:
        source = table.text.source
        if table.flags & flags:
            lacking = [flag for flag in said if _missing(table.text, flag, named)]
            if lacking and len(lacking) < len(flags):
                unlisted.setdefault(", ".join(lacking), []).append(source)
        elif any(table.text.said.has_flag(flag, named) for flag in flags):
            in_prose[source] = _section_with(table.text, flags)
        elif place := _other_place(table.text, flags):
            elsewhere[source] = place
        elif all(_missing(table.text, flag, named) for flag in flags):
            missing.append(source)
    where = {source: listed.option.section for source, listed in same.items()}
    told: list[Difference] = []
    whole = len(new) == len(row.flags)
    if whole and (missing or in_prose or elsewhere):
        told.append(
            Difference(
                DifferenceKind.OPTION,
                ", ".join(said),
                list(same),
                missing,
                where,
                short(row.option.text),
                in_prose,
                elsewhere,
            )
        )
    for spelled, sources in unlisted.items():
        having = [t.text.source for t in tables if t.text.said.has_exactly(spelled.split(", ")[0])]
        told.append(
            Difference(
                DifferenceKind.SPELLING,
                spelled,
                having,
                sources,
                {source: title for source, title in where.items() if source in having},
                short(row.option.text),
            )
        )
    return told


def _missing(text: Text, flag: str, named: frozenset[str]) -> bool:
    """Whether the flag stands nowhere: not in the text, nor in the rest of its manual."""
    if text.said.has_flag(flag, named):
        return False
    return not any(part.said.has_flag(flag, named) for part in text.parts)


def _other_place(text: Text, flags: frozenset[str]) -> str:
    """The part of the manual besides the text that tells of the option, "" if none surely does.

    A letter in a part about another command is that command's.
    """
    for part in text.parts:
        for flag in flags:
            if (flag.startswith("--") or not part.own) and part.said.has_exactly(flag):
                return part.title
    return ""


def _section_with(text: Text, flags: frozenset[str]) -> str:
    """The title of the first section that has one of the flags."""
    for title, words in items.section_texts(text.document):
        if any(Said(words).has_flag(flag) for flag in flags):
            return title
    return ""


def _contradictions(row: Listed, same: dict[str, Listed], thing: Thing) -> list[Difference]:
    """Whether all texts mean the same by an option, give it an argument, and the same default."""
    options = {source: listed.option for source, listed in same.items()}
    where = {source: option.section for source, option in options.items()}
    item = ", ".join(row.flags)
    told: list[Difference] = []
    if opposed := contradicting(options):
        said = {source: short(options[source].text) for source in opposed}
        told.append(Difference(DifferenceKind.MEANING, item, list(said), [], where, otherwise=said))
        return told
    if values := default_values(options):
        told.append(
            Difference(DifferenceKind.DEFAULT, item, list(values), [], where, otherwise=values)
        )
    return told + _arguments(item, options, where, thing)


def _arguments(
    item: str, options: dict[str, Option], where: dict[str, str], thing: Thing
) -> list[Difference]:
    """Whether one text gives the option an argument that another one never writes, by a spelling
    that both have.
    """
    spelled = {
        source: {plain_flag(flag) for flag in option.flags} for source, option in options.items()
    }
    giving = {
        source: {flag for flag in spelled[source] if gives_value(option, flag)}
        for source, option in options.items()
        if option.argument
    }
    if not giving:
        return []
    words = {text.source: text.said.text for text in thing.texts}
    bare = [
        source
        for source, option in options.items()
        if not option.argument
        and option.text
        and not any(may_take_value(words[source], flag) for flag in spelled[source])
    ]
    taking = [
        source for source, flags in giving.items() if any(flags & spelled[other] for other in bare)
    ]
    if not taking:
        return []  # nor is there one that takes none
    first = options[taking[0]]
    argument = f"{item} {first.argument}"
    return [Difference(DifferenceKind.ARGUMENT, argument, taking, bare, where, short(first.text))]


_READERS = {
    DifferenceKind.ESCAPE: items.escapes,
    DifferenceKind.VARIABLE: items.variables,
    DifferenceKind.SETTING: items.settings,
    DifferenceKind.FILE: items.files,
    DifferenceKind.EXIT_STATUS: items.statuses,
}
#: By leaving these out a usage text says nothing, a builtin's help may.
_NOT_OF_USAGE = (DifferenceKind.FILE, DifferenceKind.EXIT_STATUS, DifferenceKind.ESCAPE)


def _facts(thing: Thing) -> list[Difference]:
    """Variables, files, escapes and exit statuses that some texts speak of and others nowhere."""
    told: list[Difference] = []
    for what, reader in _READERS.items():
        texts = [t for t in thing.texts if what not in _NOT_OF_USAGE or t.source not in USAGES]
        if what == DifferenceKind.SETTING and thing.kind == ThingKind.PROGRAM:
            continue
        found = _by_item(texts, reader)
        speaking = {source for where in found.values() for source in where}
        for item, where in found.items():
            missing: list[str] = []
            elsewhere: dict[str, str] = {}
            for text in texts:
                if text.source in where or has_item(text, what, item):
                    continue
                if what == DifferenceKind.EXIT_STATUS and text.source not in speaking:
                    continue
                place = next((p.title for p in text.parts if p.said.has_name(item)), "")
                if place and what != DifferenceKind.ESCAPE:
                    elsewhere[text.source] = place
                elif not place:
                    missing.append(text.source)
            if missing or elsewhere:
                told.append(
                    Difference(what, item, list(where), missing, where, elsewhere=elsewhere)
                )
    return told


def _by_item(texts: list[Text], reader) -> dict[str, dict[str, str]]:  # type: ignore[no-untyped-def]
    found: dict[str, dict[str, str]] = {}
    for text in texts:
        for item, title in reader(text.document).items():
            found.setdefault(item, {}).setdefault(text.source, title)
    return found


def has_item(text: Text, what: DifferenceKind, item: str) -> bool:
    """Whether the text has a fact anywhere."""
    if what == DifferenceKind.EXIT_STATUS:
        return text.said.has_number(item)
    if what == DifferenceKind.ESCAPE:
        return item[:2] in text.said.text  # `\\u` of `\\uHHHH`, `%(` of `%(fmt)T`
    return text.said.has_name(item)


def between(one: Thing, other: Thing) -> list[Difference]:
    """What a builtin (or another package's program) has that the program of that name has not, and
    the other way round: no text of the other may say it anywhere.
    """
    return [*_only_in(one, other), *_only_in(other, one)]


def _only_in(one: Thing, other: Thing) -> list[Difference]:
    told: list[Difference] = []
    named = frozenset(flag for text in other.texts for flag in Table(text, True).flags)
    done: set[str] = set()
    for text in one.texts:
        for row in Table(text, True).rows:
            if len(row.flags[0]) > LETTER_SIZE and row.flags[0][1] != "-" and not row.option.text:
                continue  # a placeholder of a form: `kill -sigspec`
            flags = [f for f in row.flags if f not in done and text.said.has_exactly(f)]
            done.update(row.flags)
            absent = [f for f in flags if not _has_anywhere(other, f, named)]
            if absent:
                whole = len(absent) == len(row.flags)
                what = DifferenceKind.OPTION if whole else DifferenceKind.SPELLING
                having = [t for t in one.texts if t.said.has_flag(absent[0])]
                told.append(_told(what, absent, having, other, row.option))
    return told + _other_escapes(one, other)


def _other_escapes(one: Thing, other: Thing) -> list[Difference]:
    """Escapes of a kind (`\\x`, `%x`) that both things explain, and only one has."""
    theirs = _by_item(other.texts, items.escapes)
    told: list[Difference] = []
    for item, where in _by_item(one.texts, items.escapes).items():
        alike = [escape for escape in theirs if escape[0] == item[0]]
        if len(alike) < LEAST_ESCAPES:
            continue
        if not any(has_item(text, DifferenceKind.ESCAPE, item) for text in other.texts):
            having = [text for text in one.texts if text.source in where]
            told.append(_told(DifferenceKind.ESCAPE, [item], having, other, None))
    return told


def _told(
    what: DifferenceKind,
    spelled: list[str],
    having: list[Text],
    other: Thing,
    option: Option | None,
) -> Difference:
    where = {text.source: option.section if option else "" for text in having[:1]}
    return Difference(
        what,
        ", ".join(spelled),
        [text.source for text in having],
        [text.source for text in other.texts],
        where,
        short(option.text) if option else "",
        between=other.kind,
    )


def _has_anywhere(thing: Thing, flag: str, named: frozenset[str]) -> bool:
    """Whether a text about the thing has the flag, or a general part of its manual: what stands in
    a part about another command is that command's, and a letter in a general part may be
    anything's.
    """
    for text in thing.texts:
        if text.said.has_flag(flag, named):
            return True
        if flag.startswith("--") and text.source == SourceName.INFO:
            if any(part.said.has_exactly(flag) for part in text.parts if not part.own):
                return True
    return flag == "--help" and thing.kind == ThingKind.BUILTIN and thing.asked


def short(text: str) -> str:
    """The beginning of what is said, whole words."""
    said = " ".join(text.split())
    if len(said) <= MOST_SAID:
        return said
    return said[:MOST_SAID].rsplit(" ", 1)[0].rstrip(",;:") + " …"
