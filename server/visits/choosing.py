"""Reads for choosing: every family as two lanes."""

from __future__ import annotations

import datetime as dt

from asketa_core import (
    SIDES,
    ClientFile,
    Decision,
    Family,
    Library,
    Side,
    Variation,
    dose_words,
    found_by,
    hold_s,
    level_of_rung,
    level_with,
    why_not,
)
from common.speech import Text, words
from engine.answers import Today
from visits.schemas import (
    DecisionOut,
    DrawingsOut,
    FamilyLine,
    LadderOut,
    LaneOut,
    LastTime,
    RungLane,
    RungName,
    StepOut,
    WhyNotOut,
)


def family_lines(library: Library, file: ClientFile) -> list[FamilyLine]:
    """Every family by name, the ones this client has worked on marked."""
    last: dict[str, dt.date] = {}
    for response in file.responses:
        last[response.family] = max(response.date, last.get(response.family, response.date))
    return [
        FamilyLine(
            family=family.family,
            name=family.name,
            about=family.about,
            found_by=found_by(family),
            purposes=list(family.purposes),
            positions=list(dict.fromkeys(rung.position for rung in family.variations)),
            last=last.get(family.family),
        )
        for family in sorted(library.families.values(), key=lambda family: words().sort_key(family.name))
    ]


def ladder(today: Today, family: Family) -> LadderOut:
    """One family as two lanes, judged today."""
    left, right = (_lane(today, family, side) for side in SIDES)
    return LadderOut(
        family=family.family,
        name=family.name,
        about=family.about,
        purposes=list(family.purposes),
        shared=family.shared,
        side_means=family.side_means,
        rungs=[RungName(id=rung.id, name=rung.name, short=rung.short) for rung in family.variations],
        left=left,
        right=right,
    )


def drawings(today: Today, family: Family) -> DrawingsOut:
    """The figures of a ladder's rungs, for both sides."""
    left, right = ({rung.id: drawn for rung in family.variations if (drawn := today.drawing(rung, s))} for s in SIDES)
    return DrawingsOut(left=left, right=right)


def why_not_out(today: Today, rung: Variation, side: Side) -> WhyNotOut:
    """Why a rung is not open to a side today, and what would open it. Slow the first time."""
    found = today.cached("why_not", rung.id, side, compute=lambda: why_not(today.situation, rung, side))
    return WhyNotOut.model_validate(found, from_attributes=True)


def _lane(today: Today, family: Family, side: Side) -> LaneOut:
    decision = today.decision(family.family, side)
    tolerances = today.tolerances()
    rungs = []
    for rung in family.variations:
        answer = today.lane(rung, side)
        own = [r for r in today.file.responses if r.side is side and r.variation == rung.id]
        last = LastTime(date=own[-1].date, tolerance=tolerances[own[-1].id].value) if own else None
        detail = answer.best
        minded = [] if detail is None or detail.closing else [f for f in detail.findings if f.size > 0]
        reasons: list[Text] = [answer.no_stack or ""] if detail is None else list(detail.reasons)
        rungs.append(
            RungLane(
                variation=rung.id,
                verdict=answer.verdict,
                cautions=len(minded),
                brief=(answer.no_stack or "") if detail is None else detail.brief,
                level=(level_of_rung(rung) if detail is None else level_with(rung, detail.setup)).value,
                seconds=round(hold_s(rung.hold, rung.hold.start_s, today.file.settings.breath_s)),
                drawn=answer.best is not None,
                line=detail.line if detail else "",
                reasons=reasons,
                last=last,
                here=decision.from_step is not None and decision.from_step.variation == rung.id,
                offered=decision.action.value in ("offer", "step_back")
                and decision.step is not None
                and decision.step.variation == rung.id,
            )
        )
    return LaneOut(side=side, decision=decision_out(today.library, decision), rungs=rungs)


def decision_out(library: Library, decision: Decision) -> DecisionOut:
    step = decision.step
    return DecisionOut(
        action=decision.action.value,
        reason=decision.reason,
        step=StepOut(
            variation=step.variation,
            short=library.variation(step.variation).short,
            setup=dict(step.setup),
            dose_s=step.dose_s,
            dose=dose_words(library.variation(step.variation).hold, step.dose_s),
        )
        if step is not None
        else None,
        here=decision.from_step.variation if decision.from_step is not None else None,
        own=decision.code.startswith("own_"),
    )
