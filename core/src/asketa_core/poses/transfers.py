"""Ways of getting onto and off a seat, from ``data/norms/transfers.yaml``."""

from __future__ import annotations

from functools import cache

from asketa_core.datafiles import DATA, Record, load
from asketa_core.units import Side


class Technique(Record):
    """One way of sitting down and standing up; lengths in cm, shares of body weight."""

    id: str
    lean_deg: float
    feet: dict[Side, float]
    carries: dict[Side, float]
    needs_arms: bool
    gentle: bool


class Transfers(Record):
    chair: tuple[Technique, ...]


@cache
def transfers() -> Transfers:
    return load(DATA / "norms" / "transfers.yaml", Transfers)
