"""The values that a sentence holds: paths, patterns, numbers with units, hosts, addresses, names,
quoted text.
"""

from __future__ import annotations

import re

from dowsing.knowledge.stems import EMPTY
from dowsing.model.record import Record
from dowsing.tasks.amount_values import amounts_in, sums_in
from dowsing.tasks.bare_names import Ordinary, bare_names, noun_at, word_before
from dowsing.tasks.file_values import endings_in, files_in
from dowsing.tasks.patterns import Pattern
from dowsing.tasks.schedules import schedules_in, times_in

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.tasks.taking import Take


MOST_WORDS = 400  # of a sentence; the rest is not looked at

_QUOTED = Pattern(
    r"(?<!\w)'([^']+)'(?!\w)|\"([^\"]+)\"|“([^”]+)”|‘([^’]+)’|`([^`]+)`",
    "'",
    '"',
    "“",
    "‘",
    "`",
    exact=True,
)
_INSTEAD = Pattern(
    r"\b(?:replace|substitute|change|swap|exchange|turn)\s+(?:the (?:word|text|string) |every "
    r"|all (?:the )?)?('[^']+'|\"[^\"]+\"|\S+)"
    r"\s+(?:with|by|for|into)\s+('[^']+'|\"[^\"]+\"|[^\s,;]+)",
    "replace",
    "substitute",
    "change",
    "swap",
    "exchange",
    "turn",
)
#: A line of a command: its name, perhaps a subcommand, and an option, up to a word of the sentence.
_LINE = Pattern(
    r"(?<![\w./-])([a-z][\w.+-]*(?: [\w./~]+){0,2}? --?[A-Za-z][\w=-]*(?: [^\s,;?]+)*?)"
    r"(?=\s+(?:does|do|means?|mean|every|for|into|with|is|and|then|when|to|in)\b|\s*[,;?]|\s*$)",
    " -",
    exact=True,
)
#: The beginning of a commit's hash: figures and letters up to f, both.
_HASH = Pattern(r"(?<![\w./-])(?=[a-f]*\d)(?=\d*[a-f])[0-9a-f]{6,40}(?![\w.-])", exact=True)
#: A name with what kind of it is meant: `shop:1.4`.
_IMAGE = Pattern(r"(?<![\w:/.@-])[a-z][a-z0-9_./-]*:[a-z0-9][\w.-]*\w(?![\w:/])", ":", exact=True)
_URL = Pattern(r"(?:https?|ftp|sftp|ssh|git|file)://[^\s,;]+[^\s,;.?!]", "://", exact=True)
_REMOTE = Pattern(r"(?<![\w/.-])(?:[\w.-]+@)?[A-Za-z][\w.-]+:[/~][\w./~*-]*", ":", exact=True)
_AT = Pattern(r"[\w.-]+@[\w.-]+\w", "@", exact=True)
_ALIAS = Pattern(
    r"\b(?:alias|shortcut|abbreviation) (?:called |named )?(\S+) (?:for|to mean|that runs"
    r"|=) (.+?)\s*$",
    "alias",
    "shortcut",
    "abbreviation",
)
_STARTING = Pattern(
    r"\b(?:start|begin|end)(?:s|ning|ing)? (?:with|in) (?:the (?:word|text|letters?) "
    r"|an? )?(?!\.)('[^']+'|\"[^\"]+\"|\S+)",
    "start",
    "begin",
    "end",
)
_PARTED = Pattern(
    r"\b(?:separated|parted|delimited|split|divided) (?:by|with|at) (?:a |an |the )?(colon|comma"
    r"|semicolon|tab|pipe|bar|space|blank|dash|slash)\w*"
    r"|\b(colon|comma|semicolon|tab|pipe|space)[- ](?:separated|delimited)",
    "separated",
    "parted",
    "delimited",
    "split",
    "divided",
)
#: One more name in a row, with nothing behind it that would be done to it.
_NEXT_IN_LIST = re.compile(
    r"(?:, ?(?:and )?|,? and | or )([A-Za-z][\w.+-]*\w)"
    r"(?=\s*(?:$|[,.;?!])|\s(?:and|with|to|from|in|on|by|for|using|without|but|at|as|into)\b)"
)
#: What is done next, where a name is followed by what is to be done with it.
_DONE_NEXT = frozenset(
    "restart reboot enable disable reload quit exit remove delete upgrade update test run".split()
)
#: The home folder of who asks.
_HOME = Pattern(r"\b(?:my|our) home(?: (?:folder|directory))?(?![\w-])", "home")
_SEPARATORS = {
    "colon": ":",
    "comma": ",",
    "semicolon": ";",
    "tab": "\t",
    "pipe": "|",
    "bar": "|",
    "space": " ",
    "blank": " ",
    "dash": "-",
    "slash": "/",
}
_SIGN_OF = {
    "comma": ",",
    "semicolon": ";",
    "colon": ":",
    "space": " ",
    "dot": ".",
    "dashe": "-",
    "dash": "-",
    "hyphen": "-",
    "underscore": "_",
    "slashe": "/",
    "slash": "/",
    "pipe": "|",
    "tab": "\\t",
    "newline": "\\n",
}
_SIGN = "|".join(_SIGN_OF)
_SIGNS = Pattern(
    r"\b(?:replace|substitute|change|turn|swap|convert)\s+(?:all |every |each "
    rf"|the )*((?:{_SIGN})s?)\s+(?:with|by|for|into|to)\s+(?:an? )?((?:{_SIGN})s?)\b",
    *_SIGN_OF,
)
#: `semicolons instead of commas`: what is there, and what is wanted.
_SIGN_INSTEAD = Pattern(
    rf"\b((?:{_SIGN})s?) (?:instead|in place|in the place) of (?:an? )?((?:{_SIGN})s?)\b",
    " of ",
)
_DATE = Pattern(r"(?<![\w.-])\d{4}-\d\d-\d\d(?:[T ]\d\d:\d\d(?::\d\d)?)?(?![\w-])", "-", exact=True)
_DAY = Pattern(
    r"(?<=since )(?:yesterday|today|last \w+|monday|tuesday|wednesday|thursday|friday|saturday"
    r"|sunday)",
    "since ",
    exact=True,
)
_TODAY = Pattern(r"\b(?:today|yesterday)\b", "today", "yesterday", exact=True)
#: The addresses of a network: `192.168.7.0/24`.
_NETWORK = Pattern(r"(?<![\w./-])(?:\d{1,3}\.){3}\d{1,3}/\d{1,2}(?![\w./])", "/", exact=True)
#: A machine with one of its ports: `10.0.0.7:8443`.
_PORT_OF = Pattern(
    r"(?<![\w/:.@-])((?:\d{1,3}\.){3}\d{1,3}|localhost|(?:[a-z0-9-]+\.)+[a-z]{2,})"
    r":(\d{2,5})(/[^\s,;]*)?(?![\w:])",
    ":",
    exact=True,
)
_HEIGHT = Pattern(r"(?<![\w.-])\d+x\d+(?![\w.])", "x", exact=True)
_NAME = re.compile(r"[A-Za-z0-9]\w*(?:[-_.:][\w]+)+|[A-Za-z]+\d\w*")
_LOUD = re.compile(r"(?<![\w.-])[A-Z][A-Z0-9_]{2,}(?![\w.-])")
_ACRONYMS = frozenset(
    """
        CPU CPUS RAM DNS HTTP HTTPS TCP UDP USB SSH SSL TLS JSON CSV TSV XML HTML PDF ISO UUID
        MAC ASCII UTF GPG SQL URL URLS UTC DVD GPU NFS FTP SFTP SHA MD5 SHA256 BIOS UEFI LAN WLAN
        VPN API PID UID GID CRLF EOF LVM RAID GNU SSD HDD DOS PNG JPG JPEG GIF ZIP TAR AND NOT
        ALL ANY NEVER ONLY PATH
    """.split()
)
_POSSESSIVE = re.compile(r"(?<![\w-])([A-Za-z][\w-]*)['’]s(?!\w)")
_NO_OWNER = frozenset("what who it that there here how where let he she today".split())
#: What is replaced, or put in the place of something, without being the text itself.
_GENERAL = frozenset(
    """
        tabs tab spaces space blanks text word words string lines line newlines commas comma
        characters colons semicolons dots underscores umlauts capitals everything all it one
        another nothing something them this that file files letters upper lower a an the its
        their each every any some new old branch branches password
    """.split()
)
_COMMAND = Pattern(
    r"\b(?:run|runs|start|execute|launch|repeat|output of|results? of|keep|time does|long does|long"
    r"|give up on|stop|kill)\s+"
    r"(?:the )?(?:command |script |program )?([\w./-]+)(?=\s+(?:every|with|after|as|on|in|for|until"
    r"|again|running|run|take|takes|at|to"
    r"|and|when|if|while|from|whenever|forever|over|alive|going|twice|\d+ times)\b|$)",
    "run",
    "start",
    "execute",
    "launch",
    "repeat",
    "output",
    "result",
    "keep",
    "long",
    "give up",
    "stop",
    "kill",
)
_TARGET = frozenset(("into", "to", "as", "named", "called", "onto", "it"))
_OUT = frozenset(
    ("without", "except", "excluding", "excepting", "skip", "skipping", "omit", "omitting", "minus")
)
#: What is said of a line, and stands before it.
_ABOUT_A_LINE = frozenset(
    "explain check run try line command understand analyse analyze mean means meaning wrong start "
    "execute launch option options".split()
)
#: Not in a file is no file to leave out.
_INSIDE = frozenset("in inside from under below".split())


