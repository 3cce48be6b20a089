"""Girths and arcs: the tape goes round, level."""

from widehem.core.body.measure import ARM_BENT, ARMS_DOWN, STANDING, Measure, loop

_BODY, _LIMB = "Round the body", "Round arm, leg and head"

GIRTHS = (
    Measure(
        "waist", "Waist", "girth", _BODY, 69, 38, 180,
        "Tie a string at the natural waist: bend sideways, it settles in the crease. Lay the tape on the string, level, two fingers under it, while the wearer breathes normally.",
        "Waist string", STANDING, loop("front", 61.8, 12.1), ("natural waist",), of_the_hour=True,
    ),
    Measure(
        "hip", "Hip", "girth", _BODY, 94, 45, 200,
        "Find the fullest place of hips and seat, often lower than the bone, and tie a second string there. Lay the tape round it, level, two fingers under it.",
        "Hip string", STANDING, loop("front", 82.0, 17.3), ("seat", "full hip"),
    ),
    Measure(
        "high_hip", "High hip", "girth", _BODY, 86, 42, 190,
        "Measure down about a hand's breadth from the waist string to the top of the hip bone. Lay the tape round, level, without pulling it into the belly.",
        "Top of the hip bone", STANDING, loop("front", 71.0, 14.6), ("upper hip",),
    ),
    Measure(
        "bust", "Bust", "girth", _BODY, 88, 45, 180,
        "Lay the tape round the fullest part, over both bust points. Keep it level at the back, where it likes to slip down, and do not press it in.",
        "Both bust points", ARMS_DOWN, loop("front", 46.5, 15.4), ("chest", "full bust"), alone=False,
    ),
    Measure(
        "high_bust", "High bust", "girth", _BODY, 83, 44, 170,
        "Lay the tape high under the arms and above the bust. It rises a little at the back; keep it snug but not tight.",
        "Underarms, above the bust", ARMS_DOWN, loop("front", 41.5, 15.3), ("upper chest",), alone=False,
    ),
    Measure(
        "under_bust", "Under bust", "girth", _BODY, 74, 42, 160,
        "Lay the tape round the ribs directly under the bust. Read it breathed out, level all round.",
        "Crease under the bust", ARMS_DOWN, loop("front", 51.5, 14.2), ("rib cage",), alone=False,
    ),
    Measure(
        "neck", "Neck", "girth", _BODY, 37, 24, 60,
        "Stand the tape on edge round the base of the neck, through the pit of the neck and over the nape. A fine chain shows the line well.",
        "Nape, both side neck points, pit of the neck", STANDING, loop("front", 25.8, 5.0), ("neck base",),
    ),
    Measure(
        "bust_front", "Bust, front arc", "arc", _BODY, 46.5, 20, 110,
        "Pin or mark where the side seams shall run. Measure over the bust points from side seam to side seam, in front only.",
        "Side seam lines at bust level", ARMS_DOWN, loop("front", 46.5, 15.2), ("front bust",), alone=False,
    ),
    Measure(
        "waist_front", "Waist, front arc", "arc", _BODY, 36, 17, 100,
        "On the waist string, measure from side seam to side seam across the front. The back is what remains of the waist.",
        "Side seam lines on the waist string", STANDING, loop("front", 62.0, 11.9), of_the_hour=True,
    ),
    Measure(
        "hip_front", "Hip, front arc", "arc", _BODY, 46, 20, 110,
        "On the hip string, measure from side seam to side seam across the front. The back is what remains of the hip.",
        "Side seam lines on the hip string", STANDING, loop("front", 82.2, 17.0),
    ),
    Measure(
        "armscye", "Armscye", "girth", _LIMB, 40, 20, 70,
        "Lay the tape round the root of the arm, over the shoulder tip and through the underarm, where the sleeve will be sewn. Arm down, a finger under the tape.",
        "Shoulder tip, underarm", ARMS_DOWN, loop("front", 36.0, 3.4, 15.6), ("armhole girth",), alone=False,
    ),
    Measure(
        "upper_arm", "Upper arm", "girth", _LIMB, 28.5, 13, 60,
        "Find the widest place of the upper arm. Lay the tape round it square to the arm, the arm hanging and slack.",
        "Widest upper arm", ARMS_DOWN, loop("front", 47.0, 3.0, 18.8), ("bicep",), alone=False, sided=True,
    ),
    Measure(
        "elbow_bent", "Elbow, bent", "girth", _LIMB, 27.5, 14, 50,
        "Bend the arm and lay the tape round over the point of the elbow. The bent girth is what a narrow sleeve must pass.",
        "Point of the elbow", ARM_BENT, loop("front", 61.5, 2.8, 22.3), alone=False, sided=True,
    ),
    Measure(
        "wrist", "Wrist", "girth", _LIMB, 16, 9, 28,
        "Lay the tape round the wrist where the sleeve will be sewn, over the bone. Snug, not tight.",
        "Wrist bone", ARMS_DOWN, loop("front", 80.0, 2.5, 27.3), alone=False, sided=True,
    ),
    Measure(
        "hand", "Hand, closed", "girth", _LIMB, 22, 11, 36,
        "Lay the thumb into the palm as if slipping into a tight cuff. Measure round the knuckles at the widest place.",
        "Knuckles, thumb tucked in", "Hand narrow, thumb in the palm", loop("front", 87.5, 2.6, 29.2), alone=False, sided=True,
    ),
    Measure(
        "thigh", "Thigh", "girth", _LIMB, 55, 25, 110,
        "Lay the tape round the widest place of the thigh, close under the crotch, level. The wearer stands with feet a hand apart.",
        "Widest thigh", STANDING, loop("front", 93.0, 8.0, 8.8), sided=True,
    ),
    Measure(
        "knee", "Knee", "girth", _LIMB, 36, 18, 70,
        "Lay the tape round the middle of the kneecap. Standing, leg straight.",
        "Middle of the kneecap", STANDING, loop("front", 121.0, 4.6, 6.9), sided=True,
    ),
    Measure(
        "calf", "Calf", "girth", _LIMB, 35, 17, 65,
        "Lay the tape round the fullest place of the calf, square to the leg.",
        "Fullest calf", STANDING, loop("front", 134.0, 4.8, 6.7), sided=True,
    ),
    Measure(
        "ankle", "Ankle", "girth", _LIMB, 23, 12, 40,
        "Lay the tape round the ankle, over the bones. Snug, not tight.",
        "Ankle bones", STANDING, loop("front", 156.0, 2.6, 5.8), sided=True,
    ),
    Measure(
        "head", "Head", "girth", _LIMB, 56, 42, 68,
        "Lay the tape round the head above ears and brows, over the widest place at the back. Over the hair as it will be worn.",
        "Above brows and ears", STANDING, loop("front", 8.0, 7.7),
    ),
)  # fmt: skip
