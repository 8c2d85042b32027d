"""Whole scripts, and files of other kinds that hold lines for a shell."""
