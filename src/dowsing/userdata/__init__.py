"""What the user keeps: lines, remarks on names, and what was read. Plain files in the data folder,
which may be edited by hand: TOML, and JSON Lines for what only grows.
"""

SAVED, DROPPED, NOTES, READ = "saved.toml", "dropped.toml", "notes.toml", "read.jsonl"
FORMS, PLACES = "forms.jsonl", "places.jsonl"
