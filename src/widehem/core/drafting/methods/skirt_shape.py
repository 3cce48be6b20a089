"""The side, the darts and the waist curve of a skirt panel, and truing one against the other."""

from __future__ import annotations

from widehem.core.drafting.methods.skirt_shares import Panel
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.waist import DartPlan, Waist, lay_dart, shut_waist, side_curve, waist_over_darts
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import solve_or_nearest
from widehem.core.setting.quantity import Quantity, drawn, smaller_of
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import record, replace

USUAL_HIP_DEPTH = 20.5
PER_CENTIMETRE = 0.97  # cm that the shut waist grows shorter by when the side comes in by one
SETTLED = 0.1  # cm: a correction this small leaves less than a tenth of a millimetre
LITTLE, SETTLED_LOWERED = 0.02, 3e-3  # cm: lowering a side changes its waist a little, so look once more
WORTH_SAYING = 0.1  # cm: what is less is trued on the paper without a word
LETTERS = {"back": "LMN", "front": "PQR"}
SHORTER = {("back", 1): (0,), ("back", 2): (0, 1), ("back", 3): (0, 0.5, 1), ("front", 1): (0,), ("front", 2): (2, 1)}


@record(frozen=True)
class Laid:
    """A panel laid on the sheet, cm.

    centre_x, way: where its centre line lies and which way the side is. inset, up: how far the side comes in and is
    raised at the waist. deep: lengths of the darts from the centre outwards.
    """

    panel: Panel
    centre_x: float
    way: int
    hip_depth: float
    inset: float
    up: float
    deep: tuple[float, ...]

    @property
    def centre(self) -> Point:
        """The waist on the centre line."""
        lean = self.panel.lean
        return Point(self.centre_x - self.way * lean.tilt, -lean.raised)

    @property
    def across(self) -> Point:
        """Square to the centre line at the waist, towards the side."""
        up = self.centre - Point(self.centre_x, self.hip_depth)
        return Point(-up.y, up.x).unit() * self.way

    def centre_line(self, length: float) -> Path:
        """From the hem up to the waist."""
        foot, hip = Point(self.centre_x, length), Point(self.centre_x, self.hip_depth)
        if not self.panel.lean.tilt:
            return Path.through(foot, self.centre)
        return Path.through(foot, hip) + side_curve(hip, self.centre, -self.panel.lean.tilt)

    @property
    def side_hip(self) -> Point:
        return Point(self.centre_x + self.way * self.panel.hip.value, self.hip_depth)

    @property
    def side_waist(self) -> Point:
        return Point(self.centre_x + self.way * (self.panel.hip.value - self.inset), -self.up)

    @property
    def sewn(self) -> float:
        """What the waist shall measure once its darts are sewn."""
        return self.panel.waist.value - self.panel.darts.value

    def side(self) -> Path:
        """The side from the hip up to the waist."""
        return side_curve(self.side_hip, self.side_waist, self.inset)

    def darts(self) -> list[DartPlan]:
        """The darts on the guide: a single front dart at the third nearer the side, else at equal parts."""
        number, guide = self.panel.number, self.centre.to(self.side_waist)
        parts = [2 / 3] if self.panel.name == "front" and number == 1 else [(i + 1) / (number + 1) for i in range(number)]
        return [
            lay_dart(
                f"{self.panel.name}_dart_{i}",
                self.centre,
                self.side_waist,
                guide * part,
                self.panel.each.value,
                deep,
                self.side_hip,
            )
            for i, (part, deep) in enumerate(zip(parts, self.deep, strict=True), 1)
        ]

    def over(self) -> float:
        """How much longer than wanted the waist curve comes out, darts shut."""
        curve, _ = shut_waist(self.centre, self.across, self.side_waist, self.side_hip, self.darts())
        return curve.length - self.sewn

    def waist(self, plans: list[DartPlan]) -> Waist | None:
        return waist_over_darts(self.centre, self.across, self.side_waist, self.side_hip, plans)


