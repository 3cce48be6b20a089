"""What is seen on the body, what may be behind it, and how each of that is done to the paper."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from widehem.core.setting.option import Value
from widehem.core.setting.registry import Registry
from widehem.core.values import record

Settings = Callable[[float], Mapping[str, Value]]
CUP = "cup"  # bust over high bust


@record(frozen=True)
class Cause:
    """Something that may be behind a sign. words: what it is about the body; figure: the measure it shows in, '' for none; more: whether
    the body has more there than the paper, or less. alteration: what is done, with settings for so much pinned, cm. option: a setting of the
    design that would do it, in words; '' for none."""

    code: str
    words: str
    figure: str
    more: bool
    alteration: str
    settings: Settings
    option: str = ""


CAUSES: Registry[Cause] = Registry("cause")
for _cause in (
    Cause("neck_wide", "the neckline is wide for this neck", "neck", False, "alter.gape", lambda x: {"by": x, "edge": "neck"}),
    Cause("chest_hollow", "the chest is hollow", "across_chest", False, "alter.across", lambda x: {"by": -x, "part": "front"}),
    Cause("cup_small", "the cup is small for this bust", CUP, True, "alter.bust", lambda x: {"by": x / 2}),
    Cause("cup_large", "the cup is large for this bust", CUP, False, "alter.bust", lambda x: {"by": -x / 2}),
    Cause("square", "the shoulders are squarer than drafted", "shoulder_drop", False, "alter.slope", lambda x: {"by": x}),
    Cause("sloping", "the shoulders slope more than drafted", "shoulder_drop", True, "alter.slope", lambda x: {"by": -x}),
    Cause("front_short", "the front is short", "snp_waist_front", True, "alter.length", lambda x: {"by": x, "part": "front"}),
    Cause("front_long", "the front is long", "snp_waist_front", False, "alter.length", lambda x: {"by": -x, "part": "front"}),
    Cause("bust_tight", "there is little room at the bust", "bust", True, "alter.side", lambda x: {"by": x, "level": "bust"}, "ease at the bust"),
    Cause("waist_tight", "there is little room at the waist", "waist", True, "alter.side", lambda x: {"by": x, "level": "waist"}, "ease at the waist"),
    Cause("hip_tight", "there is little room at the hip", "hip", True, "alter.side", lambda x: {"by": x, "level": "hip"}, "ease at the hip"),
    Cause("all_tight", "it is small all round", "bust", True, "alter.side", lambda x: {"by": x, "level": "all"}, "ease all round"),
    Cause("chest_wide", "the front is wide across", "across_chest", False, "alter.across", lambda x: {"by": -x, "part": "front"}),
    Cause("chest_gapes", "the front armhole stands off", "", False, "alter.gape", lambda x: {"by": x, "edge": "armhole"}),
    Cause("shoulder_long", "the shoulder is long", "shoulder", False, "alter.shoulder", lambda x: {"by": -x}),
    Cause("shoulder_short", "the shoulder is short", "shoulder", True, "alter.shoulder", lambda x: {"by": x}),
    Cause("round_back", "the back is rounded", "snp_waist_back", True, "alter.length", lambda x: {"by": x}),
    Cause("back_wide", "the back is wide across", "across_back", False, "alter.across", lambda x: {"by": -x, "part": "back"}),
    Cause("back_narrow", "the back is narrow across", "across_back", True, "alter.across", lambda x: {"by": x, "part": "back"}),
    Cause("back_long", "the back is long between neck and waist", "nape_waist", False, "alter.length", lambda x: {"by": -x}),
    Cause("hollow_back", "the back is hollow at the waist", "nape_waist", False, "alter.centre", lambda x: {"by": -x}),
    Cause("armhole_low", "the underarm lies low", "armscye_depth", False, "alter.underarm", lambda x: {"by": x}),
    Cause("armhole_high", "the underarm lies high", "armscye_depth", True, "alter.underarm", lambda x: {"by": -x}),
    Cause("cap_high", "the cap is high for this arm", "", False, "alter.cap", lambda x: {"by": -x}),
    Cause("cap_low", "the cap is low", "", True, "alter.cap", lambda x: {"by": x}),
    Cause("bicep_small", "the sleeve is narrow", "upper_arm", True, "alter.bicep", lambda x: {"by": x}, "ease of the sleeve"),
    Cause("pitch", "the arm hangs further forward or back", "", True, "alter.turn", lambda x: {"by": x}),
    Cause("belly", "the stomach lifts the front", "waist_front", True, "alter.centre", lambda x: {"by": x, "part": "front"}),
    Cause("seat_full", "the seat lifts the back", "hip", True, "alter.seat", lambda x: {"by": x}),
    Cause("hem", "the hem alone is out", "", True, "alter.hem", lambda x: {"front": x, "side": x / 2, "back": 0.0}),
    Cause("fork_short", "the fork is short", "crotch_length", True, "alter.fork", lambda x: {"by": x}),
    Cause("fork_long", "the fork is long", "crotch_length", False, "alter.fork", lambda x: {"by": -x}),
    Cause("rise_short", "the back rise is short", "crotch_length", True, "alter.seat", lambda x: {"by": x}),
    Cause("rise_long", "the back rise is long", "crotch_length", False, "alter.seat", lambda x: {"by": -x}),
    Cause("back_waist", "the back waist is wide", "waist", False, "alter.centre_back", lambda x: {"by": x}),
):  # fmt: skip
    CAUSES.add(_cause.code, _cause)


@record(frozen=True)
class Sign:
    """Something that is seen. words: as it is said; where: at what it is looked at; causes: what may be behind it, with how often it is."""

    code: str
    words: str
    where: str
    causes: Mapping[str, float]


LOOK_AT: Mapping[str, str] = {
    "structure": "Structure", "neckline": "Neckline", "lines": "Main lines", "armhole": "Armhole", "shoulder": "Shoulder", "darts": "Darts",
    "sleeve": "Sleeve", "seat": "Seat", "hem": "Hem",
}  # fmt: skip
SIGNS: Registry[Sign] = Registry("sign")
for _sign in (
    Sign("will_not_close", "it will not close", "structure", {"all_tight": 0.9, "cup_small": 0.4, "back_narrow": 0.3}),
    Sign("waist_tight", "it pulls at the waist", "structure", {"waist_tight": 0.9, "belly": 0.3}),
    Sign("hip_tight", "it pulls at the hip, or rides up", "structure", {"hip_tight": 0.9, "seat_full": 0.3}),
    Sign("neck_gapes", "the neckline gapes", "neckline", {"neck_wide": 0.7, "chest_hollow": 0.6, "cup_small": 0.4, "square": 0.3}),
    Sign("folds_back_waist", "folds lie across the back waist", "lines", {"back_long": 0.8, "hollow_back": 0.5, "hip_tight": 0.3, "sloping": 0.15}),
    Sign("side_swings", "the side seam swings", "lines", {"front_short": 0.5, "cup_small": 0.4, "belly": 0.5, "seat_full": 0.4}),
    Sign("front_armhole_gapes", "the front armhole gapes", "armhole",
        {"cup_small": 0.5, "chest_gapes": 0.45, "chest_wide": 0.4, "square": 0.3, "shoulder_long": 0.2}),
    Sign("back_armhole_gapes", "the back armhole gapes", "armhole", {"round_back": 0.6, "back_wide": 0.4, "sloping": 0.3}),
    Sign("cannot_reach", "the arms cannot reach forward", "armhole", {"back_narrow": 0.8, "bicep_small": 0.3, "armhole_low": 0.3}),
    Sign("rises_with_arm", "it rises with the arm", "armhole", {"armhole_low": 0.7, "cap_high": 0.5, "bicep_small": 0.3}),
    Sign("cuts_underarm", "it cuts under the arm", "armhole", {"armhole_high": 0.9, "bust_tight": 0.3}),
    Sign("past_bone", "the shoulder seam ends past the bone", "shoulder", {"shoulder_long": 0.8, "back_wide": 0.2}),
    Sign("short_of_bone", "the shoulder seam ends short of the bone", "shoulder", {"shoulder_short": 0.8, "back_narrow": 0.2}),
    Sign("drags_from_neck", "drags run from the neck to the shoulder tip", "shoulder", {"sloping": 0.8, "shoulder_long": 0.15}),
    Sign("drags_from_tip", "drags run from the shoulder tip to the neck", "shoulder", {"square": 0.7, "shoulder_short": 0.15}),
    Sign("drags_bust", "drags run from the bust to the armhole or the side", "darts", {"cup_small": 0.8, "front_short": 0.3, "bust_tight": 0.3}),
    Sign("empty_bust", "there is empty cloth over the bust", "darts", {"cup_large": 0.8, "front_long": 0.3}),
    Sign("cap_drags", "drags run from the cap", "sleeve", {"cap_low": 0.7, "bicep_small": 0.5, "back_narrow": 0.35, "sloping": 0.2}),
    Sign("arm_tight", "the sleeve is tight round the arm", "sleeve", {"bicep_small": 0.9, "cap_high": 0.2}),
    Sign("sleeve_twists", "the sleeve twists", "sleeve", {"pitch": 0.9}),
    Sign("smile", "lines smile from the fork", "seat", {"fork_short": 0.7, "rise_short": 0.5, "hip_tight": 0.3}),
    Sign("frown", "lines frown under the seat", "seat", {"fork_long": 0.6, "rise_long": 0.6}),
    Sign("waist_gapes", "the back waist gapes", "seat", {"back_waist": 0.8, "rise_short": 0.3}),
    Sign("drops_seated", "the waist drops when seated", "seat", {"rise_short": 0.8, "fork_short": 0.3}),
    Sign("hem_rises", "the hem rises in front", "hem", {"front_short": 0.6, "cup_small": 0.5, "belly": 0.5, "hem": 0.3}),
    Sign("hem_dips", "the hem dips in front", "hem", {"front_long": 0.6, "round_back": 0.4, "hem": 0.3}),
):  # fmt: skip
    SIGNS.add(_sign.code, _sign)
