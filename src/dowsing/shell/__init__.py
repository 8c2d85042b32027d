"""The snippets that put Dowsing into a shell: completion, four keys, `save --last`."""
