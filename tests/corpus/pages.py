"""The frozen library: its pages are written from the two tables beside this file."""

from __future__ import annotations

from pathlib import Path

HERE = Path(__file__).parent
#: A family of many commands that differ in two words, as large programs have.
FAMILY = "trellis"
DEEDS = {
    "add": "put a {} into the plan of the trellis",
    "remove": "take a {} out of the plan of the trellis",
    "list": "list each {} of the trellis",
    "move": "give a {} another place on the trellis",
    "show": "tell about one {} of the trellis",
    "check": "look for mistakes in a {} of the trellis",
}
THINGS = ("beam", "post", "wire", "vine", "clip", "knot", "brace", "peg", "row", "corner")


class Sheet:
    """What the tables say of one page."""

    def __init__(self, label: str, summary: str, aliases: str, see: str, lead: str) -> None:
        self.name, _, section = label.rstrip(")").partition("(")
        self.section = section
        self.summary = summary
        self.aliases = [one for one in aliases.split(",") if one]
        self.see = [one for one in see.split(",") if one]
        self.lead = lead
        self.forms: list[str] = []
        self.options: list[tuple[str, str]] = []
        self.examples: list[tuple[str, str]] = []
        self.headings: list[str] = []

    def source(self) -> str:
        """The page, with the macros of manual pages."""
        names = ", ".join([self.name, *self.aliases])
        lines = [f".TH {self.name} {self.section}", ".SH NAME", f"{names} \\- {self.summary}"]
        if self.forms:
            lines += [".SH SYNOPSIS", ".nf", *(_plain(form) for form in self.forms), ".fi"]
        lines += [".SH DESCRIPTION", _plain(self.lead or "There is no more to say.")]
        if self.options:
            lines.append(".SH OPTIONS")
        for tag, text in self.options:
            lines += [".TP", f"\\fB{_plain(tag)}\\fR", _plain(text)]
        if self.examples:
            lines.append(".SH EXAMPLES")
        for task, line in self.examples:
            lines += [".PP", f"{task}:", ".PP", ".RS", ".nf", _plain(line), ".fi", ".RE"]
        for heading in self.headings:
            lines += [f'.SH "{heading}"', "See the almanac."]
        if self.see:
            lines += [".SH SEE ALSO", ", ".join(self.see)]
        return "\n".join(lines) + "\n"


def _plain(text: str) -> str:
    return text.replace("-", "\\-")


def rows(name: str) -> list[list[str]]:
    """The cells of a table of this folder, without its remarks."""
    lines = (HERE / name).read_text(encoding="utf-8").splitlines()
    return [line.split("\t") for line in lines if line and not line.startswith("#")]


def sheets() -> list[Sheet]:
    """All pages: those of the table, and the family."""
    found = {row[0]: Sheet(*row) for row in rows("library.tsv")}
    for deed, summary in DEEDS.items():
        for thing in THINGS:
            label = f"{FAMILY}-{deed}-{thing}(1)"
            found[label] = Sheet(label, summary.format(thing), "", "", "")
    label = f"{FAMILY}(1)"
    found[label] = Sheet(label, "plan a trellis", "", "", "")
    for label, tag, text, *line in rows("options.tsv"):
        if tag == "!":
            found[label].examples.append((text, line[0]))
        elif tag == "#":
            found[label].headings.append(text)
        elif tag:
            found[label].options.append((tag, text))
        else:
            found[label].forms.append(text)
    return list(found.values())


def write_library(root: Path) -> None:
    """Write all pages into the manual folder `root`."""
    for sheet in sheets():
        folder = root / f"man{sheet.section}"
        folder.mkdir(parents=True, exist_ok=True)
        (folder / f"{sheet.name}.{sheet.section}").write_text(sheet.source(), encoding="utf-8")
