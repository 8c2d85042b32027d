"""Bytes to Documents: manual pages, Info files, usage texts, Markdown; packings and encodings."""
