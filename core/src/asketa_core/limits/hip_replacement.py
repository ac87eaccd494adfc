"""Hip replacement: what a record means on a date.

Precautions end only by a dated clearance for their scope; after a revision or a dislocation only the
surgeon's counts. The week setting ends the fixed list of the first weeks and nothing else.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping

from asketa_core.clientfile import Clearance, ClientFile, HipReplacement
from asketa_core.limits.dates import weeks_between

PRECAUTION_SCOPES: Mapping[str, tuple[str, ...]] = {
    "posterior": ("bend", "midline", "turning_in"),
    "direct_anterior": ("turning_out", "extension"),
    "anterolateral": ("midline", "turning_out", "extension", "abductors"),
    "lateral": ("midline", "turning_out", "extension", "abductors"),
    "unknown": ("bend", "midline", "turning_in", "turning_out", "extension", "abductors"),
}
"""What each approach restricts until it is cleared."""

FLOOR_STOP_WEEKS = 6


def counting_clearances(entry: HipReplacement, date: dt.date) -> list[Clearance]:
    """Clearances given by ``date`` that count for this joint."""
    if entry.facts.school == "for_life":
        return []
    surgeon_only = entry.facts.prosthesis == "revision" or entry.facts.dislocated != "no"
    return [c for c in entry.clearances if c.date <= date and (c.who == "surgeon" or not surgeon_only)]


def cleared(entry: HipReplacement, scope: str, date: dt.date) -> bool:
    return any(scope in c.scope or "all" in c.scope for c in counting_clearances(entry, date))


def context(entry: HipReplacement, client: ClientFile, date: dt.date) -> Mapping[str, object]:
    """Everything the rows of ``data/limits/hip_replacement.yaml`` ask about.

    An unknown date counts as the strictest period; it is asked for.
    """
    facts = entry.facts
    weeks = weeks_between(facts.date, date) if facts.date is not None else None
    if weeks is None or weeks < FLOOR_STOP_WEEKS:
        period = "before_6"
    elif weeks < client.settings.first_weeks_after_hip:
        period = "6_to_end"
    else:
        period = "after"
    still_running = [scope for scope in PRECAUTION_SCOPES[facts.approach] if not cleared(entry, scope, date)]
    measured = facts.date is not None and any(
        m.side == entry.side and m.quantity.value.startswith(("hip_", "open_")) and facts.date <= m.date <= date
        for m in client.ranges
    )
    return {
        "date": "known" if facts.date is not None else "unknown",
        "weeks": weeks if weeks is not None else "unknown",
        "period": period,
        "approach": facts.approach,
        "abductor_repair": facts.abductor_repair,
        "weight_bearing": facts.weight_bearing,
        "trouble_since": facts.trouble_since,
        "precautions": "run" if still_running else "ended",
        "measured_since": "yes" if measured else "no",
    }
