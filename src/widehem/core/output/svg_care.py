"""What a caution comes to, drawn: a hem over the floor, an opening for a harness, a tie that breaks away."""

from __future__ import annotations

from widehem.core.making.care import CLEAR_LEAST, CLEAR_MOST
from widehem.core.units import Display

BOX = "0 0 120 70"


def care_svg(picture: str, figure: float | None, show: Display) -> str:
    """The inside of a picture in a box of 120 by 70; '' where there is none. figure: how far the hem is above the floor, cm."""
    if picture == "hem":
        return _hem(figure, show)
    return {"harness": HARNESS, "tie": TIE}.get(picture, "")


def _hem(figure: float | None, show: Display) -> str:
    """The floor, the room a hem is kept above it, and where this one ends, at ten to one of the clearance."""
    floor, scale = 56.0, 5.0
    least, most = floor - CLEAR_LEAST * scale, floor - CLEAR_MOST * scale
    found = [
        f'<path class="c-floor" d="M4 {floor}H116"/><rect class="c-zone" x="34" y="{most:.1f}" width="62" height="{least - most:.1f}"/>',
        '<path class="c-shoe" d="M44 56v-9h10l14 6v3zM70 56v-7h9l10 5v2z"/>',
        f'<text class="c-word" x="98" y="{(least + most) / 2 + 2:.1f}">{show.length(CLEAR_LEAST)} to</text><text class="c-word" x="98" '
        f'y="{(least + most) / 2 + 8:.1f}">{show.full(CLEAR_MOST)}</text><text class="c-word" x="4" y="64">floor</text>',
    ]
    if figure is not None:
        at = floor - min(max(figure, 0.0), 9.5) * scale
        found.append(
            f'<path class="c-hem" d="M40 4L30 {at:.1f}H92L82 4"/><text class="c-word" x="4" y="{at - 1:.1f}">{show.full(max(figure, 0.0))}</text>'
        )
    else:
        found.append(f'<path class="c-hem" d="M40 4L30 {least:.1f}H92L82 4"/>')
    return "".join(found)


HARNESS = (
    '<path class="c-hem" d="M36 6L32 62H88L84 6Z"/><path class="c-floor" d="M34 34H86"/><rect class="c-zone" x="36" y="29" width="8" height="11"/><rect '
    'class="c-zone" x="76" y="29" width="8" height="11"/><path class="c-line" d="M40 29V4M80 29V4"/><text class="c-word" x="47" y="32">open at both</text>'
    '<text class="c-word" x="47" y="38">hips, as the rigger</text><text class="c-word" x="47" y="44">says; buckle in sight</text>'
)
TIE = (
    '<path class="c-hem" d="M22 10C30 26 50 26 58 10M22 10L10 62M58 10L70 62"/><path class="c-line" d="M40 22V34"/><rect class="c-zone" x="33" y="34" width="14" '
    'height="8"/><path class="c-line" d="M40 42V60M36 36l8 4M44 36l-8 4"/><text class="c-word" x="74" y="30">comes open</text><text class="c-word" x="74" '
    'y="36">under a pull,</text><text class="c-word" x="74" y="42">never a knot</text>'
)
