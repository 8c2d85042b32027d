"""save, saved, note and take with the real program, on the demo library."""

from __future__ import annotations

import json
import os
import pty
import select
import stat
import subprocess
import sys
import tomllib
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from conftest import Program

DOWSING = os.path.join(os.path.dirname(sys.executable), "dowsing")
LINE = "harvest --format csv <bed> > <file>"


def demo(program: Program, *arguments: str) -> str:
    """What a run on the demo library prints."""
    return program.out("--demo", *arguments)


def in_one_terminal(program: Program, script: str, **more: str) -> subprocess.CompletedProcess[str]:
    """A shell script, in a session of its own, in which `d` is the program on the demo library."""
    return subprocess.run(
        ["bash", "-c", f'd() {{ "{DOWSING}" --demo "$@"; }}\n{script}'],
        env=program.environment(PATH=os.environ["PATH"], **more),
        cwd=program.folder,
        stdin=subprocess.DEVNULL,
        capture_output=True,
        text=True,
        start_new_session=True,
        check=False,
        timeout=120,
    )


def kept_file(program: Program, name: str = "saved.toml") -> Path:
    """Where what is kept while trying the demo library is."""
    return program.folder / "data" / "demo" / name


def test_a_saved_line_is_found_by_saved_task_examples_and_find(program: Program) -> None:
    assert demo(program, "save", LINE, "--for", "the week's fruit for the kitchen").split("\n")[
        :2
    ] == [
        "saved: the week's fruit for the kitchen",
        f"   {LINE}",
    ]
    assert demo(program, "saved").split("\n")[:3] == [
        "   the week's fruit for the kitchen",
        f" 1 {LINE}",
        "   say bed, file",
    ]
    task = json.loads(demo(program, "task", "fruit for the kitchen", "--format", "json"))[
        "answers"
    ][0]
    assert (task["line"], task["from"]["kind"], task["checked"]) == (LINE, "saved", True)
    assert "kept by you" in demo(program, "examples", "harvest", "kitchen")
    assert LINE in demo(program, "find", "kitchen")
    assert demo(program, "saved", "kitchen", "fruit") == demo(program, "saved")


def test_values_go_into_the_places_of_a_saved_line(program: Program) -> None:
    demo(program, "save", LINE, "--for", "fruit for the kitchen")
    answer = json.loads(
        demo(
            program, "task", "fruit for the kitchen from tomato1 into week.csv", "--format", "json"
        )
    )
    assert answer["answers"][0]["line"] == "harvest --format csv tomato1 > week.csv"


def test_the_same_line_is_kept_once_and_may_get_another_task(program: Program) -> None:
    demo(program, "save", LINE, "--for", "one")
    assert demo(program, "save", LINE, "--for", "two").startswith(
        "saved already; it is now for: two"
    )
    rows = tomllib.loads(kept_file(program).read_text())["recipe"]
    assert [(row["task"], row["line"]) for row in rows] == [("two", LINE)]


def test_a_line_with_a_mistake_is_kept_and_the_mistake_is_told(program: Program) -> None:
    done = program.run("--demo", "save", "harvest --formt csv tomato1")
    assert done.returncode == 0
    assert "kept as it is, but: unknown option: harvest(1) has no --formt" in done.stderr


def test_many_at_once_lose_nothing(program: Program) -> None:
    demo(program, "save", "harvest tomato0")  # the index is there, then
    with ThreadPoolExecutor(6) as pool:
        list(pool.map(lambda n: program.run("--demo", "save", f"harvest tomato{n}"), range(1, 13)))
    rows = tomllib.loads(kept_file(program).read_text())["recipe"]
    assert sorted(row["line"] for row in rows) == sorted(f"harvest tomato{n}" for n in range(13))


def test_a_folder_that_cannot_be_written_leaves_everything_as_it_was(program: Program) -> None:
    demo(program, "save", "harvest tomato1")
    before = kept_file(program).read_bytes()
    done = program.run("--demo", "save", "harvest tomato2", DOWSING_DATA="/proc/none")
    assert (done.returncode, "cannot be written" in done.stderr) == (3, True)
    assert kept_file(program).read_bytes() == before


