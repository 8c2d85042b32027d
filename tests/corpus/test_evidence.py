"""Each part of the score of a recipe decides something: without it another line comes first."""

from __future__ import annotations

import pytest

from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.index.store import Store
from dowsing.machine.settings import Settings
from dowsing.tasks import recipe_ranking
from dowsing.tasks.answers import lines_for
from dowsing.tasks.evidence import Evidence, read_weights

#: Parts that speak for a recipe; the others speak against it.
FOR = {"chosen", "covered", "union", "said", "fit", "like", "wanted", "named"}


@pytest.fixture(scope="module")
def finder_of_corpus(corpus: Store, corpus_settings: Settings) -> CommandFinder:
    """What is known of the library's commands."""
    return CommandFinder(corpus, corpus_settings)


def first(sentence: str, finder: CommandFinder) -> str:
    """The first line for a sentence, - for none."""
    answers = lines_for(sentence, [], finder).answers
    return answers[0].line if answers else "-"


@pytest.mark.parametrize(
    ("part", "sentence", "line"),
    [
        ("chosen", "join a.pdf and b.pdf to both.pdf", "pdfunite a.pdf b.pdf both.pdf"),
        ("covered", "change the group of budget.xls to finance", "chgrp finance budget.xls"),
        ("union", "change the group of budget.xls to finance", "chgrp finance budget.xls"),
        ("unsaid", "verify sums in MD5SUMS", "md5sum -c MD5SUMS"),
        ("said", "sort names.txt and drop repeated lines", "sort -u names.txt"),
        ("guessed", "start a new branch montage from here", "git switch -c montage"),
        ("open", "which groups does mira belong to", "groups mira"),
        (
            "fit",
            "copy report.odt to /mnt/usb but don't clobber one that's already there",
            "cp -n report.odt /mnt/usb",
        ),
        ("named", "start nginx", "systemctl start nginx"),
        (
            "added",
            "copy the whole looms directory to /backup, keeping permissions and times",
            "cp -a looms /backup",
        ),
        (
            "like",
            "total of the second column of sales.csv",
            "awk -F, '{s += $2} END {print s}' sales.csv",
        ),
        ("changes", "remove blank lines from poem.txt", "sed '/^[[:space:]]*$/d' poem.txt"),
        (
            "shows",
            "give the folder tides and everything in it to user marta",
            "chown -R marta tides",
        ),
        ("lost", "list just the subfolders of music", "find music -type d"),
        ("absent", "number the lines of poem.txt", "cat -n poem.txt"),
    ],
)
def test_without_a_part_another_line_comes_first(
    finder_of_corpus: CommandFinder,
    monkeypatch: pytest.MonkeyPatch,
    part: str,
    sentence: str,
    line: str,
) -> None:
    assert first(sentence, finder_of_corpus) == line
    weights = read_weights().changed(**{part: 0.0})
    monkeypatch.setattr(recipe_ranking, "read_weights", lambda: weights)
    assert first(sentence, finder_of_corpus) != line


@pytest.mark.parametrize(
    ("sentence", "line"),
    [
        ("show disk usage without du", "df -h"),
        ("tcp ports that are being listened on, no udp", "ss -tlnp"),
        ("bring notes.txt to pier.example", "scp notes.txt pier.example:"),
        ("bring notes.txt from pier.example", "scp pier.example:notes.txt ."),
    ],
)
def test_what_is_ruled_out_is_no_answer(
    finder_of_corpus: CommandFinder, sentence: str, line: str
) -> None:
    assert first(sentence, finder_of_corpus) == line


def test_each_part_speaks_as_it_should() -> None:
    weights = read_weights()
    for name in Evidence._fields:
        assert (getattr(weights, name) > 0) == (name in FOR), name


@pytest.mark.parametrize(
    ("sentence", "line"),
    [
        ("which old logs take space in /var/log", "du"),
        ("what does kill do with process 12", "ps"),
        ("is the process mistd running", "pgrep"),
    ],
)
def test_a_question_never_gets_a_line_that_does_harm_first(
    finder_of_corpus: CommandFinder, sentence: str, line: str
) -> None:
    assert first(sentence, finder_of_corpus).split()[0] == line


@pytest.mark.parametrize(
    ("sentence", "line"),
    [
        ("delete the folder attic with everything in it", "rm -r attic"),
        ("how do I kill process 12", "kill 12"),
    ],
)
def test_what_is_asked_for_is_done(
    finder_of_corpus: CommandFinder, sentence: str, line: str
) -> None:
    assert first(sentence, finder_of_corpus) == line


@pytest.mark.parametrize("sentence", ["walk the dog", "thank you very much", "make me rich"])
def test_what_is_no_task_is_said_not_to_be_known(
    finder_of_corpus: CommandFinder, sentence: str
) -> None:
    found = lines_for(sentence, [], finder_of_corpus)
    assert not found.answers or found.near


@pytest.mark.parametrize(
    ("sentence", "again", "line"),
    [
        ("copy a.txt", ["to b.txt"], "cp a.txt b.txt"),
        ("copy a.txt", ["to b.txt", "undo that"], "cp a.txt <copy>"),
        ("copy a.txt", ["to b.txt", "no, to c.txt"], "cp a.txt c.txt"),
        ("number the lines of poem.txt", ["no, not that"], "nl poem.txt"),
        ("number the lines of poem.txt", ["not that", "undo that"], "cat -n poem.txt"),
        ("number the lines of poem.txt", ["with another tool"], "nl poem.txt"),
        ("which process is using port 80", ["on another port"], "ss -tlnp sport = :<port>"),
        ("which process is using port 80", ["on another port", "81"], "ss -tlnp sport = :81"),
        (
            "find files bigger than 1 GB in /srv",
            ["not the hidden ones", "only below /srv/media"],
            "find /srv/media -type f -size +1G -not -path '*/.*'",
        ),
    ],
)
def test_what_is_said_again_changes_the_line(
    finder_of_corpus: CommandFinder, sentence: str, again: list[str], line: str
) -> None:
    found = lines_for(sentence, again, finder_of_corpus)
    assert found.answers[0].line == line


def test_a_line_that_was_refused_is_told(finder_of_corpus: CommandFinder) -> None:
    found = lines_for("number the lines of poem.txt", ["no, not that"], finder_of_corpus)
    assert found.understood == ["file poem.txt", "not cat -n poem.txt"]
