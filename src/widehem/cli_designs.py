"""The commands about designs: those that ship, and one drawn on a chart."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Callable
from pathlib import Path
from typing import Any

from widehem.cli_house import FINE, REFUSED, UsageError, hand_over
from widehem.cli_paper import FORMATS, add_paper
from widehem.core.units import METRIC, Unit

Reads = Callable[[Path], tuple[Any, Unit]]
Writes = Callable[[Any, argparse.Namespace, Unit], bytes]


def add_commands(commands: Any, read_chart: Reads, written: Writes) -> None:
    """`designs`, `design` and `operations`. read_chart, written: how a chart file is read and a drawing is written."""
    listed = commands.add_parser("designs", help="the designs that ship")
    listed.add_argument("--format", choices=("text", "json"), default="text")
    listed.set_defaults(run=_designs)

    known = commands.add_parser("operations", help="the operations designs are made of: places, settings, names")
    known.add_argument("--format", choices=("text", "json"), default="text")
    known.set_defaults(run=_operations)

    one = commands.add_parser("design", help="draw a design, from a file or one that ships, on a chart file")
    one.add_argument("design", metavar="FILE.json", help="a design file, or the name of one that ships")
    one.add_argument("--chart", type=Path, metavar="FILE.json", help="without one the design itself is written")
    one.add_argument("--format", choices=FORMATS, default="json")
    add_paper(one)
    one.set_defaults(run=lambda arguments: _design(arguments, read_chart, written))


def _designs(arguments: argparse.Namespace) -> int:
    import widehem.core.drafting.methods  # noqa: F401 - registers them
    from widehem.core.design.ships import shipped

    if arguments.format == "json":
        rows = [
            {
                "code": code,
                "name": named.name,
                "summary": named.summary,
                "method": named.design.method,
                "steps": len(named.design.steps),
            }
            for code, named in shipped().items()
        ]
        print(json.dumps({"designs": rows}, indent=2, ensure_ascii=False))
        return FINE
    for code, named in shipped().items():
        print(f"{code:10} {named.name}. {named.summary}")
        print(f"{'':10} {named.design.drawn_by.name}, {len(named.design.steps)} steps")
    return FINE


def _operations(arguments: argparse.Namespace) -> int:
    import widehem.core.style.operations  # noqa: F401 - registers them
    from widehem.core.style.operation import OPERATIONS

    rows: list[dict[str, Any]] = [
        {
            "code": entry.code, "family": entry.family, "title": entry.title, "why": entry.why, "phase": entry.phase,
            "places": {code: words + (" (may be left out)" if code in entry.spare else "") for code, words in entry.wheres.items()},
            "settings": {option.code: METRIC.words(option.why) for option in entry.options}, "names": dict(entry.names),
        }
        for entry in OPERATIONS.values()
    ]  # fmt: skip
    if arguments.format == "json":
        print(json.dumps({"operations": rows}, indent=2, ensure_ascii=False))
        return FINE
    for row in rows:
        print(f"{row['code']:16} {row['title']} ({row['family']}): {row['why']}")
        for kind in ("places", "settings", "names"):
            for code, words in row[kind].items():
                print(f"{'':16} {kind[:-1]:8} {code}: {words}")
    return FINE


def named_design(text: str) -> Any:
    """A design that ships, or of a file. Raises UsageError."""
    from widehem.core.design.files import DesignFileError, read_design
    from widehem.core.design.ships import shipped

    if text in shipped():
        return shipped()[text]
    path = Path(text)
    try:
        return read_design(path.read_bytes())
    except OSError as error:
        ships = ", ".join(shipped())
        raise UsageError(f"The design file {path} cannot be read: {error.strerror}. Designs that ship: {ships}.") from None
    except DesignFileError as error:
        raise UsageError(f"{path}: {error}") from None


def _design(arguments: argparse.Namespace, read_chart: Reads, written: Writes) -> int:
    import widehem.core.drafting.methods  # noqa: F401 - registers them
    from widehem.core.design.files import design_as_json
    from widehem.core.design.make import make
    from widehem.core.output.json_draft import refusal_as_json
    from widehem.core.setting.option import OptionError
    from widehem.core.setting.refusal import CannotDraft

    named = named_design(arguments.design)
    arguments.title = named.name
    if arguments.chart is None:
        data = design_as_json(named)
    else:
        try:
            chart, unit = read_chart(arguments.chart)
            made = make(named.design, chart)
            data = written(made, arguments, unit)
        except OptionError as error:
            raise UsageError(str(error)) from None
        except CannotDraft as refusal:
            print(json.dumps(refusal_as_json(refusal), ensure_ascii=False))
            return REFUSED
        for refused in made.refused:
            print(f"{refused.step}: {refused.saying.text()}", file=sys.stderr)
    return hand_over(data, arguments.out)
