"""The arm a sleeve is drawn for: how far round it is all the way down, and how wide a hem is there."""

from __future__ import annotations

from widehem.core.drafting.sheet import Sheet
from widehem.core.values import record

ELBOW_PART, WRIST_PART = 0.58, 0.57  # of the arm's length, of the upper arm: where they were not read
ROOM, WRIST_ROOM, HAND_ROOM, ELBOW_ROOM = 3.0, 2.5, 1.0, 1.0  # cm round the arm, the wrist, the closed hand, the bent elbow
TAPER = 10.0  # cm that a sleeve is narrower at the wrist than at the bicep line
AT_WRIST = 2.0  # cm above the wrist from which a sleeve is a long one


@record(frozen=True)
class Arm:
    """Girths of the arm: above, at the bent elbow, at the wrist, of the closed hand; and how far below the shoulder tip the
    elbow and the wrist lie, cm."""

    upper: float
    elbow: float
    wrist: float
    hand: float
    elbow_at: float
    wrist_at: float

    def long(self, length: float) -> bool:
        """Whether a sleeve of this length reaches the wrist."""
        return length >= self.wrist_at - AT_WRIST

    def girth_at(self, down: float, bicep: float) -> float:
        """Round the arm so far below the shoulder tip, cm. bicep: how far down the upper arm was measured."""
        if down >= self.elbow_at:
            part = min((down - self.elbow_at) / max(self.wrist_at - self.elbow_at, 1.0), 1.0)
            return self.elbow + (self.wrist - self.elbow) * part
        part = min(max((down - bicep) / max(self.elbow_at - bicep, 1.0), 0.0), 1.0)
        return self.upper + (self.elbow - self.upper) * part

    def hem_at(self, length: float, wide: float, bicep: float) -> float:
        """How wide a sleeve so wide at the bicep line usually is at its hem, cm: straight down to the elbow, 10 less at the
        wrist; never tighter than the arm, and at the wrist never so tight that the hand does not pass."""
        full = min(max(wide - TAPER, self.hand + HAND_ROOM, self.wrist + WRIST_ROOM), wide)
        part = (length - self.elbow_at) / max(self.wrist_at - AT_WRIST - self.elbow_at, 1.0)
        hem = wide + (full - wide) * min(max(part, 0.0), 1.0)
        return hem if self.long(length) else max(hem, self.girth_at(length, bicep) + ROOM)


def arm_of(sheet: Sheet) -> Arm:
    """The arm of a chart; what was not read is worked out of the upper arm, and of the length."""
    chart, upper = sheet.chart, sheet.measure("upper_arm").value
    wrist_at = chart.get("arm_length") or sheet.length("length").value
    elbow_at = chart.get("shoulder_elbow") or ELBOW_PART * wrist_at
    wrist = chart.get("wrist") or WRIST_PART * upper
    hand = chart.get("hand") or wrist + 2.0
    return Arm(upper, chart.get("elbow_bent") or upper - 1.0, wrist, hand, elbow_at, wrist_at)
