"""A file as the texts in it that a shell runs: the kinds of files, one module each."""

from __future__ import annotations

from enum import StrEnum
from importlib import import_module

from dowsing.model.record import Record
from dowsing.model.told import Code, Told


class ScriptKind(StrEnum):
    """The kinds of files, in the order in which they are tried."""

    DOCKERFILE = "Dockerfile"
    MAKEFILE = "makefile"
    UNIT = "unit"
    CRONTAB = "crontab"
    SHELL = "shell script"


class Where(Code):
    """What a text for the shell is in its file."""

    BUILD_STEP = "build step"  # the instruction of a Dockerfile
    TARGET = "target"  # the target of a makefile
    UNIT_KEY = "unit key"  # the key of a unit
    SCHEDULE = "schedule"  # the fields of a crontab, in whose name


class FileStep(Code):
    """What a line of a file does that no shell runs."""

    FROM = "from"  # the image
    STAGE = "stage"  # the image, the name of the stage
    COPY = "copy"  # what, to where
    COPY_FROM = "copy from"  # what, to where, from which stage or image
    FETCH = "fetch"  # what, to where
    FOLDER = "folder"
    USER = "user"
    SETS = "sets"  # the variables
    TAKES = "takes"  # the variable that whoever builds may set
    PORT = "port"
    KEPT = "kept"  # the folder that outlives the container


class Fragment(Record):
    """A text for the shell. `line`: the number of the line of the file that it begins in, from 1;
    `where`: what it is there, None if it is all of the file; `step`: what is done there, of a text
    that no shell runs.
    """

    text: str
    line: int = 1
    where: Told | None = None
    step: Told | None = None


#: The module that reads each kind: `recognises(name, text)` and `fragments(text)`.
_MODULES = {
    ScriptKind.DOCKERFILE: "dockerfile",
    ScriptKind.MAKEFILE: "makefile",
    ScriptKind.UNIT: "unit",
    ScriptKind.CRONTAB: "crontab",
}


def kind_of(name: str, text: str) -> ScriptKind:
    """What kind of file it is, by its name and what it begins with."""
    if not text.startswith("#!"):
        for kind, module in _MODULES.items():
            if import_module(f"dowsing.commandline.scripts.{module}").recognises(name, text):
                return kind
    return ScriptKind.SHELL


def fragments_of(kind: ScriptKind, text: str) -> list[Fragment]:
    """The texts for the shell in a file of that kind, in order."""
    if kind is ScriptKind.SHELL:
        return [Fragment(text)]
    found: list[Fragment] = import_module(
        f"dowsing.commandline.scripts.{_MODULES[kind]}"
    ).fragments(text)
    return found
