"""What is done before a fitting and looked at in it, round by round."""

BEFORE = (
    "Cut it in cheap cloth of the right weight; press it without shrinking it.",
    "Mark grain, centre front and centre back, bust, waist and hip lines, panel lines.",
    "Stay-stitch and turn neck and armhole, so that no raw edge confuses the eye.",
    "Baste the hems; sew with long stitches, to be unpicked.",
    "Press one side of the closing under and mark the other: it is pinned on the body.",
    "Lay it beside this list and walk it with the tape.",
)
FIRST_ROUND = (
    "The wearer stands in the foundation and the shoes of the costume.",
    "Look at structure first, then neckline, main lines, armhole, shoulder, darts; note what is good as well.",
    "Both sleeves in, or none: do not judge with one sleeve on.",
    "Sit, reach, bow, climb: as the part asks for.",
)
LATER_ROUNDS = (
    "Look first at what was altered, then at all of it again.",
    "After a large change cut the toile anew.",
    "Stop when the wearer is cold, tired or in pain.",
)
