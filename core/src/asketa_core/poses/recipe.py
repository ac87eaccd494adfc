"""The grammar of a recipe: where a pose rests, which set-up values vary, and what does the work.

The grammar is described for writers of pose files in ``data/poses/README.md``.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import Annotated, Literal

from pydantic import Field, field_validator, model_validator

from asketa_core.body.ranges import Quantity
from asketa_core.datafiles import Record
from asketa_core.poses.posture import Readout
from asketa_core.props.kinds import PropKind, kinds
from asketa_core.props.stacks import SAME_HEIGHT_CM
from asketa_core.texts.catalogue import Choice, GateCode
from asketa_core.texts.phrases import NOTHING, Phrase
from asketa_core.texts.typed import LabelText
from asketa_core.units import Side

Position = Literal["chair", "standing", "floor_sitting", "kneeling", "lying", "side_lying"]
LYING: tuple[Position, ...] = ("lying", "side_lying")
"""Positions in which nothing presses the spine together."""

NamedFlag = Literal[
    "floor",
    "quiet_hold",
    "resisted_abduction",
    "one_leg",
    "split_stance",
    "lunge",
    "pivot",
    "closed_twist",
    "open_twist",
    "abdominal_curl",
    "neck_weight",
    "head_below_heart",
    "inversion",
    "deep_squat",
    "jump",
    "tipped_chair",
    "pressed_knee",
    "knees_apart",
    "presses_belly",
    "abdominal_load",
    "open_chain",
    "active_slide",
]
"""What a file says its pose counts as, because nothing in the geometry shows it."""

ImpliedFlag = Literal[
    "standing",
    "lying",
    "supine",
    "prone",
    "kneeling",
    "forced_knee",
    "crossed_ankle_over_knee",
    "crossed_knee_over_knee",
    "ankle_lies_over",
    "stands_alone",
    "knee_propped",
    "held_or_loaded",
    "beyond_easy_seat",
    "sits_on_floor",
    "lies_on",
    "repeated",
    "not_rising",
    "arms_overhead",
    "hands_loaded",
    "soft_seat",
    "seat_without_arms",
    "without_chair",
    "spine_loaded",
    "spine_unloaded",
    "trunk_free",
    "head_carried",
    "not_upright_on_chair",
    "hands_free",
]
"""What the engine works out itself: see ``poses/flags.py``."""

Flag = NamedFlag | ImpliedFlag
"""What a pose counts as: the closed list that limits may speak of."""

LessSupport = Literal["up", "down", "none"]

Wall = Literal["behind", "beside", "at_heel", "at_feet"]

PropPlace = Literal[
    "under_head", "between_knees", "between_feet", "outside_shin", "under_belly", "under_back_knee", "under_shins",
    "around_feet", "around_foot", "along_spine", "behind_back",
]  # fmt: skip
"""Where a prop lies whose height no joint angle depends on."""

Crosses = Literal["ankle", "knee"]
"""What of this leg lies across the other one."""


class ShareOfRange(Record):
    """A plain value given as per cent of a range of the worked side."""

    percent: float
    of: Quantity


class StackSlot(Record):
    type: Literal["stack"]
    label: LabelText
    names_place: bool = False
    """Its label says where the stack lies ('Under the knee') instead of naming the thing ('Seat')."""
    use: Literal["sitting", "straddle", "contact", "limb"]
    base: Literal["chair", "floor", "heels"]
    kinds: tuple[PropKind, ...]
    faces: tuple[str, ...] | None = None
    max_layers: int = Field(ge=1, le=3)
    required: bool = False
    includes: tuple[PropKind, ...] = ()
    """Props every one of its stacks has in it, named as often as there are of them: what a rung is named after."""
    per_side: bool = False
    twice: bool = False
    """Built once for each hand, alike."""
    between_cm: tuple[float, float] | None = None
    apart_cm: float = Field(default=SAME_HEIGHT_CM, ge=0.25, le=50)
    most_piled: int | None = Field(default=None, ge=1, le=4)
    """How many folded blankets may lie on each other, where it differs from the use's own."""
    plain: Literal["base_only", "first"] | float
    less_support: LessSupport
    try_both: bool = False
    """Bodies differ in which of two heights is calmer, whatever the limits say: both are tried on the mat."""

    @field_validator("faces")
    @classmethod
    def faces_there_are(cls, faces: tuple[str, ...] | None) -> tuple[str, ...] | None:
        there = {face for kind in kinds().values() for face in kind.faces}
        if unknown := sorted(set(faces or ()) - there):
            raise ValueError(f"no prop has the face '{unknown[0]}'; there are {', '.join(sorted(there))}")
        return faces


