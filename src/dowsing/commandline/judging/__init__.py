"""What is wrong with a line, or surely not meant: rules, and what keeps a judge from being sure."""
