"""`compose` in a real terminal."""

from __future__ import annotations

import os
import time

from conftest import Program

from screen.conftest import PATIENCE, Open


def test_required_fields_are_filled_in_and_the_line_is_handed_out(window: Open) -> None:
    form = window("compose", "glasshouse", "water")
    screen = form.wait(
        "1 required 3",
        "2 often used 0",
        "3 all 3",
        "*bed",
        "*--litres n",
        "Opens the water of each bed",
    )
    assert screen.split("\n")[0].startswith("compose glasshouse water  water the beds of a house")
    form.text("north south")
    form.wait("glasshouse water north south")
    form.keys("Down")
    form.wait("So much for each bed.", "a number")
    form.text("12")
    form.wait("glasshouse water --litres 12 north south")
    form.keys("Enter")
    assert form.result() == "0 glasshouse water --litres 12 north south\n"


def test_what_is_missing_is_said_once(window: Open) -> None:
    form = window("compose", "glasshouse", "water")
    form.wait("*bed", "Enter take the line")
    form.keys("Enter")
    form.wait("needs bed · Enter again takes the line as it is")
    form.keys("Enter")
    assert form.result() == "0 glasshouse water\n"


def test_a_wrong_value_is_marked_when_it_is_left(window: Open) -> None:
    form = window("compose", "glasshouse", "water", "north")
    form.wait("•bed", "*--litres")
    form.text("many")
    form.wait("--litres many")
    form.keys("Down")
    screen = form.wait("!--litres n", "--litres: a number is wanted here")
    assert "not with --litres" in screen, "the other one of the group is greyed out"
    form.keys("Enter")
    form.wait("Enter again takes the line as it is")
    form.keys("BSpace", "BSpace", "BSpace", "BSpace")
    form.text("7")
    form.keys("Enter")
    assert form.result() == "0 glasshouse water --litres 7 north\n"


def test_keys_are_taken_in_the_order_in_which_they_came(window: Open) -> None:
    form = window("compose", "glasshouse", "water", "north")
    form.wait("•bed", "*--litres")
    form.text("many")
    form.wait("--litres many")
    form.at_once(*["BSpace"] * 4, "7", "1", "Left", "BSpace", "3", "Enter")
    assert form.result() == "0 glasshouse water --litres 31 north\n"


def test_a_key_typed_before_another_field_is_there_is_for_that_field(window: Open) -> None:
    form = window("compose", "glasshouse", "water", "north")
    form.wait("*--until-wet")
    form.at_once("Down", "Space", "Up", "Down", "Space", "Space")
    form.wait("•--until-wet", "yes", "not with --until-wet")


def test_one_of_an_exclusive_group_greys_out_the_other(window: Open) -> None:
    form = window("compose", "glasshouse", "water", "north")
    form.wait("*--until-wet")
    form.keys("Down", "Space")
    form.wait("•--until-wet", "yes", "not with --until-wet")
    form.keys("Up")
    form.text("12")
    assert "--litres" not in form.wait("glasshouse water --until-wet north").split("─")[-1]
    form.keys("Enter")
    assert form.result() == "0 glasshouse water --until-wet north\n"


def test_escape_gives_back_what_was_there(window: Open) -> None:
    form = window("compose", "vent --side=north  palmhouse")
    form.wait("•--side SIDE", "north")
    form.keys("Down", "Space")
    form.wait("vent --side=north -c")
    form.keys("Escape")
    assert form.result() == "130 vent --side=north  palmhouse\n"


def test_steps_search_and_spellings(window: Open) -> None:
    form = window("compose", "vent", "palmhouse")
    form.wait("2 often used 6")
    form.keys("C-t")
    form.wait("--version", "--help")
    form.keys("C-f")
    form.text("wait")
    screen = form.wait("found 1", "-w, --wait SECONDS")
    assert "-c, --close" not in screen
    form.keys("Enter")
    form.wait("wait until the vents have stopped", without="found 1")
    form.text("30")
    form.wait("vent -w 30 palmhouse")
    form.keys("C-l")
    form.wait("vent --wait 30 palmhouse")
    form.keys("C-l")
    form.wait("vent -w 30 palmhouse")
    form.keys("Enter")
    assert form.result() == "0 vent -w 30 palmhouse\n"


def test_a_subcommand_is_chosen_and_brings_its_fields(window: Open) -> None:
    form = window("compose", "irrigate")
    form.wait("*subcommand", "add", "remove", "show")
    form.keys("Right", "Right")
    form.wait("irrigate remove", "values: add, remove, show")
    form.keys("Down")
    form.wait("compose irrigate remove", "*bed", "Enter take the line", without="values:")
    form.text("fern3")
    form.keys("Enter")
    assert form.result() == "0 irrigate remove fern3\n"


