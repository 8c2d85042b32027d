"""Documentation coverage over many names: which sources each has, and where they disagree."""
