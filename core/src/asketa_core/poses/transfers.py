"""Ways of getting onto and off a seat or the floor, from ``data/norms/transfers.yaml``."""

from __future__ import annotations

from functools import cache
from typing import Literal

from pydantic import Field, model_validator

from asketa_core.datafiles import DATA, Record, load
from asketa_core.props.kinds import PropKind
from asketa_core.texts.catalogue import Technique as TechniqueCode
from asketa_core.units import Side


class Technique(Record):
    """One way of sitting down and standing up; lengths in cm, shares of body weight."""

    id: TechniqueCode
    lean_deg: float
    feet: dict[Side, float]
    carries: dict[Side, float]
    needs_arms: bool
    gentle: bool


class Station(Record):
    """One moment on the way to the floor: how the body is, what it leans and where its weight goes. ``hands`` is the share
    of what is above that they carry, ``seat_cm`` where the sit bones are."""

    posture: Literal["half_kneeling", "kneeling", "low_sitting", "floor_sitting"]
    knee_down: Side | None = None
    seat_cm: float = 0.0
    feet_ahead_cm: dict[Side, float] = {}
    lean_deg: float
    hands: float = 0.0
    carries: dict[Side, float]

    @model_validator(mode="after")
    def one_knee_is_named(self) -> Station:
        if (self.posture == "half_kneeling") != (self.knee_down is not None):
            raise ValueError("half kneeling, and nothing else, names the knee that is down")
        return self


class FloorWay(Record):
    """One way to the floor and up again, screened at each of its stations. ``needs`` is what the room must have."""

    id: TechniqueCode
    chair: bool
    needs: tuple[PropKind, ...] = ()
    stations: tuple[Station, ...] = Field(min_length=1)


class Transfers(Record):
    chair: tuple[Technique, ...]
    floor: tuple[FloorWay, ...]


@cache
def transfers() -> Transfers:
    return load(DATA / "norms" / "transfers.yaml", Transfers)
