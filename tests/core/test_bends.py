"""Every method bent in every way: some named check goes untrue. And what says nothing about the garment changes no verdict."""

import unittest
from functools import cache

from fontTools.misc.transform import Transform

from tests.bends import bends, bent, worse
from tests.some import some
from tests.styling import any_method, do
from widehem.core.drafting.method import METHODS
from widehem.core.pattern.edge import PatternError
from widehem.core.pattern.truing import check_garment
from widehem.core.style.operation import CannotStyle
from widehem.core.style.where import Where

OVER, AWAY = Transform(-1, 0, 0, 1, 0, 0), Transform().translate(7, 30)

# What no check can know by nature: method, kind of bend, place, and the reason.
FREE = (
    ("bodice.", "corner", "front.neck/centre_front", "how deep a neckline is cut is free"),
    ("gown.", "corner", ".neck/centre_", "how deep a neckline is cut is free"),
    ("coat.", "", "pad.", "nothing is sewn to a pad"),
    ("coat.", "", "facing.inner", "how far a facing reaches is free"),
    ("coat.", "", "facing.facing_hem/inner", "how far a facing reaches is free"),
    ("coat.", "corner", "collar.collar_front/collar_outer", "the point of a collar is free"),
    ("suit.", "corner", "back.centre_back/crotch", "how hollow a centre back is drawn is free, as long as it runs on"),
)


@cache
def made(code, build):
    return any_method(code, build)


def is_free(code, kind, where):
    return any(code.startswith(method) and kind.startswith(bend) and place in where for method, bend, place, _ in FREE)


class First(unittest.TestCase):
    """Move a corner, an edge, a notch, kink or wave a line, scale an outline: it is noticed."""

    def bend(self, code, build):
        garment = made(code, build)
        before, missed, used = garment.checks, [], set()
        crooked = {
            spot
            for check in before
            if check.name.startswith("curves.smooth") and check.verdict == "not"
            for spot in check.spots
        }
        for kind, piece, place, change in bends(garment.garment):
            where = f"{piece}.{place}"
            if kind == "kink" and where in crooked:
                continue  # it is told already that this line has a corner
            try:
                wrong = bent(garment.garment, change())
            except PatternError:
                continue  # a piece that refuses to be built so
            if wrong is None or worse(before, check_garment(wrong, garment.demands, garment.wear)):
                continue
            if is_free(code, kind, where):
                used.add(where)
            else:
                missed.append((kind, where))
        self.assertEqual(missed, [], (code, build))
        return used

    def test_every_method_on_a_typical_body(self):
        used = {where for code in METHODS for where in self.bend(code, "typical")}
        for _, _, place, reason in FREE:
            self.assertTrue(any(place in where for where in used), f"not needed any more: {place}, {reason}")

    def test_every_method_on_a_child(self):
        for code in some(METHODS, 3):
            self.bend(code, "child")


def figures(garment, like):
    return {check.name: (check.verdict, round(check.figure, 4)) for check in check_garment(garment, like.demands, like.wear)}


class Second(unittest.TestCase):
    """What says nothing about the garment changes nothing that is said of it."""

    # new checks with these in their names are of a facing, a lining, of what lies in the garment: judged by themselves
    LAYERS = (".facing.", ".lining.", ".interfacing.", ".inside.")
    # a piece that was on the fold has no fold any more, no corner at its middle, and no edge there that has a length
    UNFOLDED = ("fold.straight", "corners.square", "length.collar")

    def same(self, found, before, msg, *, gone=()):
        for name, figure in before.items():
            if name in gone:
                continue
            if name == "curves.waves":  # opened out, an edge over the middle bends twice as often and may
                self.assertEqual(found[name][0], figure[0], msg)
                continue
            self.assertEqual(found.get(name), figure, (msg, name))
        for name, figure in found.items():
            if name not in before and not any(layer in name for layer in self.LAYERS):
                self.assertEqual(figure[0], "true", (msg, name))

    def test_lying_elsewhere_and_turned_over(self):
        for code in METHODS:
            like = made(code, "typical")
            before = figures(like.garment, like)
            for piece in like.garment.pieces:
                for by in (OVER, AWAY):
                    self.same(figures(like.garment.with_piece(piece.moved(by)), like), before, (code, piece.name))

    def test_the_order_of_pieces(self):
        from dataclasses import replace

        for code in METHODS:
            like = made(code, "typical")
            turned = replace(like.garment, pieces=tuple(reversed(like.garment.pieces)))
            found, before = figures(turned, like), figures(like.garment, like)
            self.assertEqual(found, before, code)

    def test_left_and_right(self):
        for build in ("typical", "full"):
            for code in METHODS:
                like = made(code, build)
                apart = do("sides.apart", like.garment).garment
                self.same(figures(apart, like), figures(like.garment, like), (code, build), gone=self.UNFOLDED)

    def test_a_lining_a_facing_a_pocket(self):
        for code in METHODS:
            like = made(code, "typical")
            before = figures(like.garment, like)
            for piece in like.garment.shell:
                longest = max(piece.edges, key=lambda edge: edge.length)
                tries = [
                    ("lining.copy", {}, {"piece": Where(piece.name, piece.edges[0].name)}),
                    ("pocket.patch", {"wide": 6.0, "high": 6.0, "inwards": 2.0}, {"beside": Where(piece.name, longest.name)}),
                    *(("facing.edge", {"wide": 3.0}, {"edge": Where(piece.name, edge.name)}) for edge in piece.edges),
                ]
                done = 0
                for operation, settings, wheres in tries:
                    try:
                        more = do(operation, like.garment, settings, wheres).garment
                    except CannotStyle as cannot:
                        self.assertIn("would fit", cannot.saying.text())
                        continue
                    done += 1
                    self.assertEqual(len(more.pieces), len(like.garment.pieces) + 1)
                    self.same(figures(more, like), before, (code, operation, wheres))
                self.assertGreaterEqual(done, 3, (code, piece.name))


if __name__ == "__main__":
    unittest.main()
