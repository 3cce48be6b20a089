"""Shapes a cutter lays on good cloth: what is settled while it is drawn, and the checks that hold it."""

import math
import random
import unittest
from dataclasses import replace

from shapely import Point as Spot
from shapely import Polygon

from tests.bodies import UPPER, asked, drafted, girth, upper_build, upper_chart
from tests.wide import body
from widehem.core.drafting.method import METHODS, armhole_of
from widehem.core.drafting.settled import FORWARD_MOST, LOWERED_MOST
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.checks.curves import curve_of
from widehem.core.pattern.checks.upper import front_inside
from widehem.core.pattern.edge import Held
from widehem.core.pattern.inside import InnerLine
from widehem.core.pattern.truing import check_garment
from widehem.core.setting.refusal import CannotDraft

BODICES = ("bodice.plain", "bodice.measured", "bodice.cup_wedge")


def made(code, build="typical", options=None, ease=None, **changes):
    return drafted(METHODS[code], upper_build(build, **changes), options or {}, ease or {})


def figure(made, name):
    return next(check.figure for check in made.checks if check.name == name)


def verdicts(made):
    return {check.name: check.verdict for check in made.checks}


def untrue(made):
    return [check.name for check in made.checks if check.verdict == "not"]


def told(made, words):
    return [str(note) for note in made.notes if words in str(note)]


def lengths(made):
    """Front and back armhole, cm."""
    return [made.garment.length_of(chain) for chain in made.garment.armholes]


class RoundTheArm(unittest.TestCase):
    """An armhole goes round the arm that was read; by a depth that is set, or a school, it is where that puts it."""

    def test_it_is_lowered_until_it_is_so_much_more_than_the_armscye(self):
        for code in BODICES:
            usual = sum(lengths(made(code)))
            for more in (-1.0, 1.0):
                with self.subTest(code, more=more):
                    read = round(usual - 2.5 + more, 1)  # so tight, or with a little to spare
                    whole = sum(lengths(made(code, armscye=read)))
                    if more > 0:
                        self.assertAlmostEqual(whole, read + 2.5, delta=0.05)
                        self.assertTrue(told(made(code, armscye=read), "lower than by the armscye depth"))
                    else:
                        self.assertAlmostEqual(whole, usual, places=6, msg="it had room: nothing moves")

    def test_what_is_set_stays(self):
        usual = made("bodice.measured")
        read = sum(lengths(usual))
        by_hand = made("bodice.measured", ease={"depth": 2.0}, armscye=read)
        self.assertEqual(lengths(by_hand), lengths(made("bodice.measured", ease={"depth": 2.0})))
        self.assertEqual(verdicts(by_hand)["armhole.round"], "look")
        school = made("bodice.measured", options={"level": "bust"})
        depth = upper_build().get("bust") / 6 + 1.5
        self.assertLess(sum(lengths(school)), read, f"it lies {depth:.1f} below the tip, wherever the arm is")
        self.assertFalse(told(school, "lower than"))

    def test_never_so_low_that_it_is_no_bodice(self):
        drawn = made("bodice.measured", armscye=60.0)
        self.assertLess(figure(drawn, "armhole.round"), 2.5)
        low, usual = (d.points["back_underarm"].y for d in (drawn, made("bodice.measured")))
        self.assertLessEqual(low - usual, LOWERED_MOST + 1e-6)
        refused = made("bodice.measured", armscye=60.0, armscye_depth=31.5)
        self.assertFalse(told(refused, "lower than"), "a bust line at the waist is none: it stays as measured")


