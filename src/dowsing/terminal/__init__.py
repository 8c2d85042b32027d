"""The terminal: its width and colours, a pager, prompts, the clipboard, panes; for commands and
full screens alike.
"""
