"""Stand test, room round the body, what may be behind a sign, and a fitting as it is noted."""

import random
import unittest

from tests.bodies import UPPER, upper_build
from tests.some import EVERYTHING
from widehem.core.body.doubts import STEPS
from widehem.core.design.design import Step, method_design
from widehem.core.design.make import make
from widehem.core.design.ships import shipped
from widehem.core.drafting.method import METHODS
from widehem.core.fitting.alteration import NEEDS, About, figure_of, fitting
from widehem.core.fitting.around import around
from widehem.core.fitting.candidates import READ, Figure, candidates, figures
from widehem.core.fitting.causes import CAUSES, CUP, LOOK_AT, SIGNS
from widehem.core.fitting.learning import Altered, habits, learned, places_of
from widehem.core.fitting.record import RecordError, checked, folded
from widehem.core.fitting.stand import stand_test, table_body
from widehem.core.fitting.toile import RoomToFit, room_for, takes_room, with_room
from widehem.core.fitting.walked import walked
from widehem.core.style.operation import OPERATIONS
from widehem.core.units import Display


def drawn(method, build="typical", *steps, **changes):
    design = method_design(METHODS[method])
    return design, make(design, upper_build(build, **changes), steps)


class Stand(unittest.TestCase):
    def test_what_was_read_comes_out_as_this_draft_has_it_on_every_build(self):
        """By the draft of the measured bodice: nape to waist, bust depth, shoulder and span exactly; the plumb lengths sewn a little longer."""
        exact = {
            "nape_waist": 0.0,
            "bust_depth": 0.0,
            "shoulder": 0.0,
            "bust_span": 0.0,
            "bust": 6.0,
            "waist": 3.0,
            "across_chest": 1.0,
        }
        for build in ("typical", "full", "slight", "hourglass", "child"):
            design, made = drawn("bodice.measured", build)
            rows = {row.code: row for row in stand_test(made, design)}
            for code, ease in exact.items():
                if code in rows and not (build == "child" and code == "across_chest"):
                    with self.subTest(build, code=code):
                        self.assertAlmostEqual(rows[code].ease, ease, delta=0.06)
                        self.assertEqual(rows[code].kind, "read")
        _, made = drawn("bodice.measured")
        toile = walked(made.garment)
        self.assertAlmostEqual(toile["snp_waist_back"] - 42.5, 0.5, delta=0.1)
        self.assertAlmostEqual(toile["snp_waist_front"] - 44.5, 0.7, delta=0.15)

    def test_the_table_body_is_as_usual_in_everything(self):
        for method in ("bodice.measured", "bodice.cup_wedge", "trousers.frame", "skirt.two_panel", "coat.straight"):
            with self.subTest(method):
                design = method_design(METHODS[method])
                body = table_body(upper_build("typical"))
                self.assertEqual([row.code for row in stand_test(make(design, body), design) if row.strange], [])

    def test_a_witness_that_was_misread_shows_and_an_alteration_does(self):
        design, made = drawn("bodice.measured", front_neck_waist=33.5)
        row = next(row for row in stand_test(made, design) if row.code == "front_neck_waist")
        self.assertTrue(row.strange and row.kind == "witness")
        self.assertIn("never looked at this figure", row.saying.text())
        design, made = drawn("bodice.measured", "typical", Step("a", "alter.across", {"by": 1.4, "part": "back"}))
        row = next(row for row in stand_test(made, design) if row.code == "across_back")
        self.assertAlmostEqual(row.off, 1.4, delta=0.06)
        self.assertIn("1.4 cm more", row.saying.text())


