"""One run of the program: settings, the screen and the index, and what was named, for commands and
full screens alike.
"""
