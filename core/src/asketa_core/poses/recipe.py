"""The grammar of a recipe: where a pose rests, which set-up values vary, and what does the work.

The grammar is described for writers of pose files in ``data/poses/README.md``.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field, model_validator

from asketa_core.body.ranges import Quantity
from asketa_core.datafiles import Record
from asketa_core.props.kinds import PropKind
from asketa_core.units import Side

Position = Literal["chair", "standing", "floor_sitting", "kneeling", "lying", "side_lying"]
LYING: tuple[Position, ...] = ("lying", "side_lying")
"""Positions in which nothing presses the spine together."""

Flag = Literal[
    "standing",
    "floor",
    "lying",
    "supine",
    "prone",
    "quiet_hold",
    "crossed_ankle_over_knee",
    "crossed_knee_over_knee",
    "forced_knee",
    "resisted_abduction",
    "one_leg",
    "split_stance",
    "lunge",
    "pivot",
    "kneeling",
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
    "arms_overhead",
    "hands_loaded",
    "soft_seat",
    "seat_without_arms",
    "without_chair",
    "spine_loaded",
    "spine_unloaded",
    "not_upright_on_chair",
]
"""What a pose counts as: the closed list that limits may speak of. The last six are worked out by the engine."""

LessSupport = Literal["up", "down", "none"]


class ShareOfRange(Record):
    """A plain value given as per cent of a range of the worked side."""

    percent: float
    of: Quantity


class StackSlot(Record):
    type: Literal["stack"]
    label: str
    use: Literal["sitting", "limb"]
    base: Literal["chair", "floor"]
    kinds: tuple[PropKind, ...]
    faces: tuple[str, ...] | None = None
    max_layers: int = Field(ge=1, le=3)
    required: bool = False
    per_side: bool = False
    between_cm: tuple[float, float] | None = None
    apart_cm: float = Field(default=1.0, ge=0.25)
    plain: Literal["base_only", "first"] | float
    less_support: LessSupport


class NumberSlot(Record):
    type: Literal["distance", "angle"]
    label: str
    start: float = Field(alias="from")
    to: float
    step: float = Field(gt=0)
    plain: float | ShareOfRange
    less_support: LessSupport

    @property
    def unit(self) -> str:
        return "cm" if self.type == "distance" else "deg"


class ChoiceSlot(Record):
    type: Literal["choice"]
    label: str
    options: tuple[str, ...]
    plain: str
    less_support: LessSupport


Slot = Annotated[StackSlot | NumberSlot | ChoiceSlot, Field(discriminator="type")]
Value = float | str
"""A number, or the name of a slot that supplies it."""


def side_slot(name: str, side: Side) -> str:
    """The name of one side's own part of a slot that is set per side."""
    return f"{name}_{side.value}"


class PlantedLeg(Record):
    """The sole on a surface, the knee over the toes."""

    rule: Literal["planted"]
    rests_on: str
    ahead_of_level_cm: Value = 0.0

    def slots(self) -> Iterator[Value]:
        yield from (self.rests_on, self.ahead_of_level_cm)


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

    def slots(self) -> Iterator[Value]:
        yield from (self.rests_on, self.apart_deg)
        if self.knee_rests_on is not None:
            yield self.knee_rests_on


Leg = Annotated[PlantedLeg | DroppedLeg | LongLeg, Field(discriminator="rule")]


class Work(Record):
    """A quantity that does the work, and the range it is measured against; quantities that are a share
    of a range already name none."""

    quantity: Literal["hip_external_rotation", "hip_closing", "hip_abduction", "hamstring_used_percent"]
    range: Quantity | None = None

    @model_validator(mode="after")
    def shares_need_no_range(self) -> Work:
        if self.quantity.endswith("_percent") == (self.range is not None):
            raise ValueError("name a 'range', unless the quantity is itself a per cent of one")
        return self


class Flags(Record):
    worked: tuple[Flag, ...] = ()
    both: tuple[Flag, ...] = ()
    overall: tuple[Flag, ...] = ()


class LiftFoot(Record):
    """The pose with the worked foot still this much above its place."""

    lift_foot_cm: float = Field(gt=0)


class Hands(Record):
    """What the hands do: where they rest and the share of what is above that they carry."""

    on: Literal["thighs", "shins", "floor_behind", "chair_in_front", "beside"]
    carry: float = Field(default=0.0, ge=0, le=0.6)


class Recipe(Record):
    seat: str
    worked_leg: Leg | None = None
    other_leg: Leg | None = None
    both_legs: Leg | None = None
    lean_deg: Value = 0.0
    recline_deg: Value | None = None
    hands: Hands = Hands(on="thighs")
    head_rests: bool = False
    works: tuple[Work, ...] = Field(min_length=1)
    flags: Flags = Flags()
    shin_near_level_deg: float | None = None
    way: tuple[Literal["chair_transfer", "floor_transfer"] | LiftFoot, ...]

    @model_validator(mode="after")
    def two_legs(self) -> Recipe:
        single = (self.worked_leg is not None) + (self.other_leg is not None)
        if single not in (0, 2) or (single == 2) == (self.both_legs is not None):
            raise ValueError("give 'worked_leg' and 'other_leg', or 'both_legs'")
        return self

    @property
    def worked_rule(self) -> PlantedLeg | DroppedLeg | LongLeg:
        rule = self.both_legs if self.both_legs is not None else self.worked_leg
        assert rule is not None
        return rule

    @property
    def other_rule(self) -> PlantedLeg | DroppedLeg | LongLeg:
        rule = self.both_legs if self.both_legs is not None else self.other_leg
        assert rule is not None
        return rule

    def slots(self) -> Iterator[str]:
        """Every slot the recipe names."""
        named: list[Value | None] = [self.seat, self.lean_deg, self.recline_deg]
        named += [*self.worked_rule.slots(), *self.other_rule.slots()]
        for name in named:
            if isinstance(name, str) and name != "floor":
                yield name
