"""The client file: everything about one client that the engine needs, as JSON.

Absent and unknown are the same for facts; unknown keys are refused with their path. No room in it:
the room belongs to the practice.
"""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Any, Literal, TypeVar

from pydantic import BaseModel, Field, TypeAdapter, ValidationError, model_validator

from asketa_core.body.measures import STATURE_CM, WEIGHT_KG, Body
from asketa_core.body.measures import Pregnancy as GrowingBelly
from asketa_core.body.ranges import PLAUSIBLE_DEG, Quantity, Range, Ranges, method_error_deg
from asketa_core.body.ranges import GroinPinch as PinchRange
from asketa_core.body.spine import coupling_from_ninety_ninety
from asketa_core.datafiles import Record, place_of
from asketa_core.errors import InputError
from asketa_core.plain_text import Key, Name, Words
from asketa_core.units import SIDES, Side

FORMAT = "asketa-client"
VERSION = 1

Day = Annotated[dt.date, Field(ge=dt.date(1900, 1, 1), lt=dt.date(2200, 1, 1))]
"""A date that can be reckoned with. Whether it can be true is asked when it is entered: see ``plausible.py``."""

TriState = Literal["yes", "no", "unknown"]
Approach = Literal["posterior", "direct_anterior", "anterolateral", "lateral", "unknown"]
WeightBearing = Literal["full", "partial", "touch", "unknown"]
KneeSite = Literal["front", "inner_line", "outer_line", "back", "all_over", "below_kneecap", "unknown"]
KneeDiagnosis = Literal[
    "kneecap", "bursitis", "inner_meniscus", "outer_meniscus", "meniscus_repaired", "arthritis",
    "acl", "pcl", "mcl", "lcl", "replacement", "over_straightens", "unknown",
]  # fmt: skip
LowBack = Literal["fine", "weak", "sore", "unknown"]
Scope = Literal[
    "all", "bend", "midline", "turning_in", "turning_out", "extension", "abductors", "loading", "kneeling", "activity",
    "lying_flat", "deep_squat", "after_birth", "imaging", "steroids", "fracture",
]  # fmt: skip
SCOPES: dict[str, tuple[Scope, ...]] = {
    "hip_replacement": (
        "all", "bend", "midline", "turning_in", "turning_out", "extension", "abductors", "loading",
    ),
    "knee_pain": ("all", "loading", "kneeling"),
    "pregnancy": ("activity", "lying_flat", "deep_squat", "after_birth", "all"),
    "bones": ("activity", "imaging", "steroids", "fracture", "all"),
}  # fmt: skip
"""What a clearance may be about, by kind of record; a kind that is not named has nothing to clear."""


Professional = Literal["surgeon", "doctor", "physiotherapist", "midwife"]


class Clearance(Record):
    """A treating professional's dated word that something is allowed again."""

    who: Professional
    date: Day
    scope: tuple[Scope, ...] = Field(min_length=1, max_length=12)


HipSymptom = Literal[
    "none", "sudden_groin_pain", "leg_shorter_or_turned", "cannot_take_weight", "clunk_or_giving_way", "hot_wound_or_fever",
    "calf_pain_or_swelling", "chest_pain_or_breathless",
]  # fmt: skip
KneeSymptom = Literal["none", "locked", "hot_or_fever", "injury_with_pop", "calf_pain_or_swelling"]
PregnancySymptom = Literal[
    "none", "bleeding", "leaking_fluid", "regular_contractions", "dizzy_or_weak", "chest_pain", "breathless_before_effort",
    "headache_with_sight", "sudden_swelling", "upper_belly_pain", "severe_itching", "calf_pain", "baby_moving_less",
]  # fmt: skip
BonesSymptom = Literal[
    "none", "sudden_back_pain", "new_loss_of_height", "leg_weak_or_numb", "bladder_or_bowel", "thigh_ache"
]
"""What happens now and has to be seen by a doctor first; ``none`` is the explicit answer that nothing does."""

Symptom = TypeVar("Symptom")
Symptoms = Annotated[tuple[Symptom, ...], Field(max_length=20)]


