"""Grading: other sizes from one pattern, sizes mixed on one body, and few patterns for a whole cast."""
