"""The designs that ship: made by operations alone, each a file beside this module."""

from __future__ import annotations

from functools import cache
from importlib.resources import files

from widehem.core.design.files import Named, read_design

ORDER = ("waistcoat", "shirt", "dress", "stays", "trousers", "breeches", "coat", "tabard", "cloak", "robe", "skin", "clown")


@cache
def shipped() -> dict[str, Named]:
    """All of them by their codes, from the closest to the widest of their kind."""
    folder = files("widehem.core.design") / "shipped"
    return {code: read_design((folder / f"{code}.json").read_bytes()) for code in ORDER}
