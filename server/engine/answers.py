"""Answers of the core for one client on one day, each kept once it is worked out.

Keys are fingerprints of everything an answer depends on (limits, measures, room, date), so nothing is
ever stale and nothing identifies a client. The language is part of every key, since figures are described in words.
"""

from __future__ import annotations

import datetime as dt
import hashlib
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, TypeVar

from asketa_core import (
    Bearing,
    ClientFile,
    Decision,
    Finding,
    Itself,
    Judged,
    LaneAnswer,
    Library,
    NoGrid,
    Otherwise,
    Recent,
    Response,
    Room,
    Screened,
    Side,
    Situation,
    SlotValue,
    Tolerance,
    Variation,
    Verdict,
    detail_at,
    figure,
    fingerprint,
    judge_responses,
    keeps_range,
    lane_answer_of,
    lane_view,
    next_step,
    next_tightening,
    recently_operated,
    rulers_on,
    shared_decision,
    standing,
    with_kept,
)
from asketa_core import __version__ as engine_version
from clients.models import Client
from common import clock
from common.speech import words
from engine.adapter import Accepted, accepted_cautions, client_file, own_decisions, room_value
from engine.shared import answered
from engine.shared import forget as forget_answers
from engine.shelf import practice_library

T = TypeVar("T")

_recent_grids: Recent[Screened | NoGrid] = Recent(most=16)
"""The last few screened grids, up to some megabytes each: a ladder's rungs are asked for again by its decisions, and
steppers ask for the same one again and again."""

_situations: Recent[tuple[Situation, str]] = Recent(most=16)
"""Situations with their keys, and what their variations share already worked out. Known by the file they were made
from, which they keep."""

OPEN_VERDICTS = (Verdict.CLEAR, Verdict.WITH_SETUP, Verdict.WITH_EYE)
"""Verdicts with which a rung may be done today."""

RULES_FINGERPRINT = {part: fingerprint(part) for part in ("poses", "limits", "engine")}


