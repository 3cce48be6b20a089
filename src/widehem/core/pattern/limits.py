"""How far apart is still true: the limits a workroom holds its seams and corners to."""

from __future__ import annotations

from widehem.core.values import record


@record(frozen=True)
class Limits:
    """seam: how far the two sides of a seam, and what meets along it, may differ, cm. legs: those of a dart. corner: how far a
    closed outline may bend, degrees."""

    seam: float = 0.2
    legs: float = 0.1
    corner: float = 3.0


USUAL_LIMITS = Limits()
