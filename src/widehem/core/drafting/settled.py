"""Drawing again with what came out: an armhole that is too tight for the arm is lowered, one that gapes in front has its
shoulder seam moved."""

from __future__ import annotations

from collections.abc import Callable

from widehem.core.drafting.sheet import Sheet
from widehem.core.pattern.checks.upper import ARMHOLE_OVER
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import record, replace

TIMES = 5  # that a draft is drawn at most
LOWERED_MOST = 3.0  # cm
PER_LENGTH = 0.5  # how far the underarm goes down for each centimetre the armhole lacks
FORWARD_MOST = 0.7  # cm
GAPES = 0.2  # cm that the front armhole may be longer
NEAR = 0.02  # cm


@record(frozen=True)
class Settled:
    """lowered: how far the underarm lies below where it was measured, so that the armhole goes round the arm, cm. forward: how
    far the shoulder seam lies towards the front at the bone, so that the front armhole does not gape, cm. cup: how much less each half
    front is opened for the bust than by the bust difference, so that its girth comes out, cm."""

    lowered: float = 0.0
    forward: float = 0.0
    cup: float = 0.0


AS_MEASURED = Settled()
Once = Callable[[Settled], tuple[float, float]]


def by_measure(sheet: Sheet) -> bool:
    """Whether the underarm lies by the measure; by a school it stays where that puts it."""
    return sheet.choice("level") == "measured"


def settle_armhole(
    sheet: Sheet, once: Once, *, lowers: bool = True, forwards: bool = True, bust: tuple[float, float] | None = None
) -> None:
    """Draw, and again while the armholes come out too tight, the front one gapes or the bust does not come out.

    once: draws everything and gives back the lengths of back and front armhole, cm. lowers, forwards: what may be moved. bust: the girth
    that is planned there and how near it must come, cm. By the earlier rules nothing is moved.
    """
    if sheet.rules < 4:
        once(AS_MEASURED)
        return
    settled = AS_MEASURED
    holes = once(settled)
    for _ in range(TIMES - 1):
        wanted = _further(sheet, settled, holes, lowers, forwards, bust)
        if wanted == settled:
            break
        sheet.begin_again()
        try:
            holes = once(wanted)
        except CannotDraft:  # so low it is no bodice any more: it stays as it was
            sheet.begin_again()
            once(settled)
            break
        settled = wanted
    _told(sheet, settled, holes)


def _further(
    sheet: Sheet, settled: Settled, holes: tuple[float, float], lowers: bool, forwards: bool, bust: tuple[float, float] | None
) -> Settled:
    assert sheet.made is not None
    armscye = sheet.chart.get("armscye")
    if lowers and armscye is not None:
        lacks = armscye + ARMHOLE_OVER + NEAR - sum(holes)
        if lacks > NEAR:
            settled = replace(settled, lowered=min(settled.lowered + PER_LENGTH * lacks, LOWERED_MOST))
    over = holes[1] - holes[0]
    if forwards and over > GAPES:
        settled = replace(settled, forward=min(settled.forward + over / 2, FORWARD_MOST))
    if bust is not None:
        wide = sheet.made.garment.girth("bust") - bust[0]
        if wide > bust[1]:
            settled = replace(settled, cup=settled.cup + (wide - 0.9 * bust[1]) / 2)
    return settled


def _told(sheet: Sheet, settled: Settled, holes: tuple[float, float]) -> None:
    if settled.lowered:
        sheet.note(
            say(
                "The underarm lies {0} lower than by the armscye depth and its ease: higher, the armhole would not be {1u} more "
                "than the armscye.",
                settled.lowered,
                ARMHOLE_OVER,
            )
        )
    if settled.forward:
        sheet.note(
            say(
                "The shoulder seam lies {0u} further forward at the bone: the front armhole would have gaped by more than its "
                "darts take.",
                settled.forward,
            )
        )
    if settled.forward >= FORWARD_MOST and holes[1] - holes[0] > NEAR:
        sheet.note(
            say(
                "The front armhole is still {0u} longer than the back: read side neck to waist in front, bust depth and across "
                "chest again.",
                holes[1] - holes[0],
            )
        )