class NumberSlot(Record):
    type: Literal["distance", "angle"]
    label: LabelText
    start: float = Field(alias="from", ge=-360, le=360)
    to: float = Field(ge=-360, le=360)
    step: float = Field(ge=0.5, le=360)
    plain: float | ShareOfRange
    less_support: LessSupport
    try_both: bool = False
    """As in ``StackSlot``."""
    low_means: LabelText | None = None
    """What the lowest value is, where a figure says little: 'pelvis level'."""
    high_means: LabelText | None = None

    def meaning(self, value: float) -> Phrase:
        """What a value at an end of the slot is; nothing between."""
        return (self.low_means if value == self.start else self.high_means if value == self.to else None) or NOTHING

    @property
    def unit(self) -> str:
        return "cm" if self.type == "distance" else "deg"


class ChoiceSlot(Record):
    type: Literal["choice"]
    label: LabelText
    options: Annotated[tuple[Choice, ...], Field(min_length=1, max_length=20)]
    plain: Choice
    less_support: LessSupport
    try_both: bool = False
    """As in ``StackSlot``."""


Place = Literal["floor", "bed", "plinth"]
PLACES: tuple[Place, ...] = ("floor", "bed", "plinth")


class PlaceSlot(Record):
    """Where a lying shape lies. Heights inside the shape are measured from there; how one gets there, and whether it
    is floor work, follow from the place."""

    type: Literal["place"]
    label: LabelText
    options: Annotated[tuple[Place, ...], Field(min_length=1)] = PLACES
    plain: Place = "floor"
    less_support: LessSupport = "none"


Slot = Annotated[StackSlot | NumberSlot | ChoiceSlot | PlaceSlot, Field(discriminator="type")]


class Scaled(Record):
    """A slot's number times a factor, plus a constant or another slot's number."""

    slot: str
    times: float = 1.0
    plus: float | str = 0.0


Value = float | str | Scaled
"""A number, the name of a slot that supplies it, or such a slot scaled."""


def side_slot(name: str, side: Side) -> str:
    """The name of one side's own part of a slot that is set per side."""
    return f"{name}_{side.value}"


class PlantedLeg(Record):
    """The sole on a surface, the knee over the toes; both turned out to their side by ``apart_deg``."""

    rule: Literal["planted"]
    rests_on: str
    ahead_of_level_cm: Value = 0.0
    apart_deg: Value = 0.0

    def slots(self) -> Iterator[Value]:
        yield from (self.rests_on, self.ahead_of_level_cm, self.apart_deg)


class DroppedLeg(Record):
    """The ankle held in front, the knee let out sideways until something stops it."""

    rule: Literal["dropped"]
    rests_on: str | None = None
    ahead: Value | None = None
    across: float | None = Field(default=None, ge=0, le=4)
    soles_together: bool = False
    over_thigh: float | None = Field(default=None, gt=0, le=1)
    let_out_deg: Value | None = None
    knee_rests_on: str | None = None
    rests_at: float = Field(default=1.0, gt=0.2, le=1)

    def slots(self) -> Iterator[Value]:
        for value in (self.rests_on, self.ahead, self.let_out_deg, self.knee_rests_on):
            if value is not None:
                yield value

    @model_validator(mode="after")
    def foot_has_one_place(self) -> DroppedLeg:
        placed = self.soles_together or self.across is not None
        on_prop = self.rests_on is not None and self.ahead is not None and placed
        if on_prop == (self.over_thigh is not None):
            raise ValueError("give either 'rests_on', 'ahead' and 'across' or 'soles_together', or 'over_thigh'")
        return self


class LongLeg(Record):
    """The leg long in front, toes up: straight, or bent over what lies under the knee."""

    rule: Literal["long"]
    rests_on: str = "floor"
    knee_rests_on: str | None = None
    apart_deg: Value = 0.0
    bend_deg: Value = 0.0
    """How far the knee is bent where nothing lies under it, so that the pelvis tips before the leg lengthens."""

    def slots(self) -> Iterator[Value]:
        yield from (self.rests_on, self.apart_deg, self.bend_deg)
        if self.knee_rests_on is not None:
            yield self.knee_rests_on


