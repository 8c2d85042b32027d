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
