"""What the user keeps: lines, and remarks on names. Plain TOML files in the data folder, which may be edited by hand."""

SAVED, DROPPED, NOTES = "saved.toml", "dropped.toml", "notes.toml"
