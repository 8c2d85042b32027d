"""`read` from all sources, on the demo library and on programs written for the test."""

from __future__ import annotations

import json

import pytest
from conftest import Program

pytestmark = pytest.mark.usefixtures("program")


def below_head(text: str) -> str:
    return text.split("\n\n", 1)[1]


def demo(program: Program, *words: str) -> str:
    return program.out("--demo", *words)


def test_what_the_shell_runs_is_read_first(program: Program) -> None:
    text = demo(program, "read", "mulch")
    assert text.startswith(
        "mulch(builtin)  Cover the bed you stand in\nbuiltin of loam, its own help"
    )
    others = "shell-manual, manual, usage (not asked), info, package"
    assert f"other sources (--from): {others}\n" in text
    assert below_head(text).startswith("SYNOPSIS\n   mulch [-n] [-d CM] [BED]\n")


def test_a_section_that_is_said_asks_for_its_page(program: Program) -> None:
    assert demo(program, "read", "mulch(1)").startswith(
        "mulch(1)  cover beds with straw, bark or leaves\n"
    )
    assert demo(program, "read", "mulch.1").startswith("mulch(1)")
    assert demo(program, "read", "mulch(builtin)").startswith("mulch(builtin)")


@pytest.mark.parametrize(
    ("name", "source", "first"),
    [
        ("mulch", "manual", "SYNOPSIS\n   mulch [option]... bed...\n"),
        (
            "mulch",
            "shell-manual",
            "SYNOPSIS\n   mulch [-n] [-d cm] [-r] [bed]\n\nBUILTIN COMMANDS\n   Cover bed",
        ),
        (
            "mulch",
            "usage",
            "SYNOPSIS\n   mulch [OPTION]... BED...\n\nDESCRIPTION\n   Cover beds with straw",
        ),
        ("mulch", "builtin-usage", "SYNOPSIS\n   mulch [-n] [-d CM] [-q] [BED]\n"),
        ("mulch", "info", "2 ‘mulch’: Cover beds\n   The ‘mulch’ command takes"),
        ("mulch", "package", "README\n   loam is a small shell"),
        (
            "vent",
            "package",
            "README.md\n\n The glasshouse of Fernhollow\n   Everything in the houses",
        ),
        ("endrow", "shell-manual", "SYNOPSIS\n   row name in plant ...; list; endrow\n"),
        ("dibble", "usage", "SYNOPSIS\n   dibble [-h] [--deep CM]"),
    ],
)
def test_each_source(program: Program, name: str, source: str, first: str) -> None:
    assert below_head(demo(program, "read", name, "--from", source)).startswith(first)


@pytest.mark.parametrize(
    ("name", "source", "says"),
    [
        (
            "hollo",
            "builtin-usage",
            "hollo --help prints the words it is given; it is in: builtin, shell-manual, package",
        ),
        (
            "hollo",
            "usage",
            "hollo --help prints the words it is given; it is in: builtin, shell-manual, package",
        ),
        (
            "mulch",
            "standard",
            "no page of a standard; it is in: builtin, shell-manual, manual, usage, info, package",
        ),
        (
            "row",
            "builtin-usage",
            "not asked: row is a keyword, --help after it would be a command; it is in:",
        ),
        (
            "endrow",
            "builtin",
            "keyword of loam, which has no help for it; it is part of “row”; it is in: "
            "shell-manual",
        ),
        ("prune", "usage", "no program of that name on PATH; it is in: manual, package"),
        ("vent", "info", "no Info manual has a node for it; it is in: manual, usage, package"),
    ],
)
def test_a_source_that_is_missing_names_those_there_are(
    program: Program, name: str, source: str, says: str
) -> None:
    done = program.run("--demo", "read", name, "--from", source)
    assert (done.returncode, done.stdout) == (1, "")
    assert done.stderr.startswith(f"dowsing: {name} has no text in the source {source}: {says}")


