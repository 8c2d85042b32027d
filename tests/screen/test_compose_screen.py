"""`compose` in a real terminal."""

from __future__ import annotations

import os
import time

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
    assert "--close" not in screen
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
