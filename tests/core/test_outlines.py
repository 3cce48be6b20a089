"""Pieces that were drawn elsewhere: read from a file or traced, named, and then like any other."""

import contextlib
import random
import unittest
from dataclasses import replace
from functools import cache

from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import LineString, Polygon
from shapely import Point as Dot

from tests.bodies import upper_build
from tests.some import some, tries
from widehem.core.design.design import Design, Step, method_design
from widehem.core.design.files import DesignFileError, Named, design_as_json, read_design
from widehem.core.design.make import armhole_in, make
from widehem.core.design.ships import shipped
from widehem.core.drafting.method import METHODS
from widehem.core.drafting.outlined_data import Outlined, checked, edge_names, proposed, sizes_of
from widehem.core.drafting.outlined_edit import joined, pieces_of, proposed_seams, traced, with_corner, with_row
from widehem.core.drafting.outlines import (
    Outline,
    OutlineError,
    darts_of,
    outline_as_data,
    outline_from_data,
    without_allowance,
)
from widehem.core.geometry.fitted import fitted
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.marking.made import mark_up
from widehem.core.marking.plans import PLANS
from widehem.core.marking.wanted import Wanted
from widehem.core.output.dxf_in import read_dxf
from widehem.core.output.outlines_in import FileRefusedError
from widehem.core.output.svg_in import read_svg
from widehem.core.output.writers import WRITERS, Order
from widehem.core.setting.refusal import CannotDraft
from widehem.core.style.suggest import Pointed, offers

NEAR = 0.01  # cm: a tenth of a millimetre


@cache
def made_of(code):
    return make(shipped()[code].design, upper_build())


@cache
def read_back(code, kind):
    data = WRITERS[kind].write(Order(made_of(code)))
    return (read_svg if kind == "svg" else read_dxf)(data)


def outlined(outlines, **more):
    return checked({"outlines": [outline_as_data(o) for o in outlines], **proposed(outlines), **more})


def garment(data, **options):
    return make(Design("outline", 1, options, outlines=Outlined.of(data)), upper_build()).garment


def svg(inside, size="200mm", box="0 0 200 200"):
    return f'<svg xmlns="http://www.w3.org/2000/svg" width="{size}" height="{size}" viewBox="{box}">{inside}</svg>'.encode()


def square(x=0.0, side=100.0):
    return f'<path d="M{x} 0h{side}v{side}h-{side}z"/>'


def named(data, piece, roles, **more):
    """The pattern with the roles of the edges of a piece said, in their order."""
    row = next(entry for entry in data["pieces"] if entry["name"] == piece)
    edges = [{"role": role.partition(":")[0], "kind": role.partition(":")[2] or "seam"} for role in roles]
    return with_row(data, {**row, "edges": edges, **more})


