"""Options: items whose tag is a flag, with all spellings, the argument's placeholder and the
text.
"""

from __future__ import annotations

import re

from dowsing.facts.option_tags import KEYED, LETTER, WORDED, Tag, read_keyword, read_tag
from dowsing.facts.walk import flatten, own_text
from dowsing.model.document import (
    Block,
    Document,
    Indent,
    Item,
    Literal,
    Option,
    Paragraph,
    Section,
    document_text,
)
from dowsing.model.markup import BOLD, BOLD_ITALIC, CODE, ITALIC, ROMAN, plain
from dowsing.model.source_name import SourceName

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

_MARKS = BOLD + ITALIC + BOLD_ITALIC + CODE + ROMAN
_SPELLED = r"--?[\w?#@][^\s,:]*(?: [\w<\[][^\s,.:]*){0,2}"
_TAG_ALONE = rf"{_SPELLED}(?:(?:, ?| ?\| ?| ?/ ?| and ){_SPELLED})*"
_TAG_DOTS = rf"{_TAG_ALONE}(?: \.\.\.)?"
_INLINE = re.compile(rf"({_TAG_ALONE})(?::\s+|\s+-\s+|\s+(?=[A-Z][a-z]))(?=\S)")
#: A heading that is an option with what it takes: `--detach-keys=sequence`, `--latest, -l`.
_HEADED = re.compile(r"--?[A-Za-z0-9][\w.-]*(?:[=,\s\[].*)?\Z")
#: An option in a form with a placeholder that is plainly one.
_SHOWN_IN_FORM = re.compile(r"\[(--?[\w-]+)[ =]<?([A-Z][A-Z0-9_-]+)>?\]")
_PARTED = re.compile(rf"({_TAG_ALONE})\s+-\s+(?=\S)")
_ABOUT_OPTIONS = re.compile(r"option|modifier|\bmodes?\b|flags|switches", re.IGNORECASE)

#: A letter with its placeholder close to it, told apart by type alone: `-p` in bold and `num` in
#: italics.
_ATTACHED = re.compile(rf"((?<![\w-])-\w)[{ROMAN}]?{ITALIC}(?=\w)")

#: A line of help: a flag, and beside it or in the next line what it does.
_COLUMN = re.compile(r" {1,8}--?[A-Za-z][\w-]*(?:,? {1,2}[^\s-]\S*| {1,3}--?\S+){0,3}(?: {2,}\S|$)")
LEAST_COLUMNS = 3

#: That a value may be left out: `if argument is used but value is unspecified`.
_LACKS = re.compile(
    r"\b(?:[Ii]f|[Ww]hen) no (?:value|argument)s? (?:is |are )?(?:given|specified|provided)\b"
    r"|\b(?:value|argument)s? (?:is |are )?"
    r"(?:unspecified|omitted|not (?:given|specified|provided))\b"
    r"|\bwithout (?:a |any )?(?:value|argument)\b"
)

#: Sources whose forms name options that their text may not list.
_SHORT_SOURCES = ("builtin", "shell-manual", "usage", "builtin-usage")


#: A tag (several are lines of it), what is said of it, and the title of its section.
Tagged = tuple[str, list[Block], str]


def read_options(document: Document) -> list[Option]:
    """All options of the document in the order of its text, then those that only its forms show."""
    options = _with_form_arguments(document, _read(document, details=True))
    return _with_values(document, options)


def read_brief_options(document: Document) -> list[Option]:
    """The same options, without defaults and values."""
    return _read(document, details=False)


def _read(document: Document, details: bool) -> list[Option]:
    made = (make_option(*tagged, details) for tagged in tagged_flags(document))
    found = [option for option in made if option is not None]
    found += keyword_options(document, details)
    is_program = document.section[:1] in ("1", "6", "8")
    if len(found) < LEAST_COLUMNS and document.source == SourceName.MANUAL and is_program:
        found += _in_columns(document, details, {flag for one in found for flag in one.flags})
    if document.source in _SHORT_SOURCES:
        found = [_which_may_lack(option) for option in found]
        from dowsing.facts.form_options import options_of_forms

        found += options_of_forms(document.synopsis, found)
    return found


