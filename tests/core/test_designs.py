"""Designs: those that ship true on all bodies, files, replay from where a recipe was changed."""

import json
import unittest
from dataclasses import replace

from hypothesis import given, settings

from tests.bodies import UPPER, upper_bodies, upper_build
from tests.some import tries
from tests.styling import BACK_PANEL, FRONT_PANEL, not_true, on, step
from widehem.core.design.design import Design, Step
from widehem.core.design.files import DesignFileError, Named, design_as_data, design_as_json, read_design
from widehem.core.design.make import make
from widehem.core.design.replay import Replay, State, stepped
from widehem.core.design.sensitivity import looked_at
from widehem.core.design.ships import shipped
from widehem.core.output.json_draft import draft_as_json
from widehem.core.setting.refusal import CannotDraft
from widehem.core.style.operation import OPERATIONS, Context
from widehem.core.style.where import Where


class Shipped(unittest.TestCase):
    def test_each_is_true_on_the_eight_bodies(self):
        for code, named in shipped().items():
            for build in UPPER:
                with self.subTest(f"{code} {build}"):
                    made = make(named.design, upper_build(build))
                    self.assertEqual([r.saying.text() for r in made.refused], [])
                    self.assertEqual(not_true(made), [])
                    self.assertEqual(made.stale, ())

    def test_the_waistcoat_has_fourteen_pieces(self):
        made = make(shipped()["waistcoat"].design, upper_build())
        self.assertEqual(len(made.garment.pieces), 14)
        self.assertEqual({p.layer for p in made.garment.pieces}, {"shell", "facing", "lining", "interfacing"})

    def test_each_is_marked_and_written(self):
        from widehem.core.marking.made import mark_up
        from widehem.core.marking.plans import PLANS

        for code, named in shipped().items():
            with self.subTest(code):
                made = make(named.design, upper_build())
                pattern = mark_up(made, PLANS[made.method.allowances])
                self.assertEqual(len(pattern.pieces), len(made.garment.pieces))
                json.dumps(draft_as_json(made))

    @settings(max_examples=tries(25), deadline=None)
    @given(upper_bodies())
    def test_the_waistcoat_sews_on_any_body(self, chart):
        try:
            made = make(shipped()["waistcoat"].design, chart)
        except CannotDraft:
            return
        for refused in made.refused:
            self.assertRegex(refused.saying.text(), r"\d|crosses|leaves|not there|does not|No ")
        if made.refused:
            return
        block = make(Design("bodice.measured"), chart)
        known = {c.name for c in block.checks if c.verdict == "not"}
        wrong = [
            f"{c.name} {c.figure:.3f}"
            for c in made.checks
            if c.name.startswith("seam.") and c.verdict == "not" and c.name not in known
        ]
        self.assertEqual(wrong, [])


class OnTheTable(unittest.TestCase):
    def test_no_piece_of_a_design_lies_on_another(self):
        for code, named in shipped().items():
            for build in ("typical", "full", "child"):
                laid = make(named.design, looked_at(named.design, upper_build(build))).laid
                on = [
                    (piece.name, other.name)
                    for n, piece in enumerate(laid)
                    for other in laid[:n]
                    if piece.surface.intersection(other.surface).area > 1.0
                ]
                self.assertEqual(on, [], (code, build))


