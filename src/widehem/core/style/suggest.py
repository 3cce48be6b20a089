"""What can be done at a place of a garment: the operations that apply there, with the places each asks for found nearby."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import field
from typing import Literal

from widehem.core.pattern.edge import Dart, Edge
from widehem.core.pattern.garment import EdgeRef, Garment, SeamEdge
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import centre, plain
from widehem.core.setting.option import Value
from widehem.core.style.operation import OPERATIONS, Operation
from widehem.core.style.where import Where
from widehem.core.values import record

Wheres = Mapping[str, Where]
MIDDLE = ("centre_front", "centre_back")
TOPS = ("shoulder", "armhole", "neck")
BOTTOMS = ("waist", "hem", "cut", "waist_seam")
HEMS = ("hem", "wrist")


@record(frozen=True)
class Pointed:
    """What was pointed at: an edge of a piece, so far along it, or one of its darts; or, inside the piece, a level or a landmark."""

    piece: str
    edge: str
    along: float = 0.0
    dart: str = ""
    inside: str = ""


@record(frozen=True)
class Offer:
    """An operation that can be done at a place, with its places found. open: those it asks for that the maker still has to name;
    settings: what the place already says."""

    operation: Operation
    wheres: Wheres
    open: tuple[str, ...] = ()
    settings: Mapping[str, Value] = field(default_factory=dict)


def where_at(garment: Garment, at: Pointed) -> Where:
    """A place said in the names of the draft, as far as the edge comes from it, so that it is found again on any body."""
    edge = garment.piece(at.piece).edge(at.edge)
    ref, before, whole, back = drafted_edge(garment, SeamEdge(at.piece, at.edge))
    if at.dart:
        return Where(ref.piece, ref.edge, "dart", at.dart)
    here = edge.length - at.along if back else at.along
    share = (before + here) / whole if whole else 0.0
    return Where(ref.piece, ref.edge, "part", round(min(max(share, 0.0), 1.0), 4))


def drafted_edge(garment: Garment, entry: SeamEdge) -> tuple[EdgeRef, float, float, bool]:
    """The edge of the draft an edge is a part of, how much of that lies before it, its whole length, whether it runs the other way."""
    for ref, chain in garment.now.items():
        before = 0.0
        for part in chain:
            if part.ref == entry.ref:
                return ref, before, garment.length_of(chain), part.back
            before += garment.edge(part).length
    return entry.ref, 0.0, garment.edge(entry).length, False


def offers(garment: Garment, at: Pointed) -> list[Offer]:
    """The operations that apply at a place, those that need no further place first."""
    found = []
    for code, entry in OPERATIONS.items():
        wheres = _found(garment, at, code, entry)
        if wheres is not None:
            missing = tuple(name for name in entry.wheres if name not in wheres and name not in entry.spare)
            found.append(Offer(entry, wheres, missing))
    return found


def everywhere() -> list[Offer]:
    """The operations that ask for no place: they are done to the whole garment."""
    return [
        Offer(entry, {})
        for entry in OPERATIONS.values()
        if not set(entry.wheres) - set(entry.spare) and entry.phase not in ("true", "block")
    ]


Guess = Callable[[Garment, Piece, Edge, Pointed], "Wheres | None"]
GUESSES: dict[str, Guess] = {}
ROLES: dict[str, tuple[str, ...]] = {  # of the edges at which an operation with one place is offered; () is any
    "dart.release": (), "dart.slide": (), "closing.stand": MIDDLE, "closing.overlap": MIDDLE, "seam.centre": MIDDLE,
    "hem.raise": HEMS, "hem.shape": HEMS, "band.waist": ("waist", "cut", "hem", "wrist"), "band.casing": ("waist", *HEMS),
    "collar.band": ("neck",), "collar.shirt": ("neck",), "collar.flat": ("neck",), "collar.shawl": ("neck",), "collar.hood": ("neck",),
    "collar.under": ("collar", "neck_seam"), "skirt.circle": ("waist",), "skirt.peplum": ("waist",), "skirt.join": ("waist",),
    "yoke.cut": ("waist",), "strip.along": ("neck", "armhole", *HEMS, "waist"), "facing.edge": ("neck", "armhole", *HEMS, "waist", "front_edge", *MIDDLE),
    "facing.split": ("front_edge", *MIDDLE), "lining.copy": (), "inside.upper": ("neck", "shoulder", "waist"), "pocket.patch": ("side", "waist", "cut"),
    "pocket.welt": ("side", "waist", "front_edge"), "pocket.seam": ("side", "panel"), "pocket.slant": ("side",),
    "seam.forward": ("shoulder",), "line.join": ("side", "panel", "cut", "shoulder"), "seam.open": ("side", "panel", *MIDDLE),
    "flare.seam": ("side", "panel", "inseam", "gore"), "grain.turn": (), "sleeve.flutter": ("armhole",),
    "sleeve.puff": ("cap",), "sleeve.full": ("wrist", "underarm", "cap"), "sleeve.cuff": ("wrist",), "sleeve.two": ("cap", "underarm"),
    "sleeve.raglan": ("cap", "underarm"),
}  # fmt: skip
OF_DARTS = ("dart.release", "dart.slide", "dart.swing", "dart.divide")
AT_ROLE: dict[str, tuple[str, ...]] = {  # operations without a place that are offered where they will be seen
    "neck.shape": ("neck",), "stand.grown": ("neck",), "ease.outer": ("armhole", "side"), "sleeve.set_in": ("armhole",),
    "sleeve.kimono": ("armhole", "shoulder"), "length.run_on": ("waist",), "cloak.drape": ("shoulder",), "closing.set": (*MIDDLE, "side"),
    "closing.fly": ("crotch",), "band.loops": ("waist",), "bones.set": ("panel",), "trousers.join": ("waist",), "waist.seam": ("waist",),
}  # fmt: skip


def guess(code: str) -> Callable[[Guess], Guess]:
    """How the places of an operation with more than one are found from one that was pointed at."""

    def register(function: Guess) -> Guess:
        GUESSES[code] = function
        return function

    return register


def _found(garment: Garment, at: Pointed, code: str, entry: Operation) -> Wheres | None:
    piece = garment.piece(at.piece)
    edge = piece.edge(at.edge)
    if bool(at.dart) != (code in OF_DARTS) and not (at.dart and code == "panel.line"):
        return None
    if code in GUESSES:
        return GUESSES[code](garment, piece, edge, at)
    if code in AT_ROLE:
        return {} if edge.role in AT_ROLE[code] else None
    if code in ROLES and (not ROLES[code] or edge.role in ROLES[code]):
        (name,) = entry.wheres
        return {name: where_at(garment, at)}
    return None


def _at(garment: Garment, piece: Piece, edge: Edge, share: float) -> Where:
    return where_at(garment, Pointed(piece.name, edge.name, edge.length * share))


def _facing(piece: Piece, edge: Edge, *roles: str) -> Iterator[Edge]:
    """Other edges of a piece of these roles, in their order of preference."""
    for role in roles:
        yield from (other for other in piece.edges if other.role == role and other.name != edge.name)


def side_of(piece: Piece) -> Edge | None:
    return next((edge for role in ("side", "underarm", "panel", "inseam") for edge in piece.edges_of(role)), None)


def dart_or_part(garment: Garment, piece: Piece, edge: Edge) -> Where:
    """The middle one of the darts of an edge; without one its middle."""
    darts = [dart for dart in edge.darts if dart.sewn is None]
    if not darts:
        return _at(garment, piece, edge, 0.45)
    named = where_at(garment, Pointed(piece.name, edge.name, 0.0, darts[0].name))
    return Where(named.piece, named.edge, "dart", darts[0].name, otherwise=_at(garment, piece, edge, 0.45))


@guess("dart.swing")
def _swing(garment: Garment, piece: Piece, edge: Edge, at: Pointed) -> Wheres | None:
    other = next(iter(_facing(piece, edge, "side", "armhole", "waist", "shoulder", "hem")), None)
    return None if other is None else {"dart": where_at(garment, at), "to": _at(garment, piece, other, 0.6)}


@guess("dart.divide")
def _divide(garment: Garment, piece: Piece, edge: Edge, at: Pointed) -> Wheres | None:
    others = list(_facing(piece, edge, "side", "armhole", "waist", "shoulder"))[:2]
    if len(others) < 2:
        return None
    return {
        "dart": where_at(garment, at),
        "first": _at(garment, piece, others[0], 0.6),
        "second": _at(garment, piece, others[1], 0.5),
    }


@guess("panel.line")
def _panel(garment: Garment, piece: Piece, edge: Edge, at: Pointed) -> Wheres | None:
    side = side_of(piece)
    if side is None or edge.role not in (*TOPS, *BOTTOMS) or not piece.middle:
        return None
    here = where_at(garment, at)
    above = edge.role in TOPS
    other = next(iter(_facing(piece, edge, *(BOTTOMS if above else TOPS))), None)
    if other is None:
        return None
    there = dart_or_part(garment, piece, other)
    return {"top": here if above else there, "bottom": there if above else here, "over": _at(garment, piece, side, 0.5)}


@guess("line.cut")
def _cut(garment: Garment, piece: Piece, edge: Edge, at: Pointed) -> Wheres | None:
    """Straight across the piece from the place that was pointed at."""
    place = edge.place(at.along)
    inside = -piece.outward(place.direction)
    found = []
    for other in piece.edges:
        gone = 0.0
        for part in other.parts:
            for index, t in part.crossings(place.point, inside):
                far = inside.dot(part.segments[index].at(t) - place.point)
                if far > 0.5 and other.name != edge.name:
                    found.append((far, other, gone + part.split(index, t)[0].length))
            gone += part.length
    if not found:
        return None
    _, other, along = min(found, key=lambda entry: entry[0])
    return {"start": where_at(garment, at), "end": where_at(garment, Pointed(piece.name, other.name, along))}


@guess("piece.crop")
def _crop(garment: Garment, piece: Piece, edge: Edge, at: Pointed) -> Wheres | None:
    across = _cut(garment, piece, edge, at)
    keep = next(iter(_facing(piece, edge, "neck", "shoulder", "waist")), None)
    return None if across is None or keep is None else {**across, "keep": _at(garment, piece, keep, 0.5)}


@guess("bust.fuller")
def _fuller(garment: Garment, piece: Piece, edge: Edge, at: Pointed) -> Wheres | None:
    holes, sides, waists = (piece.edges_of(role) for role in ("armhole", "side", "waist"))
    if "bust_point" not in piece.marks or not holes or not sides or not waists or edge.role not in ("side", "waist", "armhole"):
        return None
    if holes[0].notch("pitch") is None:
        return None
    hinge = where_at(garment, Pointed(piece.name, holes[0].name, 0.0))
    waist = where_at(garment, Pointed(piece.name, waists[0].name, 0.0))
    return {
        "waist": Where(waist.piece, waist.edge, "under", "bust_point"), "hinge": Where(hinge.piece, hinge.edge, "notch", "pitch"),
        "side": _at(garment, piece, sides[0], 0.7),
    }  # fmt: skip


@guess("flare.slash")
def _slash(garment: Garment, piece: Piece, edge: Edge, at: Pointed) -> Wheres | None:
    if edge.role not in HEMS or edge.gaps:
        return None
    hinge = next(iter(_facing(piece, edge, "waist", "waist_seam", "cut", "cap", "armhole", "neck")), None)
    return None if hinge is None else {"hem": where_at(garment, at), "hinge": _at(garment, piece, hinge, 0.5)}


def place_words(where: Where) -> str:
    """A place in a sentence: 'the bust dart of the front shoulder'."""
    edge = f"the {plain(where.piece)} {plain(where.edge)}"
    name = plain(str(where.place)) if isinstance(where.place, str) else ""
    words: dict[str, str] = {
        "dart": f"the {name} of {edge}", "notch": f"the {name} notch of {edge}", "level": f"{edge} at the {name} level",
        "under": f"{edge} under the {name}", "beside": f"{edge} beside the {name}", "meets": f"{edge} where the {name.split('.')[0]} ends",
    }  # fmt: skip
    if where.kind in words:
        return words[where.kind]
    return edge


Kind = Literal["level", "notch", "dart", "part"]


def places_on(garment: Garment, piece: Piece, edge: Edge) -> list[tuple[str, Where]]:
    """Places of an edge that have a name, with their words: darts, notches, levels, its ends and its middle."""
    ref, _, _, _ = drafted_edge(garment, SeamEdge(piece.name, edge.name))
    found: list[tuple[str, Where]] = []
    for gap in edge.gaps:
        if isinstance(gap, Dart) and gap.sewn is None:
            found.append(
                (
                    f"at the {plain(gap.name)}",
                    Where(ref.piece, ref.edge, "dart", gap.name, otherwise=_at(garment, piece, edge, 0.5)),
                )
            )
    found += [(f"at the {plain(n.name)} notch", Where(ref.piece, ref.edge, "notch", n.name)) for n in edge.notches]
    for line in piece.balance:
        if edge.at_line(*line.straight) is not None:
            found.append((f"at the {plain(line.level)} level", Where(ref.piece, ref.edge, "level", line.level)))
    for mark in piece.marks:
        if mark in ("bust_point", "blade") and not centre(edge.role):
            found.append((f"under the {plain(mark)}", Where(ref.piece, ref.edge, "under", mark)))
    for share, words in ((0.25, "a quarter along"), (0.5, "in its middle"), (0.75, "three quarters along")):
        found.append((words, _at(garment, piece, edge, share)))
    return found
