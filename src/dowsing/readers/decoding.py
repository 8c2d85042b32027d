"""The bytes of a page file to text: compression, encodings, already formatted pages."""

from __future__ import annotations

import os
import re
import zlib

from dowsing.model.errors import Unreadable
from dowsing.model.plainfile import plain_only

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable

MOST_BYTES = 16 * 1024 * 1024  # of a file, and of what it unpacks to; the largest manuals have 5 MB
MOST_WINDOW = 128 * 1024 * 1024  # bytes of memory that an unpacker may ask for
ZSTD_STEP = 256  # bytes: a block of 4 bytes can stand for 128 KB
GZIP, BZIP, XZ, ZSTD = b"\x1f\x8b", b"BZh", b"\xfd7zXZ\x00", b"\x28\xb5\x2f\xfd"
LZW = b"\x1f\x9d"
SUFFIXES = (".gz", ".bz2", ".xz", ".zst", ".lzma", ".Z")

#: Codecs of Python that are no encoding of a text file; some take for ever on a long one.
_NO_CHARSETS = frozenset(
    ("undefined", "punycode", "idna", "unicode_escape", "raw_unicode_escape", "utf_7")
)
_CODING = re.compile(rb"-\*-.*?coding:\s*([A-Za-z0-9_.-]+)")
_OVERSTRIKE = re.compile("(.)\x08(.)")


def unpacked_name(name: str) -> str:
    """The name of a file without the ending of what packs it: `ls.1.gz` → `ls.1`."""
    for suffix in SUFFIXES:
        name = name.removesuffix(suffix)
    return name


def packed_or_not(path: str) -> str | None:
    """The file of that path, or of that path with the ending of what packs it; None if there is
    none.
    """
    return next(
        (path + suffix for suffix in ("", *SUFFIXES) if os.path.isfile(path + suffix)), None
    )


def read_bytes(path: str) -> bytes:
    """The uncompressed bytes of the file.

    Raises Unreadable if the file is missing, forbidden, no plain file, damaged, too large or packed
    in a way that nothing here can open. No more than MOST_BYTES are unpacked at any time, so that a
    small file cannot grow without bounds.
    """
    return _opened(_packed_bytes(path), path)


def _packed_bytes(path: str) -> bytes:
    """The bytes of the file as they are. Raises Unreadable."""
    try:
        with open(path, "rb", opener=plain_only) as file:
            # room for as much as is asked for is made at once: ask for no more than there is
            data = file.read(min(os.fstat(file.fileno()).st_size, MOST_BYTES) + 1)
    except IsADirectoryError:
        raise Unreadable("it is a folder") from None
    except OSError as error:
        raise Unreadable((error.strerror or "it cannot be opened").lower()) from None
    if len(data) > MOST_BYTES:
        raise Unreadable(f"it is too large: more than {MOST_BYTES // 1024 // 1024} MB")
    return data


def _opened(data: bytes, path: str) -> bytes:
    """The bytes unpacked. Raises Unreadable."""
    try:
        return _unpacked(data, path)
    except Unreadable:
        raise
    except (EOFError, ValueError, OSError, MemoryError, zlib.error) as error:
        raise Unreadable(f"its compressed data are damaged ({error})") from None


def _unpacked(data: bytes, path: str) -> bytes:
    """Data are told by their first bytes; a name may lie."""
    if data[:2] == GZIP:
        return _streams(data, GZIP, _gunzip)
    if data[:3] == BZIP:
        return _streams(data, BZIP, _bunzip)
    if data[:6] == XZ or path.endswith(".lzma"):
        return _streams(data, XZ, _unxz)
    if data[:4] == ZSTD:
        return _streams(data, ZSTD, _unzstd)
    if data[:2] == LZW:
        return _streams(data, LZW, _unlzw)
    if path.endswith(SUFFIXES) and data:
        raise Unreadable("its name says compressed, its contents are not")
    return data


def _streams(
    data: bytes, magic: bytes, unpack: Callable[[bytes, int], tuple[bytes, bytes]]
) -> bytes:
    """All streams of a file one after another, as the packers themselves unpack it; what follows
    the last is padding.
    """
    done: list[bytes] = []
    left = MOST_BYTES
    while data:
        part, data = unpack(data, left)
        done.append(part)
        left -= len(part)
        if left < 0:
            raise Unreadable(
                f"it is too large: it unpacks to more than {MOST_BYTES // 1024 // 1024} MB"
            )
        data = data.lstrip(b"\0")  # padding between streams
        if not data.startswith(magic):
            break
    return b"".join(done)


