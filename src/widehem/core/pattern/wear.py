"""What a garment is made of and worn over: how close to the body it may be."""

from __future__ import annotations

from widehem.core.values import record

LAYER, PADDED_LAYER = 3.0, 6.0  # cm round the body that one takes
ARM_PART = 0.5  # of a layer's room, round an arm


@record(frozen=True)
class Wear:
    """cloth: woven, crisp or knit. stretch: per cent a knit gives. layers, padded: how many of each are worn underneath."""

    cloth: str = "woven"
    stretch: float = 0.0
    layers: float = 0.0
    padded: float = 0.0

    @property
    def knit(self) -> bool:
        return self.cloth == "knit"

    def under(self, *, limb: bool = False) -> float:
        """What is worn underneath takes so much round the body, or round an arm or leg, cm."""
        room = self.layers * LAYER + self.padded * PADDED_LAYER
        return room * ARM_PART if limb else room

    def least(self, body: float, woven: float, *, limb: bool = False) -> float:
        """The least ease over the body with everything underneath, cm. woven: the least of a woven cloth at this level."""
        under = self.under(limb=limb)
        return under - (body + under) * self.stretch / 200 if self.knit else under + woven

    def smallest(self, body: float, *, limb: bool = False) -> float:
        """Smaller than this it does not go on at all, cm."""
        full = body + self.under(limb=limb)
        return full / (1 + self.stretch / 100) if self.knit else full

    def cap_ease(self, share: float) -> tuple[float, float]:
        """The least and most a sleeve cap may be longer than its armhole, cm. share: 1 for a high cap, less for a lower one."""
        low, high = {"woven": (1.3, 5.0), "crisp": (0.0, 1.3), "knit": (0.0, 0.0)}[self.cloth]
        return low * share, high * share


USUAL_WEAR = Wear()
