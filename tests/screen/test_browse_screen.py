"""`browse` in a real terminal."""

from __future__ import annotations

import pytest

from screen.conftest import Open, Window


def found(screen: str) -> list[str]:
    """The names in the list of results."""
    rows = [line.split("│")[1] for line in screen.split("\n") if line.count("│") >= 1]
    return [row.split()[0] for row in rows if row.split() and "(" in row.split()[0]]


@pytest.fixture
def finder(window: Open) -> Window:
    """The finder."""
    opened = window("browse", size=(130, 34))
    opened.wait("Type what you look for", "VERB", "fernhollow-gl")
    return opened


def test_results_as_one_types_with_a_preview(finder: Window) -> None:
    finder.text("bed")
    many = found(finder.wait("found"))
    assert len(many) > 5
    finder.text(" straw")
    screen = finder.wait("mulch [option]... bed...", without="bedplan(5)")
    assert found(screen)[0] == "mulch(1)"
    assert "cover beds with straw, bark or leaves" in screen
    finder.keys("Escape")
    finder.wait("Type what you look for", without="mulch(1)")
    finder.keys("Escape")
    assert finder.result() == "0 \n"


def test_facets_narrow(finder: Window) -> None:
    finder.text("garden")
    before = found(finder.wait("hollo(builtin)", "wilt(2)"))
    finder.keys("Tab")
    screen = finder.wait("narrow or not")
    assert "KIND" in screen
    for _ in range(12):
        if "builtin" in finder.screen.split("narrow or not")[0]:
            break
    finder.keys("Enter")
    screen = finder.wait("✓", " in ")
    assert 0 < len(found(screen)) <= len(before)
    finder.keys("Enter")
    assert found(finder.wait("garden", without="✓")) == before


def test_open_follow_a_link_and_come_back(finder: Window) -> None:
    finder.text("mist")
    finder.wait("mist(1)", "spray water mist")
    finder.keys("Enter")
    finder.wait("1 manual", "The mist utility opens the mist nozzles", "DESCRIPTION")
    finder.keys("Tab")
    finder.wait("→ bedplan(5)", "Enter follow")
    finder.keys("Enter")
    finder.wait("Each line of bedplan names a bed")
    finder.keys("BSpace")
    finder.wait("The mist utility opens the mist nozzles", without="Each line of bedplan")
    finder.keys("]")
    finder.wait("Each line of bedplan names a bed")
    finder.keys("q")
    assert finder.result() == "0 \n"


def test_search_inside(window: Open) -> None:
    reader = window("browse", "vent", size=(100, 20))
    reader.wait("1 manual", "Move the roof vents")
    reader.keys("/")
    reader.wait("search for")
    reader.text("storm")
    reader.wait("Close everything before a storm", "n next")
    reader.keys("Enter", "n")
    reader.wait("2 of ", without="search for")
    reader.keys("/")
    reader.text("balloon")
    reader.wait("“balloon” is not in this text")
    reader.keys("Escape", "C-c")
    assert reader.result() == "0 \n"


def test_contents_options_examples_and_sources(window: Open) -> None:
    reader = window("browse", "vent", size=(120, 16))
    reader.wait("SYNOPSIS", "SEE ALSO", "1 manual", "2 usage")
    reader.keys("g")
    reader.wait("go there")
    reader.keys("Down", "Down", "Down", "Down", "Enter")
    reader.wait("Written by the Fernhollow glass crew", without="Move the roof vents")
    reader.keys("o")
    reader.wait("act on all houses")
    reader.keys("2")
    reader.wait("usage, as the program prints it")
    reader.keys("1", "e")
    reader.wait("hand out", "vent --open=33 --side=south palmhouse")
    reader.keys("Enter")
    assert reader.result() == "0 vent --open=33 --side=south palmhouse\n"