def _which_may_lack(option: Option) -> Option:
    """An option whose value may be left out, where only its text says so."""
    if option.argument is None or option.argument_optional or not _LACKS.search(option.text):
        return option
    return option.changed(argument_optional=True)


def _in_columns(document: Document, details: bool, known: set[str]) -> list[Option]:
    """The options of a page that shows them as a program prints its help: lines with columns.
    `known`: spellings that were found already.
    """
    lines = [
        line
        for section in document.sections
        for block in flatten(section.blocks)
        if isinstance(block, Literal) or (isinstance(block, Paragraph) and "\n\xa0" in block.text)
        for line in plain(block.text).replace("\xa0", " ").split("\n")
    ]
    if sum(bool(_COLUMN.match(line)) for line in lines) < LEAST_COLUMNS:
        return []
    from dowsing.readers.usage.usage_text import read_help

    shown = Document(document.name, document.section, document.source, read_help(lines))
    made = (make_option(*tagged, details) for tagged in tagged_flags(shown))
    return [one for one in made if one is not None and not known & set(one.flags)]


def _with_values(document: Document, options: list[Option]) -> list[Option]:
    """The options with the values that the text tells elsewhere of placeholders in capitals."""
    open_ones = {
        o.argument
        for o in options
        if o.argument and not o.values and re.fullmatch(r"[A-Z]{4,}", o.argument)
    }
    if not open_ones:
        return options
    from dowsing.facts.option_texts import values_elsewhere

    told = values_elsewhere(document_text(document.sections))
    return [
        option.changed(values=told[option.argument])
        if not option.values and option.argument in told
        else option
        for option in options
    ]


def _with_form_arguments(document: Document, options: list[Option]) -> list[Option]:
    """The options with the arguments that only the forms show: `[-i INVENTORY]`."""
    if document.source != SourceName.MANUAL or not document.synopsis:
        return options
    shown = {
        match[1]: match[2] for form in document.synopsis for match in _SHOWN_IN_FORM.finditer(form)
    }
    found = []
    for option in options:
        argument = next((shown[flag] for flag in option.flags if flag in shown), None)
        if option.argument is None and argument is not None:
            option = option.changed(argument=argument)
        found.append(option)
    return found


def tagged_flags(document: Document) -> list[Tagged]:
    """The items of the text whose tag is a flag, as they are written."""
    found: list[Tagged] = []
    above = ""  # the title over headings that are options themselves
    for section in document.sections:
        tag = section.title
        if section.level > 1 and tag[:1] == "-" and _HEADED.match(tag):
            found.append((tag, section.blocks, above))
            continue
        above = tag
        before = len(found)
        _collect(section.blocks, tag, found, document.source != SourceName.INFO)
        if len(found) == before and _ABOUT_OPTIONS.search(tag):
            found += _in_bold(section)
    return found


def _in_bold(section: Section) -> list[Tagged]:
    """The options of a section that shows each as a paragraph whose first words are the tag, in
    bold.
    """
    found: list[Tagged] = []
    for block in flatten(section.blocks):
        if not isinstance(block, Paragraph):
            continue
        match = _bold_tag(block.text)
        if match is not None:
            text = plain(block.text).strip()[match.end() :]
            found.append((match[1], [Paragraph(text)], section.title))
    return found


def _collect(blocks: list[Block], title: str, found: list[Tagged], own_column: bool) -> None:
    """Add the options that the blocks describe, in order, to `found`. Tags wait in a list until
    the text that they share comes.
    """
    waiting: list[str] = []
    told_below = _told_below(blocks)
    for n, block in enumerate(blocks):
        if n in told_below:
            found.append((_tag_text(block), _paragraph_after(blocks, n), title))
        elif isinstance(block, Paragraph):
            _from_paragraph(block, blocks[n + 1 :], title, found, own_column, waiting)
        elif isinstance(block, Item):
            _from_item(block, title, found, own_column, waiting)
        elif isinstance(block, Indent) and not waiting:
            _collect(block.body, title, found, own_column)
    if waiting:
        _close(waiting, [], title, found)