_NUMBERS = frozenset(("number", "size"))


class Value(Record):
    """A value: its text, its kind, where it stands (characters), the word before it, and its unit.

    `noun` says what it is the name of, if the sentence tells; `place` is the preposition of it all.
    `sure`: it is no word of ordinary language, so a line that does not have it leaves something
    out; `turn`: the number of the revision that says it, 0 for the sentence itself.
    """

    text: str
    kind: str
    start: int
    end: int
    before: str = ""
    unit: str = ""
    sure: bool = True
    noun: str = ""
    place: str = ""
    turn: int = 0

    @property
    def is_target(self) -> bool:
        """Whether the word before it says that something goes there."""
        return (
            self.before in _TARGET
            or self.place in _TARGET
            or (self.noun in ("folder", "directory") and self.place in ("in", "under"))
        )

    def stands_in(self, line: str) -> bool:
        """Whether it stands in a line as it was said."""
        text = self.text.strip("'\"").rstrip("/")
        if self.kind in _NUMBERS:
            return bool(re.search(rf"(?<![\w.]){re.escape(text)}(?![\w.]*\w)", line))
        return text.casefold() in line.casefold()


def values_in(sentence: str, ordinary: Ordinary) -> list[Value]:
    """The values of a sentence in order."""
    sentence = " ".join(sentence.split(" ")[:MOST_WORDS])
    taken = [False] * len(sentence)
    found: list[Value] = []

    def take(start: int, end: int, text: str, kind: str, unit: str = "", sure: bool = True) -> None:
        if not text or any(taken[start:end]):
            return
        if sure:
            taken[start:end] = [True] * (end - start)
        before = word_before(sentence, start)
        inside = before in _INSIDE and kind in ("file", "url", "host", "remote")
        if before in _OUT or (not inside and _is_left_out(sentence, start, end)):
            unit = "excluded"
            if (
                kind == "extension"
                and sentence[start : start + 1] == "."
                and not re.match(r"\s+(?:files?|ones?)\b", sentence[end:])
            ):
                kind, text = "name", sentence[start:end]  # `.git` is the name of a folder
        noun = noun_at(sentence, start, end, before)
        place = (
            word_before(sentence, start - len(before) - 1) if noun and noun == before else before
        )
        found.append(Value(text, kind, start, end, before, unit, sure, noun, place))

    _replaced(sentence, take)
    _lines_and_machines(sentence, take)
    _times(sentence, take)
    for match in _HOME.finditer(sentence):
        take(*match.span(), "~", "path")
    for match in _HEIGHT.finditer(sentence):
        take(*match.span(), match[0], "text")
    endings_in(sentence, take)
    files_in(sentence, take)
    amounts_in(sentence, take)
    _names(sentence, take, ordinary)
    _in_lists(sentence, found, take, ordinary)
    return sorted(found, key=lambda value: value.start)


