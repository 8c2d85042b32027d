"""Info files: nodes out of files, what is in a node, and a command's nodes as one Document."""