class RoundTrip(unittest.TestCase):
    def test_our_own_drawings_give_the_same_pieces_within_a_tenth_of_a_millimetre(self):
        for code in ("waistcoat", "dress", "trousers"):
            for kind in ("svg", "dxf"):
                found = read_back(code, kind)
                self.assertEqual({o.name for o in found.outlines}, {p.name for p in made_of(code).garment.pieces})
                pieces, wrong = pieces_of(outlined(found.outlines), "")
                self.assertEqual(wrong, {})
                for name, piece in pieces.items():
                    old = made_of(code).garment.piece(name)
                    self.assertAlmostEqual(piece.area, old.area, delta=0.03, msg=(code, kind, name))
                    lengths = [sum(e.length for e in p.edges) for p in (piece, old)]
                    self.assertAlmostEqual(*lengths, delta=0.03, msg=(code, kind, name))
                    sketch = next(LineString(o.ring.flat(0.005)) for o in found.outlines if o.name == name)
                    drawn = Polygon(old.outline(0.005))
                    self.assertAlmostEqual(sketch.length, drawn.length, delta=0.03)

    def test_an_outline_lies_on_the_one_it_came_from(self):
        old = made_of("waistcoat").garment.piece("side_back")
        outline = next(o for o in read_back("waistcoat", "dxf").outlines if o.name == "side_back")
        left, top, *_ = outline.surface.bounds
        x, y, *_ = old.bounds
        for moved in (lambda p: (p.x - left + x, p.y - top + y),):
            ring = LineString([moved(p) for p in outline.ring.flat(0.005)])
            turned = LineString([(-a, -b) for a, b in ring.coords])
            turned_bounds = turned.bounds
            back = LineString([(a - turned_bounds[0] + x, b - turned_bounds[1] + y) for a, b in turned.coords])
            drawn = LineString([*old.outline(0.005), old.outline(0.005)[0]])
            self.assertLess(min(ring.hausdorff_distance(drawn), back.hausdorff_distance(drawn)), NEAR)

    def test_darts_notches_holes_and_grain_come_along(self):
        back = next(o for o in read_back("dress", "svg").outlines if o.name == "back")
        self.assertEqual(len(darts_of(back)), 1)
        pieces, _ = pieces_of(outlined(read_back("dress", "svg").outlines), "")
        dart, old = pieces["back"].darts[0], made_of("dress").garment.piece("back").darts[0]
        self.assertAlmostEqual(dart.mouth, old.mouth, delta=0.02)
        self.assertAlmostEqual(dart.point.to(dart.inner), old.legs[0], delta=0.02)
        front = next(o for o in read_back("waistcoat", "dxf").outlines if o.name == "front")
        self.assertEqual((len(front.holes), bool(front.grain)), (6, True))
        armhole = next(e for e in pieces["back"].edges if abs(e.length - 21.72) < 0.3)
        self.assertGreaterEqual(len(armhole.notches), 1)