@dataclass(frozen=True)
class Today:
    """One client's situation on the practice's date, with everything asked about it memoised."""

    client: Client
    file: ClientFile
    room: Room
    now: dt.datetime
    situation: Situation
    key: str

    @staticmethod
    def of(client: Client, date: dt.date | None = None) -> Today:
        """The day it is at the practice, or another seen from its noon. ``InputError`` when the stature is missing."""
        now = clock.local_now(client.practice.time_zone)
        if date is not None and date != now.date():
            now = dt.datetime.combine(date, dt.time(12), now.tzinfo)
        file, room, shelf = client_file(client), room_value(), practice_library()
        known = (Itself(file), now.date(), room, shelf.fingerprint)

        def compute() -> tuple[Situation, str]:
            found = Situation.of(file, now.date(), room, shelf.library)
            return found, situation_key(file, room, shelf.fingerprint)

        situation, key = _situations.get(known, compute)
        return Today(client, file, room, now, situation, key)

    @property
    def library(self) -> Library:
        return self.situation.library

    @cached_property
    def accepted(self) -> list[Accepted]:
        """Cautions somebody took on."""
        return accepted_cautions(self.client)

    def accepted_for(self, family: str, finding: Finding) -> Accepted | None:
        """What was said when a finding of a ladder was taken on; ``None`` where it was not, or is no caution."""
        if finding.severity != "caution" or not finding.codes:
            return None
        codes = set(finding.codes)
        return next(
            (a for a in self.accepted if a.family == family and a.side in (None, finding.side) and codes <= a.codes),
            None,
        )

    @cached_property
    def judged(self) -> dict[str, Judged]:
        """Every response with what it means, worked out once."""
        return judge_responses(self.file, self.now)

    @property
    def date(self) -> dt.date:
        return self.now.date()

    def cached(self, *parts: object, about: str = "", compute: Callable[[], T]) -> T:
        """The answer for these parts today; computed once for one state of the records."""
        return cached(self.key, self.date, *parts, about=f"{self.date} {about}", compute=compute)

    def lane(self, rung: Variation, side: Side) -> LaneAnswer:
        """The verdict on one rung for one side, with the set-up it rests on: the one that Set up begins with."""
        used = self._used_key(rung, side)
        if rung.shared:
            return self.cached("lanes", rung.id, used, compute=lambda: {s: self._lane(rung, s) for s in Side})[side]
        return self.cached("lane", rung.id, side, used, compute=lambda: self._lane(rung, side))

    def _lane(self, rung: Variation, side: Side) -> LaneAnswer:
        return lane_answer_of(rung, side, self.screen(rung, side))

    def _used_key(self, rung: Variation, side: Side) -> str:
        """What was last used there, for the key of what depends on it."""
        used = self.last_used(rung.id, side)
        return "" if used is None else digest(repr(sorted((name, repr(value)) for name, value in used.items())))

    def drawing(self, rung: Variation, side: Side) -> str:
        """The figure of the set-up a verdict is shown with; empty when nothing can be built."""

        def compute() -> str:
            found = self.screen(rung, side)
            if isinstance(found, NoGrid):
                return ""
            seen = lane_view(rung, side)
            return figure(found, self.situation.body, self.room, found.recommended, seen, words(), small=True)

        used = self._used_key(rung, side)
        return self.cached("drawing", rung.id, side, used, about=f"drawing {rung.family}", compute=compute)

    def allowed(self, situation: Situation, rung: Variation, side: Side) -> bool:
        """Whether a rung is open to a side on a situation's date; the shape the core's calendar asks for."""

        if situation.date == self.date:
            return self.lane(rung, side).verdict in OPEN_VERDICTS

        def compute() -> bool:
            screened = situation.screen(rung, side)
            return not isinstance(screened, NoGrid) and screened.allowed(screened.recommended)

        return self.cached("allowed", situation.date, rung.id, side, compute=compute)

    def last_used(self, rung_id: str, side: Side) -> dict[str, SlotValue] | None:
        """The set-up this side last used on this rung, or failing that on its family, with the ways kept since both were
        tried."""
        rung = self.library.variation(rung_id)
        lane = None if rung.shared else side
        used = self._last_holds.get((rung_id, lane)) or self._last_holds.get((rung.family, lane))
        return with_kept(used, standing(self.file.trials, rung, side))

    @cached_property
    def _last_holds(self) -> dict[tuple[str, Side | None], Response]:
        """The last hold by variation and by family, on each side and on either."""
        return {
            (what, lane): response
            for response in self.file.responses
            for what in (response.variation, response.family)
            for lane in (response.side, None)
        }

    def screen(self, rung: Variation, side: Side) -> Screened | NoGrid:
        """The whole grid of a rung, beginning from what this side last used."""
        return self.screen_with(rung, side, self.last_used(rung.id, side))

    def screen_with(self, rung: Variation, side: Side, used: Mapping[str, SlotValue] | None) -> Screened | NoGrid:
        """The same with any set-up in the place of the last one."""
        found = self._grid(rung, side)
        return found if used is None or isinstance(found, NoGrid) else self.situation.remembering(found, used)

    def _grid(self, rung: Variation, side: Side) -> Screened | NoGrid:
        """Judged once while it is among the last few; shared shapes have one grid for both sides."""
        worked = Side.LEFT if rung.shared else side
        found = _recent_grids.get((self.key, self.date, rung.id, worked), lambda: self.situation.screen(rung, worked))
        return found if isinstance(found, NoGrid) or found.side is side else replace(found, side=side)

    def judged_on(self, family: str, side: Side) -> list[Judged]:
        """Every hold of one side of a ladder with what it means, oldest first."""
        return [self.judged[r.id] for r in self.file.responses if r.side is side and r.family == family]

    def decision(self, family: str, side: Side) -> Decision:
        """The next step on one side of one ladder; shared shapes have one for both."""
        if self.library.families[family].shared:
            return shared_decision(*(self._decision_of(family, s) for s in Side))
        return self._decision_of(family, side)

    @cached_property
    def _own_decisions(self) -> dict[tuple[str, Side], Otherwise]:
        """What therapists decided themselves and what still counts: nothing was logged on that side since."""
        return own_decisions(self.client)

    @cached_property
    def _tightens_on(self) -> dt.date | None:
        return next_tightening(self.file, self.date)

    def _decision_of(self, family: str, side: Side) -> Decision:
        judged = self.judged_on(family, side)
        otherwise = self._own_decisions.get((family, side))
        trials = [trial for trial in self.file.trials if trial.family == family]

        def compute() -> Decision:
            return next_step(
                judged,
                Bearing(
                    self.library,
                    lambda rung, used: self.screen_with(rung, side, used),
                    self.date,
                    after_operation=recently_operated(self.file, self.date),
                    tightens_on=lambda: self._tightens_on,
                    keep_range=keeps_range(self.file, self.date),
                    otherwise=otherwise,
                    trials=trials,
                    measured_on=self.file.measured_on(side, self.date),
                ),
            )

        # Pending mornings turn into watch at noon: the judged tolerances are part of the key.
        state = ",".join(f"{j.response.id}{j.tolerance.value}" for j in judged)
        return self.cached("decision", family, side, digest(f"{state} {otherwise} {trials}"), compute=compute)

    def tolerances(self) -> dict[str, Tolerance]:
        """Every response's tolerance by id."""
        return {key: judged.tolerance for key, judged in self.judged.items()}


