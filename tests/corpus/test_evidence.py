"""Each part of the score of a recipe decides something: without it another line comes first."""

from __future__ import annotations

import pytest

from dowsing.commandline.command_finder import CommandFinder
from dowsing.index.store import Store
from dowsing.machine.settings import Settings
from dowsing.tasks import recipe_ranking
from dowsing.tasks.answers import lines_for
from dowsing.tasks.evidence import Evidence, read_weights

#: Parts that speak for a recipe; the others speak against it.
FOR = {"chosen", "covered", "union", "said", "fit", "like", "wanted"}


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
        ("covered", "push the branch keel to origin", "git push -u origin keel"),
        ("union", "open the archive props.tgz in the folder stage", "tar -xf props.tgz -C stage"),
        ("unsaid", "restart nginx", "systemctl restart nginx"),
        ("said", "find all empty files here", "find . -type f -empty"),
        ("guessed", "bring photos from pier.example here", "scp -r pier.example:<folder> ."),
        ("unused", "install requests 2.31 with pip", "pip install requests==2.31"),
        ("open", "is the machine mast.example reachable", "ping -c 4 mast.example"),
        ("fit", "throw away my local changes to config.yml", "git restore config.yml"),
        ("like", "print column 3 of stock.csv", "cut -d, -f3 stock.csv"),
        ("changes", "is the service moor-radio running", "systemctl is-active moor-radio"),
        ("shows", "install the package ripple", "apt-get install ripple"),
        ("wrong_way", "copy a.txt to pier.example", "scp a.txt <user>@pier.example:<target>"),
        (
            "lost",
            "find all .mov files larger than 1 GB under /media",
            "find /media -type f -name '*.mov' -size +1G",
        ),
        ("refused", "show disk usage without du", "df -h"),
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
