"""Lists of measures: the order in which a session takes them, and the full thirty."""

from __future__ import annotations

from collections.abc import Iterable

from widehem.core.body.catalogue import CATALOGUE

MARKERS = ("waist", "hip")  # a string is tied at each first; what runs up and down is read between the strings

ORDER: tuple[str, ...] = (
    *MARKERS, "waist_front", "hip_front", "high_hip",
    "neck", "high_bust", "bust", "bust_front", "under_bust",
    "shoulder", "shoulder_drop", "across_chest", "bust_span", "strap_to_strap",
    "bust_depth", "snp_under_bust", "snp_waist_front", "front_neck_waist", "waist_bust", "waist_under_bust",
    "across_shoulders", "across_back", "nape_waist", "snp_waist_back", "armscye_depth", "shoulder_slope", "nape_floor", "underarm_waist",
    "waist_high_hip", "waist_hip", "waist_knee", "waist_ankle", "waist_floor", "inside_leg", "crotch_length",
    "thigh", "knee", "calf", "ankle",
    "armscye", "upper_arm", "arm_length", "shoulder_elbow", "elbow_bent", "underarm_wrist", "wrist", "hand",
    "crotch_depth", "head", "height",
)  # fmt: skip
assert set(ORDER) == set(CATALOGUE)
_PLACE = {code: number for number, code in enumerate(ORDER)}

FULL: tuple[str, ...] = (
    "waist", "hip", "waist_front", "hip_front", "neck", "high_bust", "bust", "bust_front", "under_bust", "shoulder", "across_chest",
    "bust_span", "bust_depth", "snp_waist_front", "across_shoulders", "across_back", "nape_waist", "snp_waist_back", "armscye_depth",
    "shoulder_slope", "waist_hip", "waist_knee", "waist_floor", "inside_leg", "armscye", "upper_arm", "arm_length", "elbow_bent", "wrist",
    "hand", "crotch_depth", "height",
)  # fmt: skip


def in_order(codes: Iterable[str]) -> list[str]:
    """These measures in the order of a session: the strings first, then front, back, down the leg, the arm, seated last."""
    return sorted(set(codes), key=_PLACE.__getitem__)
