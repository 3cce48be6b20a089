"""Alterations: what was pinned on the body done to the paper, each as an operation that says what else it moves."""