def _in_lists(sentence: str, found: list[Value], take: Take, ordinary: Ordinary) -> None:
    """Names that stand in a row with one: `nginx and curl`. Such a one may be a word."""
    for value in [one for one in found if one.sure and one.kind == "name"]:
        end = value.end
        while (match := _NEXT_IN_LIST.match(sentence, end)) is not None:
            word = match[1].lower()
            if not ordinary.can_name(word) or word in _DONE_NEXT:
                break
            take(*match.span(1), match[1], "name")
            end = match.end(1)


def _replaced(sentence: str, take: Take) -> None:
    """What is replaced by what, names of lines, and what is quoted."""
    for match in (*_SIGNS.finditer(sentence), *_SIGN_INSTEAD.finditer(sentence)):
        take(*match.span(1), _SIGN_OF[match[1].lower().rstrip("s")], "text", "old")
        take(*match.span(2), _SIGN_OF[match[2].lower().rstrip("s")], "text", "new")
    for match in _INSTEAD.finditer(sentence):
        if match[1].lower() in _GENERAL or match[2].lower() in _GENERAL or match[2].isdecimal():
            continue
        if re.match(r"[./~]|\w+\.\w+$", match[1]):
            continue
        take(*match.span(1), match[1].strip("'\""), "text", "old")
        take(*match.span(2), match[2].strip("'\",.?!"), "text", "new")
    for match in _ALIAS.finditer(sentence):
        take(*match.span(1), match[1], "name")
        take(*match.span(2), match[2], "command")
    for match in _STARTING.finditer(sentence):
        take(*match.span(1), match[1].strip("'\",."), "text")
    for match in _QUOTED.finditer(sentence):
        take(*match.span(), next(group for group in match.groups() if group is not None), "text")