def situation_key(file: ClientFile, room: Room, library: str) -> str:
    """Fingerprint of everything a verdict depends on: what happened in past visits is no part of it.
    ``library`` is the fingerprint of the practice's own variations."""
    return digest(
        file.model_dump_json(exclude={"responses": True, "trials": True, "client": {"name"}, "settings": {"breath_s"}})
        + room.model_dump_json()
        + library
        + RULES_FINGERPRINT["engine"]
    )


def digest(text: str) -> str:
    return hashlib.sha256(text.encode()).hexdigest()[:24]


def cached(key: str, *parts: object, about: str = "", compute: Callable[[], T]) -> T:
    """The answer for a state of things and parts of it, in the language and manner of now. Answers for one state are looked
    up together; ``about`` sets those apart that are large and seldom wanted with the others."""
    manner = words().manner
    asked = ":".join([key, words().language, manner.units, manner.dates])
    full = ":".join([asked, *(str(part) for part in parts)])
    return answered(f"{asked}:{about}", full, compute)


def forget() -> None:
    """Nothing answered before is served again; for measuring."""
    forget_answers()
    for kept in (_recent_grids, _situations):
        kept.clear()


def snapshot(today: Today, rung_id: str, side: Side, setup: dict[str, SlotValue]) -> dict[str, Any]:
    """What was known and judged at the time, kept with a logged item."""
    rung = today.library.variation(rung_id)
    screened = today.screen(rung, side)
    judged: dict[str, Any] = {"verdict": "leave_out", "findings": [], "accepted": []}
    if not isinstance(screened, NoGrid):
        detail = detail_at(today.situation, screened, screened.grid.nearest(setup))
        rulers = rulers_on(today.situation, screened, detail.index)
        judged = {
            "verdict": detail.verdict.value,
            "findings": [finding.facts() for finding in detail.findings],
            "accepted": [
                {"codes": finding.codes, "side": finding.side}
                for finding in detail.findings
                if today.accepted_for(rung.family, finding) is not None
            ],
            "margins": {leg: [ruler.facts() for ruler in of_leg] for leg, of_leg in rulers.items()},
        }
    return {
        **judged,
        "records": _records_of_nobody(today),
        # A practice may change its own variations later: what this one said is known by its hash.
        "hashes": {**RULES_FINGERPRINT, "variation": digest(rung.model_dump_json())},
        "versions": {"engine": engine_version, "library": practice_library().fingerprint},
    }


def _records_of_nobody(today: Today) -> dict[str, Any]:
    """What was recorded and measured, with how old the client was instead of who they are."""
    records = today.file.model_dump(
        mode="json", exclude={"responses": True, "trials": True, "client": {"name", "birth_date"}}
    )
    # The row knows whom it is about; what it keeps of the time does not.
    records["client"]["id"] = "nobody"
    born = today.file.client.birth_date
    if born is not None:
        records["client"]["age_years"] = today.file.age_on(today.date)
    return records
