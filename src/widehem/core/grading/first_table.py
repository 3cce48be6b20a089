"""The table of shift rules that ships, for a step of 4 cm of girth."""

from __future__ import annotations

from widehem.core.grading.tables import UNIT, Rule, RuleTable

# out and up, cm a step of the half pattern: out from CB, CF, the crease or the middle of the sleeve, up from the waist or crotch line
_BACK = """
neck/centre_back 0 0.4
neck/shoulder 0.2 0.45
*@shoulder.legs 0.35 0.43
*@shoulder.point 0.35 0.43
armhole/shoulder 0.5 0.4
armhole#1 or *@armhole.legs 0.5 0.15
armhole/side 1 -0.1
side/waist 1 0
side@waist 1 0
*@waist.legs 0.45 0
*@waist.point 0.45 0
*dart*@inside.top 0.45 0
*dart*@inside.bottom 0.45 0
*dart*@inside.inner 0.45 0
*dart*@inside.outer 0.45 0
waist/centre_* 0 0
centre_*@waist 0 0
"""
_FRONT = """
centre_front/neck 0 0.25
neck/gorge 0 0.25
front_edge/gorge 0 0.25
neck/shoulder 0.2 0.45
armhole/shoulder 0.5 0.4
armhole#1 or *@armhole.legs 0.5 0.15
armhole/side 1 -0.1
+bust_point 0.2 -0.05
*@waist.legs 0.2 0
*@waist.point 0.2 -0.05
*dart*@inside.top 0.2 -0.05
*dart*@inside.bottom 0.2 0
*dart*@inside.inner 0.2 0
*dart*@inside.outer 0.2 0
*bust_dart*.point 0.2 -0.05
side/waist 1 0
side@waist 1 0
waist/centre_* 0 0
centre_*@waist 0 0
centre_front:* 0 0
front_edge/hem 0 0
"""
_BELOW = """
side@hip 1 0
side/hem 1 0
hem/centre_* 0 0
"""
# held up without shoulders: the top edge goes with the underarm behind, and with the chest in front
_BARE = """
side/neck 1 -0.1
side@waist 1 0
side@hip 1 0
side/hem 1 0
hem/centre_* 0 0
centre_*@waist 0 0
"""
_BARE_BACK = """
neck/centre_back 0 -0.1
*dart*@inside.top 0.5 -0.1
*dart*@inside.bottom 0.5 0
*dart*@inside.inner 0.5 0
*dart*@inside.outer 0.5 0
"""
_BARE_FRONT = """
neck/centre_front 0 0.4
neck/panel 0.2 0.4
neck/armhole 0.45 0.4
armhole/side 1 -0.1
panel!bust* 0.2 -0.05
+bust_point 0.2 -0.05
panel@waist 0.2 0
panel/hem 0.2 0
"""
_SLEEVE = """
cap#top 0 0.4
cap!pitch 0.3 0.2
cap/underarm* 0.6 0
underarm*/wrist 0.2 0
"""
_S_HEAD = """
cap!front of the arm 0 0
cap#top 0.3 0.4
cap#low 0.3 -0.4
cap/underarm* 0.6 0
underarm*/wrist 0.2 0
"""
_SKIRT = """
side/waist 1 0
side@hip 1 0
side/hem 1 0
waist/centre_* 0 0
hem/centre_* 0 0
"""
_LEG = """
side/waist 0.6 0.3
side@hip 0.6 0.1
waist/crotch 0.4 0.3
*@waist.legs 0 0.3
*@waist.point 0 0.3
crotch#low 0.4 0.05
{fork}
side@knee 0.25 0
inseam@knee 0.25 0
side/hem 0.25 0
inseam/hem 0.25 0
=waist 0 0.3
"""
# in one with a leg everything is ruled from the centre: the crease moves out by the 0.4 that the centre of a leg moves in
_WHOLE = """
side@hip 1 -0.2
centre_*/crotch 0 0
crotch#low 0 -0.25
{fork}
side@knee 0.65 0
inseam@knee 0.15 0
side/hem 0.65 0
inseam/hem 0.15 0
"""


def _rules(text: str) -> tuple[Rule, ...]:
    found = []
    for line in text.strip().splitlines():
        pattern, out, up = line.rsplit(" ", 2)
        found.append(Rule(pattern, float(out), float(up)))
    return tuple(found)


FIRST = RuleTable(
    "first", "First table", UNIT,
    {
        "upper_back": _rules(_BACK + _BELOW.strip()),
        "upper_front": _rules(_FRONT + _BELOW.strip()),
        "bare_back": _rules(_BARE_BACK + _BARE.strip()),
        "bare_front": _rules(_BARE_FRONT + _BARE.strip()),
        "sleeve": _rules(_SLEEVE),
        "s_head": _rules(_S_HEAD),
        "collar": _rules("collar_neck/collar_front 0.53 0\ncollar_front/collar_outer 0.53 0"),
        "lower_back": _rules(_SKIRT),
        "lower_front": _rules(_SKIRT),
        "leg_back": _rules(_LEG.replace("{fork}", "crotch/inseam 0.8 -0.11")),
        "leg_front": _rules(_LEG.replace("{fork}", "crotch/inseam 0.6 0")),
        "whole_back": _rules(_BACK + _WHOLE.replace("{fork}", "crotch/inseam -0.4 -0.41").strip()),
        "whole_front": _rules(_FRONT + _WHOLE.replace("{fork}", "crotch/inseam -0.2 -0.3").strip()),
    },
)  # fmt: skip
