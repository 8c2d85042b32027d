"""A line of the shell as commands, words and marks, by the Bash grammar of tree-sitter.

What the grammar cannot read as it stands is tried with what may be missing at its end: a quote, a
bracket, a word.
"""

from __future__ import annotations

import re
from functools import cache

from dowsing.commandline.grammar.problems import Problem
from dowsing.commandline.grammar.repairs import repaired
from dowsing.commandline.grammar.sayings import Manner, Meaning, ProblemCode
from dowsing.commandline.grammar.shell_words import (
    Inner,
    Item,
    Mark,
    ShellLine,
    SimpleCommand,
    Word,
)
from dowsing.model.roles import Role
from dowsing.model.told import told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any

    Node = Any

LONGEST = 200_000  # characters; longer lines are cut
MOST_STATEMENTS = 8000  # commands and operators of one line
MOST_NESTED = 60  # statements of the grammar within each other; a substitution in quotes is two

_KEYWORDS = frozenset(
    "if then else elif fi for in do done while until case esac select function [[ ]] ! { } (( )) "
    "time coproc".split()
)
_WORDS = frozenset(
    """
        word string raw_string ansi_c_string translated_string concatenation number expansion
        simple_expansion command_substitution process_substitution arithmetic_expansion
        brace_expression extglob_pattern regex variable_name special_variable_name string_content
        test_operator subscript array
    """.split()
)
_GLOB = re.compile(r"(?<!\\)[*?]|(?<!\\)\[[^\]]+\]|(?<!\\)\{[^{}]*(?:,|\.\.)[^{}]*\}")
_ESCAPES = {
    "n": "\n",
    "t": "\t",
    "r": "\r",
    "e": "\x1b",
    "a": "\a",
    "b": "\b",
    "f": "\f",
    "v": "\v",
    "0": "\0",
}


#: What words in a statement of the grammar are that are no commands.
_MANNERS = {
    "for_statement": Manner.LOOP_VALUE,
    "case_statement": Manner.CASE_VALUE,
    "case_item": Manner.CASE_PATTERN,
}


#: Signs of a case that mean something else elsewhere.
_CASE_SIGNS = {"|": Meaning.OR_CASE, ")": Meaning.ENDS_PATTERN, "(": Meaning.BEGINS_PATTERN}


@cache
def _parser() -> Any:
    core, grammar = _compiled("tree_sitter"), _compiled("tree_sitter_bash")
    return core.Parser(core.Language(grammar.language()))


def _compiled(package: str) -> Any:
    """The compiled part of a package. The rest of it would load half of the standard library for
    nothing used here.
    """
    from importlib.machinery import PathFinder

    found = PathFinder.find_spec(package)
    places = list(found.submodule_search_locations or ()) if found else []
    spec = PathFinder.find_spec(f"{package}._binding", places)
    if spec is None or spec.loader is None:
        from importlib import import_module

        return import_module(package)
    module = spec.loader.create_module(spec)
    spec.loader.exec_module(module)  # type: ignore[arg-type]
    return module


def parse_shell(line: str) -> ShellLine:
    """The line as commands and marks. Never raises; what cannot be read is told as the problem."""
    line = with_slots(line[:LONGEST])
    tree, source, problem = repaired(
        line, lambda text: _parser().parse(_prepared(text).encode("ascii"))
    )
    reader = _ShellReader(source, len(line))
    items: list[Item] = []
    reader.statement(tree.root_node, items)
    problem = problem or reader.left_out
    if problem is None and tree.root_node.has_error:
        problem = reader.first_error(tree.root_node)
    return ShellLine([item for item in items if _within(item, len(line))], problem)


#: A place for a value, `<archive>`, is one word here and no redirection.
_SLOT = re.compile(r"(?<![<>&\d])<([A-Za-z][\w.|-]*(?: [\w.|-]+)*)>(?=[\s\"'/,.:;)@=\]]|-<|\Z)")
_HIDDEN = str.maketrans("<> |", "\ue001\ue002\ue003\ue004")
_SHOWN = str.maketrans("\ue001\ue002\ue003\ue004", "<> |")


#: Characters that mean nothing to the shell. The scanner of the grammar looks letters up in a table
#: of the first 256 and reads past its end with others, so it is given one that stands for them;
#: this makes bytes and characters the same places too.
_FOREIGN = re.compile(r"[^\x01-\x7f]")
_STAND_IN = "."


def is_readable(text: str) -> bool:
    """Whether the grammar can read a text as it stands."""
    return not _parser().parse(_prepared(text).encode("ascii")).root_node.has_error


