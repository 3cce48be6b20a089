"""Whole numbers as they come in addresses and forms."""

from __future__ import annotations

LARGEST = 2**63 - 1  # what the database can hold


def is_number(text: str) -> bool:
    """Whether a text is a whole number that can be one of ours: plain figures, and no more than the database can hold."""
    return text.isascii() and text.isdecimal() and len(text) <= 19 and int(text) <= LARGEST


def number_of(text: str) -> int:
    """The number. Raises ValueError."""
    if not is_number(text.strip()):
        raise ValueError(text[:20])
    return int(text)
