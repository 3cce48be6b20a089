"""Bodies to test with: named builds with round figures, and random ones for properties."""

from hypothesis import strategies as st

from widehem.core.body.chart import Chart, chart_of
from widehem.core.body.estimates import estimate
from widehem.core.body.figure_tables import TABLES
from widehem.core.design.design import method_design
from widehem.core.design.make import Made, make
from widehem.core.drafting.cap import Armhole
from widehem.core.drafting.method import METHODS, Method
from widehem.core.pattern.check import Case
from widehem.core.pattern.checks.body import Girth, finished
from widehem.core.pattern.piece import Piece

# build: waist, hip, waist_hip, waist_knee, height
BUILDS = {
    "typical": (69, 94, 20.5, 59, 164),
    "full": (88, 100, 21, 60, 168),
    "slight": (60, 85, 19, 57, 160),
    "hourglass": (62, 104, 22, 62, 172),
    "straight": (80, 90, 20, 60, 176),
    "round": (115, 104, 20, 59, 162),
    "child": (57, 66.5, 16, 44.5, 128),
}


def drafted(
    method: Method, chart: Chart, options: dict | None = None, ease: dict | None = None, armhole: Armhole | None = None
) -> Made:
    """A block by a method on a chart."""
    return make(method_design(method, options, ease), chart, armhole=armhole)


def girth(made: Made, name: str) -> float:
    """A girth of a garment as it is held against the body, cm."""
    return finished(Case(made.garment, made.demands, made.wear), asked(made, name))


def asked(made: Made, name: str) -> Girth:
    """What is asked of a girth."""
    return next(demand for demand in made.girths if demand.name == name)


def on_sheet(made: Made, name: str) -> Piece:
    """A piece as it lies on the sheet."""
    return next(piece for piece in made.laid if piece.name == name)


def skirt_chart(build: str = "typical", **changes: float) -> Chart:
    """The chart of a named build, with some measures changed."""
    values = dict(zip(("waist", "hip", "waist_hip", "waist_knee", "height"), BUILDS[build], strict=True))
    return chart_of({**values, **changes})


def skirt(build: str = "typical", options: dict | None = None, ease: dict | None = None, **changes: float) -> Made:
    """The two-panel skirt on a named build, without ease at the waist unless it is named: as the figures by hand have it."""
    chart = skirt_chart(build, **changes)
    return make(method_design(METHODS["skirt.two_panel"], options, {"waist": 0.0, **(ease or {})}), chart)


@st.composite
def skirt_bodies(draw: st.DrawFn) -> dict[str, float]:
    """Measures of any body there might be, and a few there might not."""
    hip = draw(st.floats(50, 170))
    return {
        "hip": round(hip, 1),
        "waist": round(draw(st.floats(max(40, hip - 55), hip + 25)), 1),
        "waist_hip": round(draw(st.floats(9, 30)), 1),
        "waist_knee": round(draw(st.floats(25, 80)), 1),
    }


skirt_settings = st.fixed_dictionaries(
    {},
    optional={
        "school": st.sampled_from(["auto", "fixed", "shared"]),
        "ease_place": st.sampled_from(["back", "even"]),
        "length": st.floats(20, 140),
        "back_darts": st.floats(2, 6),
        "front_dart": st.floats(1.5, 4),
        "side_up": st.floats(0, 2),
        "side_most": st.floats(1, 4.5),
        "opening_at": st.sampled_from(["centre_back", "side", "none"]),
    },
)
skirt_ease = st.fixed_dictionaries({}, optional={"waist": st.floats(0, 2), "hip": st.floats(2, 6)})

# upper bodies: figure table and the five measures they are known by
UPPER = {
    "typical": ("curved", {"height": 164, "bust": 88, "high_bust": 83, "waist": 69, "hip": 94}),
    "full": ("curved", {"height": 166, "bust": 116, "high_bust": 104, "waist": 98, "hip": 118}),
    "slight": ("curved", {"height": 160, "bust": 80, "high_bust": 77, "waist": 60, "hip": 85}),
    "straight": ("straight", {"height": 182, "bust": 100, "high_bust": 98, "waist": 86, "hip": 98}),
    "belly": ("straight", {"height": 176, "bust": 116, "high_bust": 115, "waist": 122, "hip": 114}),
    "hourglass": ("curved", {"height": 168, "bust": 98, "high_bust": 88, "waist": 66, "hip": 106}),
    "child": ("child", {"height": 128, "bust": 66, "high_bust": 66, "waist": 60, "hip": 70}),
    "tall": ("curved", {"height": 184, "bust": 84, "high_bust": 81, "waist": 64, "hip": 90}),
}
BELLY = {"waist_front": 66.0, "hip_front": 58.0}  # cm: the front arcs of a body whose girth lies in front


def upper_chart(figure: str, known: dict[str, float], **changes: float) -> Chart:
    """A whole chart: what is known, and everything else as the figure table has it, read to a millimetre."""
    table = TABLES[figure]
    found = estimate(chart_of(known, figure=figure), table).found
    return chart_of({**{code: max(1.0, round(e.cm, 1)) for code, e in found.items()}, **known, **changes}, figure=figure)


def upper_build(build: str = "typical", **changes: float) -> Chart:
    figure, known = UPPER[build]
    return upper_chart(figure, known, **{**(BELLY if build == "belly" else {}), **changes})


@st.composite
def upper_bodies(draw: st.DrawFn) -> Chart:
    """The chart of any upper body there might be: full, slight, broad, a child, read with the usual errors."""
    figure = draw(st.sampled_from(["curved", "straight", "child"]))
    bust = draw(st.floats(55, 80) if figure == "child" else st.floats(76, 140))
    cup = draw(st.floats(0, {"curved": 14, "straight": 6, "child": 2}[figure]))
    known = {
        "height": draw(st.floats(105, 150) if figure == "child" else st.floats(148, 200)),
        "bust": bust,
        "high_bust": bust - cup,
        "waist": bust * draw(st.floats(0.62, 1.08)),
        "hip": bust * draw(st.floats(0.85, 1.2)),
    }
    known = {code: round(value, 1) for code, value in known.items()}
    exact = upper_chart(figure, known)
    off = {
        code: draw(st.floats(-0.8, 0.8))
        for code in ("across_back", "across_chest", "armscye_depth", "bust_depth", "snp_waist_front", "shoulder")
    }
    return upper_chart(figure, known, **{code: round(exact.values[code] + by, 1) for code, by in off.items()})