class Room(unittest.TestCase):
    def test_at_its_levels_the_curve_is_the_girth_that_is_checked(self):
        for method in ("bodice.measured", "gown.seam_shaped", "coat.straight", "trousers.frame", "skirt.two_panel"):
            _, made = drawn(method)
            curve = around(made)[0]
            for level in curve.named:
                girth = next((g for g in made.girths if g.name == level.name and not g.edge and not g.limb), None)
                if girth is not None:
                    with self.subTest(method, level=level.name):
                        self.assertAlmostEqual(level.garment, made.garment.girth(level.name), delta=0.02)

    def test_front_and_back_make_the_whole(self):
        _, made = drawn("bodice.measured")
        bust = next(level for level in around(made)[0].named if level.name == "bust")
        self.assertAlmostEqual(bust.front_room + bust.back_room, bust.room, places=6)

    def test_between_levels_neither_curve_jumps(self):
        for build in UPPER:
            for name in ("waistcoat", "shirt", "coat"):
                with self.subTest(build, design=name):
                    made = make(shipped()[name].design, upper_build(build))
                    for curve in around(made):
                        for one, two in zip(curve.levels, curve.levels[1:], strict=False):
                            if two.down - one.down < 2.0:
                                self.assertLess(abs(two.garment - one.garment), 6.0)
                            if one.body is not None and two.body is not None and two.down - one.down < 2.0:
                                self.assertLess(abs(two.body - one.body), 7.0)

    def test_too_tight_is_said_with_the_figure(self):
        design = method_design(METHODS["bodice.measured"])
        made = make(design, upper_build("typical"), (Step("a", "alter.side", {"by": -8.0, "level": "waist"}),))
        self.assertIn("does not close there", around(made)[0].saying.text())
        self.assertEqual(around(drawn("bodice.measured")[1])[0].saying.text(Display("in"))[:16], "The least room, ")


class Behind(unittest.TestCase):
    def test_every_cause_is_done_by_an_alteration_that_takes_its_settings(self):
        for cause in CAUSES.values():
            asked = OPERATIONS[cause.alteration]
            for code, value in cause.settings(1.0).items():
                with self.subTest(cause.code, setting=code):
                    asked.option(code).check(value)
            self.assertIn(cause.alteration, NEEDS)
        for sign in SIGNS.values():
            self.assertIn(sign.where, LOOK_AT)
            self.assertTrue(all(code in CAUSES and 0 < weight <= 1 for code, weight in sign.causes.items()))

    def test_a_reading_against_all_others_is_said_and_ranks_first(self):
        chart = upper_build("typical", across_back=32.4)
        design = method_design(METHODS["bodice.measured"])
        known = figures(chart, stand_test(make(design, chart), design))
        first = candidates("cannot_reach", 1.2, known)[0]
        self.assertEqual(first.cause.code, "back_narrow")
        self.assertEqual(first.reasons[0].text(), "across back 32.4, read once; the others foretell 34.4")
        self.assertIn("Read the across back again first", first.place.text())

    def test_what_was_good_speaks_against_and_what_was_seen_for(self):
        chart = upper_build("typical")
        design = method_design(METHODS["bodice.measured"])
        known = figures(chart, stand_test(make(design, chart), design))
        plain = {c.cause.code: c.score for c in candidates("front_armhole_gapes", 0.8, known)}
        good = {c.cause.code: c.score for c in candidates("front_armhole_gapes", 0.8, known, (), ("darts",))}
        self.assertLess(good["cup_small"], plain["cup_small"])
        self.assertEqual(good["chest_wide"], plain["chest_wide"])
        seen = {
            c.cause.code: c.score for c in candidates("front_armhole_gapes", 0.8, known, ("front_armhole_gapes", "drags_bust"))
        }
        self.assertGreater(seen["cup_small"] / max(seen.values()), plain["cup_small"] / max(plain.values()) - 1e-9)
        self.assertEqual(len(seen), len(SIGNS["front_armhole_gapes"].causes))  # none is hidden

    def test_on_bodies_made_otherwise_than_the_score_thinks_the_right_cause_is_first(self):
        """Long-tailed bodies and readings, weights off by up to two: a ceiling it is not. Better than the order of the table all the same."""
        rng = random.Random(11)
        right = order = two = 0
        tries = 6000 if EVERYTHING else 1500
        for _ in range(tries):
            truth, sign, pinned, known, seen = _fitting(rng)
            ranked = [c.cause.code for c in candidates(sign, pinned, known, seen)]
            right += ranked[0] == truth
            two += truth in ranked[:2]
            order += max(SIGNS[sign].causes, key=SIGNS[sign].causes.get) == truth
        self.assertGreater(right / tries, order / tries + 0.07)
        self.assertGreater(two / tries, 0.8)


def _laplace(rng, scale):
    return rng.choice((-1, 1)) * rng.expovariate(1 / scale)


