"""Whether a program knows a flag at all, told from its file before it is run.

A program that takes no notice of its arguments does its work whatever it is given, so it must not
be started with `--help`. Its file, or a library or script that it starts with, has to hold the
flag.
"""

from __future__ import annotations

import os
import re
import struct
import zlib

from dowsing.machine.packages.pip import library_folders, linked_code
from dowsing.model.plainfile import plain_only

MOST_BYTES = 64 << 20
MOST_FILES = 300
MOST_DEPTH = 3

#: Names of option parsers that know the flag without being told.
_PARSERS = re.compile(
    rb"\b(?:argparse|optparse|click|typer|docopt|absl|fire|Pod::Usage|Getopt::Long|OptionParser"
    rb"|optparse|thor|commander|yargs"
    rb"|minimist|meow|sade|GetOptions|cobra|urfave/cli|structopt|clap)\b"
)
#: Folders of option parsers of Java.
_JAVA_PARSERS = re.compile(r"picocli|commons/cli|jcommander|joptsimple|argparse4j|args4j|airline")
MOST_OF_CLASS = 1 << 20  # bytes
#: Marks of option parsers inside compiled programs: Go's, Rust's usual one, the C library's larger
#: one.
_COMPILED = (
    b"flag: help requested",
    b"Print help",
    b"Prints help",
    b"rint this help",
    b"display this help",
    b"argp_parse",
)
_SHEBANG = re.compile(rb"#!\s*(\S+)(?:[ \t]+(\S+))?(?:[ \t]+(\S+))?")
_PYTHON_IMPORT = re.compile(rb"^\s*(?:from\s+([\w.]+)\s+import|import\s+([\w.]+))", re.MULTILINE)
_ENTRY_POINT = re.compile(rb"['\"]([\w.-]+)(?:==[^'\"]*)?['\"],\s*['\"]console_scripts['\"]")
_STARTED = re.compile(
    rb"(?:^|[\s\"'=(])(/[\w./+-]+|\$\{?\w+\}?/[\w./+-]+|\$\([^)\n]*\)/[\w./+-]+|\.{1,2}/[\w./+-]+)",
    re.MULTILINE,
)
#: A program by its bare name that a shell script hands its own arguments to.
_HANDED_ON = re.compile(
    rb"(?:^|[;&|])[ \t]*(?:exec[ \t]+)?([a-z][\w.+-]*)\b[^\n]*\"?\$(?:@|\{1\+\"\$@\"\})",
    re.MULTILINE,
)


def knows_flag(path: str, flag: str = "--help") -> bool:
    """Whether the program at `path`, or what it starts with, holds `flag`."""
    return _Check(flag).file(os.path.realpath(path), 0)


