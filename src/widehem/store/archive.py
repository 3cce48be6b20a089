"""A production as a file that holds everything needed to draw it again: out of one house, and into another."""

from __future__ import annotations

import json
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from sqlalchemy import JSON, Boolean, Date, DateTime, Double, Float, Integer, LargeBinary, String, inspect, select
from sqlalchemy.orm import Session

from widehem import __version__
from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.figure_tables import TABLES as FIGURES
from widehem.core.output.photo import LARGE_SIDE, SIDE, PhotoError, small_photo
from widehem.store.archive_values import ArchiveError, checked_json
from widehem.store.grading import referred
from widehem.store.journal import columns_of, tell, true_value, values_of
from widehem.store.models import (
    AcceptedDoubt,
    Base,
    Book,
    ChartRow,
    DesignRow,
    DesignVersion,
    Docket,
    FittingEvent,
    FittingRound,
    HouseCloth,
    HouseRules,
    HouseSizes,
    HouseTable,
    LayRow,
    Note,
    Photo,
    Picture,
    Production,
    ReadingRow,
    Traced,
    Wearer,
)

FORMAT, VERSION = "widehem-archive", 1
LARGEST, MOST_ROWS = 60 * 1024 * 1024, 200_000
PARTS: tuple[type[Base], ...] = (
    HouseTable, HouseSizes, HouseRules, HouseCloth, DesignRow, DesignVersion, Traced, Production, Wearer, Photo, ChartRow, ReadingRow, AcceptedDoubt, Docket, Picture, FittingRound, FittingEvent, Note, LayRow, Book,
)  # fmt: skip
WITH_PICTURES = (Photo, Picture, Traced)
LEFT_OUT = {"version", "binned_at"}
BELONGS: Mapping[str, Mapping[str, str]] = {
    "design_version": {"design_id": "design"}, "traced": {"design_id": "design"}, "wearer": {"production_id": "production"},
    "photo": {"wearer_id": "wearer"}, "chart": {"wearer_id": "wearer"}, "reading": {"chart_id": "chart"}, "accepted_doubt": {"chart_id": "chart"},
    "docket": {"production_id": "production", "wearer_id": "wearer", "design_id": "design", "chart_id": "chart", "bodice_id": "docket"},
    "picture": {"production_id": "production"}, "note": {"production_id": "production", "wearer_id": "wearer", "docket_id": "docket", "round_id": "fitting_round"},
    "fitting_round": {"docket_id": "docket"}, "fitting_event": {"round_id": "fitting_round"}, "lay": {"production_id": "production"}, "book": {"wearer_id": "wearer"},
}  # fmt: skip
HOUSE = "house-"


def archive(session: Session, production: Production, *, pictures: bool = True) -> bytes:
    """All of a production that is not in the bin, with the designs and figure tables it rests on."""
    rows = {model.__tablename__: [_row(row) for row in found] for model, found in _rows(session, production, pictures=pictures)}
    data = {"format": FORMAT, "version": VERSION, "written by": f"Wide Hem {__version__}", "rows": rows}
    return (json.dumps(data, indent=1, ensure_ascii=False) + "\n").encode()


def _row(row: Any) -> dict[str, Any]:
    return {name: value for name, value in values_of(row).items() if name not in LEFT_OUT and value is not None}