def test_values_are_chosen_and_the_whole_page_is_shown(window: Open) -> None:

    form = window("compose", "--line", "bedplan")
    form.wait("*name", "bedplan(5)")
    form.text("fern9")
    form.keys("Down")
    form.wait("palms", "seedlings", "←→ value")
    form.keys("f")
    form.wait("fern9 ferns")
    form.keys("F4")
    form.wait("Each line of bedplan names a bed", "Esc back to the form")
    form.keys("Escape")
    form.wait("Enter take the line")
    form.keys("Down")
    form.text("41")
    form.keys("Down")
    form.wait("!row", "it must be from 1 to 40")
    form.keys("BSpace", "BSpace")
    form.text("4")
    form.keys("Enter")
    assert form.result() == "0 fern9 ferns 4\n"


def test_a_window_that_is_too_small_says_so(window: Open) -> None:
    form = window("compose", "irrigate")
    form.wait("*subcommand")
    form.resize(24, 6)
    form.wait("make the window", without="*subcommand")
    form.resize(80, 24)
    form.wait("*subcommand", "Enter take the line", without="make the window")
    form.keys("C-c")
    assert form.result() == "130 irrigate\n"


def test_what_is_no_text_may_be_pasted(window: Open) -> None:
    form = window("compose", "glasshouse", "water")
    form.wait("*bed", "Enter take the line")
    form.paste(b"\x00\xff\xfe\x1b[31mrose")
    form.wait("rose")
    form.keys("C-q")
    assert form.result() == "130 glasshouse water\n"


def test_the_terminal_is_left_as_it_was_found(window: Open) -> None:
    call = (
        "stty -a >before; dowsing --demo compose irrigate; stty -a >after; cmp before after && "
        "echo SAME"
    )
    form = window(command=f"bash --norc -i -c '{call}'; sleep 60")
    form.wait("*subcommand")
    form.keys("C-c")
    form.wait("irrigate", "SAME", without="*subcommand")


def test_suspended_and_brought_back(window: Open) -> None:
    form = window(command="exec bash --norc -i")
    form.wait("bash")
    form.text("dowsing --demo compose irrigate")
    form.keys("Enter")
    form.wait("*subcommand")
    form.keys("C-z")
    form.wait("Stopped", without="*subcommand")
    form.text("fg")
    form.keys("Enter")
    form.wait("*subcommand", without="Stopped")
    form.keys("Escape")
    form.wait("left as it was")


def test_it_ends_with_its_terminal(window: Open) -> None:
    call = "trap '' HUP; dowsing --demo compose irrigate & echo $! >pid; fg"
    form = window(command=f"set -m; {call}")
    form.wait("*subcommand")
    process = int((form.program.folder / "pid").read_text())
    form.close()
    until = time.monotonic() + PATIENCE
    while True:
        try:
            os.kill(process, 0)
        except ProcessLookupError:
            break
        assert time.monotonic() < until, "it goes on without a terminal"
        time.sleep(0.1)


def test_terminals_of_few_colours(window: Open) -> None:
    for more in ({"TERM": "xterm-16color"}, {"NO_COLOR": "1"}, {"TERM": "vt100"}):
        form = window("compose", "irrigate", **more)
        form.wait("*subcommand", "1 required 2")
        form.keys("Escape")
        assert form.result() == "130 irrigate\n"
        form.answer.unlink()
        form.close()


def test_all_keys_are_laid_over_the_form(window: Open) -> None:
    form = window("compose", "vent", "palmhouse", size=(80, 24))
    screen = form.wait("compose vent", "F1 keys")
    assert max(len(line) for line in screen.split("\n")) <= 80
    form.keys("F1")
    form.wait("The line", "take it: what it lacks or what is wrong is said once", "F7, F8")
    form.keys("F1")
    form.wait("compose vent", "F1 keys", without="F7, F8")
    form.keys("Escape")
    assert form.result() == "130 vent palmhouse\n"


def test_steps_back_and_forward(window: Open) -> None:
    form = window("compose", "glasshouse", "water", "north")
    form.wait("•bed", "*--litres")
    form.text("12")
    form.wait("glasshouse water --litres 12 north")
    form.keys("F7")
    form.wait("glasshouse water north", without="--litres 12")
    form.keys("F7")
    form.wait("there is nothing to undo")
    form.keys("F8")
    form.wait("glasshouse water --litres 12 north")
    form.keys("F8")
    form.wait("there is nothing to redo")
    form.keys("F9")
    form.wait("glasshouse water north", without="--litres 12")
    form.keys("Up")
    form.text(" south")
    form.wait("glasshouse water north south")
    form.keys("F9")
    form.wait("glasshouse water north", without="north south")
    form.keys("F7", "Enter")
    form.wait("Enter again takes")
    form.keys("Enter")
    assert form.result() == "0 glasshouse water north south\n"


