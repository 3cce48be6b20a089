"""Thousands of random bodies through every method: how many are drafted, how many refused, and which checks fail (`make
wide`)."""

from __future__ import annotations

import argparse
import random
from collections import Counter

import widehem.core.drafting.methods  # noqa: F401 - registers them
from tests.bodies import upper_chart
from widehem.core.body.chart import Chart
from widehem.core.drafting.method import METHODS, Method, armhole_of, by_part
from widehem.core.setting.option import Value
from widehem.core.setting.refusal import CannotDraft

NOISE = 0.5  # cm, of a reading


def body(chance: random.Random) -> Chart:
    """The chart of any body: a child, full, slight, broad, with arcs that are not halves, read with the usual errors."""
    figure = chance.choice(["curved", "straight", "child"])
    bust = chance.uniform(55, 80) if figure == "child" else chance.uniform(76, 140)
    known = {
        "height": chance.uniform(105, 150) if figure == "child" else chance.uniform(148, 200),
        "bust": bust,
        "high_bust": bust - chance.uniform(0, {"curved": 14, "straight": 6, "child": 2}[figure]),
        "waist": bust * chance.uniform(0.62, 1.08),
        "hip": bust * chance.uniform(0.85, 1.2),
    }
    known = {code: round(value, 1) for code, value in known.items()}
    exact = upper_chart(figure, known)
    read = {code: max(1.0, round(cm + chance.gauss(0, NOISE), 1)) for code, cm in exact.values.items() if code not in known}
    return upper_chart(figure, known, **read)


def options(method: Method, chance: random.Random) -> dict[str, Value]:
    """A few of its choices, any way."""
    choices = [option for option in method.options if option.kind == "choice"]
    picked = chance.sample(choices, min(2, len(choices)))
    return {option.code: chance.choice(option.choices).code for option in picked}


def run(method: Method, count: int, seed: int) -> str:
    """One line about a method."""
    chance = random.Random(f"{method.code} {seed}")
    drafted, refused, untrue, broken = 0, Counter[str](), Counter[str](), Counter[str]()
    for _ in range(count):
        chart, chosen = body(chance), options(method, chance)
        try:
            hole = armhole_of(drafted(METHODS[method.made_for], chart).garment) if method.for_armhole else None
        except CannotDraft:
            continue
        try:
            made = drafted(method, chart, chosen, {}, hole)
        except CannotDraft as refusal:
            refused[" ".join(refusal.measures)] += 1
        except Exception as error:  # whatever it is, it is counted and told
            broken[f"{type(error).__name__}: {error}"[:80]] += 1
        else:
            drafted += 1
            untrue.update(check.name for check in made.checks if check.verdict == "not")
    told = ", ".join(f"{name} {number}" for name, number in untrue.most_common(6))
    why = "; ".join(f"{names or 'armhole'} {number}" for names, number in refused.most_common(4))
    lost = "; ".join(f"{words} {number}" for words, number in broken.most_common(3))
    return (
        f"{method.code:22}{drafted:6} drafted{sum(refused.values()):6} refused{sum(broken.values()):4} broken   not true: "
        f"{told or '-'}" + (f"\n{'':22}refused for {why}" if why else "") + (f"\n{'':22}BROKEN {lost}" if lost else "")
    )


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("methods", nargs="*")
    parser.add_argument("--count", type=int, default=2000)
    parser.add_argument("--seed", type=int, default=1)
    asked = parser.parse_args()
    for members in by_part(METHODS.values()).values():
        for method in members:
            if not asked.methods or method.code in asked.methods:
                print(run(method, asked.count, asked.seed), flush=True)


if __name__ == "__main__":
    main()
