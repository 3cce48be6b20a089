"""Sweeps over everything of a kind: a part of it in the tests, all of it with EVERYTHING set (`make everything`)."""

import os

EVERYTHING = bool(os.environ.get("EVERYTHING"))


def some(things, each, turn=0):
    """Every one of these with EVERYTHING set; else one of so many, from the turn on."""
    return list(things) if EVERYTHING else list(things)[turn % each :: each]


def tries(count):
    """So many examples of random bodies with EVERYTHING set; else four of ten of them."""
    return count if EVERYTHING else -(-count * 4 // 10)