class Files(unittest.TestCase):
    def test_there_and_back(self):
        for named in shipped().values():
            self.assertEqual(read_design(design_as_json(named)), named)

    def test_what_is_wrong_is_named(self):
        data = design_as_data(shipped()["shirt"])
        step_one = dict(data["steps"][0])
        for change, words in (
            ({"format": "x"}, "no design"), ({"version": 9}, "version 1"), ({"name": ""}, "give the design a name"),
            ({"method": "hat"}, 'no method "hat"'), ({"options": {"brim": 3}}, 'no option "brim"'), ({"options": [1]}, '"options" is no list'),
            ({"steps": "x"}, '"steps" is no list'), ({"steps": [{"id": "a"}]}, "Step 1 cannot be read"),
            ({"steps": [{"id": "a", "code": "hat.cut"}]}, 'no operation "hat.cut"'),
            ({"steps": [{**step_one, "settings": {"long": 900}}]}, "Below the waist 900.0 is outside 6.0 to 125.0 cm"),
            ({"steps": [{**step_one, "settings": {"brim": 1}}]}, 'no setting "brim"'),
            ({"steps": [{**step_one, "settings": {"long": "hat_size / 4"}}]}, "hat_size is no measure"),
            ({"steps": [{**step_one, "settings": {"long": "bust / ("}}]}, "Below the waist"),
            ({"steps": [step_one, step_one]}, "one id"), ({"rules": "new"}, '"rules"'), ({"name": 7}, "quotation marks"),
            ({"steps": [{"id": "a", "code": "closing.stand"}]}, "it wants any place on the centre front"),
        ):  # fmt: skip
            with self.subTest(words), self.assertRaisesRegex(DesignFileError, words):
                read_design(json.dumps({**data, **change}).encode())

    def test_rubbish_is_refused(self):
        for rubbish in (b"", b"\xff\xfe", b"[]", b"{" * 2000, b"null", b"9" * 500_000):
            with self.assertRaises(DesignFileError):
                read_design(rubbish)

    def test_a_formula_in_a_step_is_kept(self):
        named = Named("Belt", Design("top.jersey", steps=(Step("a", "strip.cut", {"long": "waist + 20"}),)))
        self.assertEqual(read_design(design_as_json(named)).design.steps[0].settings["long"], "waist + 20")

    def test_a_formula_that_comes_out_of_range_on_a_body_refuses_its_step_alone(self):
        steps = (Step("a", "ease.outer", {"tip": "bust / 2"}), Step("b", "ease.outer", {"tip": "bust / 100"}))
        made = make(Design("bodice.measured", steps=steps), upper_build("typical"))
        self.assertEqual([entry.step for entry in made.refused], ["a"])
        self.assertRegex(made.refused[0].saying.text(), r"comes to 4\d\.\d on this body: it may be")


class Replayed(unittest.TestCase):
    def test_a_recipe_that_changes_at_its_end_is_done_from_there(self):
        done = []
        block = on("bodice.measured")
        context, start = Context(block.chart), State(block.garment, block.demands)
        replay = Replay()
        import widehem.core.design.replay as module

        whole = module.stepped
        module.stepped = lambda state, one, ctx: (done.append(one.id), whole(state, one, ctx))[1]
        try:
            first = replay.run("base", start, (FRONT_PANEL, BACK_PANEL), context)
            changed = replace(BACK_PANEL, settings={"notch": 6.0})
            second = replay.run("base", start, (FRONT_PANEL, changed), context)
            third = replay.run("base", start, (FRONT_PANEL, BACK_PANEL), context)
        finally:
            module.stepped = whole
        self.assertEqual(done, ["front panel", "back panel", "back panel"])
        self.assertIs(third.garment, first.garment)
        self.assertIsNot(second.garment, first.garment)

    def test_another_body_is_another_replay(self):
        one, two = on("bodice.measured", FRONT_PANEL), on("bodice.measured", FRONT_PANEL, build="full")
        self.assertNotEqual(one.garment.round_of("waist"), two.garment.round_of("waist"))

    def test_it_keeps_only_the_latest(self):
        block = on("skirt.two_panel")
        replay = Replay(kept=3)
        for number in range(6):
            pocket = step("pocket.patch", {"wide": 10.0 + number}, beside=Where("back", "waist"))
            replay.run("base", State(block.garment, block.demands), (pocket,), Context(block.chart))
        self.assertEqual(len(replay._kept), 3)

    def test_a_step_that_refuses_leaves_the_rest_standing(self):
        lost = step("neck.shape", {"wider": 12.0}, id="lost")
        made = on("bodice.plain", lost, step("closing.stand", id="buttons", middle=Where("front", "centre_front")))
        self.assertEqual([r.step for r in made.refused], ["lost"])
        self.assertTrue(made.garment.piece("front").holes)
        self.assertIn("lost", made.told)

    def test_every_operation_says_why_and_what_it_asks(self):
        for code, entry in OPERATIONS.items():
            with self.subTest(code):
                self.assertTrue(entry.title and entry.why and entry.family)
                self.assertTrue(all(option.why for option in entry.options))
                self.assertTrue(all(entry.wheres.values()))
                for option in entry.options:
                    if option.default is not None:
                        option.check(option.default)

    def test_what_breaks_is_said_in_one_sentence(self):
        from widehem.core.style import operation as module

        OPERATIONS.add("test.broken", module.Operation("test.broken", "x", "Broken", "it breaks", lambda job: 1 / 0))
        try:
            block = on("skirt.two_panel")
            with self.assertLogs(level="ERROR"):
                state = stepped(State(block.garment, block.demands), Step("a", "test.broken"), Context(block.chart))
            self.assertIn("cannot be done on these pieces", state.refused[0].saying.text())
        finally:
            del OPERATIONS["test.broken"]


if __name__ == "__main__":
    unittest.main()
