"""One module a command: add_arguments(parser) and run(session, options) -> exit status."""
