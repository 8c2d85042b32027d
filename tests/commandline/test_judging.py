"""What is wrong with a line that can be read: each rule, and what it must leave alone."""

from __future__ import annotations

from pathlib import Path

import pytest

from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.index.store import Store
from dowsing.ingest.build import build as build_index
from dowsing.machine.settings import Settings
from dowsing.render.piece_text import mistakes_of


def judged(line: str, finder: CommandFinder) -> list[tuple[str, str, list[str]]]:
    """The places that are marked, with what is said and offered."""
    return [(line[a:b], says, near) for a, b, says, near in mistakes_of(unpick(line, finder))]


@pytest.mark.parametrize(
    ("line", "place", "says", "nearest"),
    [
        ("cp a.txt", "cp a.txt", "missing operand: cp needs DEST", []),
        ("sleep", "sleep", "missing operand: sleep needs DURATION", []),
        ("tr -d", "tr -d", "missing operand: tr needs SET1", []),
        ("date +%F %T", "%T", "one word too many: date has no place for it", []),
        ("chmod 888 f", "888", "value of a wrong kind: a mode is wanted here", []),
        ("sleep now", "now", "value of a wrong kind: a time is wanted here", []),
        ("dd in=a of=b", "in=a", "wrong operand: dd has no in", ["if"]),
        ("dd if=a bs=4MX", "4MX", "value of a wrong kind: there is no such unit", []),
        ("dd conv=ucase,sinc", "ucase,sinc", "value of a wrong kind: one of", ["sync"]),
        ("find . -type x", "x", "value of a wrong kind: one of b, c, d, p, f, l", []),
        ("find . -size 10Q", "10Q", "value of a wrong kind: there is no such unit", []),
        ("sleep 5y", "5y", "value of a wrong kind: there is no such unit", []),
        ("timeout 5", "timeout 5", "missing operand: timeout needs the command to run", []),
        ("tar -c -f a.tar", "tar -c -f a.tar", "missing operand: tar needs FILE", []),
        ("dd if=a of=", "of", "missing value: of needs FILE", []),
        ("sort -k f", "f", "value of a wrong kind: a key is the number of a field", []),
        ("tar -f a.tar", "tar", "tar needs one of -A, -c, -d,", []),
        ("tar -c -x -f a.tar b", "-x", "-x and -c rule each other out", []),
        ("cut -d : f", "cut", "cut needs one of -b, -c, -f to do anything", []),
        ("sort f > f", "> f", "f is emptied before it is read", []),
        ("cat a b | sort > ./a", "> ./a", "./a is emptied before it is read", []),
        ("sed s/a/b f", "s", "unfinished program: s needs three /", []),
        ("jq '.[' f", "[", "unfinished program: [ is not closed", []),
        ("awk '{print' f", "{", "unfinished program: { is not closed", []),
        ("grep -E 'a(b' f", "(", "unfinished program: ( is not closed", []),
        (
            "find . -name *.c",
            "*.c",
            "careful: the shell may replace this by names of files before find sees it",
            ["'*.c'"],
        ),
        (
            "find . -delete -name '*.c'",
            "-delete",
            "careful: -delete acts before -name is looked at, on everything; put it last",
            [],
        ),
        ("find . -name x src", "src", "src is a path and must stand before -name", []),
        ("bash -c 'sort f > f'", "> f", "f is emptied before it is read", []),
        ("cut -d : -c 1 f", "-d", "careful: -d does nothing without -f", []),
        ('echo "so!soon"', '"so!soon"', "careful: typed at a prompt, !soon is replaced", []),
        ("ssh-keygen -t ed52519", "ed52519", "value of a wrong kind: one of dsa", ["ed25519"]),
        ("cut -f1 a | uniq -c", "uniq", "careful: uniq looks only at lines next to each other", []),
        ("find . -name '*.o' | xargs rm", "xargs", "careful: xargs splits names at blanks", []),
        (
            "cat f | rows.json",
            "rows.json",
            "careful: rows.json stands where a command must stand",
            [],
        ),
        (
            "sudo cp a b > /etc/motd",
            "> /etc/motd",
            "careful: the shell opens /etc/motd with your rights",
            [],
        ),
        ("sort f 2>&1 > g", "2>&1", "careful: errors go where the output went before > g", []),
        (
            "curl http://x/?a=1&b=2",
            "&",
            "careful: without quotes the shell ends the command here",
            ["'http://x/?a=1&…'"],
        ),
        (
            "grep requests>=2.0",
            ">=2.0",
            "careful: without quotes the shell writes the output to a file called =2.0",
            ["'requests>=2.0'"],
        ),
        (
            "NAME = value",
            "=",
            "careful: with blanks around it, “=” is a word of its own",
            ["NAME=value"],
        ),
        (
            "cd build; rm -rf *",
            ";",
            "careful: if cd fails, rm does its work in this folder",
            ["&&"],
        ),
        (
            'for f in $(ls); do cat "$f"; done',
            "$(ls)",
            "careful: names with blanks become several words",
            [],
        ),
        (
            'while read -r h; do ssh "$h" ls; done < hosts',
            "ssh",
            "careful: ssh reads the rest of what the loop is to read",
            [],
        ),
        (
            'awk "{print $1}" f',
            '"{print $1}"',
            "careful: within double quotes the shell replaces $1 before awk sees it",
            ["'{print $1}'"],
        ),
        ("tar -cf docs docs.tar", "docs", "careful: docs is what -f writes", []),
        ("gcc -o main.c main.o", "main.c", "careful: main.c is what -o writes", []),
        (
            "rm $name",
            "$name",
            "careful: without quotes the shell makes several words of $name",
            ['"$name"'],
        ),
        (
            'rm -r "$dir"/*',
            '"$dir"/*',
            "careful: if dir is empty or not set, this is the root folder",
            [],
        ),
        (
            "find . -name a -o -name b -print",
            "-print",
            "careful: -print counts only for what stands behind the last -o",
            [],
        ),
    ],
)
def test_what_is_wrong(
    facts_finder: CommandFinder, line: str, place: str, says: str, nearest: list[str]
) -> None:
    found = judged(line, facts_finder)
    assert [(one[0], one[2]) for one in found] == [(place, nearest)]
    assert found[0][1].startswith(says)


