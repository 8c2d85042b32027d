"""This computer: settings, packages, shells, the search path, and asking a program in a sandbox."""
