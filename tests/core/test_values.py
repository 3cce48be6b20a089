"""Values and their copies: what a copy takes over, what it leaves behind, and when it is judged."""

import dataclasses
import unittest

from fontTools.misc.transform import Transform

from tests.bodies import drafted, skirt_chart
from widehem.core.drafting.method import METHODS
from widehem.core.pattern.edge import PatternError
from widehem.core.setting.quantity import Quantity
from widehem.core.values import elsewhere, kept, record, replace


@record(frozen=True)
class Strip:
    """A strip of cloth that must have a length."""

    long: float
    wide: float = 2.0

    def __post_init__(self) -> None:
        if self.long <= 0:
            raise ValueError("no length")

    @kept
    def area(self) -> float:
        return self.long * self.wide


class CopyTest(unittest.TestCase):
    def test_what_is_not_named_stays(self) -> None:
        self.assertEqual(replace(Strip(10.0, 3.0), long=4.0), Strip(4.0, 3.0))

    def test_what_was_worked_out_is_left_behind(self) -> None:
        first = Strip(10.0)
        self.assertEqual(first.area, 20.0)
        self.assertEqual(replace(first, long=4.0).area, 8.0)
        self.assertEqual(elsewhere(first, long=4.0).area, 8.0)
        self.assertEqual(first.area, 20.0)

    def test_a_copy_is_judged_as_a_new_one_is(self) -> None:
        with self.assertRaises(ValueError):
            replace(Strip(10.0), long=0.0)
        self.assertEqual(elsewhere(Strip(10.0), long=0.0).long, 0.0)  # whoever moves a thing answers for it

    def test_a_field_there_is_not(self) -> None:
        with self.assertRaisesRegex(TypeError, "Strip has no broad"):
            replace(Strip(10.0), broad=1.0)  # type: ignore[call-arg]

    def test_a_value_of_one_field_and_one_in_slots(self) -> None:
        @dataclasses.dataclass(frozen=True)
        class One:
            only: tuple[int, ...]

        self.assertEqual(replace(One((1, 2)), only=(3,)), One((3,)))
        self.assertEqual(replace(One((1, 2))), One((1, 2)))
        self.assertEqual(replace(Quantity(4.0, "bust", "bust"), value=5.0).value, 5.0)

    def test_a_garment_is_judged_and_a_piece_keeps_its_outline(self) -> None:
        garment = drafted(METHODS["skirt.two_panel"], skirt_chart()).garment
        with self.assertRaises(PatternError):
            replace(garment, pieces=garment.pieces[:1])  # a seam runs along what is not there
        piece = garment.pieces[0]
        self.assertLess(piece.open_by, 1e-6)
        _ = piece.surface, piece.edges[0].length
        for renamed in (piece.with_on_it(title="Another"), replace(piece, title="Another", balance=())):
            self.assertIs(renamed.ring, piece.ring)
            self.assertIs(renamed.surface, piece.surface)
        other = replace(piece, edges=tuple(edge.moved(Transform(1.0, 0.0, 0.0, 1.0, 3.0, 0.0)) for edge in piece.edges))
        self.assertAlmostEqual(other.bounds[0], piece.bounds[0] + 3.0, places=9)  # other edges: nothing of the outline stays
        edge = piece.edges[0]
        self.assertAlmostEqual(replace(edge, parts=edge.parts[:1], gaps=()).length, edge.parts[0].length, places=9)
        with self.assertRaises(PatternError):
            piece.with_on_it(middle="nowhere")


if __name__ == "__main__":
    unittest.main()
