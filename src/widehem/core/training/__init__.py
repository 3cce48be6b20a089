"""Learning by hand: a draft followed on one's own paper, and exercises with a mistake to find."""
