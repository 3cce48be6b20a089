"""Exercises on made-up bodies, each with one mistake to find: in the chart, in the figures of a draft, in what is marked on the pattern."""

from __future__ import annotations

import random
from collections.abc import Callable, Mapping
from typing import Literal

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart, chart_of
from widehem.core.body.estimates import estimate
from widehem.core.body.figure_tables import TABLES
from widehem.core.design.design import Design, method_design
from widehem.core.design.make import Made, make
from widehem.core.drafting.method import METHODS
from widehem.core.marking.wanted import Wanted
from widehem.core.pattern.roles import plain
from widehem.core.setting.option import OptionError
from widehem.core.setting.quantity import Quantity
from widehem.core.setting.refusal import CannotDraft
from widehem.core.training.along import Figure, figures, judge, told
from widehem.core.units import Length, Saying, say, ticks_of
from widehem.core.values import record, replace

Kind = Literal["chart", "draft", "marking"]
KINDS: Mapping[Kind, str] = {
    "chart": "A chart with a doubtful reading", "draft": "A draft with a figure that is wrong", "marking": "A pattern with a mark that is wrong",
}  # fmt: skip
DRAWN = ("skirt.two_panel", "bodice.plain", "trousers.crease")
ASKED = ("height", "bust", "high_bust", "waist", "hip", "nape_waist", "snp_waist_front", "across_back", "across_chest", "shoulder", "armscye_depth", "arm_length", "bicep",
    "wrist", "waist_hip", "waist_knee", "inside_leg", "neck")  # fmt: skip
MOST_SEED = 999_999
TRIES = 60
LEAST = 1.5  # cm that a mistake is off at the least, so that it can be seen


@record(frozen=True)
class Row:
    """A line of an exercise: what it is called, the figure that stands there, cm, and words in place of one."""

    id: str
    name: str
    cm: float | None = None
    words: str = ""


@record(frozen=True)
class Exercise:
    """What is shown, which line is wrong, what should stand there, with its working where it has one, and what its mistake does. about:
    the body."""

    kind: Kind
    seed: int
    title: str
    about: Saying
    rows: tuple[Row, ...]
    wrong: str
    right: float | None
    because: tuple[Saying, ...]
    working: Quantity | None = None

    @property
    def code(self) -> str:
        """From which it is made again."""
        return f"{self.kind}:{self.seed}"


@record(frozen=True)
class Answer:
    """What was answered: found: whether the line was; off: how far the figure that was written for it is from the right one, cm, None where
    none was asked or written."""

    found: bool
    off: float | None
    said: tuple[Saying, ...]

    @property
    def right(self) -> bool:
        return self.found and (self.off is None or abs(self.off) <= NEAR)


NEAR = 0.5  # cm


def exercise(code: str) -> Exercise:
    """The exercise of this code. Raises KeyError for a code there is not."""
    kind, _, number = code.partition(":")
    if kind not in KINDS or not number.isdecimal() or not 1 <= int(number) <= MOST_SEED:
        raise KeyError(code)
    return MAKES[kind](int(number))  # type: ignore[index]


def answered(given: Exercise, row: str, figure: float | None) -> Answer:
    """What to say of an answer. row: the id of the line that was pointed at; figure: what should stand there, cm, as it was written."""
    if row != given.wrong:
        name = next((entry.name for entry in given.rows if entry.id == row), "that line")
        wrong = next(entry.name for entry in given.rows if entry.id == given.wrong)
        return Answer(False, None, (say(f"{name} is as it should be. The mistake is in: {wrong.lower()}."), *given.because))
    off = None if figure is None or given.right is None else figure - given.right
    said = [say("Found.")]
    if off is not None and abs(off) > NEAR:
        said.append(say("But {0u} belongs there, not {1u}.", given.right or 0.0, figure or 0.0))
    return Answer(True, off, (*said, *given.because))


def made_up_body(rng: random.Random) -> Chart:
    """A whole chart of nobody: the figures it is known by at random, the rest as the figure table has it."""
    figure = rng.choice(["curved", "curved", "straight"])
    bust = rng.uniform(80, 112)
    known = {
        "height": rng.uniform(156, 188), "bust": bust, "high_bust": bust - (rng.uniform(3, 8) if figure == "curved" else 1.0),
        "waist": bust * rng.uniform(0.7, 0.9), "hip": bust * rng.uniform(0.98, 1.1),
    }  # fmt: skip
    known = {code: round(value, 1) for code, value in known.items()}
    found = estimate(chart_of(known, figure=figure), TABLES[figure]).found
    return chart_of({**{code: max(1.0, round(entry.cm, 1)) for code, entry in found.items()}, **known}, figure=figure)