class _Check:
    def __init__(self, flag: str) -> None:
        self.flag = flag.encode()
        self.word = self.flag.lstrip(b"-")
        self.seen: set[str] = set()

    def file(self, path: str, depth: int) -> bool:
        if path in self.seen or depth > MOST_DEPTH or len(self.seen) > MOST_FILES:
            return False
        self.seen.add(path)
        try:
            with open(path, "rb", opener=plain_only) as file:
                data = file.read(MOST_BYTES)
        except OSError:
            return False
        if data[:4] == b"\x7fELF":
            return self.in_binary(data) or any(
                self.file(library, depth + 1) for library in elf_libraries(data, path)
            )
        if path.endswith(".jar"):
            return self.in_archive(path)
        if data[:4] in (b"\xcf\xfa\xed\xfe", b"\xca\xfe\xba\xbe", b"\xce\xfa\xed\xfe"):
            return self.in_binary(data)
        return self.in_script(data, path, depth)

    def in_binary(self, data: bytes) -> bool:
        """The flag as a word of its own: with its dashes, or as a long option's name in a table."""
        if self.flag in data or (self.word == b"help" and any(mark in data for mark in _COMPILED)):
            return True
        return self.word + b"\x00" in data  # linkers store a word as the end of a longer one

    def in_archive(self, path: str) -> bool:
        """Whether a parser of options is among the classes of a Java archive, or one holds the
        flag.
        """
        from zipfile import BadZipFile, ZipFile

        try:
            with ZipFile(path) as archive:
                classes = [one for one in archive.infolist() if one.filename.endswith(".class")]
                if any(_JAVA_PARSERS.search(one.filename) for one in classes):
                    return True
                small = [one for one in classes if one.file_size < MOST_OF_CLASS][:MOST_FILES]
                return any(self.flag in archive.read(one) for one in small)
        except (OSError, BadZipFile, ValueError, NotImplementedError, EOFError, zlib.error):
            return False

    def in_script(self, data: bytes, path: str, depth: int) -> bool:
        text = b"\n".join(
            line
            for line in data.split(b"\n")
            if not line.lstrip().startswith(b"#") or line.startswith(b"#!")
        )
        if self.flag in text or (self.word == b"help" and _PARSERS.search(text)):
            return True
        shebang = _SHEBANG.match(data)
        interpreter = os.path.basename(shebang[2] or shebang[1]) if shebang else b""
        if shebang and os.path.basename(shebang[1]) == b"env" and shebang[2] == b"-S":
            interpreter = shebang[3] or b""
        if b"python" in interpreter or b"python" in data[:200]:
            return any(
                self.file(module, depth + 1) for module in self.python_modules(text, path, shebang)
            )
        return any(self.file(started, depth + 1) for started in self.started_files(text, path))

    def python_modules(self, text: bytes, path: str, shebang: re.Match[bytes] | None) -> list[str]:
        """The files of the modules that a Python script imports from the folders of its
        interpreter.
        """
        bases = [os.path.dirname(path)]
        for prefix in {os.path.dirname(os.path.dirname(path)), _prefix(shebang)}:
            libraries = library_folders(prefix)
            bases += [*libraries, *linked_code(libraries)]
        found = []
        modules = [(first or second) for first, second in _PYTHON_IMPORT.findall(text)]
        modules += [name.replace(b"-", b"_") for name in _ENTRY_POINT.findall(text)]
        for module in modules:
            parts = module.decode("ascii", "replace").split(".")
            for base in bases:
                place = os.path.join(base, *parts)
                top = os.path.join(base, parts[0])
                for candidate in (place + ".py", os.path.join(place, "__init__.py")):
                    if os.path.isfile(candidate):
                        found.append(candidate)
                if os.path.isdir(top):
                    found += _files_below(top, (".py",))
        return [os.path.realpath(one) for one in dict.fromkeys(found)]

    def started_files(self, text: bytes, path: str) -> list[str]:
        """Files that a script names: by their path, or by one beside its own."""
        folder = os.path.dirname(path)
        found = []
        for match in _STARTED.findall(text)[:60]:
            name = match.decode("utf-8", "surrogateescape")
            if name.startswith("$"):
                name = (
                    name.rpartition(")")[2].partition("/")[2]
                    if name[1:2] == "("
                    else name.partition("/")[2]
                )
            for candidate in (
                os.path.join(folder, name),
                os.path.join(os.path.dirname(folder), name),
            ):
                for suffix in ("", ".js", ".cjs", ".mjs", ".jar"):
                    if os.path.isfile(candidate + suffix):
                        found.append(os.path.realpath(candidate + suffix))
        for match in _HANDED_ON.findall(text)[:20]:
            found += [
                os.path.realpath(os.path.join(place, match.decode()))
                for place in (folder, "/usr/bin", "/bin")
                if os.path.isfile(os.path.join(place, match.decode()))
            ]
        package = _node_package(path)
        if package:
            found += _files_below(package, (".js", ".cjs", ".mjs"))
        return list(dict.fromkeys(found))[:MOST_FILES]