def test_a_source_that_there_is_not(program: Program) -> None:
    done = program.run("--demo", "read", "mulch", "--from", "hearsay")
    assert done.returncode == 2
    assert done.stderr == (
        "dowsing: there is no source “hearsay”; sources are builtin, shell-manual, builtin-usage, "
        "manual, usage, info, standard, package, or all\n"
    )


def test_all_one_after_the_other(program: Program) -> None:
    heads = [
        line
        for line in demo(program, "read", "mulch", "--from", "all").split("\n")
        if line.startswith(("mulch(", "mulch --help"))
    ]
    assert [head.split("  ")[0] for head in heads] == [
        "mulch(builtin)",
        "mulch(builtin)",
        "mulch(1)",
        "mulch(info)",
        "mulch(builtin)",
        "mulch --help",
    ]
    whole = json.loads(demo(program, "read", "mulch", "--from", "all", "--format", "json"))
    assert [document["source"] for document in whole["documents"]] == [
        "builtin", "shell-manual", "manual", "info", "builtin-usage", "usage", "package", "package",
    ]  # fmt: skip


def test_any_node_and_any_file_by_name(program: Program) -> None:
    inner = below_head(demo(program, "read", "mulch", "--from", "info", "--part", "mulch options"))
    assert inner.startswith(" 2.1 Options\n   -d CM\n")
    outer = below_head(demo(program, "read", "mulch", "--from", "info", "--part", "Beds"))
    assert outer.startswith("1 Beds\n   A bed is a piece of ground with a number.  It never moves.")
    news = below_head(demo(program, "read", "vent", "--from", "package", "--part", "NEWS"))
    assert news.startswith("NEWS\n   Fernhollow 4.2\n")
    done = program.run("--demo", "read", "mulch", "--from", "info", "--part", "nothing")
    assert (
        done.returncode,
        done.stderr.startswith("dowsing: mulch(info) has no part “nothing”"),
    ) == (1, True)


def test_subcommands_in_json(program: Program) -> None:
    found = json.loads(demo(program, "read", "dibble", "--format", "json"))
    assert (found["name"], found["section"], found["source"]) == ("dibble", "usage", "usage")
    assert [command["name"] for command in found["subcommands"]] == ["seeds", "bulbs", "leeks"]
    assert found["options"][1]["flags"] == ["--deep"]


def test_a_card_without_a_page(program: Program) -> None:
    text = demo(program, "dibble")
    assert text.startswith(
        "dibble  Make holes for what is to be planted\ncommand · no manual page · package "
        "dibble\nfrom: usage\n"
    )
    assert text.endswith("From dibble --help. Next: dowsing --demo read dibble\n")


def test_a_program_that_is_not_asked(program: Program) -> None:
    program.man.joinpath("man1").mkdir()
    program.command("shutdown", "#!/bin/sh\necho --help; touch ran\n")
    program.command("quiet", "#!/bin/sh\ntouch ran\n")
    shutdown = program.run("read", "shutdown")
    assert shutdown.returncode == 1
    assert "not asked: it turns the machine off or restarts it" in shutdown.stderr
    assert (
        "not asked: quiet does not know --help (its file does not hold it)"
        in program.run("read", "quiet").stderr
    )
    assert not list(program.folder.rglob("ran"))


def test_the_folder_that_a_program_is_asked_in_is_told_as_home(program: Program) -> None:
    program.man.joinpath("man1").mkdir()
    program.command("tine", '#!/bin/sh\n: --help\necho "Usage: tine [-c FILE]  ($HOME/.tine)"\n')
    text = program.out("read", "tine")
    assert "(~/.tine)" in text
    assert "asked" not in text


def test_programs_are_not_asked_where_the_settings_say_so(program: Program) -> None:
    program.man.joinpath("man1").mkdir()
    program.command("tine", "#!/bin/sh\necho 'Usage: tine [--help]'\n")
    assert program.out("read", "tine").startswith("tine --help")
    (program.folder / "config").mkdir(exist_ok=True)
    (program.folder / "config" / "config.toml").write_text('usage = "never"\n')
    assert "the settings say usage = never" in program.run("read", "tine").stderr


