"""Marks of whole lines, put in by those who lay out and read by the screen; see model/markup.py for
styles.
"""

HEADING = "\x17"  # first in a line: it is a heading
FAINT = "\x18"  # first in a line, or to the next style in one: it is of less importance
FOUND = "\x19"  # before and after text that was looked for