def test_an_error_in_the_file_is_named_and_the_rest_is_used(program: Program) -> None:
    demo(program, "save", "harvest tomato1", "--for", "good")
    with kept_file(program).open("a") as file:
        file.write('\n[[recipe]]\ntask = "bad\nline = "x"\n')
    done = program.run("--demo", "saved")
    assert (done.returncode, "harvest tomato1" in done.stdout) == (0, True)
    assert "saved.toml, line 10: is not TOML: illegal character" in done.stderr
    assert "the other lines are used" in done.stderr


def test_as_a_script_with_places_as_arguments(program: Program) -> None:
    demo(program, "save", "printf '%s-%s\\n' <first> \"<second>x\"", "--for", "print two")
    demo(program, "save", "echo <first>", "--for", "again the first")
    program.out("--demo", "saved", "--script", "--format", "text")
    done = in_one_terminal(
        program,
        "d saved --script -o both.sh --executable 2>/dev/null && ./both.sh 'a b' c && ./both.sh; "
        "echo $?",
    )
    assert done.stdout == "a b-cx\na b\n1\n"
    assert "say the first" in done.stderr
    assert (program.folder / "both.sh").stat().st_mode & stat.S_IXUSR


def test_a_script_has_what_a_shell_can_read(program: Program) -> None:
    demo(program, "save", "echo one && echo two", "--for", "count")
    program.run("--demo", "save", "echo 'one && echo two", "--for", "count badly")
    demo(program, "save", "case x in (x) echo three;; esac", "--for", "count on")
    script = demo(program, "saved", "--script")
    assert script.split("\n\n", 1)[1] == (
        "# count\necho one && echo two\n\n"
        "# count badly\n# left out, for a shell cannot read it:\n#   echo 'one && echo two\n\n"
        "# count on\ncase x in (x) echo three;; esac\n"
    )
    (program.folder / "lines.sh").write_text(script)
    done = subprocess.run(
        ["bash", "lines.sh"], cwd=program.folder, capture_output=True, text=True, check=True
    )
    assert (done.stdout, done.stderr) == ("one\ntwo\nthree\n", "")


def test_a_file_that_is_there_is_not_written_over(program: Program) -> None:
    demo(program, "save", LINE, "--for", "kitchen")
    mine = program.folder / "mine.sh"
    mine.write_text("echo mine\n")
    for way in (["--script", "-o", "mine.sh"], ["--export", "mine.sh"]):
        done = program.run("--demo", "saved", *way)
        assert (done.returncode, done.stdout) == (3, "")
        assert done.stderr == (
            "dowsing: mine.sh is there already; remove it first, or say another file\n"
        )
        assert mine.read_text() == "echo mine\n"
    assert "mine.sh is as it was" in on_a_terminal(program, "d saved --script -o mine.sh", "n\n")
    assert mine.read_text() == "echo mine\n"
    on_a_terminal(program, "d saved --script -o mine.sh", "y\n")
    assert 'harvest --format csv "$bed" > "$file"' in mine.read_text()
    assert not mine.stat().st_mode & stat.S_IXUSR, "it is run only if that was asked for"
    for wrong in ([], ["--script"], ["--script", "-o", "-"], ["--export", "x.toml"]):
        done = program.run("--demo", "saved", "--executable", *wrong)
        assert (done.returncode, done.stdout) == (2, "")
        assert done.stderr == "dowsing: --executable goes with --script -o FILE\n"


def test_to_a_file_and_back(program: Program) -> None:
    demo(program, "save", LINE, "--for", "kitchen")
    done = in_one_terminal(
        program,
        "d saved --export out.toml; rm -r data; d saved --import out.toml; d saved --import "
        "out.toml",
    )
    assert done.stdout == "1 of 1 lines taken in\n0 of 1 lines taken in; 1 were there already\n"
    assert LINE in demo(program, "saved")


