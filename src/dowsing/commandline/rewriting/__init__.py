"""A line written otherwise: with long or short options."""
