"""Options as pages of many makers write them."""

from __future__ import annotations

import pytest

from dowsing.core.extraction.options import make_option


@pytest.mark.parametrize(
    ("tag", "flags", "argument", "optional"),
    [
        ("-a", ["-a"], None, False),
        ("-a, --all", ["-a", "--all"], None, False),
        ("-a --all", ["-a", "--all"], None, False),
        ("-a | --all", ["-a", "--all"], None, False),
        ("-a or --all", ["-a", "--all"], None, False),
        ("-a/--all", ["-a", "--all"], None, False),
        ("-a\n--all", ["-a", "--all"], None, False),
        ("--size=N", ["--size"], "N", False),
        ("--size N", ["--size"], "N", False),
        ("--size <n>", ["--size"], "n", False),
        ("--color[=WHEN]", ["--color"], "WHEN", True),
        ("--color [WHEN]", ["--color"], "WHEN", True),
        ("-o file, --output=file", ["-o", "--output"], "file", False),
        ("-o, --output FILE", ["-o", "--output"], "FILE", False),
        ("--[no-]wash", ["--wash", "--no-wash"], None, False),
        ("-NUM", ["-NUM"], None, False),
        ("-name pattern", ["-name"], "pattern", False),
        ("-x:", ["-x"], None, False),
        ("+x", ["+x"], None, False),
        ("-L [host:]port", ["-L"], "[host:]port", False),
        ("--proxy [scheme://]host[:port]", ["--proxy"], "[scheme://]host[:port]", False),
        ("--state=", ["--state"], "", False),
        ("--format={a|b}", ["--format"], "{a|b}", False),
        ("-W opt1,opt2", ["-W"], "opt1,opt2", False),
    ],
)
def test_tags(tag: str, flags: list[str], argument: str | None, optional: bool) -> None:
    option = make_option(tag, [], "OPTIONS")
    assert option is not None
    assert (option.flags, option.argument, option.argument_optional) == (flags, argument, optional)


@pytest.mark.parametrize("tag", ["-", "--", "word", ""])
def test_what_is_no_option(tag: str) -> None:
    assert make_option(tag, [], "") is None
