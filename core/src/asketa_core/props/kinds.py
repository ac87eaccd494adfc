"""Prop kinds and a room's stock."""

from __future__ import annotations

from functools import cache, cached_property
from typing import Literal, get_args

from pydantic import Field, model_validator

from asketa_core.datafiles import DATA, Record, load

PropKind = Literal[
    "block", "slim_block", "bolster", "round_bolster", "cushion", "towel_roll", "blanket", "pillow",
    "strap", "stick", "chair",
    "bed", "plinth",
]  # fmt: skip
FURNITURE: tuple[PropKind, ...] = ("chair", "bed", "plinth")
"""What has a seat of its own height."""


class Keeps(Record):
    """Share of its height a prop keeps, by what rests on it."""

    sitting: float = Field(gt=0, le=1)
    limb: float = Field(gt=0, le=1)


class Face(Record):
    height_cm: float = Field(gt=0)
    footprint_cm: tuple[float, float]
    upright: bool = False


class ChairSize(Record):
    height_cm: float = Field(ge=20, le=90)
    depth_cm: float
    width_cm: float
    back_top_cm: float
    back: Literal["open", "solid", "none"]
    arms: bool


class Kind(Record):
    rigid: bool
    firm: bool
    drapes: bool = False
    keeps: Keeps
    faces: dict[str, Face] = {}
    layer_cm: float | None = None
    layers: dict[int, tuple[float, float]] = {}
    seat: ChairSize | None = None
    usual: int = Field(default=0, ge=0)
    """How many are taken to be at hand where a room says nothing about this kind."""


@cache
def kinds() -> dict[str, Kind]:
    """Every kind of ``data/props/kinds.yaml``."""
    return load(DATA / "props" / "kinds.yaml", dict[str, Kind])


class Prop(Record):
    """One line of a room's stock: a kind, how many, and what differs from the generic size."""

    id: str = Field(min_length=1, max_length=60)
    kind: PropKind
    count: int = Field(ge=0, le=200)
    name: str = Field(default="", max_length=80)
    layer_cm: float | None = Field(default=None, ge=0.2, le=3)
    seat_height_cm: float | None = Field(default=None, ge=20, le=90)
    arms: bool | None = None
    back: Literal["open", "solid", "none"] | None = None

    @model_validator(mode="after")
    def only_what_fits_the_kind(self) -> Prop:
        if self.kind not in FURNITURE and self.seat_height_cm is not None:
            raise ValueError("a seat height belongs to chairs, beds and plinths only")
        if self.kind != "chair" and (self.arms, self.back) != (None, None):
            raise ValueError("arms and back belong to chairs only")
        if self.kind != "blanket" and self.layer_cm is not None:
            raise ValueError("layer thickness belongs to blankets only")
        return self

    @property
    def chair(self) -> ChairSize:
        """Size of this chair, bed or plinth with the room's own figures in place of the generic ones."""
        generic = kinds()[self.kind].seat
        assert generic is not None
        own: dict[str, object] = {}
        if self.seat_height_cm is not None:
            own["height_cm"] = self.seat_height_cm
            own["back_top_cm"] = generic.back_top_cm + self.seat_height_cm - generic.height_cm
        if self.arms is not None:
            own["arms"] = self.arms
        if self.back is not None:
            own["back"] = self.back
        return generic.model_copy(update=own)


class Room(Record):
    """What a room has free."""

    props: tuple[Prop, ...]

    @model_validator(mode="after")
    def ids_once(self) -> Room:
        ids = [prop.id for prop in self.props]
        if len(ids) != len(set(ids)):
            raise ValueError("two props share an id")
        return self

    @cached_property
    def stock(self) -> tuple[Prop, ...]:
        """What the room lists, and what is at hand anywhere unless the room says how many it has."""
        named = {prop.kind for prop in self.props}
        unsaid = [kind for kind in get_args(PropKind) if kind not in named]
        usual = [Prop(id=kind, kind=kind, count=kinds()[kind].usual) for kind in unsaid if kinds()[kind].usual]
        return (*self.props, *usual)

    @property
    def places(self) -> dict[str, float]:
        """Where one can lie here, with its height in cm: the floor, a bed unless the room says that there is none, and a
        plinth where there is one. Of several the one nearest the usual height counts."""
        found = {"floor": 0.0}
        for place in ("bed", "plinth"):
            usual = kinds()[place].seat
            assert usual is not None
            named = [prop for prop in self.props if prop.kind == place]
            heights = [prop.chair.height_cm for prop in named if prop.count > 0]
            if place == "bed" and not named:
                heights = [usual.height_cm]
            if heights:
                found[place] = min(heights, key=lambda cm: abs(cm - usual.height_cm))
        return found


@cache
def generic_room() -> Room:
    """A well-stocked room of generic props, from ``data/props/room.yaml``."""
    return load(DATA / "props" / "room.yaml", Room)
