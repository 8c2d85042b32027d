"""Several documentations of one name, side by side: what there is, what is the same, what
differs.
"""