def test_dropped_lines_are_put_elsewhere(program: Program) -> None:
    demo(program, "save", LINE, "--for", "kitchen")
    done = in_one_terminal(
        program, "d saved >/dev/null; d saved --drop 2; d saved --drop 1; d saved --drop 1"
    )
    assert done.stdout.startswith(f"kept no longer: {LINE}\nIt is in ")
    assert done.stderr.count("dowsing:") == 2
    assert (
        LINE in tomllib.loads(kept_file(program, "dropped.toml").read_text())["recipe"][0]["line"]
    )
    assert program.run("--demo", "saved").returncode == 1


def test_notes_stand_on_the_card_above_the_page_and_are_found(program: Program) -> None:
    assert (
        demo(program, "note", "harvest", "wash", "it", "at", "home")
        == "noted on harvest(1): wash it at home\n"
    )
    assert demo(program, "harvest").startswith("your note: wash it at home\n")
    assert demo(program, "read", "harvest").startswith("your note: wash it at home\n")
    assert (
        json.loads(demo(program, "card", "harvest", "--format", "json"))["notes"][0]["text"]
        == "wash it at home"
    )
    assert "harvest(1)  wash it at home" in demo(program, "find", "wash", "home")
    demo(program, "note", "harvest", "--drop", "1")
    assert not demo(program, "harvest").startswith("your note")


def test_take_saves_with_the_sentence_that_was_said(program: Program) -> None:
    in_one_terminal(
        program,
        "d task harvest a bed in tomato1; d take 1 --save; d take 1 --save --for 'my own words'",
    )
    rows = tomllib.loads(kept_file(program).read_text())["recipe"]
    assert [(row["task"], row["line"]) for row in rows] == [("my own words", "harvest tomato1")]


def test_take_runs_only_when_told_and_never_with_open_places(program: Program) -> None:
    script = """
    d save 'echo ran > proof.txt' >/dev/null; d saved >/dev/null
    d take 1 --run; echo $?; test -e proof.txt; echo $?
    d take 1 --run --yes; echo $?; cat proof.txt
    d save 'exit 7' >/dev/null; d saved >/dev/null; d take 1 --run --yes; echo $?
    d save 'echo <name>' >/dev/null; d saved >/dev/null; d take 1 --run --yes; echo $?
    """
    done = in_one_terminal(program, script)
    assert done.stdout.split() == ["2", "1", "0", "ran", "7", "2"]
    assert "there is no terminal to ask on" in done.stderr
    assert "places without a value: name" in done.stderr


def on_a_terminal(program: Program, script: str, answers: str) -> str:
    """What a script shows on a terminal of its own, when these answers are typed."""
    leader, follower = pty.openpty()
    process = subprocess.Popen(
        ["bash", "-c", f'd() {{ "{DOWSING}" --demo "$@"; }}\n{script}'],
        env=program.environment(PATH=os.environ["PATH"], TERM="xterm"),
        cwd=program.folder,
        stdin=follower,
        stdout=follower,
        stderr=follower,
        start_new_session=True,
        preexec_fn=lambda: __import__("fcntl").ioctl(0, __import__("termios").TIOCSCTTY, 0),
    )
    os.close(follower)
    shown = b""
    typed = False
    while process.poll() is None or select.select([leader], [], [], 0.2)[0]:
        if select.select([leader], [], [], 0.2)[0]:
            try:
                shown += os.read(leader, 65536)
            except OSError:
                break
        if not typed and b"[y/N]" in shown:
            os.write(leader, answers.encode())
            typed = True
    os.close(leader)
    process.wait(30)
    return shown.decode("utf-8", "replace")


def test_on_a_terminal_it_asks_and_no_is_the_default(program: Program) -> None:
    demo(program, "save", "rm proof.txt")
    (program.folder / "proof.txt").write_text("x")
    shown = on_a_terminal(program, "d saved > /dev/null; d take 1 --run", "\n")
    assert "run it? [y/N]" in shown
    assert "not run" in shown
    assert (program.folder / "proof.txt").exists()
    on_a_terminal(program, "d saved > /dev/null; d take 1 --run", "y\n")
    assert not (program.folder / "proof.txt").exists()


