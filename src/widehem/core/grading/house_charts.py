"""The three size charts that ship: made up from round steps, one row per measure."""

from __future__ import annotations

import re
from collections.abc import Mapping

from widehem.core.grading.size_chart import SizeChart, lettered

# first+step/step after the break for curved, straight, child; - where a chart has no such row; cm
ROWS = """
bust 76+4/6 84+4/6 54+2/3
high_bust 71+4/5 82+4/6 54+2/3
under_bust 62+4/5.5 78+4/6 51+2/3
waist 58+4/7 70+4/7 53+1/2
hip 83+4/5 86+4/5 56+2/3.5
high_hip 75+4/5.5 81+4/5.5 55+1.7/3
height 166+0 174+1/0 98+6
neck 34+1/1.2 36+1/1.5 28.5+0.5/0.75
armscye_depth 19.1+0.5/0.7 20.5+0.6/0.7 12.4+0.55/0.75
across_back 31.4+1/1.2 35.4+1/1.4 24.9+0.5/0.75
across_chest 29.4+1/1.2 33.4+1/1.4 22.9+0.5/0.75
shoulder 11.3+0.3 13.3+0.3 9.2+0.2/0.3
across_shoulders 35.8+0.9/1 40.5+0.9/1.1 29.7+0.6/0.85
shoulder_drop 3.9+0.05 4.6+0.05 3.2+0.1
shoulder_slope 41.6+0.55/0.6 44.2+0.6 26.8+1.35/1.45
strap_to_strap 23+1/1.2 27+1/1.4 16.5+0.5/0.75
bust_span 17.6+0.4/0.6 18.4+0.4/0.6 15.4+0.2/0.3
bust_depth 25.1+0.5/1 26+0.5/0.7 16.8+0.6/0.75
bust_front 40.5+2/3.5 43+2/3 27+1/1.5
waist_front 30.5+2/3.5 36+2/3.5 27+0.5/1
hip_front 40.5+2/2.5 42+2/2.5 27+1/1.75
nape_waist 40.3+0.4 42.8+0.5/0.4 24.5+1.5
snp_waist_back 41.8+0.45 44.3+0.5 26+1.5
snp_waist_front 43.8+0.45/1 44.8+0.5/0.6 26+1.5
front_neck_waist 35.9+0.25/0.75 36.5+0.3 19.2+1.4/1.35
waist_bust 18+0 18.3+0/-0.1 8.7+0.9/0.75
snp_under_bust 32.6+0.5/1 33.5+0.5/0.7 24.3+0.6/0.75
waist_under_bust 10.5+0 10.8+0/-0.1 -
underarm_waist 21.2-0.1/-0.3 22.3-0.1/-0.3 12.1+0.95/0.75
nape_floor 142.8+0.4 150.4+1.1/0.4 83.7+5.3
waist_hip 20.5+0 22+0 12.3+0.75
waist_high_hip 9+0 9.7+0 5.4+0.3
crotch_depth 26.3+0.3/0.5 27+0.4/0.5 19+0.55/0.75
crotch_length 66.6+1.2/1.6 68.5+1.4/1.5 47.4+1.4/2.1
waist_knee 60+0 62.6+0.4/0 35.3+2.2
waist_ankle 96+0 100.9+0.6/0 56.8+3.5
waist_floor 105.5+0 110.6+0.6/0 62.2+3.8
inside_leg 78.2-0.3/-0.5 82.6+0.2/-0.5 42.2+3.2/3.1
armscye 36+1.4/1.8 39.3+1.4/2 24.6+1/1.4
upper_arm 24.9+1.2/1.5 26.9+1.2/1.6 20+0.5/0.75
elbow_bent 24.5+1/1.2 26.5+1/1.3 19+0.5/0.75
wrist 15.1+0.3/0.4 15.6+0.3/0.4 13.9+0.1/0.2
hand 21.1+0.3/0.4 21.6+0.3/0.4 17.9+0.1/0.2
arm_length 58+0.4 62+0.4/0.3 35+2.1
shoulder_elbow 33.5+0.2 36+0.2 20.3+1.2
underarm_wrist 45+0.2 47.8+0.3/0 26.9+1.6
thigh 48.3+2.4/3 50.1+2.4/3 32.1+1.2/2.1
knee 32+1.5/2 33.2+1.5/2 20.5+0.8/1.4
calf 31+1.4/1.8 32.3+1.4/1.8 21.4+0.7/1.3
ankle 20.3+1/1.2 21+1/1.2 13.7+0.5/0.8
head 55.6+0.2 56.2+0.2 51.9+0.4
"""
_CELL = re.compile(r"^(\d+(?:\.\d+)?)([+-]\d+(?:\.\d+)?)(?:/(-?\d+(?:\.\d+)?))?$")


def _row(cell: str, before: int, after: int) -> tuple[float, ...]:
    """The values of a row: so many steps, then so many of the step behind the break."""
    found = _CELL.match(cell)
    assert found is not None, cell
    first, step = float(found[1]), float(found[2])
    later = float(found[3]) if found[3] else step
    return tuple(
        round(first + step * min(number, before) + later * max(number - before, 0), 2) for number in range(before + after + 1)
    )


def _chart(code: str, name: str, column: int, before: int, after: int, base: int, key: str) -> SizeChart:
    cells = (line.split() for line in ROWS.strip().splitlines())
    rows = {words[0]: _row(words[column], before, after) for words in cells if words[column] != "-"}
    sizes = tuple(str(number) for number in range(1, before + after + 2))
    return SizeChart(code, name, code, key, sizes, lettered(len(sizes), base - 1), base - 1, rows)


HOUSE: Mapping[str, SizeChart] = {
    chart.code: chart
    for chart in (
        _chart("curved", "House chart, curved", 1, 7, 4, 5, "bust"),
        _chart("straight", "House chart, straight", 2, 6, 3, 4, "bust"),
        _chart("child", "House chart, child", 3, 3, 6, 5, "height"),
    )
}