def _files_below(folder: str, suffixes: tuple[str, ...]) -> list[str]:
    """The files below a folder with one of the suffixes, at most so many."""
    found: list[str] = []
    for base, folders, files in os.walk(folder):
        folders[:] = sorted(
            name for name in folders if name not in ("node_modules", "__pycache__", "tests")
        )
        found += [os.path.join(base, name) for name in sorted(files) if name.endswith(suffixes)]
        if len(found) > MOST_FILES:
            break
    return found[:MOST_FILES]


def _prefix(shebang: re.Match[bytes] | None) -> str:
    """The folder that the interpreter's `bin` stands in."""
    if not shebang:
        return "/usr"
    return os.path.dirname(os.path.dirname(shebang[1].decode("utf-8", "surrogateescape"))) or "/usr"


def _node_package(path: str) -> str | None:
    """The folder of the npm package that a file is in."""
    parts = path.split(os.sep)
    if "node_modules" not in parts:
        return None
    at = len(parts) - 1 - parts[::-1].index("node_modules")
    size = 3 if len(parts) > at + 1 and parts[at + 1].startswith("@") else 2
    return os.sep.join(parts[: at + size])


def elf_libraries(data: bytes, path: str) -> list[str]:
    """The files of the libraries that an ELF program is linked with, those beside it or in folders
    of its own first.

    Only libraries that are not the system's C library and its like; see the ELF specification,
    `DT_NEEDED`.
    """
    try:
        needed, folders = _dynamic(data)
    except (struct.error, IndexError, ValueError, OverflowError):
        return []
    origin = os.path.dirname(path)
    places = [f.replace("$ORIGIN", origin).replace("${ORIGIN}", origin) for f in folders]
    places += ["/lib", "/usr/lib", "/lib64", "/usr/lib64", "/usr/local/lib"]
    places += [f"{base}/{kind}" for base in ("/lib", "/usr/lib") for kind in _architectures(base)]
    found = []
    for name in needed:
        if name.startswith(
            (
                "libc.",
                "libm.",
                "ld-linux",
                "libpthread.",
                "libdl.",
                "librt.",
                "libstdc++",
                "libgcc_s",
            )
        ):
            continue
        for place in places:
            file = os.path.join(place, name)
            if os.path.isfile(file):
                found.append(os.path.realpath(file))
                break
    return found


def _architectures(base: str) -> list[str]:
    try:
        return [name for name in os.listdir(base) if name.count("-") >= 2 and "linux" in name]
    except OSError:
        return []


def _dynamic(data: bytes) -> tuple[list[str], list[str]]:
    """The names of needed libraries and the folders to look in, from the dynamic section."""
    wide, order = data[4] == 2, "<" if data[5] == 1 else ">"
    offset, entry_size, count = (
        (struct.unpack_from(order + "Q", data, 32)[0], *struct.unpack_from(order + "HH", data, 54))
        if wide
        else (
            struct.unpack_from(order + "I", data, 28)[0],
            *struct.unpack_from(order + "HH", data, 42),
        )
    )
    segments, dynamic = [], b""
    for n in range(count):
        at = offset + n * entry_size
        if wide:
            kind, _, start, address, _, size = struct.unpack_from(order + "IIQQQQ", data, at)
        else:
            kind, start, address, _, size = struct.unpack_from(order + "IIIII", data, at)
        if kind == 1:
            segments.append((address, size, start))
        elif kind == 2:
            dynamic = data[start : start + size]
    step, form = (16, order + "qQ") if wide else (8, order + "iI")
    values: list[tuple[int, int]] = [
        struct.unpack_from(form, dynamic, at) for at in range(0, len(dynamic) - step + 1, step)
    ]
    table = next((value for tag, value in values if tag == 5), 0)
    strings = next(
        (
            start + table - address
            for address, size, start in segments
            if address <= table < address + size
        ),
        0,
    )

    def text(at: int) -> str:
        return data[strings + at : data.index(b"\x00", strings + at)].decode()

    needed = [text(value) for tag, value in values if tag == 1]
    folders = [
        place
        for tag, value in values
        if tag in (15, 29)
        for place in text(value).split(":")
        if place
    ]
    return needed, folders
