"""Answers made out of one document: its parts and its card."""
