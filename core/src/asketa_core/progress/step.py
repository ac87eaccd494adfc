"""The next step on one side of one ladder, decided from several sessions and with its reason.

Calm twice in a row at one step (three times in the first weeks after an operation) offers one
change: seconds first, then one fold or face less support, then the next rung. Watch stays, three in a row
ask for a review; where the shape gave way (a knee drifting in, a back rounding) it is held up more. A flare goes one step
back; two at one rung within four sessions leave it out. Today's limits always cap the offer.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from enum import StrEnum
from typing import get_args

from asketa_core.client.holds import Place, Response, Sign, SlotValue, Trial
from asketa_core.clientfile import ClientFile
from asketa_core.clinical import clinical, days, group
from asketa_core.poses.library import Library, Variation
from asketa_core.progress.demand import ScreenOf, StepBack, step_back_from
from asketa_core.progress.responses import Judged, Tolerance
from asketa_core.progress.trials import standing, value_words, with_kept
from asketa_core.progress.values import same_value
from asketa_core.records.registry import kind_of
from asketa_core.setup.grid import NoGrid
from asketa_core.setup.screened import Screened
from asketa_core.texts import NOTHING, Own, Param, Phrase, listed, say
from asketa_core.words.recipe import dose_words
from asketa_core.words.stacks import sized_words

CALM_NEEDED = round(clinical("step.calm_needed", "sessions"))
CALM_NEEDED_AFTER_OPERATION = round(clinical("step.calm_after_operation", "sessions"))
REVIEW_AFTER_WATCHES = clinical("step.watches_to_review", "sessions")
FLARES_TO_LEAVE_OUT = clinical("step.flares_to_leave_out", "sessions")
FLARE_WINDOW_SESSIONS = round(clinical("step.flare_window", "sessions"))
FORM_SIGNS = group("step.form_signs", get_args(Sign))
QUIET_BEFORE_TIGHTENING = dt.timedelta(days=days("step.quiet_before_tightening"))


class Action(StrEnum):
    NOT_TRIED = "not_tried"
    STAY = "stay"
    REVIEW = "review"
    OFFER = "offer"
    STEP_BACK = "step_back"
    LEAVE_OUT = "leave_out"


@dataclass(frozen=True, slots=True)
class Step:
    """Where a side stands: a rung, the set-up and the seconds."""

    variation: str
    setup: Mapping[str, SlotValue]
    dose_s: int


@dataclass(frozen=True, slots=True)
class Decision:
    """What to do next time. ``step`` is where to work, ``from_step`` where it was last; ``reason`` and
    ``client_reason`` are sentences, ``code`` their key. ``kept`` says which way is kept since both were tried, where the
    last hold was made the other way."""

    action: Action
    code: str
    reason: Phrase
    client_reason: Phrase
    step: Step | None
    from_step: Step | None
    history: tuple[Judged, ...] = field(default=())
    kept: Phrase = NOTHING


@dataclass(frozen=True, slots=True)
class Otherwise:
    """What a therapist decided for next time in the place of what follows from the sessions, in their own words."""

    action: Action
    reason: str


def recently_operated(client: ClientFile, date: dt.date) -> bool:
    """Whether any joint was operated within the first weeks; an operation of unknown date counts as recent."""
    first_weeks = dt.timedelta(weeks=client.settings.first_weeks_after_hip)

    operations = (kind_of(entry).operation(entry.facts) for entry in client.entries)
    return any(done is not None and (done.date is None or date - done.date < first_weeks) for done in operations)


def keeps_range(client: ClientFile, date: dt.date) -> bool:
    """Whether steps go only toward strength or longer holds, as in pregnancy or with thin bones."""
    return any(kind_of(entry).keeps_range(entry.facts, date) for entry in client.entries)


CAREFUL = (Action.NOT_TRIED, Action.OFFER, Action.STAY, Action.REVIEW, Action.STEP_BACK, Action.LEAVE_OUT)
"""Decisions from the least to the most careful."""


def shared_decision(left: Decision, right: Decision) -> Decision:
    """One decision for a shape both legs share: the more careful side decides."""
    return max(left, right, key=lambda decision: CAREFUL.index(decision.action))


def step_of(response: Response) -> Step:
    return Step(response.variation, response.setup, response.dose_s)


def same_step(a: Step, b: Step) -> bool:
    """One rung, one dose, and every slot the same choice or within 1 cm or one grid step of it."""
    if a.variation != b.variation or a.dose_s != b.dose_s:
        return False
    return all(same_value(a.setup[name], b.setup[name]) for name in set(a.setup) & set(b.setup))


@dataclass(frozen=True, slots=True)
class Bearing:
    """What bears on the next step of one side and ladder beside what happened there.

    ``after_operation`` asks for three calm sessions instead of two; ``tightens_on`` gives the next date a limit of this client
    tightens, if any, and is asked only where a step up is due, for looking ahead takes long; ``keep_range`` offers longer holds but
    never more range. ``otherwise`` is what a therapist decided since the last hold, ``trials`` are both ways tried,
    ``measured_on`` is the day the side was measured last.
    """

    library: Library
    screen_of: ScreenOf
    today: dt.date
    after_operation: bool = False
    tightens_on: Callable[[], dt.date | None] = lambda: None
    keep_range: bool = False
    otherwise: Otherwise | None = None
    trials: Sequence[Trial] = ()
    measured_on: dt.date | None = None

    def back_from(self, here: Step, place: Place | None) -> StepBack | None:
        return step_back_from(self.library, here.variation, here.setup, self.screen_of, place)


def next_step(judged: Sequence[Judged], bearing: Bearing) -> Decision:
    """Decide from the judged responses of one side and family, oldest first. What a therapist decided otherwise goes before;
    the way kept since both were tried is the way to go on; today's limits cap it all."""
    if not judged:
        return _decision(Action.NOT_TRIED, "not_tried", None, None, judged)
    held = sessions(judged)
    was = step_of(held[-1].response)
    here, kept = as_kept(held[-1].response, bearing.trials, bearing.library)
    decision = _decide(judged, held, here, bearing)
    return decision if here == was else replace(decision, from_step=was, kept=kept)