class ShoulderSeam(unittest.TestCase):
    """A front armhole that gapes by more than its darts take: the shoulder seam lies further forward."""

    GAPES = {"snp_waist_front": 46.3, "across_chest": 30.6}

    def test_front_and_back_are_equal_and_it_is_said_by_how_much(self):
        for code in ("bodice.measured", "bodice.cup_wedge"):
            for up in (1.0, 1.8, 2.4):
                with self.subTest(code, up=up):
                    chart = upper_build("child", snp_waist_front=upper_build("child").get("snp_waist_front") + up)
                    drawn = drafted(METHODS[code], chart)
                    front, back = lengths(drawn)
                    said = told(drawn, "further forward at the bone")
                    if front - back > 0.21:
                        self.assertTrue(told(drawn, "read side neck to waist in front, bust depth and across chest"))
                    self.assertEqual(bool(said), bool(drawn.points["back_tip"].y < made(code, "child").points["back_tip"].y))

    def test_it_moves_no_more_than_it_may_and_keeps_shoulder_neck_and_bust(self):
        chart = upper_build("child", snp_waist_front=upper_build("child").get("snp_waist_front") + 2.4)
        drawn, usual = drafted(METHODS["bodice.measured"], chart), made("bodice.measured", "child")
        moved = drawn.points["back_tip"].to(usual.points["back_tip"])
        self.assertTrue(0.05 < moved <= FORWARD_MOST + 0.01, moved)
        for piece in ("front", "back"):
            shoulders = [one.garment.piece(piece).edge("shoulder").length for one in (drawn, usual)]
            self.assertAlmostEqual(*shoulders, places=6)
        self.assertEqual(verdicts(drawn)["girth.bust"], "true")
        self.assertEqual(verdicts(drawn)["corners.joined"], "true")

    def test_no_seam_moves_where_nothing_gapes(self):
        for build in UPPER:
            for code in ("bodice.measured", "bodice.cup_wedge"):
                if build not in ("child", "full"):  # a hollowed front without a dart, or with the fullest cup, gapes a little
                    self.assertFalse(told(made(code, build), "further forward"), (code, build))


class Inside(unittest.TestCase):
    """Laid over each other at shoulder and underarm the front armhole lies inside the back."""

    def test_by_as_much_as_it_should(self):
        for build, least, most in (("typical", 0.9, 1.1), ("slight", 0.7, 0.8), ("straight", 0.7, 0.9), ("child", 0.3, 0.4)):
            drawn = made("bodice.measured", build)
            self.assertTrue(least <= figure(drawn, "armhole.inside") <= most, (build, figure(drawn, "armhole.inside")))
        for build in UPPER:
            for code in ("bodice.plain", "bodice.cup_wedge", "coat.straight", "gown.seam_shaped"):
                self.assertGreaterEqual(figure(made(code, build), "armhole.inside"), 0.3, (code, build))

    def test_hollows_that_are_alike_are_told(self):
        alike = made("bodice.measured", "child", {"hollow_back": 0.7, "hollow_front": 0.5})
        self.assertNotEqual(verdicts(alike)["armhole.inside"], "true")

    def test_it_is_measured_on_the_curves_by_hand(self):
        garment = made("bodice.measured").garment
        front, back = garment.armholes
        self.assertAlmostEqual(front_inside(garment, back, back), 0.0, places=9)
        lines = [garment.edge(chain[0]).parts[0] for chain in (front, back)]
        depth = []
        for line in lines:  # at a third of the way up from the underarm
            way = (line.end - line.start).unit()
            at = line.start.toward(line.end, 1 / 3)
            (index, t), *_ = line.crossings(at, way.square())
            depth.append(line.segments[index].at(t).to(at))
        self.assertAlmostEqual(depth[0] - depth[1], front_inside(garment, front, back), delta=0.12)


class NoNib(unittest.TestCase):
    def test_an_armhole_whose_tip_stands_hardly_outside_turns_softly(self):
        for code in ("bodice.measured", "bodice.cup_wedge"):
            for wide in (17.6, 18.2, 18.8):  # half across back, against a tip at about 18.4
                with self.subTest(code, wide=wide):
                    drawn = made(code, across_back=2 * wide - 1, across_chest=2 * wide - 3, ease=None)
                    hole = drawn.garment.piece("back").edge("armhole")
                    self.assertGreater(curve_of(hole.parts[0], hole).radius, 2.0)
                    self.assertEqual(verdicts(drawn)["corners.joined"], "true")


