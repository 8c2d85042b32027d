"""The man macros and the extensions that pages use."""

from __future__ import annotations

from dowsing.model.markup import BOLD, CODE, ITALIC, ROMAN, link, plain
from dowsing.readers.roff.machine import Handler, Machine
from dowsing.readers.roff.marks import JOIN, PAD
from dowsing.readers.roff.numbers import columns


def title_line(machine: Machine, rest: str) -> None:
    """`.TH name section date source manual`: forgets what stood before it."""
    machine.title = machine.split(rest)
    machine.date = plain(machine.title[2]) if len(machine.title) > 2 else ""
    machine.builder.paragraph()


def section(machine: Machine, rest: str, level: int = 1) -> None:
    """`.SH`, `.SS`."""
    builder = machine.builder
    text = " ".join(machine.split(rest))
    builder.section("", level)
    if text:
        builder.sections[-1].title = plain(builder.settle(text))
        builder.font = ROMAN
    else:
        builder.await_title()


def subsection(machine: Machine, rest: str) -> None:
    """`.SS`."""
    section(machine, rest, 2)


def paragraph(machine: Machine, rest: str) -> None:
    """`.PP`, `.LP`, `.P`."""
    builder = machine.builder
    builder.paragraph()


def hanging(machine: Machine, rest: str) -> None:
    """`.HP`."""
    machine.builder.paragraph(hanging=True)


def tagged(machine: Machine, rest: str) -> None:
    """`.TP`: the next line is the tag."""
    machine.builder.await_tag()


def tag_more(machine: Machine, rest: str) -> None:
    """`.TQ`: one more tag for the item."""
    machine.builder.await_tag(more=True)


def indented(machine: Machine, rest: str) -> None:
    """`.IP [tag [indent]]`."""
    builder = machine.builder
    arguments = machine.split(rest)
    if not arguments or not arguments[0].strip():
        builder.indented()
        return
    builder.paragraph()
    tag = builder.settle(arguments[0])
    builder.font = builder.last_font = ROMAN
    if plain(tag).strip():
        builder.open_item(tag)
    else:
        builder.indented()


def inset(machine: Machine, rest: str) -> None:
    """`.RS [amount]`."""
    machine.builder.indent(amount=columns(rest, 7.0))


def outset(machine: Machine, rest: str) -> None:
    """`.RE [level]`."""
    level = rest.strip()
    if level.isdecimal() and 0 < int(level) <= len(machine.builder.levels):
        while len(machine.builder.levels) >= int(level):
            machine.builder.outdent()
    else:
        machine.builder.outdent()


def distance(machine: Machine, rest: str) -> None:
    """`.PD [distance]`: 0 sets lists close."""
    value = rest.strip()
    machine.builder.compact = bool(value) and columns(value, 1.0) <= 0


def _in_font(mark: str) -> Handler:
    def run(machine: Machine, rest: str) -> None:
        text = " ".join(machine.split(rest)) if rest else ""
        if text:
            machine.builder.text(f"{mark}{text}{ROMAN}")
        else:
            machine.builder.tag_font = mark

    return run


def _alternating(*marks: str) -> Handler:
    def run(machine: Machine, rest: str) -> None:
        parts = machine.split(rest)
        if not parts:
            machine.builder.tag_font = marks[0]
            return
        text = "".join(marks[n % 2] + part for n, part in enumerate(parts))
        joined = text.endswith(JOIN)
        machine.builder.text((text[:-1] if joined else text) + ROMAN + (JOIN if joined else ""))

    return run


def small(machine: Machine, rest: str) -> None:
    """`.SM`: size is not kept."""
    if rest:
        machine.builder.text(" ".join(machine.split(rest)))


def display(machine: Machine, rest: str) -> None:
    """`.EX`: literal text."""
    machine.builder.set_fill(False)


def display_end(machine: Machine, rest: str) -> None:
    """`.EE`."""
    machine.builder.set_fill(True)


def reference(machine: Machine, rest: str) -> None:
    """`.MR name section [trailer [leader]]`."""
    parts = machine.split(rest)
    if not parts:
        return
    name = parts[0]
    where = parts[1] if len(parts) > 1 else ""
    shown = f"{BOLD}{name}{ROMAN}({where})" if where else f"{BOLD}{name}{ROMAN}"
    text = link(f"{name}({where})" if where else name, shown)
    trailer = parts[2] if len(parts) > 2 else ""
    leader = parts[3] if len(parts) > 3 else ""
    machine.builder.text(leader + text + trailer)