class Reading(unittest.TestCase):
    def test_units_and_transforms(self):
        for data, side in (
            (svg(square()), 10.0), (svg(square(), size="20cm"), 10.0), (svg(square(side=96), size="200", box="0 0 200 200"), 2.54),
            (svg(f'<g transform="translate(5 5) scale(2) rotate(30)">{square(side=80)}</g>'), 16.0),
        ):  # fmt: skip
            try:
                found = read_svg(data)
            except FileRefusedError:
                self.assertLess(side, 3)
                continue
            self.assertAlmostEqual(found.outlines[0].length / 4, side, places=4)
        self.assertAlmostEqual(read_svg(svg(square()), per_unit=2.54).outlines[0].length / 4, 254.0, places=3)

    def test_open_lines_that_meet_are_one_piece_and_what_hangs_on_is_left(self):
        inside = (
            '<path d="M0 0h100"/><path d="M100 0v80"/><path d="M100 80h-100"/><path d="M0 80v-80"/><path d="M0 0l-20 -20"/>'
        )
        found = read_svg(svg(inside)).outlines
        self.assertEqual(len(found), 1)
        self.assertAlmostEqual(found[0].surface.area, 80, places=4)
        self.assertEqual(len(found[0].corners), 4)

    def test_a_test_square_is_no_piece_and_is_measured(self):
        found = read_svg(
            svg(f'{square(side=120)}<rect x="150" y="10" width="50.4" height="50.4"/>', size="400mm", box="0 0 400 400")
        )
        self.assertEqual((len(found.outlines), found.notes), (1, ("A test square in it measures 5.04 cm.",)))

    def test_a_nest_is_one_piece_in_several_sizes(self):
        inside = "".join(f'<path d="M{-n} {-n}h{100 + 2 * n}v{120 + 2 * n}h-{100 + 2 * n}z"/>' for n in (0, 4, 8))
        data = outlined(read_svg(svg(inside, box="-20 -20 200 200")).outlines)
        self.assertEqual((len(data["pieces"]), sizes_of(data)), (1, ["1", "2", "3"]))
        widths = [
            garment(data, size=float(n)).pieces[0].bounds[2] - garment(data, size=float(n)).pieces[0].bounds[0]
            for n in (1, 2, 3)
        ]
        for width, true in zip(widths, (10.0, 10.8, 11.6), strict=True):
            self.assertAlmostEqual(width, true, places=3)
        roles = [[edge.role for edge in garment(data, size=float(n)).pieces[0].edges] for n in (1, 2, 3)]
        self.assertEqual(roles[0], roles[2], "what was said of one size holds for all")

    def test_hostile_files_are_refused_in_one_sentence(self):
        bomb = b'<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><svg xmlns="http://www.w3.org/2000/svg">&b;</svg>'
        deep = b'<svg xmlns="http://www.w3.org/2000/svg">' + b"<g>" * 500 + b"</g>" * 500 + b"</svg>"
        cases = [
            (read_svg, bomb), (read_svg, deep), (read_svg, b"\x89PNG"), (read_svg, b""), (read_svg, b"<html></html>"), (read_svg, svg("")),
            (read_svg, svg('<path d="M0 0 nonsense"/>')), (read_svg, svg('<path d="M0 0h1e300v1e300z"/>')), (read_svg, b"x" * (9 * 1024 * 1024)),
            (read_svg, svg("".join('<path d="M0 0h1"/>' for _ in range(30_000)))), (read_dxf, b"\x00" * 4000), (read_dxf, b"0\nSECTION\n2\nENTITIES\n"),
            (read_dxf, b""), (read_dxf, WRITERS["json"].write(Order(made_of("tabard")))),
        ]  # fmt: skip
        for read, data in cases:
            with self.assertRaises(FileRefusedError) as caught:
                read(data)
            said = str(caught.exception)
            self.assertTrue(said.endswith(".") and "\n" not in said and len(said) < 240, said)

    def test_a_block_that_holds_itself_many_times_over_is_refused(self):
        import io

        import ezdxf

        drawing = ezdxf.new("R2000")
        for n in range(8):
            block = drawing.blocks.new(f"b{n}")
            if n:
                for _ in range(12):
                    block.add_blockref(f"b{n - 1}", (0, 0))
            else:
                block.add_lwpolyline([(0, 0), (100, 0), (100, 100), (0, 100)], close=True)
        drawing.modelspace().add_blockref("b7", (0, 0))
        out = io.StringIO()
        drawing.write(out)
        with self.assertRaises(FileRefusedError):
            read_dxf(out.getvalue().encode())

    @settings(max_examples=tries(25), deadline=None)
    @given(st.binary(max_size=400), st.integers(0, 3000))
    def test_no_garbage_breaks_a_reader(self, noise, at):
        whole = WRITERS["svg"].write(Order(made_of("tabard")))
        data = whole[:at] + noise + whole[at + len(noise) :]
        try:
            read_svg(data)
        except FileRefusedError as error:
            self.assertTrue(str(error).endswith("."))


class Allowances(unittest.TestCase):
    def test_the_allowance_it_came_with_is_taken_off_edge_by_edge(self):
        made = made_of("waistcoat")
        plan = replace(PLANS["cloth"], amounts=dict.fromkeys(PLANS["cloth"].amounts, 1.5) | {"let_out": 0.0})
        data = WRITERS["svg"].write(Order(made, wanted=Wanted.by(plan)))
        text = data.decode()
        import re

        only_cut = re.sub(r'<g class="(?!cut)[a-z]+"[^>]*>.*?</g>', "", text, flags=re.S)
        found = read_svg(only_cut.encode()).outlines
        side = next(o for o in found if o.name == "side_front")
        pattern = outlined([side], allowance={"off": 1.5, "edges": {}})
        piece, old = garment(pattern).pieces[0], made.garment.piece("side_front")
        self.assertAlmostEqual(piece.area, old.area, delta=0.6)
        ours, theirs = (sorted(round(e.length, 1) for e in p.edges) for p in (piece, old))
        for a, b in zip(ours, theirs, strict=True):
            self.assertAlmostEqual(a, b, delta=0.25)

    def test_a_square_loses_its_allowance_on_every_side(self):
        outline = read_svg(svg(square())).outlines[0]
        found, corners = without_allowance(outline, outline.corners, [1.0, 2.0, 1.0, 0.0])
        self.assertAlmostEqual(found.surface.area, 8 * 8, places=3)
        self.assertEqual(len(corners), 4)
        with self.assertRaises(OutlineError):
            without_allowance(outline, outline.corners, [6.0] * 4)

    def test_a_curve_keeps_its_distance(self):
        spots = [Point(10 * (1 - 0.02 * n) ** 0.5, 10 * (0.02 * n)) for n in range(51)]
        curve = fitted(spots)
        ring = Path((*curve.segments, *Path.through(spots[-1], Point(-10, 10), Point(-10, 0), spots[0]).segments))
        outline = Outline("o1", "Front", ring)
        found, _ = without_allowance(outline, outline.corners, [1.2] * len(outline.corners))
        rim = LineString(ring.flat(0.002))
        for spot in found.ring.flat(0.05):
            self.assertAlmostEqual(rim.distance(Dot(*spot)), 1.2, delta=0.02)


