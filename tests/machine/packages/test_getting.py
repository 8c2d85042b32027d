"""How a package that is not here is brought."""

from __future__ import annotations

from pathlib import Path

import pytest

from dowsing.machine.packages.getting import how_to_get

LISTS = "Package: tie\nVersion: 1\n\nPackage: rake-tools\nVersion: 2\n"


@pytest.mark.parametrize(
    ("package", "expected"),
    [
        ("pip:sow", "pip install sow"),
        ("npm:@bed/sow", "npm install -g @bed/sow"),
        ("cargo:sow", "cargo install sow"),
        ("brew:sow", "brew install sow"),
        ("alpine:sow", "package sow of alpine"),
        ("macos", "a part of macOS"),
        ("tie", "sudo apt install tie"),
        ("rake-tools", "sudo apt install rake-tools"),
        ("rake", "package rake (its name in Debian)"),
        ("a b; rm", ""),
    ],
)
def test_the_line_that_installs_it(tmp_path: Path, package: str, expected: str) -> None:
    """apt is told only where it is here, and its lists have the name."""
    apt = tmp_path / "bin" / "apt"
    apt.parent.mkdir()
    apt.write_text("#!/bin/sh\n")
    apt.chmod(0o755)
    (tmp_path / "a_Packages").write_text(LISTS)
    (tmp_path / "b_Packages").write_text("")
    (tmp_path / "c_Packages.lz4").write_text("Package: rake\n")
    assert how_to_get(package, [str(apt.parent)], str(tmp_path)) == expected


def test_without_a_package_manager(tmp_path: Path) -> None:
    (tmp_path / "a_Packages").write_text(LISTS)
    assert how_to_get("tie", [], str(tmp_path)) == "package tie (its name in Debian)"
    assert how_to_get("tie", [], str(tmp_path / "none")) == "package tie (its name in Debian)"