def test_a_line_is_taken_apart_saved_and_composed(window: Open) -> None:
    reader = window("browse", "vent", size=(120, 40))
    reader.wait("SYNOPSIS", "1 manual")
    reader.keys("e")
    reader.wait("hand out")
    reader.keys("u")
    reader.wait("--open=33", "only the vents on one SIDE of the ridge", "Esc back")
    reader.keys("Escape")
    reader.wait("hand out", without="Esc back")
    reader.keys("s")
    reader.wait("saved")
    reader.keys("c")
    reader.wait("compose vent", "•-o, --open PERCENT")
    reader.keys("Escape")
    reader.wait("1 manual", "EXAMPLES", without="compose vent")
    reader.keys("e")
    reader.wait("hand out")
    reader.keys("c")
    reader.wait("•--side SIDE")
    reader.keys("Enter")
    assert reader.result() == "0 vent --open=33 --side=south palmhouse\n"


def test_nodes_of_an_info_manual(window: Open) -> None:
    reader = window("browse", "mulch", size=(120, 22))
    tabs = reader.wait("1 builtin", "info").split("\n")[0]
    reader.keys(tabs[: tabs.index(" info")].split()[-1])
    reader.wait("takes what is on the heap and spreads it over beds")
    for _ in range(8):
        reader.keys("Tab")
        if "→ mulch and the shell" in reader.wait("→ "):
            break
    reader.wait("→ mulch and the shell")
    reader.keys("Enter")
    reader.wait("← 1", without="takes what is on the heap")
    reader.keys("BSpace")
    reader.wait("takes what is on the heap and spreads it over beds")
    reader.keys("q")
    assert reader.result() == "0 \n"


def test_it_works_in_a_small_window_and_a_large_one(window: Open) -> None:
    for size in ((80, 24), (200, 60)):
        finder = window("browse", size=size)
        finder.wait("Type what you look for", "VERB")
        finder.text("vent")
        finder.wait("vent(1)", "open and close the roof vents")
        finder.keys("Enter")
        finder.wait("1 manual", "Move the roof vents")
        finder.resize(60, 14)
        finder.wait("1 manual", "vent(1)")
        finder.keys("q")
        assert finder.result() == "0 \n"
        finder.answer.unlink()
        finder.close()


def test_what_is_read_counts(window: Open) -> None:
    reader = window("browse", "tine")
    reader.wait("tine(1)", "1 manual")
    reader.keys("q")
    reader.result()
    assert '"tine(1)"' in (reader.program.folder / "data" / "demo" / "read.jsonl").read_text()


def test_the_mouse_chooses_opens_and_follows(finder: Window) -> None:
    def click(text: str, screen: str) -> None:
        rows = screen.split("\n")
        row = next(n for n, line in enumerate(rows) if text in line)
        place = f"0;{rows[row].index(text) + 2};{row + 1}"
        finder.text(f"\x1b[<{place}M\x1b[<{place}m")

    finder.text("spray")
    click("mist(1) ", finder.wait("mist(1) ", "spray water mist"))
    finder.wait("Enter open")
    click("mist(1) ", finder.screen)
    click("bedplan(5)", finder.wait("The mist utility opens", "bedplan(5)"))
    finder.wait("Each line of bedplan names a bed")
    finder.keys("q")
    assert finder.result() == "0 \n"


def test_the_contents_and_the_head_follow_the_text(window: Open) -> None:
    reader = window("browse", "vent", size=(120, 24))
    reader.wait("1 manual", " 0 %", "DESCRIPTION")
    reader.keys("End")
    reader.wait("100 %", "▸")
    reader.keys("Home", "o")
    reader.wait("DESCRIPTION  ", "▸DESCRIPTION")


def test_an_option_is_gone_to_by_typing_it(window: Open) -> None:
    reader = window("browse", "vent", size=(100, 16))
    reader.wait("1 manual")
    reader.keys("-")
    reader.wait("option ")
    reader.text("w")
    reader.wait("-w · Enter stays here", "wait until the vents have stopped")
    reader.keys("BSpace")
    reader.text("-side")
    reader.wait("--side · Enter stays here", "only the vents on one SIDE")
    reader.text("x")
    reader.wait("no option begins with --sidex")
    reader.keys("Enter")
    reader.wait("only the vents on one SIDE", without="--sidex\n")


