"""`resolve` and `sources`, on the demo library and on folders written for the test."""

from __future__ import annotations

import json
import re
from pathlib import Path

from conftest import Program

from dowsing.machine.settings import DEMO_LIBRARY as DEMO


def test_resolve_says_what_runs(program: Program) -> None:
    lines = program.out("--demo", "resolve", "mulch").split("\n")
    assert lines[0] == "mulch  is taken by loam itself: a builtin"
    assert lines[2] == f"1  builtin of loam {DEMO}/bin/loam  (this runs)"
    assert lines[4:8] == [
        f"2  command {DEMO}/bin/mulch",
        "   script (sh)",
        "   package fernhollow-glasshouse 4.2 (dpkg)",
        "   https://fernhollow.example/glasshouse",
    ]
    assert lines[9] == "DOCUMENTATION"


def test_resolve_in_json(program: Program) -> None:
    found = json.loads(program.out("--demo", "resolve", "mulch", "--format", "json"))
    assert (found["name"], found["runs"]["kind"], found["runs"]["shell"]) == (
        "mulch",
        "builtin",
        "loam",
    )
    assert [candidate["kind"] for candidate in found["candidates"]] == ["builtin", "command"]
    assert found["candidates"][1]["package"]["version"] == "4.2"
    assert {document["source"] for document in found["documents"]} == {
        "manual",
        "shell-manual",
        "info",
        "package",
    }
    assert found["sources"] == [f"{DEMO}/bin/mulch"]


def test_links_copies_and_a_path_in_trouble(program: Program, tmp_path: Path) -> None:
    program.man.joinpath("man1").mkdir()
    real = program.command("tie-1.4", "#!/usr/bin/env python3\n")
    (program.bin / "tie").symlink_to("tie-1.4")
    (tmp_path / "sbin").symlink_to("bin")
    path = f"{program.bin}:{tmp_path}/sbin:{tmp_path}/none:{real}"
    text = program.out("resolve", "tie", "--width", "400", PATH=path)
    assert (
        text.split("\n\nNext")[0]
        == f"""\
tie  runs {program.bin}/tie

1  command {program.bin}/tie  (this runs)
   a link: {program.bin}/tie → tie-1.4
   script (python3)
   no package is known to own it

2  command {tmp_path}/sbin/tie
   the folder is a link: {tmp_path}/sbin → bin
   a link: {program.bin}/tie → tie-1.4
   script (python3)
   the same file as {program.bin}/tie

SOURCE TEXT
   {real}

PATH
   {tmp_path}/none does not exist
   {real} is a file, not a folder"""
    )


def test_start_up_files_are_read_only_when_asked_for(program: Program) -> None:
    import shutil

    import pytest

    bash = shutil.which("bash")
    if bash is None:
        pytest.skip("bash is not installed")
    program.man.joinpath("man1").mkdir()
    program.bin.mkdir()
    (program.bin / "bash").symlink_to(bash)
    (program.folder / ".bashrc").write_text(
        "furrow() { echo dug; }\nalias furrow='spade -v'\necho noise\n"
    )
    plain = program.run("resolve", "furrow")
    assert (plain.returncode, "nothing here is named furrow" in plain.stderr) == (1, True)
    text = program.out("resolve", "furrow", "--startup")
    assert text.split("\n")[0] == "furrow  runs the alias of the start-up files of bash"
    assert "alias furrow='spade -v'" in text and "echo dug" in text
    kill = json.loads(program.out("resolve", "cd", "--startup", "--format", "json"))
    assert [candidate["kind"] for candidate in kill["candidates"]] == ["builtin"]


def test_a_subcommand_is_run_by_its_program(program: Program) -> None:
    page = ".TH X 1\n.SH NAME\n{0} \\- ties\n.SH SYNOPSIS\n{1} [-x]\n.SH D\nx\n"
    program.page("tie.1", page.format("tie", "tie"))
    program.page("tie-fast.1", page.format("tie-fast", "tie fast"))
    tie = program.command("tie", "#!/bin/sh\n")
    text = program.out("resolve", "tie", "fast", "--width", "300")
    assert text.split("\n")[:4] == [
        f"tie-fast  is a subcommand: {tie} runs it",
        "",
        f"1  subcommand of {tie}  (this runs)",
        "   script (sh)",
    ]
    assert program.out("sources", "tie", "fast").startswith(
        "tie-fast  1 of 8 sources have a text; a subcommand of tie\n"
    )


