"""How each step is done: how far in it is sewn, what is eased, which notches meet, what is clipped, how it is pressed."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from itertools import pairwise

from widehem.core.geometry.points import angle_between
from widehem.core.making.cloths import ClothKind, advice, stitch_long
from widehem.core.making.joins import Join, Sewn, lowered, small
from widehem.core.making.tasks import Kind, Task
from widehem.core.marking.told import hem_lies
from widehem.core.marking.wanted import Wanted
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Chain
from widehem.core.pattern.piece import Piece
from widehem.core.units import Saying, say
from widehem.core.values import kept, record

GATHERED, EASED = 0.1, 0.05  # of its length that is gathered rather than eased; cm that is worth telling
CURVED = 12.0  # degrees that an edge turns by one way, before its allowance is clipped or notched
BENT = 6  # how finely that is looked at
TRIMMED = 0.5  # cm that the allowance of a rim is trimmed to
Sayings = tuple[Saying, ...]


@record(frozen=True)
class How:
    """How the steps of a garment are done, at these allowances and in this cloth."""

    sewn: Sewn
    wanted: Wanted
    cloth: ClothKind

    @kept
    def _amounts(self) -> dict[str, dict[str, float]]:
        return {}

    def amount(self, piece: Piece, edge: str) -> float:
        """The allowance of an edge, cm."""
        if piece.name not in self._amounts:
            self._amounts[piece.name] = self.wanted.amounts(piece)
        return self._amounts[piece.name][edge]

    def join(self, join: Join, *, again: bool = False) -> Sayings:
        """How a line is sewn. again: in one with the line before, or at the same setting: what is the same is not said twice."""
        if join.way == "fell":
            words = "Lay its allowance in and fell it by hand over the seam, with small stitches that do not show outside."
            return () if again else (say(words),)
        found = [*self._at(join), *self._ease(join)]
        if notches := self._notches(join):
            found.append(say(f"Notches that meet: {', '.join(notches)}."))
        if join.shut > EASED:
            found.append(say("Leave {0u} open above for the closing.", join.shut))
        found += self._curves(join)
        if join.way == "rim":
            return (*found, *(() if again else self._turned()))
        return (*found, *self._pressed(join, again=again))

    def _turned(self) -> Sayings:
        words = "Right sides together, edge on edge; trim to {0u}, the inner layer a little more; turn and press."
        return say(words, TRIMMED), advice(self.cloth)["edge"]

    def _pressed(self, join: Join, *, again: bool) -> Sayings:
        if self.cloth.heat == "none":
            return () if again else (advice(self.cloth)["press"],)
        if join.layer:
            return (say("Press to one side."),)
        bands = [piece for name in join.pieces if small(piece := self.sewn.garment.piece(name))]
        if bands and len(bands) < len(join.pieces):
            return (say(f"Press towards the {lowered(bands[0].title)}."),)
        return () if again else (say("Press it open before anything crosses it."),)

    def _at(self, join: Join) -> Sayings:
        """How far in it is sewn, and what of that is there to let out."""
        rows: dict[tuple[float, float], dict[str, None]] = {}
        for entry in join.first:
            piece = self.sewn.garment.piece(entry.piece)
            spare = self.wanted.spare(piece, piece.edge(entry.edge))
            key = round(self.amount(piece, entry.edge), 3), round(spare, 3)
            rows.setdefault(key, {})[lowered(piece.title)] = None
        found = []
        for (amount, spare), titles in rows.items():
            where = f", {' and '.join(titles)}" if len(rows) > 1 else ""
            if not amount:
                found.append(say(f"No allowance{where}: edge on edge."))
            elif spare:
                found.append(say(f"Sew at {{0u}}{where}: {{1u}} of it is there to be let out.", amount, spare))
            else:
                found.append(say(f"Sew at {{0u}}{where}.", amount))
        return tuple(found)

    def _ease(self, join: Join) -> Sayings:
        if join.twin or abs(join.ease) < EASED:
            return ()
        longer, shorter = (join.first, join.second) if join.ease > 0 else (join.second, join.first)
        names = " and ".join(dict.fromkeys(lowered(self.sewn.title_of(entry.piece)) for entry in longer))
        less = self.sewn.garment.length_of(shorter)
        if self.cloth.stretch == "much" and any(small(self.sewn.garment.piece(entry.piece)) for entry in shorter):
            return (say("Stretch it on evenly, in quarters: {0u} onto {1u}.", less, less + abs(join.ease)),)
        if abs(join.ease) > GATHERED * less:
            return (say(f"Two gathering threads in the {names}: {{0u}} is drawn in to {{1u}}.", less + abs(join.ease), less),)
        return (say(f"Ease {{0u}} of the {names} in, that side against the feed.", abs(join.ease)),)

    def _notches(self, join: Join) -> list[str]:
        def named(chain: Chain) -> dict[str, None]:
            return dict.fromkeys(notch.name for entry in chain for notch in self.sewn.garment.edge(entry).notches)

        first = named(join.first)
        return list(first) if join.twin else [name for name in named(join.second) if name in first]

    def _curves(self, join: Join) -> Sayings:
        """Which side is clipped, which notched: by how its edge turns against the piece."""
        hollow, bulging = dict[str, None](), dict[str, None]()
        for ref in join.refs:
            piece = self.sewn.garment.piece(ref.piece)
            inwards, outwards = bends(piece, piece.edge(ref.edge))
            if inwards > CURVED:
                hollow[lowered(piece.title)] = None
            if outwards > CURVED:
                bulging[lowered(piece.title)] = None
        found = []
        if hollow:
            found.append(say(f"Clip where it is hollow: {', '.join(hollow)}."))
        if bulging:
            found.append(say(f"Notch where it is round: {', '.join(bulging)}."))
        return tuple(found)

    # ---- what is no line ----

    def task(self, task: Task) -> Sayings:
        """How something else is done."""
        return TOLD[task.kind](self, task) if task.kind in TOLD else ()


def bends(piece: Piece, edge: Edge) -> tuple[float, float]:
    """How far an edge turns inwards, and how far outwards, degrees."""
    found = [0.0, 0.0]
    for part in edge.parts:
        for segment in part.segments:
            ways = [segment.direction(n / BENT) for n in range(BENT + 1)]
            for a, b in pairwise(ways):
                found[(a.cross(b) > 0) == piece.clockwise] += angle_between(a, b)
    return found[0], found[1]


def _stay(how: How, task: Task) -> Sayings:
    words = "One row just inside the stitching line, stitches of {0m}, each half from the shoulder down."
    return (say(words, min(stitch_long(how.cloth), 0.2)),)


def _stiffen(how: How, task: Task) -> Sayings:
    return (say("Fuse it, or catch it by hand; cut it out of the allowance where it is thick."),)


def _darts(how: How, task: Task) -> Sayings:
    piece = how.sewn.garment.piece(task.pieces[0])
    found = []
    sewn_shut = [dart for dart in piece.darts if dart.sewn is None]
    for dart in piece.darts:
        if dart.sewn is None:
            found.append(say("{0u} wide at the edge, {1u} long.", dart.mouth, sum(dart.legs) / 2))
        else:
            found.append(say("A fold of {0u}, sewn {1u} down.", dart.mouth, dart.sewn))
    for diamond in piece.diamonds:
        found.append(say("Pointed at both ends: {0u} wide, {1u} long.", diamond.intake, diamond.top.to(diamond.bottom)))
    if sewn_shut or piece.diamonds:
        found.append(say("From the wide end to the point, the last stitches along the fold; knot the threads. Press upright ones towards "
                         "the centre, level ones down."))  # fmt: skip
    return tuple(found)


def _strip(how: How, task: Task) -> Sayings:
    return (say("Fold, sew, trim, turn, press; lay it aside with its label."),)


def _pocket(how: How, task: Task) -> Sayings:
    return (say("Lay the paper on the piece, mark its place through the holes, and compare left with right before it is sewn. "
                "Bar the ends: that is where it tears."),)  # fmt: skip


def _closing(how: How, task: Task) -> Sayings:
    found = [say("Tack it in, close it once and compare both sides: what crosses the opening must meet.")]
    if how.cloth.stretch == "much":
        found.insert(0, say("Stay the edges with tape first: the cloth gives, the closing does not."))
    return tuple(found)


def _fasten(how: How, task: Task) -> Sayings:
    return (say("Mark the places on the wearer, the first where it pulls most; then the rest, evenly."),)


def _band(how: How, task: Task) -> Sayings:
    return (say("Ends first, right sides together; turn, press, and lay the free edge just over the seam."),)


def _raw(how: How, task: Task) -> Sayings:
    words = "A bias strip, or turn the allowance in twice; a hollow edge is clipped first."
    return (say(words),)


def _hem(how: How, task: Task) -> Sayings:
    depths: dict[float, None] = {}
    lies: list[Saying] = []
    for ref in task.edges:
        piece = how.sewn.garment.piece(ref.piece)
        depth = how.amount(piece, ref.edge)
        depths[round(depth, 3)] = None
        found = hem_lies(piece, piece.edge(ref.edge), depth)
        lies += [found] if found is not None else []
    turned = [say("Turn up {0u}.", depth) for depth in depths if depth]
    return (*turned, *lies, say("Level it from the floor on the wearer first."))


TOLD: Mapping[Kind, Callable[[How, Task], Sayings]] = {
    "stay": _stay, "stiffen": _stiffen, "dart": _darts, "strip": _strip, "pocket": _pocket, "closing": _closing, "fasten": _fasten,
    "band": _band, "raw": _raw, "hem": _hem,
}  # fmt: skip


def parted(sewn: Sewn, join: Join, first: float, second: float) -> Saying:
    """What to make of it when two sides of a seam part at the table. first, second: as they lie there from corner to corner, cm.
    The draft knows how long each was: what has changed is the cloth, or the pencil."""
    paper = [sewn.garment.length_of(chain) for chain in (join.first, join.second)]
    more = [first - paper[0], second - paper[1]]
    titles = [
        " and ".join(dict.fromkeys(lowered(sewn.title_of(entry.piece)) for entry in chain))
        for chain in (join.first, join.second)
    ]
    if all(abs(value) <= AGREE for value in more):
        return say("Both are as long as on paper. The seam is true: look whether a notch was slid or a corner crossed.")
    worst = 0 if abs(more[0]) >= abs(more[1]) else 1
    if (
        all(abs(value) > AGREE for value in more)
        and math.copysign(1, more[0]) == math.copysign(1, more[1])
        and abs(more[0] - more[1]) <= AGREE
    ):
        return say(
            "Both are {0s} against paper and still agree: it is the scale or the tape. Measure the test square.", more[0]
        )
    found = [
        _off(sewn, join, side, titles[side], more[side], paper[side]) for side in (worst, 1 - worst) if abs(more[side]) > AGREE
    ]
    return found[0] if len(found) == 1 else found[0].followed(found[1])


def _off(sewn: Sewn, join: Join, side: int, title: str, more: float, paper: float) -> Saying:
    """What to make of one side that is not as long as on paper, cm."""
    lean = grain_off(sewn, (join.first, join.second)[side])
    why = f" It runs {lean:.0f}° off the grain there: that side gives." if lean > 12 else ""
    if more > 0:
        words = f"The {title} is {{0u}} longer than on paper, where it is {{1u}}.{why} The cloth has stretched: shrink it back with steam, or lay the paper on it and cut it again. Do not trim the other side."
    else:
        words = f"The {title} is {{0u}} shorter than on paper, where it is {{1u}}. The paper agrees, so it was cut short or has shrunk: lay the paper on it before anything else is cut."
    return say(words, abs(more), paper)


AGREE = 0.2  # cm by which a length at the table may be off


def grain_off(sewn: Sewn, chain: Chain) -> float:
    """How far a side of a seam runs off the grain of its piece, degrees, 0 to 45: across the grain is as firm as along it."""
    most = 0.0
    for entry in chain:
        piece = sewn.garment.piece(entry.piece)
        edge = piece.edge(entry.edge)
        middle = piece.edge(piece.middle) if piece.middle else None
        way = (piece.grain[1] - piece.grain[0]) if piece.grain else (middle.end - middle.start) if middle else None
        if way is None:
            continue
        angle = angle_between(way, edge.end - edge.start) % 90
        most = max(most, min(angle, 90 - angle))
    return most
