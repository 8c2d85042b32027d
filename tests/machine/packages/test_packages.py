"""Package managers' own files, as small ones written for the test."""

from __future__ import annotations

import json
import sqlite3
import struct
from pathlib import Path

import pytest

from dowsing.machine.packages import dpkg, homebrew, npm, pip, rpm
from dowsing.machine.packages.owner import files, owner
from dowsing.machine.packages.package_record import Package
from dowsing.machine.settings import Settings


def write(path: Path, text: str | bytes) -> Path:
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_bytes(text.encode() if isinstance(text, str) else text)
    return path


@pytest.fixture
def lists(tmp_path: Path) -> str:
    write(tmp_path / "dpkg/info/ropes:amd64.list", "/.\n/bin/tie\n/usr/share/man/man1/tie.1.gz\n")
    write(tmp_path / "dpkg/info/other.list", "/.\n/usr/bin/untie\n")
    write(
        tmp_path / "dpkg/status",
        "Package: ropes\nVersion: 2:1.4-1\nHomepage: https://ropes.example\nDescription: ties "
        "ropes\n and more\n\nPackage: other\nVersion: 3\n",
    )
    return str(tmp_path / "dpkg")


def test_dpkg(lists: str) -> None:
    ropes = Package("ropes", "dpkg", "2:1.4-1", "https://ropes.example", "ties ropes")
    assert dpkg.owner("/bin/tie", lists) == ropes
    assert dpkg.owner("/usr/bin/tie", lists) == ropes  # /bin may be a link to /usr/bin
    assert dpkg.owner("/usr/bin/untie", lists) == Package("other", "dpkg", "3")
    assert dpkg.owner("/usr/bin/un", lists) is None
    assert dpkg.files("ropes", lists) == ["/bin/tie", "/usr/share/man/man1/tie.1.gz"]
    assert dpkg.owners(("/man/man",), lists) == {"/usr/share/man/man1/tie.1.gz": "ropes"}
    assert dpkg.descriptions(lists) == {"ropes": "ties ropes", "other": ""}


def test_dpkg_lists_of_another_root(lists: str) -> None:
    assert dpkg.owners(("/bin/",), lists, "/mnt") == {
        "/mnt/bin/tie": "ropes",
        "/mnt/usr/bin/untie": "other",
    }
    found = dpkg.owner("/mnt/bin/tie", lists, "/mnt")
    assert found is not None and found.name == "ropes"
    assert dpkg.owner("/bin/tie", lists, "/mnt") is None


def test_no_dpkg_here() -> None:
    assert dpkg.owners(("/bin/",), "/nowhere") == {}
    assert dpkg.owner("/bin/tie", "/nowhere") is None
    assert dpkg.files("ropes", "/nowhere") == []


def test_homebrew(tmp_path: Path) -> None:
    keg = tmp_path / "Cellar/ropes/1.4_1"
    tie = write(keg / "bin/tie", "#!/bin/sh\n")
    write(keg / "INSTALL_RECEIPT.json", json.dumps({"source": {"versions": {"stable": "1.4"}}}))
    write(
        keg / ".brew/ropes.rb",
        'class Ropes\n  desc "Ties ropes"\n  homepage "https://ropes.example"\nend\n',
    )
    (tmp_path / "bin").mkdir()
    (tmp_path / "bin/tie").symlink_to(tie)
    assert homebrew.owner(str(tmp_path / "bin/tie")) == Package(
        "ropes", "homebrew", "1.4", "https://ropes.example", "Ties ropes"
    )
    assert homebrew.owner(str(tmp_path / "bin")) is None
    assert str(tie) in homebrew.files(str(tmp_path / "bin/tie"))
    (keg / "INSTALL_RECEIPT.json").write_text("{")
    damaged = homebrew.owner(str(tie))
    assert damaged is not None and damaged.version == "1.4_1"


def test_npm(tmp_path: Path) -> None:
    place = tmp_path / "lib/node_modules/@ropes/tie"
    script = write(place / "cli.js", "#!/usr/bin/env node\n")
    write(place / "node_modules/inner/x.js", "")
    write(
        place / "package.json",
        json.dumps({"name": "@ropes/tie", "version": "2.0", "homepage": "https://r.example"}),
    )
    (tmp_path / "bin").mkdir()
    (tmp_path / "bin/tie").symlink_to(script)
    assert npm.owner(str(tmp_path / "bin/tie")) == Package(
        "@ropes/tie", "npm", "2.0", "https://r.example"
    )
    assert [Path(p).name for p in npm.files(str(tmp_path / "bin/tie"))] == [
        "cli.js",
        "package.json",
    ]
    (place / "package.json").write_text("[]")
    assert npm.owner(str(script)) is None