class WithSymptoms(Record):
    """Facts of a kind of record that asks at arrival for what may not wait. Empty: not asked yet."""

    symptoms_now: tuple[str, ...] = ()

    @model_validator(mode="after")
    def no_symptom_stands_alone(self) -> WithSymptoms:
        if "none" in self.symptoms_now and len(self.symptoms_now) > 1:
            raise ValueError("'none' cannot stand beside symptoms")
        return self

    @property
    def alarming(self) -> Literal["yes", "no"]:
        """Whether something happens now; what nobody asked about counts as no, and is asked."""
        return "yes" if set(self.symptoms_now) - {"none"} else "no"


class HipReplacementFacts(WithSymptoms):
    symptoms_now: Symptoms[HipSymptom] = ()
    date: Day | None = None
    approach: Approach = "unknown"
    prosthesis: Literal["total", "half", "resurfacing", "revision", "unknown"] = "unknown"
    half_because: Literal["fall", "arthritis", "other", "unknown"] = "unknown"
    """Why only half a joint was replaced; after a fall the bones are asked about."""
    dislocated: TriState = "unknown"
    abductor_repair: TriState = "unknown"
    weight_bearing: WeightBearing = "unknown"
    trouble_since: TriState = "unknown"
    """A fall, new pain or a dislocation since the precautions ended."""
    trouble_on: Day | None = None
    """When that was; a clearance given later answers it."""
    surgeon_bend_deg: float | None = Field(default=None, ge=30, le=140)
    leg_length_difference_cm: float | None = Field(default=None, ge=-8, le=8)
    school: Literal["until_cleared", "for_life"] = "until_cleared"


Stirs = Literal["stairs", "squatting", "kneeling", "turning", "long_sitting", "standing", "walking"]


class KneeFacts(WithSymptoms):
    symptoms_now: Symptoms[KneeSymptom] = ()
    site: KneeSite = "unknown"
    diagnosis: KneeDiagnosis = "unknown"
    since: Day | None = None
    operated: TriState = "unknown"
    operation_date: Day | None = None
    swelling: TriState = "unknown"
    locks_or_gives_way: TriState = "unknown"
    stirred_up_by: Symptoms[Stirs] = ()


PregnancyTick = Literal[
    "none", "bleeding", "leaking_fluid", "preterm_contractions", "low_placenta", "pre_eclampsia", "short_cervix",
    "growth_restriction", "triplets", "thyroid_or_diabetes_uncontrolled", "heart_or_lung_serious", "anaemia_severe",
    "earlier_preterm_or_losses", "gestational_hypertension", "heart_or_lung_mild", "malnutrition", "eating_disorder",
]  # fmt: skip
"""What is asked before working in pregnancy; ``none`` is the explicit answer that nothing applies."""


class PregnancyFacts(WithSymptoms):
    """The week comes from the due date, else from the last period, else from weeks known on a date. The blood pressure
    in mm Hg; where it is given it decides, and ``blood_pressure_high`` only where it is not."""

    symptoms_now: Symptoms[PregnancySymptom] = ()
    due_date: Day | None = None
    last_period: Day | None = None
    weeks_known: int | None = Field(default=None, ge=1, le=42)
    weeks_known_on: Day | None = None
    babies: Literal["one", "twins", "unknown"] = "unknown"
    ticks: tuple[PregnancyTick, ...] = Field(default=(), max_length=20)
    girdle_pain: TriState = "unknown"
    pain_free_gap_cm: float | None = Field(default=None, ge=0, le=80)
    unwell_lying_flat: TriState = "unknown"
    blood_pressure_high: TriState = "unknown"
    systolic: int | None = Field(default=None, ge=60, le=260)
    diastolic: int | None = Field(default=None, ge=30, le=160)
    baby_position: Literal["head_down", "bottom_down", "across", "unknown"] = "unknown"
    placenta: Literal["clear", "low", "unknown"] = "unknown"
    born_on: Day | None = None
    caesarean: TriState = "unknown"

    @model_validator(mode="after")
    def none_stands_alone(self) -> PregnancyFacts:
        if "none" in self.ticks and len(self.ticks) > 1:
            raise ValueError("'none' cannot stand beside other ticks")
        return self


