"""The bytes of a page file to text: compression, encodings, already formatted pages."""

from __future__ import annotations

import re
import zlib

MOST_BYTES = 64 * 1024 * 1024
SUFFIXES = (".gz", ".bz2", ".xz", ".zst", ".lzma", ".Z")

_CODING = re.compile(rb"-\*-.*?coding:\s*([A-Za-z0-9_.-]+)")
_OVERSTRIKE = re.compile("(.)\x08(.)")


class Unreadable(Exception):
    """A page file that cannot be read; the message is one line that says why."""


def read_bytes(path: str) -> bytes:
    """The uncompressed bytes of the file.

    Raises Unreadable if the file is missing, forbidden, damaged, too large or packed in a way that nothing
    here can open. At most MOST_BYTES are taken, so that a small file cannot grow without bounds.
    """
    try:
        with open(path, "rb") as file:
            data = file.read(MOST_BYTES + 1)
    except IsADirectoryError:
        raise Unreadable("it is a folder") from None
    except OSError as error:
        raise Unreadable((error.strerror or "it cannot be opened").lower()) from None
    if len(data) > MOST_BYTES:
        raise Unreadable(f"it is larger than {MOST_BYTES // 1024 // 1024} MB")
    try:
        return _unpacked(data, path)
    except Unreadable:
        raise
    except (EOFError, ValueError, OSError, zlib.error) as error:
        raise Unreadable(f"its compressed data are damaged ({error})") from None


def _unpacked(data: bytes, path: str) -> bytes:
    """Data are told by their first bytes; a name may lie."""
    if data[:2] == b"\x1f\x8b":
        return _gunzip(data)
    if data[:3] == b"BZh":
        import bz2

        return _bounded(bz2.BZ2Decompressor(), data)
    if data[:6] == b"\xfd7zXZ\x00" or path.endswith(".lzma"):
        import lzma

        try:
            return _bounded(lzma.LZMADecompressor(), data)
        except lzma.LZMAError as error:
            raise Unreadable(f"its compressed data are damaged ({error})") from None
    if data[:4] == b"\x28\xb5\x2f\xfd":
        import zstandard

        try:
            unpacker = zstandard.ZstdDecompressor().decompressobj()
            text: bytes = unpacker.decompress(data)[:MOST_BYTES]
            if not getattr(unpacker, "eof", True):
                raise Unreadable("its compressed data end too early")
            return text
        except zstandard.ZstdError as error:
            raise Unreadable(f"its compressed data are damaged ({error})") from None
    if data[:2] == b"\x1f\x9d":
        raise Unreadable("it is packed with the old compress format, which is not supported")
    if path.endswith(SUFFIXES) and data:
        raise Unreadable("its name says compressed, its contents are not")
    return data


def _gunzip(data: bytes) -> bytes:
    done = []
    size = 0
    while data:
        unpacker = zlib.decompressobj(31)
        part = unpacker.decompress(data, MOST_BYTES - size)
        if not unpacker.eof:
            raise Unreadable(
                "its compressed data end too early" if size + len(part) < MOST_BYTES else "it unpacks to too much"
            )
        done.append(part)
        size += len(part)
        data = unpacker.unused_data
        if data[:2] != b"\x1f\x8b":  # padding after the last member
            break
    return b"".join(done)


def _bounded(unpacker, data: bytes) -> bytes:  # type: ignore[no-untyped-def]
    done: bytes = unpacker.decompress(data, MOST_BYTES)
    if not unpacker.eof:
        raise Unreadable("its compressed data end too early")
    return done


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
            try:
                return data.decode(match[1].decode("ascii").removesuffix("-unix"))
            except (LookupError, UnicodeDecodeError):
                pass
    try:
        return data.decode("utf-8")
    except UnicodeDecodeError:
        return data.decode("latin-1")


def read_text(path: str) -> str:
    """The text of the page file. Raises Unreadable."""
    text = decode(read_bytes(path))
    if "\r" in text:
        text = text.replace("\r\n", "\n").replace("\r", "\n")
    return text


def is_formatted(text: str) -> bool:
    """Whether the text is a page as a typewriter would print it (struck over for bold and underline)."""
    return "\x08" in text and _OVERSTRIKE.search(text) is not None