class SmallDart(unittest.TestCase):
    """A bust dart that would open less than 2.5 at the shoulder is eased into the armhole, or lies in the side."""

    def chart(self, over=0.8):
        return upper_chart("straight", {"height": 182, "bust": 100, "high_bust": 100 - over, "waist": 86, "hip": 98})

    def test_it_is_held_between_two_notches(self):
        drawn = drafted(METHODS["bodice.measured"], self.chart())
        front = drawn.garment.piece("front")
        hole = front.edge("armhole")
        (held,) = hole.gaps
        self.assertIsInstance(held, Held)
        self.assertEqual([dart.name for dart in front.darts if "bust" in dart.name], [])
        self.assertTrue(0.1 < held.mouth <= 1.0, held.mouth)
        names = [notch.name for notch in hole.notches if "ease" in notch.name]
        self.assertEqual(sorted(names), ["lower ease", "upper ease"])
        front_long, back_long = lengths(drawn)
        self.assertAlmostEqual(front_long, back_long, delta=0.21)
        as_cut = sum(path.length for path in hole.paths())
        self.assertAlmostEqual(as_cut, front_long + held.mouth, places=6)
        self.assertEqual(untrue(drawn), [])
        self.assertTrue(told(drawn, f"ease {held.mouth:.1f} cm of the front armhole in"))

    def test_the_bust_is_as_wide_as_with_a_dart(self):
        both = [drafted(METHODS["bodice.measured"], self.chart(), {"dart_place": at}) for at in ("eased", "shoulder", "side")]
        self.assertEqual(len({round(girth(one, "bust"), 3) for one in both}), 1)
        self.assertTrue(both[1].garment.piece("front").edge("shoulder").darts)
        self.assertTrue(both[2].garment.piece("front").edge("side").darts)

    def test_a_sleeve_is_made_for_the_armhole_as_it_is_held(self):
        eased, darted = (
            armhole_of(drafted(METHODS["bodice.measured"], self.chart(), {"dart_place": at}).garment)
            for at in ("eased", "shoulder")
        )
        self.assertAlmostEqual(eased.whole, darted.whole, delta=0.05)
        sleeve = drafted(METHODS["sleeve.guide_box"], self.chart(), {}, {}, eased)
        self.assertEqual(untrue(sleeve), [])

    def test_more_than_an_armhole_takes_lies_in_the_side(self):
        drawn = made("bodice.measured", options={"dart_place": "eased"})
        self.assertTrue(drawn.garment.piece("front").edge("side").darts)
        self.assertTrue(told(drawn, "the bust dart lies in the side instead"))

    def test_a_kink_where_it_is_held_is_told(self):
        drawn = drafted(METHODS["bodice.measured"], self.chart())
        front = drawn.garment.piece("front")
        hole = front.edge("armhole")
        held = hole.gaps[0]
        out = Path.through(held.inner, held.inner.toward(held.outer, 0.5) + Point(1.0, 0.0), held.outer)
        bent = drawn.garment.with_piece(front.with_edge(replace(hole, gaps=(replace(held, line=out),))))
        found = {check.name: check.verdict for check in check_garment(bent, drawn.demands, drawn.wear)}
        self.assertEqual(found["edges.shut"], "not")


class SidesOfABodice(unittest.TestCase):
    def test_a_side_that_takes_the_whole_waist_is_looked_at(self):
        none = made("bodice.measured", options={"waist_darts": "none"})
        self.assertEqual(verdicts(none)["side.leans"], "look")
        loss = (88 + 6 - 69 - 3) / 4
        self.assertAlmostEqual(figure(none, "side.leans"), loss, delta=0.3)
        self.assertEqual(verdicts(made("bodice.measured"))["side.leans"], "true")

    def test_two_darts_never_get_too_wide_by_themselves(self):
        chart = upper_chart("curved", {"height": 170, "bust": 130, "high_bust": 125, "waist": 80, "hip": 134})
        drawn = drafted(METHODS["bodice.measured"], chart)
        self.assertNotIn("darts.intake", untrue(drawn))
        self.assertEqual(verdicts(drawn)["side.leans"], "look", "the side takes more, and says so")

    def test_the_closed_side_of_a_big_cup_is_straight(self):
        for bust, high, waist in ((88, 78, 66), (96, 84, 92), (82, 75, 56), (75, 73.5, 75)):
            chart = upper_chart("curved", {"height": 172, "bust": bust, "high_bust": high, "waist": waist, "hip": bust + 4})
            drawn = drafted(METHODS["bodice.cup_wedge"], chart)
            self.assertEqual(untrue(drawn), [], (bust, high, waist))


