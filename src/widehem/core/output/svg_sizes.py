"""A row of a size chart drawn small: a bar for each step, the value that falls out marked."""

from __future__ import annotations

from collections.abc import Collection, Sequence

WIDE, HIGH = 8.0, 22.0  # of one bar and of the whole, in units of the drawing


def steps_svg(steps: Sequence[float | None], odd: Collection[int] = ()) -> str:
    """A whole svg element: a bar for each step, upwards where it grows. odd: numbers of the values that fall out; the bars on both
    sides of them are marked."""
    most = max((abs(step) for step in steps if step is not None), default=0.0) or 1.0
    low = any(step is not None and step < -1e-9 for step in steps)
    base = HIGH / 2 if low else HIGH - 2
    room = HIGH / 2 - 2 if low else HIGH - 4
    bars = []
    for number, step in enumerate(steps):
        if step is None:
            continue
        high = abs(step) / most * room
        marked = number in odd or number + 1 in odd
        top = base - high if step >= 0 else base
        bars.append(
            f'<rect class="{"bar-odd" if marked else "bar"}" x="{number * WIDE + 1:g}" y="{top:.1f}" width="{WIDE - 2:g}" height="{max(high, 0.8):.1f}"/>'
        )
    wide = max(len(steps), 1) * WIDE
    return (
        f'<svg class="steps-plot" viewBox="0 0 {wide:g} {HIGH:g}" width="{wide:g}" height="{HIGH:g}" aria-hidden="true">'
        f'<line class="bar-base" x1="0" x2="{wide:g}" y1="{base:g}" y2="{base:g}"/>{"".join(bars)}</svg>'
    )
