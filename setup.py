"""What the build does beside what pyproject.toml says: it checks the files of commands and makes
the files of them that look-ups read.
"""

import sys
from pathlib import Path

from setuptools import setup
from setuptools.command.build_py import build_py

SOURCE = Path(__file__).parent / "src"


class BuildWithCommands(build_py):
    """Makes the file of commands, and the index without pages, before the package's files are
    gathered.
    """

    def run(self) -> None:
        sys.path.insert(0, str(SOURCE))
        from dowsing.ingest.prepared import main

        if main():
            raise SystemExit(1)
        super().run()


setup(cmdclass={"build_py": BuildWithCommands})
