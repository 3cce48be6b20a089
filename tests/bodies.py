"""Bodies to test with: named builds with round figures, and random ones for properties."""

from hypothesis import strategies as st

from widehem.core.body.chart import Chart, chart_of
from widehem.core.drafting.method import METHODS, Draft, draft

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


def skirt_chart(build: str = "typical", **changes: float) -> Chart:
    """The chart of a named build, with some measures changed."""
    values = dict(zip(("waist", "hip", "waist_hip", "waist_knee", "height"), BUILDS[build], strict=True))
    return chart_of({**values, **changes})


def skirt(build: str = "typical", options: dict | None = None, ease: dict | None = None, **changes: float) -> Draft:
    """The two-panel skirt on a named build."""
    return draft(METHODS["skirt.two_panel"], skirt_chart(build, **changes), options or {}, ease or {})


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
