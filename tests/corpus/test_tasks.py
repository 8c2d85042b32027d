"""The lines for tasks, from the shipped recipes and the pages of the frozen library."""

from __future__ import annotations

import pytest

from corpus.pages import rows
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.index.store import Store
from dowsing.machine.settings import Settings
from dowsing.tasks.answers import lines_for


@pytest.fixture(scope="module")
def corpus_tables(corpus: Store, corpus_settings: Settings) -> CommandFinder:
    """What is known of the library's commands."""
    return CommandFinder(corpus, corpus_settings)


@pytest.mark.parametrize(("sentence", "line"), rows("tasks.tsv"))
def test_the_first_line(corpus_tables: CommandFinder, sentence: str, line: str) -> None:
    found = lines_for(sentence, [], corpus_tables)
    lines = [answer.line for answer in found.answers] or ["-"]
    assert lines[0] == line