def dart_lengths(sheet: Sheet, panel: Panel, hip_depth: Quantity) -> list[Quantity]:
    """Dart lengths from the centre outwards, in proportion to the hip depth."""
    if not panel.number:
        return []
    longest = sheet.length(f"{panel.name}_dart_length")
    usual = [longest - less if less else longest for less in SHORTER[panel.name, panel.number]]
    if hip_depth.value == USUAL_HIP_DEPTH:
        return usual
    share = (hip_depth / Quantity(USUAL_HIP_DEPTH, source="constant")).value
    return [length * share for length in usual]


def lay_sides(sheet: Sheet, school: str, back: Panel, front: Panel, half: Quantity, hip_depth: Quantity) -> tuple[Laid, Laid]:
    """Set the side waist points so that both waists sew to their width and both sides are equally long."""
    if school == "fixed":
        up = sheet.length("side_up")
    else:
        base = min(back.side, front.side, key=float)
        up = smaller_of(base / 3, sheet.length("side_up")) if base.value > 0 else Quantity(0.0, source="constant")
    for panel in (back, front):
        if panel.waist.value <= panel.darts.value:
            words = f"The {panel.name} waist guide is {{0}}, not longer than its darts of {{1u}}: read waist and hip again."
            raise CannotDraft(("waist", "hip"), say(words, panel.waist.value, panel.darts.value))
    planned = [
        Laid(
            panel,
            x,
            way,
            hip_depth.value,
            panel.side.value,
            up.value,
            tuple(float(d) for d in dart_lengths(sheet, panel, hip_depth)),
        )
        for panel, x, way in ((back, 0.0, 1), (front, half.value, -1))
    ]
    laid = settle(planned[0], planned[1], up.value)
    words = "Lay off the waist widths level, then raise the side so that the waist sits square to it."
    with sheet.step("Side waist points", words):
        for panel_laid, letter in zip(laid, "HJ", strict=True):
            panel, name = panel_laid.panel, panel_laid.panel.name
            sheet.point(
                f"{name}_side_waist",
                f"{name.capitalize()} side at the waist",
                panel_laid.side_waist,
                letter,
                panel.waist,
                name,
            )
            guide = Path.through(panel_laid.centre, panel_laid.side_waist)
            sheet.line(f"{name}_waist_guide", f"{name.capitalize()} waist guide", guide, piece=name)
            sheet.sum(f"{name} side comes in", panel.side)
            trued = panel_laid.inset - panel.side.value
            if abs(trued) >= WORTH_SAYING:
                sheet.sum(
                    "more, so that the waist sews true" if trued > 0 else "less, so that the waist sews true",
                    drawn(abs(trued), ""),
                )
        sheet.sum("side up", up)
        for panel_laid in laid:
            lowered = up.value - panel_laid.up
            if lowered >= WORTH_SAYING:
                sheet.sum(f"{panel_laid.panel.name} lowered, so that the sides are equal", drawn(lowered, ""))
    return laid


def settle(back: Laid, front: Laid, up: float) -> tuple[Laid, Laid]:
    """True waists and sides against each other: what a shut waist is over or short goes to its side, then the longer
    side is lowered until both are equal; again until nothing moves."""
    for _ in range(12):
        over = (back.over(), front.over())
        back, front = (
            replace(laid, inset=laid.inset + extra / PER_CENTIMETRE, up=up)
            for laid, extra in zip((back, front), over, strict=True)
        )
        lengths = (back.side().length, front.side().length)
        if lengths[0] > lengths[1]:
            back = _lower(back, *lengths)
        else:
            front = _lower(front, lengths[1], lengths[0])
        lowered = abs(lengths[0] - lengths[1])
        if max(abs(over[0]), abs(over[1])) < (SETTLED if lowered < LITTLE else SETTLED_LOWERED):
            break
    return back, front


