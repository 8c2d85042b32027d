"""Gives each word of a line its role, by what is known of its command."""
