"""Lengths as they are typed into a form over what stands there."""

from __future__ import annotations

from widehem.core.units import parse_length
from widehem.web.show import display


def typed_length(text: str, was: float = 0.0) -> float:
    """A length that was typed, cm; nothing and 0 are 0. was: what stood there, cm: left as it was shown it stays that, to the last digit.
    Raises LengthError."""
    show, words = display(), text.strip()
    if words in ("", "0", "0.0"):
        return 0.0
    return was if words == show.setting(was) else parse_length(words, show.unit).cm
