"""The same as last time, with each side's next step applied: what is proposed for a side today, and what differs."""

from __future__ import annotations

from dataclasses import dataclass

from asketa_core.poses.library import Library, Variation
from asketa_core.progress.demand import ScreenOf
from asketa_core.progress.step import Action, Decision, Step
from asketa_core.progress.values import same_value
from asketa_core.screening.detail import detail_at, no_stack_words
from asketa_core.screening.situation import Situation
from asketa_core.setup.grid import NoGrid
from asketa_core.setup.screened import Screened
from asketa_core.texts import NOTHING, Phrase, say
from asketa_core.words.recipe import dose_words


@dataclass(frozen=True, slots=True)
class Proposal:
    """What to do on one side today; ``None`` where it is to be left out. ``reason`` says why it is not the same as last
    time; empty where it is."""

    step: Step | None
    reason: Phrase


def proposal(decision: Decision, situation: Situation, screen_of: ScreenOf) -> Proposal:
    """A decision made for next time, held against today: a set-up that is closed now gives way to what the same rung has
    open, then to the first rung back that is open."""
    wanted = decision.step or (decision.from_step if not _leaves_out(decision) else None)
    if wanted is None:
        return Proposal(None, decision.reason)
    library = situation.library
    rung = library.variation(wanted.variation)
    why: Phrase = NOTHING
    if rung.id not in library.retired:
        screened = screen_of(rung, wanted.setup)
        if isinstance(screened, NoGrid):
            why = no_stack_words(screened)
        else:
            row = screened.grid.nearest(wanted.setup)
            if screened.allowed(row):
                return Proposal(wanted, _why_not_the_same(decision, wanted))
            why = _closed_by(situation, screened, row)
            if screened.allowed(screened.recommended):
                return Proposal(Step(rung.id, screened.grid.setup(screened.recommended), wanted.dose_s), why)
    else:
        why = say("session", "left_out", "retired")
    for back in library.steps(rung, "step_back"):
        screened = screen_of(back, wanted.setup)
        if not isinstance(screened, NoGrid) and screened.allowed(screened.recommended):
            step = Step(back.id, screened.grid.setup(screened.recommended), back.hold.start_s)
            return Proposal(step, why)
    return Proposal(None, why)


def _why_not_the_same(decision: Decision, wanted: Step) -> Phrase:
    if wanted == decision.from_step:
        return NOTHING
    return decision.kept or decision.reason if decision.action in (Action.STAY, Action.REVIEW) else decision.reason


def _leaves_out(decision: Decision) -> bool:
    return decision.action in (Action.LEAVE_OUT, Action.NOT_TRIED)


def _closed_by(situation: Situation, screened: Screened, row: int) -> Phrase:
    closing = detail_at(situation, screened, row).closing
    return closing[0] if closing else NOTHING


def first_open(rungs: tuple[Variation, ...], screen_of: ScreenOf) -> Step | None:
    """Where somebody new to a ladder begins: its most held up rung that is open, as it is recommended."""
    for rung in rungs:
        screened = screen_of(rung, None)
        if not isinstance(screened, NoGrid) and screened.allowed(screened.recommended):
            return Step(rung.id, screened.grid.setup(screened.recommended), rung.hold.start_s)
    return None


def since(before: Step | None, now: Step, library: Library) -> Phrase:
    """What differs from last time, in a few words."""
    if before is None:
        return say("session", "since", "new")
    rung = library.variation(now.variation)
    if before.variation != now.variation:
        then = library.variation(before.variation)
        if now.variation in {each.id for each in library.steps(then, "step_forward")}:
            return say("session", "since", "onward", rung=rung.short)
        if now.variation in {each.id for each in library.steps(then, "step_back")}:
            return say("session", "since", "back", rung=rung.short)
        return say("session", "since", "other_rung", rung=rung.short)
    differing = [
        name for name in now.setup if name in before.setup and not same_value(before.setup[name], now.setup[name])
    ]
    if differing:
        return say("session", "since", "other_setup")
    if before.dose_s != now.dose_s:
        code = "longer" if now.dose_s > before.dose_s else "shorter"
        return say("session", "since", code, dose=dose_words(rung.hold, now.dose_s))
    return say("session", "since", "same")