class StandingLeg(Record):
    """The sole on the ground below the hip; where exactly follows from the base."""

    rule: Literal["standing"]

    def slots(self) -> Iterator[Value]:
        yield from ()


class GroundLeg(Record):
    """The sole on a surface this far ahead of the hips, the knee up: lying or sitting with bent knees."""

    rule: Literal["ground"]
    rests_on: str = "floor"
    ahead: Value
    apart_cm: Value = 0.0

    def slots(self) -> Iterator[Value]:
        yield from (self.rests_on, self.ahead, self.apart_cm)


class FreeLeg(Record):
    """The leg held by its joints: hip angles against the pelvis and the bend of the knee."""

    rule: Literal["free"]
    flexion: Value = 0.0
    abduction: Value = 0.0
    rotation: Value = 0.0
    knee: Value = 0.0
    wall_cm: Value | None = None
    """Lying: the hip bends as much as the sole on a wall this far away asks, whose shin is level."""
    sole_on_wall: bool = False
    """Whether it is this leg's sole: its knee bends as much."""
    pointed: bool = False
    """The foot in line with the shin."""
    crosses: Crosses | None = None
    rests_on: str | None = None
    """What is drawn under the lower leg where it rests on something."""

    def slots(self) -> Iterator[Value]:
        yield from (self.flexion, self.abduction, self.rotation, self.knee)
        for value in (self.rests_on, self.wall_cm):
            if value is not None:
                yield value


class ForcedLeg(Record):
    """Knee and ankle of a bent, turned-out leg both rest: what the hip does not give goes to the knee.

    ``thigh_out`` is the thigh's angle from straight ahead, ``shin`` the angle of the shin on the mat
    (90 = parallel to its front edge).
    """

    rule: Literal["forced"]
    thigh_out: Value
    shin: Value
    knee_rests_on: str | None = None
    ankle_rests_on: str | None = None
    crosses: Crosses | None = None
    ankle_up_cm: float = 0.0
    """How much higher than that the ankle lies, on the other thigh for instance."""
    stacked: bool = False
    """Shin upon shin: the ankle lies over the other knee, the knee over the other ankle."""

    def slots(self) -> Iterator[Value]:
        yield from (self.thigh_out, self.shin)
        for name in (self.knee_rests_on, self.ankle_rests_on):
            if name is not None:
                yield name


class KneelingLeg(Record):
    """The knee on its padding, the shin along the floor behind; how far the thigh leans follows from the base."""

    rule: Literal["kneeling"]

    def slots(self) -> Iterator[Value]:
        yield from ()


class FoldedLeg(Record):
    """Sitting between or on the heels: the shin under the thigh along the floor."""

    rule: Literal["folded"]
    apart_deg: Value = 0.0
    behind_knee: str | None = None
    """What lies in the hollow of the knee and keeps it from closing."""

    def slots(self) -> Iterator[Value]:
        yield self.apart_deg
        if self.behind_knee is not None:
            yield self.behind_knee


class TurnedInLeg(Record):
    """Knee and ankle on the floor, the thigh out to its side and the shin back: the hip turns in."""

    rule: Literal["turned_in"]
    thigh_out: Value
    shin_back: Value = 0.0
    """The shin's angle from straight behind, outward."""

    def slots(self) -> Iterator[Value]:
        yield from (self.thigh_out, self.shin_back)


class StrideLeg(Record):
    """One leg of a long stance: in front with the shin upright, or behind and straight, or on its knee."""

    rule: Literal["front", "behind", "knee_behind"]
    plan_deg: Value = 0.0
    straight: bool = False
    heel_lifted: bool = False
    shin_lifted: bool = False
    knee_deg: Value = 0.0
    """How far a leg behind is bent, its heel then off the floor."""
    toes_out_deg: float = Field(default=30.0, ge=0, le=90)
    """How far the foot of a leg behind turns out: more in a long stance, not at all in a short step (judgement)."""

    def slots(self) -> Iterator[Value]:
        yield from (self.plan_deg, self.knee_deg)


