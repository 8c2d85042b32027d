"""The index: one SQLite file that all look-ups use. No SQL anywhere else."""
