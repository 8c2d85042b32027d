"""The one model that every source produces: a Document of sections, blocks and marked text."""

from __future__ import annotations

from dowsing.model.markup import plain
from dowsing.model.record import Record
from dowsing.model.source_name import OWN_HELP, SourceName

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable
    from typing import Any


class Paragraph:
    """Running text (marked, see markup.py). A newline in it is a line break that must stay.

    `hanging`: lines after the first are indented, as in a synopsis.
    """

    __slots__ = ("hanging", "text")

    def __init__(self, text: str, hanging: bool = False) -> None:
        self.text = text
        self.hanging = hanging


class Literal:
    """Text whose lines and blanks stay as they are (marked)."""

    __slots__ = ("text",)

    def __init__(self, text: str) -> None:
        self.text = text


class Item:
    """A tag and what is said of it: a list entry, an option, a term. Several tags are lines of
    `tag`.

    `compact`: no blank line before it. `bullet`: the tag is a mark or a number, not a term.
    `beside`: the text stands in a column of its own beside the tags, and an item without text is
    one for itself.
    """

    __slots__ = ("beside", "body", "bullet", "compact", "tag")

    def __init__(
        self, tag: str, compact: bool = False, bullet: bool = False, beside: bool = False
    ) -> None:
        self.tag = tag
        self.body: list[Block] = []
        self.compact = compact
        self.bullet = bullet
        self.beside = beside


class Indent:
    """Blocks set in from those around them."""

    __slots__ = ("body", "manual")

    def __init__(self) -> None:
        self.body: list[Block] = []
        self.manual = False  # made by a bare change of indentation, not by a nesting macro


class Cell:
    """One cell of a table: its text, how it is set (`l`, `r`, `c` or `n`) and how many columns it
    spans.
    """

    __slots__ = ("align", "span", "text")

    def __init__(self, text: str, align: str = "l", span: int = 1) -> None:
        self.text = text
        self.align = align
        self.span = span


class Table:
    """Rows of cells; a row that is None is a rule across the table."""

    __slots__ = ("boxed", "rows")

    def __init__(self, rows: list[list[Cell] | None], boxed: bool = False) -> None:
        self.rows = rows
        self.boxed = boxed


Block = Paragraph | Literal | Item | Indent | Table


class Section:
    """A titled part of a document. `level` 1 is a section, 2 a subsection, and so on.

    `anchor` is another name that the part is asked for by, such as that of an Info node.
    """

    __slots__ = ("anchor", "blocks", "level", "title")

    def __init__(self, title: str, level: int = 1) -> None:
        self.title = title
        self.anchor = ""
        self.level = level
        self.blocks: list[Block] = []


class Reference(Record):
    """A page that a document refers to."""

    name: str
    section: str


class Option(Record):
    """One option: all its spellings (dash included), its argument's placeholder and what is said of
    it.

    `default` applies when the option is not given, `assumed` when it is given without its optional
    argument. `bare` are the spellings that take no argument though another one does. `written` are
    the spellings with their arguments as the tag prints them (`--data <data>`, `--color[=WHEN]`),
    in the order of `flags`; [] where the tag prints none, or there is no tag.
    """

    flags: list[str]
    argument: str | None = None
    argument_optional: bool = False
    text: str = ""
    section: str = ""
    default: str | None = None
    values: list[str] | None = None
    repeatable: bool = False
    bare: list[str] = []  # noqa: RUF012 - a record is immutable
    assumed: str | None = None
    written: list[str] = []  # noqa: RUF012 - a record is immutable


class Example(Record):
    """A command line that a document gives, and what it is for (may be empty)."""

    task: str
    line: str


class Subcommand(Record):
    """A word that a program takes as its command, what is said of it, and how it is written with
    what it takes.

    `options` are those that its part of the document lists, `aliases` the other words for it.
    """

    name: str
    text: str = ""
    form: str = ""
    options: list[Option] = []  # noqa: RUF012 - a record is immutable
    aliases: list[str] = []  # noqa: RUF012


class FormatField(Record):
    """A field or a setting of a file format, as its page names it, and what is said of it."""

    name: str
    text: str = ""


