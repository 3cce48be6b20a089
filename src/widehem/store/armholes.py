"""The armhole of a garment that exists, kept with the sleeve that is drawn for it: as it was typed, unit and all."""

from __future__ import annotations

from collections.abc import Mapping

from widehem.core.drafting.armhole_typed import SHOULDERS, Shoulder, Typed
from widehem.core.units import LengthError, Unit, parse_length, with_unit
from widehem.store.models import Docket

LENGTHS = {"front": "Front armhole", "back": "Back armhole", "depth": "Depth"}
NEEDED = "front", "back"


def read_typed(given: Mapping[str, str], unit: Unit) -> tuple[Typed | None, dict[str, str], dict[str, str]]:
    """An armhole as it was typed: what was read, the sentences of the fields that cannot be, and how it is kept."""
    errors: dict[str, str] = {}
    kept: dict[str, str] = {}
    lengths: dict[str, float] = {}
    shoulder: Shoulder = "bone"
    for code in SHOULDERS:
        shoulder = code if given.get("shoulder") == code else shoulder
    fields = {**LENGTHS, **({} if shoulder == "bone" else {"off": "By how much"})}
    for field, name in fields.items():
        text = given.get(field, "").strip()[:60]
        if not text:
            if field in NEEDED:
                errors[field] = f"{name} is not there yet: measure it along the stitching line and write it."
            continue
        try:
            kept[field] = with_unit(text, unit)
            lengths[field] = parse_length(kept[field], unit, least_cm=0.1).cm
        except LengthError as error:
            errors[field] = f"{name}: {error}"
    if errors:
        return None, errors, kept
    typed = Typed(lengths["front"], lengths["back"], lengths.get("depth"), shoulder, lengths.get("off", 0.0))
    return typed, errors, kept


def typed_armhole(docket: Docket) -> Typed | None:
    """The armhole that was typed for a sleeve; None where it is drawn for a bodice."""
    return read_typed(docket.armhole, "cm")[0] if docket.armhole else None
