"""Manual page source (roff with the man and mdoc macros) to Document."""
