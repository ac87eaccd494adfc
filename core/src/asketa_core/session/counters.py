"""Counter-poses: what a session has after a pose that leaves something behind."""

from __future__ import annotations

from collections.abc import Sequence

from asketa_core.poses.library import Variation
from asketa_core.session.pose import Level, Pose, level_of_rung


def countered(poses: Sequence[Pose]) -> dict[int, int]:
    """Poses that want a counter-pose and have one, with its place: directly after them, or after others that want the
    same one."""
    found: dict[int, int] = {}
    for number, pose in enumerate(poses):
        if not pose.wants_counter:
            continue
        for counter in pose.counters:
            place = _next_of(poses, number, counter)
            if place is not None:
                found[number] = place
                break
    return found


def _next_of(poses: Sequence[Pose], number: int, counter: str) -> int | None:
    for place in range(number + 1, len(poses)):
        if poses[place].family == counter:
            return place
        if not (poses[place].wants_counter and counter in poses[place].counters):
            return None
    return None


def nearest_first(rungs: Sequence[Variation], level: Level) -> tuple[Variation, ...]:
    """Rungs of a counter-pose by how near they are to the level one comes from, then from most held up to least."""
    return tuple(sorted(rungs, key=lambda rung: nearness(level, level_of_rung(rung))))


def nearness(level: Level, other: Level) -> int:
    """How far a counter-pose on another level is: none on the same one, then without getting down or up."""
    if level is other:
        return 0
    return 1 if level.down == other.down else 2
