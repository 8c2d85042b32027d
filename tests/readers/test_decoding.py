"""Bytes of page files to text."""

from __future__ import annotations

import bz2
import gzip
import lzma
import os
from pathlib import Path

import pytest
import zstandard

from dowsing.model.errors import Unreadable
from dowsing.readers.decoding import decode, is_formatted, read_bytes, read_text

TEXT = ".TH TIE 1\nfasten é\n"


@pytest.mark.parametrize(
    ("name", "pack"),
    [
        ("t.1", bytes),
        ("t.1.gz", gzip.compress),
        ("t.1.bz2", bz2.compress),
        ("t.1.xz", lzma.compress),
        ("t.1.zst", zstandard.compress),
        ("t.1", gzip.compress),
        ("t.1.gz", lambda data: gzip.compress(data) + b"\0" * 512),
    ],
)
def test_packings_are_told_by_their_contents(tmp_path: Path, name: str, pack) -> None:
    path = tmp_path / name
    path.write_bytes(pack(TEXT.encode()))
    assert read_text(str(path)) == TEXT


def test_line_ends_of_other_systems(tmp_path: Path) -> None:
    (tmp_path / "t.1").write_bytes(b"a\r\nb\rc\n")
    assert read_text(str(tmp_path / "t.1")) == "a\nb\nc\n"


@pytest.mark.parametrize(
    ("data", "text"),
    [
        ("é".encode(), "é"),
        ("é".encode("latin-1"), "é"),
        (b"\xef\xbb\xbfabc", "abc"),
        ("'\\\" -*- coding: koi8-r -*-\nж".encode("koi8-r"), "'\\\" -*- coding: koi8-r -*-\nж"),
        ("'\\\" -*- coding: no-such -*-\né".encode(), "'\\\" -*- coding: no-such -*-\né"),
        ("abc".encode("utf-16"), "\ufeffabc".lstrip("\ufeff")),
    ],
)
def test_encodings(data: bytes, text: str) -> None:
    assert decode(data) == text


def test_what_cannot_be_read_says_why(tmp_path: Path) -> None:
    cut = lzma.compress(b"x" * 1000)[:40]
    wrong = {
        "missing.1": (None, "no such file or directory"),
        "cut.1.xz": (cut, "its compressed data end too early"),
        "bad.1.bz2": (b"BZh9" + b"\x01" * 30, "its compressed data are damaged"),
        "bad.1.zst": (b"\x28\xb5\x2f\xfd" + b"\xff" * 30, "its compressed data are damaged"),
        "cut.1.zst": (zstandard.compress(b"x" * 1000)[:12], "its compressed data end too early"),
        "lie.1.xz": (b"text", "its name says compressed"),
    }
    for name, (data, says) in wrong.items():
        if data is not None:
            (tmp_path / name).write_bytes(data)
        with pytest.raises(Unreadable, match=says):
            read_bytes(str(tmp_path / name))
    with pytest.raises(Unreadable, match="binary data"):
        decode(b"\x7fELF\x00")
    with pytest.raises(Unreadable, match="folder"):
        read_bytes(str(tmp_path))


def test_a_small_file_cannot_unpack_without_bounds(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("dowsing.readers.decoding.MOST_BYTES", 10_000)
    (tmp_path / "bomb.1.gz").write_bytes(gzip.compress(b"x" * 1_000_000))
    with pytest.raises(Unreadable, match="too large: it unpacks to more"):
        read_bytes(str(tmp_path / "bomb.1.gz"))
    (tmp_path / "large.1").write_bytes(b"x" * 20_000)
    with pytest.raises(Unreadable, match="too large: more than"):
        read_bytes(str(tmp_path / "large.1"))


def test_formatted_pages_are_known_by_their_overstrikes() -> None:
    assert is_formatted("N\bNA\bA")
    assert not is_formatted(".SH NAME")


@pytest.mark.parametrize("name", ["two.1.gz", "two.1.bz2", "two.1.xz", "two.1.zst"])
def test_all_streams_of_a_file_are_read(tmp_path: Path, name: str) -> None:
    """As the packers themselves write it when a file is added to another one, with padding between
    them.
    """
    pack = {
        "gz": gzip.compress,
        "bz2": bz2.compress,
        "xz": lzma.compress,
        "zst": zstandard.compress,
    }[name.split(".")[2]]
    path = tmp_path / name
    path.write_bytes(pack(b"one\n") + pack(b"two\n") + b"\0" * 8 + pack(b"three\n") + b"rest")
    assert read_bytes(str(path)) == b"one\ntwo\nthree\n"
    path.write_bytes(pack(b"one\n") + pack(b"two\n" * 100)[:-9])
    with pytest.raises(Unreadable, match="its compressed data end too early"):
        read_bytes(str(path))


@pytest.mark.parametrize("pack", [gzip.compress, bz2.compress, lzma.compress, zstandard.compress])
def test_no_packing_unpacks_without_bounds(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, pack
) -> None:  # type: ignore[no-untyped-def]
    monkeypatch.setattr("dowsing.readers.decoding.MOST_BYTES", 100_000)
    path = tmp_path / "bomb.1"
    path.write_bytes(pack(b"x" * 100_000))
    assert len(read_bytes(str(path))) == 100_000
    for data in (pack(b"x" * 100_001), pack(b"x" * 60_000) * 2, pack(b"x" * 5_000_000)):
        path.write_bytes(data)
        with pytest.raises(Unreadable, match="it is too large: it unpacks to more than 0 MB"):
            read_bytes(str(path))


@pytest.mark.parametrize(
    "coding",
    ["undefined", "punycode", "idna", "hex", "zlib", "rot13", "unicode_escape", "utf-7", "x" * 300],
)
def test_a_coding_line_that_names_no_encoding(coding: str) -> None:
    assert decode(f"'\\\" -*- coding: {coding} -*-\nBlatt é \\x1b\n".encode()).endswith(
        "Blatt é \\x1b\n"
    )


def test_what_is_no_plain_file_is_not_waited_for(tmp_path: Path) -> None:
    os.mkfifo(tmp_path / "pipe.1")
    with pytest.raises(Unreadable, match="it is no plain file"):
        read_bytes(str(tmp_path / "pipe.1"))
    with pytest.raises(Unreadable, match="it is no plain file"):
        read_bytes("/dev/zero")