def as_kept(last: Response, trials: Sequence[Trial], library: Library) -> tuple[Step, Phrase]:
    """The step a side stands at: of its last hold, with the ways kept since both were tried, and which they are."""
    was, rung = step_of(last), library.variation(last.variation)
    since = standing(trials, rung, last.side)
    setup = with_kept(last, since) or {}
    changed = [name for name in since if was.setup.get(name) != setup[name]]
    if not changed:
        return was, NOTHING
    told = [_kept_way(rung, name, since[name]) for name in changed]
    return replace(was, setup=setup), say("session", "kept", ways=listed(told, "semicolon"))


def _kept_way(rung: Variation, slot: str, trial: Trial) -> Phrase:
    value = value_words(rung, slot, trial.kept_value)
    return say("session", "kept_way", label=rung.label_of(slot), value=value, date=trial.date)


def _decide(judged: Sequence[Judged], held: Sequence[Judged], here: Step, bearing: Bearing) -> Decision:
    last = held[-1]
    answered = _answered(held)
    if bearing.otherwise is not None:
        return _decided(bearing.otherwise, judged, here, last, bearing)
    if last.tolerance is Tolerance.FLARE:
        return _after_flare(judged, here, last, bearing)
    if last.tolerance is Tolerance.PENDING:
        code = "stay_unsaid" if last.why == "not_said" else "stay_pending"
        return _decision(Action.STAY, code, here, here, judged)
    if last.tolerance is Tolerance.WATCH:
        run = _run(answered, lambda j: j.tolerance is Tolerance.WATCH)
        if run >= REVIEW_AFTER_WATCHES:
            return _decision(Action.REVIEW, "review", here, here, judged)
        gave = next((sign for sign in last.response.signs or () if sign in FORM_SIGNS), None)
        if gave is not None and (held_up := _held_up_more(judged, here, gave, last, bearing)) is not None:
            return held_up
        return _decision(Action.STAY, "stay_watch", here, here, judged, why=why_words(last))
    calm = calm_in_a_row(held, here)
    needed = CALM_NEEDED_AFTER_OPERATION if bearing.after_operation else CALM_NEEDED
    if calm < needed:
        return _decision(Action.STAY, "stay_calm", here, here, judged, count=calm, needed=needed)
    tightens_on, today = bearing.tightens_on(), bearing.today
    if tightens_on is not None and today <= tightens_on < today + QUIET_BEFORE_TIGHTENING:
        return _decision(Action.STAY, "waits_for_limit", here, here, judged, date=tightens_on)
    return _offer(judged, here, calm, bearing)


