"""Checks of darts: legs, width, place, and that no two cross."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

from widehem.core.geometry.points import meet
from widehem.core.pattern.check import ANY, LEGS_LOOK, Case, Check, checker
from widehem.core.pattern.edge import Dart
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import BACK, FRONT, plain
from widehem.core.units import say

INTAKE_MOST, BUST_INTAKE_MOST = 4.5, 8.0
INTAKE_LEAST = 1.0
MORE_IN_FRONT = 0.2  # cm the front darts of a waist may be larger than the back's


def _darts(case: Case) -> list[tuple[Piece, Dart]]:
    """The darts of the garment itself that are sewn to their points: a lining has the same ones, a facing none."""
    return [(piece, dart) for piece in case.garment.shell for dart in piece.darts if dart.sewn is None]


def _count(darts: list[tuple[Piece, Dart]]) -> str:
    return "the one dart" if len(darts) == 1 else f"widest of {len(darts)} darts"


@checker("darts.legs")
def legs(case: Case) -> Iterator[Check]:
    """Both legs of every dart are equally long."""
    darts = _darts(case)
    if not darts:
        return
    off = {id(dart): abs(dart.legs[0] - dart.legs[1]) for _, dart in darts}
    piece, dart = max(darts, key=lambda entry: off[id(entry[1])])
    worst = off[id(dart)]
    bad = [entry for entry in darts if off[id(entry[1])] > case.limits.legs + 1e-6] or darts
    words, tail = say(_count(darts)), say(f"Legs {{0}} and {{1}} in the {plain(piece.name)}.", *dart.legs)
    yield Check(
        "darts.legs", "shapes", "Dart legs", "length", worst, None, case.limits.legs, LEGS_LOOK - case.limits.legs, words, tail,
        tuple(f"{p.name}.{d.name}" for p, d in bad), "apart",
    )  # fmt: skip


@checker("darts.intake")
def intake(case: Case) -> Iterator[Check]:
    """No dart takes more at its mouth than can be pressed flat, and none is drawn that is not worth sewing."""
    darts = _darts(case)
    if not darts:
        return
    piece, widest = max(darts, key=lambda entry: entry[1].intake / intake_most(entry[1]))
    most = intake_most(widest)
    words = say(f"widest, {plain(piece.name)}")
    tail = say("The widest takes {0}, at most {1u}.", widest.intake, most)
    if widest.intake > most:
        tail += say("Share it between two darts, or give some of it to a seam.")
    bad = [(p, d) for p, d in darts if d.intake > intake_most(d) + 1e-6] or [(piece, widest)]
    yield Check(
        "darts.intake", "shapes", "Dart intake", "length", widest.intake, None, most, 0.5 if widest.apex is None else ANY,
            words, tail,
        tuple(f"{p.name}.{d.name}" for p, d in bad), "wide",
    )  # fmt: skip
    drawn = [entry for entry in darts if not _left_over(*entry)] or darts[:1]
    where, narrow = min(drawn, key=lambda entry: entry[1].intake)
    if _left_over(where, narrow):
        return
    if narrow.intake < INTAKE_LEAST - 1e-6:
        small = say("The narrowest takes {0}: under {1u} ease it in, or give it to the side.", narrow.intake, INTAKE_LEAST)
        yield Check(
            "darts.small", "shapes", "Narrow darts", "length", narrow.intake, INTAKE_LEAST, None, ANY,
                say(f"narrowest, {plain(where.name)}"),
            small, tuple(f"{p.name}.{d.name}" for p, d in drawn if d.intake < INTAKE_LEAST - 1e-6), "wide",
        )  # fmt: skip


def _left_over(piece: Piece, dart: Dart) -> bool:
    """Whether a dart is what a yoke left of one below it: it stays, however narrow."""
    return any(dart in edge.gaps for edge in piece.edges_of("cut"))


def intake_most(dart: Dart) -> float:
    """What a dart may take at its mouth, cm: a bust dart more than one that is pressed flat over a curve."""
    return BUST_INTAKE_MOST if dart.apex is not None else INTAKE_MOST


@checker("darts.apart")
def crossing(case: Case) -> Iterator[Check]:
    """Two darts of one piece do not cross, and no dart ends outside its piece, nor one inside it."""
    darts = _darts(case)
    inside = [(piece, diamond) for piece in case.garment.shell for diamond in piece.diamonds]
    if not darts and not inside:
        return
    crossed = [(piece, a, b) for piece in case.garment.shell for a, b in pairwise(piece.darts) if _crossed(a, b)]
    outside = [(piece, dart.name) for piece, dart in darts if not piece.encloses(dart.point)]
    outside += [(piece, d.name) for piece, d in inside if not all(map(piece.encloses, (d.top, d.bottom, d.inner, d.outer)))]
    if crossed:
        tail = say(f"Two darts of the {plain(crossed[0][0].name)} cross: make them shorter or set them further apart.")
    elif outside:
        tail = say(f"A dart of the {plain(outside[0][0].name)} ends outside its piece: make it shorter.")
    else:
        tail = say("None crosses another, and each ends inside its piece.")
    spots = [f"{piece.name}.{dart.name}" for piece, *both in crossed for dart in both] + [
        f"{p.name}.{name}" for p, name in outside
    ]
    yield Check(
        "darts.apart", "shapes", "Darts apart", "count", len(crossed) + len(outside), None, 0, 0.0,
            say("cross or end outside"), tail,
        tuple(spots) or (*(f"{p.name}.{d.name}" for p, d in darts), *(f"{p.name}.{d.name}" for p, d in inside)), "",
    )  # fmt: skip


def _crossed(a: Dart, b: Dart) -> bool:
    """Whether the facing legs of two neighbouring darts cross."""
    spot = meet(a.point, a.outer - a.point, b.point, b.inner - b.point)
    if spot is None:
        return False
    return all(
        0 < (spot - d.point).dot(end - d.point) < (end - d.point).dot(end - d.point) for d, end in ((a, a.outer), (b, b.inner))
    )


@checker("darts.waist")
def waist_darts(case: Case) -> Iterator[Check]:
    """The front waist darts together are not larger than the back's, unless the belly asks for it."""
    found = {FRONT: 0.0, BACK: 0.0}
    spots = []
    for part in found:
        for piece, edge in case.garment.edges_of("waist", part=part):
            found[part] += (
                piece.weight() / 2 * sum(dart.intake for dart in edge.darts if dart.apex is None and dart.sewn is None)
            )
            spots += [f"{piece.name}.{dart.name}" for dart in edge.darts]
    if not found[FRONT] or not found[BACK]:
        return
    over = found[FRONT] - found[BACK]
    words = say("{0} front, {1} back", found[FRONT], found[BACK])
    tail = (
        say("The back takes as much as the front, or more.")
        if over <= MORE_IN_FRONT
        else say("The front takes {0u} more than the back: right for a belly, else give some of it to the back.", over)
    )
    yield Check(
        "darts.waist", "shapes", "Waist darts, front and back", "signed", over, None, MORE_IN_FRONT, ANY, words,
            words.stopped + tail,
        tuple(spots), "more in front",
    )  # fmt: skip
