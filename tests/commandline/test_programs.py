"""Programs in inner languages that are not whole."""

from __future__ import annotations

import pytest

from dowsing.commandline.languages import read_value
from dowsing.render.phrases import words


@pytest.mark.parametrize(
    ("language", "program", "fault"),
    [
        ("awk", "{print $1", "{ is not closed"),
        ("awk", '{print "a}', '" is not closed'),
        ("awk", "/a/ {x = (1 + 2}", "} closes nothing"),
        ("awk", "/[/]}/ {print}", ""),
        ("awk", "{print $1/2; y = 3/4}", ""),
        ("awk", "# a { in a remark\n{print}", ""),
        ("jq", ".[", "[ is not closed"),
        ("jq", '.a | select(.b == "x")', ""),
        ("jq", '"\\(.a) [ \\(.b | length)"', ""),
        ("jq", '"\\(.a', '" is not closed'),
        ("jq", "{a: .b}}", "} closes nothing"),
        ("sed", "s/a/b", "s needs three /"),
        ("sed", "s|a|b|g", ""),
        ("sed", "s/a/b/gz", "s takes no z"),
        ("sed", "y/ab/cd/", ""),
        ("sed", "/a/,/b/{s/x/y/;p}", ""),
        ("sed", "/a/{p", "{ is not closed"),
        ("sed", "}", "} closes nothing"),
        ("sed", "/a", "/ is not closed"),
        ("sed", "1~2d;$!N;5q", ""),
        ("sed", ":a;N;$!ba;s/\\n/ /g", ""),
        ("sed", "s/[/]/x/", ""),
        ("sed", "k", "there is no command k"),
        ("sed", "a\\\nsome { text", ""),
        ("sed", "\\,a,d", ""),
        ("regex-basic", "a[bc", "[ is not closed"),
        ("regex-basic", "[]a]x", ""),
        ("regex-basic", "[[:alpha:]]*", ""),
        ("regex-basic", "a(b", ""),
        ("regex-basic", "\\(a", "\\( is not closed"),
        ("regex-basic", "a\\)", "\\) closes nothing"),
        ("regex-extended", "(a|b", "( is not closed"),
        ("regex-extended", "a)", ""),
        ("regex-extended", "a\\", "nothing follows the last backslash"),
        ("ook", "([{", ""),
    ],
)
def test_what_keeps_a_program_from_being_read(language: str, program: str, fault: str) -> None:
    found = read_value(language, program).fault
    assert (words(found.reason) if found else "") == fault
