"""Which installed package a file comes from, read from the package managers' own files."""