class Fracture(Record):
    """A broken bone. Low energy: from standing height or less."""

    bone: Literal["vertebra", "hip", "upper_arm", "pelvis", "wrist", "other"]
    date: Day | None = None
    low_energy: TriState = "unknown"


class BonesFacts(WithSymptoms):
    symptoms_now: Symptoms[BonesSymptom] = ()
    t_score: float | None = Field(default=None, ge=-7, le=5)
    t_score_date: Day | None = None
    fractures: tuple[Fracture, ...] | None = Field(default=None, max_length=40)
    """``None`` while nobody has asked; an empty list when there was none."""
    height_lost_cm: float | None = Field(default=None, ge=0, le=30)
    height_lost_how: Literal["recalled", "measured", "unknown"] = "unknown"
    """Where nobody said, it counts as recalled."""
    steroids: TriState = "unknown"
    fell_last_year: TriState = "unknown"
    one_leg_stand_s: float | None = Field(default=None, ge=0, le=120)
    wall_to_head_cm: float | None = Field(default=None, ge=0, le=30)


class GroinPinchFacts(Record):
    """Hip flexion at which the groin starts to pinch, knee straight ahead and turned out."""

    straight_deg: float | None = Field(default=None, ge=30, le=150)
    turned_out_deg: float | None = Field(default=None, ge=30, le=150)
    turned_out_at_deg: float | None = Field(default=None, ge=5, le=80)
    """How far the knee was out to the side when the second was measured."""


class HamstringsFacts(Record):
    low_back: LowBack = "unknown"
    leg_tingling: TriState = "unknown"


class LowBackFacts(Record):
    what: Literal["sore", "weak", "disc", "narrow_canal", "slipped_vertebra", "unknown"] = "unknown"
    sore: TriState = "unknown"


class WristFacts(Record):
    """How much it hurts is asked at arrival."""


class Entry(Record):
    """What every record has: an id, since when and until when it counts. ``side`` is ``None`` for what has
    no side."""

    id: Key
    side: Side | None = None
    from_date: Day | None = None
    until_date: Day | None = None
    clearances: tuple[Clearance, ...] = Field(default=(), max_length=60)


class SidedEntry(Entry):
    side: Side


class MiddleEntry(Entry):
    side: None = None


class HipReplacement(SidedEntry):
    kind: Literal["hip_replacement"]
    facts: HipReplacementFacts


class KneePain(SidedEntry):
    kind: Literal["knee_pain"]
    facts: KneeFacts


class Pregnancy(MiddleEntry):
    kind: Literal["pregnancy"]
    facts: PregnancyFacts


class Bones(MiddleEntry):
    kind: Literal["bones"]
    facts: BonesFacts


class GroinPinch(SidedEntry):
    kind: Literal["groin_pinch"]
    facts: GroinPinchFacts


class Hamstrings(SidedEntry):
    kind: Literal["hamstrings"]
    facts: HamstringsFacts


class LowBackEntry(MiddleEntry):
    kind: Literal["low_back"]
    facts: LowBackFacts


class Wrist(SidedEntry):
    kind: Literal["wrist"]
    facts: WristFacts = WristFacts()


class UnreadableFacts(Record):
    """What is left of a record that cannot be read: its kind, why, and what was stored."""

    kind: Annotated[str, Field(max_length=60)] = ""
    reason: Annotated[str, Field(max_length=400)] = ""
    stored: dict[str, Any] = {}


class Unreadable(Entry):
    """A stored record that can no longer be read. Nobody knows what it limits, so it asks about everything."""

    kind: Literal["unreadable"]
    facts: UnreadableFacts = UnreadableFacts()


AnyEntry = Annotated[
    HipReplacement | KneePain | Pregnancy | Bones | GroinPinch | Hamstrings | LowBackEntry | Wrist | Unreadable,
    Field(discriminator="kind"),
]


class DailyFact(Record):
    """Something asked at arrival; older than 14 days it counts as unknown."""

    entry_id: Key
    date: Day
    pain_today: int | None = Field(default=None, ge=0, le=10)
    irritable: TriState = "unknown"
    """Once stirred up it stays so until the next day."""