def test_copy_by_a_program_or_by_the_terminal(program: Program) -> None:
    demo(program, "save", "harvest tomato1")
    program.command("xclip", '#!/bin/sh\ncat > "$HOME/clip"\n')
    path = f"{program.bin}:{os.environ['PATH']}"
    done = in_one_terminal(
        program, f"PATH={path}; export DISPLAY=:9; d saved >/dev/null; d take 1 --copy"
    )
    assert (done.stdout, done.stderr) == ("", "dowsing: copied by xclip: harvest tomato1\n")
    assert (program.folder / "clip").read_text() == "harvest tomato1"
    shown = on_a_terminal(
        program, "unset DISPLAY WAYLAND_DISPLAY; d saved > /dev/null; d take 1 --copy", ""
    )
    assert "\x1b]52;c;aGFydmVzdCB0b21hdG8x\x07" in shown
    assert (
        in_one_terminal(program, "unset DISPLAY; d saved >/dev/null; d take 1 --copy").returncode
        == 3
    )


def test_after_find_take_reads_the_page(program: Program) -> None:
    done = in_one_terminal(
        program, "d find harvest >/dev/null; d take 1 | head -n 1; d take 1 --run; echo $?"
    )
    assert done.stdout.startswith("harvest(1)")
    assert done.stdout.endswith("2\n")
    assert "the last list has no command lines; dowsing take 1 reads that page" in done.stderr


ODD = "printf '%s|' 'a\tb' 'x\u202ey' 'c\x1b[31md' 'e\x1cf\x1eg\x1fh'"
SEEN = r"printf '%s|' 'a\tb' 'x\u202ey' 'c\x1b[31md' 'e\x1cf\x1eg\x1fh'"


def test_a_line_with_characters_that_are_not_seen_stays_as_it_was_kept(program: Program) -> None:
    """It is shown escaped; what is run, copied, kept again and told as JSON is the line itself."""
    assert demo(program, "save", ODD, "--for", "odd").split("\n")[1] == f"   {SEEN}"
    assert f" 1 {SEEN}" in demo(program, "saved")
    assert json.loads(demo(program, "saved", "--format", "json"))["answers"][0]["line"] == ODD
    assert tomllib.loads(kept_file(program).read_text())["recipe"][0]["line"] == ODD
    program.command("xclip", '#!/bin/sh\ncat > "$HOME/clip"\n')
    script = (
        f"PATH={program.bin}:$PATH; export DISPLAY=:9; d saved >/dev/null; d take 1 --copy; "
        "d take 1; d take 1 --run --yes"
    )
    done = in_one_terminal(program, script)
    assert (program.folder / "clip").read_text() == ODD
    assert done.stdout == f"{SEEN}\na\tb|x\u202ey|c\x1b[31md|e\x1cf\x1eg\x1fh|"
    assert done.stderr.split("\n")[:2] == [
        f"dowsing: copied by xclip: {SEEN}",
        r"dowsing: the line holds characters that are not seen, shown as \x1b and the like; --copy "
        r"and --run take it as it is",
    ]
    assert (
        "careful: it holds characters that are not seen, shown escaped here, run as they are"
        in done.stderr
    )
    kept_file(program).unlink()
    in_one_terminal(program, f"d unpick {json.dumps('echo')}; true")
    assert in_one_terminal(program, "d save --last", DOWSING_LAST_LINE=f"  {ODD}\n").returncode == 0
    assert tomllib.loads(kept_file(program).read_text())["recipe"][0]["line"] == ODD


def test_bytes_that_are_no_text_are_not_kept_as_something_else(program: Program) -> None:
    done = program.run("--demo", "save", os.fsdecode(b"rm 'a\xffb'"))
    assert (done.returncode, done.stdout) == (2, "")
    assert (
        done.stderr
        == "dowsing: the line holds bytes that are no UTF-8 text; write them as $'\\xff' and keep "
        "that\n"
    )
    assert not kept_file(program).exists()


