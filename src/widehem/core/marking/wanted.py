"""What the maker wants on the pattern: a plan of allowances for each use, own figures and corners of single edges, notches set by
hand, which school of drill holes, pieces on the fold whole."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import field

from widehem.core.marking.allowance import RUNS_ON, Finish
from widehem.core.marking.plans import PLANS, AllowancePlan
from widehem.core.pattern.edge import Edge, Notch
from widehem.core.pattern.garment import Garment, SeamEdge
from widehem.core.pattern.piece import Piece
from widehem.core.style.notching import notched
from widehem.core.values import record, replace

CLOTH, LINING, INTERFACING = "cloth", "lining", "interfacing"
USES = {CLOTH: "Cloth", LINING: "Lining", INTERFACING: "Interfacing"}  # a plan for each
LAYER_USE = {"lining": LINING, "interfacing": INTERFACING}


@record(frozen=True)
class OwnNotch:
    """A notch set by hand: on which edge, how far along it as a share of its sewn length, and whether it is a double one."""

    piece: str
    edge: str
    share: float
    name: str = "own notch"
    count: int = 1


@record(frozen=True)
class Wanted:
    """plans: by use. edges: own allowances, cm, corners: own finishes of the corner at the end of an edge, both by 'piece.edge'.
    whole: pieces on the fold are shown whole. nap: the cloth is laid one way, its grain lines have one head. room: a
    toile with room to fit."""

    plans: Mapping[str, AllowancePlan] = field(default_factory=lambda: {CLOTH: PLANS["cloth"]})
    edges: Mapping[str, float] = field(default_factory=dict)
    corners: Mapping[str, Finish] = field(default_factory=dict)
    notches: tuple[OwnNotch, ...] = ()
    drill: str = ""
    whole: bool = False
    nap: bool = False
    room: bool = False

    @staticmethod
    def by(plan: AllowancePlan) -> Wanted:
        """By one plan, the lining and the interfacing by what goes with it."""
        return Wanted({CLOTH: plan})

    @property
    def plan(self) -> AllowancePlan:
        """That of the cloth."""
        return self.plans[CLOTH]

    def plan_for(self, piece: Piece) -> AllowancePlan:
        """By which a piece is marked: its lining by that of the cloth, but for its hems, where none is named."""
        return self.plan_of(LAYER_USE.get(piece.layer, CLOTH))

    def plan_of(self, use: str) -> AllowancePlan:
        """The plan of a use; where none is named the cloth's, with the hems of the usual plan of that use where it is a plan to sew
        by."""
        if use in self.plans:
            return self.plans[use]
        if self.plan.use not in ("cloth", "jersey"):
            return self.plan
        usual = PLANS[use]
        hems = {kind: min(usual.amounts[kind], self.plan.amounts[kind]) for kind in HEMS}
        return replace(usual, amounts={**self.plan.amounts, **hems})

    def amounts(self, piece: Piece) -> dict[str, float]:
        """Allowance by edge name, cm."""
        plan = self.plan_for(piece)
        found = {edge.name: self._amount(piece, edge, plan) for edge in piece.edges}
        for before, after in piece.corners():  # a slit is turned in along what it runs on from
            for slit, seam in ((before, after), (after, before)):
                own = f"{piece.name}.{slit.name}" in self.edges
                if slit.kind == "slit" != seam.kind and not own and before.arriving.dot(after.leaving) > RUNS_ON:
                    found[slit.name] = max(found[slit.name], found[seam.name])
        return found

    def _amount(self, piece: Piece, edge: Edge, plan: AllowancePlan) -> float:
        own = self.edges.get(f"{piece.name}.{edge.name}")
        return plan.amount(edge) if own is None or edge.kind == "fold" else own

    def spare(self, piece: Piece, edge: Edge) -> float:
        """What of the allowance is there to let out, cm; nothing where the edge has a figure of its own."""
        return 0.0 if f"{piece.name}.{edge.name}" in self.edges else self.plan_for(piece).spare(edge)

    def notched(self, garment: Garment) -> Garment:
        """The garment with the notches set by hand, each with its partner."""
        for number, notch in enumerate(self.notches, 1):
            if not garment.has(SeamEdge(notch.piece, notch.edge)):
                continue
            along = garment.piece(notch.piece).edge(notch.edge).length * notch.share
            name = f"{notch.name} {number}" if len(self.notches) > 1 else notch.name
            garment = notched(garment, SeamEdge(notch.piece, notch.edge), [Notch(name, along, notch.count)])
        return garment


HEMS = ("hem", "hem_flared", "hem_circle", "sleeve_hem")
