"""Cloths and what they ask for: how to mark, pin, sew and press them, by what they are and not by their names."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import field
from typing import Any, Literal

from widehem.core.setting.registry import Registry
from widehem.core.units import Saying, say
from widehem.core.values import record, replace

Weight = Literal["sheer", "light", "medium", "heavy"]
Much = Literal["no", "some", "much"]
Heat = Literal["cool", "warm", "hot", "none"]
PARTS: Mapping[str, tuple[str, Mapping[str, str]]] = {
    "weight": ("Weight", {"sheer": "sheer", "light": "light", "medium": "medium", "heavy": "heavy"}),
    "slips": ("Slips", {"no": "lies still", "some": "slips a little", "much": "slips away"}),
    "frays": ("Frays", {"no": "does not fray", "some": "frays", "much": "frays fast"}),
    "heat": ("Heat it bears", {"cool": "a cool iron", "warm": "a warm iron", "hot": "a hot iron", "none": "no iron"}),
    "pile": ("Nap", {"no": "no nap", "some": "a nap or a shine, laid one way", "much": "a pile that is crushed"}),
    "stretch": ("Stretch", {"no": "does not give", "some": "gives on the bias", "much": "a knit, or with elastane"}),
    "marks": ("Pin holes", {"no": "close again", "some": "show in a pressed seam", "much": "stay for ever"}),
}


@record(frozen=True)
class ClothKind:
    """A cloth by what it is: each field one of the answers of PARTS. shrinks: per cent of its length in the wash; own: what the
    house says of it in place of the usual, by heading."""

    code: str
    name: str
    weight: Weight = "medium"
    slips: Much = "no"
    frays: Much = "some"
    heat: Heat = "warm"
    pile: Much = "no"
    stretch: Much = "no"
    marks: Much = "no"
    shrinks: float = 0.0
    own: Mapping[str, str] = field(default_factory=dict)

    def changed(self, parts: Mapping[str, str], own: Mapping[str, str], shrinks: float) -> ClothKind:
        """The cloth as the house has it. Raises ValueError for an answer there is not."""
        for part, answer in parts.items():
            if part not in PARTS or answer not in PARTS[part][1]:
                raise ValueError(f"{part} {answer}")
        values: dict[str, Any] = {**parts, "own": dict(own), "shrinks": shrinks}
        return replace(self, **values)


CLOTHS: Registry[ClothKind] = Registry("cloth")
for _cloth in (
    ClothKind("calico", "Calico", "medium", "no", "some", "hot", shrinks=3.0),
    ClothKind("lawn", "Cotton lawn", "light", "no", "some", "hot", shrinks=3.0),
    ClothKind("drill", "Cotton drill", "heavy", "no", "some", "hot", shrinks=3.0),
    ClothKind("linen", "Linen", "medium", "no", "much", "hot", shrinks=4.0),
    ClothKind("suiting", "Wool suiting", "medium", "no", "some", "warm", "some", shrinks=2.0),
    ClothKind("coating", "Wool coating", "heavy", "no", "no", "warm", "some", shrinks=2.0),
    ClothKind("velvet", "Velvet", "medium", "much", "much", "cool", "much", marks="some"),
    ClothKind("taffeta", "Taffeta", "light", "some", "much", "cool", "some", marks="much"),
    ClothKind("satin", "Satin", "medium", "much", "much", "cool", "some", marks="some"),
    ClothKind("chiffon", "Chiffon", "sheer", "much", "much", "cool", stretch="some", marks="some"),
    ClothKind("organza", "Organza", "sheer", "some", "much", "cool", marks="some"),
    ClothKind("brocade", "Brocade", "heavy", "some", "much", "warm", "some", marks="some"),
    ClothKind("jersey", "Jersey", "medium", "some", "no", "warm", stretch="much", shrinks=4.0),
    ClothKind("leather", "Leather or suede", "heavy", "no", "no", "none", "some", marks="much"),
    ClothKind("coated", "Coated cloth", "medium", "some", "no", "none", marks="much"),
    ClothKind("fur", "Fur pile", "heavy", "some", "some", "cool", "much"),
    ClothKind("net", "Net", "sheer", "some", "no", "cool", stretch="some"),
    ClothKind("lining_plain", "Lining, plain weave", "light", "much", "much", "cool", marks="some"),
    ClothKind("lining_twill", "Lining, twill", "light", "some", "some", "warm", marks="some"),
    ClothKind("fusible", "Interfacing, fused", "light", "no", "no", "warm"),
    ClothKind("canvas", "Interfacing, sewn in", "medium", "no", "some", "warm", shrinks=2.0),
    ClothKind("wadding", "Wadding", "heavy", "no", "no", "none"),
):
    CLOTHS.add(_cloth.code, _cloth)

HEADINGS: Mapping[str, str] = {
    "mark": "Mark with", "pins": "Hold with", "needle": "Needle", "stitch": "Stitch", "press": "Press", "edge": "Edges that are turned",
    "raw": "Raw edges", "lining": "Lining that behaves", "lay": "On the table",
}  # fmt: skip


def advice(cloth: ClothKind) -> dict[str, Saying]:
    """What a cloth asks for, by heading; what the house says of it goes over that."""
    usual = {
        "mark": _mark(cloth), "pins": _pins(cloth), "needle": _needle(cloth), "stitch": _stitch(cloth), "press": _press(cloth),
        "edge": _edge(cloth), "raw": _raw(cloth), "lining": _lining(cloth), "lay": _lay(cloth),
    }  # fmt: skip
    return {
        **usual,
        **{key: Saying(text.replace("{", "(").replace("}", ")")) for key, text in cloth.own.items() if text and key in usual},
    }


def _mark(cloth: ClothKind) -> Saying:
    if cloth.marks == "much" and cloth.heat == "none":
        return say("Pen or chalk on the wrong side; no wheel, no pins: every hole stays.")
    if cloth.pile == "much":
        return say("Thread, tacked through both layers and cut apart: chalk rubs off a pile and a wheel crushes it.")
    if cloth.marks == "much":
        return say("Thread or chalk within the allowance; no wheel: its track stays.")
    if cloth.weight == "sheer":
        return say("Thread in single stitches; chalk shows through, carbon stays.")
    if cloth.pile == "some" or cloth.slips == "much":
        return say("Chalk on the wrong side, and thread where a line must last.")
    if cloth.stretch == "much":
        return say("Chalk or a pen that washes out; snip notches short: long ones ladder.")
    return say("Carbon and wheel on the wrong side, notches snipped {0u} deep.", 0.3)


def _pins(cloth: ClothKind) -> Saying:
    if cloth.marks == "much":
        return say("Clips, or weights; pins only within the allowance.")
    if cloth.slips == "much":
        return say("Fine pins every {0u}, square to the edge, or tack by hand: it creeps under the foot.", 4.0)
    if cloth.weight == "heavy":
        return say("Long pins every {0u}, or clips.", 8.0)
    return say("Pins every {0u}, square to the edge.", 6.0)


def _needle(cloth: ClothKind) -> Saying:
    size = {"sheer": "60", "light": "70", "medium": "80", "heavy": "100"}[cloth.weight]
    if cloth.heat == "none" and cloth.weight == "heavy" and cloth.marks == "much":
        return say(f"Leather point, {size}.")
    if cloth.stretch == "much":
        return say(f"Ball point, {size}.")
    if cloth.marks != "no" or cloth.weight == "sheer":
        return say(f"Sharp and new, {size}.")
    return say(f"Universal, {size}.")


def stitch_long(cloth: ClothKind) -> float:
    """The usual length of a stitch in a cloth, cm."""
    if cloth.heat == "none" and cloth.marks == "much":
        return 0.35
    return {"sheer": 0.18, "light": 0.22, "medium": 0.25, "heavy": 0.3}[cloth.weight]


def _stitch(cloth: ClothKind) -> Saying:
    if cloth.stretch == "much":
        return say("Narrow zigzag or an overlocked seam, so that it gives as the cloth does.")
    return say("Straight, {0m}.", stitch_long(cloth))


def _press(cloth: ClothKind) -> Saying:
    if cloth.heat == "none":
        return say("No iron: open the seams with the fingers, and glue or topstitch them.")
    how = {"cool": "A cool iron", "warm": "A warm iron and a damp cloth", "hot": "A hot iron and steam"}[cloth.heat]
    if cloth.pile == "much":
        return say(f"{how} held over it, face down on its own pile; never press flat.")
    if cloth.marks != "no":
        return say(f"{how}, strips of paper under the allowance, from the wrong side: edges print through.")
    return say(f"{how}; open over a ham where a seam curves.")


def _edge(cloth: ClothKind) -> Saying:
    if cloth.pile == "much":
        return say("Prick by hand; machine stitches sink and pull.")
    if cloth.weight == "heavy" or cloth.heat == "none":
        return say("Grade the layers and topstitch: it will not lie flat for a press alone.")
    if cloth.stretch == "much":
        return say("Twin needle or a catch stitch; clear tape in the shoulders.")
    return say("Understitch the inside layer {0u} from the edge, so that it rolls under.", 0.2)


def _raw(cloth: ClothKind) -> Saying:
    if cloth.frays == "no":
        return say("They may stay as they are cut.")
    if cloth.weight == "sheer":
        return say("French seams, or allowances bound in net.")
    if cloth.frays == "much":
        return say("Overlock each piece before it is sewn, or bind: cut the allowances {0u} wider.", 0.3)
    return say("Overlock, zigzag or pink.")


def _lining(cloth: ClothKind) -> Saying:
    if cloth.stretch == "much":
        return say("A knitted lining, or none: a woven one stops the stretch.")
    if cloth.weight == "heavy" or cloth.pile != "no":
        return say("A twill: it slides and takes strain; a plain weave of the same weight splits along the seams.")
    if cloth.weight == "sheer":
        return say("Underline with silk or lawn of one colour; a lining by itself shows its seams.")
    if cloth.slips == "no" and cloth.heat == "hot":
        return say("Lawn, or the cloth itself: what is washed hot shrinks alike.")
    return say("A twill or a satin lining, washed or pressed as the cloth will be.")


def _lay(cloth: ClothKind) -> Saying:
    found = ["All pieces one way." if cloth.pile != "no" else "Pieces may lie head to foot where the pattern has no way up."]
    if cloth.slips == "much":
        found.append("Lay it on paper and cut both together, in one layer.")
    if cloth.shrinks:
        found.append(f"Shrink it before it is cut: about {cloth.shrinks:g} % of its length.")
    if cloth.stretch == "much":
        found.append("Let it lie overnight before it is cut, and do not let it hang off the table.")
    return say(" ".join(found))
