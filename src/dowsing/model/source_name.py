"""The names of the sources of documentation."""

from __future__ import annotations

from enum import StrEnum


class SourceName(StrEnum):
    """Where documentation comes from; the values are those that people type and of the JSON
    contract.
    """

    BUILTIN = "builtin"  # a shell's own help
    SHELL_MANUAL = "shell-manual"  # the entry in the shell's manual
    BUILTIN_USAGE = "builtin-usage"  # what a builtin prints when asked for help
    MANUAL = "manual"
    USAGE = "usage"  # what a program prints when asked for help
    INFO = "info"
    STANDARD = "standard"  # the manual pages of a standard
    PACKAGE = "package"  # files of a package's documentation


#: What stands behind a name where its usage text is called by what is typed for it.
OWN_HELP = " --help"
#: What stands for the usage text of a program that may have one and was not asked.
UNASKED = "usage?"
