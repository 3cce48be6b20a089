"""How trousers are sewn and what they are held against: notches, seams, openings, demands."""

from __future__ import annotations

from collections.abc import Sequence

from widehem.core.drafting.belly import Lean, arc_demands
from widehem.core.drafting.bodice import front_to_back
from widehem.core.drafting.finished import show_edges
from widehem.core.drafting.methods.trousers_legs import GATHERED, LEG_ROOM, OPENED, UNDERLAP, leg_at, leg_band
from widehem.core.drafting.methods.trousers_options import FOOT
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.table import Table, as_drawn
from widehem.core.drafting.trousers import Panel, Rise
from widehem.core.pattern.check import Demand
from widehem.core.pattern.checks.body import BodyPasses, Girth
from widehem.core.pattern.checks.held import NotchAt, OnTheBody
from widehem.core.pattern.checks.lower import CrotchSeam, KneeBends
from widehem.core.pattern.checks.through import FootPasses
from widehem.core.pattern.edge import Notch
from widehem.core.pattern.garment import EdgeRef, Opening, Seam, SeamEdge
from widehem.core.pattern.piece import Piece
from widehem.core.setting.quantity import Quantity
from widehem.core.units import say
from widehem.core.values import replace

BESIDE = 6.0  # cm on the sheet
GATHERS_NEAR, GATHERS_SHARE = 2.0, 0.05  # cm that gathers may be more or less than planned, and of a wide hem
INSEAM_SHORT = 0.5  # cm: the back is stretched onto the front
CROTCH_LEAST, CROTCH_MOST = 1.0, 3.0  # cm more than the crotch of the body
THIGH_LEAST, KNEE_LEAST, HIP_LEAST, WAIST_LEAST = 4.0, 6.0, 3.0, 1.5
SECOND_NOTCH = 1.0
ELASTIC_LESS = 5.0  # cm that an elastic is shorter than the waist


def stretched(rise: Rise) -> float:
    """How much shorter the back inseam is, cm; a leg that is cut off has no length to stretch it over."""
    return 0.0 if rise.cut is not None else INSEAM_SHORT


def crotch_wanted(sheet: Sheet) -> tuple[float, bool]:
    """The length of the crotch on the body, cm, and whether it was read."""
    read = sheet.chart.get("crotch_length")
    if read is not None:
        return read, True
    return 2 * sheet.measure("crotch_depth").value + 0.17 * sheet.measure("hip").value, False


def _notched(sheet: Sheet, pieces: list[Piece], rise: Rise, length: float) -> list[Piece]:
    """The pieces with their notches: along the crotch from the waist; along the side where the front has hip and fork. length:
    open, cm."""
    front = next(piece for piece in pieces if piece.name == "front").edge("side")
    up = {what: front.length - (front.at_level(y) or 0.0) for what, y in (("hip", rise.hip), ("crotch", rise.crotch))}
    opened = length and sheet.choice("opening_at") == "centre_front"
    if sheet.choice("hem_end") != "plain":
        up["hem opening"] = OPENED
    found = []
    for piece in pieces:
        behind = piece.name == "back"
        side, crotch = piece.edge("side"), piece.edge("crotch")
        along = crotch.length - sheet.measure("crotch_depth").value * 2 / 3
        below = [Notch("crotch", along - more) for more in (0.0, SECOND_NOTCH)[: 2 if behind else 1]]
        if opened and not behind:
            below.append(Notch("opening end", crotch.length - length))
        marked = replace(side, notches=tuple(Notch(what, side.length - by, 2 if behind else 1) for what, by in up.items()))
        found.append(piece.with_edge(marked).with_edge(replace(crotch, notches=tuple(below))))
    return found


def _places(sheet: Sheet, pieces: list[Piece], length: float) -> list[Demand]:
    """Where forks and notches of the crotch belong. length: open, cm."""
    found: list[Demand] = [OnTheBody(tuple((piece.name, "crotch", "crotch.start") for piece in pieces))]
    down = sheet.measure("crotch_depth").value * 2 / 3
    for piece in pieces:
        ref = EdgeRef(piece.name, "crotch")
        found += [
            NotchAt(ref, "crotch", 1, down + more, end="end")
            for more in (0.0, SECOND_NOTCH)[: 2 if piece.name == "back" else 1]
        ]
    if length and sheet.choice("opening_at") == "centre_front":
        found.append(NotchAt(EdgeRef("front", "crotch"), "opening end", 1, length, end="end"))
    return found