def _rows(session: Session, production: Production, *, pictures: bool) -> Iterable[tuple[type[Base], list[Any]]]:
    wearers = list(session.scalars(select(Wearer).where(Wearer.production_id == production.id, Wearer.binned_at.is_(None))))
    people = [wearer.id for wearer in wearers]
    charts = list(session.scalars(select(ChartRow).where(ChartRow.wearer_id.in_(people)).order_by(ChartRow.id)))
    taken = [chart.id for chart in charts]
    dockets = list(
        session.scalars(select(Docket).where(Docket.wearer_id.in_(people), Docket.binned_at.is_(None)).order_by(Docket.id))
    )
    drawn, made = {docket.design_id for docket in dockets}, [docket.id for docket in dockets]
    tables = {
        int(w.figure.removeprefix(HOUSE))
        for w in wearers
        if w.figure.startswith(HOUSE) and w.figure.removeprefix(HOUSE).isdecimal()
    }
    gradings = list(session.scalars(select(DesignRow.grading).where(DesignRow.id.in_(drawn))))
    graded = {
        int(code.removeprefix(HOUSE))
        for data in (*gradings, production.cast)
        for code in referred(data or {})
        if code.removeprefix(HOUSE).isdecimal()
    }
    cloths = {
        int(code.removeprefix(HOUSE))
        for docket in dockets
        for code in (docket.making or {}).get("cloths", {}).values()
        if code.startswith(HOUSE) and code.removeprefix(HOUSE).isdecimal()
    }
    found: dict[type[Base], Any] = {
        HouseCloth: select(HouseCloth).where(HouseCloth.id.in_(cloths)),
        Book: select(Book).where(Book.wearer_id.in_(people)).order_by(Book.id),
        LayRow: select(LayRow).where(LayRow.production_id == production.id).order_by(LayRow.id),
        HouseTable: select(HouseTable).where(HouseTable.id.in_(tables)),
        HouseSizes: select(HouseSizes).where(HouseSizes.id.in_(graded)),
        HouseRules: select(HouseRules).where(HouseRules.id.in_(graded)),
        DesignRow: select(DesignRow).where(DesignRow.id.in_(drawn)).order_by(DesignRow.id),
        DesignVersion: select(DesignVersion).where(DesignVersion.design_id.in_(drawn)).order_by(DesignVersion.id),
        Traced: select(Traced).where(Traced.design_id.in_(drawn)),
        Photo: select(Photo).where(Photo.wearer_id.in_(people)),
        ReadingRow: select(ReadingRow).where(ReadingRow.chart_id.in_(taken)).order_by(ReadingRow.id),
        AcceptedDoubt: select(AcceptedDoubt).where(AcceptedDoubt.chart_id.in_(taken)).order_by(AcceptedDoubt.id),
        Picture: select(Picture).where(Picture.production_id == production.id).order_by(Picture.id),
        Note: select(Note).where(Note.production_id == production.id).order_by(Note.id),
        FittingRound: select(FittingRound).where(FittingRound.docket_id.in_(made)).order_by(FittingRound.id),
        FittingEvent: select(FittingEvent)
        .where(FittingEvent.round_id.in_(select(FittingRound.id).where(FittingRound.docket_id.in_(made))))
        .order_by(FittingEvent.id),
    }  # fmt: skip
    known: dict[type[Base], list[Any]] = {Production: [production], Wearer: wearers, ChartRow: charts, Docket: dockets}
    for model in PARTS:
        if model in known:
            yield model, known[model]
        elif pictures or model not in WITH_PICTURES:
            yield model, list(session.scalars(found[model]))


@dataclass
class Archive:
    """What a file holds, read and looked through. rows: by table."""

    rows: dict[str, list[dict[str, Any]]]

    @property
    def name(self) -> str:
        return str(self.rows["production"][0]["name"])


def read_archive(data: bytes) -> Archive:
    """The archive in a file. Raises ArchiveError naming what is wrong in it."""
    if len(data) > LARGEST:
        raise ArchiveError(f"The file is {len(data) // 1024 // 1024} MB, {LARGEST // 1024 // 1024} is the most.")
    try:
        found = json.loads(data.decode("utf-8-sig"))
    except (UnicodeDecodeError, ValueError, RecursionError) as error:
        raise ArchiveError(f"The file is not JSON: {str(error)[:80]}.") from None
    if not isinstance(found, dict) or found.get("format") != FORMAT:
        raise ArchiveError(f'The file is no archive of a production: it says "format": "{FORMAT}" when it is one.')
    if found.get("version") != VERSION:
        raise ArchiveError(f'"version" is {str(found.get("version"))[:20]}: this edition reads version {VERSION}.')
    tables = found.get("rows")
    if not isinstance(tables, dict) or len(tables.get("production") or ()) != 1:
        raise ArchiveError("The archive holds no production, or more than one.")
    rows: dict[str, list[dict[str, Any]]] = {}
    for model in PARTS:
        part = tables.get(model.__tablename__, [])
        if not isinstance(part, list) or not all(isinstance(row, dict) for row in part):
            raise ArchiveError(f'"{model.__tablename__}" is no list of rows.')
        rows[model.__tablename__] = [_checked(model, number, row) for number, row in enumerate(part, 1)]
    if sum(map(len, rows.values())) > MOST_ROWS:
        raise ArchiveError(f"The archive has more than {MOST_ROWS} rows.")
    _belongs(rows)
    return Archive(rows)


