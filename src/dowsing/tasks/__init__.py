"""Tasks: recipes, the values in a sentence, and a sentence to command lines."""