def _girths(sheet: Sheet, pieces: list[Piece], sewn: float | None) -> list[Girth]:
    waist, hip = sheet.measure("waist").value, sheet.measure("hip").value
    found = [
        Girth(
            "waist",
            "Waist",
            waist,
            None if sewn is None else sewn - waist,
            WAIST_LEAST,
            0.3,
            "waist",
            wish=sheet.ease("waist").value,
            because="darts and seams take no more out of the hip",
        ),
        Girth("hip", "Hip", hip, sheet.ease("hip").value, HIP_LEAST, 0.3),
    ]
    for name, least in (("thigh", THIGH_LEAST), ("knee", KNEE_LEAST)):
        measure = sheet.chart.get(name)
        if measure is not None and pieces[0].level(name) is not None:
            found.append(Girth(name, name.capitalize(), measure, None, least, 0.1, limb=True))
    return found


def _front_ease(sheet: Sheet, sewn: float) -> float:
    """The front's part of what the finished waist is over the body, cm: half of it, the band's ease with it."""
    return (sewn - sheet.measure("waist").value) / 2


def _bands(sheet: Sheet, front: Panel, pieces: Sequence[Piece]) -> tuple[list[Piece], list[Seam]]:
    """The band a leg is gathered into and the seam between them; nothing for a leg that is turned up."""
    if sheet.choice("hem_end") != "band":
        return [], []
    hem = sheet.length("hem_girth").value
    if front.rise.cut is not None:  # as wide as the leg is where it was cut off
        hem = sum(piece.edge("hem").length for piece in pieces)
    around = hem / GATHERED
    if front.rise.cut is None and not isinstance(
        sheet.options["hem_girth"], Quantity
    ):  # a hem that was set is gathered to the leg
        leg = leg_at(sheet, sheet.length("length").value, front.rise.knee)
        around = leg + LEG_ROOM if leg is not None else around
    over = hem - around - UNDERLAP
    hems = (SeamEdge("back", "hem"), SeamEdge("front", "hem", back=True))
    near = max(GATHERS_NEAR, GATHERS_SHARE * hem)
    seam = Seam("leg_band", "Band on the leg", hems, (SeamEdge("leg_band", "band_top"),), (over - near, over + near))
    return [leg_band(sheet, around)], [seam]


def hand_over(sheet: Sheet, pieces: list[Piece], table: Table, front: Panel, sewn: float, lean: Lean) -> None:
    """Both pieces with what holds them together and what they are held against. sewn: what the waist should come to, cm."""
    body, read = crotch_wanted(sheet)
    ankle, knee = sheet.chart.get("ankle"), sheet.chart.get("knee")
    at, elastic = sheet.choice("opening_at"), sheet.choice("waistline") == "elastic"
    length = 0.0 if elastic or at == "none" else sheet.length("opening").value
    pieces = _notched(sheet, pieces, front.rise, length)
    less = -stretched(front.rise)
    end = sheet.choice("hem_end")
    foot = 0.0 if front.rise.cut is not None or end != "plain" else (ankle or 0.0) * FOOT
    bands, banded = _bands(sheet, front, pieces)
    if bands:
        right = max(table.laid(piece).bounds[2] for piece in pieces)
        table = table.with_piece(bands[0].name, as_drawn(-right - BESIDE, 0.0))
        show_edges(sheet, table.laid(bands[0]), [edge.name for edge in bands[0].edges], {})
        pieces += bands
    sheet.hand_over(
        pieces,
        table,
        seams=(
            front_to_back("side", "Side seam"),
            front_to_back("inseam", "Inseam", less),
            *(Seam.to_its_mirror(f"crotch_{name}", f"Crotch, {name}", (name, "crotch")) for name in ("back", "front")),
            *banded,
        ),
        openings=Opening.named("none" if elastic else at, length),
        demands=(
            *_girths(sheet, pieces[:2], None if elastic else sewn),
            BodyPasses("hip", sheet.measure("hip").value),
            *arc_demands(sheet, "front", lean, None if elastic else _front_ease(sheet, sewn), sheet.ease("hip").value / 2),
            *_places(sheet, pieces[:2], length),
            CrotchSeam(body + CROTCH_LEAST, body + CROTCH_MOST, read),
            KneeBends(knee) if knee is not None else None,
            FootPasses(foot) if foot else None,
        ),
        notions=(say("Elastic for the waist, about {0u}", sheet.measure("waist").value - ELASTIC_LESS),) if elastic else (),
    )