def _decided(otherwise: Otherwise, judged: Sequence[Judged], here: Step, last: Judged, bearing: Bearing) -> Decision:
    """The therapist's own decision as a step. Going on stays one change, and where range is to be kept a longer hold."""
    reason = Own(otherwise.reason)
    if otherwise.action is Action.LEAVE_OUT:
        return _decision(Action.LEAVE_OUT, "own_leave_out", None, here, judged, reason=reason)
    if otherwise.action is Action.STEP_BACK:
        back = bearing.back_from(here, last.response.place)
        if back is None:
            return _decision(Action.LEAVE_OUT, "own_step_back_none", None, here, judged, reason=reason)
        step = Step(back.variation.id, back.setup, back.variation.hold.start_s)
        short = back.variation.short
        return _decision(Action.STEP_BACK, "own_step_back", step, here, judged, reason=reason, variation=short)
    if otherwise.action is Action.OFFER:
        onward = _offer(judged, here, 0, bearing)
        if onward.action is Action.OFFER:
            return _decision(Action.OFFER, "own_offer", onward.step, here, judged, reason=reason)
        return _decision(Action.STAY, "own_capped", here, here, judged, reason=reason)
    return _decision(Action.STAY, "own_stay", here, here, judged, reason=reason)


GRAVITY = (Tolerance.CALM, Tolerance.PENDING, Tolerance.WATCH, Tolerance.FLARE)
"""What a hold came to, from the least to the gravest."""


def sessions(judged: Sequence[Judged]) -> list[Judged]:
    """One judged hold for each day, oldest first: of those at the step the day ended with the gravest. Several rounds of a
    day are one session; one of which nothing was said counts only where it is the only one."""
    by_day: dict[dt.date, list[Judged]] = {}
    for each in judged:
        by_day.setdefault(each.response.date, []).append(each)
    found = []
    for holds in by_day.values():
        end = step_of(holds[-1].response)
        there = [each for each in holds if same_step(step_of(each.response), end)]
        said = [each for each in there if each.why != "not_said"] or there
        # Of equally grave ones the last: it is the step as it was really left.
        found.append(max(reversed(said), key=lambda each: GRAVITY.index(each.tolerance)))
    return found


def _run(judged: Sequence[Judged], holds: Callable[[Judged], bool]) -> int:
    """Length of the latest unbroken run."""
    count = 0
    for item in reversed(judged):
        if not holds(item):
            break
        count += 1
    return count


def _answered(judged: Sequence[Judged]) -> list[Judged]:
    """Those whose morning is not open any more."""
    return [each for each in judged if each.tolerance is not Tolerance.PENDING]


def calm_in_a_row(held: Sequence[Judged], here: Step) -> int:
    """Calm sessions in a row at a step, up to the latest; one whose morning is open counts as neither."""
    return _run(_answered(held), lambda j: j.tolerance is Tolerance.CALM and same_step(step_of(j.response), here))


def left_out(judged: Sequence[Judged], variation: str, measured_on: dt.date | None) -> bool:
    """Whether a rung flared up twice within four sessions, and the side was not measured again since. Of sessions whose
    morning is open nothing is known: they are not counted."""
    answered = _answered(judged)
    dates = sorted({j.response.date for j in answered})
    flares = sorted(
        {
            j.response.date
            for j in answered
            if j.tolerance is Tolerance.FLARE
            and j.response.variation == variation
            and j.response.date in dates[-FLARE_WINDOW_SESSIONS:]
        }
    )
    return len(flares) >= FLARES_TO_LEAVE_OUT and (measured_on is None or measured_on <= flares[-1])


def _after_flare(judged: Sequence[Judged], here: Step, flared: Judged, bearing: Bearing) -> Decision:
    if left_out(judged, here.variation, bearing.measured_on):
        variation = bearing.library.variation(here.variation).short
        return _decision(Action.LEAVE_OUT, "leave_out", None, here, judged, variation=variation)
    back = bearing.back_from(here, flared.response.place)
    why = why_words(flared)
    if back is None:
        return _decision(Action.LEAVE_OUT, "step_back_none", None, here, judged, why=why)
    rung = back.variation
    step = Step(rung.id, back.setup, rung.hold.start_s)
    code = "step_back_by_load" if back.against_the_ladder else "step_back"
    return _decision(Action.STEP_BACK, code, step, here, judged, why=why, variation=rung.short)


