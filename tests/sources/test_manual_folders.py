"""Which folders hold manual pages."""

from __future__ import annotations

from pathlib import Path

import pytest

from dowsing.machine.settings import Settings
from dowsing.sources.manual_folders import language_folders, language_of, roots, section_folders


def settings(tmp_path: Path, man_path: str | None = None) -> Settings:
    """Settings whose system's files stand below the test's folder."""
    return Settings("", "", "", man_path, [str(tmp_path / "bin")], package_root=str(tmp_path))


def folder(path: Path) -> str:
    path.mkdir(parents=True)
    return str(path)


@pytest.mark.parametrize(
    ("file", "line", "taken"),
    [
        ("manpath.config", "MANDATORY_MANPATH {0}", True),
        ("manpath.config", "MANPATH_MAP {1} {0}  # for programs", True),
        ("manpath.config", "MANPATH_MAP /elsewhere {0}", False),  # no folder of PATH
        ("manpath.config", "#MANDATORY_MANPATH {0}", False),
        ("manpath.config", "MANDB_MAP {0} /var/cache", False),
        ("man.conf", "manpath {0}", True),
        ("man.conf", "MANPATH {0}", True),
        ("man.conf", "manpath relative", False),
        ("man.conf", "manpath", False),
    ],
)
def test_folders_that_the_systems_files_name(
    tmp_path: Path, file: str, line: str, taken: bool
) -> None:
    named = folder(tmp_path / "named")
    (tmp_path / "etc").mkdir()
    (tmp_path / "etc" / file).write_text(line.format(named, tmp_path / "bin") + "\n")
    assert (named in roots(settings(tmp_path))) is taken
    assert named not in roots(settings(tmp_path, man_path=str(tmp_path)))


def test_sections_architectures_and_languages(tmp_path: Path) -> None:
    man = tmp_path / "man"
    for name in ("man1", "man4/amd64", "cat1", "manly", "de/man1", "pt_BR.UTF-8/man1", "doc/x"):
        folder(man / name)
    names = [path.removeprefix(f"{man}/") for path in section_folders(str(man))]
    assert names == ["cat1", "man1", "man4", "man4/amd64"]
    found = [path.removeprefix(f"{man}/") for path in language_folders(str(man), "pt_BR")]
    assert found == ["pt_BR.UTF-8", "de", "doc"]
    own = settings(tmp_path, man_path=str(man))
    assert language_of(str(man / "de" / "man1" / "x.1"), own) == "de"
    assert language_of(str(man / "man1" / "x.1"), own) == ""
    elsewhere = tmp_path / "base" / "15" / "man" / "man1" / "x.1"
    assert language_of(str(elsewhere), own) == ""  # a manual folder, and no language called so
    short = settings(tmp_path, man_path=folder(tmp_path / "fr"))
    assert language_of(str(tmp_path / "fr" / "man1" / "x.1"), short) == ""  # a folder of MANPATH
