"""Values that are small languages of their own."""

from __future__ import annotations

import pytest

from dowsing.commandline.languages import read_value


@pytest.mark.parametrize(
    ("notation", "value", "expected"),
    [
        (
            "mode",
            "750",
            [
                ("7", "the owner may read, write and execute"),
                ("5", "the group may read and execute"),
                ("0", "others may do nothing"),
            ],
        ),
        (
            "mode",
            "4711",
            [
                ("4", "runs as its owner (set-user-ID)"),
                ("7", "the owner may read, write and execute"),
                ("1", "the group may execute"),
                ("1", "others may execute"),
            ],
        ),
        (
            "mode",
            "u+x,go-w",
            [
                ("u+x", "the owner may also execute"),
                ("go-w", "the group and others may no longer write"),
            ],
        ),
        ("mode", "=r", [("=r", "everyone, as far as the umask lets, may just read")]),
        ("mode", "9", []),
        ("dates", "+%F %H:%M", [("%F", "year-month-day"), ("%H", "hour, 00-23"), ("%M", "minute")]),
        ("dates", "plain", []),
        (
            "printf",
            "%-5s|%03d\\n",
            [
                ("%-5s", "text, 5 wide, on the left"),
                ("|", "as it stands"),
                ("%03d", "a whole number, 3 wide, filled with zeros"),
                ("\\n", "a new line"),
            ],
        ),
        ("printf", "plain", []),
        (
            "regex-extended",
            "^a+(b|c)$",
            [
                ("^", "the beginning of the line"),
                ("a", "as it stands"),
                ("+", "once or more"),
                ("(", "begins a group"),
                ("b", "as it stands"),
                ("|", "or"),
                ("c", "as it stands"),
                (")", "ends a group"),
                ("$", "the end of the line"),
            ],
        ),
        ("regex-basic", "a+b", []),
        ("regex-basic", "a\\{2,3\\}", [("a", "as it stands"), ("\\{2,3\\}", "2 to 3 times")]),
        ("regex-perl", "\\d+", [("\\d", "a digit"), ("+", "once or more")]),
        ("regex-extended", "[^[:digit:]]", [("[^[:digit:]]", "a character that is not a digit")]),
        (
            "regex-basic",
            "bed*",
            [("be", "as it stands"), ("d", "as it stands"), ("*", "any number of times")],
        ),
        (
            "sed",
            "s/a/b/g",
            [("s/a/b/", "puts b in the place of what matches a"), ("g", "every time in the line")],
        ),
        ("sed", "2,$d", [("2,$", "on line 2 to the last line"), ("d", "deletes the line")]),
        (
            "sed",
            "/x/!p",
            [("/x/!", "on all lines but lines that match /x/"), ("p", "prints the line")],
        ),
        (
            "schedule",
            "*/5 2 * * 1-5",
            [
                ("*/5", "every 5 minutes"),
                ("2", "hour 2"),
                ("*", "every day"),
                ("*", "every month"),
                ("1-5", "weekday Monday to Friday"),
            ],
        ),
        ("schedule", "@daily", [("@daily", "every day at midnight")]),
        ("schedule", "often", []),
        ("signal", "9", [("9", "KILL: ends it at once; it cannot be caught")]),
        ("signal", "SIGTERM", [("SIGTERM", "asks it to end")]),
        ("amount", "+30", [("+30", "more than 30")]),
        ("amount", "-10M", [("-10M", "less than 10 MiB")]),
        ("unknown", "x", []),
    ],
)
def test_parts(notation: str, value: str, expected: list[tuple[str, str]]) -> None:
    assert read_value(notation, value).rows == expected
