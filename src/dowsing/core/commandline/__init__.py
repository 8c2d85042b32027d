"""Command lines: option tables, forms, a line taken apart, and what may come next in one."""
