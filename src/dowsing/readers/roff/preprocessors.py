"""Parts of a page in languages of their own: tables, equations, pictures."""

from __future__ import annotations

from dowsing.readers.roff.machine import Handler, Machine


def _until(machine: Machine, end: str) -> list[str]:
    lines = []
    for line in machine.lines:
        if line[:1] in ".'" and line[1:].strip().split(" ")[0] == end:
            break
        lines.append(line)
    return lines


def table(machine: Machine, rest: str) -> None:
    """`.TS` … `.TE`."""
    from dowsing.readers.roff.table_macros import read_table

    read_table(machine, _until(machine, "TE"))


def equation(machine: Machine, rest: str) -> None:
    """`.EQ` … `.EN`."""
    from dowsing.readers.roff.equations import read_equation

    read_equation(machine, _until(machine, "EN"))


def picture(machine: Machine, rest: str) -> None:
    """`.PS` … `.PE`: the labels of the drawing are all that a text can keep."""
    labels = []
    for line in _until(machine, "PE"):
        labels += [part for n, part in enumerate(line.split('"')) if n % 2 and part.strip()]
    machine.builder.flush()
    if labels:
        machine.builder.text(" · ".join(machine.expand(label) for label in labels))
        machine.builder.flush()


RAW: dict[str, Handler] = {"TS": table, "EQ": equation, "PS": picture}