class Taper(unittest.TestCase):
    def test_the_ease_of_a_cup_wedge_tapers_to_the_waists_own(self):
        for build in UPPER:
            own, even = (made("bodice.cup_wedge", build, {"taper": way}) for way in ("waist", "even"))
            waist = upper_build(build).get("waist")
            self.assertAlmostEqual(girth(own, "waist"), waist + 3.0, delta=0.1, msg=build)
            self.assertAlmostEqual(girth(even, "waist"), waist + 6.0, delta=0.1, msg=build)
            for piece in own.garment.pieces:
                for dart in piece.edge("waist").darts:
                    self.assertGreaterEqual(dart.intake, 0.95, "less goes to the side")
        close = made("bodice.cup_wedge", ease={"waist": 1.5})
        self.assertAlmostEqual(girth(close, "waist"), 69 + 1.5, delta=0.1)


class Coat(unittest.TestCase):
    def test_a_side_with_a_dart_is_straight_once_it_is_shut(self):
        for up in (0.0, 1.0):
            drawn = made("coat.straight", "full", snp_waist_front=upper_build("full").get("snp_waist_front") + up)
            side = drawn.garment.piece("front").edge("side")
            self.assertTrue(side.darts, up)
            self.assertLess(figure(drawn, "edges.shut"), 0.6, up)
            self.assertAlmostEqual(girth(drawn, "bust"), asked(drawn, "bust").body + 12, delta=0.1)

    def test_a_short_body_has_its_hip(self):
        chart = upper_chart("child", {"height": 112, "bust": 69, "high_bust": 69, "waist": 48, "hip": 77})
        drawn = drafted(METHODS["coat.straight"], chart)
        self.assertEqual(verdicts(drawn)["girth.hip"], "true")
        for diamond in drawn.garment.piece("front").diamonds:
            self.assertLess(diamond.bottom.y, drawn.garment.piece("front").levels["hip"])

    def test_the_lapel_rolls_on_cloth_and_lies_on_its_facing(self):
        drawn = made("coat.straight")
        self.assertEqual({verdicts(drawn)[name] for name in ("rolls.roll_line", "faced.roll_line")}, {"true"})
        front = drawn.garment.piece("front")

        def with_line(name, path):
            lines = tuple(InnerLine(n.name, n.title, path) if n.name == name else n for n in front.lines)
            bent = drawn.garment.with_piece(replace(front, lines=lines))
            return {check.name: check.verdict for check in check_garment(bent, drawn.demands, drawn.wear)}

        roll = next(line.path for line in front.lines if line.name == "roll_line")
        facing = next(line.path for line in front.lines if line.name == "facing_line")
        past = Path.through(roll.start + Point(-6.0, 0.0), roll.end)
        self.assertEqual(with_line("roll_line", past)["rolls.roll_line"], "not", "it leaves the cloth")
        short = Path.through(roll.start.toward(roll.end, 0.1), roll.end)
        self.assertEqual(with_line("roll_line", short)["rolls.roll_line"], "not", "it does not reach the edge")
        narrow = Path.through(Point(roll.start.x + 0.2, facing.start.y), Point(roll.start.x + 0.2, facing.end.y))
        self.assertEqual(with_line("facing_line", narrow)["faced.roll_line"], "not")

    def test_a_first_button_too_high_for_the_neck_is_told_and_mended(self):
        high = made("coat.straight", "child", {"break_above": 20.0})
        check = next(check for check in high.checks if check.name == "rolls.roll_line")
        self.assertEqual(check.verdict, "not")
        line = next(line.path for line in high.garment.piece("front").lines if line.name == "roll_line")
        front = Polygon(high.garment.piece("front").outline())
        beyond = max(
            front.exterior.distance(Spot(line.place(line.length * i / 20).point))
            for i in range(1, 20)
            if not front.contains(Spot(line.place(line.length * i / 20).point))
        )
        self.assertAlmostEqual(check.figure, beyond, delta=0.02, msg="the figure is how far it leaves the cloth")
        self.assertIn(f"leaves the cloth by {check.figure:.1f} cm", str(check.message))
        for mend in METHODS["coat.straight"].mends_of("rolls.roll_line"):
            mended = made("coat.straight", "child", {mend.option: float(mend.value.split()[0])})
            self.assertEqual(verdicts(mended)["rolls.roll_line"], "true", mend.words)

    def test_backs_and_shapes_by_choice(self):
        waists = {}
        for back, darts in (("seam", 0), ("seam_dart", 1), ("fold", 1), ("fold_two", 2)):
            drawn = made("coat.straight", options={"back": back})
            self.assertEqual(len(drawn.garment.piece("back").diamonds), darts, back)
            self.assertEqual(untrue(drawn), [], back)
            waists[back] = girth(drawn, "waist")
        self.assertAlmostEqual(waists["seam"] - waists["seam_dart"], 3.0, delta=0.1)
        self.assertAlmostEqual(waists["fold"] - waists["fold_two"], 2.0, delta=0.1)
        boxy, waisted = (made("coat.straight", options={"shape": shape}) for shape in ("boxy", "waisted"))
        self.assertAlmostEqual(girth(boxy, "waist") - girth(waisted, "waist"), 8.0, delta=0.1)
        self.assertEqual(girth(boxy, "bust"), girth(waisted, "bust"))
        belly = made("coat.straight", "belly", {"shape": "waisted"})
        self.assertEqual(verdicts(belly)["room.waist"], "true", "no more than its ease allows")

    def test_a_vent_has_its_corner_on_purpose(self):
        drawn = made("coat.straight", options={"side": "vent"})
        self.assertEqual(untrue(drawn), [])


