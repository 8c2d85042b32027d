"""Structured lines of files: each shipped kind reads and writes a right line, and marks wrong ones
at the right field.
"""

from __future__ import annotations

import re
from pathlib import Path

import pytest

from dowsing.composing.line_kinds import line_kinds, read_kind
from dowsing.composing.line_sheet import LineSheet
from dowsing.machine.settings import Settings
from dowsing.model.document import document_text
from dowsing.model.errors import BadDescription
from dowsing.render.phrases import words
from dowsing.sources import page_files

SETTINGS = Settings("", "", "/none", None, [], demo=True)
KINDS = line_kinds(SETTINGS)

#: A right line of each kind, and what its fields are.
RIGHT = {
    "fstab": (
        "UUID=3e6b /srv ext4 defaults,nofail 0 2",
        ["UUID=3e6b", "/srv", "ext4", "defaults,nofail", "0", "2"],
    ),
    "crontab": (
        "5 */2 1,15 * mon-fri tar -czf x.tgz notes",
        ["5", "*/2", "1,15", "*", "mon-fri", "tar -czf x.tgz notes"],
    ),
    "passwd": (
        "rose:x:1001:1001:Rose Hill:/home/rose:/bin/bash",
        ["rose", "x", "1001", "1001", "Rose Hill", "/home/rose", "/bin/bash"],
    ),
    "group": ("garden:x:1002:rose,ivy", ["garden", "x", "1002", "rose,ivy"]),
    "shadow": ("rose:!:19000:0:99999:7:::", ["rose", "!", "19000", "0", "99999", "7", "", "", ""]),
    "hosts": ("192.0.2.7 fern.garden.example fern", ["192.0.2.7", "fern.garden.example", "fern"]),
    "services": ("bedplan 4711/tcp beds", ["bedplan", "4711/tcp", "beds"]),
    "bedplan": ("fern3 palms 2 4m", ["fern3", "palms", "2", "4m"]),
    "seedbank": ("runner bean:2024:40:3", ["runner bean", "2024", "40", "3"]),
}

#: Wrong lines of each kind: the line, the field that is wrong, and the reason.
WRONG = [
    (
        "fstab",
        "UUID=3e6b srv ext4 defaults 0 2",
        "fs_file",
        "a folder from the root on, or none is wanted here",
    ),
    ("fstab", "UUID=3e6b /srv ext4 defaults no 2", "fs_freq", "a number is wanted here"),
    (
        "fstab",
        "UUID=3e6b /srv ext4 defaults 0 2 3",
        "fs_passno",
        "the line has more fields than there are: 3",
    ),
    ("crontab", "61 * * * * date", "minute", "61 is not from 0 to 59"),
    ("crontab", "5 24 * * * date", "hour", "24 is not from 0 to 23"),
    ("crontab", "5 4 * * mno date", "day of week", "“mno” is no number: mon?"),
    (
        "passwd",
        "rose:x:ten:1001::/home/rose:/bin/bash",
        "numerical user ID",
        "a number is wanted here",
    ),
    (
        "passwd",
        "Rose:x:1:1::/home/rose:/bin/bash",
        "login name",
        "a name of lower-case letters, digits, - and _ is wanted here",
    ),
    (
        "passwd",
        "rose:x:1:1::home:/bin/bash",
        "home directory",
        "a folder from the root on is wanted here",
    ),
    ("group", "garden:x:-2:rose", "GID", "a number is wanted here"),
    ("group", "garden:x:2:rose,,i vy", "user_list", "names of users is wanted here"),
    (
        "shadow",
        "rose:!:soon:0:::::",
        "date of last password change",
        "a number of days is wanted here",
    ),
    (
        "hosts",
        "192.0.2.700 fern",
        "IP_address",
        "an address of IPv4 or IPv6 is wanted here, such as 192.0.2.7",
    ),
    (
        "hosts",
        "192.0.2.7 fern fe_rn",
        "aliases",
        "a name of letters, digits, - and dots is wanted here",
    ),
    (
        "services",
        "beds 70000/tcp",
        "port/protocol",
        "a port up to 65535 and a protocol, such as 8080/tcp, is wanted here",
    ),
    ("bedplan", "fern3 palms 41", "row", "it must be from 1 to 40"),
    ("bedplan", "fern3 palm 4", "house", "“palm” is none of the allowed values: palms"),
    ("seedbank", "Lettuce:2025:300:4", "name", "a name in lower case is wanted here"),
]

UNIT = """[Unit]
Description=Water the beds

[Service]
Type=oneshot
ExecStart=/usr/bin/irrigate show north
Environment=HOUSE=palms
Environment=ROW=2

[Install]
WantedBy=multi-user.target"""


def sheet(kind: str, text: str = "") -> LineSheet:
    """The sheet of a shipped kind."""
    return LineSheet(read_kind(KINDS[kind]), text)


@pytest.mark.parametrize("kind", RIGHT)
def test_a_right_line_is_read_and_written_again(kind: str) -> None:
    line, values = RIGHT[kind]
    found = sheet(kind, line)
    assert [(found.values(field) or [""])[0] for field in found.fields] == values
    assert (found.line(), found.faults(), found.missing()) == (line, [], [])
    first = found.fields[0]
    found.put(first, [])
    found.put(first, [values[0]])
    again = sheet(kind, found.line())
    assert {f.key: found.values(f) for f in found.fields} == {
        f.key: again.values(f) for f in again.fields
    }


