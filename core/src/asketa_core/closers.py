"""What usually closes a variation: records as they are often met, tried on a typical body.

Nothing is listed by hand: each record is turned into limits and every set-up a well-stocked room can build is
judged with them, exactly as for a client.
"""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from functools import cache
from typing import Any

from asketa_core.clientfile import ClientFile
from asketa_core.datafiles import DATA, Record, load
from asketa_core.errors import DataError, InputError
from asketa_core.parsing import parse
from asketa_core.poses.library import Variation
from asketa_core.props.kinds import generic_room
from asketa_core.screening.detail import detail_at, no_stack_words
from asketa_core.screening.situation import TYPICAL_STATURE_CM, Situation
from asketa_core.setup.grid import NoGrid
from asketa_core.setup.screened import Verdict
from asketa_core.texts import NOTHING, Phrase, say
from asketa_core.units import SIDES, Side

_DAY = dt.date(2000, 6, 1)
"""Any day: records are dated relative to it."""


class TypicalRecord(Record):
    """A record often met; ``sided`` ones are tried on either leg."""

    code: str
    sided: bool = False
    pain_today: int | None = None
    entry: dict[str, Any]


@dataclass(frozen=True, slots=True)
class Closer:
    """What one typical record does to a variation. ``leg`` is ``worked``, ``other`` or empty for records without a
    side and shapes both legs share; ``reason`` is the first sentence of what closes it, or of what to mind."""

    name: Phrase
    leg: str
    verdict: Verdict
    reason: Phrase


@cache
def typical_records() -> tuple[TypicalRecord, ...]:
    return load(DATA / "limits" / "typical.yaml", tuple[TypicalRecord, ...])


def typical_situations() -> list[Situation]:
    """Every typical record as a situation: what is wrong in one is found here."""
    return [_situation(record.code, SIDES[0]) for record in typical_records()]


def usual_closers(variation: Variation) -> list[Closer]:
    """Every typical record tried on a variation, the hardest verdict first."""
    alone = Closer(say("recipe", "nothing_recorded"), "", *_tried(variation, Situation.of_nobody()))
    found = [_closer(variation, record, side) for record in typical_records() for side in _sides(variation, record)]
    if alone.verdict is not Verdict.CLEAR:
        # What a typical body cannot do by itself is not blamed on a record.
        same = (alone.verdict, alone.reason)
        found = [alone, *(closer for closer in found if (closer.verdict, closer.reason) != same)]
    order = list(reversed(Verdict))
    return sorted(found, key=lambda closer: order.index(closer.verdict))


def _sides(variation: Variation, record: TypicalRecord) -> tuple[Side, ...]:
    """The legs a record is tried on, the left being the worked one."""
    return SIDES if record.sided and not variation.shared else SIDES[:1]


def _closer(variation: Variation, record: TypicalRecord, side: Side) -> Closer:
    leg = "" if variation.shared or not record.sided else ("worked" if side is Side.LEFT else "other")
    return Closer(say("typical", record.code), leg, *_tried(variation, _situation(record.code, side)))


def _tried(variation: Variation, situation: Situation) -> tuple[Verdict, Phrase]:
    """The verdict with the left leg worked, and the first sentence of what closes it, or of what to mind."""
    screened = situation.screen(variation, Side.LEFT)
    if isinstance(screened, NoGrid):
        return Verdict.LEAVE_OUT, no_stack_words(screened)
    detail = detail_at(situation, screened, screened.recommended)
    return screened.verdict, next(iter(detail.reasons), NOTHING)


@cache
def _situation(code: str, side: Side) -> Situation:
    """A typical body with one record and no measures, in a well-stocked room."""
    record = next(record for record in typical_records() if record.code == code)
    entry = {"id": "typical", **_dated(record.entry), **({"side": side.value} if record.sided else {})}
    raw: dict[str, Any] = {
        "format": "asketa-client",
        "version": 1,
        "client": {"id": "nobody"},
        "body": [{"quantity": "stature", "value": TYPICAL_STATURE_CM, "date": _DAY}],
        "entries": [entry],
    }
    if record.pain_today is not None:
        raw["daily"] = [{"entry_id": "typical", "date": _DAY, "pain_today": record.pain_today, "irritable": "no"}]
    try:
        file = parse(ClientFile, raw)
    except InputError as error:
        raise DataError("typical.yaml", record.code, str(error)) from error
    return Situation.of(file, _DAY, generic_room())


def _dated(value: Any) -> Any:
    """The same with every ``{days_ago: n}`` turned into a date."""
    if isinstance(value, dict):
        if set(value) == {"days_ago"}:
            return _DAY - dt.timedelta(days=value["days_ago"])
        return {key: _dated(each) for key, each in value.items()}
    return [_dated(each) for each in value] if isinstance(value, list) else value
