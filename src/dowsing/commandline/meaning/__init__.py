"""What a line does: conditions of acts, and effects."""
