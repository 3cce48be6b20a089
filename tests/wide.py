"""Thousands of random bodies through every method and every design that ships: how many are drafted, how many refused, and which checks fail (`make
wide`)."""

from __future__ import annotations

import argparse
import random
from collections import Counter
from dataclasses import replace

import widehem.core.drafting.methods  # noqa: F401 - registers them
from tests.bodies import drafted, upper_chart
from widehem.core.body.chart import Chart
from widehem.core.design.files import Named
from widehem.core.design.make import make
from widehem.core.design.ships import shipped
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
    return told(
        f"{method.code:22} drawn {drawn}, refused {refused.total()}, nothing untrue in {good} of {drawn}",
        {"refused for": refused, "broken": broken, "not true": untrue, "look": looks},
    )


def run_design(code: str, named: Named, count: int, seed: int) -> str:
    """What became of a design on so many bodies; what its block has already is not counted against it."""
    chance = random.Random(f"{code} {seed}")
    drawn = good = 0
    refused, untrue, broken, steps = (Counter[str]() for _ in range(4))
    for _ in range(count):
        chart = body(chance)
        try:
            made = make(named.design, chart)
            block = make(replace(named.design, steps=()), chart)
            checks, known = made.checks, {check.name for check in block.checks if check.verdict == "not"}
        except CannotDraft as refusal:
            refused[" ".join(refusal.measures)] += 1
        except Exception as error:  # whatever it is, it is counted and told
            broken[f"{type(error).__name__}: {error}"[:80]] += 1
        else:
            drawn += 1
            bad = [check.name for check in checks if check.verdict == "not" and check.name not in known]
            steps.update(f"{entry.step}: {entry.saying.text()}"[:90] for entry in made.refused)
            good += not bad and not made.refused
            untrue.update(bad)
    return told(
        f"{code:22} drawn {drawn}, refused {refused.total()}, whole and nothing untrue that the block has not in {good} of {drawn}",
        {"refused for": refused, "broken": broken, "not true": untrue, "step refused": steps},
    )


def told(first: str, rows: dict[str, Counter[str]]) -> str:
    """What came of it, the most frequent first."""
    lines = [first]
    for words, found in rows.items():
        if found:
            lines.append(f"    {words}: " + ", ".join(f"{name} {times}" for name, times in found.most_common(8)))
    return "\n".join(lines)


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("count", nargs="?", type=int, default=2000, help="bodies for each method")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument(
        "--method", default="", help="only the methods whose code begins so; design. for the designs, a tenth as often"
    )
    parser.add_argument("--tried", action="store_true", help="with a few choices any way, not by default")
    given = parser.parse_args()
    for methods in by_part(METHODS.values()).values():
        for method in methods:
            if method.code.startswith(given.method):
                print(run(method, given.count, given.seed, tried=given.tried), flush=True)
    for code, named in shipped().items():
        if f"design.{code}".startswith(given.method):
            print(run_design(code, named, max(given.count // 10, 1), given.seed), flush=True)


if __name__ == "__main__":
    main()
