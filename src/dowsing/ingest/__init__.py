"""Filling the index: looking for pages, reading them in several processes, building and
refreshing.
"""