def _fitting(rng):
    """A body on which one thing is wrong, what is seen of it, and its chart."""
    truth = rng.choice([code for code, cause in CAUSES.items() if cause.figure])
    weights = {s.code: s.causes[truth] * 2 ** rng.uniform(-1, 1) for s in SIGNS.values() if truth in s.causes}
    pinned = rng.uniform(0.6, 1.8)
    known = {}
    for cause in CAUSES.values():
        code = cause.figure
        if not code or code in known:
            continue
        kind = "length" if code == CUP else {"neck": "girth", "bust": "girth", "waist": "girth", "hip": "girth", "upper_arm": "girth",
            "waist_front": "arc", "across_chest": "width", "across_back": "width", "shoulder": "width", "shoulder_drop": "width"}.get(code, "length")  # fmt: skip
        for _ in range(400):
            body = 40 + _laplace(rng, STEPS[kind] / 1.4)
            reading = body + _laplace(rng, READ[kind] / 1.4) + (rng.choice((-1, 1)) * 2.0 if rng.random() < 0.08 else 0.0)
            need = body - reading + rng.gauss(0, 0.3)
            mine = CAUSES[truth]
            if code != mine.figure or (need if mine.more else -need) >= pinned / 2:
                break
        known[code] = Figure(code, kind, reading, 1, 40.0, 0.0)
    seen = [code for code, weight in weights.items() if rng.random() < min(weight, 1.0)]
    sign = rng.choice(seen) if seen else max(weights, key=weights.get)
    return truth, sign, pinned, known, tuple({sign, *seen})


class Kept(unittest.TestCase):
    def test_an_alteration_knows_what_it_is_about_and_when_the_chart_has_caught_up(self):
        step = Step("a", "alter.across", {"by": 1.2, "part": "back"})
        self.assertEqual(figure_of(step), ("across_back", 1.2))
        about = About.of(step, upper_build("typical"), "cannot reach")
        self.assertEqual((about.read, about.why), (34.4, "cannot reach"))
        self.assertEqual(About.from_data(about.as_data()), about)
        self.assertIsNone(about.caught_up(upper_build("typical", across_back=34.7)))
        told = about.caught_up(upper_build("typical", across_back=35.6)).text()
        self.assertIn("the chart gives 1.2 cm of the 1.2 cm", told)
        cup = About.of(Step("b", "alter.bust", {"by": 1.0}), upper_build("typical"))
        self.assertEqual((cup.figure, cup.by), (CUP, 2.0))
        self.assertIsNone(cup.caught_up(upper_build("typical", waist=75.0)))

    def test_only_what_a_garment_has_edges_for_is_offered(self):
        _, bodice = drawn("bodice.measured")
        titles = {op.code for entries in fitting(bodice.garment).values() for op in entries}
        self.assertIn("alter.across", titles)
        self.assertNotIn("alter.fork", titles)
        self.assertNotIn("alter.cap", titles)

    def test_events_are_folded_in_order_and_what_is_struck_is_gone(self):
        rows = [
            ("1", "verdict", checked("verdict", {"look": "neckline", "verdict": "alter"})),
            (
                "2",
                "sign",
                checked("sign", {"sign": "neck_gapes", "pinned": "1/2 in", "way": "in", "figure": "front", "x": "0.5", "y": 2}),
            ),
            ("3", "verdict", checked("verdict", {"look": "neckline", "verdict": "good"})),
            ("4", "sign", checked("sign", {"words": "the lace scratches"})),
            ("5", "struck", checked("struck", {"of": "4"})),
            ("6", "movement", checked("movement", {"test": "sit", "verdict": "see", "words": "tight"})),
        ]
        found = folded(rows)
        self.assertEqual(found.good, {"neckline"})
        self.assertEqual([(s.code, round(s.pinned, 2), s.y) for s in found.seen], [("neck_gapes", 1.27, 1.0)])
        self.assertEqual(found.moved, {"sit": ("see", "tight")})

    def test_what_cannot_be_kept_says_why(self):
        for what, data, words in (
            ("sign", {"sign": "neck_gapes", "pinned": "lots"}, "Pinned:"),
            ("sign", {"sign": "neck_gapes", "pinned": "40"}, "more than a pin takes"),
            ("sign", {"sign": "wrong"}, "no sign of the list"),
            ("sign", {}, "Say what is seen"),
            ("verdict", {"look": "neckline", "verdict": "splendid"}, "none of good, see, alter"),
            ("note", {"words": " "}, "note is empty"),
            ("dance", {}, "nothing that is noted"),
        ):
            with self.subTest(what, data=data), self.assertRaisesRegex(RecordError, words):
                checked(what, data)