Conditions = Annotated[dict[Key, Annotated[float, Field(ge=-1000, le=1000)]], Field(max_length=10)]


class RangeMeasure(Record):
    """``pelvis_held``: whether the pelvis was kept still; otherwise the reading includes some of its roll.
    ``conditions`` are what a tape reading was turned into degrees with (foot distance, seat height), cm."""

    quantity: Quantity
    side: Side
    value_deg: float
    method: Literal["goniometer", "inclinometer", "tape", "eye"]
    error_deg: float | None = Field(default=None, gt=0, le=30)
    date: Day
    pelvis_held: TriState = "unknown"
    conditions: Conditions = {}

    @model_validator(mode="after")
    def plausible(self) -> RangeMeasure:
        reason = check_plausible(self.quantity, self.value_deg)
        if reason is not None:
            raise ValueError(reason)
        return self


BodyQuantity = Literal[
    "stature", "weight", "chair_height", "sitting_seat", "sitting_knee_minus_hip", "sitting_plumb_offset",
    "one_leg_stand",
]  # fmt: skip
PLAUSIBLE_BODY: dict[str, tuple[float, float]] = {
    "stature": STATURE_CM,
    "weight": WEIGHT_KG,
    "chair_height": (20.0, 80.0),
    "sitting_seat": (0.0, 60.0),
    "sitting_knee_minus_hip": (-30.0, 50.0),
    "sitting_plumb_offset": (-10.0, 40.0),
    "one_leg_stand": (0.0, 120.0),
}
"""Measures without a side, cm (weight in kg, the one-leg stand in seconds on the less steady leg), and what is plausible
for each."""


class BodyMeasure(Record):
    """``note`` holds what is looked at rather than measured (the low back: hollow, flat or rounded)."""

    quantity: BodyQuantity
    value: float
    date: Day
    note: Literal["", "hollow", "flat", "rounded"] = ""

    @model_validator(mode="after")
    def plausible(self) -> BodyMeasure:
        low, high = PLAUSIBLE_BODY[self.quantity]
        if not low <= self.value <= high:
            raise ValueError(f"a {self.quantity.replace('_', ' ')} lies between {low:g} and {high:g}")
        return self


class Person(Record):
    id: Key
    name: Name | None = None
    birth_date: Day | None = None


class Settings(Record):
    first_weeks_after_hip: int = Field(default=12, ge=6, le=26)
    discomfort_allowed: int = Field(default=2, ge=0, le=5)


class SlotValue(Record):
    """One slot of a set-up as used: a stack by its key and height, a number, or a choice."""

    stack: Annotated[str, Field(max_length=200)] | None = None
    number: Annotated[float, Field(ge=-1000, le=1000)] | None = None
    choice: Annotated[str, Field(max_length=60)] | None = None


Place = Literal["wanted", "hip", "groin", "knee", "back", "other"]
Sensation = Literal["calm", "stretch", "warm", "pressure", "sharp", "pinching", "tingling", "numb", "none"]
Sign = Literal["breath_held", "grimace", "wobble", "back_rounds", "knee_rides_up", "pelvis_tilts", "clunk", "gave_way"]


class Response(Record):
    """What happened on one side in one hold. What nobody said is ``None``, and never taken as fine: ``signs`` empty
    means that somebody looked, that the breath was steady and that nothing was seen.

    ``dose_s`` was planned, ``held_s`` really held, where a clock ran.
    """

    id: Key
    date: Day
    variation: Key
    side: Side
    setup: Annotated[dict[Key, SlotValue], Field(max_length=40)]
    dose_s: int = Field(gt=0, le=1200)
    held_s: int | None = Field(default=None, ge=0, le=7200)
    before: int | None = Field(default=None, ge=0, le=10)
    during: int = Field(ge=0, le=10)
    after: int | None = Field(default=None, ge=0, le=10)
    kind: Sensation | None = None
    place: Place | None = None
    signs: tuple[Sign, ...] | None = Field(default=None, max_length=20)
    settled_next_morning: TriState = "unknown"
    note: Words = Field(default="", max_length=2000)

    @property
    def family(self) -> str:
        """The family of the rung that was held."""
        return self.variation.partition(".")[0]