def _checked(model: type[Base], number: int, row: Mapping[str, Any]) -> dict[str, Any]:
    """A row with nothing in it but its columns, each of its kind. Raises ArchiveError."""
    mapper = inspect(model)
    called = f"{model.__tablename__} {number}"
    found: dict[str, Any] = {}
    for name in columns_of(mapper):
        column = mapper.columns[name]
        if name in LEFT_OUT:
            continue
        value = row.get(name)
        if value is None:
            if not column.nullable and column.default is None and column.server_default is None and not column.primary_key:
                raise ArchiveError(f"{called}: {name} is missing.")
            continue
        found[name] = _value(model, name, column.type, value, called)
    return found


def _value(model: type[Base], name: str, kind: Any, value: Any, called: str) -> Any:
    def refused(what: str) -> ArchiveError:
        return ArchiveError(f"{called}: {name} is {str(value)[:30]!r}: {what} belongs there.")

    if isinstance(kind, Boolean):
        if not isinstance(value, bool):
            raise refused("true or false")
        return value
    if isinstance(kind, Integer):
        if not isinstance(value, int) or isinstance(value, bool) or abs(value) > 10**12:
            raise refused("a whole number")
        return value
    if isinstance(kind, Double | Float):
        if not isinstance(value, int | float) or isinstance(value, bool) or not abs(value) < 1e9:
            raise refused("a figure")
        return float(value)
    if isinstance(kind, JSON):
        return checked_json(f"{model.__tablename__}.{name}", value, called)
    if not isinstance(value, str):
        raise refused("text")
    if isinstance(kind, DateTime | Date | LargeBinary):
        try:
            true = true_value(model, name, value)
        except ValueError:
            raise refused(
                "a day" if isinstance(kind, Date) else "a moment" if isinstance(kind, DateTime) else "a picture"
            ) from None
        return _drawn_anew(name, true, called) if isinstance(kind, LargeBinary) else true
    if isinstance(kind, String) and kind.length and len(value) > kind.length:
        raise ArchiveError(f"{called}: {name} has {len(value)} signs, {kind.length} at most.")
    return value


def _drawn_anew(name: str, data: bytes, called: str) -> bytes:
    try:
        return small_photo(data, SIDE if name == "small" else LARGE_SIDE)
    except PhotoError as error:
        raise ArchiveError(f"{called}: {error}") from None


def _belongs(rows: dict[str, list[dict[str, Any]]]) -> None:
    """Every row belongs to rows that are there, and what they say of the trade is known. Raises ArchiveError."""
    there = {table: {row.get("id") for row in found} for table, found in rows.items()}
    for table, columns in BELONGS.items():
        for number, row in enumerate(rows[table], 1):
            for column, other in columns.items():
                if row.get(column) is not None and row[column] not in there[other]:
                    if column in ("chart_id", "bodice_id") and table == "docket":
                        row.pop(column)
                        continue
                    raise ArchiveError(f"{table} {number}: its {other} {row[column]} is not in the archive.")
    for number, row in enumerate(rows["reading"], 1):
        if (
            row["measure"] not in CATALOGUE
            or row.get("unit", "cm") not in ("cm", "in")
            or row.get("side", "") not in ("", "left", "right")
        ):
            raise ArchiveError(f"reading {number}: there is no measure {row['measure'][:40]}, or no such unit or side.")
        if not 0 <= int(row.get("ticks") or 0) < 10**8:
            raise ArchiveError(f"reading {number}: no body is that long.")


