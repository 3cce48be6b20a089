"""Alterations of a sleeve: cap, width, and how it hangs."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.altering.asked import lengths_anew
from widehem.core.altering.halves import Gathered, Half, by, changed, outline, told
from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import NoSolutionError, settle
from widehem.core.pattern.check import Demand
from widehem.core.pattern.checks.sleeve import CapFits
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Garment
from widehem.core.style.asks import more_at
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.units import say
from widehem.core.values import replace

NEAR = 1e-4


def _caps(garment: Garment) -> Iterator[tuple[Half, Edge]]:
    """Pieces that are a sleeve with its whole cap in one."""
    for piece in garment.shell:
        caps = piece.edges_of("cap")
        if len(caps) == 1:
            yield Half(piece), caps[0]


def _wanted(garment: Garment) -> list[tuple[Half, Edge]]:
    found = list(_caps(garment))
    if not found:
        raise CannotStyle(say("There is no sleeve with a cap in one piece here: alter the sleeve it was drawn from."))
    return found


def _low(edge: Edge) -> float:
    return max(edge.start.y, edge.end.y)


def _raised(garment: Garment, half: Half, edge: Edge, factor: float, wider: float = 0.0) -> Garment:
    """The cap with its heights times a factor, and so much wider at the underarm, cm."""
    gathered = Gathered(garment)
    low, middle = _low(edge), (edge.start.x + edge.end.x) / 2
    half_wide = abs(edge.start.x - edge.end.x) / 2
    ends = {edge.name, half.piece.beside(edge.name)[1].name}
    for target, at in outline(half):
        mine = (target.kind == "edge" and target.name == edge.name) or (target.kind == "corner" and target.name in ends)
        out = wider / 2 * (at.x - middle) / half_wide
        if mine:
            gathered.put(half, target, Point(out, (at.y - low) * (factor - 1.0)))
        elif target.kind == "corner" and at.y <= low + 1e-6:
            gathered.put(half, target, Point(out, 0.0))
        else:
            gathered.hold(half, target)
    return gathered.done()


@operation(
    "alter.cap", "alterations", "Cap height", "the cap is raised or lowered above the underarm line; the width stays",
    options=(by("Raised by", "less than nothing lowers it", 0.7, 4.0),),
)  # fmt: skip
def cap(job: Job) -> Change:
    """Heights in proportion; the cap is longer for it, and more is eased in."""
    up, garment, eased = job.length("by"), job.garment, 0.0
    for half, edge in _wanted(garment):
        high = _low(edge) - half.piece.bounds[1]
        made = _raised(garment, half, edge, 1.0 + up / high)
        eased += made.piece(half.piece.name).edge(edge.name).length - edge.length
        garment = made
    said = (
        told("The cap is", up, "higher", "lower"),
        told("It has", eased, "more to ease into the armhole", "less to ease into the armhole"),
    )
    return changed(job, garment, said=said, asks=lengths_anew(job.garment, garment), stale=("pitch",))


@operation(
    "alter.bicep", "alterations", "Sleeve width", "wider or narrower at the underarm; the cap keeps its length by its height",
    options=(by("Wider by", "at the underarm line; less than nothing is narrower", 2.0, 8.0),),
)  # fmt: skip
def bicep(job: Job) -> Change:
    """Width at the underarm; the height of the cap is solved, so that it stays as long."""
    wider, garment, higher = job.length("by"), job.garment, 0.0
    for half, edge in _wanted(garment):
        garment, up = _as_long(garment, half, edge, wider)
        higher += up
    said = (
        told("The sleeve is", wider, "wider at the underarm", "narrower at the underarm"),
        told("Its cap stays as long: it is", higher, "higher", "lower"),
    )
    return changed(job, garment, said=said, asks=more_at({"bicep": wider}), stale=("hem",))


def _as_long(garment: Garment, half: Half, edge: Edge, wider: float) -> tuple[Garment, float]:
    """A sleeve so much wider with its cap as long as it was, and how much higher that is, cm."""
    made = list[Garment]()

    def off(factor: float) -> float:
        made[:] = [_raised(garment, half, edge, factor, wider)]
        return made[0].piece(half.piece.name).edge(edge.name).length - edge.length

    high = _low(edge) - half.piece.bounds[1]
    try:
        up = (settle(off, 1.0, slope=high, near=NEAR) - 1.0) * high
    except NoSolutionError:
        raise CannotStyle(say("The cap cannot keep its length at that width: take less."), ("by",)) from None
    return made[0], up


@operation(
    "alter.turn", "alterations", "Sleeve turned", "the sleeve is set in turned forwards or back: its notches move along the cap",
    options=(by("Forwards by", "along the armhole; less than nothing is backwards", 0.7, 3.0),),
)  # fmt: skip
def turn(job: Job) -> Change:
    """All notches of the cap by as much the same way."""
    by_, garment = job.length("by"), job.garment
    for half, edge in _wanted(garment):
        front_last = edge.notches and min(edge.notches, key=lambda n: n.count).along > edge.length / 2
        way = -1.0 if front_last else 1.0  # turned forwards, what is matched lies further back on the cap
        moved = tuple(replace(n, along=min(max(n.along + way * by_, 0.0), edge.length)) for n in edge.notches)
        garment = garment.with_piece(half.piece.with_edge(replace(edge, notches=moved)))
    return Change(
        garment.pieces,
        said=(told("The sleeve hangs", by_, "further forwards", "further back"),),
        whole=garment,
        asks=_not_pitched,
    )


def _not_pitched(demands: tuple[Demand, ...]) -> tuple[Demand, ...]:
    """What is asked of a sleeve that hangs otherwise on purpose: its notches stand where it was turned to."""
    return tuple(replace(demand, pitch=None) if isinstance(demand, CapFits) else demand for demand in demands)
