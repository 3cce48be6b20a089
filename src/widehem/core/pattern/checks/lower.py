"""Checks of trousers: crotch seam, balance on the crease, notches along the side, waist at the centre, the foot."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.geometry.points import angle_between
from widehem.core.pattern.block import Block
from widehem.core.pattern.check import CORNER_LOOK, CORNER_TRUE, FINE, Check, Verdict, checker, verdict_on
from widehem.core.units import say

CROTCH_TRUE, CROTCH_LOOK = 0.1, 1.5  # cm outside the wanted range
FRONT_BALANCE, BACK_BALANCE = 0.8, 4.0
NOTCH_TRUE = 0.4
BENT_KNEE = 6.0  # cm


@checker
def crotch_seam(block: Block) -> Iterator[Check]:
    """The crotch seam is a little longer than the body between the legs."""
    if block.fork is None:
        return
    fork = block.fork
    length = sum(piece.edge("crotch").length for piece in block.pieces)
    spare = length - fork.least
    off = max(fork.least - length, length - fork.most, 0.0)
    verdict: Verdict = "true" if off <= CROTCH_TRUE else "look" if off <= CROTCH_LOOK or not fork.read else "not"
    words = say("{0}, wanted {1} to {2}", length, fork.least, fork.most)
    if verdict == "true":
        tail = say("To sit and bend in.")
    elif fork.read:
        way = "short" if length < fork.least else "too long"
        tail = say(
            f"The crotch seam is {{0u}} {way}: read crotch depth and crotch length again, or make it by the measure.", off
        )
    else:
        tail = say("The crotch length was not read, only worked out: measure it before cloth is cut.")
    yield Check(
        "crotch.seam", "movement", "Crotch seam", verdict, "signed", spare, 0.0, words, words.stopped + tail,
        tuple(f"{piece.name}.crotch" for piece in block.pieces), "over the least",
    )  # fmt: skip


@checker
def crease_balance(block: Block) -> Iterator[Check]:
    """The crease lies in the middle between side and fork; the back may lie towards the fork."""
    if block.fork is None:
        return
    front, back = block.fork.front, block.fork.back
    true = abs(front) <= FRONT_BALANCE + FINE and -FRONT_BALANCE - FINE <= back <= BACK_BALANCE + FINE
    tail = say("Balanced.") if true else say("The leg would twist: read hip and crotch depth again.")
    words = say("middle off the crease: front {0s}, back {1s}", front, back)
    yield Check(
        "crease.balance", "shapes", "Crease balance", "true" if true else "look", "signed", max(front, back, key=abs), 0.0, words, words.stopped + tail,
        ("front.crotch", "back.crotch"), "off the middle",
    )  # fmt: skip


@checker
def side_notches(block: Block) -> Iterator[Check]:
    """Hip notches of both side seams meet when it is walked from the hem."""
    if block.fork is None:
        return
    sides = [(piece, piece.edge("side")) for piece in block.pieces]
    found = [edge.at_level(piece.levels["hip"]) for piece, edge in sides]
    if any(along is None for along in found):
        return
    up = [
        along or 0.0 if edge.start.y > edge.end.y else edge.length - (along or 0.0)
        for (_, edge), along in zip(sides, found, strict=True)
    ]
    apart = abs(up[0] - up[1])
    verdict: Verdict = "true" if apart <= NOTCH_TRUE + FINE else "look"
    words = say("hip notches at {0} and {1} from the hem", *up)
    tail = (
        say("They meet.") if verdict == "true" else say("They part by {0u}: the notch of the back is set by the front.", apart)
    )
    yield Check(
        "side.notches", "seams", "Hip notches", verdict, "length", apart, NOTCH_TRUE, words, words.stopped + tail,
        tuple(f"{piece.name}.side" for piece, _ in sides), "apart",
    )  # fmt: skip


@checker
def square_rise(block: Block) -> Iterator[Check]:
    """The waist leaves the centre seam at a right angle, or it would peak or dip there."""
    if block.fork is None or not any(edge.name == "waist" for piece in block.pieces for edge in piece.edges):
        return
    worst, where = 0.0, ""
    for piece in block.pieces:
        off = abs(angle_between(piece.edge("crotch").parts[-1].arriving, piece.edge("waist").parts[0].leaving) - 90)
        if off >= worst:
            worst, where = off, piece.name
    verdict = verdict_on(worst, CORNER_TRUE, CORNER_LOOK)
    tail = (
        say("Square at both centres.")
        if verdict == "true"
        else say(f"The {where} waist is not square to its centre seam: true it joined.")
    )
    yield Check(
        "rise.square", "shapes", "Waist at the centre seam", verdict, "angle", worst, CORNER_TRUE, say("front and back"), tail,
        tuple(f"{piece.name}.waist" for piece in block.pieces), "off",
    )  # fmt: skip


@checker
def knees(block: Block) -> Iterator[Check]:
    """A bent knee has room: to stride, to climb, to sit."""
    if block.fork is None or block.fork.knee is None:
        return
    girths = [piece.width_at(piece.levels["knee"]) for piece in block.pieces if "knee" in piece.levels]
    if not girths:
        return
    girth = sum(girths)
    spare = girth - block.fork.knee - BENT_KNEE
    verdict = verdict_on(-spare, 0.0, BENT_KNEE)
    words = say("{0} on knee {1}", girth, block.fork.knee)
    tail = (
        say("A bent knee has room.")
        if verdict == "true"
        else say("A bent knee wants {0u} more than a straight one: give more knee girth, or a wide leg.", BENT_KNEE)
    )
    yield Check(
        "stride.knee", "movement", "Stride and climb", verdict, "signed", spare, 0.0, words, words.stopped + tail,
        ("@knee",), "spare",
    )  # fmt: skip


@checker
def foot(block: Block) -> Iterator[Check]:
    """The foot passes the hem."""
    if block.fork is None or not block.fork.foot:
        return
    girth = sum(piece.edge("hem").length for piece in block.pieces)
    spare = girth - block.fork.foot
    verdict: Verdict = "true" if spare >= -FINE else "look"
    words = say("{0} on foot {1}", girth, block.fork.foot)
    tail = (
        say("The foot passes.")
        if verdict == "true"
        else say("The foot does not pass: widen the hem, or leave an opening of {0u} in the side.", 10.0)
    )
    yield Check(
        "foot.passes", "movement", "Foot through the hem", verdict, "signed", spare, 0.0, words, words.stopped + tail,
        tuple(f"{piece.name}.hem" for piece in block.pieces), "spare",
    )  # fmt: skip