LegRule = (
    PlantedLeg
    | DroppedLeg
    | LongLeg
    | StandingLeg
    | GroundLeg
    | FreeLeg
    | ForcedLeg
    | KneelingLeg
    | FoldedLeg
    | TurnedInLeg
    | StrideLeg
)
Leg = Annotated[LegRule, Field(discriminator="rule")]


class SitBase(Record):
    """The pelvis on a stack, a chair or the floor; lying, the floor or a bed."""

    rule: Literal["sit"]
    rests_on: str
    raised_cm: Value = 0.0
    """Lying: how high the pelvis is lifted off the floor, shoulders staying down."""

    def slots(self) -> Iterator[Value]:
        yield from (self.rests_on, self.raised_cm)


class StandBase(Record):
    """Standing: hips by the bend of the knees, by a height, or as deep as the ankles allow.

    ``balance`` says what puts the body's weight over the middle of the feet: moving the hips back
    under a given lean, or leaning over hips of a given height; ``held`` when hands or a wall do it.
    """

    rule: Literal["stand"]
    knee_deg: Value | None = None
    hips_on: Value | None = None
    balance: Literal["hips", "lean", "held"] = "hips"
    ankle_x_cm: Value = 0.0
    """Held: where the ankles are against the hips, forward positive."""
    apart_cm: Value = 0.0
    toes_out_deg: Value = 0.0
    heels_on: str | None = None
    shins_deg: Value | None = None
    """Leaning: the shins come forward by so much at most, and never further than the ankles allow."""
    one_leg: bool = False
    heels_free: bool = False
    """The heels may leave the floor: the ankles ask for nothing."""
    steps_up: bool = False
    """The worked leg is about to lift the body alone."""
    seat_carries: float = Field(default=0.0, ge=0, le=0.8)
    """Share of body weight a seat still carries, until it is left."""

    @property
    def seat_slot(self) -> str | None:
        """The slot of what the hips are taken to or lifted from."""
        return self.hips_on.slot if isinstance(self.hips_on, Scaled) else str(self.hips_on or "") or None

    def slots(self) -> Iterator[Value]:
        yield from (self.apart_cm, self.toes_out_deg, self.ankle_x_cm)
        for value in (self.knee_deg, self.hips_on, self.heels_on, self.shins_deg):
            if value is not None:
                yield value

    @model_validator(mode="after")
    def hips_have_one_height(self) -> StandBase:
        if (self.knee_deg is None) == (self.hips_on is None):
            raise ValueError("give 'knee_deg' or 'hips_on'")
        return self


class StrideBase(Record):
    """A long stance: hips by the slope of the front thigh, by what the thigh rests on, or by its length."""

    rule: Literal["stride"]
    thigh_down_deg: Value | None = None
    thigh_on: str | None = None
    stance_cm: Value | None = None
    back_knee_down: bool = False
    pad: str | None = None

    def slots(self) -> Iterator[Value]:
        for value in (self.thigh_down_deg, self.thigh_on, self.stance_cm, self.pad):
            if value is not None:
                yield value

    @model_validator(mode="after")
    def hips_have_one_height(self) -> StrideBase:
        if sum(v is not None for v in (self.thigh_down_deg, self.thigh_on, self.stance_cm)) != 1:
            raise ValueError("give one of 'thigh_down_deg', 'thigh_on' and 'stance_cm'")
        return self


class KneelBase(Record):
    """Hips above the knees, the thigh leaning forward by this much."""

    rule: Literal["kneel"]
    pad: str = "floor"
    thigh_forward_deg: Value = 0.0

    def slots(self) -> Iterator[Value]:
        yield from (self.pad, self.thigh_forward_deg)


Base = Annotated[SitBase | StandBase | StrideBase | KneelBase, Field(discriminator="rule")]


class Work(Record):
    """A quantity that does the work, and the range it is measured against; quantities that are a share
    of a range already name none. ``effort`` is for strength and rest, which use no range: the purpose
    then counts as kept wherever the pose is allowed."""

    quantity: Literal[
        "hip_external_rotation", "hip_closing", "hip_abduction", "hip_extension", "hamstring_used_percent",
        "knee_flexion", "spine_rotation", "side_bend", "effort",
    ]  # fmt: skip
    range: Quantity | None = None
    leg: Literal["worked", "other"] = "worked"
    of_deg: float | None = Field(default=None, gt=0)
    """A fixed range for what is not measured on the client (turning, side bending)."""

    @model_validator(mode="after")
    def ranges_where_they_belong(self) -> Work:
        own = self.quantity.endswith("_percent") or self.quantity == "effort"
        given = (self.range is not None) + (self.of_deg is not None)
        if own == (given == 1) or given > 1:
            raise ValueError("name a 'range' or 'of_deg', unless the quantity is itself a share or an effort")
        return self


