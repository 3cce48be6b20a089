"""The parts of a one-piece suit: a bodice, or a jersey top shaped down to the waist, and trousers of the same wearer; its gusset."""

from __future__ import annotations

import math

from widehem.core.drafting.method import METHODS, Draft, Method, draft
from widehem.core.drafting.sheet import Sheet
from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.checks.body import asked_girths
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.piece import Piece
from widehem.core.setting.option import Value
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.values import replace

JERSEY = "top.jersey"
GUSSET_SIDE, GUSSET_WIDE = 9.0, 8.0  # cm


def parts_of(sheet: Sheet, today: int) -> tuple[Draft, Draft]:
    """Bodice and trousers, drafted with these settings."""
    chart = sheet.chart
    with sheet.step("Bodice and trousers", "Both are drafted first, for the same wearer and with the same ease at the waist."):
        by = sheet.rules if sheet.rules < today else None  # the parts by the rules of their time
        upper: dict[str, Value] = {code: sheet.choice(code) for code in ("dart_place", "neck_shape")}
        worn: dict[str, Value] = {code: _value(sheet.options[code]) for code in ("cloth", "stretch")}
        upper |= worn
        method = METHODS[JERSEY if sheet.choice("bodice") == "jersey" else f"bodice.{sheet.choice('bodice')}"]
        if method.code == JERSEY:
            upper |= {"length": sheet.measure("nape_waist").value, "side": "straight"}
        known = {option.code for option in method.options}
        ease = _own_ease(sheet, method)
        bodice = draft(method, chart, {code: value for code, value in upper.items() if code in known}, ease, rules=by)
        if method.code == JERSEY:
            bodice = _to_the_waist(sheet, bodice)
        legs: dict[str, Value] = {code: sheet.choice(code) for code in ("leg", "legs", "seat", "crotch")}
        legs |= worn
        legs["panels"] = "quarters"  # the sides must meet those of the bodice
        length = sheet.options["length"]
        if not isinstance(length, Quantity | str):
            legs["length"] = length
        method = METHODS[f"trousers.{sheet.choice('trousers')}"]
        known = {option.code for option in method.options}
        eased = {code: sheet.ease(code).value for code in ("waist", "hip")}
        trousers = draft(method, chart, {code: value for code, value in legs.items() if code in known}, eased, rules=by)
        for made in (bodice, trousers):
            for asked in asked_girths(made.demands)[:2]:
                name = f"{made.method.name.lower()}, {asked.title.lower()}"
                sheet.sum(name, drawn(asked.body + (asked.planned or 0.0), name))
            for note in made.notes:
                sheet.note(note)
    return bodice, trousers


def _own_ease(sheet: Sheet, method: Method) -> dict[str, float]:
    """The ease of the suit where it is not what its bodice has by itself, cm."""
    found = {option.code: sheet.ease(option.code).value for option in method.ease if option.code in sheet.ease_plan}
    if sheet.rules < 4:
        return found
    usual = {option.code: option.default for option in method.ease}
    return {code: cm for code, cm in found.items() if sheet.set_by_hand(code) or cm != usual[code]}


def _value(setting: Quantity | Value) -> Value:
    return setting.value if isinstance(setting, Quantity) else setting


def _to_the_waist(sheet: Sheet, top: Draft) -> Draft:
    """A jersey top that ends at the waist and goes in there at its side, its hem a waist that can be joined."""
    wide = (sheet.measure("waist").value + sheet.ease("waist").value) / 4
    return replace(top, garment=replace(top.garment, pieces=tuple(_shaped(piece, wide) for piece in top.garment.pieces)))


def _shaped(piece: Piece, wide: float) -> Piece:
    side, hem = piece.edge("side"), piece.edge("hem")
    low = Point(min(wide, side.end.x), hem.end.y)
    path = Path((curve_between(low, Point(0.0, -1.0), side.end, Point(0.0, -1.0)),))
    made = {"hem": Edge("waist", (Path.through(hem.start, low),)), "side": replace(side, parts=(path,))}
    return replace(piece, edges=tuple(made.get(edge.name, edge) for edge in piece.edges))


def gusset() -> Piece:
    """A diamond under the arm: two of its sides into the side seam, two into the seam of the sleeve."""
    half = GUSSET_WIDE / 2
    high = math.sqrt(GUSSET_SIDE**2 - half**2)
    spots = Point(0.0, -high), Point(half, 0.0), Point(0.0, high), Point(-half, 0.0)
    names = ("sleeve_front", "side_front", "side_back", "sleeve_back")
    edges = tuple(
        Edge(f"gusset_{name}", (Path.through(one, two),), role="gore")
        for name, one, two in zip(names, spots, (*spots[1:], spots[0]), strict=True)
    )
    grain = Point(0.0, -high * 0.6), Point(0.0, high * 0.6)
    return Piece("gusset", "Underarm gusset", edges, of="gusset", grain=grain)