class Naming(unittest.TestCase):
    def bodice(self):
        """The bodice block drawn out and read in again, its edges named."""
        made = make(method_design(METHODS["bodice.measured"]), upper_build())
        data = outlined(read_dxf(WRITERS["dxf"].write(Order(made))).outlines)
        pieces, _ = pieces_of(data, "")
        for name, piece in pieces.items():
            old = made.garment.piece(name)
            roles = []
            for edge in piece.edges:
                twin = min(old.edges, key=lambda e, edge=edge: abs(e.length - edge.length))
                roles.append(f"{twin.role}:{twin.kind if twin.kind != 'fold' else 'seam'}")
            data = named(data, name, roles, stands="pair")
        return made, checked(data)

    def test_seams_are_proposed_from_roles_and_checked(self):
        made, data = self.bodice()
        pieces, _ = pieces_of(data, "")
        seams = proposed_seams(pieces)
        sewn = {frozenset((s["first"], s["second"])) for s in seams}
        self.assertIn(frozenset(("back.side", "front.side")), sewn)
        self.assertIn(frozenset(("back.shoulder", "front.shoulder")), sewn)
        whole = make(Design("outline", 1, outlines=Outlined.of({**data, "seams": seams})), upper_build())
        lengths = next(check for check in whole.checks if check.name.startswith("seam"))
        self.assertEqual(lengths.verdict, "true")
        self.assertAlmostEqual(
            whole.garment.piece("front").edge("side").length, made.garment.piece("front").edge("side").length, delta=0.02
        )

    def test_a_sleeve_is_drawn_for_its_armhole(self):
        made, data = self.bodice()
        whole = make(Design("outline", 1, outlines=Outlined.of(data)), upper_build())
        holes = armhole_in(whole), armhole_in(made)
        self.assertAlmostEqual(holes[0].whole, holes[1].whole, delta=0.05)
        sleeve = make(method_design(METHODS["sleeve.triangle"]), upper_build(), armhole=holes[0])
        self.assertEqual({check.verdict for check in sleeve.checks if check.group == "seams"} - {"true", "look"}, set())

    def test_it_is_styled_and_marked_like_any_other(self):
        """Whatever is offered at any of its edges is done, or refused in a sentence."""
        _, data = self.bodice()
        pieces, _ = pieces_of(data, "")
        data = {**data, "seams": proposed_seams(pieces)}
        block = make(Design("outline", 1, outlines=Outlined.of(data)), upper_build())
        done = 0
        for piece in block.garment.pieces:
            for edge in some(piece.edges, 2):
                for offer in offers(block.garment, Pointed(piece.name, edge.name, edge.length / 2)):
                    step = Step("s", offer.operation.code, dict(offer.settings), dict(offer.wheres))
                    made = make(Design("outline", 1, steps=(step,), outlines=Outlined.of(data)), upper_build())
                    done += not made.refused
                    self.assertTrue(all(entry.saying.text() for entry in made.refused), offer.operation.code)
                    self.assertTrue(mark_up(made, PLANS["cloth"]).pieces)
        self.assertGreater(done, 10)

    def test_corners_are_set_and_taken_away(self):
        data = outlined(read_svg(svg(square())).outlines)
        name = data["pieces"][0]["name"]
        more = with_corner(data, name, 0, 4.0)
        self.assertEqual(len(checked(more)["pieces"][0]["edges"]), 5)
        lengths = sorted(round(e.length, 3) for e in garment(checked(more)).pieces[0].edges)
        self.assertEqual(lengths, [4.0, 6.0, 10.0, 10.0, 10.0])
        fewer = joined(more, name, 0)
        self.assertEqual(len(garment(checked(fewer)).pieces[0].edges), 4)
        for wrong in ((0, 0.1), (0, 9.9), (9, 3.0)):
            with self.assertRaises(OutlineError):
                with_corner(data, name, *wrong)

    def test_edges_of_one_role_have_different_names(self):
        self.assertEqual(
            edge_names([{"role": "side"}, {"role": "side"}, {"role": "hem", "name": "low"}]), ["side", "side_2", "low"]
        )

    def test_what_is_traced_is_a_piece(self):
        spots = [(0, 0, True), (20, 0, True), (21, 15, False), (20, 30, True), (0, 30, True)]
        outline = traced("Sleeve", spots, 1)
        self.assertEqual(len(outline.corners), 4)
        self.assertGreater(outline.surface.area, 600)
        for wrong in (
            spots[:2],
            [(x, y, False) for x, y, _ in spots],
            [spots[0], spots[3], spots[1], spots[4]],
            [*spots, spots[-1]],
        ):
            with self.assertRaises(OutlineError):
                traced("Sleeve", wrong, 1)

    def test_without_an_outline_it_says_so(self):
        with self.assertRaises(CannotDraft):
            make(Design("outline", 1), upper_build())