class Gown(unittest.TestCase):
    def test_the_edges_flow_under_the_arm(self):
        for build in UPPER:
            drawn = made("gown.seam_shaped", build)
            self.assertEqual({verdicts(drawn)[name] for name in ("curves.waves", "curves.radius")}, {"true"}, build)
            centre = drawn.garment.piece("back").edge("centre_back").parts[0]
            top = centre.start.x
            bust = drawn.garment.piece("back").levels["bust"]
            self.assertAlmostEqual(centre.at_level(bust).x, top, places=6, msg="no step at the centre back")
            for name in ("bust", "waist"):
                self.assertEqual(verdicts(drawn)[f"girth.{name}"], "true", (build, name))


class Legs(unittest.TestCase):
    def test_the_crotch_of_a_thin_body_with_a_low_hip_turns_softly(self):
        chart = upper_chart("curved", {"height": 196, "bust": 84, "high_bust": 78, "waist": 62, "hip": 76})
        for code in ("trousers.frame", "trousers.crease"):
            drawn = drafted(METHODS[code], chart)
            self.assertEqual(untrue(drawn), [], code)
            self.assertAlmostEqual(girth(drawn, "hip"), 76 + asked(drawn, "hip").planned, delta=0.06)
            crotch = drawn.garment.piece("front").edge("crotch")
            self.assertGreater(curve_of(crotch.parts[0], crotch).radius, 2.5, code)


class Contour(unittest.TestCase):
    def test_a_dart_begins_inside_its_back_however_low_that_is(self):
        for build in ("typical", "full", "hourglass"):
            for low in (2.0, 6.0, 12.0):
                drawn = made("bodice.contour", build, {"back_top": low})
                back = drawn.garment.piece("back")
                for diamond in back.diamonds:
                    self.assertTrue(back.encloses(diamond.top) and back.encloses(diamond.bottom), (build, low))
                self.assertEqual(verdicts(drawn)["darts.apart"], "true")

    def test_a_dart_inside_that_ends_outside_is_told(self):
        drawn = made("bodice.contour")
        back = drawn.garment.piece("back")
        (diamond,) = back.diamonds
        bent = drawn.garment.with_piece(replace(back, diamonds=(replace(diamond, top=diamond.top - Point(0.0, 12.0)),)))
        found = {check.name: check for check in check_garment(bent, drawn.demands, drawn.wear)}
        self.assertEqual(found["darts.apart"].verdict, "not")
        self.assertIn("back.back_dart", found["darts.apart"].spots)

    def test_panel_lines_do_not_wave(self):
        for bust, high, waist, hip in ((111.6, 101.5, 79.2, 129.5), (124.2, 122.6, 82.1, 140.3), (98.7, 93.6, 71.4, 114.7)):
            chart = upper_chart("curved", {"height": 176, "bust": bust, "high_bust": high, "waist": waist, "hip": hip})
            self.assertEqual(untrue(drafted(METHODS["bodice.contour"], chart)), [], bust)


