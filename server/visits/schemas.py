"""What choosing, setting up and logging take and give."""

from __future__ import annotations

import datetime as dt
import uuid
from typing import Annotated, Literal

from ninja import Field
from pydantic import BaseModel

from asketa_core import Bound, FreeText, Key, Place, Sensation, Side, Sign, SlotValue, Verdict
from clients.schemas import Contact
from common.schemas import Input, Output, Whole
from common.speech import Text
from overview.schemas import AskedOut, CheckOut

Tolerance = Literal["calm", "watch", "flare", "pending"]


class StepOut(Output):
    variation: str
    short: Text
    setup: dict[str, SlotValue]
    dose_s: int
    dose: Text


class DecisionOut(Output):
    """What to do next time on one side of one ladder, and why; ``own`` where a therapist decided so."""

    action: Literal["not_tried", "stay", "review", "offer", "step_back", "leave_out"]
    reason: Text
    step: StepOut | None
    here: str | None
    own: bool


class LastTime(Output):
    date: dt.date
    tolerance: Tolerance


class RungLane(Output):
    """One rung on one side: verdict, how many things to mind, what closes it or the largest of them in few words, and the
    sentences that matter. ``drawn`` says whether there is a figure, ``level`` how high the body is, ``seconds`` how long one
    round of its first dose takes."""

    variation: str
    verdict: Verdict
    cautions: int
    brief: Text
    level: Literal["standing", "seated", "bed", "floor", "lying"]
    seconds: int
    drawn: bool
    line: Text
    reasons: list[Text]
    last: LastTime | None
    here: bool
    offered: bool


class LaneOut(Output):
    side: Side
    decision: DecisionOut
    rungs: list[RungLane]


class RungName(Output):
    id: str
    name: Text
    short: Text


class FamilyLine(Output):
    """One family in a list: what it is for, what it is found under, and when this client last worked on it."""

    family: str
    name: Text
    about: Text
    found_by: Text
    purposes: list[str]
    positions: list[Literal["chair", "standing", "floor_sitting", "kneeling", "lying", "side_lying"]]
    last: dt.date | None


class LadderOut(Output):
    family: str
    name: Text
    about: Text
    purposes: list[str]
    shared: bool
    side_means: Literal["worked_leg", "front_leg", "turn_toward", "none"]
    rungs: list[RungName]
    left: LaneOut
    right: LaneOut


HANDFUL = 12
"""Ladders that are judged in one answer."""


class LaddersQuery(BaseModel):
    family: list[Annotated[str, Field(max_length=80)]] = Field(min_length=1, max_length=HANDFUL)


class ClosedOut(Output):
    """One thing that closes a rung; ``bound`` and ``sides`` are what may be seen otherwise on the mat."""

    words: Text
    severity: Literal["caution", "ask", "stop"]
    source: Text | None
    bound: str | None
    sides: list[Side]


class OpenerOut(Output):
    """What would open a rung; ``entry_id`` is the record where a word or an answer is kept."""

    by: Literal["date", "clearance", "answer", "reading", "prop", "together"]
    words: Text
    verdict: Verdict
    entry_id: str | None


class WhyNotOut(Output):
    """Why a rung is not open to a side, and each thing that would open it by itself, or all it takes together."""

    verdict: Verdict
    closed_by: list[ClosedOut]
    openers: list[OpenerOut]


class DrawingsOut(Output):
    """Figures of a ladder's rungs by variation; rungs for which nothing can be built have none."""

    left: dict[str, str]
    right: dict[str, str]


class AcceptedOut(Output):
    """A caution taken on: why, by whom, when."""

    reason: str
    by: str
    at: dt.datetime


class FindingOut(Output):
    severity: Literal["caution", "ask", "stop"]
    side: Side | None
    phase: str
    codes: list[str]
    size: float
    sentence: Text
    client_sentence: Text
    authority: Text
    within_error: bool
    accepted: AcceptedOut | None = None


class RulerOut(Output):
    readout: str
    name: Text
    technical: Text
    unit: Literal["deg", "cm", "percent", "share", "leg_share", "upper_share", "ratio", "minutes"]
    value: float
    low: float
    high: float
    error: float
    shown: float
    boundary: float | None
    boundary_kind: Literal["limit", "range"] | None
    boundary_label: Text | None
    margin: float | None
    own_range: float | None
    typical: bool
    opposite: Text | None
    at_least: bool
    rounded_to: float


