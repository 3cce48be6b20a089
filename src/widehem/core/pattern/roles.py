"""What an edge is on the garment: the one table that stands in place of names in checks, allowances and words."""

from __future__ import annotations

from widehem.core.setting.registry import Registry
from widehem.core.values import record


@record(frozen=True)
class Role:
    """words: how it is called in a sentence. allowance: the row of an allowance plan it falls under. radius: the least radius
    of a curve in it, cm. free: how readily it gives way where a seam that ends at it is made longer, 0 first; 9 never. long:
    how long it is on a typical body, cm, where its radius goes in proportion on a smaller one. lets_out: cloth to spare is left
    there, where it is left at all."""

    code: str
    words: str
    allowance: str = "seam"
    radius: float = 0.5
    free: int = 9
    long: float = 0.0
    lets_out: bool = False


CROTCH_LONG, BACK_CROTCH_LONG, BACK_CROTCH_RADIUS = 30.5, 41.0, 8.0
ROLES: Registry[Role] = Registry("role of an edge")
for _role in (
    Role("neck", "neckline", "neck", 1.0),
    Role("shoulder", "shoulder", "shoulder"),
    Role("armhole", "armhole", "armhole", 2.5, 3, 21.0),
    Role("side", "side seam", radius=2.0, lets_out=True),
    Role("waist", "waist", radius=2.0, free=0),
    Role("hem", "hem", radius=2.0, free=1),
    Role("centre_front", "centre front", radius=2.0),
    Role("centre_back", "centre back", radius=2.0, lets_out=True),
    Role("inseam", "inseam", radius=2.0, lets_out=True),
    Role("crotch", "crotch seam", radius=5.0, long=CROTCH_LONG),
    Role("cap", "cap", "cap", 1.0),
    Role("underarm", "underarm seam", radius=2.0),
    Role("wrist", "hem", "sleeve_hem", 2.0, 2),
    Role("panel", "panel seam", radius=4.0),
    Role("gore", "gore"),
    Role("vent", "vent"),
    Role("front_edge", "front edge", radius=1.0),
    Role("gorge", "gorge"),
    Role("collar", "collar"),
    Role("neck_seam", "neck edge", "neck"),
    Role("facing", "inner edge of the facing"),
    Role("pad", "pad"),
    Role("band", "band"),
    Role("pocket", "pocket"),
    Role("slit", "slit"),
    Role("cut", "new seam"),
    Role("waist_seam", "waist seam", radius=2.0, free=0),
    Role("lap", "end of the overlap"),
    Role("neck_lap", "neck of the overlap", "neck"),
):
    ROLES.add(_role.code, _role)

FRONT, BACK = "front", "back"  # the parts of a garment that cover the body before and behind


def role_named(code: str) -> Role:
    """Raises KeyError when there is no such role."""
    return ROLES[code]


SAID = {"snp": "side neck point", "tip": "shoulder tip"}  # marks whose names are not their words


def plain(name: str) -> str:
    """The name of a piece, an edge or a mark in a sentence."""
    return SAID.get(name, name.replace("_", " "))


def edge_of(piece: str, edge: str) -> str:
    """An edge of a piece in a sentence; one that is named after its piece by itself."""
    return plain(edge) if edge.startswith(f"{piece}_") else f"{plain(piece)} {plain(edge)}"


def centre(role: str) -> bool:
    """Whether an edge of this role runs along the middle of the body."""
    return role in ("centre_front", "centre_back")


def over_middle(role: str) -> bool:
    """Whether an edge of this role runs on over the middle of the body when the garment is opened out."""
    return role in ("waist", "hem", "neck", "wrist")
