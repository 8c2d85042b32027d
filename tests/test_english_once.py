"""English is said once: what was put into words is never looked at or changed by what comes after,
by nobody who works out what a line means.
"""

from __future__ import annotations

import ast
import re
from collections.abc import Iterator
from pathlib import Path

import dowsing

SOURCES = Path(dowsing.__file__).parent
#: Ways of looking at the beginning, the end or the middle of a text, and of changing it.
READING = frozenset(
    (
        "startswith", "endswith", "removeprefix", "removesuffix", "replace", "partition",
        "rpartition", "split", "index", "find", "count",
    )
)  # fmt: skip
#: Words with a blank beside them, as texts in English have it.
ENGLISH = re.compile(r"[a-z]{2,} | [a-z]{2,}")
#: The packages that read what others wrote in English, and the one that puts into words.
READ_DOCUMENTS = ("facts/", "ingest/", "machine/", "readers/", "sources/", "render/")
#: What is read there is the user's own, in that notation, or Python's.
OWN_NOTATION = {
    "start.py": {"<frozen importlib"},  # what Python calls its own files
    "tasks/conditions.py": {"-daystart "},  # an option of find before its test
    "commandline/languages/template.py": {"table "},  # docker's `--format 'table …'`
    "commandline/languages/program.py": {" as "},  # Python's `import a as b`
    "commandline/scripts/makefile.py": {"export ", "include "},  # lines of a makefile
    "commandline/scripts/crontab.py": {"root "},  # the user of a line of the system's crontab
}


def texts(node: ast.AST) -> Iterator[str]:
    """The texts that stand in an expression, those around values too."""
    for one in ast.walk(node):
        if isinstance(one, ast.Constant) and isinstance(one.value, str):
            yield one.value


def english_read(source: str) -> Iterator[str]:
    """The texts in English that a source looks for in others."""
    for node in ast.walk(ast.parse(source)):
        looked_for: list[ast.expr] = []
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute):
            looked_for = node.args[:1] if node.func.attr in READING else []
        elif isinstance(node, ast.Compare) and isinstance(node.ops[0], (ast.In, ast.NotIn)):
            looked_for = [node.left]
        yield from (text for one in looked_for for text in texts(one) if ENGLISH.search(text))


def test_no_english_is_read() -> None:
    found = {}
    for path in sorted(SOURCES.rglob("*.py")):
        name = str(path.relative_to(SOURCES))
        if name.startswith(READ_DOCUMENTS):
            continue
        read = set(english_read(path.read_text("utf-8"))) - OWN_NOTATION.get(name, set())
        if read:
            found[name] = sorted(read)
    assert found == {}


def test_what_the_test_above_finds() -> None:
    source = 'a.startswith("the line")\nb.replace(f"{c} of it", "x")\n"all rows" in d\ne.split(" ")'
    assert list(english_read(source)) == ["the line", " of it", "all rows"]
