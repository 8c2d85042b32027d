"""Conditions on files as they are said (`older than a month`, `bigger than 2 GB`, `pictures`), as
tests of find.

The tests are those of find(1): -mtime and -mmin, -size, -type, -name, -user, -perm, -empty, -path,
-maxdepth.
"""

from __future__ import annotations

import re

from dowsing.knowledge.units import DAY, MINUTE
from dowsing.model.record import Record
from dowsing.tasks.amounts import NUMBER, SIZE_UNIT, UNIT_WORDS, minutes_of, size_of
from dowsing.tasks.filling import quoted
from dowsing.tasks.patterns import Pattern

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.tasks.values import Value

#: What people call kinds of files, and the endings of their names.
_KINDS = {
    r"pictures?|photos?|images?|photographs?": "jpg jpeg png gif",
    r"videos?|movies?|films?|clips?": "mp4 mkv avi mov",
    r"songs?|music|tracks": "mp3 flac ogg m4a",
    r"recordings": "wav mp3 flac ogg",
    r"documents": "pdf odt doc docx",
    r"spreadsheets?": "ods xls xlsx csv",
    r"archives|tarballs": "tar gz tgz xz zip",
    r"(?:shell )?scripts": "sh",
    r"python (?:files|scripts|sources?)": "py",
    r"log ?files": "log",
    r"text ?files": "txt",
    r"c (?:files|sources?)": "c",
    r"markdown (?:files|documents)": "md",
    r"backup files": "bak",
    r"temporary files": "tmp",
}
MINUTES_A_DAY = DAY // MINUTE
DAYS_ARE_ENOUGH = 7  # of a longer age the hours do not matter
_UNITS = ("day", "hour", "week", "month", "year", "minute", "mins", "night", "second", "sec")
_AGO = rf"({NUMBER})\s+({UNIT_WORDS})\b"
_LAST = rf"(?:({NUMBER})\s+)?({UNIT_WORDS})\b"
_NOT_FOR = (
    r"(?:n['’]?t|not|never|nobody|no one|none|untouched|unchanged|unmodified"
    r"|unused)\b[^.;,]{0,45}?\b(?:for|in|since|within|during)"
    r"(?: the)?(?: (?:last|past))?(?: (?:more than|over|at least))?"
)
_OLDER = Pattern(rf"(?:\bolder than|{_NOT_FOR})\s+{_AGO}", *_UNITS)
_AGED = Pattern(
    rf"\b(more than|over|at least|less than|under|up to)\s+{_AGO}(?:\s+old|\s+ago)", *_UNITS
)
_AGO_AND_MORE = Pattern(rf"\b{_AGO}\s+(?:old )?(?:or (?:older|more)|and older)\b", *_UNITS)
_NEWER = Pattern(
    rf"\b(?:(?:newer|younger|less) than\s+{_AGO}|(?:in|within|during|over|from|for)?\s*(?:the\s+"
    rf"|these\s+)?(?:last|past|previous)\s+{_LAST}|within\s+{_AGO})",
    *_UNITS,
)
_TODAY = Pattern(
    r"\b(today|this week|this month|this year|since yesterday|yesterday|recently)\b(?!['’])",
    "today",
    "this ",
    "yesterday",
    "recently",
)
_SINCE = Pattern(r"\b(since|after|newer than|before|older than)\s+(\d{4}-\d\d-\d\d)", "-")
_THAN_FILE = Pattern(r"\bnewer than (?:the )?(?:file )?([\w./-]+\.\w+)", "newer than")
_BIGGER = Pattern(
    r"\b(bigger|larger|greater|more|heavier|over|above|exceed\w*|beyond|at least|smaller|less"
    r"|under|below|up to|at most)"
    rf"(?: than| in size than)?\s+({NUMBER})\s*({SIZE_UNIT})\b",
    *"0123456789",
    "kb",
    "mb",
    "gb",
    "meg",
    "gig",
    "byte",
)
_EMPTY = Pattern(
    r"(?<!is )(?<!is not )(?<!was not )(?<!n't )\bempty\b(?:\s+(?:sub)?(files?|folders?"
    r"|director(?:y|ies)|ones))?|\b(files|folders) with nothing in them",
    "empty",
    "nothing in",
)
_NO_HIDDEN = Pattern(
    r"\b(?:no|not|without|skip\w*|except|ignor\w+|leav\w+ out)(?: for)?(?: the| any)? (?:hidden"
    r"|dot)(?: ?files?| ones?| folders?)?",
    "hidden",
    "dot",
)
_HIDDEN = Pattern(r"\b(?:hidden|dot)[ -]?(?:files?|ones?|folders?)", "hidden", "dot")
_FLAT = Pattern(
    r"\b(?:no|not|without|skip\w*|ignor\w+|leav\w+ out)(?: (?:in|from|the|its|any|into"
    r"|of))* (?:sub-?(?:folders?|director(?:y|ies))|deeper)"
    r"|\b(?:directly in|top[- ]level|only in this (?:folder|directory) itself|do(?:n['’]t"
    r"| not) (?:go|descend|look) (?:down|into|deeper)\b)",
    "sub",
    "deeper",
    "directly",
    "top",
    "itself",
    "down",
)
_OWNER = Pattern(
    r"\b(?:owned by|belong(?:s|ing)? to)(?: the)?(?: (user|group))? ([\w.-]+)", "owned", "belong"
)
_NO_OWNER = Pattern(
    r"\b(?:no (?:valid |known )?owner|owned by nobody|without (?:an )?owner)", "owner", "owned"
)
_WRITABLE = Pattern(
    r"\bworld[- ]writable|\b(?:anybody|anyone|everybody|everyone|all users|others) (?:can|may|could"
    r"|is allowed to) (?:write|change)\w*"
    r"(?: to)?|\bwrit(?:e)?able (?:by|for) (?:anybody|anyone|everybody|everyone|all|others"
    r"|the world)",
    "writ",
    "change",
)
_EXECUTABLE = Pattern(r"\bexecutables?\b", "executable")
_SETUID = Pattern(r"\bset-?uid\b|\bsuid\b", "uid")
_BEGIN = Pattern(
    r"\b(?:start|begin)(?:s|ning|ing)? with (?:the (?:letters?|word|text) )?(['\"]?)([\w.-]+)\1",
    "start",
    "begin",
)
_END = Pattern(r"\b(?:end)(?:s|ing)? (?:with|in) (['\"]?)([\w.~-]+)\1", "end")
_HAVE = Pattern(
    r"\b(?:with|containing|contains?|have|has|having) (?:the (?:word"
    r"|text) )?(['\"]?)([\w.-]+)\1 in (?:the|its|their) (?:file ?)?names?"
    r"|\bnames? (?:contains?|has|have|with|containing) (['\"]?)([\w.-]+)\3",
    "name",
)
_SPACES = Pattern(
    r"\b(?:spaces?|blanks?) in (?:the|its|their) (?:file ?)?names?|\bnames? (?:with"
    r"|contain\w*) (?:spaces?|blanks?)",
    "space",
    "blank",
)
_FOLDERS = Pattern(
    r"\b(?:only|just|all|every|any|empty|no files,?|the|find|list|count|which|what|how many"
    r"|of) (?:the |of the )?(?:sub)?-?(?:folders|directories|dirs)\b",
    "folder",
    "director",
    "dirs",
)
_NO_FOLDERS = Pattern(
    r"\b(?:no|not|without|except|but not|never) (?:the |any )?(?:folders|directories)\b|\b(?:only"
    r"|just) (?:regular )?files\b",
    "folder",
    "director",
    "files",
)
_LINKS = Pattern(r"\b(?:symlinks|symbolic links|soft links)\b", "link")
#: What turns the condition behind it round.
_NEGATED = re.compile(
    r"\b(?:not|never|except|excluding|without|but no)(?: for)?(?: the| any| those)?\s+\Z",
    re.IGNORECASE,
)
_OF_FILES = re.compile(
    r"\s*['’]s (?:\w+ ){0,2}(?:files?|folders?|director\w+|stuff|things|pages)\b"
)


