"""Orders of work looked at without asking what made them: by the chains of the seams and the edges of the pieces alone."""

from __future__ import annotations

import random
import sys
from collections.abc import Iterator, Sequence
from dataclasses import replace

from tests.bodies import upper_chart
from widehem.core.design.make import make
from widehem.core.design.ships import shipped
from widehem.core.making.order import usual_order
from widehem.core.making.plan import Work, blocked, work_of
from widehem.core.pattern.garment import Garment
from widehem.core.setting.refusal import CannotDraft

LEFT_OPEN = 0.5  # cm of a seam under an opening that is no seam any more


class Together:
    """Which pieces hang together, a pair as one."""

    def __init__(self) -> None:
        self.of: dict[str, str] = {}

    def root(self, name: str) -> str:
        while self.of.get(name, name) != name:
            name = self.of[name]
        return name

    def join(self, *names: str) -> None:
        for name in names[1:]:
            self.of[self.root(name)] = self.root(names[0])


def faults(garment: Garment, work: Work, order: Sequence[str]) -> Iterator[str]:
    """What is wrong with an order: a side that is not one edge yet, a seam left out or sewn twice, an edge nobody works on, a dart
    sewn after its edge."""
    together, seen = Together(), set()
    for name in order:
        if name in seen:
            yield f"{name} twice"
        seen.add(name)
        join = work.join(name)
        if join is None:
            continue
        for chain in join.sides if join.way != "fell" else ():
            pieces = dict.fromkeys(entry.piece for entry in chain)
            if len({together.root(piece) for piece in pieces}) > 1:
                yield f"{name}: {' and '.join(pieces)} are not one yet"
        if join.way != "fell":
            together.join(*join.pieces)
        for ref in join.refs:
            late = [t for t in work.tasks if t.kind == "dart" and ref in t.edges and t.id not in seen]
            if late:
                yield f"{name} before {late[0].id}"
    for seam in garment.seams:
        whole = garment.length_of(seam.first)
        if seam.name not in seen and not (seam.twin and any(o.length > whole - LEFT_OPEN for o in garment.openings)):
            yield f"{seam.title} is left out"
    worked = {ref for join in work.sewn.joins for ref in join.refs} | {ref for task in work.tasks for ref in task.edges}
    for piece in garment.shell:
        if piece.balance:
            for edge in piece.edges:
                free = edge.kind in ("seam", "hem", "faced") and (piece.name, edge.name) not in worked
                if free and edge.role not in ("pocket",):
                    yield f"nobody works on {piece.name}.{edge.name}"
    found = blocked(work, order)
    if found is not None:
        yield f"{found.name} is blocked by {found.by}"


def random_garment(rng: random.Random) -> Garment:
    """One of the designs that ship, with some of its steps left out, on any body that it can be drawn for."""
    while True:
        try:
            return _drawn(rng)
        except CannotDraft:
            continue


def _drawn(rng: random.Random) -> Garment:
    named = rng.choice(list(shipped().values()))
    steps = tuple(replace(step, off=True) if rng.random() < 0.2 else step for step in named.design.steps)
    figure = rng.choice(["curved", "straight", "child"])
    child = figure == "child"
    bust = rng.uniform(58, 78) if child else rng.uniform(78, 138)
    known = {
        "height": rng.uniform(110, 145) if child else rng.uniform(150, 195), "bust": bust,
        "high_bust": bust - (rng.uniform(0, 10) if figure == "curved" else 0.0), "waist": bust * rng.uniform(0.65, 1.0),
        "hip": bust * rng.uniform(0.88, 1.18),
    }  # fmt: skip
    chart = upper_chart(figure, {code: round(value, 1) for code, value in known.items()})
    return make(replace(named.design, steps=steps), chart).garment


def sweep(count: int, seed: int = 1) -> list[str]:
    """What is wrong with the orders of so many random garments."""
    rng, found = random.Random(seed), []
    for _ in range(count):
        garment = random_garment(rng)
        work = work_of(garment)
        found += list(faults(garment, work, usual_order(work)))
    return found


if __name__ == "__main__":
    wrong = sweep(int(sys.argv[1]) if len(sys.argv) > 1 else 500)
    print("\n".join(wrong) or "every order can be sewn, nothing is left out")
    sys.exit(bool(wrong))
