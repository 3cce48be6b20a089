"""What is to be bought for a production: what its garments take, less what lies in the stock; laid lengths where a lay says them."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from widehem.core.making.lay.cloth import ROUND_UP
from widehem.core.marking.materials import FILLED
from widehem.core.values import record

WIDTH = 150.0  # cm: the width a length is told at where no lay says another


@record(frozen=True)
class Takes:
    """What one garment takes of one cloth. cloth: what cloth it is, by its code; area: of its pieces, cm²; laid: whether a lay says what
    that takes."""

    cloth: str
    area: float
    garment: str
    laid: bool = False


@record(frozen=True)
class Laid:
    """What a lay takes of a cloth: the length to buy and the width, cm."""

    cloth: str
    length: float
    width: float


@record(frozen=True)
class Held:
    """A piece of cloth in the stock, cm."""

    cloth: str
    name: str
    length: float
    width: float
    place: str = ""


@record(frozen=True)
class Line:
    """A cloth on the shopping list. need, have, buy: lengths at this width, cm; laid: whether all of the need is laid, not reckoned."""

    cloth: str
    width: float
    need: float
    have: float
    buy: float
    laid: bool
    garments: tuple[str, ...]
    held: tuple[Held, ...]


def shopping(takes: Iterable[Takes], lays: Iterable[Laid], stock: Sequence[Held]) -> list[Line]:
    """A line for each cloth, the one that most is bought of first."""
    by_cloth: dict[str, list[Takes]] = {}
    for row in takes:
        by_cloth.setdefault(row.cloth, []).append(row)
    laid: dict[str, list[Laid]] = {}
    for entry in lays:
        laid.setdefault(entry.cloth, []).append(entry)
    found = []
    for cloth, rows in by_cloth.items():
        mine = laid.get(cloth, [])
        width = max((entry.width for entry in mine), default=WIDTH)
        reckoned = sum(row.area for row in rows if not row.laid) / width / FILLED
        need = sum(entry.length * entry.width / width for entry in mine) + reckoned
        held = tuple(piece for piece in stock if piece.cloth == cloth)
        have = sum(piece.length * piece.width / width for piece in held)
        buy = max(0.0, need - have)
        garments = tuple(dict.fromkeys(row.garment for row in rows))
        found.append(Line(cloth, width, need, have, _rounded(buy), all(row.laid for row in rows), garments, held))
    return sorted(found, key=lambda line: (-line.buy, line.cloth))


def _rounded(length: float) -> float:
    return -(-round(length, 3) // ROUND_UP) * ROUND_UP