class Aim(Record):
    """Something a rung's name promises, read at the middle of the client's ranges: a set-up that misses it is another
    shape. ``legs`` says on which legs it must hold; for the trunk either does."""

    quantity: Readout
    at_least: float | None = None
    at_most: float | None = None
    legs: Literal["worked", "other", "both"] = "both"

    @model_validator(mode="after")
    def some_end(self) -> Aim:
        if self.at_least is None and self.at_most is None:
            raise ValueError("give 'at_least' or 'at_most'")
        return self


class Flags(Record):
    worked: tuple[NamedFlag, ...] = ()
    other: tuple[NamedFlag, ...] = ()
    both: tuple[NamedFlag, ...] = ()
    overall: tuple[NamedFlag, ...] = ()


class Gate(Record):
    """A test to pass before the pose is offered: a range of the leg, or something only seen on the spot."""

    code: GateCode
    range: Quantity | None = None
    at_least: float | None = Field(default=None, gt=0)
    legs: Literal["worked", "both"] = "worked"

    @model_validator(mode="after")
    def range_with_its_figure(self) -> Gate:
        if (self.range is None) != (self.at_least is None):
            raise ValueError("give 'range' and 'at_least' together, or neither")
        return self


class LiftFoot(Record):
    """The pose with the worked foot still this much above its place."""

    lift_foot_cm: float = Field(gt=0)


class Hands(Record):
    """What the hands do: where they rest and the share of what is above that they carry."""

    on: Literal[
        "thighs", "shins", "floor_behind", "chair_in_front", "chair_back_in_front", "chair_beside", "beside", "hips",
        "wall", "forward", "overhead", "floor_in_front", "blocks_in_front", "under_thigh", "back_rest", "out",
        "side_chair", "thigh_chair", "side_leg", "seat_in_front", "by_raised_foot", "forearms", "side_block",
    ]  # fmt: skip
    carry: float = Field(default=0.0, ge=0, le=0.6)
    raised_deg: float = Field(default=30.0, ge=0, le=180)
    """How far the arms are raised against the trunk."""


class Shares(Record):
    """Shares of body weight that go through each leg, where the shape says more than a lever does: worked and other, or
    each of both."""

    worked: float = Field(ge=0, le=1)
    other: float = Field(ge=0, le=1)

    def of(self, worked: bool) -> float:
        return self.worked if worked else self.other


