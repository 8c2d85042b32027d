"""Command lines: a line taken apart, judged, rewritten, and what may come next in one."""
