"""Gores of a gown: how many, how wide, and the piece."""

from __future__ import annotations

import math

from widehem.core.drafting.methods.gown_shape import Levels, split_at
from widehem.core.drafting.sheet import Sheet
from widehem.core.geometry.curves import Cubic
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.inside import Cloth
from widehem.core.pattern.piece import Piece
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say

WIDEST_GORE = math.radians(100)
LEAST_GORE = 0.5  # cm at the hem: what is narrower cannot be sewn


def gore(name: str, title: str, high: float, sweep: float, number: int) -> Piece:
    """A gore, cm: its two sides `high` long, its hem an arc of this length."""
    half = sweep / high / 2
    tip = Point(0.0, 0.0)
    left, right = (Point(hand * high * math.sin(half), high * math.cos(half)) for hand in (-1.0, 1.0))
    middle = Point(0.0, high)
    reach = 4 / 3 * math.tan(half / 4) * high
    out, into = Point(math.cos(half), math.sin(half)), Point(math.cos(half), -math.sin(half))
    hem = Path(
        (
            Cubic(left, left + out * reach, middle - Point(reach, 0.0), middle),
            Cubic(middle, middle + Point(reach, 0.0), right - into * reach, right),
        )
    )
    edges = (
        Edge("left", (Path.through(tip, left),), role="gore"),
        Edge("hem", (hem,), (), "hem"),
        Edge("right", (Path.through(right, tip),), role="gore"),
    )
    grain = Point(0.0, high * 0.35), Point(0.0, high * 0.85)
    return Piece(name, title, edges, grain=grain, cloths=(Cloth("cloth", str(number)),))


def times(piece: Piece) -> int:
    return int(piece.cloths[0].cut)


def gores_for(sheet: Sheet, levels: Levels, sweep: float, side: Path) -> tuple[dict[str, float], list[Piece]]:
    """From which level a gore is set into which edge, and the gore itself; nothing when the sweep is reached without."""
    wanted = sheet.length("sweep").value
    if wanted <= sweep + 0.05:  # as the figures are said
        if wanted:
            sheet.note(say("The panels sweep {0} already, no less than the {1u} wanted: no gores.", sweep, wanted))
        return {}, []
    places = {"sides": ("side",), "centres": ("centre_front", "centre_back"),
        "all": ("side", "centre_front", "centre_back")}[sheet.choice("gores")]  # fmt: skip
    count = (2 if "side" in places else 0) + (2 if "centre_front" in places else 0)
    each = (wanted - sweep) / count
    if each < LEAST_GORE:
        words = "The panels sweep {0}, the wanted {1u} would take gores of {2u} at the hem, too narrow to sew: none are set in."
        sheet.note(say(words, sweep, wanted, each))
        return {}, []
    start = levels.hip if sheet.choice("gore_from") == "hip" else 0.5
    if start > levels.length * math.cos(levels.flare) - 10:
        raise CannotDraft(("waist_hip",), say("A skirt {0} long leaves no room for gores from {1u} below the waist: begin "
            "them at the waist.", levels.length, start))  # fmt: skip
    high = split_at(side, start)[1].length
    if each / high > WIDEST_GORE:
        raise CannotDraft(
            (),
            say(
                "Each gore would be {0} wide on a height of {1u}: set them into more seams, begin them higher, or take less "
                "sweep.",
                each,
                high,
            ),
        )
    sheet.note(say(f"{count} gores of {{0}} at the hem bring {{1}} to the wanted {{2u}}.", each, sweep, wanted))
    return dict.fromkeys(places, start), [gore("gore", "Gown gore", high, each, count)]
