"""Checks of trousers: crotch seam, balance on the crease, notches along the side, waist at the centre, the foot."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.geometry.points import angle_between
from widehem.core.pattern.check import ANY, CORNER_LOOK, Case, Check, Demand, answers, checker
from widehem.core.pattern.checks.upper import spots_of
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import BACK, plain
from widehem.core.units import say
from widehem.core.values import record

CROTCH_TRUE, CROTCH_LOOK = 0.1, 1.5  # cm outside the wanted range
FRONT_BALANCE, BACK_BALANCE = 0.8, 4.0
NOTCH_TRUE = 0.4
BENT_KNEE = 6.0  # cm


@record(frozen=True)
class CrotchSeam(Demand):
    """The least and most the whole crotch seam should measure, cm. read: whether that was measured on the body."""

    least: float
    most: float
    read: bool


@answers(CrotchSeam)
def crotch_seam(case: Case, asked: CrotchSeam) -> Iterator[Check]:
    """The crotch seam is a little longer than the body between the legs."""
    chain = case.garment.one_side("crotch")
    length = case.garment.length_of(chain)
    off = max(asked.least - length, length - asked.most, 0.0)
    words = say("{0}, wanted {1} to {2}", length, asked.least, asked.most)
    if off <= CROTCH_TRUE + 1e-6:
        tail = say("To sit and bend in.")
    elif asked.read:
        way = "short" if length < asked.least else "too long"
        tail = say(
            f"The crotch seam is {{0u}} {way}: read crotch depth and crotch length again, or make it by the measure.", off
        )
    else:
        tail = say("The crotch length was not read, only worked out: measure it before cloth is cut.")
    yield Check(
        "crotch.seam", "movement", "Crotch seam", "length", length, asked.least - CROTCH_TRUE, asked.most + CROTCH_TRUE,
        CROTCH_LOOK - CROTCH_TRUE if asked.read else ANY, words, words.stopped + tail, spots_of(chain), "long",
    )  # fmt: skip


def _legs(case: Case) -> list[Piece]:
    """The pieces of one leg that run from the waist to between the legs."""
    return [piece for piece in case.garment.shell if piece.edges_of("crotch") and piece.stands != "right"]


@checker("crease.balance")
def crease_balance(case: Case) -> Iterator[Check]:
    """The crease lies in the middle between side and fork; the back may lie towards the fork."""
    for piece in _legs(case):
        off = off_crease(piece)
        if off is None:
            continue
        behind = piece.of == BACK
        low, high = -FRONT_BALANCE, BACK_BALANCE if behind else FRONT_BALANCE
        true = low - 1e-6 <= off <= high + 1e-6
        tail = say("Balanced.") if true else say("The leg would twist: read hip and crotch depth again.")
        words = say(f"{plain(piece.of)}, middle {{0s}} off the crease", off)
        spots = tuple(f"{piece.name}.{edge.name}" for edge in piece.edges_of("crotch"))
        yield Check(
            f"crease.{piece.of}", "shapes", f"Crease balance, {plain(piece.of)}", "signed", off, low, high, ANY, words,
            words.stopped + tail, spots, "off the middle",
        )  # fmt: skip


def off_crease(piece: Piece) -> float | None:
    """How far the middle between side and fork lies from the grain line of a leg, towards the fork, cm."""
    line, side = piece.level("hip"), piece.edges_of("side")
    crotch = piece.edges_of("crotch")
    if line is None or not side or not crotch or piece.grain is None:
        return None
    found = [edge.place(along).point for edge in side for along in (edge.at_line(*line.straight),) if along is not None]
    if not found:
        return None
    ends = [crotch[0].start, crotch[-1].end]
    before, after = piece.beside(crotch[0].name)[0], piece.beside(crotch[-1].name)[1]
    fork = ends[0] if before.role == "inseam" else ends[1] if after.role == "inseam" else None
    if fork is None:
        return None
    at, way = piece.grain[0], (piece.grain[1] - piece.grain[0]).unit()
    aside, inner = way.cross(found[0] - at), way.cross(fork - at)
    return (aside + inner) / 2 * (1.0 if inner > 0 else -1.0)


@checker("side.notches")
def side_notches(case: Case) -> Iterator[Check]:
    """Hip notches of both side seams meet when it is walked from the hem."""
    up, spots = [], []
    for piece in _legs(case):
        line = piece.level("hip")
        for edge in piece.edges_of("side"):
            along = edge.at_line(*line.straight) if line is not None else None
            if along is not None:
                after = piece.beside(edge.name)[1]
                up.append(edge.length - along if after.kind == "hem" else along)
                spots.append(f"{piece.name}.{edge.name}")
    if len(up) != 2:
        return
    apart = abs(up[0] - up[1])
    words = say("hip notches at {0} and {1} from the hem", *up)
    tail = (
        say("They meet.")
        if apart <= NOTCH_TRUE + 1e-6
        else say("They part by {0u}: the notch of the back is set by the front.", apart)
    )
    yield Check(
        "side.notches",
        "seams",
        "Hip notches",
        "length",
        apart,
        None,
        NOTCH_TRUE,
        ANY,
        words,
        words.stopped + tail,
        tuple(spots),
        "apart",
    )


@checker("rise.square")
def square_rise(case: Case) -> Iterator[Check]:
    """The waist leaves the centre seam at a right angle, or it would peak or dip there."""
    found = []
    for piece in _legs(case):
        for edge in piece.edges_of("crotch"):
            before, after = piece.beside(edge.name)
            for at, one, two in ((after, edge.arriving, after.leaving), (before, before.arriving, edge.leaving)):
                if at.role == "waist":
                    found.append((abs(angle_between(one, two) - 90), piece, at.name))
    if not found:
        return
    worst, piece, _ = max(found, key=lambda entry: entry[0])
    tail = (
        say("Square at both centres.")
        if worst <= case.limits.corner + 1e-6
        else say(f"The {plain(piece.name)} waist is not square to its centre seam: true it joined.")
    )
    bad = [entry for entry in found if entry[0] > case.limits.corner + 1e-6] or found
    yield Check(
        "rise.square", "shapes", "Waist at the centre seam", "angle", worst, None, case.limits.corner, CORNER_LOOK - case.limits.corner,
        say("front and back"), tail, tuple(f"{p.name}.{name}" for _, p, name in bad), "off",
    )  # fmt: skip


@record(frozen=True)
class KneeBends(Demand):
    """The girth of the knee, cm."""

    knee: float


@answers(KneeBends)
def knees(case: Case, asked: KneeBends) -> Iterator[Check]:
    """A bent knee has room: to stride, to climb, to sit."""
    girth = case.garment.girth("knee", limb=True)
    if not girth:
        return
    if case.wear.knit:
        girth *= 1 + case.wear.stretch / 100
    spare = girth - asked.knee - BENT_KNEE
    words = say("{0} stretched, on knee {1}" if case.wear.knit else "{0} on knee {1}", girth, asked.knee)
    tail = (
        say("A bent knee has room.")
        if spare >= -1e-6
        else say("A bent knee wants {0u} more than a straight one: give more knee girth, or a wide leg.", BENT_KNEE)
    )
    yield Check(
        "stride.knee",
        "movement",
        "Stride and climb",
        "signed",
        spare,
        0.0,
        None,
        BENT_KNEE,
        words,
        words.stopped + tail,
        ("@knee",),
        "spare",
    )
