"""Made-up poses of a session, with as much of them as its minutes and order depend on."""

from __future__ import annotations

from typing import Any

from asketa_core import Level, Part, Pose, Side, Strain
from asketa_core.poses.library import Hold, Stage
from asketa_core.texts.phrases import Own

MINUTE = Hold.model_validate({"style": "seconds", "from": 60, "to": 60, "step": 1})

KNEES = (Strain.KNEE_LEFT, Strain.KNEE_RIGHT)


def part(level: Level = Level.SEATED, dose_s: int = 60, rounds: int = 1, hold: Hold = MINUTE, **more: Any) -> Part:
    return Part(hold, dose_s, rounds, level, more.pop("props", {}), frozenset(more.pop("strains", ())), **more)


def pose(
    family: str = "sit",
    level: Level = Level.SEATED,
    stage: Stage = "work",
    counters: tuple[str, ...] = (),
    fixed: bool = False,
    **more: Any,
) -> Pose:
    """A pose both legs share."""
    return Pose(family, Own(family), stage, {None: part(level, **more)}, counters, bool(counters), fixed)


def sided(family: str, left: Part | None = None, right: Part | None = None) -> Pose:
    sides = {side: own for side, own in ((Side.LEFT, left), (Side.RIGHT, right)) if own is not None}
    return Pose(family, Own(family), "work", dict(sides))
