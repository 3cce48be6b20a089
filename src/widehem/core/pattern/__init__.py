"""The vocabulary of a pattern: pieces with named edges, darts, seams; and what must agree with what."""