def _lower(laid: Laid, length: float, wanted: float) -> Laid:
    """The same panel, its side of this length, with the side point lowered until the side has the wanted length."""
    least = laid.up - 3 * (length - wanted) - 0.5
    up = solve_or_nearest(lambda up: replace(laid, up=up).side().length - wanted, laid.up, least)
    return replace(laid, up=up)


def draw_sides(sheet: Sheet, laid: tuple[Laid, Laid], length: Quantity) -> list[Path]:
    """Draw both side seams, from the waist down to the hem."""
    sides = []
    words = "From the hip upright, a little proud of the straight, to the side waist point; straight down below the hip."
    with sheet.step("Side seams", words):
        for panel in laid:
            name = panel.panel.name
            seam = panel.side().reverse() + Path.through(panel.side_hip, Point(panel.side_hip.x, length.value))
            figure = drawn(seam.length, f"{name} side seam")
            sheet.line(
                f"{name}_side",
                f"{name.capitalize()} side seam",
                seam,
                role="finished",
                figure=figure,
                piece=name,
                edge="side",
            )
            sheet.sum(f"{name} side seam", figure)
            sides.append(seam)
        sheet.rub_out("side_guide")
    return sides


def draw_waist(sheet: Sheet, laid: Laid, hip_depth: Quantity) -> Waist:
    """Lay the darts on the guide, then draw the waist over them shut."""
    panel, name = laid.panel, laid.panel.name
    plans = laid.darts()
    if plans:
        title = f"{name.capitalize()} darts" if panel.number > 1 else f"{name.capitalize()} dart"
        single_front = name == "front" and panel.number == 1
        where = "Middle at the third of the guide nearer the side" if single_front else "Middles at equal parts of the guide"
        with sheet.step(title, f"{where}, axis square to it, half the intake to each side."):
            for plan, letter, deep in zip(plans, LETTERS[name], dart_lengths(sheet, panel, hip_depth), strict=False):
                sheet.line(f"{plan.name}_axis", "Dart axis", Path.through(plan.middle, plan.point), piece=name)
                sheet.line(
                    f"{plan.name}_plan",
                    "Dart as laid off",
                    Path.through(plan.inner, plan.point, plan.outer),
                    piece=name,
                )
                sheet.point(f"{plan.name}_point", f"Point of {name} dart {letter}", plan.point, letter, piece=name)
                sheet.sum(f"{letter} deep", deep)
            sheet.sum("each takes in" if panel.number > 1 else "takes in", panel.each)
    waist = laid.waist(plans)
    if waist is None:
        words = f"The {name} waist curve does not meet its darts on a guide of {{0u}}: read waist, hip and waist to hip again."
        raise CannotDraft(("waist", "hip", "waist_hip"), say(words, laid.centre.to(laid.side_waist)))
    shut = "Shut the darts, draw one curve level from the centre and square to the side, open again."
    with sheet.step(
        f"{name.capitalize()} waist curve",
        shut if plans else "One curve, level from the centre and square to the side.",
    ):
        sheet.rub_out(
            f"{name}_waist_guide",
            "waist_level",
            *(f"{plan.name}_{what}" for plan in plans for what in ("axis", "plan")),
        )
        for dart, letter in zip(waist.darts, LETTERS[name], strict=False):
            takes = drawn(dart.inner.to(dart.outer), f"dart {letter} at the waist")
            sheet.draw_dart(dart, f"{name.capitalize()} dart {letter}", letter, takes, name)
            sheet.points[f"{dart.name}_inner"], sheet.points[f"{dart.name}_outer"] = dart.inner, dart.outer
        sewn = drawn(sum(part.length for part in waist.parts), f"{name} waist sewn")
        for i, part in enumerate(waist.parts, 1):
            title = f"{name.capitalize()} waist"
            sheet.line(f"{name}_waist_{i}", title, part, role="finished", figure=sewn, piece=name, edge="waist")
        sheet.sum(f"{name} waist, sewn", sewn)
    return waist