@pytest.mark.parametrize(
    "line",
    [
        "cp a b c d",
        "cp -t d a",
        "cp $files",
        "cp --help",
        "ls | xargs cp -t d",
        "xargs rm",
        "find . -name '*.c' -exec rm {} +",
        "find . -name \\*.c",
        "find . '(' -name a -o -name b ')' -delete",
        "sort -o f f",
        "sort f > g",
        "sort f >> f",
        "cat a > /dev/null",
        "echo a > a",
        "tar --version",
        "tar xf a.tar",
        "tar -c -f a.tar -T list",
        "timeout 5 ls",
        "timeout --help",
        "sort -k2,2nr -k1.3b f",
        "chmod $mode f",
        "chmod u=rwx,g-w f",
        "dd if=a of=b bs=4M conv=sync,noerror",
        "date -d tomorrow +%F",
        'sed "s/a/$x/" f',
        "sed -n '<line>p' f",
        "grep -F 'a[b' f",
        "grep -e 'a\\(b\\)' f",
        "tr a-z A-Z",
        "cut -f1 --complement f",
        "sleep 1m 30s",
        "kill -9 -1",
        "sudo cp a b",
        "parallel sleep {}\\; echo {} ::: 1 2",
        'watch -n 1 "df -h"',
        "cut -d : f1 -f 1",
        'echo "so!"',
        'echo "so! soon"',
        "echo 'so!soon'",
        'echo "${!name}"',
        "echo '\"so!soon\"'",
        "curl --no-silent x",
        "cd a b",
        "sort a | cut -f1 | uniq -c",
        "uniq -c a",
        "find . -name '*.o' -exec rm {} + | xargs -0 ls",
        "sudo cp a b > /home/mira/log",
        "cat f > /etc/motd",
        "sort f 2>&1 > g | cat",
        "sort f > g 2>&1",
        "curl 'http://x/?a=1&b=2'",
        "curl http://x/ &",
        "test a = b",
        "cd build && rm -rf *",
        "cd build; rm -rf out",
        'for f in *.txt; do cat "$f"; done',
        'while read -r h; do ssh "$h" ls < /dev/null; done < hosts',
        "ssh h ls < f",
        "awk '{print $1}' f",
        'awk "{print \\$1}" f',
        "tar -cf docs.tar docs",
        "cat $name",
        "find . -name '*.o' | xargs cat",
        "[ $a = b ]",
        "docker run nginx ls -p",
        "find . -name a -print -o -name b -print",
        "find . '(' -name a -o -name b ')' -print",
    ],
)
def test_what_is_right(facts_finder: CommandFinder, line: str) -> None:
    assert judged(line, facts_finder) == []


def test_a_warning_is_no_mistake(facts_finder: CommandFinder) -> None:
    warned = unpick("find . -name *.c", facts_finder)
    wrong = unpick("cp a", facts_finder)
    assert (warned.mistaken, wrong.mistaken) == (False, True)


@pytest.mark.parametrize(
    ("programs", "is_mistake"), [("usr/bin", True), ("usr/local/bin", False), ("", True)]
)
def test_a_page_of_another_version_accuses_nobody(
    tmp_path: Path, programs: str, is_mistake: bool
) -> None:
    """The page below /usr says nothing of a program below /usr/local."""
    root = tmp_path / "usr" / "share" / "man"
    (root / "man1").mkdir(parents=True)
    items = "".join(f".TP\n\\-{letter}\nWords.\n" for letter in "abcdefgh")
    page = f".TH SOW 1\n.SH NAME\nsow \\- sow seeds\n.SH OPTIONS\n{items}"
    (root / "man1" / "sow.1").write_text(page)
    folder = tmp_path / programs
    if programs:
        folder.mkdir(parents=True)
        (folder / "sow").write_text("#!/bin/sh\n")
        (folder / "sow").chmod(0o755)
    settings = Settings("", "", "", str(root), [str(folder)], info_path=str(root / "none"))
    build_index(str(tmp_path / "i.sqlite"), settings, [str(root)])
    finder = CommandFinder(Store(str(tmp_path / "i.sqlite")), settings)
    assert unpick("sow -x", finder).mistaken is is_mistake
