"""What is said of a session's order, whoever made it: what each place is good for, and what is not as it should be."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from asketa_core.session.counters import countered
from asketa_core.session.pose import CALM_BREATH_S, Level, Most, Pose, Strain
from asketa_core.session.timing import runs, timeline
from asketa_core.texts import Phrase, say


@dataclass(frozen=True, slots=True)
class Reason:
    """Why some poses stand where they do; ``poses`` are places in the order it is about."""

    code: str
    poses: tuple[int, ...]
    words: Phrase


def reasons(poses: Sequence[Pose], most: Mapping[Strain, Most], breath_s: float = CALM_BREATH_S) -> list[Reason]:
    """What an order is good for, pose by pose: read off the order itself, whoever made it."""
    found: list[Reason] = []
    line = timeline(poses, breath_s)
    countered_by = countered(poses)
    for numbers, level in _levels(poses):
        if level is Level.STANDING and len(numbers) > 1:
            found.append(_reason("stands", numbers))
        elif level is Level.SEATED and len(numbers) > 1 and poses[numbers[0]].stage == "work":
            found.append(_reason("sits", numbers))
    down = [number for number, pose in enumerate(poses) if pose.first.level.down or pose.last.level.down]
    if down and line.trips_down == 1:
        found.append(_reason("down_once", tuple(down), minutes=whole_minutes(line.trips_s)))
    for number, pose in enumerate(poses):
        if pose.fixed:
            found.append(_reason("fixed", (number,)))
        if pose.stage == "arrive" and all(each.stage == "arrive" for each in poses[:number]):
            found.append(_reason("arrives", (number,)))
        if pose.stage == "warm" and all(each.stage in ("arrive", "warm") for each in poses[:number]):
            found.append(_reason("warms", (number,)))
        if pose.stage == "rest" and number == len(poses) - 1:
            found.append(_reason("rests", (number,)))
        undone = [other for other, by in countered_by.items() if by == number]
        if undone:
            found.append(_reason("counters", (number,), name=poses[undone[-1]].name))
    return sorted(found, key=lambda reason: (reason.poses[0], len(reason.poses)))


def _reason(code: str, poses: tuple[int, ...], **params: Any) -> Reason:
    return Reason(code, poses, say("session", "why", code, **params))


def whole_minutes(seconds: float) -> Phrase:
    return say("units", "minutes", n=max(1, round(seconds / 60)))


def _levels(poses: Sequence[Pose]) -> Iterator[tuple[tuple[int, ...], Level]]:
    """Poses that follow each other on one level."""
    together: list[int] = []
    for number, pose in enumerate(poses):
        if together and poses[together[-1]].last.level is not pose.first.level:
            yield tuple(together), poses[together[-1]].last.level
            together = []
        together.append(number)
    if together:
        yield tuple(together), poses[together[-1]].last.level


@dataclass(frozen=True, slots=True)
class Concern:
    """Something of a session that is not as it should be, about some of its poses."""

    code: str
    poses: tuple[int, ...]
    words: Phrase


def concerns(
    poses: Sequence[Pose], minutes: int, most: Mapping[Strain, Most], breath_s: float = CALM_BREATH_S
) -> list[Concern]:
    """What to settle before a session of ``minutes``: what is closed, one side forgotten, a counter-pose missing, too many
    ways to the floor, too long in one go, too long in all."""
    line = timeline(poses, breath_s)
    found: list[Concern] = []
    for number, pose in enumerate(poses):
        for part in pose.sides.values():
            if part.closed is not None:
                found.append(Concern("closed", (number,), part.closed))
        if None not in pose.sides and len(pose.sides) == 1:
            side = next(each for each in pose.sides if each is not None)
            found.append(_concern("one_side", (number,), side=say("sides", side.value)))
    undone = countered(poses)
    for number, pose in enumerate(poses):
        if pose.wants_counter and number not in undone:
            found.append(_concern("counter", (number,)))
    if line.trips_down > 1:
        down = {piece.pose for piece in line.pieces if piece.goes_down and piece.pose is not None}
        found.append(_concern("floor_trips", tuple(sorted(down)), count=line.trips_down))
    for run in runs(poses, line):
        limit = most.get(run.strain)
        if limit is not None and run.seconds > limit.seconds:
            code = "run_by_record" if limit.by_record else "run"
            what = say("session", "run", run.strain.value)
            found.append(
                _concern(
                    code, run.poses, minutes=whole_minutes(run.seconds), what=what, most=whole_minutes(limit.seconds)
                )
            )
    over = line.seconds - minutes * 60
    if over >= 30:
        whole = say("units", "minutes", n=minutes)
        found.append(_concern("over", (), over=whole_minutes(over), minutes=whole))
    return found


def _concern(code: str, poses: tuple[int, ...], **params: Any) -> Concern:
    return Concern(code, poses, say("session", "concern", code, **params))
