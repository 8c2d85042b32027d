"""Files of a sentence: paths, names, patterns and endings."""

from __future__ import annotations

import re

from dowsing.tasks.patterns import Pattern

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.tasks.taking import Take

#: `as mp3`, `a pdf of`: what a new file is to be.
_AS_ENDING = Pattern(
    r"\b(?:an?|as|into|to)\s+(mp3|mp4|ogg|wav|flac|m4a|mkv|webm|avi|mov|gif|png|jpe?g|webp|pdf|html"
    r"|docx|odt|epub|svg)\b(?! files?)"
)
#: Files that are known by a name without an ending.
_KNOWN_FILE = Pattern(
    r"(?<![\w./-])(?:GNU[Mm]akefile|[Mm]akefile|Dockerfile|Containerfile|Vagrantfile|Jenkinsfile"
    r"|Procfile|Gemfile|Rakefile|Pipfile|README|LICENSE|LICENCE|COPYING|CHANGELOG|CHANGES|AUTHORS"
    r"|TODO|NEWS|INSTALL|(?:SHA|MD5|B2)\d*SUMS?|authorized_keys|known_hosts|id_(?:rsa|ed25519))"
    r"(?![\w./-]*\w)",
    "file",
    "read",
    "licen",
    "copying",
    "change",
    "authors",
    "todo",
    "news",
    "install",
    "sum",
    "_",
    exact=True,
)
_EXTENSION = Pattern(
    r"(?<![\w/*])\.([A-Za-z0-9]{1,6})(?=\s+(?:files?|ones?|pictures?|images?)|\s|[,;?!]|$)"
    r"|(?<![\w./])\*\.(\w+)(?![\w.*/])",
    ".",
    exact=True,
)
_PLURAL = Pattern(
    r"(?<![\w.-])(jpe?g|png|gif|mp[34]|pdf|csv|tsv|txt|html?|json|xml|py|wav|flac|zip|mkv|avi|svg"
    r"|md|iso|bak|tmp)s(?![\w.-])",
    *(
        f"{ending}s"
        for ending in "jpg jpeg png gif mp3 mp4 pdf csv tsv txt htm html json xml py wav flac zip "
        "mkv avi svg md iso bak tmp".split()
    ),
)
_KIND_OF_FILE = Pattern(
    r"(?<![\w.-])(jpe?g|png|gif|mp[34]|pdf|csv|tsv|txt|html?|xml|wav|flac|mkv|avi|svg|iso|bak|tmp)"
    r"(?=\s+(?:files?|pictures?|images?|documents?)\b)|(?<=\beach )(?:png|jpg|jpeg|gif|pdf|csv|txt"
    r"|mp3|mp4|wav)\b|(?<=\bevery )(?:png|jpg|jpeg|gif|pdf|csv|txt|mp3|mp4|wav)\b"
    r"|(?<=\ball )(?:png|jpg|jpeg|gif|pdf|csv|txt|mp3|mp4|wav|flac|mkv|avi|tiff)\b",
    "file",
    "picture",
    "image",
    "document",
    "each",
    "every",
    "all",
)
_PATH = Pattern(
    r"(?:~|\.{1,2})?/[\w.@%+=:,/*-]*|[\w@%+=:-][\w@%+=:.-]*(?:/[\w.@%+=:*-]*)+|~(?!\w)",
    "/",
    "~",
    exact=True,
)
#: Names that begin with a dot or underscores: `.DS_Store`, `__pycache__`.
_MARKED = Pattern(r"(?<![\w./*~-])(?:\.[A-Za-z]\w*[_-]\w+|__\w+)(?![\w.*/])", "_", ".", exact=True)
_GLOB = Pattern(r"(?<![\w./])[\w.-]*\*[\w.*-]*(?![\w/])", "*", exact=True)
_FILE = Pattern(
    r"[\w@%+=-][\w.@%+=-]*\.[A-Za-z0-9][A-Za-z0-9]{0,8}(?:\.[A-Za-z0-9]{1,4}){0,2}(?![\w])",
    ".",
    exact=True,
)
_DOMAIN = Pattern(
    r"(?<![\w./-])(?:[\w-]+\.)+(?:example|com|org|net|edu|gov|io|dev|local|lan|test|uk|de|fr|eu"
    r"|info)(?![\w./-])",
    ".",
    exact=True,
)


def endings_in(sentence: str, take: Take) -> None:
    """Endings, as they are said of files."""
    for match in _MARKED.finditer(sentence):
        take(*match.span(), match[0], "name")
    for match in _EXTENSION.finditer(sentence):
        take(*match.span(), match[1] or match[2], "extension")
    for match in _PLURAL.finditer(sentence):
        take(*match.span(), match[1].lower(), "extension")
    for match in _AS_ENDING.finditer(sentence):
        take(*match.span(1), match[1], "extension", "", False)
    for match in _KIND_OF_FILE.finditer(sentence):
        take(*match.span(), match[0].lower(), "extension")


def files_in(sentence: str, take: Take) -> None:
    """Paths and names of files."""
    for match in _PATH.finditer(sentence):
        text = match[0].rstrip(".,:;?!")
        take(match.start(), match.start() + len(text), text, "glob" if "*" in text else "path")
    for match in _KNOWN_FILE.finditer(sentence):
        take(*match.span(), match[0], "file")
    for match in _GLOB.finditer(sentence):
        take(*match.span(), match[0], "glob")
    for match in _DOMAIN.finditer(sentence):
        take(*match.span(), match[0], "host")
    for match in _FILE.finditer(sentence):
        if re.fullmatch(r"tar\.(?:gz|bz2|xz|zst|lz4|Z)", match[0]):
            take(*match.span(), match[0], "extension", "", False)
        elif not re.fullmatch(r"e\.g|i\.e|[\d.]+|\d+\.?\d*[a-zA-Z]{0,2}", match[0]):
            take(*match.span(), match[0], "file")
