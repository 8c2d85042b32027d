"""The scripts of `bench` use what there is: nothing else would notice a name that moved."""

from __future__ import annotations

import ast
from importlib import import_module
from pathlib import Path

import pytest

SCRIPTS = sorted((Path(__file__).parent.parent / "bench").glob("*.py"))


@pytest.mark.parametrize("script", SCRIPTS, ids=lambda script: script.name)
def test_what_a_script_imports_is_there(script: Path) -> None:
    missing = []
    for node in ast.walk(ast.parse(script.read_text(encoding="utf-8"))):
        if isinstance(node, ast.ImportFrom) and (node.module or "").startswith("dowsing"):
            module = import_module(node.module or "")
            for name in node.names:
                if not hasattr(module, name.name):
                    try:
                        import_module(f"{node.module}.{name.name}")
                    except ImportError:
                        missing.append(f"{node.module}.{name.name}")
    assert missing == []
