"""Close knits: garments smaller than the body, held by their stretch. Without darts, and everything else smaller with them."""

from __future__ import annotations

from widehem.core.drafting.sheet import Sheet

CLOSEST = -30.0  # cm of ease that can be asked for at all; the stretch of the cloth decides


def is_close(sheet: Sheet, level: str = "hip") -> bool:
    """Whether a garment is a knit that is smaller than the body at a level."""
    return sheet.choice("cloth") == "knit" and sheet.ease(level).value < 0


def drawn_in(sheet: Sheet, level: str = "hip") -> float:
    """What part of the body a close knit is at a level; 1 for everything else."""
    body = sheet.measure(level).value
    return (body + sheet.ease(level).value) / body if is_close(sheet, level) else 1.0