def address(machine: Machine, rest: str) -> None:
    """`.UR`, `.MT`: an address; its text follows, up to `.UE` or `.ME`."""
    target = plain("".join(machine.split(rest)[:1]))
    machine.strings["an:address"] = target
    machine.strings["an:text"] = ""
    machine.registers["an:at"] = len(machine.builder.buffer)
    machine.registers["an:mail"] = int("@" in target and ":" not in target)


def address_end(machine: Machine, rest: str) -> None:
    """`.UE`, `.ME [trailer]`: the address after its text."""
    builder = machine.builder
    target = machine.strings.pop("an:address", "")
    trailer = " ".join(machine.split(rest))
    if not target:
        return
    full = "mailto:" + target if machine.registers.get("an:mail") else target
    shown = link(full, target)
    between = builder.buffer[machine.registers.get("an:at", 0) :]
    if builder.waiting is None and not any(plain(text).strip() for text in between):
        builder.text(shown + trailer)
    else:
        builder.text(f"<{shown}>{trailer}")


def web_address(machine: Machine, rest: str) -> None:
    """`.URL address text trailer`, `.MTO`, `.FTP`."""
    parts = machine.split(rest)
    if not parts:
        return
    target, text, trailer = (parts + ["", ""])[:3]
    text = text.strip()
    shown = link(target, target)
    machine.builder.text((f"{text} <{shown}>" if text and text != target else shown) + trailer)


def form(machine: Machine, rest: str) -> None:
    """`.SY command`: a form of a synopsis."""
    machine.builder.paragraph(hanging=True)
    text = " ".join(machine.split(rest))
    if text:
        machine.builder.text(f"{BOLD}{text}{ROMAN}")


def form_end(machine: Machine, rest: str) -> None:
    """`.YS`."""
    machine.builder.paragraph()


def optional(machine: Machine, rest: str) -> None:
    """`.OP flag [argument]`."""
    parts = machine.split(rest)
    if parts:
        argument = f"{PAD}{ITALIC}{parts[1]}{ROMAN}" if len(parts) > 1 else ""
        machine.builder.text(f"[{BOLD}{parts[0]}{ROMAN}{argument}]")


def nothing(machine: Machine, rest: str) -> None:
    """A macro that only concerns the look or the footer of a page."""


def literal_font(machine: Machine, rest: str) -> None:
    """`.CW`, `.CR`-like macros of some pages: code."""
    parts = machine.split(rest)
    if parts:
        machine.builder.text(f"{CODE}{parts[0]}{ROMAN}{''.join(parts[1:])}")


PLAIN: dict[str, Handler] = {
    "TH": title_line,
    "SH": section,
    "SS": subsection,
    "PP": paragraph,
    "LP": paragraph,
    "P": paragraph,
    "HP": hanging,
    "TP": tagged,
    "TQ": tag_more,
    "IP": indented,
    "RS": inset,
    "RE": outset,
    "PD": distance,
    "B": _in_font(BOLD),
    "I": _in_font(ITALIC),
    "R": _in_font(ROMAN),
    "SB": _in_font(BOLD),
    "SM": small,
    "BR": _alternating(BOLD, ROMAN),
    "RB": _alternating(ROMAN, BOLD),
    "BI": _alternating(BOLD, ITALIC),
    "IB": _alternating(ITALIC, BOLD),
    "IR": _alternating(ITALIC, ROMAN),
    "RI": _alternating(ROMAN, ITALIC),
    "CW": literal_font,
    "EX": display,
    "EE": display_end,
    "MR": reference,
    "UR": address,
    "MT": address,
    "UE": address_end,
    "ME": address_end,
    "URL": web_address,
    "MTO": web_address,
    "FTP": web_address,
    "INDENT": inset,  # of pages made from reStructuredText; other pages that use the name define it
    "UNINDENT": outset,
    "SY": form,
    "YS": form_end,
    "OP": optional,
    **dict.fromkeys(("AT", "UC", "DT", "PM", "IX", "LINKSTYLE", "AM", "PU"), nothing),
}