def _from_item(
    item: Item, title: str, found: list[Tagged], own_column: bool, waiting: list[str]
) -> None:
    """An item that is an option, or whose body has some."""
    if item.beside and not own_column:
        return  # an entry of a menu or an index
    if item.bullet and _bulleted(item, title, found):
        return
    if not item.bullet:
        _from_tag(item, title, found, waiting)
    if item.body:
        _collect(item.body, title, found, own_column)


def _from_paragraph(
    block: Paragraph,
    below: list[Block],
    title: str,
    found: list[Tagged],
    own_column: bool,
    waiting: list[str],
) -> None:
    """A paragraph that is an option's tag, alone or with its text."""
    text = block.text
    if "-" not in text[:6] or text[:6].lstrip(_MARKS)[:1] != "-":
        return
    tag = plain(text).strip()
    first, _, rest = tag.partition("\n")
    if text[:1] == BOLD and rest and re.fullmatch(_TAG_DOTS, first) and not rest.startswith("-"):
        found.append((first, [Paragraph(rest)], title))  # the text in the line below the tag
        return
    inline = None
    if own_column and _ABOUT_OPTIONS.search(title):
        inline = _INLINE.match(tag)
    elif own_column and text[:1] == BOLD:
        inline = _PARTED.match(tag)
    if inline and not waiting:  # tag and text in one paragraph
        found.append((inline[1], [Paragraph(tag[inline.end() :])], title))
    elif re.fullmatch(_TAG_ALONE, tag) and below and isinstance(below[0], (Indent, Item)):
        waiting.append(tag)  # a tag as a paragraph of its own, with its text set in below
        body = [one for indent in _leading_indents(below) for one in indent.body]
        if body:
            _close(waiting, body, title, found)


def _is_bold_tag(block: Block) -> bool:
    """Whether a paragraph is nothing but the tag of an option, its spelling in bold."""
    if not isinstance(block, Paragraph) or block.text[:1] != BOLD:
        return False
    return re.fullmatch(_TAG_ALONE, _tag_text(block)) is not None


def _told_below(blocks: list[Block]) -> set[int]:
    """The places of tags in bold whose text is the paragraph below, if there are enough of them to
    be the way of the page.
    """
    found = {
        n
        for n, block in enumerate(blocks)
        if _is_bold_tag(block) and not isinstance(_at(blocks, n + 1), (Indent, Item))
    }
    return found if len(found) >= LEAST_COLUMNS else set()


def _at(blocks: list[Block], place: int) -> Block | None:
    """The block at a place, None behind the last."""
    return blocks[place] if place < len(blocks) else None


def _tag_text(block: Block) -> str:
    return plain(block.text).strip() if isinstance(block, Paragraph) else ""


def _paragraph_after(blocks: list[Block], at: int) -> list[Block]:
    """The paragraph behind a tag that is one itself, [] if another tag follows."""
    return [
        one
        for one in blocks[at + 1 : at + 2]
        if isinstance(one, Paragraph) and not _is_bold_tag(one)
    ]


def _bold_tag(text: str) -> re.Match[str] | None:
    """The tag that a paragraph begins with, all of it in bold: `**-p, --persist** lets windows
    survive`. The match is one of the bare text.
    """
    end = text.find(ROMAN)
    if text[:1] != BOLD or end < 0:
        return None
    bold = plain(text[:end])
    if not re.fullmatch(_TAG_ALONE, bold) or not text[end + 1 : end + 2].isspace():
        return None
    return re.match(rf"({re.escape(bold)})\s+(?=\S)", plain(text).strip())


def _leading_indents(blocks: list[Block]) -> Iterator[Indent]:
    """The indented blocks before the first of another kind."""
    for block in blocks:
        if not isinstance(block, Indent):
            return
        yield block


_WHOLE_IN_BRACKETS = re.compile(r"\A\[(-[^\[\]]+)\]\Z")


