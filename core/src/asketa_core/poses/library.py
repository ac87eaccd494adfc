"""The pose library: families and their rungs, read from ``data/poses`` and checked.

The grammar of the files is described in ``data/poses/README.md``.
"""

from __future__ import annotations

from collections.abc import Iterator
from functools import cache
from pathlib import Path
from typing import Annotated, Any, Literal

from pydantic import Field, TypeAdapter, ValidationError, model_validator

from asketa_core.body.ranges import Quantity
from asketa_core.datafiles import DATA, Record, place_of, read_yaml
from asketa_core.errors import DataError, InputError
from asketa_core.props.kinds import PropKind

POSES = DATA / "poses"

Flag = Literal[
    "standing",
    "floor",
    "lying",
    "crossed_ankle_over_knee",
    "crossed_knee_over_knee",
    "resisted_abduction",
    "one_leg",
    "lunge",
    "pivot",
    "kneeling",
    "soft_seat",
    "seat_without_arms",
]
"""What a pose counts as: the closed list that limits may speak of."""

LessSupport = Literal["up", "down", "none"]


class Names(Record):
    en: str
    sa: str | None = None


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
    plain: Literal["base_only", "first"]
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


class PlantedLeg(Record):
    rule: Literal["planted"]
    rests_on: str
    ahead_of_level_cm: Value


class DroppedLeg(Record):
    rule: Literal["dropped"]
    rests_on: str | None = None
    ahead: Value | None = None
    across: float | None = Field(default=None, ge=0, le=1)
    over_thigh: float | None = Field(default=None, gt=0, le=1)
    let_out_deg: Value

    @model_validator(mode="after")
    def foot_has_one_place(self) -> DroppedLeg:
        on_prop = self.rests_on is not None and self.ahead is not None and self.across is not None
        if on_prop == (self.over_thigh is not None):
            raise ValueError("give either 'rests_on', 'ahead' and 'across', or 'over_thigh'")
        return self


Leg = Annotated[PlantedLeg | DroppedLeg, Field(discriminator="rule")]


class Work(Record):
    """A quantity that does the work, and the range it is measured against."""

    quantity: Literal["hip_external_rotation", "hip_closing", "hip_abduction"]
    range: Quantity


class Flags(Record):
    worked: tuple[Flag, ...] = ()
    overall: tuple[Flag, ...] = ()


class LiftFoot(Record):
    """The pose with the worked foot still this much above its place."""

    lift_foot_cm: float = Field(gt=0)


class Recipe(Record):
    seat: str
    worked_leg: Leg
    other_leg: Leg
    lean_deg: Value
    works: tuple[Work, ...] = Field(min_length=1)
    flags: Flags = Flags()
    shin_near_level_deg: float | None = None
    way: tuple[Literal["chair_transfer"] | LiftFoot, ...]


class Hold(Record):
    style: Literal["seconds"]
    start: int = Field(alias="from")
    to: int
    step: int


class Variation(Record):
    id: str
    family: str
    name: Names
    short: str
    position: Literal["chair"]
    slots: dict[str, Slot]
    recipe: Recipe
    hold: Hold
    cues: tuple[str, ...]
    watch: tuple[str, ...]
    counter: tuple[Literal["sit_quiet"], ...]
    step_back: str | None = None
    step_forward: str | None = None

    @model_validator(mode="after")
    def slots_are_known(self) -> Variation:
        recipe = self.recipe
        named: list[Value | None] = [recipe.seat, recipe.lean_deg]
        for leg in (recipe.worked_leg, recipe.other_leg):
            named += [leg.rests_on, leg.ahead_of_level_cm if isinstance(leg, PlantedLeg) else leg.ahead]
            named += [] if isinstance(leg, PlantedLeg) else [leg.let_out_deg]
        for name in named:
            if isinstance(name, str) and name != "floor" and name not in self.slots:
                raise ValueError(f"the recipe names slot '{name}', which this variation does not have")
        return self


class Family(Record):
    family: str
    name: Names
    about: str
    purposes: tuple[str, ...]
    side_means: Literal["worked_leg", "front_leg", "turn_toward", "none"]
    position: Literal["chair"]
    slots: dict[str, Slot]
    variations: tuple[Variation, ...] = Field(min_length=1)


def parse_family(raw: Any, file_name: str) -> Family:
    """Check one family file's content; ``DataError`` names file, variation and field."""
    try:
        family_id = raw["family"]
        shared = raw["slots"]
        rungs = [
            {
                **rung,
                "id": f"{family_id}.{rung['id']}",
                "family": family_id,
                "position": raw["position"],
                "slots": {**shared, **rung.get("slots", {})},
            }
            for rung in raw["variations"]
        ]
    except (KeyError, TypeError) as error:
        raise DataError(file_name, "(top level)", f"missing or malformed: {error}") from error
    body = {key: value for key, value in raw.items() if key != "defaults"}
    try:
        return Family.model_validate({**body, "variations": rungs})
    except ValidationError as error:
        first = error.errors()[0]
        where = first["loc"]
        place = place_of(where)
        if len(where) > 1 and where[0] == "variations" and isinstance(where[1], int):
            place = f"variation {rungs[where[1]]['id']}, {place_of(where[2:])}"
        raise DataError(file_name, place, first["msg"]) from error


def read_family(path: Path) -> Family:
    return parse_family(read_yaml(path), path.name)


@cache
def families() -> dict[str, Family]:
    """Every family by id, steps checked."""
    found = {family.family: family for family in map(read_family, sorted(POSES.glob("*.yaml")))}
    ids = {variation.id for family in found.values() for variation in family.variations}
    for family in found.values():
        for variation in family.variations:
            for target in (variation.step_back, variation.step_forward):
                if target is not None and target not in ids:
                    raise DataError(f"{family.family}.yaml", variation.id, f"steps to unknown '{target}'")
    return found


def variations() -> Iterator[Variation]:
    for family in families().values():
        yield from family.variations


def variation(variation_id: str) -> Variation:
    """One variation by its full id ``family.rung``; ``InputError`` when there is none."""
    for candidate in variations():
        if candidate.id == variation_id:
            return candidate
    raise InputError("variation", "no variation has this id.", "Ask `library` for the list.")


def family_schema() -> dict[str, Any]:
    return TypeAdapter(Family).json_schema()