class Condition(Record):
    """A condition: the test that checks it, and where in the sentence it is said (characters)."""

    test: str
    start: int
    end: int


def conditions_in(text: str, values: list[Value]) -> list[Condition]:
    """The conditions on files that a sentence has, those first that find wants first."""
    found: list[Condition] = []

    def add(test: str, start: int, end: int) -> None:
        negated = _NEGATED.search(text[:start])
        if negated is not None and not test.startswith(("-not", "-maxdepth")):
            first, last = ("-daystart ", test[10:]) if test.startswith("-daystart ") else ("", test)
            test, start = f"{first}-not {last}", negated.start()
        if not any(one.start < end and start < one.end for one in found) and all(
            one.test != test for one in found
        ):
            found.append(Condition(test, start, end))

    for match in _FLAT.finditer(text):
        add("-maxdepth 1", *match.span())
    _ages(text, add)
    for match in _BIGGER.finditer(text):
        less = match[1].lower() in ("smaller", "less", "under", "below", "up to", "at most")
        add(f"-size {'-' if less else '+'}{size_of(match[2], match[3])}", *match.span())
    for match in _EMPTY.finditer(text):
        add("-empty", *match.span())
    for match in _NO_HIDDEN.finditer(text):
        add("-not -path '*/.*'", *match.span())
    for match in _HIDDEN.finditer(text):
        add("-name '.*'", *match.span())
    for match in _NO_OWNER.finditer(text):
        add("-nouser", *match.span())
    for match in _OWNER.finditer(text):
        add(f"-{(match[1] or 'user').lower()} {quoted(match[2].rstrip('.'))}", *match.span())
    for value in values:
        if value.unit == "owner" and _OF_FILES.match(text[value.end :]):
            add(f"-user {quoted(value.text)}", value.start, value.end)
    for match in _WRITABLE.finditer(text):
        add("-perm -o+w", *match.span())
    for match in _SETUID.finditer(text):
        add("-perm -4000", *match.span())
    for match in _EXECUTABLE.finditer(text):
        add("-executable", *match.span())
    _names(text, values, add)
    kind, said = _type_of(text)
    depth = [one for one in found if one.test.startswith("-maxdepth")]
    others = sorted(
        (one for one in found if one not in depth),
        key=lambda one: (one.test.startswith("-daystart"), one.start),
    )
    days = [one for one in others if one.test.startswith("-daystart")]
    others = [one for one in others if one not in days]
    return [
        *depth,
        *([Condition(f"-type {kind}", *said)] if found or said[1] else []),
        *others,
        *days,
    ]