def test_a_program_is_asked_once_until_it_changes(program: Program) -> None:
    program.man.joinpath("man1").mkdir()
    tine = program.command("tine", "#!/bin/sh\necho 'Usage: tine [--one]'\n# --help\n: --help\n")
    assert "tine [--one]" in program.out("read", "tine")
    kept = list((program.cache / "usage").iterdir())
    assert len(kept) == 1
    kept[0].write_text(kept[0].read_text().replace("--one", "--kept"))
    assert "tine [--kept]" in program.out("read", "tine")
    tine.write_text("#!/bin/sh\necho 'Usage: tine [--two-of-them]'\n: --help\n")
    assert "tine [--two-of-them]" in program.out("read", "tine")
    kept[0].write_text("damaged")
    assert "tine [--two-of-them]" in program.out("read", "tine")


@pytest.mark.parametrize(
    ("script", "says"),
    [
        (
            "while :; do echo "
            "aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa; done",
            "it printed more than 1 MB",
        ),
        ("kill -9 $$", "it was ended by signal 9"),
        ("exit 1", "tine --help prints nothing"),
        ("echo tine: bad option >&2; exit 1", "tine --help ends with an error: tine: bad option"),
        (
            "echo The beds were raked.; echo Done.",
            "tine --help prints something that is no usage text",
        ),
        ("exec /no/such/library", "tine --help ends with an error"),
    ],
)
def test_programs_that_give_no_usage(program: Program, script: str, says: str) -> None:
    program.man.joinpath("man1").mkdir()
    program.command("tine", f"#!/bin/sh\n: --help\n{script}\n")
    done = program.run("read", "tine")
    assert done.returncode == 1
    assert says in done.stderr
    assert done.stderr.count("\n") <= 3  # the index was built, and one line


def test_what_did_not_even_start_is_asked_again(program: Program) -> None:
    program.man.joinpath("man1").mkdir()
    program.command("tine", "#!/no/such/interpreter\n: --help\n")
    done = program.run("read", "tine")
    assert (
        done.returncode,
        "it could not be started (no such file or directory)" in done.stderr,
    ) == (1, True)
    assert not (program.cache / "usage").exists()


def test_control_sequences_of_a_program_stay_out(program: Program) -> None:
    program.man.joinpath("man1").mkdir()
    program.command(
        "tine",
        "#!/bin/sh\n: --help\nprintf '\\033]0;title\\007\\033[31mUsage: tine [-x]\\033[0m\\n  -x  "
        "\\033[1mbold\\033[m\\n' >&2\nexit 64\n",
    )
    text = program.out("read", "tine", "--color", "always")
    assert "\x1b]" not in text and "\x1b[31m" not in text
    plain = program.out("read", "tine")
    assert below_head(plain) == "SYNOPSIS\n   tine [-x]\n\nDESCRIPTION\n   -x   bold\n"


def test_an_info_file_in_trouble(program: Program) -> None:
    program.man.joinpath("man1").mkdir()
    program.info.mkdir()
    node = "\x1f\nFile: knots.info,  Node: Top,  Up: (dir)\n\nKnots\n*****\n\nText.\n"
    (program.info / "knots.info").write_text(
        f"{node}\x1f\nTag Table:\nNode: Gone\x7f9\n\x1f\nEnd Tag Table\n"
    )
    (program.info / "noise.info").write_text("noise")
    program.page("knots.1", ".TH K 1\n.SH NAME\nknots \\- ties\n.SH D\nx\n")
    done = program.run("read", "knots", "--from", "info")
    assert done.returncode == 0
    assert "its tag table is broken" in done.stderr.split("\n")[-2]
    assert below_head(done.stdout) == "Knots\n   Text.\n"
    assert "noise.info: as an Info file: there is no node in it" in program.out("index", "--status")