class Document:
    """One text of one source.

    `names` are all names its NAME line gives, `name` the first; `summary` what that line says of
    them. Options, examples, synopsis and see-also are read out of the blocks when first asked for,
    by `read_fact`: a document as its reader made it has none, one that a source hands out has them
    (see dowsing.facts).
    """

    def __init__(  # noqa: PLR0913 - the fields of a document; most by keyword
        self,
        name: str,
        section: str,
        source: str,
        sections: list[Section],
        *,
        names: list[str] | None = None,
        summary: str = "",
        path: str = "",
        package: str | None = None,
        language: str = "",
        date: str = "",
        origin: str = "",
    ) -> None:
        self.name = name
        self.names = names or [name]
        self.section = section
        self.source = source
        self.sections = sections
        self.summary = summary
        self.path = path
        self.package = package
        self.language = language
        self.date = date
        self.origin = origin
        self.cut = ""  # why the text ends before its end, "" if it does not
        self.read_fact: Callable[[Document, str], list[Any]] | None = None
        self._facts: dict[str, list[Any]] = {}

    @property
    def label(self) -> str:
        """The name with its section, `tar(1)`; of a usage text what is typed for it,
        `ruff --help`.
        """
        if self.source == SourceName.USAGE:
            return f"{self.name}{OWN_HELP}"
        return f"{self.name}({self.section})" if self.section else self.name

    @property
    def synopsis(self) -> list[str]:
        """The forms of the synopsis as plain lines."""
        return self._fact("synopsis")

    @property
    def options(self) -> list[Option]:
        """The options in the order of the text."""
        return self._fact("options")

    @property
    def brief_options(self) -> list[Option]:
        """The options without what their texts tell of values, which takes longer to find out than
        all the rest.
        """
        return self._fact("brief_options") if "options" not in self._facts else self.options

    @property
    def examples(self) -> list[Example]:
        """The command lines that the text gives as examples."""
        return self._fact("examples")

    @property
    def subcommands(self) -> list[Subcommand]:
        """The words that the text lists as commands of the program."""
        return self._fact("subcommands")

    @property
    def format_fields(self) -> list[FormatField]:
        """The fields or settings that the text of a file format tells of, in its order."""
        return self._fact("format_fields")

    @property
    def see_also(self) -> list[Reference]:
        """The pages that the text refers to as related."""
        return self._fact("see_also")

    def _fact(self, kind: str) -> list[Any]:
        if kind not in self._facts:
            self._facts[kind] = self.read_fact(self, kind) if self.read_fact else []
        return self._facts[kind]


def block_texts(blocks: list[Block], out: list[str]) -> None:
    """Append the marked texts of `blocks`, in reading order, to `out`."""
    for block in blocks:
        kind = block.__class__
        if kind is Paragraph or kind is Literal:
            out.append(block.text)  # type: ignore[union-attr]
        elif kind is Item:
            out.append(block.tag)  # type: ignore[union-attr]
            block_texts(block.body, out)  # type: ignore[union-attr]
        elif kind is Indent:
            block_texts(block.body, out)  # type: ignore[union-attr]
        else:
            for row in block.rows:  # type: ignore[union-attr]
                if row:
                    out.extend(cell.text for cell in row)


def replace_texts(blocks: list[Block], change: Callable[[str], str]) -> None:
    """Put what `change` makes of it in the place of each marked text of `blocks`."""
    for block in blocks:
        if isinstance(block, Paragraph | Literal):
            block.text = change(block.text)
        elif isinstance(block, Table):
            for row in block.rows:
                for cell in row or ():
                    cell.text = change(cell.text)
        else:
            if isinstance(block, Item):
                block.tag = change(block.tag)
            replace_texts(block.body, change)


def document_text(sections: list[Section], marked: bool = False) -> str:
    """All words of the sections, titles included, one text a line; without marks, if they are not
    wanted.
    """
    out: list[str] = []
    for section in sections:
        out.append(section.title)
        block_texts(section.blocks, out)
    text = "\n".join(out)
    return text if marked else plain(text)