def _from_tag(item: Item, title: str, found: list[Tagged], waiting: list[str]) -> None:
    """An item of a list of tags, if its tag is an option's."""
    tag = plain(_ATTACHED.sub(r"\1 ", item.tag)).strip()
    tag = _WHOLE_IN_BRACKETS.sub(r"\1", tag)
    if (tag[:1] in ("-", "+") or tag.startswith(("[!] -", "! -"))) and len(tag) > 1:
        waiting.append(tag)
        if item.body or item.beside:
            _close(waiting, item.body, title, found)


def _bulleted(item: Item, title: str, found: list[Tagged]) -> bool:
    """Take up an option that is a point of a list: its tag in bold, with its text behind it or in
    what follows.
    """
    first = item.body[0] if item.body else None
    if not isinstance(first, Paragraph) or first.text[:1] != BOLD or "-" not in first.text[1:3]:
        return False
    text = plain(first.text)
    match = re.match(rf"({_TAG_ALONE})(?:: ?|\Z)", text)
    if match is None:
        return False
    rest = text[match.end() :].strip()
    found.append((match[1], [*([Paragraph(rest)] if rest else []), *item.body[1:]], title))
    return True


def _close(waiting: list[str], body: list[Block], title: str, found: list[Tagged]) -> None:
    """Take up the tags that waited for the text they have together."""
    found.append(("\n".join(waiting), body, title))
    waiting.clear()


def make_option(tag: str, body: list[Block], title: str, details: bool = True) -> Option | None:
    """The option that `tag` names, or None if it names none; with what its text tells of values if
    `details`.
    """
    read = read_tag(tag)
    return _option(read, body, title, details) if read else None


def _option(tag: Tag, body: list[Block], title: str, details: bool) -> Option:
    text = own_text(body)
    option = Option(
        tag.flags,
        tag.argument,
        tag.argument_optional,
        text,
        title,
        repeatable=tag.repeatable,
        bare=tag.bare,
        written=tag.written,
    )
    if not details:
        return option
    from dowsing.facts.option_texts import assumed_of, default_of, is_repeatable, values_of

    values = None
    if tag.argument is not None:
        values = values_of(tag.argument, text, body)
    return option.changed(
        default=default_of(text),
        values=values,
        repeatable=tag.repeatable or is_repeatable(text),
        assumed=assumed_of(text) if tag.argument_optional else None,
    )


def keyword_options(document: Document, details: bool = True) -> list[Option]:
    """Options without a dash: letters beside dashed ones, `key=VALUE`, and words that the forms
    show as they stand.
    """
    if document.section[:1] not in ("1", "6", "8"):
        return []
    words = _form_words(document)
    bundled = any("[-]" in form for form in document.synopsis)  # the dash may be left out
    found = []
    for section in document.sections:
        entries = [
            (item, plain(item.tag).strip(), item.tag[:1] == BOLD)
            for item in flatten(section.blocks)
            if isinstance(item, Item) and not item.bullet
        ]
        dashed = sum(tag[:1] == "-" for _, tag, _ in entries)
        keyed = sum(bool(KEYED.match(tag)) for _, tag, _ in entries) > 2
        letters = sum(bold and bool(LETTER.match(tag)) for _, tag, bold in entries)
        for item, tag, bold in entries:
            worded = WORDED.match(tag)
            if (
                (
                    ((dashed > 1 and letters > 1) or (bundled and letters > 3))
                    and bold
                    and LETTER.match(tag)
                )
                or (keyed and KEYED.match(tag))
                or (worded and worded[1] in words)
            ):
                read = read_keyword(tag)
                if read:
                    found.append(_option(read, item.body, section.title, details))
    return found


def _form_words(document: Document) -> frozenset[str]:
    """The words that stand before a placeholder in capitals somewhere in the forms, commands left
    out.
    """
    words: set[str] = set()
    for form in document.synopsis:
        words.update(re.findall(r"(?:\[|\S [A-Z-]+|\|) ([a-z][\w-]+)(?= <?[A-Z][A-Z_-]+\b)", form))
    return frozenset(words) - {word for name in document.names for word in name.split("-")}