class Jersey(unittest.TestCase):
    def test_as_wide_as_the_widest(self):
        for build, fit in (("typical", "regular"), ("belly", "regular"), ("belly", "close"), ("full", "easy")):
            drawn = made("top.jersey", build, {"fit": fit})
            chart = upper_build(build)
            bust, waist, hip = {"close": (-4, -4, -4), "regular": (6, 6, 4), "easy": (18, 16, 12)}[fit]
            above = max(chart.get("bust") + bust, chart.get("waist") + waist)
            self.assertAlmostEqual(girth(drawn, "bust"), above, places=6, msg=(build, fit))
            if drawn.garment.piece("front").level("hip") is not None:
                self.assertAlmostEqual(girth(drawn, "hip"), max(above, chart.get("hip") + hip), delta=0.01, msg=(build, fit))
            self.assertEqual(untrue(drawn), [])
        self.assertTrue(told(made("top.jersey", "belly"), "The waist with its ease is larger"))

    def test_straight_down_by_choice(self):
        drawn = made("top.jersey", options={"side": "straight"})
        side = drawn.garment.piece("front").edge("side").parts[0]
        self.assertAlmostEqual(side.start.x, side.end.x)


class Suit(unittest.TestCase):
    def test_a_dart_in_its_waist_leaves_room_to_sit(self):
        for build in UPPER:
            for place in ("usual", "waist", "shared"):
                drawn = made("suit.one_piece", build, {"dart_place": place})
                self.assertEqual(untrue(drawn), [], (build, place))
                self.assertGreaterEqual(figure(drawn, "seat.length"), 5.0 - 1e-6, (build, place))

    def test_sides_stay_equal_with_any_trousers(self):
        for build in UPPER:
            for trousers in ("frame", "crease"):
                drawn = made("suit.one_piece", build, {"trousers": trousers})
                self.assertLess(figure(drawn, "seam.side"), 0.15, (build, trousers))


class AnyBody(unittest.TestCase):
    """Of random bodies, with the usual errors of reading, nearly all draw with nothing untrue."""

    def test_by_method(self):
        for code in (
            "bodice.plain", "bodice.measured", "bodice.proportional", "bodice.cup_wedge", "bodice.contour", "trousers.frame",
            "trousers.crease", "gown.seam_shaped", "coat.straight", "top.jersey", "suit.one_piece", "skirt.two_panel",
        ):  # fmt: skip
            chance, drawn, bad = random.Random(f"{code} 11"), 0, []
            while drawn < 20:
                chart = body(chance)
                try:
                    one = drafted(METHODS[code], chart)
                except CannotDraft:
                    continue
                drawn += 1
                bad += [(drawn, untrue(one))] if untrue(one) else []
            self.assertLessEqual(len(bad), 2, (code, bad))


class Angles(unittest.TestCase):
    def test_a_coat_leans_its_side_by_the_angle_of_its_dart(self):
        drawn = made("coat.straight", "full")
        side = drawn.garment.piece("front").edge("side")
        (dart,) = side.darts
        opened = 2 * math.asin(dart.mouth / 2 / dart.turned_about.to(dart.inner))
        upper = side.parts[-1]
        lean = math.atan2(abs(upper.end.x - upper.start.x), abs(upper.end.y - upper.start.y))
        self.assertAlmostEqual(math.degrees(lean), math.degrees(opened), delta=0.3)


if __name__ == "__main__":
    unittest.main()
