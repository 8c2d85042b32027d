"""Sources of documentation: each module finds and reads one kind of it."""