@pytest.mark.parametrize(
    ("metadata", "page"),
    [
        ("Home-page: https://tie.example\n", "https://tie.example"),
        (
            "Home-page: UNKNOWN\nProject-URL: Docs, https://d.example\nProject-URL: Homepage, "
            "https://h.example\n",
            "https://h.example",
        ),
        ("", ""),
    ],
)
def test_pip(tmp_path: Path, metadata: str, page: str) -> None:
    script = write(tmp_path / "bin/tie", "#!/usr/bin/python3\n")
    info = tmp_path / "lib/python3.12/site-packages/tie-1.0.dist-info"
    write(info / "RECORD", "../../../bin/tie,sha256=x,10\ntie/__init__.py,,\n")
    write(
        info / "METADATA",
        f"Name: tie\nVersion: 1.0\nSummary: Ties\n{metadata}\nHome-page: in the text\n",
    )
    assert pip.owner(str(script)) == Package("tie", "pip", "1.0", page, "Ties")
    assert pip.owner(str(tmp_path / "bin/untie")) is None
    assert pip.files(str(script))[1].endswith("site-packages/tie/__init__.py")


def rpm_header(tags: dict[int, list[str] | list[int]]) -> bytes:
    """A header as rpm writes it: counts, index entries, values."""
    index, store = b"", b""
    for tag, values in tags.items():
        if isinstance(values[0], int):
            store += bytes(-len(store) % 4)
            index += struct.pack(">IIII", tag, rpm.INT32, len(store), len(values))
            store += struct.pack(f">{len(values)}I", *values)
        else:
            kind = rpm.STRING if len(values) == 1 and tag < 1100 else rpm.STRING_ARRAY
            index += struct.pack(">IIII", tag, kind, len(store), len(values))
            store += b"".join(str(value).encode() + b"\x00" for value in values)
    return struct.pack(">II", len(tags), len(store)) + index + store


def test_rpm(tmp_path: Path) -> None:
    header = rpm_header(
        {
            rpm.NAME: ["ropes"],
            rpm.VERSION: ["1.4"],
            rpm.RELEASE: ["2"],
            rpm.SUMMARY: ["Ties"],
            rpm.URL: ["https://ropes.example"],
            rpm.DIR_INDEXES: [0, 1],
            rpm.BASE_NAMES: ["tie", "README"],
            rpm.DIR_NAMES: ["/usr/bin/", "/usr/share/doc/ropes/"],
        }
    )
    place = str(tmp_path / "rpmdb.sqlite")
    with sqlite3.connect(place) as db:
        db.execute("CREATE TABLE Packages(hnum INTEGER PRIMARY KEY, blob BLOB)")
        db.execute("CREATE TABLE Basenames(key TEXT, hnum INTEGER, idx INTEGER)")
        db.executemany("INSERT INTO Packages VALUES(?,?)", [(1, header), (2, b"damaged")])
        db.executemany(
            "INSERT INTO Basenames VALUES(?,?,0)", [("tie", 2), ("tie", 1), ("README", 1)]
        )
    assert rpm.owner("/usr/bin/tie", (place,)) == Package(
        "ropes", "rpm", "1.4-2", "https://ropes.example", "Ties"
    )
    assert rpm.owner("/opt/tie", (place,)) is None
    assert rpm.files("/usr/bin/tie", (place,)) == ["/usr/bin/tie", "/usr/share/doc/ropes/README"]
    assert rpm.owner("/usr/bin/tie", ("/nowhere",)) is None
    Path(place).write_bytes(b"noise")
    assert rpm.owner("/usr/bin/tie", (place,)) is None


def test_the_manager_of_a_file(tmp_path: Path, lists: str) -> None:
    settings = Settings("", "", "", None, [], package_lists=lists, package_root=str(tmp_path))
    tie = str(write(tmp_path / "bin/tie", ""))
    found = owner(tie, settings)
    assert found is not None and (found.name, found.manager) == ("ropes", "dpkg")
    assert files(tie, found, settings)[0] == tie
    (tmp_path / "link").symlink_to(tie)
    assert owner(str(tmp_path / "link"), settings) == found
