"""Dockerfiles: what `RUN`, `CMD`, `ENTRYPOINT` and `HEALTHCHECK` run (Dockerfile reference)."""

from __future__ import annotations

import json
import re
import shlex

from dowsing.commandline.scripts.fragments import FileStep, Fragment, Where
from dowsing.model.told import Told, told

_STEPS = {
    "WORKDIR": FileStep.FOLDER,
    "USER": FileStep.USER,
    "ENV": FileStep.SETS,
    "ARG": FileStep.TAKES,
    "EXPOSE": FileStep.PORT,
    "VOLUME": FileStep.KEPT,
}
_RUNS = ("RUN", "CMD", "ENTRYPOINT", "HEALTHCHECK")
_FLAGS = re.compile(r"(?:--[\w-]+(?:=\S+)?\s+)*(?:CMD\s+)?")
_HEREDOC = re.compile(r"<<-?[\"']?(\w+)[\"']?\s*\Z")


def recognises(name: str, text: str) -> bool:
    """Whether it is a Dockerfile: by its name, or as it begins."""
    bare = name.lower()
    named = bare in ("dockerfile", "containerfile") or bare.startswith("dockerfile.")
    first = re.search(r"^(?!\s*(?:#|$))(.*)$", text, re.MULTILINE)
    begins = first is not None and re.match(
        r"(?:FROM\s+[\w./:$@{}-]+(?:\s+AS\s+\S+)?|ARG\s+\w+(?:=\S+)?)\s*$", first[1]
    )
    return named or bare.endswith(".dockerfile") or bool(begins and "\nFROM " in f"\n{text}")


def fragments(text: str) -> list[Fragment]:
    """Each instruction that runs something."""
    found: list[Fragment] = []
    lines = text.split("\n")
    n = 0
    while n < len(lines):
        first = n
        match = re.match(r"\s*([A-Za-z]+)\s+(.*)", lines[n])
        body = [match[2] if match else lines[n]]
        while body[-1].rstrip().endswith("\\") and n + 1 < len(lines):
            n += 1
            is_remark = lines[n].lstrip().startswith("#")
            body.append(" \\" if is_remark else lines[n])  # a remark within does not end it
        n += 1
        step = _step(match[1].upper(), "\n".join(body)) if match else None
        if step is not None:
            found.append(Fragment(lines[first].strip(), first + 1, step=step))
        if not match or match[1].upper() not in _RUNS:
            continue
        heredoc = _HEREDOC.search(body[-1])
        if heredoc:
            begin = n
            while n < len(lines) and lines[n].strip() != heredoc[1]:
                n += 1
            found.append(_fragment("\n".join(lines[begin:n]), begin + 1, match[1]))
            n += 1
            continue
        found.append(_fragment(_command("\n".join(body)), first + 1, match[1]))
    return [one for one in found if one.text.strip()]


def _step(instruction: str, text: str) -> Told | None:
    """What an instruction does that runs nothing; None of one that does, or is not told."""
    options = dict(re.findall(r"--([\w-]+)=(\S+)", text))
    words = _FLAGS.sub("", text.replace("\\\n", " "), count=1).split()
    if text.lstrip().startswith("["):
        words = [word.strip('[]",') for word in words]
    if not words:
        return None
    if instruction == "FROM":
        is_named = len(words) > 2 and words[1].upper() == "AS"
        stage = told(FileStep.STAGE, words[0], words[2]) if is_named else None
        return stage or told(FileStep.FROM, words[0])
    if instruction in ("COPY", "ADD") and len(words) > 1:
        what, where = " and ".join(words[:-1]), words[-1]
        if "from" in options:
            return told(FileStep.COPY_FROM, what, where, options["from"])
        return told(FileStep.FETCH if "://" in what else FileStep.COPY, what, where)
    code = _STEPS.get(instruction)
    return told(code, " ".join(words)) if code is not None else None


def _fragment(text: str, line: int, instruction: str) -> Fragment:
    return Fragment(text, line, told(Where.BUILD_STEP, instruction.upper()))


def _command(text: str) -> str:
    """The line of the shell, also where it is written as a list."""
    flags = _FLAGS.match(text)
    text = text[flags.end() :] if flags else text
    if text.strip() == "NONE":
        return ""
    if text.lstrip().startswith("["):
        try:
            words = json.loads(text)
        except ValueError:
            return text
        if isinstance(words, list):
            return " ".join(shlex.quote(str(word)) for word in words)
    return text
