"""What a pattern is called where it is handed over."""

from __future__ import annotations

from widehem.core.marking.made import Pattern


def title_of(pattern: Pattern) -> str:
    """Costume, wearer and production in one line."""
    head = pattern.heading
    parts = (head.costume or ", ".join(m.piece.title for m in pattern.pieces), head.wearer, head.production)
    return " · ".join(part for part in parts if part)
