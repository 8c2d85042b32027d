"""The full-screen parts: compose and browse. They draw on the terminal itself, so that stdout can
be captured.
"""