def tests_of(conditions: list[Condition]) -> str:
    """The conditions as find takes them."""
    return " ".join(one.test for one in conditions)


def _ages(text: str, add) -> None:  # type: ignore[no-untyped-def]
    for match in _SINCE.finditer(text):
        sign = "-not " if match[1].lower() in ("before", "older than") else ""
        add(f"{sign}-newermt {match[2]}", *match.span())
    for match in _OLDER.finditer(text):
        add(_age("+", match[1], match[2], match[0]), *match.span())
    for match in _AGED.finditer(text):
        sign = "-" if match[1].lower() in ("less than", "under", "up to") else "+"
        add(_age(sign, match[2], match[3], match[0]), *match.span())
    for match in _AGO_AND_MORE.finditer(text):
        add(_age("+", match[1], match[2], match[0]), *match.span())
    for match in _NEWER.finditer(text):
        number, unit = next((match[n], match[n + 1]) for n in (1, 3, 5) if match[n + 1])
        add(_age("-", number or "1", unit, text), *match.span())
    for match in _THAN_FILE.finditer(text):
        add(f"-newer {quoted(match[1])}", *match.span())
    for match in _TODAY.finditer(text):
        test = {
            "today": "-daystart -mtime 0",
            "this week": "-mtime -7",
            "this month": "-mtime -30",
            "this year": "-mtime -365",
            "since yesterday": "-daystart -mtime -2",
            "yesterday": "-daystart -mtime 1",
            "recently": "-mtime -7",
        }[match[1].lower()]
        add(test, *match.span())


