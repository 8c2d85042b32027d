"""What the words of English and of the trade mean: stems, groups of equal words, verbs and nouns, purposes."""
