"""The `widehem` command: thin over the same calls as the pages. docs/command-line.md describes it."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Any

from widehem import __version__
from widehem.cli_designs import add_commands as add_designs
from widehem.cli_fitting import add_commands as add_fitting
from widehem.cli_grading import add_commands as add_grading
from widehem.cli_house import BAD_INPUT, FINE, REFUSED, UsageError, add_commands, excused, hand_over
from widehem.cli_making import add_commands as add_making
from widehem.cli_paper import FORMATS, add_paper, paper_of, wanted
from widehem.cli_paper import add_commands as add_papers
from widehem.core.units import METRIC, Unit, as_unit
from widehem.settled import seldom


class _Parser(argparse.ArgumentParser):
    def error(self, message: str) -> Any:
        raise UsageError(f"{message[:1].upper()}{message[1:]}. `{self.prog} --help` shows how it is called.")


def main(argv: Sequence[str] | None = None) -> int:
    """Run one command; returns the exit status."""
    seldom()
    try:
        arguments = _parser().parse_args(argv)
        run: Callable[[argparse.Namespace], int] = arguments.run
        return run(arguments)
    except UsageError as error:
        print(error, file=sys.stderr)
        return BAD_INPUT
    except BrokenPipeError:
        sys.stderr.close()
        return FINE
    except KeyboardInterrupt:
        return FINE
    except Exception as error:
        words = excused(error)
        if words is None:
            raise
        print(words, file=sys.stderr)
        return BAD_INPUT


def _parser() -> _Parser:
    parser = _Parser(prog="widehem", description="From the tape to the cloth.")
    parser.add_argument("--version", action="version", version=f"widehem {__version__}")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND", parser_class=_Parser)

    add_commands(commands)
    add_designs(commands, _read_chart, _written)
    add_fitting(commands, _read_chart, _written)
    add_grading(commands)
    add_making(commands, _read_chart)
    add_papers(commands)

    tape = commands.add_parser("tape", help="stand in for a digital tape: send readings to a chart that listens")
    tape.add_argument("readings", nargs="*", metavar="READING", help='like 78.4 or "30 7/8"; "-" takes the last one back')
    tape.add_argument("--to", default="http://127.0.0.1:8420", metavar="ADDRESS")
    tape.add_argument("--pair", required=True, metavar="NUMBER", help="the pair number shown on the chart")
    tape.add_argument("--unit", choices=("cm", "in"), default="cm")
    tape.set_defaults(run=_tape)

    for name, help_text, run in (
        ("methods", "the methods of drafting: names, needs, options, ease", _methods),
        ("measures", "the catalogue of measures", _measures),
    ):
        entry = commands.add_parser(name, help=help_text)
        entry.add_argument("--format", choices=("text", "json"), default="text")
        entry.set_defaults(run=run)

    draft = commands.add_parser("draft", help="draft by a method on a chart file")
    draft.add_argument("method", metavar="METHOD")
    draft.add_argument("--chart", type=Path, required=True, metavar="FILE.json")
    draft.add_argument("--set", action="append", default=[], metavar="OPTION=VALUE", dest="options")
    draft.add_argument("--ease", action="append", default=[], metavar="LEVEL=VALUE")
    draft.add_argument("--plan", metavar="PLAN", help="a plan of ease: its amounts, cloth and layers, before --ease and --set")
    draft.add_argument("--bodice", metavar="METHOD", help="the bodice whose armhole a sleeve is drawn for")
    draft.add_argument("--armhole", metavar="front=CM,back=CM[,depth=CM]", help="the armhole a sleeve is drawn for")
    draft.add_argument("--format", choices=FORMATS, default="json")
    add_paper(draft)
    draft.set_defaults(run=_draft)
    return parser


def _tape(arguments: argparse.Namespace) -> int:
    import secrets

    from widehem.tape_stand_in import Tape, TapeError, told

    tape = Tape(arguments.to, arguments.pair, f"command {secrets.token_hex(3)}", arguments.unit)
    try:
        for line in told(tape, arguments.readings or sys.stdin):
            print(line, flush=True)
    except TapeError as error:
        print(error, file=sys.stderr)
        return REFUSED
    return FINE


def _needed(need: Any) -> str:
    return str(need.measure) + (f" (unless {need.unless} is set)" if need.unless else "")


def _methods(arguments: argparse.Namespace) -> int:
    import widehem.core.drafting.methods  # noqa: F401 - registers them
    from widehem.core.drafting.method import METHODS
    from widehem.core.output.json_draft import method_as_json

    if arguments.format == "json":
        print(json.dumps({"methods": [method_as_json(method) for method in METHODS.values()]}, indent=2, ensure_ascii=False))
        return FINE
    for method in METHODS.values():
        print(f"{method.code}  {method.name}. {method.summary}")
        print(f"  needs   {', '.join(map(_needed, method.needs))}")
        for kind, settings in (("option", method.options), ("ease", method.ease)):
            for option in settings:
                unit = " cm" if option.kind == "length" else ""
                ways = "|".join(choice.code for choice in option.choices) or f"{option.low:g} to {option.high:g}{unit}"
                default = option.default if option.default is not None else "from " + ", ".join((*option.uses, *option.after))
                print(f"  {kind:7} {option.code} = {default}  ({ways}): {METRIC.words(option.why)}")
    return FINE


def _measures(arguments: argparse.Namespace) -> int:
    from widehem.core.body.catalogue import CATALOGUE

    if arguments.format == "json":
        rows = [
            {
                "code": m.code,
                "name": m.name,
                "also": list(m.also),
                "kind": m.kind,
                "zone": m.zone,
                "how": m.how,
                "typical": m.typical,
            }
            for m in CATALOGUE.values()
        ]
        print(json.dumps({"measures": rows}, indent=2, ensure_ascii=False))
    else:
        for entry in CATALOGUE.values():
            print(f"{entry.code:18} {entry.name:28} {entry.how}")
    return FINE


def _draft(arguments: argparse.Namespace) -> int:
    import widehem.core.drafting.methods  # noqa: F401 - registers them
    from widehem.core.design.design import method_design
    from widehem.core.design.make import make
    from widehem.core.drafting.method import method_named
    from widehem.core.output.json_draft import refusal_as_json
    from widehem.core.setting.option import OptionError
    from widehem.core.setting.refusal import CannotDraft

    try:
        method = method_named(arguments.method)
        chart, unit = _read_chart(arguments.chart)
        options = {code: method.option(code).read(value, unit) for code, value in _pairs(arguments.options, "--set")}
        ease = {code: method.ease_at(code).read(value, unit) for code, value in _pairs(arguments.ease, "--ease")}
        if arguments.plan:
            planned = _plan(arguments.plan, method)
            options, ease = {**planned.options, **options}, {**planned.ease, **ease}
        made = make(method_design(method, options, ease), chart, armhole=_armhole(arguments, chart, unit))
        data = _written(made, arguments, unit)
    except OptionError as error:
        raise UsageError(str(error)) from None
    except CannotDraft as refusal:
        print(json.dumps(refusal_as_json(refusal), ensure_ascii=False))
        return REFUSED
    return hand_over(data, arguments.out)


def _plan(name: str, method: Any) -> Any:
    """A plan of ease on a method."""
    from widehem.core.drafting.ease_plans import PLANS, applied

    if name not in PLANS:
        raise UsageError(f'--plan "{name}" is no plan of ease: there are {", ".join(PLANS)}.')
    return applied(PLANS[name], method)


def _armhole(arguments: argparse.Namespace, chart: Any, unit: Unit) -> Any:
    """The armhole a sleeve is drawn for: given, or of a bodice drafted on the same chart; None when neither is named."""
    from widehem.core.design.design import method_design
    from widehem.core.design.make import armhole_in, make
    from widehem.core.drafting.armhole_typed import Typed, problems
    from widehem.core.drafting.method import method_named
    from widehem.core.units import LengthError, parse_length

    if arguments.armhole:
        given = dict(_pairs(arguments.armhole.split(","), "--armhole"))
        if not {"front", "back"} <= set(given) <= {"front", "back", "depth"}:
            raise UsageError(
                f'--armhole "{arguments.armhole}" names not front and back: write front=21.5,back=21.7, and depth=18 if known.'
            )
        try:
            lengths = {name: parse_length(words, unit, least_cm=5).cm for name, words in given.items()}
        except LengthError as error:
            raise UsageError(f"--armhole: {error}") from None
        typed = Typed(lengths["front"], lengths["back"], lengths.get("depth"))
        if wrong := problems(typed):
            raise UsageError(f"--armhole: {next(iter(wrong.values()))}")
        return typed.armhole
    if not arguments.bodice:
        return None
    armhole = armhole_in(make(method_design(method_named(arguments.bodice)), chart))
    if armhole is None:
        raise UsageError(f"{arguments.bodice} has no armhole: name a bodice with --bodice.")
    return armhole


def _written(made: Any, arguments: argparse.Namespace, unit: Unit) -> bytes:
    """The draft in the wanted format."""
    from widehem.core.marking.labels import Heading
    from widehem.core.output.refused import CannotWriteError
    from widehem.core.output.sheets import PaperError, scale_named
    from widehem.core.output.writers import WRITERS, Order
    from widehem.core.units import Display

    heading = Heading(costume=getattr(arguments, "title", "") or made.method.name, wearer=arguments.chart.stem)
    asked = wanted(arguments, made.method.allowances, unit)
    try:
        order = Order(made, heading, asked, paper_of(arguments), scale_named(arguments.scale), Display(unit))
        return WRITERS[arguments.format].write(order)
    except (PaperError, CannotWriteError) as error:
        raise UsageError(str(error)) from None


def _pairs(given: Sequence[str], flag: str) -> list[tuple[str, str]]:
    pairs = []
    for item in given:
        name, sign, value = item.partition("=")
        if not sign or not name.strip() or not value.strip():
            raise UsageError(f'{flag} "{item}" is not NAME=VALUE.')
        pairs.append((name.strip(), value))
    return pairs


def _read_chart(path: Path) -> tuple[Any, Unit]:
    """The chart file: {"unit": "cm" | "in", "figure": "curved" | "straight" | "child", "measures": {code: number or words}}."""
    from widehem.core.body.chart import ChartError, chart_of
    from widehem.core.body.figure_tables import TABLES
    from widehem.core.units import LengthError

    try:
        found = json.loads(path.read_text(encoding="utf-8-sig"))
    except OSError as error:
        raise UsageError(f"The chart file {path} cannot be read: {error.strerror}.") from None
    except ValueError as error:
        raise UsageError(f"The chart file {path} is not JSON: {error}.") from None
    if not isinstance(found, dict) or not isinstance(found.get("measures"), dict):
        raise UsageError(f'The chart file {path} has no "measures": write {{"unit": "cm", "measures": {{"waist": 70}}}}.')
    figure = found.get("figure", "curved")
    if figure not in TABLES:
        raise UsageError(f'The chart file {path} names the figure "{figure}": there are {", ".join(TABLES)}.')
    try:
        unit = as_unit(str(found.get("unit", "cm")))
        return chart_of(found["measures"], unit, figure=figure), unit
    except (ChartError, LengthError) as error:
        raise UsageError(f"{path}: {error}") from None


if __name__ == "__main__":
    sys.exit(main())
