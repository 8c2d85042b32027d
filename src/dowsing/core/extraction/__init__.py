"""Facts read out of a Document's blocks, by the same code for every source."""
