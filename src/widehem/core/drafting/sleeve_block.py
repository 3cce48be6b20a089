"""A sleeve with what holds it together and what it is held against."""

from __future__ import annotations

from widehem.core.drafting.cap import Armhole
from widehem.core.pattern.block import Block, CapFit, EdgeName, Level, PitchNotch, Seam
from widehem.core.pattern.piece import Piece

BICEP_LEAST = 3.0


def sleeve_block(
    piece: Piece, armhole: Armhole, arm: float, ease: float, hand: float | None, notch: float, share: float = 1.0
) -> Block:
    """A sleeve with one seam under the arm. arm: upper arm; ease: wanted in the cap; notch: where the shoulder meets the cap;
    share: of the ease of a high cap. cm."""
    along = piece.edge("cap").length
    width = piece.width_at(piece.levels["bicep"] + 0.001)
    return Block(
        (piece,),
        (
            Seam(
                "underarm", "Underarm seam", (EdgeName("sleeve", "underarm_back"),), (EdgeName("sleeve", "underarm_front"),),
                against=True,
            ),
        ),
        (Level("bicep", "Upper arm", arm, width - arm, BICEP_LEAST, 0.1, around=1),),
        pitch=(
            PitchNotch("sleeve", "cap", armhole.back / 3, "pitch, back", 2),
            PitchNotch("sleeve", "cap", along - armhole.front / 3, "pitch, front", 1),
            PitchNotch("sleeve", "cap", notch, "shoulder", 1),
        ),
        cap=CapFit(armhole.whole, ease, share),
        hand=hand,
    )  # fmt: skip
