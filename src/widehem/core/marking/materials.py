"""What a pattern takes besides work: each cloth with its pieces and the room they need, and everything that is not cloth."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence

from shapely import Polygon

from widehem.core.marking.labels import cloths_of
from widehem.core.marking.made import Pattern
from widehem.core.values import record

NUMBER = re.compile(r"\s*(\d+)")
FILLED = 0.8  # of a length of cloth that pieces fill, as a rule, before a lay is made
WIDTHS = (90.0, 115.0, 150.0)  # cm of cloth, as it is sold


@record(frozen=True)
class Material:
    """A cloth: how many pieces are cut from it, and the room they take, cm²."""

    name: str
    pieces: int
    area: float

    def about(self, width: float) -> float:
        """The length of cloth of a width that this takes, about, cm: rounded up to 10. A lay plan says it exactly."""
        return -(-self.area / width / FILLED // 10) * 10


@record(frozen=True)
class Needs:
    """All that a garment, or several, take. notions: in words, with how often each is needed."""

    materials: tuple[Material, ...]
    notions: tuple[tuple[str, int], ...]


def needs_of(pattern: Pattern) -> Needs:
    """What a pattern takes."""
    found: dict[str, tuple[int, float]] = {}
    for marked in pattern.pieces:
        area = Polygon(marked.cut).area
        for cloth in cloths_of(marked.piece, pattern.wanted.plan.use):
            count, halves = how_often(cloth.cut), 2 if "fold" in cloth.cut and marked.mirror is None else 1
            pieces, room = found.get(cloth.cloth, (0, 0.0))
            found[cloth.cloth] = pieces + count, room + area * count * halves
    rows = tuple(Material(name, pieces, area) for name, (pieces, area) in found.items())
    return Needs(rows, tuple((line, 1) for line in pattern.notions))


def how_often(cut: str) -> int:
    """How often a piece is cut, by the words of its cutting list."""
    number = NUMBER.match(cut)
    return int(number[1]) if number else 1


def together(many: Iterable[Needs]) -> Needs:
    """What several garments take together: cloths of one name, and what is the same to the word."""
    materials: dict[str, Material] = {}
    notions: dict[str, int] = {}
    for needs in many:
        for row in needs.materials:
            old = materials.get(row.name, Material(row.name, 0, 0.0))
            materials[row.name] = Material(row.name, old.pieces + row.pieces, old.area + row.area)
        for words, count in needs.notions:
            notions[words] = notions.get(words, 0) + count
    return Needs(tuple(materials.values()), tuple(notions.items()))


def in_order(materials: Sequence[Material]) -> list[Material]:
    """The cloths, the one that takes most room first."""
    return sorted(materials, key=lambda row: -row.area)