def _age(sign: str, number: str, unit: str, said: str) -> str:
    """The test of an age; of reading where that is what is said, else of changing."""
    minutes = minutes_of(number, unit)
    read = (
        "a"
        if re.search(r"\b(?:accessed|opened|read|used|looked at)\b", said, re.IGNORECASE)
        else "m"
    )
    days = minutes / MINUTES_A_DAY
    if days == int(days) or days > DAYS_ARE_ENOUGH:
        return f"-{read}time {sign}{int(days)}"
    return f"-{read}min {sign}{max(1, round(minutes))}"


def _names(text: str, values: list[Value], add) -> None:  # type: ignore[no-untyped-def]
    for match in _SPACES.finditer(text):
        add("-name '* *'", *match.span())
    for pattern, form, group in ((_BEGIN, "{}*", 2), (_END, "*{}", 2)):
        for match in pattern.finditer(text):
            add(f"-name {quoted(form.format(match[group].rstrip('.')))}", *match.span())
    for match in _HAVE.finditer(text):
        add(f"-name {quoted('*' + (match[2] or match[4]) + '*')}", *match.span())
    wanted = [value for value in values if value.unit != "excluded"]
    for value in values:
        if value.unit != "excluded":
            continue
        name = f"*.{value.text}" if value.kind == "extension" else value.text
        is_folder = value.before in ("folder", "directory")
        if is_folder or (value.kind in ("name", "path") and "." not in value.text):
            add(f"-not -path {quoted('*/' + value.text.strip('/') + '/*')}", value.start, value.end)
        elif value.kind in ("extension", "glob", "file", "name", "path"):
            add(f"-not -name {quoted(name)}", value.start, value.end)
    endings = [
        value
        for value in wanted
        if value.kind == "extension" and value.before not in ("to", "in", "into")
    ]
    if endings:
        add(
            _any_ending("-name", [value.text for value in endings]),
            endings[0].start,
            endings[-1].end,
        )
    named = [
        value
        for value in wanted
        if (value.kind == "glob" and "/" not in value.text)
        or (value.before in ("named", "called") and value.kind in ("file", "name"))
    ]
    if len(named) > 1 and all(value.before in ("or", "and") for value in named[1:]):
        tests = [f"-name {quoted(value.text)}" for value in named]
        add(_any_of(tests), named[0].start, named[-1].end)
    for value in named:
        add(f"-name {quoted(value.text)}", value.start, value.end)
    if not endings:
        for words, extensions in _KINDS.items():
            for match in re.finditer(rf"(?<![\w./-])(?:{words})(?![\w./-])", text, re.IGNORECASE):
                if not any(
                    value.start < match.end() and match.start() < value.end for value in values
                ):
                    add(_any_ending("-iname", extensions.split()), *match.span())


def _any_ending(test: str, extensions: list[str]) -> str:
    tests = [f"{test} {quoted('*.' + one)}" for one in dict.fromkeys(extensions)]
    return _any_of(tests)


def _any_of(tests: list[str]) -> str:
    """One test of which any is enough."""
    return tests[0] if len(tests) == 1 else rf"\( {' -o '.join(tests)} \)"


def _type_of(text: str) -> tuple[str, tuple[int, int]]:
    """f for files, d for folders, l for symbolic links, and where it is said; what is not said is
    taken to be files.
    """
    if match := _NO_FOLDERS.search(text):
        return "f", match.span()
    if match := _LINKS.search(text):
        return "l", match.span()
    if match := re.search(
        r"\bempty\s+(?:sub-?)?(?:folders?|director(?:y|ies)|dirs?)", text, re.IGNORECASE
    ):
        return "d", (0, 0)
    if (match := _FOLDERS.search(text)) and not re.search(r"\bfiles?\b", text, re.IGNORECASE):
        return "d", (match.start(), match.end()) if match[0].lower().startswith(
            ("only", "just")
        ) else (0, 0)
    return "f", (0, 0)