class Learning(unittest.TestCase):
    def about(self, by, read=34.4):
        return About("", "across_back", by, read)

    def test_two_garments_that_agree_are_told_and_one_is_not(self):
        chart = upper_build("typical")
        one, two = Altered("smock", (self.about(1.2),)), Altered("coat", (self.about(1.0),))
        (found,) = learned([one, two], chart)
        self.assertEqual(
            (found.figure, found.by, found.garments), ("across_back", 0.9, ("smock", "coat"))
        )  # 2.2/.25 over 1/.64 + 2/.25
        self.assertEqual(found.alteration, ("alter.across", {"part": "back", "by": 0.9}))
        self.assertIn("2 garments agree (smock, coat): the across back wants +0.9", found.saying.text())
        self.assertEqual(learned([one], chart), ())

    def test_what_was_good_counts_as_nought_and_a_new_reading_is_taken_off(self):
        one, two = Altered("smock", (self.about(1.2),)), Altered("coat", (self.about(1.0),))
        good = Altered("gown", (), places_of("across_back") & frozenset(("armhole",)))
        self.assertIn("armhole", places_of("across_back"))
        self.assertEqual(learned([one, good, good], upper_build("typical")), ())
        self.assertEqual(learned([one, two], upper_build("typical", across_back=35.4)), ())

    def test_on_wearers_who_fit_it_is_seldom_wrong_and_on_those_who_do_not_it_helps(self):
        """Bodies off by N(0, 0.8), pins out by 0.5, three garments each: what is said is right that the body is off."""
        rng, said, right, helped = random.Random(3), 0, 0, 0
        chart = upper_build("typical")
        for _ in range(2000):
            off = rng.gauss(0, 0.8)
            garments = [Altered(str(n), (self.about(off + rng.gauss(0, 0.5)),)) for n in range(3)]
            for one in learned(garments, chart):
                said += 1
                right += abs(off) > 0.3
                helped += abs(off - one.by) < abs(off)
        self.assertGreater(said, 500)
        self.assertGreater(right / said, 0.95)
        self.assertGreater(helped / said, 0.93)

    def test_across_a_company_every_wearer_counts_once(self):
        rng = random.Random(8)
        chart = upper_build("typical")

        def company(mean, wearers=14):
            return [
                ([Altered("a", (self.about(mean + rng.gauss(0, 0.5)),))] * rng.choice((1, 1, 6)), chart) for _ in range(wearers)
            ]

        (found,) = habits(company(1.0))
        self.assertEqual((found.figure, found.wearers), ("across_back", 14))
        self.assertAlmostEqual(found.by, 1.0, delta=0.35)
        self.assertEqual(habits(company(1.0, 8)), ())
        false = sum(bool(habits(company(0.0))) for _ in range(300))
        self.assertLess(false / 300, 0.05)


class RoomToFitIn(unittest.TestCase):
    def test_a_toile_is_cut_larger_its_sides_alike_and_the_pattern_lies_inside(self):
        for method in ("trousers.frame", "trousers.crease", "skirt.two_panel"):
            for build in UPPER:
                with self.subTest(method, build=build):
                    made = make(method_design(METHODS[method]), upper_build(build))
                    room = room_for(made.chart)
                    roomy = with_room(made.garment, room)
                    self.assertTrue(takes_room(made.garment))
                    sides = [sum(e.length for _, e in roomy.edges_of("side", part=part)) for part in ("front", "back")]
                    self.assertAlmostEqual(*sides, places=3)
                    for piece in made.garment.shell:
                        larger = roomy.piece(piece.name)
                        self.assertGreater(larger.area, piece.area + 40)
                        self.assertAlmostEqual(larger.edge("hem").length - piece.edge("hem").length, room.side, delta=0.05)
                        self.assertGreaterEqual(piece.bounds[1] - larger.bounds[1], room.top - 1.2)
                        self.assertEqual(len(larger.lines) - len(piece.lines), len(piece.edge("waist").parts) + 1)
                        self.assertTrue(larger.simple)
        self.assertFalse(takes_room(drawn("bodice.measured")[1].garment))

    def test_how_much_follows_the_wearer(self):
        """5 over the waist; 2.5 more over 168 tall, 2.5 more when larger than most; a quarter of what the waist is larger than its size."""
        self.assertEqual(room_for(upper_build("typical")), RoomToFit(5.0, 1.9))
        self.assertEqual(room_for(upper_build("tall")).top, 7.5)
        self.assertEqual(room_for(upper_build("belly")).top, 10.0)
        self.assertEqual(room_for(upper_build("belly"), drafted_waist=106.0).side, 4.0)
        self.assertEqual(room_for(upper_build("typical"), chosen=9.0, own=1.0), RoomToFit(5.0, 2.5 + 0.6))
