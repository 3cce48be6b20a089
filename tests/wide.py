"""Thousands of random bodies through every method: how many are drafted, how many refused, and which checks fail (`make
wide`)."""

from __future__ import annotations

import argparse
import random
from collections import Counter

import widehem.core.drafting.methods  # noqa: F401 - registers them
from tests.bodies import drafted, upper_chart
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


def run(method: Method, count: int, seed: int, *, tried: bool) -> str:
    """What became of a method on so many bodies. tried: with a few of its choices any way, else by default."""
    chance = random.Random(f"{method.code} {seed}")
    drawn = good = 0
    refused, untrue, looks, broken = (Counter[str]() for _ in range(4))
    for _ in range(count):
        chart, chosen = body(chance), options(method, chance) if tried else {}
        try:
            hole = armhole_of(drafted(METHODS[method.made_for], chart).garment) if method.for_armhole else None
        except CannotDraft:
            continue
        try:
            made = drafted(method, chart, chosen, {}, hole)
            checks = made.checks
        except CannotDraft as refusal:
            refused[" ".join(refusal.measures)] += 1
        except Exception as error:  # whatever it is, it is counted and told
            broken[f"{type(error).__name__}: {error}"[:80]] += 1
        else:
            drawn += 1
            bad = [check.name for check in checks if check.verdict == "not"]
            good += not bad
            untrue.update(bad)
            looks.update(check.name for check in checks if check.verdict == "look")
    rows = [f"{method.code:22} drawn {drawn}, refused {refused.total()}, nothing untrue in {good} of {drawn}"]
    for words, found in (("refused for", refused), ("broken", broken), ("not true", untrue), ("look", looks)):
        if found:
            rows.append(f"    {words}: " + ", ".join(f"{name} {times}" for name, times in found.most_common(8)))
    return "\n".join(rows)


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("count", nargs="?", type=int, default=2000, help="bodies for each method")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--method", default="", help="only the methods whose code begins so")
    parser.add_argument("--tried", action="store_true", help="with a few choices any way, not by default")
    given = parser.parse_args()
    for methods in by_part(METHODS.values()).values():
        for method in methods:
            if method.code.startswith(given.method):
                print(run(method, given.count, given.seed, tried=given.tried), flush=True)


if __name__ == "__main__":
    main()
