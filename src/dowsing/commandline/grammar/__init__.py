"""The grammar of the shell: a line as its words and signs, and what keeps it from being read."""