TEST_RESULTS = ("not_passed", "passed", "not_tried")
"""What a test may come to, in the order stored numbers count them in."""


class TestResult(Record):
    """A test that no range shows, seen on one side: whether thigh and shin lift as one."""

    __test__ = False

    test: Literal["moves_as_one"]
    side: Side
    result: Literal["passed", "not_passed", "not_tried"]
    date: Day


Bound = Literal[
    "knee_twist", "hip_use", "hip_range", "hip_extension", "knee_range", "ankle_range", "back_rounds", "back_hollows",
    "shin_steep",
]  # fmt: skip
"""What usually ends a shape, and a therapist may have seen otherwise."""


class SeenOnTheMat(Record):
    """A shape beyond what the model takes for possible, seen on this client: from its date on a caution, until the day it
    was taken back."""

    bound: Bound
    side: Side
    date: Day
    until: Day | None = None

    def holds(self, date: dt.date) -> bool:
        return self.date <= date and (self.until is None or date < self.until)


MOST_ROWS = 20_000
"""More of one kind than a lifetime of sessions makes."""


class ClientFile(Record):
    format: Literal["asketa-client"]
    version: Literal[1]
    client: Person
    entries: tuple[AnyEntry, ...] = Field(default=(), max_length=200)
    daily: tuple[DailyFact, ...] = Field(default=(), max_length=MOST_ROWS)
    ranges: tuple[RangeMeasure, ...] = Field(default=(), max_length=MOST_ROWS)
    body: tuple[BodyMeasure, ...] = Field(default=(), max_length=MOST_ROWS)
    responses: tuple[Response, ...] = Field(default=(), max_length=MOST_ROWS)
    tests: tuple[TestResult, ...] = Field(default=(), max_length=MOST_ROWS)
    seen: tuple[SeenOnTheMat, ...] = Field(default=(), max_length=MOST_ROWS)
    settings: Settings = Settings()

    @model_validator(mode="after")
    def ids_fit(self) -> ClientFile:
        entries = {entry.id for entry in self.entries}
        if len(entries) != len(self.entries):
            raise ValueError("two entries share an id")
        if len({response.id for response in self.responses}) != len(self.responses):
            raise ValueError("two responses share an id")
        strangers = {fact.entry_id for fact in self.daily} - entries
        if strangers:
            raise ValueError("a daily fact names an entry that is not in the file")
        return self

    def as_of(self, date: dt.date) -> ClientFile:
        """The file with only what was known on ``date``."""
        return self.model_copy(
            update={
                "daily": tuple(fact for fact in self.daily if fact.date <= date),
                "ranges": tuple(m for m in self.ranges if m.date <= date),
                "body": tuple(m for m in self.body if m.date <= date),
                "responses": tuple(r for r in self.responses if r.date <= date),
                "tests": tuple(t for t in self.tests if t.date <= date),
                "seen": tuple(s for s in self.seen if s.date <= date),
            }
        )

    def latest_measure(self, quantity: BodyQuantity, date: dt.date) -> float | None:
        """What was measured last up to a date; ``None`` where nothing was."""
        known = [m for m in self.body if m.quantity == quantity and m.date <= date]
        return max(known, key=lambda m: m.date).value if known else None

    def latest_body(self, date: dt.date) -> Body:
        """Stature and weight last measured up to ``date``; ``InputError`` names what is missing."""
        latest: dict[str, float] = {}
        for measure in sorted((m for m in self.body if m.date <= date), key=lambda m: m.date):
            latest[measure.quantity] = measure.value
        if "stature" not in latest:
            raise InputError("body", "the stature is not known.", "Enter the stature under Measures.")
        # Weight changes no angle of a seated leg, only loads in newtons, which use it as a factor.
        return Body(latest["stature"], latest.get("weight", 70.0), pregnancy=self._pregnancy(date))

    def _pregnancy(self, date: dt.date) -> GrowingBelly | None:
        """How large the belly is to be taken on a date; ``None`` when nobody is pregnant. While the week or the number
        of babies is unknown it is taken as large as it may be: the rules then ask rather than stop."""
        for entry in self.entries:
            if isinstance(entry, Pregnancy) and (entry.facts.born_on is None or date < entry.facts.born_on):
                week = pregnancy_week(entry.facts, date)
                if week is None or week >= 0:
                    last = float(LAST_WEEK if week is None else min(week, LAST_WEEK))
                    return GrowingBelly(last, twins=entry.facts.babies != "one")
        return None

    def latest_ranges(self, date: dt.date) -> Ranges:
        """Ranges of motion last measured up to ``date``, the client's own hamstring coupling and groin
        pinch; the rest is the population's."""
        measured: dict[tuple[Quantity, Side], Range] = {}
        for m in sorted((m for m in self.ranges if m.date <= date), key=lambda m: m.date):
            error = m.error_deg if m.error_deg is not None else method_error_deg(m.method)
            measured[(m.quantity, m.side)] = Range(m.value_deg, error, measured=True)
        coupling = {}
        for side in SIDES:
            raised = measured.get((Quantity.STRAIGHT_LEG_RAISE, side))
            lack = measured.get((Quantity.NINETY_NINETY_LACK, side))
            if raised is not None and lack is not None:
                coupling[side] = coupling_from_ninety_ninety(raised.value_deg, lack.value_deg)
        pinch = {}
        for entry in self.entries:
            if isinstance(entry, GroinPinch) and entry.facts.straight_deg is not None:
                straight = entry.facts.straight_deg
                out = entry.facts.turned_out_deg
                pinch[entry.side] = PinchRange.measured(straight, out, entry.facts.turned_out_at_deg)
        tests: dict[tuple[str, Side], str] = {
            (test.test, test.side): test.result
            for test in sorted(self.tests, key=lambda t: t.date)
            if test.date <= date
        }
        seen: frozenset[tuple[str, Side]] = frozenset((each.bound, each.side) for each in self.seen if each.holds(date))
        return Ranges.from_measured(measured, coupling, pinch, tests, seen)

    def age_on(self, date: dt.date) -> int | None:
        """Whole years; ``None`` while the birth date is not known."""
        born = self.client.birth_date
        if born is None:
            return None
        return date.year - born.year - ((date.month, date.day) < (born.month, born.day))