def _held_up_more(judged: Sequence[Judged], here: Step, sign: str, last: Judged, bearing: Bearing) -> Decision | None:
    """The shape gave way where it should hold: one fold or face more under it, else the rung before. ``None`` where
    neither is open."""
    seen = say("signs", sign)
    library, screen_of = bearing.library, bearing.screen_of
    rung = library.variation(here.variation)
    screened = screen_of(rung, here.setup)
    if not isinstance(screened, NoGrid):
        more = _one_change(screened, screened.grid.nearest(here.setup), toward=-1)
        if more is not None:
            name, row = more
            step = Step(here.variation, screened.grid.setup(row), here.dose_s)
            words, label = sized_words(screened.grid.stacks(row)[name]), rung.label_of(name)
            return _decision(Action.STEP_BACK, "more_support", step, here, judged, sign=seen, label=label, value=words)
    back = bearing.back_from(here, last.response.place)
    if back is None:
        return None
    step = Step(
        back.variation.id, back.setup, here.dose_s if back.variation.hold == rung.hold else back.variation.hold.start_s
    )
    return _decision(Action.STEP_BACK, "holds_shape", step, here, judged, sign=seen, variation=back.variation.short)


def _offer(judged: Sequence[Judged], here: Step, calm: int, bearing: Bearing) -> Decision:
    """One change, the smallest first, each only if today's limits allow it."""
    library, screen_of = bearing.library, bearing.screen_of
    rung = library.variation(here.variation)
    screened = screen_of(rung, here.setup)
    if isinstance(screened, NoGrid):
        return _decision(Action.STAY, "capped", here, here, judged, count=calm)
    row = screened.grid.nearest(here.setup)
    if screened.allowed(row) and here.dose_s < rung.hold.to_s:
        seconds = min(here.dose_s + rung.hold.step_s, rung.hold.to_s)
        longer = Step(here.variation, here.setup, seconds)
        return _decision(
            Action.OFFER, "offer_seconds", longer, here, judged, count=calm, dose=dose_words(rung.hold, seconds)
        )
    if bearing.keep_range:
        return _decision(Action.STAY, "keeps_range", here, here, judged, count=calm)
    less = _one_change(screened, row, toward=1)
    if less is not None:
        name, less_row = less
        step = Step(here.variation, screened.grid.setup(less_row), rung.hold.start_s)
        words = sized_words(screened.grid.stacks(less_row)[name])
        label = rung.label_of(name)
        return _decision(Action.OFFER, "offer_slot", step, here, judged, count=calm, label=label, value=words)
    onward = next(library.steps(rung, "step_forward"), None)
    if onward is None:
        return _decision(Action.STAY, "top", here, here, judged, count=calm)
    if left_out(judged, onward.id, bearing.measured_on):
        return _decision(Action.STAY, "onward_left_out", here, here, judged, count=calm, variation=onward.short)
    ahead = screen_of(onward, here.setup)
    if (
        isinstance(ahead, NoGrid)
        or not ahead.allowed(ahead.recommended)
        or ahead.size_at(ahead.recommended) > screened.size_at(row)
    ):
        return _decision(Action.STAY, "capped", here, here, judged, count=calm)
    step = Step(onward.id, ahead.grid.setup(ahead.recommended), onward.hold.start_s)
    return _decision(Action.OFFER, "offer_rung", step, here, judged, count=calm, variation=onward.short)


def _one_change(screened: Screened, row: int, toward: int) -> tuple[str, int] | None:
    """One fold or face less help (``toward`` 1) or more (-1) on the first slot that gives it, without a new caution."""
    grid = screened.grid
    now = grid.indices[row]
    for k, axis in enumerate(grid.axes):
        if not axis.stacks or axis.slot.less_support == "none":
            continue
        direction = toward if axis.slot.less_support == "up" else -toward
        index = int(now[k]) + direction
        # Past the plain choice a lower seat is no smaller support but another chair.
        if toward > 0 and axis.slot.less_support == "down" and now[k] <= axis.plain:
            continue
        if not 0 <= index < len(axis.stacks):
            continue
        wanted = now.copy()
        wanted[k] = index
        found = grid.find(wanted.tolist())
        if found is not None and screened.allowed(found) and screened.size_at(found) <= screened.size_at(row):
            return axis.name, found
    return None


def why_words(judged: Judged) -> Phrase:
    """Why a response was not calm, in a few words."""
    if judged.why is None:
        return NOTHING
    detail = judged.detail
    if judged.why == "kind":
        return say("why", "kind", kind=say("sensations", str(detail)))
    if judged.why == "place":
        return say("why", "place", place=say("places", str(detail)))
    if judged.why == "sign":
        return say("why", "sign", sign=say("signs", str(detail)))
    return say("why", judged.why, **({"points": detail} if isinstance(detail, int) else {}))


def _decision(
    action: Action, code: str, step: Step | None, from_step: Step | None, judged: Sequence[Judged], **params: Param
) -> Decision:
    return Decision(
        action,
        code,
        say("steps", code, "therapist", **params),
        say("steps", code, "client", **params),
        step,
        from_step,
        tuple(judged),
    )
