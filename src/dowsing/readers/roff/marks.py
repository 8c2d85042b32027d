"""Marks that live only while a page is being read; none of them reaches a finished Document."""

PREVIOUS = "\x06"  # back to the font before
ZERO = "\x07"  # nothing, but no longer the beginning of a line or of a name
BACKSLASH = "\x08"  # a backslash to print
PAD = "\x12"  # a blank that neither breaks nor shrinks
JOIN = "\x13"  # the text goes on with the next input line, without a blank
BREAK = "\x14"  # a line ends here
QUOTE = "\x15"  # a double quote to print