def _about(chart: Chart) -> Saying:
    return say("A made-up body: bust {0}, waist {1}, hip {2u}.", *(chart.get(code) or 0.0 for code in ("bust", "waist", "hip")))


# ---- the chart ----


def _chart(seed: int) -> Exercise:
    """A chart with one reading that cannot be right: swapped digits, a slipped tape, inches among centimetres."""
    rng = random.Random(f"chart {seed}")
    chart = made_up_body(rng)
    codes = [code for code in ASKED if chart.get(code) is not None]
    design = method_design(METHODS["bodice.plain"])
    used = [code for code in codes if code in METHODS["bodice.plain"].uses(design.options)]
    does: list[Saying] = []
    for _ in range(TRIES):
        code = rng.choice(used)
        true = chart.get(code) or 0.0
        how, value = rng.choice(_slips(true))
        if not max(LEAST, 0.06 * true) <= abs(value - true) <= 0.25 * true:
            continue
        does = _at_the_end(design, chart, chart.with_value(code, Length(ticks_of(value), "", "cm")))
        if does:
            break
    rows = tuple(Row(c, CATALOGUE[c].name, value if c == code else chart.get(c)) for c in codes)
    because = [say(f"{CATALOGUE[code].name} should be {{0u}}: {how}.", true), *does]
    return Exercise("chart", seed, KINDS["chart"], _about(chart), rows, code, true, tuple(because))


def _slips(true: float) -> list[tuple[str, float]]:
    digits = f"{true:.1f}"
    found = [("the tape slipped", round(true * 1.09 + 2.0, 1)), ("the tape was held too high", round(true * 0.9 - 1.0, 1))]
    if len(digits) >= 4 and digits[0] != digits[1]:
        found.append(("two digits changed places", float(digits[1] + digits[0] + digits[2:])))
    return found


def _at_the_end(design: Design, chart: Chart, wrong: Chart) -> list[Saying]:
    """What a wrong reading does to a block."""
    try:
        a, b = make(design, chart), make(design, wrong)
    except CannotDraft as cannot:
        return [say("With it the block cannot be drawn:"), cannot.saying]
    except OptionError:
        return []
    found = []
    for girth in a.girths:
        by = b.garment.girth(girth.name) - a.garment.girth(girth.name)
        if abs(by) >= 0.3:
            found.append(
                say(
                    f"The block would be {{0u}} {'wider' if by > 0 else 'narrower'} round the {girth.name.replace('_', ' ')}.",
                    abs(by),
                )
            )
    if not found:
        lengths = [
            (seam.title, b.garment.length_of(seam.first) - a.garment.length_of(seam.first))
            for seam in a.garment.seams
            if any(s.name == seam.name for s in b.garment.seams)
        ]
        title, by = max(lengths, key=lambda row: abs(row[1]), default=("", 0.0))
        if abs(by) < 0.1:
            title, by = _taller(a, b)
        if abs(by) >= 0.1:
            found.append(say(f"The {title.lower()} would be {{0u}} {'longer' if by > 0 else 'shorter'}.", abs(by)))
    return found


def _taller(a: Made, b: Made) -> tuple[str, float]:
    """The piece whose height, or the edge whose length, changes most, and by how much, cm."""
    after = {piece.name: piece for piece in b.garment.pieces}
    rows = [
        (p.title, (after[p.name].bounds[3] - after[p.name].bounds[1]) - (p.bounds[3] - p.bounds[1]))
        for p in a.garment.pieces
        if p.name in after
    ]
    rows += [
        (f"{piece.title}, {plain(edge.name)}", after[piece.name].edge(edge.name).length - edge.length)
        for piece in a.garment.pieces
        for edge in piece.edges
        if piece.name in after and after[piece.name].has(edge.name)
    ]
    return max(rows, key=lambda row: abs(row[1]), default=("", 0.0))


# ---- the draft ----


def _draft(seed: int) -> Exercise:
    """The figures of a draft with one that is wrong: a term left out or on the wrong side, a half for a quarter."""
    rng = random.Random(f"draft {seed}")
    for _ in range(TRIES):
        chart, method = made_up_body(rng), METHODS[rng.choice(DRAWN)]
        design = method_design(method)
        made = _made(design, chart)
        if made is None:
            continue
        rows = figures(made)
        wrong = _a_slip(rng, rows)
        if wrong is not None:
            break
    else:  # the last body has no figure that can be mistaken
        raise KeyError(seed)
    figure, value = wrong
    shown = tuple(Row(f"{row.step}", f"{row.step} {row.title}: {row.name}", value if row is figure else row.cm) for row in rows)
    judged = judge(design, chart, figure, value)
    because = (say(f"{figure.name[:1].upper()}{figure.name[1:]} should be {{0u}}.", figure.cm), *told(judged))
    title = f"{KINDS['draft']}: {method.name.lower()}"
    return Exercise("draft", seed, title, _about(chart), shown, f"{figure.step}", figure.cm, because, figure.quantity)


