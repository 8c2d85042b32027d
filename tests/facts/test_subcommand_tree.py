"""Subcommands as pages list them."""

from __future__ import annotations

from dowsing.facts.command_table import CommandTable, make_table, pack, unpack
from dowsing.sources.page_files import document


def listed(body: str, name: str = "hoe") -> list[tuple[str, str]]:
    """The subcommands of a page with that body and what is said of them."""
    page = document(f".TH X 1\n.SH NAME\n{name} \\- hoe beds\n{body}", f"{name}.1", name, "1")
    return [(one.name, one.text) for one in make_table(page).subcommands]


def tables(body: str) -> list[CommandTable]:
    """The table of a page with that body."""
    page = document(f".TH X 1\n.SH NAME\nhoe \\- hoe beds\n{body}", "hoe.1", "hoe", "1")
    return [make_table(page)]


def test_a_section_on_commands_where_a_form_wants_one() -> None:
    body = '.SH COMMANDS\n.TP\n.BI start " BED..."\nStart.\n.TP\nstop, halt\nStop.\n'
    assert listed(".SH SYNOPSIS\n.B hoe\n[OPTIONS...] COMMAND [BED...]\n" + body) == [
        ("start", "Start."), ("stop", "Stop."), ("halt", "Stop."),
    ]  # fmt: skip
    assert listed(".SH SYNOPSIS\n.B hoe\n[OPTIONS...] [BED...]\n" + body) == []


def test_a_choice_of_words_in_the_form() -> None:
    body = (
        ".SH SYNOPSIS\n.B hoe\n[-q] {add \\fIbed\\fR | remove \\fIbed\\fR | list}\n.SH "
        "D\n.TP\nadd\nAdd one.\n"
    )
    assert listed(body) == [("add", "Add one."), ("remove", ""), ("list", "")]


def test_words_that_stand_first_in_several_forms() -> None:
    body = (
        ".SH SYNOPSIS\n.nf\n\\fIhoe row\\fR list [<opts>]\n\\fIhoe row\\fR drop "
        "<row>\n.fi\n.SH D\n.TP\nlist\nAll.\n"
    )
    assert listed(body, "hoe-row") == [("list", "All."), ("drop", "")]


def test_a_placeholder_spelled_out() -> None:
    body = (
        ".SH SYNOPSIS\n.B hoe\nOBJECT { COMMAND | help }\n.sp\nOBJECT := { bed | row }\n.SH "
        "OBJECTS\n.TP\nbed\n- a bed\n"
    )
    assert listed(body) == [("bed", "a bed"), ("row", "")]


def test_names_of_what_is_to_be_put_in_are_no_subcommands() -> None:
    assert listed(".SH SYNOPSIS\n.B hoe\nfile|folder\n") == []
    assert listed(".SH SYNOPSIS\n.B hoe\n\\fIbed\\fR\n") == []


def test_a_table_comes_back_from_its_bytes() -> None:
    source = (
        ".TH X 1\n.SH NAME\nhoe \\- hoe beds\n.SH SYNOPSIS\n.B hoe\n[-d \\fIcm\\fR] [-q] "
        "COMMAND\n.SH COMMANDS\n.TP\nstart BED\nStart.\n"
        ".SH OPTIONS\n.TP\n-d cm\nSo deep, one of 1, 2, or 3. The default is 2.\n"
    )
    table = make_table(document(source, "hoe.1", "hoe", "1"))
    assert unpack(pack(table)) == table
    assert [o.flags for o in table.options] == [["-d"], ["-q"]], "-q stands in the form only"
    assert (table.options[0].default, table.options[0].values) == ("2", ["1", "2", "3"])
    assert table.subcommands[0].form == "start BED"


def test_headings_that_are_subcommands() -> None:
    body = (
        ".SH SYNOPSIS\n.B hoe\n[OPTION]... COMMAND [ARG]...\n.SH BED COMMANDS\n.SS list\n"
        "Syntax:\n.PP\n.nf\nlist [--all]\n.fi\n.PP\nAll beds.\n.SS Notes on beds\nText.\n"
    )
    [found] = tables(body)[0].subcommands
    assert (found.name, found.form, found.text) == ("list", "list [--all]", "All beds.")


def test_a_list_that_the_text_announces() -> None:
    body = (
        ".SH SYNOPSIS\n.B hoe\n[-q] [command [flags]]\n.SH ROWS\n"
        "The following commands are available:\n"
        ".TP\nnew-row [-d depth]\n(alias: new)\nA new row.\n.TP\nother words\nNo command.\n"
    )
    [found] = tables(body)[0].subcommands
    assert (found.name, found.form, found.aliases) == ("new-row", "new-row [-d depth]", ["new"])


def test_words_with_commas_in_the_form() -> None:
    body = (
        ".SH SYNOPSIS\n.B hoe\n[-h] {dig,rake} ...\n.SH ACTIONS\n.TP\ndig\nDig.\n.RS\n"
        ".TP\n--deep\nDeep.\n.RE\n"
    )
    found = tables(body)[0].subcommands
    assert [(one.name, [o.flags for o in one.options]) for one in found] == [
        ("dig", [["--deep"]]),
        ("rake", []),
    ]


def test_labels_in_a_synopsis_are_no_forms() -> None:
    body = (
        ".SH SYNOPSIS\n.nf\nHere:\n    hoe BED...\nFar away:\n    hoe HOST:BED...\n.fi\n"
        ".PP\nusage: hoe --list\n"
    )
    assert tables(body)[0].lines == ["hoe BED...", "hoe HOST:BED...", "hoe --list"]
