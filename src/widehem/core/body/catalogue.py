"""The catalogue of measures, in the order in which a body is measured."""

from __future__ import annotations

from widehem.core.body.girths import GIRTHS
from widehem.core.body.lengths import LENGTHS
from widehem.core.body.measure import Measure
from widehem.core.body.widths import WIDTHS

CATALOGUE: dict[str, Measure] = {entry.code: entry for entry in (*GIRTHS, *LENGTHS, *WIDTHS)}
ZONES: tuple[str, ...] = tuple(dict.fromkeys(entry.zone for entry in CATALOGUE.values()))


def measure(code: str) -> Measure:
    """The entry with this code. Raises KeyError."""
    return CATALOGUE[code]


def names(codes: tuple[str, ...] | list[str]) -> str:
    """'waist, hip and waist to hip' from codes."""
    words = [CATALOGUE[code].name.lower() if code in CATALOGUE else code for code in codes]
    return words[0] if len(words) == 1 else ", ".join(words[:-1]) + " and " + words[-1] if words else ""
