"""Names that a repository has, read out of its files."""

from __future__ import annotations

from pathlib import Path

import pytest

from dowsing.commandline.expecting import what_next
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.machine.git_names import branches, remotes


@pytest.fixture
def repository(tmp_path: Path) -> Path:
    place = tmp_path / ".git"
    for name in ("refs/heads/main", "refs/heads/beds/north", "refs/tags/v1"):
        (place / name).parent.mkdir(parents=True, exist_ok=True)
        (place / name).write_text("0" * 40 + "\n")
    packed = [f"{'1' * 40} refs/heads/old", f"{'2' * 40} refs/remotes/origin/main", "^" + "3" * 40]
    (place / "packed-refs").write_text("# pack-refs with: peeled\n" + "\n".join(packed) + "\n")
    (place / "config").write_text('[core]\n\tbare = false\n[remote "origin"]\n\turl = x\n')
    return tmp_path


def test_branches_tags_and_remotes(repository: Path) -> None:
    below = repository / "deep" / "er"
    below.mkdir(parents=True)
    assert branches(str(below)) == ["beds/north", "main", "old", "origin/main", "v1"]
    assert remotes(str(below)) == ["origin"]


def test_where_there_is_no_repository(tmp_path: Path) -> None:
    assert (branches(str(tmp_path)), remotes(str(tmp_path))) == ([], [])


def test_they_are_offered_where_they_fit(
    repository: Path, facts_finder: CommandFinder, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.chdir(repository)

    def offered(line: str) -> list[str] | None:
        return next(one.values for one in what_next(line, facts_finder).expects if one.placeholder)

    assert offered("git push ") == ["origin"]
    assert offered("git push origin m") == ["main"]
    assert offered("git checkout beds") == ["beds/north"]


def test_variables(facts_finder: CommandFinder, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("GLASSHOUSE", "x")
    [found] = what_next("cp $GLASSH", facts_finder).expects
    assert found.values == ["$GLASSHOUSE"]
    [found] = what_next("cp ${GLASSH", facts_finder).expects
    assert found.values == ["${GLASSHOUSE}"]
