"""Where the installed program begins: nothing is loaded here before an interrupt is provided for."""

from __future__ import annotations


def program() -> None:
    """Run the program. Ctrl-C while its modules load ends it quietly, too; what cannot be loaded is one line."""
    import os

    try:
        from dowsing.cli.main import program as run

        run()
    except KeyboardInterrupt:
        os.write(2, b"dowsing: interrupted\n")
        os._exit(130)
    except (ImportError, OSError, MemoryError) as error:
        os.write(2, f"dowsing: it cannot be loaded: {error}\n".encode("utf-8", "replace"))
        os._exit(3)
