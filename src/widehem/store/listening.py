"""A chart that listens to a digital tape: each message fills the next field, once, and can be taken back."""

from __future__ import annotations

import secrets
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any, cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Reading
from widehem.core.body.doubts import doubts
from widehem.core.days import hour_in
from widehem.core.units import Length, Unit
from widehem.store.charts import add_reading, core_chart, history
from widehem.store.clock import house_zone
from widehem.store.keeping import StoreError
from widehem.store.models import ChartRow, Heard, Listening, now

PAIR_DIGITS = 6
PAIR_TRIES = 100  # of a free number, before it is said that there is none
PAIR_HOLDS = timedelta(hours=12)  # a pair number, from when it was begun
BOUNCE = timedelta(seconds=2)  # the same figure again within this, from a tape that does not count its messages


class NotTakenBackError(Exception):
    """A reading that was not taken back; one sentence."""


@dataclass(frozen=True)
class Message:
    """What a tape said. number: its own count of messages, None when it does not count."""

    device: str
    number: int | None
    length: Length


@dataclass(frozen=True)
class Answer:
    """What became of a message. code, turn: the field it filled, '' when the list was full already; doubts: keys of what is
    doubtful there now; repeated: it had been heard before and nothing was written."""

    code: str
    turn: int
    ticks: int
    doubts: tuple[str, ...] = ()
    repeated: bool = False

    def as_json(self) -> dict[str, Any]:
        return {"code": self.code, "turn": self.turn, "ticks": self.ticks, "doubts": list(self.doubts)}


def begin_listening(session: Session, chart: ChartRow, codes: Sequence[str], *, twice: bool, owner: str = "") -> Listening:
    """Let a chart listen, under a pair number of its own; one that listens already begins anew under a new number. Raises
    StoreError when no number is free."""
    row = listening_of(session, chart.id)
    if row is None:
        row = Listening(chart_id=chart.id, codes=[], at="")
        session.add(row)
    row.pair, row.owner, row.begun_at = _free_pair(session), owner, now()
    row.codes, row.twice, row.at, row.turn, row.held = list(codes), twice, codes[0] if codes else "", 1, False
    session.flush()
    return row


def _free_pair(session: Session) -> str:
    with session.no_autoflush:
        taken = set(session.scalars(select(Listening.pair)))
    for _ in range(PAIR_TRIES):
        pair = _number()
        if pair not in taken:
            return pair
    raise StoreError("No pair number is free: stop listening on charts that are done, and press Listen again.")


def _number() -> str:
    return f"{secrets.randbelow(10**PAIR_DIGITS):0{PAIR_DIGITS}d}"


def listening_of(session: Session, chart_id: int) -> Listening | None:
    return session.scalars(select(Listening).where(Listening.chart_id == chart_id)).first()


def listening_under(session: Session, pair: str) -> Listening | None:
    """The chart that listens under a pair number, None when there is none or its time is over."""
    row = session.scalars(select(Listening).where(Listening.pair == pair)).first()
    return None if row is None or has_run_out(row) else row


def has_run_out(row: Listening) -> bool:
    """Whether a pair number is older than it holds."""
    return now() - row.begun_at > PAIR_HOLDS


def hear(session: Session, row: Listening, message: Message) -> Answer:
    """Take a message. A repeated one gets the answer it got before; nothing is written twice."""
    before = _heard_before(session, row, message)
    if before is not None:
        said = before.answer
        return Answer(said["code"], said["turn"], said["ticks"], tuple(said["doubts"]), repeated=True)
    if not row.at:
        return Answer("", 0, message.length.ticks)
    code, turn = row.at, row.turn
    standing = core_chart(session, row.chart).readings.get(code) or Reading(code)
    if row.held and not standing.carried:
        turn = _third(standing, message.length) or turn
    stood = None if standing.carried else standing.at("").first if turn == 1 else standing.at("").second
    add_reading(session, row.chart, code, turn, message.length, hour=_hour(session, code))
    session.flush()
    found = tuple(doubt.key for doubt in _open_doubts(session, row, code))
    answer = Answer(code, turn, message.length.ticks, found)
    number = message.number if message.number is not None else _next_number(session, row, message.device)
    session.add(
        Heard(
            listening_id=row.id, device=message.device, number=number, said=message.length.as_typed[:60], measure=code,
                turn=turn,
            stood=stood.ticks if stood else None, answer=answer.as_json(),
        )
    )  # fmt: skip
    if found:
        row.held, row.turn = True, 2
    else:
        _advance(row, turn)
    session.flush()
    return answer


def _hour(session: Session, code: str) -> str:
    """The time of day where the house stands, for a measure it is noted with."""
    return hour_in(now(), house_zone(session)) if CATALOGUE[code].of_the_hour else ""


