"""`browse` in plain lines: numbers to choose by, one question at a time, in the order in which a
screen reader says them.
"""

from __future__ import annotations

from dowsing.cli.plain_lines import Ended, ask, tell
from dowsing.model.document import Document, Section
from dowsing.model.entry import Entry
from dowsing.model.errors import Failure
from dowsing.model.markup import clean_line, plain
from dowsing.render.layout import section_lines
from dowsing.render.page_text import head_lines
from dowsing.search.searching import make_query, search
from dowsing.session.opened import Opened
from dowsing.session.session import Session
from dowsing.session.user_data import note_read
from dowsing.tasks.recipe_examples import examples_of

MOST_FOUND = 10
WIDEST = 100
LINES_AT_ONCE = 20


def browse_in_lines(session: Session, label: str) -> str | None:
    """Let the user find and read; the line that was chosen, None if none was."""
    browsing = _Browsing(session)
    try:
        if label:
            browsing.read(label)
        while browsing.line is None and browsing.find():
            pass
    except (Ended, KeyboardInterrupt):
        tell("")
    return browsing.line


class _Browsing:
    def __init__(self, session: Session) -> None:
        self.session = session
        self.line: str | None = None
        self.width = min(session.screen.width, WIDEST)

    def find(self) -> bool:
        """Ask for words, list what is found, and open one; whether to go on."""
        asked = ask("find (empty leaves): ")
        if not asked:
            return False
        found = search(self.session.store, make_query(asked.split(), MOST_FOUND))
        entries = [hit.entry for hit in found.hits]
        if not entries:
            tell("nothing found; try other or fewer words")
            return True
        tell(
            f"{found.total} found"
            + (f", the first {len(entries)}" if found.total > len(entries) else "")
        )
        for n, entry in enumerate(entries, 1):
            tell(f"{n}: {clean_line(entry.label)}, {clean_line(entry.summary) or 'no summary'}")
        number = _number(
            f"number to open, 1 to {len(entries)} (empty: other words): ", len(entries)
        )
        if number:
            self.read(entries[number - 1].label)
        return True

    def read(self, label: str) -> None:
        """Open an entry and ask what of it is wanted, until another is."""
        try:
            opened = Opened(self.session, label)
        except Failure as failure:
            tell(failure.says)
            return
        note_read(self.session, opened.label)
        for line in head_lines(opened.document, opened.found, self.width, []):
            tell(plain(line))
        while self.line is None:
            sections = [one for one in opened.document.sections if one.title]
            for n, section in enumerate(sections, 1):
                tell(f"{n}: {clean_line(section.title)}")
            others = [one for one in opened.sources if one != opened.source]
            more = f", s another text ({', '.join(others)})" if others else ""
            answer = ask(f"number of a part, e examples{more}, / words in it (empty: back): ")
            if not answer:
                return
            if answer == "e":
                self.examples(opened.document, opened.entry)
            elif answer == "s" and others:
                self.turn(opened, others)
            elif answer.startswith("/"):
                self.around(opened.document.sections, answer[1:].strip())
            elif answer.isdecimal() and 1 <= int(answer) <= len(sections):
                self.part(sections[int(answer) - 1])
            else:
                tell(f"a number from 1 to {len(sections)}, e, or / and a word")

    def turn(self, opened: Opened, others: list[str]) -> None:
        """Another text of the same name."""
        for n, source in enumerate(others, 1):
            tell(f"{n}: {source}")
        number = _number(f"text, 1 to {len(others)} (empty: stay): ", len(others))
        if number:
            try:
                opened.turn_to(others[number - 1])
            except Failure as failure:
                tell(failure.says)

    def part(self, section: Section) -> None:
        """A part, a screen at a time."""
        lines = [plain(line) for line in section_lines([section], self.width)]
        for start in range(0, len(lines), LINES_AT_ONCE):
            for line in lines[start : start + LINES_AT_ONCE]:
                tell(line)
            left = len(lines) - start - LINES_AT_ONCE
            if left > 0 and ask(f"{left} more lines (Enter goes on, b back): "):
                return

    def around(self, sections: list[Section], word: str) -> None:
        """The paragraphs that have a word."""
        from dowsing.model.document import document_text

        if not word:
            tell("say a word behind the slash")
            return
        low = word.casefold()
        found = [
            (section.title, text)
            for section in sections
            for text in document_text([section]).split("\n")[1:]
            if low in text.casefold()
        ]
        count = "1 place" if len(found) == 1 else f"{len(found)} places"
        tell(count if found else f"“{clean_line(word)}” is not in this text")
        for title, text in found[:LINES_AT_ONCE]:
            tell(f"{clean_line(title)}: {' '.join(text.split())}")

    def examples(self, document: Document, entry: Entry) -> None:
        """Lines that use it; one may be chosen, which is what comes of it all."""
        shown = examples_of(self.session.store, document, entry.all_names, [], [])[:MOST_FOUND]
        if not shown:
            tell("there are no examples of it")
            return
        for n, one in enumerate(shown, 1):
            tell(f"{n}: {clean_line(one.task) or 'for example'}: {clean_line(one.line)}")
        number = _number(f"line to take, 1 to {len(shown)} (empty: none): ", len(shown))
        if number:
            self.line = shown[number - 1].line


def _number(prompt: str, most: int) -> int:
    """A number from 1 on that is answered, 0 for an empty answer; what is none is asked again."""
    while True:
        answer = ask(prompt)
        if not answer:
            return 0
        if answer.isdecimal() and 1 <= int(answer) <= most:
            return int(answer)
        tell(f"a number from 1 to {most}")