class UnmetOut(Output):
    """What this body cannot meet; ``bound`` on ``sides`` may be recorded as seen on the mat, where there is one."""

    words: Text
    bound: Bound | None
    sides: list[Side]


class RulersOut(Output):
    left: list[RulerOut]
    right: list[RulerOut]


class DetailOut(Output):
    """One set-up in full."""

    index: list[int]
    verdict: Verdict
    allowed: bool
    setup: dict[str, SlotValue]
    words: dict[str, Text]
    fetch: list[Text]
    folds: bool
    items: int
    purpose_percent: float | None
    technique_words: Text
    stopped_by: Text
    findings: list[FindingOut]
    unmet: list[UnmetOut]
    rulers: RulersOut
    figure: str
    figure_words: Text


class ChoiceOut(Output):
    """One choice of a slot: what to say, its height, distance or angle, and the value to send back."""

    label: Text
    number: float | None
    value: SlotValue


class AxisOut(Output):
    """One slot and what this room offers for it, in order."""

    name: Text
    label: Text
    side: Side | None
    kind: Literal["stack", "distance", "angle", "choice"]
    less_support: Literal["up", "down", "none"]
    choices: list[ChoiceOut]


class FiguresOut(Output):
    """A figure for every set-up. ``at`` has for each the place of its figure among ``values``, written with
    ``figure_letters`` as digits, as many for each as ``at`` is times longer than there are set-ups; another letter means
    that there is no figure."""

    values: list[int]
    at: str


class GridOut(Output):
    """Every set-up, dense over the axes (last axis fastest). ``verdicts`` has one letter a set-up, explained by
    ``letters``; one that is not among them cannot be built here. ``columns`` are worst read-outs rounded to whole units;
    ``purpose`` is per cent, and ``null`` where a range of zero leaves it undefined; ``purpose_band`` is what is wanted."""

    shape: list[int]
    letters: dict[str, Verdict]
    verdicts: str
    figure_letters: str
    purpose: FiguresOut | None
    purpose_band: list[int]
    columns: dict[str, FiguresOut]


class OptionOut(Output):
    """``school`` marks the set-ups that stand for a school of thought; ``spine_deg`` is the rounding left."""

    trade: Text
    school: bool
    words: Text
    spine_deg: float
    detail: DetailOut


class NeighbourOut(Output):
    """The rung before or after, and whether it is open to this side today."""

    variation: str
    short: Text
    verdict: Verdict
    reason: Text


class DoseOut(Output):
    """One dose of a rung: its seconds on the clock, and in the unit it is counted in."""

    seconds: int
    words: Text


class PlannedOut(Output):
    """What today's plan has of one side of a rung."""

    setup: dict[str, SlotValue]
    dose_s: int


class SetupOut(Output):
    """``shared`` marks two-sided shapes: one seat, supports per side, one verdict."""

    variation: str
    family: str
    family_name: Text
    shared: bool
    seen_from: Literal["side", "front", "behind", "above"]
    side: Side
    name: Text
    verdict: Verdict
    purposes: list[str]
    doses: list[DoseOut]
    cues: list[Text]
    watch: list[Text]
    no_stack: Text | None
    axes: list[AxisOut]
    grid: GridOut | None
    options: list[OptionOut]
    plain_reasons: list[Text]
    step_back: NeighbourOut | None
    step_forward: NeighbourOut | None
    planned: PlannedOut | None
    """Today's plan for this side, where it is this rung; what else is shown is only looked at."""
    note: str
    """What was last written for this rung and side."""


SetUp = Annotated[dict[Key, SlotValue], Field(max_length=40)]


class SetupQuery(Input):
    setup: SetUp
    view: Literal["side", "front", "behind", "above"] = "side"


class WayQuery(Input):
    setup: SetUp


class MomentOut(Output):
    """A station of the way in and out: its figure, to one scale with the others, and what it is."""

    figure: str
    words: Text