#: `for x do`, which the grammar reads only with a line end before `do`.
_BARE_LOOP = re.compile(r"\b(for\s+\w+) (?=do\b)")


def _prepared(text: str) -> str:
    """A text as the grammar can read it, each character in its place."""
    return _BARE_LOOP.sub("\\1\n", _FOREIGN.sub(_STAND_IN, text))


def with_slots(line: str) -> str:
    """The line with the brackets of slots as characters that mean nothing to the shell."""
    return _SLOT.sub(lambda match: match[0].translate(_HIDDEN), line) if "<" in line else line


def _within(item: Item, end: int) -> bool:
    if isinstance(item, Mark):
        return item.start < end
    item.words = [word for word in item.words if word.start < end]
    return bool(item.words)


class _ShellReader:
    def __init__(self, source: str, end: int) -> None:
        self.source = source
        self.end = end
        self.depth = 0  # of statements within statements
        self.count = 0  # of all statements
        self.left_out: Problem | None = None  # where reading ended, and why
        self.readers = {
            **dict.fromkeys(("command", "declaration_command", "unset_command"), self.command),
            **dict.fromkeys(("variable_assignment", "variable_assignments"), self.assignments),
            **dict.fromkeys(
                ("for_statement", "case_statement", "case_item", "function_definition"),
                self.compound,
            ),
            "redirected_statement": self.redirected,
            "test_command": self.test,
            "c_style_for_statement": self.arithmetic,
            "comment": self.comment,
            "ERROR": self.loose,
        }

    def span(self, node: Node) -> tuple[str, int, int]:
        """The text of a node within the line, and where it is."""
        start, end = node.start_byte, min(node.end_byte, self.end)
        text = self.source[start:end]
        return text.translate(_SHOWN) if "\ue001" in text else text, start, end

    def first_error(self, node: Node) -> Problem:
        while True:
            inner = next(
                (child for child in node.children if child.has_error or child.is_missing), None
            )
            if inner is None or node.type == "ERROR":
                _, start, end = self.span(node)
                return Problem(start, max(end, start + 1), told(ProblemCode.SENSELESS))
            node = inner

    # --- statements
    # ----------------------------------------------------------------------------------

    def statement(self, node: Node, out: list[Item]) -> None:
        self.count += 1
        if self.depth >= MOST_NESTED or self.count > MOST_STATEMENTS:
            start = self.span(node)[1]
            code = ProblemCode.TOO_DEEP if self.depth >= MOST_NESTED else ProblemCode.TOO_LONG
            self.left_out = self.left_out or Problem(start, start + 1, told(code))
            return
        self.depth += 1
        try:
            self.any_statement(node, out)
        finally:
            self.depth -= 1

    def any_statement(self, node: Node, out: list[Item]) -> None:
        kind = node.type
        read = self.readers.get(kind)
        if read is not None:
            read(node, out)
        elif kind == "compound_statement" and self.span(node)[0][:2] == "((":
            self.arithmetic(node, out)
        elif kind.endswith("_redirect"):
            self.redirect(node, out)
        elif kind in _WORDS:
            self.loose(node, out)
        elif not node.is_named:
            self.token(node, out)
        else:
            for child in node.children:
                self.statement(child, out)

    def comment(self, node: Node, out: list[Item]) -> None:
        text, start, end = self.span(node)
        out.append(Mark(Role.COMMENT, text, (start, end)))

    def token(self, node: Node, out: list[Item]) -> None:
        text, start, end = self.span(node)
        if text in _KEYWORDS:
            out.append(Mark(Role.KEYWORD, text, (start, end)))
        elif text.strip():
            out.append(Mark(Role.OPERATOR, text, (start, end)))

    def command(self, node: Node, out: list[Item]) -> None:
        words: list[Word] = []
        command = SimpleCommand(words)
        later: list[Item] = []
        for child in node.children:
            if child.type == "variable_assignment" and node.type == "command":
                self.assignments(child, out)
            elif child.type.endswith("_redirect"):
                words += self.redirect(child, later)
            else:
                words.append(self.word(child))
        if words:
            out.append(command)
        out += later

    def redirected(self, node: Node, out: list[Item]) -> None:
        first = len(out)
        for child in node.children:
            if child.type.endswith("_redirect"):
                more = self.redirect(child, out)
                # the grammar takes words after the target as targets too: they are the command's
                command = next((one for one in out[first:] if isinstance(one, SimpleCommand)), None)
                if command is not None:
                    command.words += more
                elif more:
                    out.append(SimpleCommand(more))
            else:
                self.statement(child, out)

    def redirect(self, node: Node, out: list[Item]) -> list[Word]:
        """Add a redirection; the words that follow its target are given back."""
        _, start, end = self.span(node)
        operator = ""
        target: Word | None = None
        extra: list[Word] = []
        behind: list[Item] = []
        for child in node.children:
            if child.type in ("file_descriptor", "heredoc_start") or not child.is_named:
                text, _, end_of = self.span(child)
                operator += text
                end = end_of
            elif child.type in ("heredoc_body", "heredoc_end"):
                text, child_start, child_end = self.span(child)
                code = Meaning.HERE_TEXT if child.type == "heredoc_body" else Meaning.HERE_END
                behind.append(Mark(Role.REDIRECTION, text, (child_start, child_end), code))
            elif child.type in _WORDS:
                word = self.word(child)
                if target is None and node.type != "heredoc_redirect":
                    target, end = word, word.end
                else:
                    extra.append(word)
            else:
                self.statement(child, behind)
        text = self.source[start:end].translate(_SHOWN)
        out.append(Mark(Role.REDIRECTION, text, (start, end), None, target, operator))
        out += behind
        return extra

    def assignments(self, node: Node, out: list[Item]) -> None:
        if node.type == "variable_assignments":
            for child in node.children:
                self.statement(child, out)
            return
        text, start, end = self.span(node)
        value = node.child_by_field_name("value")
        out.append(
            Mark(Role.ASSIGNMENT, text, (start, end), None, self.word(value) if value else None)
        )

    def test(self, node: Node, out: list[Item]) -> None:
        leaves: list[Word] = []
        self.leaves(node, leaves)
        if leaves and leaves[0].text == "[":
            self.bracket_test(leaves, out)
            return
        for word in leaves:
            role = Role.KEYWORD if word.text in ("[[", "]]", "((", "))") else Role.OPERAND
            if role == Role.OPERAND and (
                word.text in _TESTS or re.fullmatch(r"-[a-z]{1,2}|-[A-Z]", word.text)
            ):
                role = Role.OPERATOR
            code = None if role == Role.KEYWORD else Meaning.TEST
            out.append(Mark(role, word.text, (word.start, word.end), code, word))

    def bracket_test(self, words: list[Word], out: list[Item]) -> None:
        """`[ … ]` is a command like any other: a sign that is not escaped redirects its output."""
        kept: list[Word] = []
        marks: list[Item] = []
        at = 0
        while at < len(words):
            word = words[at]
            target = words[at + 1] if at + 1 < len(words) else None
            if word.text in ("<", ">") and target is not None and target.text != "]":
                text = self.source[word.start : target.end].translate(_SHOWN)
                place = (word.start, target.end)
                mark = Mark(Role.REDIRECTION, text, place, None, target, word.text)
                mark.in_test = True
                marks.append(mark)
                at += 1
            else:
                kept.append(word)
            at += 1
        out += [SimpleCommand(kept), *marks]

    def leaves(self, node: Node, out: list[Word]) -> None:
        """The words of an expression in order."""
        for child in node.children:
            if child.type in _WORDS or not child.is_named or child.child_count == 0:
                if self.span(child)[0]:
                    out.append(self.word(child))
            else:
                self.leaves(child, out)

    def compound(self, node: Node, out: list[Item]) -> None:
        """Loops over words, cases, functions: words in them are no commands."""
        for child in node.children:
            if child.type in _WORDS and child.is_named:
                word = self.word(child)
                manner = _MANNERS.get(node.type, Manner.FUNCTION_NAME)
                if child.type == "variable_name" and manner is Manner.LOOP_VALUE:
                    manner = Manner.LOOP_VARIABLE
                if word.text:
                    out.append(Mark(Role.OPERAND, word.text, (word.start, word.end), manner, word))
            elif node.type == "case_item" and child.type in _CASE_SIGNS:
                text, start, end = self.span(child)
                out.append(Mark(Role.OPERATOR, text, (start, end), _CASE_SIGNS[child.type]))
            else:
                self.statement(child, out)

    def arithmetic(self, node: Node, out: list[Item]) -> None:
        _, start, end = self.span(node)
        opened, closed = self.source.find("((", start, end), self.source.rfind("))", start, end)
        head = self.source[start:opened].strip() if opened > start else ""
        if head:
            out.append(Mark(Role.KEYWORD, head, (start, start + len(head))))
        body = next(
            (child for child in node.children if child.type in ("do_group", "compound_statement")),
            None,
        )
        if body is not None:
            closed = self.source.rfind("))", start, body.start_byte)
        stop = min(closed + 2 if closed > opened else end, self.end)
        out.append(Mark(Role.OPERAND, self.source[opened:stop], (opened, stop), Manner.ARITHMETIC))
        for child in node.children:
            if child.start_byte >= stop:
                self.statement(child, out)

    def loose(self, node: Node, out: list[Item]) -> None:
        """What stands where no statement fits: words are taken as a command."""
        if node.type in _WORDS:
            out.append(SimpleCommand([self.word(node)]))
            return
        words: list[Word] = []
        for child in node.children:
            if child.type in _WORDS and child.is_named:
                words.append(self.word(child))
                continue
            if words:
                out.append(SimpleCommand(words))
                words = []
            self.statement(child, out)
        if words:
            out.append(SimpleCommand(words))
        if not node.children:
            text, start, end = self.span(node)
            if text.strip():
                out.append(SimpleCommand([Word(text, text, start, end)]))

    # --- words
    # ---------------------------------------------------------------------------------------

    def word(self, node: Node) -> Word:
        text, start, end = self.span(node)
        word = Word(text, "", start, end)
        word.value = self.value(node, word)
        if end < node.end_byte:  # the rest was put there to make it readable
            word.value = word.value.rstrip("\n")
        return word

    def value(self, node: Node, word: Word) -> str:
        """What becomes of a node, and what it has in it, noted at `word`."""
        kind = node.type
        if kind in ("raw_string", "ansi_c_string"):
            return self.in_single_quotes(node, word)
        if kind in ("string", "translated_string"):
            word.quoted = True
            return self.joined(node, word, inside_quotes=True)
        if kind in ("command_substitution", "process_substitution"):
            return self.substituted(node, word)
        if kind in ("expansion", "simple_expansion", "arithmetic_expansion"):
            return self.expanded(node, word)
        composed = node.child_count and node.is_named
        if composed or kind in ("concatenation", "command_name", "array"):
            return self.joined(node, word, inside_quotes=False)
        text = self.span(node)[0]
        if _GLOB.search(text):
            word.glob = True
        if "\\" not in text:
            return text
        return re.sub(r"\\(\n|.)", lambda m: "" if m[1] == "\n" else m[1], text)

    def in_single_quotes(self, node: Node, word: Word) -> str:
        word.quoted = True
        text = self.span(node)[0]
        if node.type == "raw_string":
            return text[1:].removesuffix("'") if len(text) > 1 else ""
        return re.sub(r"\\(.)", lambda m: _ESCAPES.get(m[1], m[1]), text[2:].removesuffix("'"))

    def substituted(self, node: Node, word: Word) -> str:
        """The commands of a substitution; what they print is not known."""
        word.dynamic = True
        items: list[Item] = []
        for child in node.children:
            if child.is_named:
                self.statement(child, items)
        text, start, end = self.span(node)
        kept = [item for item in items if _within(item, self.end)]
        word.inner.append(Inner(text, start, end, kept))
        return text

    def expanded(self, node: Node, word: Word) -> str:
        """A variable or a sum; what it becomes is not known."""
        word.dynamic = True
        text = self.span(node)[0]
        if node.type != "arithmetic_expansion":
            word.variables.append(re.sub(r"^\$\{?[#!]?", "", text).rstrip("}"))
        for child in node.children:
            if child.type == "command_substitution":
                self.value(child, word)
        return text

    def joined(self, node: Node, word: Word, inside_quotes: bool) -> str:
        """The values of the children with what stands between them."""
        parts: list[str] = []
        at = node.start_byte
        quote = self.source[at : at + 2]
        end = min(node.end_byte, self.end)
        if inside_quotes:
            at += 2 if quote == '$"' else 1
        for child in node.children:
            start = child.start_byte
            if inside_quotes and not child.is_named:
                continue
            if start > at:
                parts.append(self.plain(self.source[at:start].translate(_SHOWN), inside_quotes))
            if child.type == "string_content":
                parts.append(self.plain(self.span(child)[0], True))
            else:
                parts.append(self.value(child, word))
            at = max(at, child.end_byte)
        rest = self.source[at:end].translate(_SHOWN)
        if inside_quotes:
            rest = rest.removesuffix('"')
        parts.append(self.plain(rest, inside_quotes))
        if not inside_quotes and _GLOB.search(self.span(node)[0]) and not word.quoted:
            word.glob = True
        return "".join(parts)

    @staticmethod
    def plain(text: str, inside_quotes: bool) -> str:
        if "\\" not in text:
            return text
        pattern = r"\\([\"$`\\\n])" if inside_quotes else r"\\(\n|.)"
        return re.sub(pattern, lambda m: "" if m[1] == "\n" else m[1], text)


_TESTS = frozenset("== = != =~ < > -eq -ne -lt -le -gt -ge -nt -ot -ef && || ! ( )".split())