def take_in(session: Session, found: Archive) -> Production:
    """A new production from an archive; what it is called where that name is taken, it gets a number. Everything is new: nothing that is
    there already is changed."""
    new: dict[str, dict[int, int]] = {}
    made: Production | None = None
    later: list[tuple[Docket, int]] = []
    for model in PARTS:
        table = model.__tablename__
        numbers = new.setdefault(table, {})
        for row in found.rows[table]:
            values, bodice = _renumbered(table, row, new)
            old = values.pop("id", None)
            entry = model(**values)
            if table == "design" and not values.get("own") and (same := _same_block(session, values)) is not None:
                numbers[int(old or 0)] = same.id
                continue
            session.add(entry)
            session.flush()
            if old is not None:
                numbers[int(old)] = int(getattr(entry, "id", 0))
            if isinstance(entry, Production):
                entry.name, made = _free_name(session, entry), entry
            if isinstance(entry, Docket) and bodice is not None:
                later.append((entry, bodice))
    for docket, bodice in later:
        docket.bodice_id = new["docket"].get(bodice)
    session.flush()
    assert made is not None
    tell(session, f"Took in the production {made.name} from an archive.", made)
    return made


def _renumbered(table: str, row: Mapping[str, Any], new: Mapping[str, Mapping[int, int]]) -> tuple[dict[str, Any], int | None]:
    """A row with the numbers of the rows it belongs to as they are here; and of the docket it hangs on, which may come later."""
    values, bodice = dict(row), None
    for column, other in BELONGS.get(table, {}).items():
        if values.get(column) is None:
            continue
        if other == table:
            bodice = int(values.pop(column))
        else:
            values[column] = new[other][int(values[column])]
    if table == "wearer":
        figure = str(values.get("figure", ""))
        number = figure.removeprefix(HOUSE)
        if figure.startswith(HOUSE) and number.isdecimal() and int(number) in new["house_table"]:
            values["figure"] = f"{HOUSE}{new['house_table'][int(number)]}"
        elif figure not in FIGURES:
            values.pop("figure", None)
    if table == "design" and values.get("grading"):
        values["grading"] = {
            name: _here(value, new["house_sizes" if name == "chart" else "house_rules"])
            if name in ("chart", "rules")
            else value
            for name, value in values["grading"].items()
        }
    if table == "production" and values.get("cast"):
        kind, _, code = str(values["cast"].get("against", "")).partition(":")
        known = {
            "sizes": _here(code, new["house_sizes"]),
            "design": str(new["design"].get(int(code), "")) if code.isdecimal() else "",
        }.get(kind, "")
        values["cast"] = {**values["cast"], "against": f"{kind}:{known}" if known else "sizes:curved"}
    if table == "docket" and (worn := values.get("making", {}).get("cloths")):
        here = {name: _here(code, new["house_cloth"]) for name, code in worn.items()}
        values["making"] = {**values["making"], "cloths": here}
    if table == "lay":
        dockets = new["docket"]
        values["dockets"] = [dockets[n] for n in values.get("dockets", []) if n in dockets]
        values["stock"] = [{**entry, "stock": 0} for entry in values.get("stock", [])]  # that house's shelf is not here
    if table == "book":
        pictures = new["picture"]
        shots = [[pictures[n], *rest] for n, *rest in values.get("data", {}).get("shots", []) if n in pictures]
        values["data"] = {**values.get("data", {}), "shots": shots}
    if table == "note":
        pictures = new["picture"]
        values["pictures"] = [pictures[n] for n in values.get("pictures", []) if isinstance(n, int) and n in pictures]
    return values, bodice


def _here(code: Any, numbers: Mapping[int, int]) -> str:
    """The code of something of the house as it is here."""
    text = str(code)
    number = text.removeprefix(HOUSE)
    return (
        f"{HOUSE}{numbers[int(number)]}" if text.startswith(HOUSE) and number.isdecimal() and int(number) in numbers else text
    )


def _same_block(session: Session, values: Mapping[str, Any]) -> DesignRow | None:
    """The block of the same method and rules that is here already."""
    if values.get("options") or values.get("ease") or values.get("steps") or values.get("outlines"):
        return None
    query = (
        select(DesignRow)
        .where(DesignRow.method == values["method"], DesignRow.rules == values.get("rules", 1))
        .order_by(DesignRow.id)
    )
    return next((row for row in session.scalars(query) if not (row.own or row.options or row.ease or row.steps)), None)


def _free_name(session: Session, production: Production) -> str:
    taken = set(session.scalars(select(Production.name).where(Production.id != production.id)))
    name, number = production.name, 2
    while name in taken:
        name, number = f"{production.name[:112]} {number}", number + 1
    return name