def _lines_and_machines(sentence: str, take: Take) -> None:
    """Lines of commands, and machines."""
    for match in _LINE.finditer(sentence):
        text = _line_of(match[1])
        if not text.startswith("-"):
            take(match.end(1) - len(text), match.end(1), text, "command")
    _machines(sentence, take)


def _machines(sentence: str, take: Take) -> None:
    """Hashes, networks, machines with their ports, images, addresses."""
    for pattern, kind in ((_HASH, "name"), (_NETWORK, "host")):
        for match in pattern.finditer(sentence):
            take(*match.span(), match[0], kind)
    for match in _PORT_OF.finditer(sentence):
        take(*match.span(), match[0], "url", "", bool(match[3]))
        take(*match.span(1), match[1], "host")
        take(*match.span(2), match[2], "number", "port")
    for match in _IMAGE.finditer(sentence):
        take(*match.span(), match[0], "name")
    for match in _PARTED.finditer(sentence):
        take(*match.span(), _SEPARATORS[(match[1] or match[2]).lower()], "separator", "", False)
    for match in _URL.finditer(sentence):
        take(*match.span(), match[0], "url")
    for match in _REMOTE.finditer(sentence):
        take(*match.span(), match[0].rstrip(".,;"), "remote")
    for match in _AT.finditer(sentence):
        take(*match.span(), match[0], "host")


def _times(sentence: str, take: Take) -> None:
    """Times, dates and sums."""
    for said in schedules_in(sentence):
        take(said.start, said.end, said.text, "schedule", "", False)
    for match in (*_DATE.finditer(sentence), *_DAY.finditer(sentence)):
        take(*match.span(), match[0], "date")
    for match in _TODAY.finditer(sentence):
        take(*match.span(), match[0], "date", "", False)
    sums_in(sentence, take)
    for said in times_in(sentence):
        take(said.start, said.end, said.text, "time", "", ":" in sentence[said.start : said.end])


def _names(sentence: str, take: Take, ordinary: Ordinary) -> None:
    """Names by their form or place, and commands."""
    for match in _POSSESSIVE.finditer(sentence):
        low = match[1].lower()
        if not ordinary.has(low) and low not in _NO_OWNER:
            take(match.start(), match.end(1), match[1], "name", "owner")
    if not sentence.isupper():
        for match in _LOUD.finditer(sentence):
            if match[0] not in _ACRONYMS:
                take(*match.span(), match[0], "text")
    for match in _NAME.finditer(sentence):
        parts = re.split(r"[-_.:]", match[0].lower())
        if not all(ordinary.has(part) or not part for part in parts):
            take(*match.span(), match[0], "name")
        elif len(parts) > 1:
            take(*match.span(), match[0], "name", "", False)
    bare_names(sentence, ordinary, take)
    _commands(sentence, take)


def _commands(sentence: str, take: Take) -> None:
    """Commands behind words that say that one is run."""
    for match in _COMMAND.finditer(sentence):
        if match[1].lower() in EMPTY:
            continue
        take(*match.span(1), match[1], "command", "", False)


def _line_of(text: str) -> str:
    """A line without what is said of it before its command: the words up to the last one before
    its first option that is none of a line.
    """
    words = text.split(" ")
    option = next(n for n, word in enumerate(words) if word.startswith("-"))
    said = [n for n, word in enumerate(words[:option]) if word in EMPTY or word in _ABOUT_A_LINE]
    return " ".join(words[said[-1] + 1 :]) if said else text


def _is_left_out(sentence: str, start: int, end: int) -> bool:
    """Whether what stands there is to be left out: `leave X out`, `but not X`, `not the X`."""
    before = sentence[max(0, start - 30) : start].lower()
    after = sentence[end : end + 24].lower()
    return bool(
        (
            re.search(r"\bleav\w+ (?:\w+ ){0,2}$", before)
            and re.match(r"\W*(?:\w+ ){0,2}out\b", after)
        )
        or re.search(
            r"\b(?:but not|but (?:leave|keep|spare)|not|leav\w+ out|except|excluding|without"
            r"|skip\w*)(?: for)? (?:(?:the|any|all|those|its|every|anything|everything|what is) )"
            r"{0,2}(?:(?:in|inside|under|below|from) )?(?:(?:the|its|my) )?"
            r"(?:(?:files?|folders?|directory|subfolder|ones?) )?(?:(?:called|named) )?$",
            before,
        )
    )