PREGNANCY_DAYS = 280
LAST_WEEK = 42


def due_date(facts: PregnancyFacts) -> dt.date | None:
    """The due date, from whatever is known."""
    if facts.due_date is not None:
        return facts.due_date
    if facts.last_period is not None:
        return facts.last_period + dt.timedelta(days=PREGNANCY_DAYS)
    if facts.weeks_known is not None and facts.weeks_known_on is not None:
        return facts.weeks_known_on + dt.timedelta(days=PREGNANCY_DAYS - 7 * facts.weeks_known)
    return None


def pregnancy_week(facts: PregnancyFacts, date: dt.date) -> int | None:
    """Completed weeks of pregnancy on a date; ``None`` while no date is known."""
    due = due_date(facts)
    return None if due is None else (PREGNANCY_DAYS - (due - date).days) // 7


Model = TypeVar("Model", bound=BaseModel)

_REMEDIES = {
    "missing": "Give this field.",
    "extra_forbidden": "Remove it or correct its name.",
    "literal_error": "Use one of the values the schema lists.",
    "date_from_datetime_parsing": "Write dates as YYYY-MM-DD.",
}


def parse(model: type[Model], raw: Any) -> Model:
    """Check ``raw`` against ``model``; the first problem becomes an ``InputError`` with its path."""
    try:
        return TypeAdapter(model).validate_python(raw)
    except ValidationError as error:
        first = error.errors(include_input=False, include_url=False)[0]
        raise InputError(
            place_of(first["loc"]), first["msg"] + ".", _REMEDIES.get(first["type"], "Correct it as the schema says.")
        ) from error


def check_plausible(quantity: Quantity, value_deg: float) -> str | None:
    """Why a reading is refused, or ``None`` when it is plausible."""
    low, high = PLAUSIBLE_DEG[quantity]
    if low <= value_deg <= high:
        return None
    return f"This is outside {low:g}–{high:g}°, which hips and knees of adults stay within. Check the reading."
