"""What is written on a piece: whose it is, what it is, how it is cut, what is allowed."""

from __future__ import annotations

from widehem.core.marking.plans import AllowancePlan
from widehem.core.marking.wanted import Wanted
from widehem.core.pattern.inside import OUTER, Cloth
from widehem.core.pattern.piece import Piece
from widehem.core.units import METRIC, Display
from widehem.core.values import record, replace


@record(frozen=True)
class Heading:
    """What stands on every label: made-up or real, as the maker wrote it."""

    production: str = ""
    costume: str = ""
    wearer: str = ""
    maker: str = ""
    date: str = ""
    version: str = ""
    cautions: tuple[str, ...] = ()
    accepted: tuple[str, ...] = ()
    house: tuple[str, ...] = ()


CUT_WORDS = {
    "fold": "1 on the fold", "pair": "2, a pair", "left": "1, for the left", "right": "1, for the right", "once": "1",
}  # fmt: skip
LAYER_CLOTH = {"lining": "lining", "interfacing": "interfacing"}
WHOLE = "1, drawn whole"


def cloths_of(piece: Piece, use: str) -> tuple[Cloth, ...]:
    """What is cut by a piece. use: what the outer cloth of this pattern is called."""
    if not piece.cloths:
        return (Cloth(LAYER_CLOTH.get(piece.layer, use), CUT_WORDS[piece.stands]),)
    return tuple(replace(cloth, cloth=use) if cloth.cloth == OUTER else cloth for cloth in piece.cloths)


def cut_words(piece: Piece) -> str:
    """How often it is cut from the outer cloth."""
    return cloths_of(piece, OUTER)[0].cut


@record(frozen=True)
class Labels:
    """The labels of a garment. number: which piece it is, of how many."""

    heading: Heading
    wanted: Wanted
    show: Display = METRIC
    number: int = 1
    whole: int = 1

    def of(self, piece: Piece) -> tuple[tuple[str, ...], tuple[str, ...]]:
        """All lines of the label of a piece, and those there must be where it is small."""
        head, plan = self.heading, self.wanted.plan_for(piece)
        title = f"{piece.title}, {self.number} of {self.whole}"
        cloths = cloths_of(piece, self.wanted.plan.use)
        cut = "; ".join(f"cut {self._how_often(piece, cloth)}, {cloth.cloth}" for cloth in cloths)
        lines = [title, cut]
        if head.costume:
            lines.append(head.costume)
        if head.wearer or head.production:
            lines.append(" · ".join(part for part in (head.wearer, head.production) if part))
        lines.append(self._allowance(piece, plan))
        tail = " · ".join(part for part in (head.maker, head.date, head.version) if part)
        if tail:
            lines.append(tail)
        first = cloths[0]
        return tuple(lines), (title, f"cut {self._how_often(piece, first)}, {first.cloth}")

    def _how_often(self, piece: Piece, cloth: Cloth) -> str:
        words = self.show.words(cloth.cut)
        return words.replace(CUT_WORDS["fold"], WHOLE) if self.wanted.whole else words

    def _allowance(self, piece: Piece, plan: AllowancePlan) -> str:
        show, amounts = self.show, self.wanted.amounts(piece)
        if not any(amounts.values()):
            return "no allowance"
        seams = {show.constant(amounts[e.name]) for e in piece.edges if e.kind in ("seam", "faced", "slit")}
        others = {f"{e.kind} {show.constant(amounts[e.name])}": None for e in piece.edges if e.kind in ("hem", "opening")}
        said = [*([f"seams {', '.join(sorted(seams))}"] if seams else []), *others]
        spare = {show.constant(self.wanted.spare(piece, e)) for e in piece.edges if self.wanted.spare(piece, e) > 0}
        if spare:
            said.append(f"of it {', '.join(sorted(spare))} to let out")
        return f"allowance in, {show.unit}: {'; '.join(said)}"
