"""Changes to plans and templates. Every function runs in one transaction and writes its audit rows."""

from __future__ import annotations

import uuid
from collections.abc import Mapping, Sequence
from typing import Any

from django.db import IntegrityError, transaction
from django.http import Http404

from accounts.models import User
from asketa_core import MOST_POSES, SIDES, Level, NoGrid, Side, Step
from audit.models import record
from clients.models import Client
from common.errors import Stale, bad_field
from common.speech import own
from engine.answers import Today
from plans.models import Template
from plans.queries import ladders_of_visit, last_visit
from plans.schemas import AddIn, AgainIn, PlanSave, SideIn
from plans.sides import counter_step, ladders_of, last_step, poses_of, proposed
from practices.models import Practice
from visits.models import Visit
from visits.services import locked, planned_ladder, planned_side, save_plan, visit_of

Ladder = dict[str, Any]


def _opened(today: Today, user: User, version: int | None) -> Visit:
    """The day's visit, locked at the version somebody saw: 0 where they saw none, ``None`` where it does not matter."""
    visit = Visit.objects.filter(client=today.client, date=today.date).first()
    if version is None or (visit is None and version == 0):
        return locked(visit_of(today, user))
    visit = locked(visit) if visit is not None else None
    if visit is None or visit.version != version:
        raise Stale({"version": visit.version if visit is not None else 0})
    return visit


@transaction.atomic
def save(today: Today, user: User, data: PlanSave) -> Visit:
    """Put the plan into another order, change how much of each side is done, take sides or poses out. Raises ``Stale`` when
    it was changed in between."""
    visit = _opened(today, user, data.version)
    named = [pose.family for pose in data.poses]
    if len(set(named)) != len(named):
        raise bad_field("poses", own("field", "twice"))
    if data.minutes is not None:
        visit.minutes = data.minutes
    plan: list[Ladder] = []
    for place, pose in enumerate(data.poses):
        before = planned_ladder(visit, pose.family)
        if before is None:
            raise bad_field(f"poses.{place}.family", own("field", "not_planned"))
        said = {Side.LEFT: pose.left, Side.RIGHT: pose.right}
        sides: Ladder = {
            side.value: before[side.value] | {"dose_s": how.dose_s, "rounds": how.rounds}
            for side, how in _meant(today, pose.family, said).items()
            if side.value in before
        }
        if sides:
            plan.append({"family": pose.family, "fixed": pose.fixed, **sides})
    visit.plan = plan
    save_plan(visit, user)
    return visit


def _meant(today: Today, family: str, said: Mapping[Side, SideIn | None]) -> dict[Side, SideIn]:
    """What was said of each side; of a shape both share the one stands for the other."""
    shared = family in today.library.families and today.library.families[family].shared
    both = next((how for how in said.values() if how is not None), None)
    found = {side: both if shared else how for side, how in said.items()}
    return {side: how for side, how in found.items() if how is not None}


@transaction.atomic
def again(today: Today, user: User, data: AgainIn) -> Visit:
    """Plan every ladder of the last visit, or of a template, that is not planned yet: each side with its next step. What is
    closed to a side is left out."""
    visit = _opened(today, user, data.version)
    if data.template_id is not None:
        template = Template.objects.offered().filter(pk=data.template_id).first()
        if template is None:
            raise Http404
        poses: Sequence[Mapping[str, Any]] = template.poses
    else:
        before = last_visit(today)
        rounds = {ladder["family"]: ladder for ladder in before.plan} if before is not None else {}
        poses = [
            {"family": name, "fixed": rounds.get(name, {}).get("fixed", False), "rounds": _rounds(rounds.get(name, {}))}
            for name in (ladders_of_visit(today, before) if before is not None else [])
        ]
    planned = {ladder["family"] for ladder in visit.plan}
    for pose in poses:
        if pose["family"] in planned or pose["family"] not in today.library.families:
            continue
        ladder = _ladder(today, pose["family"], pose.get("rounds", {}), worked_only=data.template_id is None)
        if len(ladder) > 1:
            visit.plan.append({**ladder, "fixed": pose.get("fixed", False)})
    _refuse_too_many(visit)
    save_plan(visit, user)
    return visit


def _rounds(ladder: Mapping[str, Any]) -> dict[str, int]:
    return {side.value: ladder[side.value].get("rounds", 1) for side in SIDES if side.value in ladder}