@pytest.mark.parametrize(("kind", "line", "field", "says"), WRONG)
def test_a_wrong_line_is_marked_at_its_field(kind: str, line: str, field: str, says: str) -> None:
    faults = sheet(kind, line).faults()
    assert [(fault.field.label, words(fault.reason)) for fault in faults] == [(field, says)]


def test_empty_columns_are_filled_where_later_ones_are_given() -> None:
    found = sheet("crontab")
    assert [fault.field.label for fault in found.missing()] == ["minute", "hour", "command"]
    for field, value in zip(found.fields, ["5", "4", "", "", "", "date"], strict=True):
        found.put(field, [value] if value else [])
    assert found.line() == "5 4 * * * date"
    shadow = sheet("shadow")
    shadow.put(shadow.fields[0], ["rose"])
    shadow.put(shadow.fields[2], ["19000"])
    assert shadow.line() == "rose::19000::::::"


def test_a_blank_or_a_colon_would_begin_the_next_field() -> None:
    bed = sheet("bedplan")
    bed.put(bed.fields[0], ["two words"])
    assert [words(fault.reason) for fault in bed.faults()] == [
        "a name of letters, digits and - is wanted here"
    ]
    user = sheet("passwd")
    user.put(user.fields[4], ["a:b"])
    assert [words(fault.reason) for fault in user.faults()] == [
        "a colon would begin the next field"
    ]


def test_settings_below_their_sections() -> None:
    found = sheet("service-unit", UNIT)
    assert (found.line(), found.faults(), found.missing()) == (UNIT, [], [])
    environment = next(field for field in found.fields if field.label == "Environment")
    assert found.values(environment) == ["HOUSE=palms", "ROW=2"]
    kind = next(field for field in found.fields if field.label == "Type")
    found.put(kind, ["simple"])
    assert "Type=" not in found.line(), "what is the default anyway is left out"
    found.put(kind, ["often"])
    assert [(f.field.label, words(f.reason).split(":")[0]) for f in found.faults()] == [
        ("Type", "“often” is none of the allowed values")
    ]
    odd = sheet("service-unit", UNIT + "\nAlias=water.service\n")
    odd.put(odd.fields[0], ["Water"])
    assert "Alias=water.service" in odd.line(), "a setting that the description does not have stays"
    timer = sheet("timer-unit", "[Unit]\nDescription=x\n[Timer]\nOnBootSec=soon\n")
    assert [fault.field.label for fault in timer.faults()] == ["OnBootSec"]


@pytest.mark.parametrize("kind", sorted(KINDS))
def test_the_page_tells_of_each_field(kind: str) -> None:
    described = read_kind(KINDS[kind])
    texts = []
    for page in [described.page, *described.pages]:
        name, _, section = page.rstrip(")").partition("(")
        places = [
            Path(f"/usr/share/man/man{section}/{name}.{section}.gz"),
            Path(KINDS["bedplan"]).parent.parent / "man" / f"man{section}" / f"{name}.{section}",
        ]
        path = next((place for place in places if place.exists()), None)
        if path is None:
            pytest.skip(f"there is no {page} here")
        texts.append(
            document_text(
                page_files.read_page_file(
                    str(path), name, section, package=None, language=""
                ).sections
            )
        )
    text = " ".join(re.sub(r"[\s_]+", " ", " ".join(texts)).casefold().split())
    for field in described.fields:
        for word in re.split(r"[/\s_]+", field.label.casefold()):
            assert word in text, field.label


def test_a_kind_of_the_users_own(tmp_path: Path) -> None:
    folder = tmp_path / "lines"
    folder.mkdir()
    (folder / "visits.toml").write_text(
        'name = "visits"\nsummary = "a visit"\nlayout = "colons"\n'
        '[[field]]\nname = "day"\nrequired = true\npattern = "[0-9-]+"\nwanted = "a '
        'day"\n[[field]]\nname = "count"\nkind = "number"\n'
    )
    kinds = line_kinds(SETTINGS.changed(config=str(tmp_path)))
    assert "visits" in kinds and "fstab" in kinds
    found = LineSheet(read_kind(kinds["visits"]), "2026-03-03:many")
    assert [(fault.field.label, words(fault.reason)) for fault in found.faults()] == [
        ("count", "a number is wanted here")
    ]


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("name = 3", "name must be a word"),
        ('name = "x"\nlayout = "rows"', "layout must be one of blanks, colons, settings"),
        ('name = "x"', "there is no"),
        ('name = "x"\n[[field]]\nkind = "file"', "field 1 has no name"),
        ('name = "x"\n[[field]]\nname = "a"\ncolour = 1', "field a: colour means nothing here"),
        ('name = "x"\n[[field]]\nname = "a"\npattern = "("', "field a: its pattern is none"),
        ("name = ", "is not TOML"),
        (
            'name = "x"\n[[field]]\nname = "a"\nrange = [1]',
            "field a: range must be two whole numbers",
        ),
        (
            'name = "x"\n[[field]]\nname = "a"\nrepeats = true\n[[field]]\nname = "b"',
            "only the last field may be repeated",
        ),
    ],
)
def test_a_description_that_cannot_be_used_says_why(tmp_path: Path, text: str, says: str) -> None:
    path = tmp_path / "odd.toml"
    path.write_text(text)
    with pytest.raises(BadDescription) as error:
        read_kind(str(path))
    assert says in str(error.value) and str(path) in str(error.value)