def test_pages_of_a_standard(program: Program) -> None:
    page = ".TH X {0}\n.SH NAME\ntie \\- {1}\n.SH D\n{1}\n"
    program.page("tie.1", page.format("1", "ties"))
    program.page("tie.1posix", page.format("1posix", "ties by the book"), "man1")
    program.page("knot.1p", page.format("1p", "a script").replace("tie", "knot"), "man1")
    program.page("bend.1p", page.format("1p", "what POSIX says").replace("tie", "bend"), "man1")
    assert rows(program.out("sources", "tie"))["standard"] == "yes"
    assert program.out("read", "tie", "--from", "standard").startswith(
        "tie(1posix)  ties by the book\nstandard"
    )
    assert rows(program.out("sources", "knot"))["standard"] == "no"
    assert rows(program.out("sources", "bend"))["standard"] == "yes"


def test_names_that_are_none(program: Program) -> None:
    for command in ("resolve", "sources"):
        done = program.run("--demo", command, "mulhc")
        assert (done.returncode, done.stdout) == (1, "")
        assert done.stderr.startswith("dowsing: nothing here is named mulhc; nearest names: mulch")
        assert program.run("--demo", command).returncode == 2
        assert program.run("--demo", command, "../../etc/passwd").returncode == 1
        assert program.run("--demo", command, "a\x1b[31m").returncode == 1


def rows(text: str) -> dict[str, str]:
    """Source and whether it is there, of a table; those that are there are numbered from 1 on."""
    lines = [line for line in text.split("\n\n")[1].split("\n")[1:] if line[:4].strip()]
    found = [re.match(r"(?:(\d)  |   )([\w-]+) +(yes|no|\?)", line) for line in lines]
    told = [match.groups() for match in found if match]
    numbers = [number for number, _, _ in told if number]
    assert numbers == [str(n) for n in range(1, len(numbers) + 1)]
    assert {source for _, source, there in told if there == "yes"} == {
        source for number, source, _ in told if number
    }
    return {source: there for _, source, there in told}


def test_sources_side_by_side(program: Program) -> None:
    text = program.out("--demo", "sources", "mulch")
    assert text.startswith("mulch  7 of 8 sources have a text; loam takes it itself (builtin)\n")
    assert rows(text) == {
        "builtin": "yes",
        "shell-manual": "yes",
        "builtin-usage": "yes",
        "manual": "yes",
        "usage": "yes",
        "info": "yes",
        "standard": "no",
        "package": "yes",
    }
    hollo = program.out("--demo", "sources", "hollo")
    assert rows(hollo)["usage"] == "no" and "hollo --help prints the words it is given" in " ".join(
        hollo.split()
    )


def test_programs_are_not_asked_with_no_usage(program: Program) -> None:
    assert rows(program.out("--demo", "sources", "mulch", "--no-usage"))["usage"] == "?"
    program.out("--demo", "sources", "mulch")
    assert (
        rows(program.out("--demo", "sources", "mulch", "--no-usage"))["usage"] == "yes"
    )  # it was asked before


def test_a_program_whose_help_is_another_word(program: Program) -> None:
    """Facts say what it is asked with; whether its file holds that is looked up as ever."""
    text = "usage: terraform [-help] [-deep] BED\\n\\n  -help  this\\n  -deep  dig deep\\n"
    script = (
        f'#!/bin/sh\n[ "$1" = -help ] || {{ echo "dug $1" >> dug; exit 1; }}\nprintf \'{text}\'\n'
    )
    program.command("terraform", script)
    read = program.out("read", "terraform", "--from", "usage", PATH=f"{program.bin}:/usr/bin:/bin")
    assert "-deep" in read and "dig deep" in read
    found = json.loads(
        program.out("sources", "terraform", "--format", "json", PATH=f"{program.bin}:/usr/bin:/bin")
    )
    (usage,) = [one for one in found["sources"] if one["source"] == "usage"]
    assert usage["where"] == f"{program.bin}/terraform -help"
    program.command("openssl", "#!/bin/sh\ntouch started\n")
    done = program.run("read", "openssl", "--from", "usage")
    assert "openssl does not know help (its file does not hold it)" in " ".join(done.stderr.split())
    assert not (program.folder / "started").exists() and not (program.folder / "dug").exists()