class Kept(unittest.TestCase):
    def test_it_goes_out_as_a_design_and_in_again(self):
        data = outlined(read_back("dress", "svg").outlines)
        named_ = Named("Bought frock", Design("outline", 1, outlines=Outlined.of(data)))
        again = read_design(design_as_json(named_))
        self.assertEqual(again.design.outlines, named_.design.outlines)
        for garment_ in (make(again.design, upper_build()).garment,):
            self.assertEqual(len(garment_.pieces), 9)

    def test_what_is_kept_is_read_with_care(self):
        good = outlined(read_svg(svg(square())).outlines)
        chance = random.Random("care")
        for _ in range(400):
            broken = _spoiled(good, chance)
            try:
                found = checked(broken)
            except OutlineError as error:
                self.assertTrue(str(error).endswith("."), error)
                continue
            with contextlib.suppress(CannotDraft):
                make(Design("outline", 1, outlines=Outlined.of(found)), upper_build())
        with self.assertRaises(DesignFileError):
            read_design(
                b'{"format": "widehem-design", "version": 1, "name": "x", "method": "outline", "outlines": {"outlines": 3}}'
            )

    def test_an_outline_comes_back_as_it_was(self):
        outline = next(o for o in read_back("dress", "svg").outlines if o.name == "front")
        again = outline_from_data(outline_as_data(outline))
        self.assertAlmostEqual(again.length, outline.length, places=3)
        self.assertEqual((len(again.inner), len(again.notches)), (len(outline.inner), len(outline.notches)))


def _spoiled(data, chance):
    """The data with one thing in it put wrong."""
    import copy

    found = copy.deepcopy(data)
    at = found
    while True:
        keys = list(at) if isinstance(at, dict) else list(range(len(at))) if isinstance(at, list) else []
        if not keys:
            return found
        key = chance.choice(keys)
        if chance.random() < 0.3 or not isinstance(at[key], dict | list):
            at[key] = chance.choice([None, -1, 1e9, "x" * 200, [], {}, True, "fold", float("nan"), [[1]], {"a": 1}])
            return found
        at = at[key]


if __name__ == "__main__":
    unittest.main()
