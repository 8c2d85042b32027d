"""What is refused before anything is run, and whether a program knows a flag."""

from __future__ import annotations

import os
from pathlib import Path

import pytest

from dowsing.machine.sandbox.flag_check import elf_libraries, knows_flag
from dowsing.machine.sandbox.refusal import never_run, refusal


def script(folder: Path, name: str, text: str, mode: int = 0o755) -> Path:
    path = folder / name
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_text(text)
    path.chmod(mode)
    return path


@pytest.mark.parametrize(
    "name",
    ["shutdown", "mkfs.ext4", "fdisk", "userdel", "passwd", "apt-get", "dpkg-divert", "sudo"],
)
def test_names_that_are_never_run(name: str) -> None:
    assert never_run(name) is not None


@pytest.mark.parametrize("name", ["ls", "shut", "mkdir", "format-text", "kill", "usermode", "tine"])
def test_names_that_may_be_run(name: str) -> None:
    assert never_run(name) is None


def test_only_programs_on_path(tmp_path: Path) -> None:
    tine = str(script(tmp_path, "tine", "#!/bin/sh\n"))
    assert refusal(tine, [str(tmp_path)]) is None
    assert refusal(tine, [str(tmp_path / "other")]) == "it is not in a folder of PATH"
    assert refusal("tine", [""]) == "it is not in a folder of PATH"
    assert refusal(tine, ["."]) == "it is not in a folder of PATH"


def test_links_do_not_hide_what_is_refused(tmp_path: Path) -> None:
    target = script(tmp_path / "sbin", "poweroff", "#!/bin/sh\n")
    (tmp_path / "goodnight").symlink_to(target)
    assert refusal(str(tmp_path / "goodnight"), [str(tmp_path)]) == (
        f"it leads to {target}: it turns the machine off or restarts it"
    )


def test_rights_of_others_and_no_rights(tmp_path: Path) -> None:
    path = script(tmp_path, "tine", "#!/bin/sh\n", 0o4755)
    if path.stat().st_mode & 0o4000:
        assert (
            refusal(str(path), [str(tmp_path)])
            == "it runs with the rights of another user (set-uid)"
        )
    plain = script(tmp_path, "plain", "#!/bin/sh\n", 0o644)
    assert refusal(str(plain), [str(tmp_path)]) == "it may not be executed"
    (tmp_path / "folder").mkdir()
    assert refusal(str(tmp_path / "folder"), [str(tmp_path)]) == "it is not a file"
    (tmp_path / "lost").symlink_to("nowhere")
    assert refusal(str(tmp_path / "lost"), [str(tmp_path)]) == "no such file or directory"


def test_scripts_that_know_the_flag(tmp_path: Path) -> None:
    assert knows_flag(str(script(tmp_path, "one", "#!/bin/sh\ncase $1 in --help) echo;; esac\n")))
    assert knows_flag(str(script(tmp_path, "two", "#!/usr/bin/python3\nimport argparse\n")))
    assert not knows_flag(
        str(script(tmp_path, "three", '#!/bin/sh\n# knows no --help\nrm -rf "$HOME"\n'))
    )
    assert not knows_flag(str(tmp_path / "none"))


def test_what_a_script_starts_with_is_looked_at(tmp_path: Path) -> None:
    script(tmp_path, "lib/tine.sh", "case $1 in --help) ;; esac\n")
    assert knows_flag(
        str(script(tmp_path, "bin/tine", '#!/bin/sh\n. "$(dirname "$0")/../lib/tine.sh"\n'))
    )
    script(tmp_path, "lib/python3.12/site-packages/rakes/cli/main.py", "import click\n")
    assert knows_flag(
        str(script(tmp_path, "bin/rakes", "#!/usr/bin/env python3\nfrom rakes.cli import main\n"))
    )
    assert not knows_flag(
        str(script(tmp_path, "bin/rakez", "#!/usr/bin/env python3\nfrom rakez.cli import main\n"))
    )
    script(tmp_path, "bin/inner", "#!/bin/sh\n[ $1 = --help ]\n")
    assert knows_flag(str(script(tmp_path, "bin/outer", '#!/bin/sh\nexec inner -v "$@"\n')))


def test_npm_and_scripts_that_start_each_other(tmp_path: Path) -> None:
    script(tmp_path, "lib/node_modules/tine/lib/deep/args.js", "if (a === '--help') {}\n")
    script(
        tmp_path,
        "lib/node_modules/tine/bin/tine.js",
        "#!/usr/bin/env node\nrequire('../lib/main')\n",
    )
    (tmp_path / "bin").mkdir()
    (tmp_path / "bin/tine").symlink_to("../lib/node_modules/tine/bin/tine.js")
    assert knows_flag(str(tmp_path / "bin/tine"))
    script(tmp_path, "a", '#!/bin/sh\nexec ./b "$@"\n')
    script(tmp_path, "b", '#!/bin/sh\nexec ./a "$@"\n')
    assert not knows_flag(str(tmp_path / "a"))


def test_binaries_by_what_they_hold(tmp_path: Path) -> None:
    head = b"\x7fELF\x02\x01" + bytes(58)
    for n, (data, known) in enumerate(
        [
            (b"\x00version\x00help\x00", True),
            (b"Try --help for more", True),
            (b"helpless", False),
            (b"", False),
        ]
    ):
        path = tmp_path / f"binary{n}"
        path.write_bytes(head + data)
        assert knows_flag(str(path)) is known, data


def test_damaged_binaries_do_no_harm() -> None:
    for size in range(0, 70, 7):
        assert elf_libraries(b"\x7fELF\x02\x01" + bytes(size), "/bin/x") == []
    assert elf_libraries(b"\x7fELF\x02\x01" + b"\xff" * 200, "/bin/x") == []


@pytest.mark.skipif(not os.path.exists("/bin/ls"), reason="needs a program")
def test_a_real_program() -> None:
    with open("/bin/ls", "rb") as file:
        compiled = file.read(4) == b"\x7fELF"
    if not compiled:
        pytest.skip("ls is no program of its own here")
    assert knows_flag("/bin/ls")


def test_each_name_on_the_way_to_a_program_counts(tmp_path: Path) -> None:
    """`tidy` is a link to `shutdown`, which is one to a program that acts by the name it was called
    by.
    """
    (tmp_path / "many").write_text("#!/bin/sh\n")
    (tmp_path / "many").chmod(0o755)
    (tmp_path / "far").mkdir()
    (tmp_path / "far" / "shutdown").symlink_to("../many")
    (tmp_path / "tidy").symlink_to("far/shutdown")
    (tmp_path / "plain").symlink_to("many")
    told = refusal(str(tmp_path / "tidy"), [str(tmp_path)])
    assert told == f"it leads to {tmp_path}/far/shutdown: it turns the machine off or restarts it"
    assert refusal(str(tmp_path / "plain"), [str(tmp_path)]) is None