def test_differences(program: Program) -> None:
    text = program.out("--demo", "sources", "mulch", "--differences")
    assert (
        "Contradictions\n   -d, --depth has two defaults\n     manual  6\n     usage   8\n"
        "     info    6\n" in text
    )
    assert (
        "In shell-manual, not in builtin and builtin-usage\n   -r  Rake off the old mulch first.\n"
        "   variables: HEAP\n" in text
    )
    assert "the builtin of loam has not\n   -k, --kind  What to spread" in text
    assert text.index("Contradictions") < text.index("In shell-manual, not in")


def test_which_texts_are_compared(program: Program) -> None:
    text = program.out("--demo", "sources", "mulch", "--differences", "--width", "200")
    assert text.startswith("mulch  6 texts compared; loam takes it itself (builtin)\n")
    assert "The builtin of loam (loam 1.7-2)\n   builtin        loam: builtin\n" in text
    assert ", the entry in BUILTIN COMMANDS\n" in text
    assert "bin/mulch (fernhollow-glasshouse 4.2)\n   manual         mulch(1) " in text
    assert "(texts about the whole package)" in text
    alone = program.out("--demo", "sources", "bedplan", "--differences")
    assert alone.startswith("bedplan  1 text, nothing to compare it with; ")


def test_a_section_that_is_asked_for_is_what_is_compared(program: Program) -> None:
    program.page("tine.1", ".TH TINE 1\n.SH OPTIONS\n.TP\n.B \\-a\nall\n")
    program.page("tine.3", ".TH TINE 3\n.SH NAME\ntine \\- a function\n")
    program.command("tine", "#!/bin/sh\n: --help\necho 'Usage: tine [-a]'\n")
    found = json.loads(program.out("sources", "tine(3)", "--differences", "--format", "json"))
    assert [row["where"].split()[0] for row in found["sources"]] == ["tine(3)"]
    assert {one["reason"] for one in found["left_out"]} == {"other section"}
    found = json.loads(program.out("sources", "tine", "--differences", "--format", "json"))
    assert [row["source"] for row in found["sources"]] == ["manual", "usage"]


def test_a_page_that_is_not_of_the_installed_program(program: Program) -> None:
    text = program.out("--demo", "sources", "mulch", "--stale")
    assert text.startswith("mulch  the page against the program, fernhollow-glasshouse 4.2\n")
    assert (
        "The program has it, its page has not\n   --fleece  lay fleece below the mulch\n\n"
        "The page has it, the program’s usage text has not\n   --renew  Take away the mulch" in text
    )
    found = json.loads(program.out("--demo", "sources", "mulch", "--stale", "--format", "json"))
    assert (found["differs"], found["partial"], found["page_date"]) == (True, False, "2026-03-03")
    assert [one["item"] for one in found["lacking"]] == ["--fleece"]
    done = program.run("--demo", "sources", "row", "--stale")
    assert (done.returncode, done.stderr) == (
        1,
        "dowsing: there is no usage text of row to compare: no program of that name on PATH\n",
    )
    assert "nothing here is named zzz" in program.run("--demo", "sources", "zzz", "--stale").stderr


def test_a_usage_text_that_says_that_it_is_not_all(program: Program) -> None:
    program.page("tine.1", ".TH TINE 1\n.SH OPTIONS\n.TP\n.B \\-a\nall\n.TP\n.B \\-\\-deep\nd\n")
    program.command(
        "tine", "#!/bin/sh\necho 'Usage: tine [-a]'\necho ' -a  all'\n"
        "echo 'This is not the full help; --help all has it.'\n",
    )  # fmt: skip
    found = json.loads(program.out("sources", "tine", "--stale", "--format", "json"))
    assert (found["partial"], found["differs"]) == (True, False)
    assert "says nothing." in program.out("sources", "tine", "--stale")