class Recipe(Record):
    """Where the pose rests (``seat`` is short for sitting on it), its legs, its trunk, and what it passes.

    Lean: degrees, or as deep as what is carried comes to lie on its support: hands hanging straight down (``hands``) or
    reaching on in line with the trunk (``reach``), the forearms, or the chest. A base that balances by leaning works its
    lean out itself.
    """

    seat: str | None = None
    base: Base | None = None
    worked_leg: Leg | None = None
    other_leg: Leg | None = None
    both_legs: Leg | None = None
    lean_deg: Value = 0.0
    lean: Literal["given", "hands", "reach", "forearms", "chest"] = "given"
    recline_deg: Value | None = None
    roll_deg: Value = 0.0
    """The pelvis rolled toward the worked side, that side lower."""
    turn_deg: Value = 0.0
    """The trunk turned toward the worked side."""
    pelvis_follows: Literal["still", "hand", "lever"] = "still"
    """Whether the pelvis follows a turn: by a fifth with a hand on a back-rest, by a third levered on one."""
    side_bend_deg: Value = 0.0
    hollow_deg: float = Field(default=0.0, ge=0, le=30)
    """How far the back hollows by its own strength, whatever the hips give."""
    hands_on: str | None = None
    """The stack under the hands or forearms, where they reach down to one."""
    chest_on: str | None = None
    """The stack under the chest, or ``thighs``."""
    head_on: str | None = None
    """The stack or floor under the forehead of a body that leans forward."""
    props: dict[PropPlace, str] = {}
    """What lies at the body besides, by its place."""
    hands: Hands = Hands(on="thighs")
    rising: bool = False
    """Rising from the seat is the pose: it is judged at the moment the seat is left, by its own technique."""
    shares: Shares | None = None
    walls: tuple[Wall, ...] = ()
    """Free walls besides one the hands use."""
    head_rests: bool = False
    heels_raised: bool = False
    """Drawn at the top of the rise: the numbers are those of standing."""
    works: tuple[Work, ...] = Field(min_length=1, max_length=8)
    aims: tuple[Aim, ...] = Field(default=(), max_length=8)
    flags: Flags = Flags()
    shin_near_level_deg: float | None = None
    way: tuple[Literal["chair_transfer", "floor_transfer"] | LiftFoot, ...] = ()

    @model_validator(mode="after")
    def two_legs_on_one_base(self) -> Recipe:
        single = (self.worked_leg is not None) + (self.other_leg is not None)
        if single not in (0, 2) or (single == 2) == (self.both_legs is not None):
            raise ValueError("give 'worked_leg' and 'other_leg', or 'both_legs'")
        if (self.seat is None) == (self.base is None):
            raise ValueError("give 'seat' or 'base'")
        return self

    @model_validator(mode="after")
    def one_leg_is_said(self) -> Recipe:
        if isinstance(self.base, StandBase) and self.base.one_leg and "one_leg" not in self.flags.overall:
            raise ValueError("one leg carries: name 'one_leg' among the flags, overall")
        return self

    @model_validator(mode="after")
    def rising_says_its_technique(self) -> Recipe:
        if self.rising and (self.seat is None or self.shares is None):
            raise ValueError("rising is a technique: give the 'seat' that is left and the 'shares' of both legs")
        return self

    @model_validator(mode="after")
    def what_is_carried_has_a_support(self) -> Recipe:
        if (self.lean == "chest") != (self.chest_on is not None):
            raise ValueError("the chest rests on something: give 'lean: chest' and 'chest_on' together")
        if self.lean == "forearms" and self.hands_on is None:
            raise ValueError("the forearms rest on something: give 'hands_on'")
        return self

    @property
    def stands_on(self) -> SitBase | StandBase | StrideBase | KneelBase:
        if self.base is not None:
            return self.base
        assert self.seat is not None
        return SitBase(rule="sit", rests_on=self.seat)

    @property
    def seat_slot(self) -> str | None:
        """The slot or floor the pelvis rests on; ``None`` where it rests on nothing."""
        base = self.stands_on
        return base.rests_on if isinstance(base, SitBase) else None

    @property
    def worked_rule(self) -> LegRule:
        rule = self.both_legs if self.both_legs is not None else self.worked_leg
        assert rule is not None
        return rule

    @property
    def other_rule(self) -> LegRule:
        rule = self.both_legs if self.both_legs is not None else self.other_leg
        assert rule is not None
        return rule

    def base_values(self) -> Iterator[Value]:
        """What the pelvis and trunk depend on."""
        yield from self.stands_on.slots()
        yield from (self.lean_deg, self.roll_deg, self.turn_deg, self.side_bend_deg)
        for value in (self.recline_deg, self.hands_on, self.chest_on):
            if value is not None and value != "thighs":
                yield value

    def slots(self) -> Iterator[str]:
        """Every slot the recipe names."""
        yield from self.shaping_slots()
        yield from self.props.values()

    def shaping_slots(self) -> Iterator[str]:
        """The slots a joint angle or a bound depends on."""
        head = () if self.head_on is None else (self.head_on,)
        yield from slot_names([*self.base_values(), *self.worked_rule.slots(), *self.other_rule.slots(), *head])

    @property
    def helping_chair(self) -> bool:
        """Whether the hands use a chair of its own."""
        return self.hands.on in CHAIR_HELPS


CHAIR_HELPS = frozenset({"chair_in_front", "chair_back_in_front", "chair_beside", "side_chair"})
"""What hands rest on or hold that is a chair nobody sits on."""

PELVIS_FOLLOWS = {"still": 0.0, "hand": 1 / 5, "lever": 1 / 3}
"""Part of a turn that the pelvis makes, and both hips with it (judgement)."""


def slot_names(values: Iterable[Value]) -> Iterator[str]:
    """The slots among some values."""
    for value in values:
        if isinstance(value, Scaled):
            yield from slot_names([value.slot, value.plus])
        elif isinstance(value, str) and value != "floor":
            yield value
