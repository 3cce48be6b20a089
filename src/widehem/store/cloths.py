"""The cloths there are: those that ship, and those of the house."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.making.cloths import CLOTHS, ClothKind
from widehem.core.making.kept import HowMade, MakingError, own_pace
from widehem.store.models import Docket, HouseCloth

USUAL: Mapping[str, str] = {  # by what the pieces call it
    "cloth": "suiting", "jersey": "jersey", "toile": "calico", "lining": "lining_twill", "second lining": "lining_twill", "interfacing": "fusible",
    "interlining": "wadding", "underlining": "lawn", "wadding": "wadding", "pocketing": "drill",
}  # fmt: skip


def cloths(session: Session) -> dict[str, ClothKind]:
    """Every cloth by its code: those that ship, then those of the house by name."""
    found = dict(CLOTHS.items())
    for row in session.scalars(select(HouseCloth).order_by(HouseCloth.name)):
        found[row.code] = of_house(row)
    return found


def of_house(row: HouseCloth) -> ClothKind:
    """A cloth of the house; as the one it began as where what is kept of it cannot be."""
    base = CLOTHS[row.began] if row.began in CLOTHS else CLOTHS["calico"]
    try:
        made = base.changed(row.parts, row.own, row.shrinks)
    except ValueError:
        made = base
    return ClothKind(row.code, row.name, **{part: getattr(made, part) for part in FIELDS}, shrinks=made.shrinks, own=made.own)


FIELDS = ("weight", "slips", "frays", "heat", "pile", "stretch", "marks")


def how_made(docket: Docket) -> HowMade:
    """How a garment is made up; as usual where what is kept cannot be read."""
    try:
        return HowMade.from_data(docket.making or {})
    except MakingError:
        return HowMade()


def cloth_of(made: HowMade, material: str, known: Mapping[str, ClothKind], *, knit: bool = False) -> ClothKind:
    """What a garment's cloth is, by what its pieces call it."""
    usual = "jersey" if knit and material == "cloth" else USUAL.get(material, "calico")
    return known.get(made.cloths.get(material, ""), known[usual])


def pace(session: Session) -> dict[str, float]:
    """How long this house takes over a kind of step, in times of the usual."""
    return own_pace(_all_made(session))


def _all_made(session: Session) -> Iterable[HowMade]:
    for data in session.scalars(select(Docket.making).where(Docket.binned_at.is_(None))):
        if data and data.get("done"):
            try:
                yield HowMade.from_data(data)
            except MakingError:
                continue
