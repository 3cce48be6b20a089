"""What to be careful with by what is done in a garment on stage, and by what it is made of. The usual cautions only: local codes, house
rules and licensed people decide."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping
from typing import Literal

from widehem.core.design.cautions import Caution, cautions
from widehem.core.design.make import Made
from widehem.core.making.cloths import ClothKind
from widehem.core.pattern.check import Case
from widehem.core.pattern.checks.whole import FloorClear, above_floor
from widehem.core.units import Saying, say
from widehem.core.values import record

Picture = Literal["", "hem", "harness", "tie"]
CLEAR_LEAST, CLEAR_MOST = 2.0, 4.0  # cm a long hem is kept above the floor where it must not be trodden on
DEFER = say("Local codes, house rules and licensed people decide; these are only the usual cautions.")


@record(frozen=True)
class Use:
    """Something that is done in a garment. always: what is said of it whatever the garment is; picture: what shows the consequence."""

    code: str
    words: str
    about: str
    always: Saying
    picture: Picture = ""


USES: Mapping[str, Use] = {
    use.code: use
    for use in (
        Use("flying", "Flown, or in a harness", "flying", say(
            "Openings for a harness and its anchors only by the licensed rigger, by figures that he gives. Nothing may cover a harness buckle, and nothing "
            "may hang where the line runs."), "harness"),
        Use("fight", "Fights", "fights", say(
            "The fight director decides. Nothing to catch a blade or a hand in: no loops, no open cuffs, no hard edges at the throat; closings where the "
            "other hand reaches them; seams of the sword arm tried in the full movement."), "tie"),
        Use("flame", "Near open flame or fireworks", "flame", say(
            "Treated cloth, with the proof the fire authority asks for; the treatment is washed out and done anew. Sheers, wings and nets are worst; what melts "
            "never next to the skin. A second person with a blanket.")),
        Use("stairs", "On stairs", "stairs", say(
            "Hems clear of the floor by {0} to {1u} all round, or a wrist loop; try up and down, forwards and backwards, before the first night.",
            CLEAR_LEAST, CLEAR_MOST), "hem"),
        Use("dance", "Danced in", "dancing", say(
            "Hems clear of the floor by {0} to {1u}; the arm lifted and the widest step tried; nothing that strikes or catches when it turns.", CLEAR_LEAST,
            CLEAR_MOST), "hem"),
        Use("heat", "Hot: padding, masks, long scenes under light", "heat", say(
            "Water, breaks and somebody who watches; cooling and wicking layers; an opening that anybody can find fast. Dizziness ends the scene.")),
        Use("water", "In water or rain", "water", say(
            "Wet cloth pulls down: wool and padding most. Nothing that wraps the legs; shoes that hold; a dry change and a warm room. Dyes run, and may "
            "hurt the skin.")),
        Use("quick", "Changed quickly, in the dark", "the quick change", say(
            "Who opens what is written down and rehearsed in light first. Closings that one hand finds; nothing closed that must open fast.")),
        Use("throat", "A cape, tie or cord at the throat", "the throat", say(
            "It must break away under a pull: a magnet, a snap or a hook that bends open. Never a knot."), "tie"),
        Use("child", "Worn by a child", "a child", say(
            "No cords or ties at neck and hood, no small parts that come off; whoever dresses the child is named. Local rules decide.")),
        Use("skin", "Next to the skin, glued or made up", "the skin", say(
            "Ask for allergies first: latex, nickel, dyes, glue. Try it on a small place a day before; wash what is new.")),
    )
}  # fmt: skip
WORKROOM = say(
    "At the table: blades away from the other hand and closed when laid down; awls and pins counted; irons off and on end. Dyes, solvents and glues: air, "
    "gloves, the data sheet. Tips of bones capped."
)


@record(frozen=True)
class Care:
    """Something to be careful with. picture: what shows the consequence, with figure, cm, where it has one."""

    about: str
    saying: Saying
    picture: Picture = ""
    figure: float | None = None


def care(made: Made, uses: Collection[str], cloths: Collection[ClothKind]) -> tuple[Care, ...]:
    """Everything to be careful with: by use, by the garment itself, by its cloth; the most dangerous first, nothing twice."""
    clear = hem_clear(made)
    found = [*_by_use(uses, clear), *map(_of_garment, cautions(made)), *_by_cloth(made, uses, cloths)]
    said: dict[str, Care] = {}
    for row in found:
        said.setdefault(str(row.saying), row)
    return tuple(said.values())


def hem_clear(made: Made) -> float | None:
    """How far the lowest hem ends above the floor, cm; None for a garment that does not go down to it."""
    asked = next((demand for demand in made.demands if isinstance(demand, FloorClear)), None)
    return None if asked is None else above_floor(Case(made.garment), asked)


def _of_garment(row: Caution) -> Care:
    return Care(row.about, row.saying, "tie" if row.about == "the throat" else "hem" if row.about == "a long hem" else "")


def _by_use(uses: Collection[str], clear: float | None) -> Iterator[Care]:
    for code, use in USES.items():
        if code not in uses:
            continue
        yield Care(use.about, use.always, use.picture, clear if use.picture == "hem" else None)
        if use.picture == "hem" and clear is not None and clear < CLEAR_LEAST:
            yield Care(
                use.about,
                say("This hem ends {0u} above the floor: {1u} too low for it.", max(clear, 0.0), CLEAR_LEAST - clear),
                "hem",
                clear,
            )


def _by_cloth(made: Made, uses: Collection[str], cloths: Collection[ClothKind]) -> Iterator[Care]:
    for cloth in cloths:
        if cloth.weight == "sheer" and cloth.heat == "cool":
            yield Care(
                "flame",
                say(f"{cloth.name} burns fast and may melt onto the skin: keep it from flame, or have it treated and proved."),
            )
        if cloth.heat == "none" and cloth.marks == "much":
            yield Care("heat", say(f"{cloth.name} lets no air through: breaks, and openings for air where they do not show."))
    if "flame" in uses and any(cloth.code == "wadding" for cloth in cloths):
        yield Care("flame", say("Wadding glows on inside where nobody sees it: treated wadding, or none near flame."))


def by_use(uses: Collection[str]) -> tuple[tuple[str, Saying], ...]:
    """What is said on a card, whatever the garment is: what it is about, and the caution."""
    return tuple((use.about, use.always) for code, use in USES.items() if code in uses)
