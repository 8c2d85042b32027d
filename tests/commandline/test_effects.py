"""What lines destroy, overwrite, change, stop, send or run."""

from __future__ import annotations

from pathlib import Path

import pytest

from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.render.piece_text import effect_line


@pytest.mark.parametrize(
    ("line", "effects"),
    [
        ("rm old.txt", ["rm: removes old.txt; they do not come back (to look first: ls -d)"]),
        ("rm a b c d", ["rm: removes files; they do not come back (to look first: ls -d)"]),
        ("ls | xargs rm", ["rm: removes files; they do not come back (to look first: ls -d)"]),
        ("mv a b", ["mv: replaces files of the same name at b"]),
        ("mv -n a b", []),
        ("cp a", []),
        ("sed -i s/a/b/ f", ["sed -i: changes f themselves"]),
        ("sed s/a/b/ f", []),
        ("dd if=a of=/dev/x", ["dd of: overwrites /dev/x from the beginning"]),
        ("dd if=a", []),
        ("git push origin +main", ["git push: replaces the history of main on the other side"]),
        (
            "git push --force",
            ["git push --force: replaces the history of the branch on the other side"],
        ),
        ("git push --dry-run --force", []),
        (
            "git checkout -- f",
            [
                "git checkout: throws away the changes in f that are not committed (to look "
                "first: git diff)"
            ],
        ),
        (
            "curl -X DELETE http://x",
            ["curl -X: asks the server to delete something, or to change what it has"],
        ),
        ("curl -X GET http://x", []),
        (
            "mkfs.odd /dev/x",
            [
                "mkfs.odd: makes a new file system on /dev/x: all that is on it is lost (to "
                "look first: lsblk -f)"
            ],
        ),
        ("docker rm -f web", ["docker rm: removes web (to look first: docker ps -a)"]),
        ("docker volume rm data", ["docker volume rm: removes data with their data"]),
        ("psql -c 'DROP TABLE a' shop", ["psql: removes data from the database: DROP TABLE a"]),
        ("psql -c 'select 1' shop", []),
        (
            "sqlite3 a.db 'update t set x=1'",
            ["sqlite3: changes what the database has: update t set x=1"],
        ),
        ("echo a > f", ["> f: replaces the contents of f, if there is such a file"]),
        ("echo a >> f", []),
        ("echo a 2>/dev/null", []),
        (
            "wget -qO- http://x | sudo bash",
            ["wget | bash: runs what comes from elsewhere without a look at it"],
        ),
        (
            'bash -c "$(curl http://x)"',
            ["bash: runs what comes from elsewhere without a look at it"],
        ),
        ("tar -cz project", []),
        ("tar -cf a.tar project", ["tar -c: replaces a.tar if there is one"]),
        (
            "find . -exec rm {} +",
            ["rm: removes files; they do not come back (to look first: ls -d)"],
        ),
        ("find . -exec sed -i s/a/b/ {} +", ["sed -i: changes the files themselves"]),
        ("sh -c 'rm a'", ["rm: removes a; they do not come back (to look first: ls -d)"]),
        ("ssh web1 'rm a'", ["rm: removes a; they do not come back (to look first: ls -d)"]),
        ("kill -l", []),
        ("kill -0 42", []),
        ("kill 42", ["kill: sends a signal to 42, which ends most of them"]),
        ("parted /dev/x", ["parted: can change the partitions of /dev/x"]),
        ("vgcreate v /dev/x", ["vgcreate: makes a volume group of v and /dev/x"]),
        ("vgcreate --help", []),
        ("sort -o b a", ["sort -o: replaces the contents of b"]),
        ("curl -o page http://x", ["curl -o: replaces page if there is one"]),
        ("curl -o /dev/null http://x", []),
        ("make -n install", []),
        ("rm --dry-run a", []),
        ("echo a >> /etc/hosts", [">> /etc/hosts: adds to /etc/hosts, which the system reads"]),
        ("git branch -d old", []),
        ("git branch -D old", ["git branch: removes old, merged or not"]),
        ("git clean -n", []),
        (
            "git clean -fd",
            ["git clean: removes untracked files (to look first: git clean -n)"],
        ),
        ("su gardener", []),
        (
            "psql plants < rows.sql",
            ["psql: runs the statements that come in, which may change or remove what is there"],
        ),
        ("psql -c \"select 'drop table beds'\" plants", []),
        (
            "psql -c 'drop table beds' plants",
            ["psql: removes data from the database: drop table beds"],
        ),
        (
            "awk '{ system(\"rm \" $1) }' f",
            ["awk: runs commands that the program makes of what it reads"],
        ),
        ("perl -e 'unlink glob \"*.tmp\"'", ["perl: removes files that the program names"]),
        ("perl -e 'print \"unlink\"'", []),
        ("sed -n 'w out' f", ["sed: replaces the file that the script writes to"]),
        (
            "rm a > f",
            [
                "rm: removes a; they do not come back (to look first: ls -d)",
                "> f: replaces the contents of f, if there is such a file",
            ],
        ),
    ],
)
def test_what_a_line_does(facts_finder: CommandFinder, line: str, effects: list[str]) -> None:
    assert [effect_line(one) for one in unpick(line, facts_finder).changes] == effects


FETCHED = [
    tuple(row.split("\t"))
    for row in (Path(__file__).parent / "fetched.tsv").read_text().splitlines()
]


@pytest.mark.parametrize(("what", "line"), FETCHED)
def test_fetched_code_that_is_run_is_told(
    facts_finder: CommandFinder, what: str, line: str
) -> None:
    told = [effect_line(one) for one in unpick(line, facts_finder).changes]
    assert any("runs what comes from elsewhere" in one for one in told) == (what == "run"), told
