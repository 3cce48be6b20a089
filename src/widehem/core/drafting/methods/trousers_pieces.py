"""The pieces of trousers, once both panels are laid out: drawn, named, and handed over."""

from __future__ import annotations

from widehem.core.drafting.belly import Lean
from widehem.core.drafting.finished import show_edges, show_lightly
from widehem.core.drafting.methods.trousers_legs import BELOW_FORK, hem_of
from widehem.core.drafting.methods.trousers_sewn import hand_over, stretched
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.table import Table, as_drawn, turned_over
from widehem.core.drafting.trousers import Panel, Rise, Top
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece
from widehem.core.setting.quantity import drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say

APART = 6.0
FRAME_AT = {"front": 2, "back": 4}  # the step at which a panel is framed; its waist follows
TITLES = {"side": "side seam", "crotch": "crotch seam"}
LETTERS = {"back": "LMN", "front": "PQR"}


def crotch_of(panel: Panel) -> Path:
    """The crotch seam of a panel; raises CannotDraft where there is none."""
    found = panel.crotch
    if found is None:
        raise CannotDraft(
            ("crotch_depth", "hip", "waist_hip"),
            say(f"The {panel.name} crotch curve cannot be drawn: its centre line, {{0u}} from the crease at the hip, does not meet the "
                f"fork, {{1u}} from it and {{2u}} below the waist. Read crotch depth, hip and waist to hip again.",
                panel.centre_hip.x, panel.fork.x, panel.fork.y),
        )  # fmt: skip
    return found


def _table(front: Panel, back: Panel) -> Table:
    """The back turned over at the left, the front beside it."""
    at = back.fork.x
    return Table({"back": turned_over(at), "front": as_drawn(at + _left(back) + APART + _left(front))})


def _left(panel: Panel) -> float:
    return -min(panel.side_hip.x, -panel.knee, -panel.hem)


def finish(sheet: Sheet, rise: Rise, front: tuple[Panel, Top], back: tuple[Panel, Top], waist: float, lean: Lean) -> None:
    table = _table(front[0], back[0])
    with sheet.step(
        "Back fork and waist",
        say(
            "The fork drops until the inseam is {0u} shorter than the front; the side point moves until both sides are equal.",
            stretched(rise),
        ),
    ):
        sheet.sum("fork dropped", drawn(back[0].fork.y - rise.crotch, "fork dropped"))
        sheet.sum("back inseam", drawn(back[0].inseam.length, "back inseam"))
        if back[1].shares.number:
            sheet.sum("darts take", drawn(back[1].shares.total, "darts take"))
        sheet.sum("waist, sewn", drawn(back[1].sewn, "back waist, sewn"))
        for panel, _ in (back, front):
            _guides(sheet, panel, table)
    pieces = []
    with sheet.step(
        "Crotch and legs",
        "Straight down the centre, then round to the fork, square to the inseam, so that both forks join without a peak.",
    ):
        for panel, top in (back, front):
            edges = (
                Edge("waist", top.waist.parts, top.waist.darts, "hem" if sheet.choice("waistline") == "elastic" else "seam"),
                Edge("side", (top.side,)),
                Edge(
                    "hem",
                    (hem_of(panel, top.side, level=sheet.rules > 2),),
                    (),
                    "seam" if sheet.choice("hem_end") == "band" else "hem",
                ),
                Edge("inseam", (panel.inseam.reverse(),)),
                Edge("crotch", (crotch_of(panel).reverse(),)),
            )
            levels = {"waist": 0.0, "hip": rise.hip, "thigh": rise.crotch + BELOW_FORK, "knee": rise.knee}
            if panel.wide or rise.cut is not None:
                del levels["knee"]
            if rise.cut is not None and rise.cut < levels["thigh"] + 1:
                del levels["thigh"]
            low = rise.cut if rise.cut is not None else rise.crotch + (rise.hem - rise.crotch) * 0.6
            grain = Point(0.0, rise.crotch * (0.4 if rise.cut else 0.6)), Point(0.0, low - (3.0 if rise.cut else 0.0))
            # the notches at the hip and between the legs are set by the front: the back's own levels lie elsewhere on its seams
            balance = tuple(BalanceLine.across(level, y, notched=level == "knee") for level, y in levels.items())
            own = Piece(panel.name, f"Trousers {panel.name}", edges, balance=balance, marks=_marks(panel), grain=grain)
            pieces.append(own)
            piece = table.laid(own)
            show_lightly(sheet, piece, ("waist", "side"), FRAME_AT[panel.name] + 1)
            show_edges(sheet, piece, [edge.name for edge in edges], TITLES, {"waist": LETTERS[panel.name]})
            sheet.sum(f"{panel.name} crotch", drawn(edges[4].length, f"{panel.name} crotch seam"))
        sheet.sum("crotch seam", drawn(sum(piece.edge("crotch").length for piece in pieces), "crotch seam"))
        for panel, _ in (back, front):
            sheet.rub_out(f"{panel.name}_centre_guide", f"{panel.name}_waist_guide", f"{panel.name}_frame")
    hand_over(sheet, pieces, table, front[0], waist, lean)
    if sheet.choice("waistline") == "elastic":
        sheet.note(
            say("The waist is as wide as the hip and drawn in by elastic: the amount of a hem is turned down for the casing.")
        )


def _guides(sheet: Sheet, panel: Panel, table: Table) -> None:
    """Crease, levels and named points of a panel."""
    rise, name = panel.rise, panel.name
    frame, top = FRAME_AT[name], FRAME_AT[name] + 1
    letters = dict(zip(("centre_top", "side_hip", "fork", "centre_hip"), "ACFH" if name == "back" else "BDGJ", strict=True))
    sheet.line(
        f"{name}_crease",
        "Crease line",
        table.path(name, Path.through(Point(0.0, 0.0), Point(0.0, rise.cut or rise.hem))),
        role="balance",
        piece=name,
        step=1,
    )
    for level, y in (
        ("hip", rise.hip),
        ("crotch", rise.crotch),
        *((("knee", rise.knee),) if not panel.wide and rise.cut is None else ()),
    ):
        left = panel.side_hip.x if level != "knee" else -panel.knee
        right = panel.centre_hip.x if level == "hip" else panel.fork.x if level == "crotch" else panel.knee
        sheet.line(
            f"{name}_{level}", f"{level.capitalize()} line", table.path(name, Path.through(Point(left, y), Point(right, y))),
            role="balance", kind="level", edge=level, piece=name, figure=drawn(right - left, f"{name} at the {level}"),
                step=frame,
        )  # fmt: skip
    sheet.line(
        f"{name}_centre_guide",
        f"Centre {name}",
        table.path(name, Path.through(panel.centre_top, panel.centre_hip)),
        piece=name,
        step=frame,
    )
    for what, title in (
        ("centre_top", f"Centre {name} at the waist"),
        ("side_hip", "Side at the hip"),
        ("fork", f"{name.capitalize()} fork"),
    ):
        sheet.point(
            f"{name}_{what}",
            title,
            table.spot(name, getattr(panel, what)),
            letters[what],
            piece=name,
            step=top if what == "centre_top" else frame,
        )


def _marks(panel: Panel) -> dict[str, Point]:
    """Places of the body on a panel."""
    found = {"crotch": panel.fork, "centre_hip": panel.centre_hip}
    if not panel.wide and panel.rise.cut is None:
        found["knee"] = Point(0.0, panel.rise.knee)
    return found
