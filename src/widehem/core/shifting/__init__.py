"""How places of a piece move, and all that hangs on them follows: what grading and fitting are done with."""