def _heard_before(session: Session, row: Listening, message: Message) -> Heard | None:
    query = select(Heard).where(Heard.listening_id == row.id, Heard.device == message.device).order_by(Heard.id.desc())
    if message.number is not None:
        return session.scalars(query.where(Heard.number == message.number)).first()
    last = session.scalars(query).first()
    if last is None or last.undone or not _just_now(last.created_at):
        return None
    return last if last.answer["ticks"] == message.length.ticks else None


def _just_now(moment: datetime) -> bool:
    """Whether this was a moment ago; what lies ahead, as after the clock was put back, was not."""
    return timedelta() <= now() - moment <= BOUNCE


def _next_number(session: Session, row: Listening, device: str) -> int:
    """A count for a tape that has none of its own, below those of tapes that count."""
    query = select(Heard.number).where(Heard.listening_id == row.id, Heard.device == device).order_by(Heard.number)
    least = session.scalars(query).first()
    return min(least if least is not None else 0, 0) - 1


def _third(standing: Reading, length: Length) -> int | None:
    """A third reading takes the place of the one that lies further from it; None while there are not two."""
    turns = standing.at("")
    if turns.first is None or turns.second is None:
        return None
    return 1 if abs(turns.first.ticks - length.ticks) > abs(turns.second.ticks - length.ticks) else 2


def _open_doubts(session: Session, row: Listening, code: str) -> list[Any]:
    accepted = {entry.doubt for entry in row.chart.accepted}
    return [doubt for doubt in doubts(core_chart(session, row.chart)) if code in doubt.measures and doubt.key not in accepted]


def _advance(row: Listening, turn: int) -> None:
    """On to the second reading, or to the next measure of the list."""
    row.held = False
    if row.twice and turn == 1 and row.turn == 1:
        row.turn = 2
        return
    place = row.codes.index(row.at) + 1
    row.at, row.turn = (row.codes[place] if place < len(row.codes) else ""), 1


def go_on(row: Listening, to: str = "") -> None:
    """Leave the measure in hand as it is, on to the next one or to the one named."""
    row.held = False
    if to in row.codes:
        row.at, row.turn = to, 1
    elif row.at:
        row.turn = 2
        _advance(row, 2)


def take_back_by_tape(session: Session, row: Listening, device: str, number: int | None) -> tuple[Heard, bool]:
    """Take back what a tape names, or the last it sent; whether it was taken back already. Raises NotTakenBackError."""
    entry = _meant(session, row, device, number)
    if entry is None:
        who = device or "this tape"
        what = f"No reading {number} came from {who}" if number is not None else f"There is nothing to take back from {who}"
        raise NotTakenBackError(f"{what}: take back on the chart's page what another one sent.")
    if entry.undone:
        return entry, True
    if entry is not last_heard(session, row):
        raise NotTakenBackError("Another reading came after it: take that one back first.")
    take_back(session, row, entry)
    return entry, False


def _meant(session: Session, row: Listening, device: str, number: int | None) -> Heard | None:
    query = select(Heard).where(Heard.listening_id == row.id, Heard.device == device)
    if number is not None:
        return session.scalars(query.where(Heard.number == number)).first()
    undone = session.scalars(query.where(Heard.undone_at.is_not(None)).order_by(Heard.undone_at.desc())).first()
    bounced = undone if undone is not None and undone.undone_at is not None and _just_now(undone.undone_at) else None
    return bounced or session.scalars(query.where(Heard.undone_at.is_(None)).order_by(Heard.id.desc())).first()


def last_heard(session: Session, row: Listening) -> Heard | None:
    """The last message that was not taken back."""
    query = select(Heard).where(Heard.listening_id == row.id, Heard.undone_at.is_(None)).order_by(Heard.id.desc())
    return session.scalars(query).first()


def take_back(session: Session, row: Listening, last: Heard) -> None:
    """Take the last message back: what stood in its field before stands there again, and the field waits once more."""
    stood = None if last.stood is None else _again(session, row, last)
    add_reading(session, row.chart, last.measure, last.turn, stood)
    last.undone_at = now()
    row.at, row.turn = last.measure, last.turn
    session.flush()
    row.held = bool(_open_doubts(session, row, last.measure))


def _again(session: Session, row: Listening, last: Heard) -> Length:
    """The reading that stood before a message, as it was typed."""
    for old in history(session, row.chart, last.measure):
        if old.turn == last.turn and not old.side and old.ticks == last.stood:
            return Length(old.ticks or 0, old.typed, cast(Unit, old.unit))
    assert last.stood is not None
    return Length(last.stood, "", "cm")