class CautionIn(Input):
    """Take a caution of a ladder on, with a reason; or no longer. ``side`` and ``codes`` are the finding's."""

    family: Key
    side: Side | None = None
    codes: list[Key] = Field(min_length=1, max_length=20)
    accepted: Annotated[bool, Field(strict=True)] = True
    reason: FreeText = Field(default="", max_length=300)


class PlanIn(Input):
    """Take a set-up to the mat, with a note for it."""

    variation: Key
    side: Side
    setup: SetUp
    dose_s: Whole = Field(ge=1, le=1200)
    note: FreeText = Field(default="", max_length=300)


Score = Annotated[int, Field(strict=True, ge=0, le=10)]


class SaidIn(Input):
    """What was said of a hold. What nobody said is left out; no ``signs`` at all is not the same as none seen."""

    id: uuid.UUID
    held_s: Whole | None = Field(default=None, ge=0, le=7200)
    before: Score | None = None
    during: Score
    after: Score | None = None
    kind: Sensation | None = None
    place: Place | None = None
    signs: list[Sign] | None = Field(default=None, max_length=20)
    note: FreeText = Field(default="", max_length=2000)


class ItemIn(SaidIn):
    """One hold on one side. ``id`` is made by the device: sending twice stores once."""

    variation: Key
    side: Side
    setup_used: SetUp
    dose_s: Whole = Field(ge=1, le=1200)


class CorrectionIn(SaidIn):
    """What is said of a hold instead. Rung, set-up and dose are the hold's own and stay."""


class LoggedHold(Output):
    """One hold as it was logged, and what it came to."""

    id: uuid.UUID
    date: dt.date
    variation: str
    short: Text
    setup_words: Text
    dose_s: int
    dose: Text
    held_s: int | None
    before: int | None
    during: int
    after: int | None
    kind: Sensation | None
    place: Place | None
    signs: list[Sign] | None
    note: str
    settled: bool | None
    asked: bool
    tolerance: Tolerance


class ItemOut(LoggedHold):
    side: Side


class ResponsePoint(LoggedHold):
    """One logged hold on the way: how high the body was held up and by what, which way of that there is less support, and
    why it came to what it did."""

    rung: int
    seat_cm: float | None
    support_cm: float | None
    support: Text
    less_support: Literal["up", "down"] | None
    why: Text


class TrendOut(Output):
    """What all the sessions of one side come to: how many, calm in a row, flares; the furthest calm step and where
    discomfort goes, in words."""

    sessions: int
    calm_in_a_row: int
    flares: int
    furthest: Text
    slope: Text


class ResponseLane(Output):
    """``earlier`` says that there are holds before the first of ``points``; ``trend`` counts them all."""

    side: Side
    decision: DecisionOut
    change: Text
    points: list[ResponsePoint]
    earlier: bool
    trials: list[TrialOut]
    trend: TrendOut


class ResponseFamily(Output):
    """One ladder over time: its rungs from most held up to least, and both sides facing; ``shared`` shapes are told once."""

    family: str
    name: Text
    shared: bool
    rungs: list[RungName]
    allowed: int
    left: ResponseLane
    right: ResponseLane


class DecisionIn(Input):
    """Decide otherwise for next time, or ``as_computed`` again. Of a shape both legs share one side stands for both."""

    family: Key
    side: Side
    action: Literal["stay", "offer", "step_back", "leave_out", "as_computed"]
    reason: FreeText = Field(default="", max_length=300)


class TrialIn(Input):
    """Two ways of one slot tried one after the other: the set-up of the first, the slot's other value, the discomfort in each
    and which is kept. ``id`` is made by the device: sending twice stores once."""

    id: uuid.UUID
    variation: Key
    side: Side
    slot: Key
    setup: SetUp
    other: SlotValue
    felt_a: Score
    felt_b: Score
    kept: Literal["a", "b"]


class TrialOut(Output):
    """Two ways that were tried on one side, in words: the one that was kept, and the other."""

    id: uuid.UUID
    date: dt.date
    slot: str
    label: Text
    kept: Text
    felt_kept: int
    other: Text
    felt_other: int


class SlotTrial(Output):
    """A slot of which both ways may be tried: what came of it last on this side, and whether it flared up since."""

    slot: str
    label: Text
    last: TrialOut | None
    again: bool


