"""Documents, tables and messages as text for a terminal, a pipe or a file."""
