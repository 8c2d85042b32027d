"""What a name would run, everywhere it stands, and what belongs to it."""