def test_hints_can_be_typed_as_they_stand(program: Program) -> None:
    """A name that would act in a shell is quoted where a hint repeats it."""
    for name in ("$(touch x)", "a;b", "it's", "a`b`", "x|y"):
        for call in (
            ["read", name],
            ["resolve", name],
            ["sources", name],
            ["options", name],
            ["compose", name],
            ["note", name],
        ):
            said = program.run("--demo", *call)
            for text in (said.stdout + said.stderr).split("dowsing --demo ")[1:]:
                line = text.split("\n")[0].split(";" if "'" not in text else "\0")[0]
                done = subprocess.run(
                    ["bash", "-c", f"printf '%s\\n' {line}"],
                    capture_output=True,
                    text=True,
                    cwd=program.folder,
                )
                assert name in done.stdout.split("\n") or name not in line, (call, text)
    assert not (program.folder / "x").exists()


def test_a_script_quotes_for_the_shell_that_reads_a_place(program: Program) -> None:
    """What stands in `sh -c '…'` is read by that shell too; in a program of another language only
    plain words may stand.
    """
    demo(program, "save", "sh -c 'printf %s <text>'", "--for", "say it")
    demo(program, "save", "echo hay | awk '/<word>/'", "--for", "find it")
    (program.folder / "lines.sh").write_text(demo(program, "saved", "--script"))
    value = "$(touch x) 'a' \"b\""
    done = subprocess.run(
        ["bash", "lines.sh", value, "hay"],
        cwd=program.folder,
        capture_output=True,
        text=True,
        check=True,
    )
    assert done.stdout == f"{value}hay\n"
    done = subprocess.run(
        ["bash", "lines.sh", "x", '/; system("touch y")'],
        cwd=program.folder,
        capture_output=True,
        text=True,
    )
    assert (done.returncode, done.stdout, done.stderr) == (
        2,
        "",
        "word: letters, digits and ._:@%+,- alone\n",
    )
    assert not (program.folder / "x").exists() and not (program.folder / "y").exists()


def test_very_many_kept_lines(program: Program) -> None:
    """They are read once; after that a search asks a small database, and a line that is added is
    added to it.
    """
    block = '[[recipe]]\ntask = "{}"\nline = "vent --open {} house{}"\n'
    rows = [block.format(f"open vent number {n}", n % 100, n) for n in range(3000)]
    rows[1500] = block.format("air the orangery", 33, "orange")
    kept_file(program).parent.mkdir(parents=True)
    kept_file(program).write_text("\n".join(rows))
    assert (
        demo(program, "find", "vent", "number", "1234")
        .split("KEPT BY YOU\n")[1]
        .startswith("   vent --open 34 house1234")
    )
    shown = demo(program, "find", "open", "vent").split("KEPT BY YOU\n")[1]
    assert "… and 2995 more" in shown and shown.count("house") == 5
    assert demo(program, "task", "air the orangery").startswith("1  vent --open 33 houseorange\n")
    demo(program, "save", "vent --close house9", "--for", "shut vent number nine")
    assert demo(program, "saved", "nine").split("\n")[:2] == [
        "   shut vent number nine",
        " 1 vent --close house9",
    ]
    assert len(list(program.cache.glob("kept-*.sqlite"))) == 1
    script = "d saved nine >/dev/null; d saved --drop 1"
    assert in_one_terminal(program, script).stdout.startswith(
        "kept no longer: vent --close house9\n"
    )
    assert kept_file(program).read_text().rstrip("\n") == "\n".join(rows).rstrip("\n")


def test_a_line_kept_behind_a_damaged_end_takes_nothing_from_it(program: Program) -> None:
    folder = program.folder / "data"
    folder.mkdir()
    damaged = '[[recipe]]\ntask = "water"\nline = "rill -a"\n\n[[recipe]]\ntask = """open\n\n\n\n'
    for end in (damaged, damaged.rstrip("\n"), damaged + "   \n"):
        (folder / "saved.toml").write_text(end)
        assert program.run("save", "rill -b", "--for", "more").returncode == 0
        text = (folder / "saved.toml").read_text()
        assert text.startswith(end) and text.count('line = "rill -b"') == 1
        assert "rill -a" in program.run("saved").stdout
