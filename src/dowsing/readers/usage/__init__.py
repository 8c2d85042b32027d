"""What programs print when asked how they are used: cleaned, judged, and read into a Document."""
