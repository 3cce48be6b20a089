"""Lengths down the body and along the arm."""

from widehem.core.body.measure import ARM_BENT, ARMS_DOWN, SEATED, STANDING, Measure, line

_DOWN, _ARM = "Down the body", "Along the arm"

LENGTHS = (
    Measure(
        "waist_hip", "Waist to hip", "length", _DOWN, 20.5, 8, 35,
        "At the side, measure straight down from the waist string to the hip string. The tape hangs; it does not follow the curve of the hip.",
        "Waist string to hip string, at the side", STANDING, line("side", (0, 61.8), (0, 82.0)), ("hip depth",),
    ),
    Measure(
        "waist_knee", "Waist to knee", "length", _DOWN, 59, 25, 85,
        "At the side, measure straight down from the waist string to the middle of the kneecap. The wearer looks ahead; looking down shortens it.",
        "Waist string to the middle of the kneecap", STANDING, line("side", (0, 61.8), (0, 121.0)),
    ),
    Measure(
        "waist_high_hip", "Waist to high hip", "length", _DOWN, 9, 3, 18,
        "At the side, measure straight down from the waist string to the top of the hip bone.",
        "Waist string to the top of the hip bone", STANDING, line("side", (0, 61.8), (0, 71.0)),
    ),
    Measure(
        "waist_floor", "Waist to floor", "length", _DOWN, 104, 45, 140,
        "At the side, measure straight down from the waist string to the floor. In the shoes of the costume; say so on the chart.",
        "Waist string to the floor", STANDING, line("side", (0, 61.8), (0, 168.4)), ("outside leg",), sided=True,
    ),
    Measure(
        "waist_ankle", "Waist to ankle", "length", _DOWN, 95, 40, 130,
        "At the side, measure straight down from the waist string to the ankle bone.",
        "Waist string to the ankle bone", STANDING, line("side", (0, 61.8), (0, 156.0)),
    ),
    Measure(
        "crotch_depth", "Crotch depth", "length", _DOWN, 27, 13, 42,
        "Seated on a hard chair, measure at the side from the waist string straight down to the seat of the chair.",
        "Waist string to the chair", SEATED, line("side", (3.0, 61.8), (3.0, 88.5)), ("body rise",), alone=False,
    ),
    Measure(
        "crotch_length", "Crotch length", "length", _DOWN, 70, 36, 120,
        "From the waist string at the front, between the legs, up to the waist string at the back. As close as trousers shall sit.",
        "Centre front waist through to centre back waist", STANDING, line("side", (-9.0, 61.8), (-10.2, 71.0), (-10.0, 80.0), (-7.6, 87.0), (-2.0, 90.5), (5.0, 90.8), (10.6, 88.6), (14.2, 84.0), (14.0, 77.5), (11.6, 70.6), (7.8, 61.8)), ("full crotch seam",),
    ),
    Measure(
        "inside_leg", "Inside leg", "length", _DOWN, 76, 28, 105,
        "From the crotch straight down the inside of the leg to the floor. A ruler held up between the legs gives a firm start.",
        "Crotch to the floor", STANDING, line("front", (1.6, 89.5), (1.6, 168.0)), ("inseam length",),
    ),
    Measure(
        "height", "Height", "length", _DOWN, 164, 80, 215,
        "Back to a wall, heels touching, without shoes. A book laid flat on the crown marks the wall.",
        "Crown to the floor", STANDING, line("back", (27.0, 0.4), (27.0, 168.4)), alone=False,
    ),
    Measure(
        "nape_waist", "Nape to waist, back", "length", _DOWN, 41, 20, 56,
        "Bend the head to find the bone at the nape, then straighten it. Measure down the spine to the waist string.",
        "Nape to the waist string", STANDING, line("back", (0, 25.0), (0, 61.8)), ("centre back length",), alone=False,
    ),
    Measure(
        "snp_waist_back", "Side neck to waist, back", "length", _DOWN, 42.5, 21, 58,
        "From the side neck point straight down over the shoulder blade to the waist string. Start at the very same spot as the front length.",
        "Side neck point to the waist string", STANDING, line("back", (5.8, 25.8), (5.8, 61.8)), alone=False,
    ),
    Measure(
        "snp_waist_front", "Side neck to waist, front", "length", _DOWN, 44.5, 20, 66,
        "From the side neck point over the bust point and straight down to the waist string. Start at the very same spot as the back length.",
        "Side neck point over the bust point to the waist string", STANDING,
        line("front", (5.8, 25.8), (7.6, 46.5), (7.2, 61.8)), ("front length",), alone=False,
    ),
    Measure(
        "front_neck_waist", "Neck pit to waist", "length", _DOWN, 36, 17, 52,
        "From the pit of the neck straight down to the waist string, the tape bridging the bust.",
        "Pit of the neck to the waist string", STANDING, line("front", (0, 28.0), (0, 61.8)), ("centre front length",),
    ),
    Measure(
        "bust_depth", "Bust depth", "length", _DOWN, 26.5, 12, 45,
        "From the side neck point straight to the bust point.",
        "Side neck point to bust point", ARMS_DOWN, line("front", (5.8, 25.8), (7.6, 46.5)),
    ),
    Measure(
        "snp_under_bust", "Side neck to under bust", "length", _DOWN, 34, 16, 54,
        "From the side neck point over the bust point to the crease under the bust.",
        "Side neck point to the crease under the bust", ARMS_DOWN, line("front", (5.8, 25.8), (7.6, 46.5), (7.4, 51.5)),
    ),
    Measure(
        "waist_bust", "Waist to bust level", "length", _DOWN, 17.5, 7, 28,
        "From the waist string straight up to the level of the bust points.",
        "Waist string to bust level", ARMS_DOWN, line("front", (9.8, 61.8), (9.8, 46.5)),
    ),
    Measure(
        "waist_under_bust", "Waist to under bust", "length", _DOWN, 10, 3, 20,
        "From the waist string straight up to the crease under the bust.",
        "Waist string to the crease under the bust", ARMS_DOWN, line("front", (8.6, 61.8), (8.6, 51.5)),
    ),
    Measure(
        "underarm_waist", "Underarm to waist", "length", _DOWN, 20.5, 9, 32,
        "A card held under the arm marks the level. Measure from it down the side to the waist string.",
        "Underarm to the waist string, at the side", ARMS_DOWN, line("side", (0.8, 43.0), (0.8, 61.8)), alone=False, sided=True,
    ),
    Measure(
        "armscye_depth", "Armscye depth", "length", _DOWN, 20.5, 11, 32,
        "A card held level under the arm marks the back. Measure from the nape down to that level.",
        "Nape to underarm level", ARMS_DOWN, line("back", (0, 25.0), (0, 42.0)), alone=False,
    ),
    Measure(
        "nape_floor", "Nape to floor", "length", _DOWN, 142, 60, 190,
        "From the nape down the back, in at the waist string, and on to the floor. In the shoes of the costume.",
        "Nape to the floor", STANDING, line("back", (-3.0, 25.0), (-3.0, 168.4)), alone=False,
    ),
    Measure(
        "arm_length", "Arm length", "length", _ARM, 58.5, 26, 80,
        "Arm bent, hand on the hip. From the shoulder tip over the point of the elbow to the wrist bone.",
        "Shoulder tip over the elbow to the wrist", ARM_BENT, line("back", (17.4, 30.2), (22.8, 61.0), (27.6, 80.0)),
        ("sleeve length",), alone=False, sided=True,
    ),
    Measure(
        "shoulder_elbow", "Shoulder to elbow", "length", _ARM, 34, 15, 48,
        "Arm bent. From the shoulder tip to the point of the elbow.",
        "Shoulder tip to the point of the elbow", ARM_BENT, line("back", (17.4, 30.2), (22.8, 61.0)), alone=False, sided=True,
    ),
    Measure(
        "underarm_wrist", "Underarm to wrist", "length", _ARM, 45, 19, 62,
        "Arm a little lifted. From the underarm along the inside of the arm to the wrist bone.",
        "Underarm to the wrist, inside the arm", ARMS_DOWN, line("front", (15.6, 42.5), (20.2, 62.0), (25.4, 80.0)),
        alone=False, sided=True,
    ),
)  # fmt: skip