def _ladder(
    today: Today,
    family: str,
    rounds: Mapping[str, int],
    as_last_time: bool = False,
    worked_only: bool = False,
    level: Level | None = None,
) -> Ladder:
    """One ladder with what is proposed for each side; sides with nothing open are not in it, nor are those never worked on
    where only what was worked on is wanted. A counter-pose comes on the ``level`` of what it comes after."""
    shared = today.library.families[family].shared
    ladder: Ladder = {"family": family}
    for side in SIDES[:1] if shared else SIDES:
        if worked_only and not shared and last_step(today, family, side) is None and side.value not in rounds:
            continue
        planned = _side(today, family, side, rounds.get(side.value, 1), as_last_time, level)
        if planned is not None:
            ladder.update({each.value: planned for each in (SIDES if shared else (side,))})
    return ladder


def _level_after(today: Today, visit: Visit, data: AddIn) -> Level | None:
    """The level of the pose that what is added undoes; ``None`` where it is no counter-pose."""
    for pose in poses_of(today, ladders_of(today, visit)):
        if pose.family == data.after and data.family in pose.counters:
            return pose.last.level
    return None


def _side(
    today: Today, family: str, side: Side, rounds: int, as_last_time: bool, level: Level | None
) -> dict[str, Any] | None:
    step: Step | None = last_step(today, family, side) if as_last_time else None
    if step is not None and not _open(today, step, side):
        step = None
    if step is None:
        step = proposed(today, family, side).step if level is None else counter_step(today, family, side, level)
    if step is None:
        return None
    rung = today.library.variation(step.variation)
    screened = today.screen_with(rung, side, step.setup)
    return None if isinstance(screened, NoGrid) else planned_side(screened, step.setup, step.dose_s, rounds)


def _open(today: Today, step: Step, side: Side) -> bool:
    if step.variation in today.library.retired:
        return False
    screened = today.screen_with(today.library.variation(step.variation), side, step.setup)
    return not isinstance(screened, NoGrid) and screened.allowed(screened.grid.nearest(step.setup))


@transaction.atomic
def add(today: Today, user: User, data: AddIn) -> Visit:
    """Put a ladder in, or what is missing of it; with ``as_last_time`` what is there gives way to what was done last."""
    if data.family not in today.library.families:
        raise bad_field("family", own("field", "no_family"))
    visit = _opened(today, user, data.version)
    before = planned_ladder(visit, data.family)
    ladder = _ladder(
        today, data.family, _rounds(before or {}), data.as_last_time, level=_level_after(today, visit, data)
    )
    if len(ladder) == 1:
        raise bad_field("family", own("field", "nothing_open"))
    if before is not None:
        there = () if data.as_last_time else [side.value for side in SIDES if side.value in before]
        before.update({key: value for key, value in ladder.items() if key not in there})
    else:
        names = [each["family"] for each in visit.plan]
        place = names.index(data.after) + 1 if data.after in names else len(names)
        visit.plan.insert(place, ladder)
    _refuse_too_many(visit)
    save_plan(visit, user)
    return visit


def _refuse_too_many(visit: Visit) -> None:
    if len(visit.plan) > MOST_POSES:
        raise bad_field("poses", own("field", "too_many", most=MOST_POSES))


@transaction.atomic
def set_breath(client: Client, user: User, seconds: int) -> None:
    """How long one calm breath of a client takes."""
    Client.objects.filter(pk=client.pk).update(breath_s=seconds)
    client.breath_s = seconds
    record(client, "client.updated", user)


@transaction.atomic
def keep_template(practice: Practice, user: User, name: str, visit: Visit) -> Template:
    """Keep a plan's order under a name. Refused when there is nothing to keep, or the name is taken."""
    poses = [
        {"family": ladder["family"], "fixed": ladder.get("fixed", False), "rounds": _rounds(ladder)}
        for ladder in visit.plan
    ]
    if not poses:
        raise bad_field("name", own("field", "nothing_planned"))
    try:
        with transaction.atomic():
            template: Template = Template.objects.create(practice=practice, created_by=user, name=name, poses=poses)
    except IntegrityError:
        raise bad_field("name", own("field", "name_taken")) from None
    record(template, "template.kept", user)
    return template


@transaction.atomic
def put_template_away(template_id: uuid.UUID, user: User) -> None:
    template = Template.objects.offered().select_for_update().filter(pk=template_id).first()
    if template is None:
        raise Http404
    template.put_away = True
    template.save(update_fields=["put_away"])
    record(template, "template.put_away", user)
