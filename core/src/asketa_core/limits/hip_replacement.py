"""Hip replacement: what a record means on a date.

Precautions end only by a dated clearance for their scope; after a revision or a dislocation only the
surgeon's counts. The week setting ends the fixed list of the first weeks and nothing else.
"""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from functools import cache
from typing import Literal

from asketa_core.clientfile import (
    Approach,
    Clearance,
    ClientFile,
    HipReplacement,
    HipReplacementFacts,
    Scope,
    TriState,
    WeightBearing,
)
from asketa_core.clinical import clinical
from asketa_core.limits.dates import weeks_between
from asketa_core.limits.model import RowFile, rows_of

FLOOR_STOP_WEEKS = clinical("hip.floor_stop", "weeks")


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rows of ``data/limits/hip_replacement.yaml`` may ask about."""

    weeks: int | Literal["unknown"]
    period: Literal["before_6", "6_to_end", "after", "unknown"]
    approach: Approach
    surgeon_bend: Literal["yes", "no"]
    """Whether the surgeon set a bend of their own, which then holds whatever the approach."""
    abductor_repair: TriState
    weight_bearing: WeightBearing
    precautions: Literal["run", "ended"]
    measured_since: Literal["yes", "no"]
    symptoms: Literal["yes", "no"]


@cache
def rows() -> RowFile:
    return rows_of("hip_replacement", Context, HipReplacementFacts)


@cache
def precaution_scopes(approach: Approach) -> tuple[Scope, ...]:
    """What an approach restricts until it is cleared: the scopes of its own rows."""
    until_cleared = (row for row in rows().rows if row.scope is not None and row.when.get("surgeon_bend") != "yes")
    found = [row.scope for row in until_cleared if approach == "unknown" or _names(row.when.get("approach"), approach)]
    return tuple(dict.fromkeys(scope for scope in found if scope is not None))


def _names(wanted: object, approach: Approach) -> bool:
    return wanted is None or wanted == approach or (isinstance(wanted, tuple) and approach in wanted)


def counting_clearances(entry: HipReplacement, date: dt.date) -> list[Clearance]:
    """Clearances given by ``date`` that count for this joint."""
    if entry.facts.school == "for_life":
        return []
    surgeon_only = entry.facts.prosthesis == "revision" or entry.facts.dislocated != "no"
    return [c for c in entry.clearances if c.date <= date and (c.who == "surgeon" or not surgeon_only)]


def cleared(entry: HipReplacement, scope: Scope, date: dt.date) -> bool:
    return any(scope in c.scope or "all" in c.scope for c in counting_clearances(entry, date))


def asks_again(entry: HipReplacement, date: dt.date) -> tuple[str, ...]:
    """What makes ended precautions a question again: a recorded fall, new pain or dislocation, until a clearance given
    after it. What nobody asked about asks nothing."""
    facts, on = entry.facts, entry.facts.trouble_on
    if facts.trouble_since != "yes" or (on is not None and on > date):
        return ()
    answered = on is not None and any(c.date > on for c in counting_clearances(entry, date))
    return () if answered else ("word_since",)


def context(entry: HipReplacement, client: ClientFile, date: dt.date) -> Context:
    """What a record means on a date."""
    facts = entry.facts
    weeks = weeks_between(facts.date, date) if facts.date is not None else None
    period: Literal["before_6", "6_to_end", "after", "unknown"] = "after"
    if weeks is None:
        period = "unknown"
    elif weeks < FLOOR_STOP_WEEKS:
        period = "before_6"
    elif weeks < client.settings.first_weeks_after_hip:
        period = "6_to_end"
    still_running = [scope for scope in precaution_scopes(facts.approach) if not cleared(entry, scope, date)]
    measured = facts.date is not None and any(
        m.side == entry.side and m.quantity.value.startswith(("hip_", "open_")) and facts.date <= m.date <= date
        for m in client.ranges
    )
    return Context(
        weeks=weeks if weeks is not None else "unknown",
        period=period,
        approach=facts.approach,
        surgeon_bend="no" if facts.surgeon_bend_deg is None else "yes",
        abductor_repair=facts.abductor_repair,
        # After the first weeks a leg takes the weight unless something else was written down.
        weight_bearing="full" if facts.weight_bearing == "unknown" and period == "after" else facts.weight_bearing,
        precautions="run" if still_running else "ended",
        measured_since="yes" if measured else "no",
        symptoms=facts.alarming,
    )
