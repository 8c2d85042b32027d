"""What came back for `--help` is judged."""

from __future__ import annotations

import pytest

from dowsing.readers.usage.verdict import judge


@pytest.mark.parametrize(
    ("output", "status", "kind"),
    [
        ("Usage: tine [OPTION]...\n", 0, "usage"),
        ("tine: usage: tine [-n] bed\n", 2, "usage"),
        ("tine: invalid option -- '-'\nusage: tine [-n] bed\n", 64, "usage"),
        ("Usage of tine:\n  -n int\n    \tdepth\n", 2, "usage"),
        ("tine 1.2\n\nOptions:\n  -n   do nothing\n  -v   say more\n", 0, "usage"),
        ("tine [-n] BED...\nRakes beds.\n", 0, "usage"),
        ("--help\n", 0, "echo"),
        ("'--help'\n", 0, "echo"),
        ("help\n", 0, "echo"),
        ("tine: unrecognized option '--help'\n", 1, "error"),
        ("tine: cannot open --help: No such file or directory\n", 1, "error"),
        ("usage: unknown option --help\n", 1, "error"),
        ("All beds were raked.\nThe heap is full.\n", 0, "effect"),
        ("Mon Nov 23 09:32:37 UTC 2026\n", 0, "effect"),
        ("", 0, "nothing"),
        ("\x1b[0m\n\n", 0, "nothing"),
    ],
)
def test_verdicts(output: str, status: int, kind: str) -> None:
    verdict = judge(output, "--help", "tine", status)
    assert verdict.kind == kind
    assert (verdict.says == "") == (kind == "usage")
