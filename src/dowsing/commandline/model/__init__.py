"""What a command takes, from all that tells of it, and a line as a tree of commands."""
