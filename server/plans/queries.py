"""A day's plan with everything told about it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from appointments.models import Appointment
from asketa_core import (
    NOTHING,
    SIDES,
    Concern,
    Level,
    Phrase,
    Piece,
    Pose,
    Reason,
    Side,
    Step,
    Timeline,
    Variation,
    concerns,
    countered,
    dose_words,
    doses,
    most_in_one_go,
    reasons,
    same_step,
    say,
    since,
    suggest,
    timeline,
)
from common import clock
from common.speech import Text
from engine.answers import Today
from plans.models import Template
from plans.schemas import (
    ConcernOut,
    CounterOut,
    LeftOut,
    LevelOut,
    OrderOut,
    PieceOut,
    PlannedPart,
    PlannedPose,
    PlanOut,
    ReasonOut,
    TemplateOut,
)
from plans.sides import counter_step, ladders_of, last_step, poses_of, proposed
from visits.models import LoggedItem, Visit
from visits.planned import Planned, judged_side, planned_sides, setup_of
from visits.schemas import DoseOut

USUAL_MINUTES = 60
"""How long a day takes where nobody said."""


def last_visit(today: Today) -> Visit | None:
    """The latest visit before the day in which something was done."""
    found: Visit | None = (
        Visit.objects.held().filter(client=today.client, date__lt=today.date).order_by("-date").first()
    )
    return found


def ladders_of_visit(today: Today, visit: Visit) -> list[str]:
    """The families of a past visit that there still are: in the order of its plan, then as they were logged."""
    logged = LoggedItem.objects.standing().filter(visit=visit).values_list("variation", flat=True)
    names = [*(ladder["family"] for ladder in visit.plan), *(each.partition(".")[0] for each in logged)]
    return [name for name in dict.fromkeys(names) if name in today.library.families]


def plan(today: Today) -> PlanOut:
    """The plan of the day ``today`` is about."""
    visit = Visit.objects.filter(client=today.client, date=today.date).first()
    appointment = (
        Appointment.objects.filter(client=today.client, date=today.date, cancelled=False).order_by("time").first()
    )
    before = last_visit(today)
    ladders = ladders_of(today, visit)
    poses = poses_of(today, ladders)
    breath_s = today.client.breath_s
    line, most = timeline(poses, breath_s), most_in_one_go(today.situation.limits)
    minutes = _minutes(visit, appointment)
    then = ladders_of_visit(today, before) if before is not None else []
    return PlanOut(
        date=today.date,
        today=clock.today(today.client.practice.time_zone),
        version=visit.version if visit is not None else 0,
        time=appointment.time if appointment is not None else None,
        minutes=minutes,
        breath_s=breath_s,
        last_visit=before.date if before is not None else None,
        last_ladders=len(then),
        started=visit is not None and LoggedItem.objects.filter(visit=visit).exists(),
        seconds=round(line.seconds),
        poses=[_pose_out(today, ladder, line, place) for place, ladder in enumerate(ladders)],
        pieces=[_piece_out(piece) for piece in line.pieces],
        levels=[LevelOut(level=level, words=say("session", "level", level.value)) for level in _levels(poses)],
        concerns=[_concern_out(each) for each in concerns(poses, minutes, most, breath_s)],
        reasons=[_reason_out(each) for each in reasons(poses, most, breath_s)],
        left_out=list(_left_out(today, then, {ladder["family"] for ladder in ladders})),
        counters=list(_counters(today, poses)),
    )


def _minutes(visit: Visit | None, appointment: Appointment | None) -> int:
    """How long the day is meant to take: as somebody said, as it is booked, or as usual."""
    if visit is not None and visit.minutes is not None:
        return visit.minutes
    return appointment.minutes if appointment is not None else USUAL_MINUTES


def _levels(poses: Sequence[Pose]) -> list[Level]:
    """The levels a session has, from standing down; standing, the chair and the floor are always shown."""
    used = {part.level for pose in poses for part in pose.sides.values()} | {Level.STANDING, Level.SEATED, Level.FLOOR}
    return [level for level in Level if level in used]


def _pose_out(today: Today, ladder: dict[str, Any], line: Timeline, place: int) -> PlannedPose:
    family = today.library.families[ladder["family"]]
    sides = planned_sides(today, ladder)
    left, right = (_part_out(today, family.family, side, sides[side]) if side in sides else None for side in SIDES)
    absent = {
        side: NOTHING if family.shared or side in sides else _why_not(today, family.family, side) for side in SIDES
    }
    return PlannedPose(
        family=family.family,
        name=family.name,
        shared=family.shared,
        fixed=ladder.get("fixed", False),
        seconds=round(line.of_pose(place)),
        left=left,
        right=right,
        left_missing=absent[Side.LEFT],
        right_missing=absent[Side.RIGHT],
    )


def _why_not(today: Today, family: str, side: Side) -> Phrase:
    """Why a side cannot be added; nothing where it can."""
    found = proposed(today, family, side)
    return found.reason if found.step is None else NOTHING


def _part_out(today: Today, family: str, side: Side, planned: Planned) -> PlannedPart:
    rung = today.library.variation(planned["variation"])
    judged = judged_side(today, side, planned)
    before = last_step(today, family, side)
    now = Step(rung.id, setup_of(planned), planned["dose_s"])
    found = proposed(today, family, side)
    as_proposed = before is not None and found.step is not None and same_step(found.step, now)
    return PlannedPart(
        variation=rung.id,
        name=rung.name,
        short=rung.short,
        line=judged.line,
        dose_s=planned["dose_s"],
        dose=dose_words(rung.hold, planned["dose_s"]),
        doses=[DoseOut(seconds=each, words=dose_words(rung.hold, each)) for each in _doses(rung, planned["dose_s"])],
        rounds=planned.get("rounds", 1),
        verdict=judged.verdict,
        allowed=judged.allowed,
        reasons=list(judged.reasons),
        figure=judged.figure,
        figure_words=judged.figure_words,
        since=since(before, now, today.library),
        changed=before is None or not same_step(before, now),
        why=found.reason if as_proposed else NOTHING,
    )


def _doses(rung: Variation, planned_s: int) -> list[int]:
    """The usual doses, and the one that is planned."""
    return sorted({*doses(rung.hold), planned_s})


def _piece_out(piece: Piece) -> PieceOut:
    return PieceOut(
        kind=piece.kind,
        start_s=round(piece.start_s),
        end_s=round(piece.end_s),
        level=piece.level,
        pose=piece.pose,
        side=piece.side,
        came_from=piece.came_from,
    )


def _concern_out(each: Concern) -> ConcernOut:
    return ConcernOut(code=each.code, poses=list(each.poses), words=each.words)


def _reason_out(each: Reason) -> ReasonOut:
    return ReasonOut(code=each.code, poses=list(each.poses), words=each.words)


def _left_out(today: Today, then: Sequence[str], planned: set[str]) -> Iterator[LeftOut]:
    """Ladders of last time that the plan has not: not open now, or taken out."""
    if not planned:
        return
    for name in then:
        if name in planned:
            continue
        family = today.library.families[name]
        found = [proposed(today, name, side) for side in (SIDES[:1] if family.shared else SIDES)]
        opens = any(each.step is not None for each in found)
        reason = say("session", "left_out", "taken_out") if opens else found[0].reason
        yield LeftOut(family=name, name=family.name, reason=reason, open=opens)


def _counters(today: Today, poses: Sequence[Pose]) -> Iterator[CounterOut]:
    """For each pose that wants a counter-pose and has none: the first that is open to both sides, on the level
    nearest to the pose."""
    done = countered(poses)
    here = {pose.family for pose in poses}
    for number, pose in enumerate(poses):
        if not pose.wants_counter or number in done:
            continue
        for name in pose.counters:
            family = today.library.families[name]
            sides = SIDES[:1] if family.shared else SIDES
            steps = [counter_step(today, name, side, pose.last.level) for side in sides]
            if name not in here and all(step is not None for step in steps):
                rung = today.library.variation(next(step.variation for step in steps if step is not None))
                yield CounterOut(after=pose.family, family=name, name=family.name, short=rung.short)
                break


def order(today: Today) -> OrderOut:
    """The order suggested for what is planned. Nothing is stored."""
    visit = Visit.objects.filter(client=today.client, date=today.date).first()
    ladders = ladders_of(today, visit)
    poses = poses_of(today, ladders)
    most, breath_s = most_in_one_go(today.situation.limits), today.client.breath_s
    places = suggest(poses, most, breath_s)
    return OrderOut(
        families=[ladders[place]["family"] for place in places],
        reasons=[_reason_out(each) for each in reasons([poses[place] for place in places], most, breath_s)],
        changes=list(places) != sorted(places),
    )


def templates(names: dict[str, Phrase]) -> list[TemplateOut]:
    """Templates of the opened practice; ``names`` are what families are called."""
    return [template_out(each, names) for each in Template.objects.offered()]


def template_out(template: Template, names: dict[str, Phrase]) -> TemplateOut:
    families: list[Text] = [names[pose["family"]] for pose in template.poses if pose["family"] in names]
    return TemplateOut(id=template.pk, name=template.name, families=families)
