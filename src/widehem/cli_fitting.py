"""The commands about fittings: a toile with what it measures, and a record of a fitting with what may be behind it."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Callable, Mapping
from pathlib import Path
from typing import Any

from widehem.cli_designs import named_design
from widehem.cli_house import FINE, REFUSED, UsageError, hand_over
from widehem.cli_paper import add_paper
from widehem.core.units import Display, Unit

Reads = Callable[[Path], tuple[Any, Unit]]
Writes = Callable[[Any, argparse.Namespace, Unit], bytes]
FORMATS = ("text", "json", "svg", "pdf", "dxf")


def add_commands(commands: Any, read_chart: Reads, written: Writes) -> None:
    """`toile` and `fit`."""
    toile = commands.add_parser(
        "toile", help="a design as a toile: what it measures beside the chart, the room in it, its paper"
    )
    toile.add_argument("design", metavar="DESIGN", help="a design file, the name of one that ships, or a method")
    toile.add_argument("--chart", type=Path, required=True, metavar="FILE.json")
    toile.add_argument("--format", choices=FORMATS, default="text")
    add_paper(toile)
    toile.set_defaults(run=lambda arguments: _toile(arguments, read_chart, written))

    fit = commands.add_parser("fit", help="a fitting as JSON: what may be behind what was seen, and the altered pieces")
    fit.add_argument("record", type=Path, metavar="FILE.json")
    fit.add_argument("--format", choices=("text", "json"), default="text")
    fit.add_argument("--out", type=Path, metavar="FILE")
    fit.set_defaults(run=lambda arguments: _fit(arguments, read_chart))


def named_or_method(text: str) -> tuple[str, Any]:
    """A design by its name or file, or a block by the code of its method. Raises UsageError."""
    import widehem.core.drafting.methods  # noqa: F401 - registers them
    from widehem.core.design.design import method_design
    from widehem.core.drafting.method import METHODS

    if text in METHODS:
        return METHODS[text].name, method_design(METHODS[text])
    named = named_design(text)
    return named.name, named.design


def _toile(arguments: argparse.Namespace, read_chart: Reads, written: Writes) -> int:
    from widehem.core.design.make import make
    from widehem.core.fitting.around import around
    from widehem.core.fitting.stand import stand_test
    from widehem.core.setting.option import OptionError
    from widehem.core.setting.refusal import CannotDraft

    arguments.title, design = named_or_method(arguments.design)
    chart, unit = read_chart(arguments.chart)
    show = Display(unit)
    try:
        made = make(design, chart)
    except OptionError as error:
        raise UsageError(str(error)) from None
    except CannotDraft as refusal:
        print(refusal.saying.text(show), file=sys.stderr)
        return REFUSED
    if arguments.format not in ("text", "json"):
        arguments.allowance = arguments.allowance or "toile"
        return hand_over(written(made, arguments, unit), arguments.out)
    rows, curves = stand_test(made, design), around(made)
    if arguments.format == "json":
        data = {
            "stand": [
                {"measure": r.code, "kind": r.kind, "body": _two(r.body), "toile": _two(r.toile), "off": None if r.off is None else _two(r.off)}
                for r in rows
            ],
            "room": [
                {"limb": c.limb, "levels": [{"name": v.name, "down": _two(v.down), "body": _two(v.body), "garment": _two(v.garment)} for v in c.named]}
                for c in curves
            ],
        }  # fmt: skip
        return hand_over((json.dumps(data, indent=1) + "\n").encode(), arguments.out)
    lines = [
        f"{r.name:28} body {show.length(r.body):>6}  garment {show.length(r.toile):>6}  {r.saying.text(show)}" for r in rows
    ]
    lines += [f"{'Round one leg' if c.limb else 'Round the body'}: {c.saying.text(show)}" for c in curves]
    return hand_over(("\n".join(lines) + "\n").encode(), arguments.out)


def _two(value: float | None) -> float | None:
    return None if value is None else round(value, 2) + 0.0


def _fit(arguments: argparse.Namespace, read_chart: Reads) -> int:
    """The record: {"design": name or method, "unit", "figure", "measures": as in a chart file, "seen": [{"sign", "pinned", "hand"}], "good":
    [what was good], "alterations": [{"code", "settings"}]}."""
    from widehem.core.design.make import make
    from widehem.core.fitting.candidates import candidates, figures
    from widehem.core.fitting.causes import LOOK_AT
    from widehem.core.fitting.record import RecordError, checked
    from widehem.core.fitting.stand import stand_test
    from widehem.core.output.json_draft import draft_as_json
    from widehem.core.setting.option import OptionError
    from widehem.core.setting.refusal import CannotDraft

    record = _record(arguments.record)
    _, design = named_or_method(str(record.get("design", "")))
    chart, unit = read_chart(arguments.record)
    show = Display(unit)
    try:
        seen = [checked("sign", _object(entry, "seen"), unit) for entry in _list(record, "seen")]
    except RecordError as error:
        raise UsageError(f"{arguments.record}: {error}") from None
    good = [str(look) for look in _list(record, "good")]
    for look in good:
        if look not in LOOK_AT:
            raise UsageError(f'{arguments.record}: good names "{look}": there are {", ".join(LOOK_AT)}.')
    try:
        before = make(design, chart)
        made = make(design, chart, _alterations(arguments.record, _list(record, "alterations")))
    except OptionError as error:
        raise UsageError(str(error)) from None
    except CannotDraft as refusal:
        print(refusal.saying.text(show), file=sys.stderr)
        return REFUSED
    known = figures(chart, stand_test(before, design))
    codes = [entry["sign"] for entry in seen if entry["sign"]]
    found = {
        entry["sign"]: candidates(entry["sign"], entry["pinned"] or 1.0, known, codes, good) for entry in seen if entry["sign"]
    }
    for refused in made.refused:
        print(f"{refused.step}: {refused.saying.text(show)}", file=sys.stderr)
    if arguments.format == "json":
        data = {
            "candidates": {
                sign: [
                    {"cause": c.cause.code, "score": round(c.score, 4), "alteration": c.cause.alteration, "settings": dict(c.settings),
                        "reasons": [r.text() for r in c.reasons], "place": c.place.text()}
                    for c in ranked
                ]
                for sign, ranked in found.items()
            },
            "draft": draft_as_json(made),
        }  # fmt: skip
        return hand_over((json.dumps(data, indent=1, ensure_ascii=False) + "\n").encode(), arguments.out)
    lines = []
    for sign, ranked in found.items():
        lines.append(f"{sign}:")
        for number, c in enumerate(ranked, 1):
            why = "; ".join(r.text(show) for r in c.reasons)
            lines.append(f"  {number}. {c.cause.words} ({c.cause.alteration}){f': {why}' if why else ''}. {c.place.text(show)}")
    lines += [f"{note.text(show)}" for note, of in zip(made.notes, made.told, strict=True) if of.startswith("alteration-")]
    hand_over(("\n".join(lines) + "\n").encode(), arguments.out)
    return FINE


def _record(path: Path) -> Mapping[str, Any]:
    try:
        found = json.loads(path.read_text(encoding="utf-8-sig"))
    except OSError as error:
        raise UsageError(f"The record {path} cannot be read: {error.strerror}.") from None
    except ValueError as error:
        raise UsageError(f"The record {path} is not JSON: {error}.") from None
    if not isinstance(found, dict) or "design" not in found:
        raise UsageError(f'The record {path} names no "design": write the name of one that ships, a file or a method.')
    return found


def _list(record: Mapping[str, Any], name: str) -> list[Any]:
    found = record.get(name, [])
    if not isinstance(found, list):
        raise UsageError(f'"{name}" is no list: write it in square brackets.')
    return found


def _object(entry: Any, name: str) -> Mapping[str, Any]:
    if not isinstance(entry, dict):
        raise UsageError(f'"{name}" holds {str(entry)[:30]}: every entry is one in curly brackets.')
    return entry


def _alterations(path: Path, rows: list[Any]) -> tuple[Any, ...]:
    """The alterations of a record as steps. Raises UsageError."""
    from widehem.core.design.design import Step
    from widehem.core.setting.option import OptionError
    from widehem.core.style.operation import OPERATIONS

    steps = []
    for number, row in enumerate(rows, 1):
        entry = _object(row, "alterations")
        code, names = str(entry.get("code", "")), _object(entry.get("names", {}), "names")
        if code not in OPERATIONS or OPERATIONS[code].family != "alterations":
            raise UsageError(
                f'{path}: alteration {number}: there is no "{code}"; `widehem operations` lists those that begin with alter.'
            )
        step = Step(
            f"alteration-{number}",
            code,
            dict(_object(entry.get("settings", {}), "settings")),
            names={n: str(v) for n, v in names.items()},
        )
        try:
            for code, value in step.settings.items():
                step.operation.option(code).check(value)
        except OptionError as error:
            raise UsageError(f"{path}: alteration {number}: {error}") from None
        except (KeyError, StopIteration):
            raise UsageError(
                f"{path}: alteration {number}: {step.code} has no such setting: {', '.join(o.code for o in step.operation.options)} are there."
            ) from None
        if unknown := set(names) - set(step.operation.names):
            raise UsageError(f'{path}: alteration {number}: {step.code} takes no name "{sorted(unknown)[0]}".')
        steps.append(step)
    return tuple(steps)