def test_a_value_is_chosen_from_a_list(window: Open) -> None:
    form = window("compose", "--line", "bedplan")
    form.wait("*name", "bedplan(5)")
    form.text("fern9")
    form.keys("Down", "F2")
    form.wait("Enter takes · ", "seedlings")
    form.text("see")
    form.wait("Enter takes", "│ house  1  ")
    form.keys("Enter")
    form.wait("fern9 seedlings", without="Enter takes ·")
    form.keys("F2")
    form.wait("Enter takes · ")
    form.keys("Escape")
    form.wait("fern9 seedlings", without="Enter takes ·")
    form.keys("C-c")
    assert form.result() == "130\n" or form.result().startswith("130")


SPADE = r"""
.TH SPADE 1
.SH NAME
spade \- dig up what is buried
.SH SYNOPSIS
spade [\-\-list \fIfile\fR]
.SH OPTIONS
.TP
.BI \-\-list " file"
Read the names of the beds from the file.
"""


def test_keys_of_a_list_are_taken_in_their_order(window: Open) -> None:
    form = window("compose", "--line", "bedplan", "fern9")
    form.wait("▸*house", "F2 list")
    form.keys("F2")
    form.wait("Enter takes · ", "seedlings")
    form.at_once("c", "C-t", "s", "BSpace", "a", "Enter")
    form.wait("fern9 cacti", "1 required 3", without="Enter takes ·")
    form.keys("C-c")
    assert form.result().startswith("130")


def test_files_are_chosen_with_their_folders(window: Open, program: Program) -> None:
    program.page("spade.1", SPADE)
    form = window(
        command="mkdir -p beds/old; touch beds/old/fern.txt beds/new.txt; "
        "dowsing compose spade >partly; cat partly >answer; sleep 60"
    )
    form.wait("▸ --list file", "F1 keys")
    form.keys("F2")
    form.wait("--list file  ", "beds/")
    form.text("beds/")
    form.wait("beds/old/", "beds/new.txt")
    form.text("o")
    form.wait("beds/old/", without="beds/new.txt")
    form.keys("Down", "Enter")
    form.wait("beds/old/fern.txt")
    form.keys("Down", "Enter")
    form.wait("spade --list beds/old/fern.txt", without="Enter takes")
    form.keys("Enter")
    assert form.result() == "spade --list beds/old/fern.txt\n"


def test_fields_by_what_they_mean(window: Open) -> None:
    form = window("compose", "vent", "palmhouse")
    form.wait("-w, --wait SECONDS", "wait until the vents have stopped")
    form.keys("F3")
    screen = form.wait("\n  say what would be moved")
    row = next(line for line in screen.split("\n") if "wait until" in line)
    assert row.index("wait until") < 4 < row.index("-w, --wait SECONDS")
    form.keys("F3")
    screen = form.wait("\n  -n, --dry-run")
    row = next(line for line in screen.split("\n") if "wait until" in line)
    assert row.index("-w, --wait SECONDS") < 4 < row.index("wait until")


def test_the_line_is_told_in_words(window: Open) -> None:
    form = window("compose", "vent", "--close", "palmhouse")
    form.wait(
        "vent --close palmhouse\n",
        "Opens and closes the roof vents of a glasshouse (vent): palmhouse.",
    )


def test_a_form_is_opened_again_with_its_values(window: Open) -> None:
    form = window("compose", "glasshouse", "water", "--litres", "9", "north")
    form.wait("•bed")
    form.keys("C-s")
    form.wait("kept; dowsing compose --again opens it")
    form.keys("Escape")
    assert form.result().startswith("130 ")
    form.answer.unlink()
    form.close()
    kept = [
        (arguments, form.program.run("--demo", "compose", *arguments, "--format", "json"))
        for arguments in (["--again"], ["--again", "glasshouse"], ["--again", "vent"])
    ]
    assert ['"line": "glasshouse water --litres 9 north"' in done.stdout for _, done in kept] == [
        True, True, False,
    ]  # fmt: skip
    assert kept[2][1].returncode == 1
    assert "no form for vent was filled in yet; the next one is kept" in kept[2][1].stdout