def test_one_passage_of_each_text(program: Program) -> None:
    text = program.out("--demo", "sources", "mulch", "--passage", "HEAP", "--width", "120")
    assert text.startswith(
        "mulch\n\nWhat the texts say of HEAP\n\n   shell-manual, BUILTIN COMMANDS"
    )
    assert "Nothing about HEAP in: builtin, builtin-usage, usage\n" in text
    wide = program.out("--demo", "sources", "mulch", "--passage=-d", "--width", "130").split("\n")
    assert [word.rstrip(",") for word in wide[4].split() if not word[0].isupper()] == [
        "builtin", "shell-manual", "builtin-usage",
    ]  # fmt: skip
    found = json.loads(
        program.out("--demo", "sources", "mulch", "--passage=-d", "--format", "json")
    )
    by_source = {one["source"]: one for one in found["passages"]}
    assert by_source["manual"]["parts"] == [
        "-d, --depth=cm",
        "Spread it so deep. The default is 6.",
    ]
    assert "default" not in by_source["manual"]["only"]
    done = program.run("--demo", "sources", "mulch", "--passage", "zebra")
    assert (done.returncode, "says anything of “zebra”" in done.stderr) == (1, True)
    assert program.run("--demo", "sources", "mulch", "--passage", " ").returncode == 2


def test_texts_of_a_package_count_only_where_they_name_the_command(program: Program) -> None:
    found = json.loads(program.out("--demo", "sources", "row", "--format", "json"))
    (row,) = [one for one in found["sources"] if one["source"] == "package"]
    assert (row["present"], row["note"].startswith("does not name it")) == (False, True)
    found = json.loads(program.out("--demo", "sources", "mulch", "--format", "json"))
    assert True in [one["present"] for one in found["sources"] if one["source"] == "package"]


def test_differences_of_two_sources(program: Program) -> None:
    text = program.out("--demo", "sources", "mulch", "--differences", "manual", "builtin")
    assert re.search(r"\n   manual +builtin\n", text)
    assert "--renew\n   Take away the mulch of last year       not there\n   first." in text
    assert program.run("--demo", "sources", "mulch", "--differences", "manual").returncode == 2
    done = program.run("--demo", "sources", "mulch", "--differences", "manual", "standard")
    assert (
        done.returncode,
        "there is no text in the source standard to compare" in done.stderr,
    ) == (1, True)


def test_sources_in_json(program: Program) -> None:
    found = json.loads(
        program.out("--demo", "sources", "mulch", "--differences", "--format", "json")
    )
    assert list(found) == ["name", "resolution", "sources", "left_out", "differences"]
    assert {one["reason"] for one in found["left_out"]} == {"package"}
    assert [one["kind"] for one in found["resolution"]] == ["builtin", "command"]
    usage = next(row for row in found["sources"] if row["source"] == "usage")
    assert (usage["present"], usage["words"], usage["same_as"]) == (True, 61, None)
    assert {"option", "default", "variable", "file"} <= {
        one["what"] for one in found["differences"]
    }
    both = json.loads(
        program.out(
            "--demo", "sources", "mulch", "--differences", "manual", "usage", "--format", "json"
        )
    )
    assert both["wordings"][0] == {
        "item": "-d, --depth",
        "one": "Spread it so deep. The default is 6.",
        "other": "spread it CM centimetres deep (default: 8)",
    }


def test_a_path_with_many_commands(program: Program) -> None:
    program.man.joinpath("man1").mkdir()
    program.bin.mkdir()
    for n in range(4_000):
        (program.bin / f"c{n}").write_text("#!/bin/sh\n")
        (program.bin / f"c{n}").chmod(0o755)
    assert program.out("find", "c*", "--count") == "4000\n"
    assert program.out("find", "c3999").split("\n")[0] == "1  c3999  no manual page"
    (program.bin / "c3999").unlink()
    assert program.run("find", "c3999").returncode == 1


def test_several_names_are_resolved_each(garden: Program) -> None:
    for name in ("vent", "mist"):
        garden.command(name, "#!/bin/sh\n")
    text = garden.out("resolve", "vent", "mist", "--width", "200")
    assert text.startswith(f"vent  runs {garden.bin}/vent")
    assert f"\nmist  runs {garden.bin}/mist" in text
    rows = json.loads(garden.out("resolve", "vent", "mist", "--format", "json"))
    assert [row["name"] for row in rows] == ["vent", "mist"]