def _made(design: Design, chart: Chart) -> Made | None:
    try:
        return make(design, chart)
    except (CannotDraft, OptionError):
        return None


def _a_slip(rng: random.Random, rows: list[Figure]) -> tuple[Figure, float] | None:
    """A figure and what somebody might have drawn in its place."""
    order = list(rows)
    rng.shuffle(order)
    for figure in order:
        value = figure.cm
        chances = [value * 2, value / 2]
        for part in figure.quantity.parts if figure.quantity.sign in ("+", "−") else ():
            if not part.plain:
                chances.append(value - part.value)
        rng.shuffle(chances)
        for chance in chances:
            if abs(chance - value) >= LEAST and 0.5 <= chance <= 200:
                return figure, round(chance, 1)
    return None


# ---- the marking ----


def _marking(seed: int) -> Exercise:
    """What stands on a pattern, seam by seam, with one side that does not agree with the other."""
    rng = random.Random(f"marking {seed}")
    for _ in range(TRIES):
        chart, method = made_up_body(rng), METHODS[rng.choice(DRAWN)]
        made = _made(method_design(method), chart)
        rows = _marks(made, rng) if made is not None else []
        if len(rows) >= FEWEST_MARKS:
            break
    assert made is not None
    choices = [
        n
        for n, (good, bad) in enumerate(rows)
        if good.cm is not None and bad.cm is not None and abs(good.cm - bad.cm) > 0.5 and bad.cm > 0.1
    ]
    at = rng.choice(choices)
    good, bad = rows[at]
    shown = tuple(replace(bad, id=row.id) if n == at else row for n, (row, _) in enumerate(rows))
    what = SAME_ALLOWANCE if good.id.endswith(".a") else SAME_NOTCH
    off = abs((bad.cm or 0.0) - (good.cm or 0.0))
    because = (
        say(f"{good.name} should be {{0u}}.", good.cm or 0.0),
        say(what),
        say("At the end one side would be {0u} off along that seam.", off),
    )
    return Exercise(
        "marking", seed, f"{KINDS['marking']}: {made.method.name.lower()}", _about(chart), shown, good.id, good.cm, because
    )


FEWEST_MARKS = 6
SAME_ALLOWANCE = "Both sides of a seam get the same allowance: else the stitching lines miss each other."
SAME_NOTCH = "Notches are measured on both sides alike, what is eased apart: else one side is pulled along the whole seam."


def _marks(made: Made, rng: random.Random) -> list[tuple[Row, Row]]:
    """What stands on a pattern seam by seam, each with what somebody might have written in its place."""
    wanted = Wanted()
    rows: list[tuple[Row, Row]] = []
    for seam in made.garment.seams:
        if seam.twin:
            continue
        sides = [[made.garment.piece(entry.piece) for entry in chain] for chain in (seam.first, seam.second)]
        for number, (chain, pieces) in enumerate(zip((seam.first, seam.second), sides, strict=True)):
            amount = wanted.amounts(pieces[0])[chain[0].edge]
            name = f"{seam.title}, {pieces[0].title.lower()}: allowance"
            rows.append((Row(f"{seam.name}.{number}.a", name, amount), Row("", name, amount + rng.choice([0.8, 1.0, -0.6]))))
        notched = [
            {n.name: n.along for entry in chain for n in made.garment.edge(entry).notches}
            for chain in (seam.first, seam.second)
        ]
        for notch in sorted(set(notched[0]) & set(notched[1])):
            edge = made.garment.edge(seam.second[0])
            along = min(notched[1][notch], edge.length - notched[1][notch])
            name = f"{seam.title}, {sides[1][0].title.lower()}: notch {notch}, from the nearer end"
            mirror = made.garment.edge(seam.first[0])
            other = min(notched[0][notch], mirror.length - notched[0][notch])
            first = f"{seam.title}, {sides[0][0].title.lower()}: notch {notch}, from the nearer end"
            rows.append((Row(f"{seam.name}.{notch}.0", first, other), Row("", first, other)))
            rows.append((Row(f"{seam.name}.{notch}.1", name, along), Row("", name, along + rng.choice([1.8, 2.4, -1.6]))))
    return rows


MAKES: Mapping[Kind, Callable[[int], Exercise]] = {"chart": _chart, "draft": _draft, "marking": _marking}