def test_two_texts_beside_each_other(window: Open) -> None:
    reader = window("browse", "mulch(1)", size=(150, 30))
    reader.wait("1 manual", "2 ")
    reader.keys("v")
    reader.wait(
        "beside: builtin · w: to the other text",
        "Spread it so deep. The default is 6.",
        "how deep, in centimetres (default: 5)",
    )
    reader.keys("w")
    reader.wait("the keys scroll builtin")
    reader.keys("w")
    reader.wait("the keys scroll the first text")
    reader.keys("v")
    reader.wait("beside: shell-manual", "Rake off the old mulch first", without="(default: 5)")
    reader.keys("2")
    reader.wait("how deep, in centimetres (default: 5)", without="The default is 6.")
    reader.keys("q")
    assert reader.result() == "0 \n"


def test_too_narrow_for_two_texts(window: Open) -> None:
    reader = window("browse", "vent", size=(60, 24))
    reader.wait("1 manual")
    reader.keys("v")
    reader.wait("the window is too narrow for two texts")


def test_what_was_looked_for_before_comes_back(window: Open) -> None:
    reader = window("browse", "vent", size=(100, 20))
    reader.wait("1 manual")
    for word in ("storm", "ridge"):
        reader.keys("/")
        reader.wait("search for")
        reader.text(word)
        reader.wait(f"search for  {word}")
        reader.keys("Enter")
        reader.wait("1 manual", without="search for")
    reader.keys("/", "Up")
    reader.wait("search for  ridge")
    reader.keys("Up")
    reader.wait("search for  storm")
    reader.keys("Down")
    reader.wait("search for  ridge")


def test_places_and_remarks_stand_on_the_first_page(window: Open) -> None:
    reader = window("browse", "vent", size=(120, 34))
    reader.wait("1 manual")
    reader.keys("o")
    reader.wait("DESCRIPTION  ")
    reader.keys("m")
    reader.wait("marked: vent(1), DESCRIPTION")
    reader.keys("r")
    reader.wait("\nremark")
    reader.text("the south side jams")
    reader.keys("Enter")
    reader.wait("noted on vent(1)")
    reader.keys("Escape")
    reader.wait("Type what you look for")
    reader.keys("Escape")
    reader.result()
    reader.answer.unlink()
    reader.close()
    finder = window("browse", size=(120, 34))
    screen = finder.wait("YOUR PLACES", "YOUR REMARKS", "the south side jams", "FAMILIES")
    assert "READ LAST" in screen and "glasshouse" in screen.split("FAMILIES")[1]
    finder.keys("Down", "Enter")
    screen = finder.wait("1 manual", "▸DESCRIPTION")
    assert "vent(1)" in screen.split("\n")[0] and "DESCRIPTION" in screen.split("\n")[0]
    finder.keys("m")
    finder.wait("marked no longer: vent(1), DESCRIPTION")
    finder.keys("q")
    finder.result()


def test_a_family_is_looked_into(window: Open) -> None:
    finder = window("browse", size=(120, 34))
    finder.wait("FAMILIES", "glasshouse", "6 entries")
    finder.keys("Enter")
    finder.wait("6 found", "glasshouse-water(1)")
    finder.keys("Escape")
    finder.wait("FAMILIES")


def test_all_keys_are_laid_over_the_reader(window: Open) -> None:
    reader = window("browse", "vent", size=(80, 24))
    reader.wait("1 manual", "F1 keys")
    reader.keys("?")
    screen = reader.wait("Finding", "go to an option by typing it")
    assert max(len(line) for line in screen.split("\n")) <= 80
    reader.keys("Escape")
    reader.wait("1 manual", without="Finding")


def test_a_walk_of_forty_steps_at_both_sizes(window: Open) -> None:
    for size in ((80, 24), (140, 40)):
        walk = window("browse", size=size)
        walk.wait("Type what you look for")
        walk.text("vent")
        walk.wait("vent(1)")
        steps = (
            "Down Up Tab Down Tab Enter Tab Tab BTab o e g Down Enter / n Escape Space PageDown "
            "PageUp Home End m m v w v 2 1 - Escape F1 Escape ] [ f Down Enter Home Escape Escape "
            "C-c"
        ).split()
        assert len(steps) >= 40
        for step in steps:
            walk.keys(step)
            screen = walk.screen
            lines = screen.rstrip("\n").split("\n")
            assert len(lines) <= size[1] and max(len(line) for line in lines) <= size[0]
            assert "\ufffd" not in screen and "Traceback" not in screen
        walk.result()
        walk.answer.unlink()
        walk.close()