def _gunzip(data: bytes, most: int) -> tuple[bytes, bytes]:
    """One stream: at most one byte more than `most`, and what stands behind it."""
    unpacker = zlib.decompressobj(31)
    part = unpacker.decompress(data, most + 1)
    _check_whole(unpacker.eof, part, most)
    return part, unpacker.unused_data


def _unlzw(data: bytes, most: int) -> tuple[bytes, bytes]:
    """The whole of the rest: nothing marks the end of such a stream."""
    from dowsing.readers.lzw import unpacked

    return unpacked(data, most), b""


def _bunzip(data: bytes, most: int) -> tuple[bytes, bytes]:
    import bz2

    unpacker = bz2.BZ2Decompressor()
    part = unpacker.decompress(data, most + 1)
    _check_whole(unpacker.eof, part, most)
    return part, unpacker.unused_data


def _unxz(data: bytes, most: int) -> tuple[bytes, bytes]:
    import lzma

    try:
        unpacker = lzma.LZMADecompressor(memlimit=MOST_WINDOW)
        part = unpacker.decompress(data, most + 1)
    except lzma.LZMAError as error:
        raise Unreadable(f"its compressed data are damaged ({error})") from None
    _check_whole(unpacker.eof, part, most)
    return part, unpacker.unused_data


def _unzstd(data: bytes, most: int) -> tuple[bytes, bytes]:
    """This unpacker takes no bound, so it is given so little at a time that each step stays
    small.
    """
    import zstandard

    unpacker = zstandard.ZstdDecompressor(max_window_size=MOST_WINDOW).decompressobj()
    parts: list[bytes] = []
    size = at = 0
    try:
        while at < len(data) and not unpacker.eof and size <= most:
            parts.append(unpacker.decompress(data[at : at + ZSTD_STEP]))
            size += len(parts[-1])
            at += ZSTD_STEP
    except zstandard.ZstdError as error:
        raise Unreadable(f"its compressed data are damaged ({error})") from None
    part = b"".join(parts)
    _check_whole(unpacker.eof, part, most)
    return part, unpacker.unused_data + data[at:]


def _check_whole(ended: bool, part: bytes, most: int) -> None:
    if not ended and len(part) <= most:
        raise Unreadable("its compressed data end too early")


def decode(data: bytes) -> str:
    """Page bytes as text: the page's coding line, else UTF-8, else Latin-1.

    Raises Unreadable for data that are no text at all.
    """
    if b"\x00" in data:
        if data[:2] in (b"\xff\xfe", b"\xfe\xff"):
            return data.decode("utf-16", "replace")
        raise Unreadable("it holds binary data, not text")
    if data[:3] == b"\xef\xbb\xbf":
        data = data[3:]
    head = data[:400]
    if b"coding:" in head:
        match = _CODING.search(head)
        if match:
            name = match[1].decode("ascii").lower().removesuffix("-unix").replace("-", "_")
            try:
                return data.decode(name if name not in _NO_CHARSETS else "utf-8")
            except (LookupError, ValueError):
                pass
    try:
        return data.decode("utf-8")
    except UnicodeDecodeError:
        return data.decode("latin-1")


def read_text(path: str) -> str:
    """The text of the page file. Raises Unreadable."""
    return _as_lines(decode(read_bytes(path)))


def _as_lines(text: str) -> str:
    """Text whose lines end in newlines, however they ended."""
    return text.replace("\r\n", "\n").replace("\r", "\n") if "\r" in text else text


def read_beginning(path: str, most: int) -> str:
    """The beginning of the text of the page file, whole lines of at most `most` bytes. Raises
    Unreadable.
    """
    data = _packed_bytes(path)
    if data[:2] == GZIP:
        try:
            data = zlib.decompressobj(31).decompress(data, most + 1)
        except zlib.error as error:
            raise Unreadable(f"its compressed data are damaged ({error})") from None
    else:
        data = _opened(data, path)
    if len(data) > most:
        data = data[: data.rfind(b"\n", 0, most) + 1]
    return _as_lines(decode(data))


def is_formatted(text: str) -> bool:
    """Whether the text is a page as a typewriter would print it (struck over for bold and
    underline).
    """
    return "\x08" in text and _OVERSTRIKE.search(text) is not None
