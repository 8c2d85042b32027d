"""`python -m dowsing`."""

from dowsing.start import program

program()
