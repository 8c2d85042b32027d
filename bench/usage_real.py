"""How many of the flags that real tools list in their own help are read, by a count that only looks
for dashes.

    python bench/usage_real.py install DIR
    python bench/usage_real.py judge [--misses]

The first installs tools from the package registries into DIR. The second, with DIR/env/bin and
DIR/node/node_modules/.bin first on PATH and a DOWSING_CACHE of its own, asks them and their
subcommands for their usage, as a user who looks them up would, and prints a line for each tool: the
flags that stand at the beginning of lines of its help, and how many of them are options of what was
read. The flags of a wrapped text that begins a line with a dash are counted too, so that 1.00 is
not to be had.
"""

from __future__ import annotations

import argparse
import re
import subprocess
import sys
from pathlib import Path

from dowsing.facts import with_facts
from dowsing.machine.search_path import executables
from dowsing.machine.settings import read_settings
from dowsing.readers.usage.cleaning import clean_lines
from dowsing.readers.usage.usage_kind import UsageKind
from dowsing.readers.usage.usage_text import read_usage
from dowsing.sources.asking import ask_program
from dowsing.sources.subcommand_usage import ask_subcommand

PYTHON = """
    black flake8 isort pylint bandit yamllint tox nox pre-commit cookiecutter flask uvicorn gunicorn
    celery twine pyproject-build pipx uv hatch pybabel alembic scrapy http csvcut sqlite-utils
    coverage pip-compile virtualenv ansible inv poetry ruff mypy pytest pip
""".split()
NODE = "eslint prettier tsc rollup webpack mocha nodemon pnpm yarn vite terser npm".split()
PACKAGES = """
    black flake8 isort pylint bandit yamllint tox nox pre-commit cookiecutter flask uvicorn gunicorn
    celery twine build pipx uv hatch Babel alembic scrapy httpie csvkit sqlite-utils coverage
    pip-tools virtualenv ansible-core invoke poetry
""".split()
MOST_SUBCOMMANDS = 12
_FLAG = re.compile(r"(?<![\w/<=-])(--[A-Za-z][\w-]+|-[A-Za-z0-9])(?![\w-])")


def listed(text: str) -> set[str]:
    """The flags at the beginning of lines, up to the first gap behind them."""
    found: set[str] = set()
    for line in clean_lines(text):
        bare = line.strip(" │|*")
        if not re.match(r"--?[A-Za-z0-9]", bare):
            continue
        head = re.split(r"\s{2,}(?!-)|\s+[A-Z][a-z]+ ", bare)[0]
        found.update(_FLAG.findall(head[:80]))
    return found


def install(folder: Path) -> int:
    """Install the tools."""
    subprocess.run([sys.executable, "-m", "venv", str(folder / "env")], check=True)
    pip = [str(folder / "env/bin/pip"), "install", "-q", *PACKAGES]
    subprocess.run(pip, check=True)
    node = [name for name in NODE if name not in ("tsc", "npm")]
    npm = ["npm", "install", "--prefix", str(folder / "node"), "typescript", "webpack-cli", *node]
    return subprocess.run(npm, check=False).returncode


def judge(misses: bool) -> int:
    """Print how many flags were read."""
    settings = read_settings()
    right = wanted = asked = without = 0
    for name in [*PYTHON, *NODE]:
        for path in executables(name, settings.search_path)[:1]:
            usage = ask_program(path, name, settings, True)
            if usage is None or usage.kind != UsageKind.USAGE:
                without += 1
                print(f"{name:24} no usage: {usage.says if usage else ''}"[:120])
                continue
            document = with_facts(read_usage(usage.text, name, "usage"))
            texts = [(name, usage.text)]
            for one in document.subcommands[:MOST_SUBCOMMANDS]:
                own = ask_subcommand(path, [one.name], settings, True)
                if own is not None and own.kind == UsageKind.USAGE:
                    texts.append((f"{name} {one.name}", own.text))
            mine = all_of = 0
            for spoken, text in texts:
                read = with_facts(read_usage(text, spoken, "usage")).options
                flags = {flag for option in read for flag in option.flags}
                flags |= {flag.replace("--no-", "--") for flag in flags}
                there = listed(text)
                mine += len(there & flags)
                all_of += len(there)
                if misses and there - flags:
                    print(f"    {spoken}: {sorted(there - flags)}")
            print(f"{name:24}{len(texts):4} texts {mine:5} of {all_of:5}")
            right, wanted, asked = right + mine, wanted + all_of, asked + len(texts)
    share = right / max(wanted, 1)
    print(f"{asked} texts, {right} of {wanted} flags ({share:.3f}); {without} tools without")
    return 0 if right >= 0.97 * wanted else 1


def main() -> int:
    """Install or judge."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("what", choices=["install", "judge"])
    parser.add_argument("folder", nargs="?", type=Path)
    parser.add_argument("--misses", action="store_true")
    asked = parser.parse_args()
    return install(asked.folder) if asked.what == "install" else judge(asked.misses)


if __name__ == "__main__":
    raise SystemExit(main())
