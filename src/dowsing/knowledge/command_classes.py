"""The classes of commands that code asks for, by name: knowledge/commands/classes.toml says what is
of each, or a command's own file does (`is`).
"""

from __future__ import annotations

from enum import StrEnum
from functools import cache

from dowsing.knowledge.compiled import Part, part

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any


class CommandClass(StrEnum):
    """`TEST`: it is true or false of what stands in its words; `READS_NO_FILES`: its operands are
    no files that it reads; `FILLS_IN`: it puts operands into the line of the command it carries,
    `FEEDS`: those that it reads from its input; `SQL_CLIENT`: operands with blanks are SQL;
    `FETCHES`: what it prints or saves comes from another machine; `RUNS_TEXT`: its words are run as
    a line of the shell, `RUNS_FILE`: its operand is a file that this shell reads; `DECLARES`: its
    operands are NAME=VALUE; `OF_EVERY_SHELL`: a builtin of bash and its kin; `OF_THIS_SHELL`: it
    does nothing unless this shell runs it; `NEEDS_NONE`: it may carry a command, and does something
    without one. Those below say what judges must know; classes.toml has a line for each.
    """

    TEST = "test"
    READS_NO_FILES = "reads-no-files"
    FILLS_IN = "fills-in"
    FEEDS = "feeds"
    SQL_CLIENT = "sql-client"
    FETCHES = "fetches"
    RUNS_TEXT = "runs-text"
    RUNS_FILE = "runs-file"
    DECLARES = "declares"
    OF_EVERY_SHELL = "of-every-shell"
    OF_THIS_SHELL = "of-this-shell"
    NEEDS_NONE = "needs-none"
    DOES_NOTHING = "does-nothing"
    SEES_NEIGHBOURS = "sees-neighbours"
    SORTS = "sorts"
    PRINTS_SIZES = "prints-sizes"
    PRINTS_PATHS = "prints-paths"
    ELEVATES = "elevates"
    COMPARES = "compares"
    CHANGES_FOLDER = "changes-folder"
    LOSES_FILES = "loses-files"
    READS_LINE = "reads-line"
    TAKES_SETTINGS = "takes-settings"
    TAKES_INPUT = "takes-input"
    RUNS_IMAGES = "runs-images"
    ARCHIVES = "archives"
    COMPILES = "compiles"
    COPIES_TO_HOSTS = "copies-to-hosts"
    MANY_IN_ONE = "many-in-one"
    OPTIONS_BEFORE_TARGET = "options-before-target"
    SETTINGS_LAST = "settings-last"
    LETTERS_MAKE_WORDS = "letters-make-words"


@cache
def members_of(which: CommandClass) -> frozenset[str]:
    """The names of the commands of a class."""
    found: dict[str, Any] = part(Part.NAMES)["classes"]
    return frozenset(found[which])