class DrawnSetup(Output):
    """A set-up to look at: its figure, and what to mind in it."""

    setup: dict[str, SlotValue]
    verdict: Verdict
    cautions: list[FindingOut]
    figure: str


class WayOut(DrawnSetup):
    """Another way of one slot of a set-up: how the slot is there (``now``) and how it is here (``then``)."""

    slot: str
    label: Text
    now: Text
    then: Text


class WaysOut(Output):
    """A set-up and every other way of it that is open today."""

    here: DrawnSetup
    ways: list[WayOut]


class VisitNoteIn(Input):
    """What is written of today's visit; ``replaces`` is the note it was made on, left out where there was none."""

    text: FreeText = Field(max_length=5000)
    replaces: uuid.UUID | None = None


class VisitNoteOut(Output):
    """What a therapist wrote of a visit, who and of which day."""

    id: uuid.UUID
    date: dt.date
    text: str
    by: str


class Difference(Output):
    """A hold that would be judged otherwise by what is recorded now: the verdict it was done under, today's for the same
    day and set-up, and what makes the difference."""

    item_id: uuid.UUID
    date: dt.date
    side: Side | None
    name: Text
    was: Verdict
    would_be: Verdict
    why: list[Text]


class DifferencesOut(Output):
    """What a corrected record would have changed since it was first recorded; ``looked_at`` holds were judged again, and
    ``left`` older ones were not."""

    since: dt.date
    looked_at: int
    left: int
    differences: list[Difference]


class IncidentIn(Input):
    """What went wrong. ``id`` is made by the device: sending twice stores once."""

    id: uuid.UUID
    text: FreeText = Field(min_length=3, max_length=2000)


class MorningIn(Input):
    """What the client said of the next morning; left out when they were asked and did not answer yet."""

    settled: Annotated[bool, Field(strict=True)] | None = None


class ChangedSince(Output):
    """A planned set-up that today's engine, rules or library see otherwise: what it was, and both verdicts; ``verdict_then``
    is empty for plans made before it was kept."""

    was: Text
    verdict_then: Verdict | None
    verdict_now: Verdict


class MatSide(Output):
    """One side of one ladder, ready for the mat: set-up, figure, the step back, last time, today's holds in their order.
    ``style`` is what the dose is counted in, ``amount`` how many of it, in each of ``sets``; ``seconds`` is what one round
    takes on the clock, by this client's breath."""

    side: Side
    variation: str
    name: Text
    short: Text
    setup: dict[str, SlotValue]
    setup_words: Text
    dose_s: int
    dose: Text
    style: Literal["seconds", "breaths", "minutes", "reps"]
    amount: int
    sets: int
    seconds: int
    rounds: int
    verdict: Verdict
    allowed: bool
    note: str
    """What was written for this side when it was planned."""
    figure: str
    figure_words: Text
    technique_words: Text
    cautions: list[FindingOut]
    cues: list[Text]
    watch: list[Text]
    changed_since: ChangedSince | None
    step_back: MatStepBack | None
    trials: list[SlotTrial]
    last: ItemOut | None
    decision: DecisionOut
    logged_today: list[ItemOut]


class MatStepBack(Output):
    variation: str
    name: Text
    short: Text
    setup: dict[str, SlotValue]
    setup_words: Text
    dose_s: int
    dose: Text
    figure: str
    figure_words: Text


class MatFamily(Output):
    """One planned ladder; ``shared`` marks a shape that both legs share: one lane, logged once. ``seconds`` is what it takes
    with getting into it."""

    family: str
    name: Text
    shared: bool
    seconds: int
    left: MatSide | None
    right: MatSide | None


class CardLine(Output):
    """A record as somebody who helps needs to know it, and when it is one for a doctor."""

    label: Text
    side: Side | None
    doctor: Text


class IncidentOut(Output):
    at: dt.datetime
    text: str


class MatOut(Output):
    """Everything the mat needs, in one answer."""

    date: dt.date
    breath_s: int
    families: list[MatFamily]
    morning_open: list[ItemOut]
    asked: list[AskedOut]
    card: list[CardLine]
    checks: list[CheckOut]
    contacts: list[Contact]
    notes: list[VisitNoteOut]
    incidents: list[IncidentOut]


MatSide.model_rebuild()
