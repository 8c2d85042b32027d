"""What we know beside the pages: words and their groups, phrases, recipes, how commands take their
words, kinds of lines.
"""
