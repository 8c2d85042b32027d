"""`read --beside`: a page in a pane of its own."""

from __future__ import annotations

from conftest import Program

from screen.conftest import Open


def test_a_page_in_a_pane_beside(window: Open) -> None:
    for size, beside in (((180, 40), True), ((90, 40), False)):
        shell = window(command="exec bash --norc -i", size=size)
        shell.wait("bash")
        shell.text("dowsing --demo read vent --part examples --beside")
        shell.keys("Enter")
        shell.wait("Close everything before a storm")
        panes = shell._tmux("list-panes", "-F", "#{pane_left},#{pane_top}").split()
        assert len(panes) == 2 and panes[1].startswith("0,") != beside
        assert "opened in a pane of tmux" in shell._tmux("capture-pane", "-p", "-t", "0")
        shell._tmux("send-keys", "-t", "0", "dowsing --demo read mist --beside", "Enter")
        shell.wait("spray water mist", without="Close everything before a storm")
        assert len(shell._tmux("list-panes").split("\n")[:-1]) == 2, "the same pane shows it"
        assert "shown beside" in shell._tmux("capture-pane", "-p", "-t", "0")
        shell.keys("q")
        shell.wait("opened in a pane of tmux", "shown beside")
        assert len(shell._tmux("list-panes").split("\n")[:-1]) == 1, "it closes with the pager"
        shell.close()


def test_where_there_is_no_place_beside(program: Program) -> None:
    done = program.run("--demo", "read", "vent", "--beside")
    assert (done.returncode, done.stdout) == (3, "")
    assert done.stderr.startswith(
        "dowsing: --beside needs a terminal multiplexer around this shell (tmux, screen, "
        "zellij), or"
    )
    assert "--format html -o FILE" in done.stderr
    assert program.run("--demo", "read", "vent", "--beside", "--format", "html").returncode == 2
    assert program.run("--demo", "read", "nosuch", "--beside").returncode == 1
