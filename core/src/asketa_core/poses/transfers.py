"""Ways of getting onto and off a seat or the floor, from ``data/norms/transfers.yaml``."""

from __future__ import annotations

from functools import cache

from asketa_core.datafiles import DATA, Record, load
from asketa_core.texts import Technique as TechniqueCode
from asketa_core.units import Side


class Technique(Record):
    """One way of sitting down and standing up; lengths in cm, shares of body weight."""

    id: TechniqueCode
    lean_deg: float
    feet: dict[Side, float]
    carries: dict[Side, float]
    needs_arms: bool
    gentle: bool


class FloorTechnique(Record):
    """One way to the floor and up again, judged at its hardest moment: half kneeling on ``knee_down``."""

    id: TechniqueCode
    knee_down: Side
    foot_ahead_cm: float
    lean_deg: float
    carries: dict[Side, float]
    chair: bool


class Transfers(Record):
    chair: tuple[Technique, ...]
    floor: tuple[FloorTechnique, ...]


@cache
def transfers() -> Transfers:
    return load(DATA / "norms" / "transfers.yaml", Transfers)
