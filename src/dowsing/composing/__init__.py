"""Composing a line from fields: of a command by its forms and options, of a file by a description
of its lines.
"""
