"""`task`: command lines for a task said in plain words."""

from __future__ import annotations

import argparse
import re

from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.knowledge.stems import EMPTY, telling_stems
from dowsing.model.errors import Failure
from dowsing.render.typed import typed_words
from dowsing.session.session import Session
from dowsing.session.user_data import own_for
from dowsing.tasks.answers import lines_for
from dowsing.tasks.remembered import ListKind, Remembered, recall, remember

DESCRIPTION = (
    "Command lines for a task said in plain words, with the values that the sentence holds. "
    "--again says what to do otherwise about the last one."
)
OTHERS_ARE_WORDS = True
MOST_SEARCHED = 8  # words of it that are searched for where nothing is known
NAMED = 3  # entries that are told then
MOST_SAID = 2000  # characters of a sentence with what was said after it


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument(
        "words", nargs="*", metavar="SENTENCE", help="pack the notes folder into notes.tgz"
    )
    parser.add_argument(
        "--again",
        metavar="REVISION",
        action="append",
        default=[],
        help="the last task, with this changed",
    )
    parser.add_argument(
        "--limit", type=int, choices=range(1, 21), default=5, metavar="N", help="so many lines (5)"
    )


def _nothing(session: Session, sentence: str) -> str:
    """That nothing does what is said, with the entries that its words find; none that stand for
    other words.
    """
    from dowsing.index.absent_rows import absent_for
    from dowsing.render.absent_lines import not_here_words
    from dowsing.search.searching import make_query, search
    from dowsing.session.absent import not_here

    missing = not_here(session, absent_for(session.store, telling_stems(sentence)))[:NAMED]
    if missing:
        return f"nothing known here does that; {not_here_words(missing)}"
    words = [word for word in re.findall(r"\w[\w.+-]*", sentence) if word.lower() not in EMPTY]
    words = words[:MOST_SEARCHED]
    said = "nothing known here does that"
    found = search(session.store, make_query(words, limit=NAMED)) if words else None
    if found is None or found.is_guessed:
        return f"{said}; say it in other words, or look through {session.program} browse"
    labels = ", ".join(hit.entry.label for hit in found.hits)
    about = f"; of its words: {labels}" if labels else ""
    return f"{said}{about}; {session.program} find {typed_words(' '.join(words))}"


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    sentence = " ".join(options.words).strip()
    again = [one.strip() for one in options.again if one.strip()]
    folder = session.settings.data
    if not sentence and again:
        last = recall(folder)
        if last is None or last.kind != ListKind.TASK:
            raise Failure(
                "there was no task in this terminal yet; say it first: dowsing task SENTENCE",
                status=2,
            )
        sentence, again = last.task, [*last.again, *again]
    if not sentence:
        raise Failure(
            "say what is to be done: dowsing task pack the notes folder into notes.tgz", status=2
        )
    if len(sentence) + sum(map(len, again)) > MOST_SAID:
        raise Failure(
            f"a task is said in at most {MOST_SAID:,} characters; say the main thing first",
            status=2,
        )
    finder = CommandFinder(session.store, session.settings, suggest=False)
    found = lines_for(
        sentence, again, finder, options.limit, own_for(session, " ".join([sentence, *again]))
    )
    if not found.answers:
        raise Failure(_nothing(session, sentence))
    lines, tasks = (
        [answer.line for answer in found.answers],
        [answer.task for answer in found.answers],
    )
    remember(folder, Remembered(ListKind.TASK, sentence, again, lines, tasks))
    if session.json:
        from dowsing.render.line_json import answer_json

        session.print_json(
            {
                "task": found.task,
                "again": found.again,
                "understood": found.understood,
                "near": found.near,
                "likely": found.likely,
                "not_used": found.lacks,
                "misspelled": [{"typed": one.typed, "read": one.read} for one in found.misspelled],
                "answers": [answer_json(one) for one in found.answers],
            }
        )
    else:
        from dowsing.render.task_answers import task_lines

        session.screen.show(
            task_lines(found, session.screen.width, session.program, session.screen.height)
        )
    return 0
