"""The minutes of a session: holds, changes of set-up and position, and the way down and up."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from asketa_core.clinical import clinical
from asketa_core.session.pose import CALM_BREATH_S, Level, Part, Pose, Strain, held_s
from asketa_core.units import Side

SETTLE_S = clinical("session.settle", "seconds")
OTHER_SIDE_S = clinical("session.other_side", "seconds")
FETCH_S = clinical("session.fetch", "seconds")
BETWEEN_ROUNDS_S = clinical("session.between_rounds", "seconds")
SIT_OR_STAND_S = clinical("session.sit_or_stand", "seconds")
BED_S = clinical("session.bed", "seconds")
FLOOR_S = clinical("session.floor", "seconds")
FLOOR_WITH_CHAIR_S = clinical("session.floor_with_chair", "seconds")
LIE_DOWN_S = clinical("session.lie_down", "seconds")


@dataclass(frozen=True, slots=True)
class Piece:
    """A stretch of the session: a hold on one side of a pose, or getting from one place to the next. Times in seconds from
    the beginning; ``came_from`` is the level a change starts at."""

    kind: Literal["hold", "change"]
    start_s: float
    end_s: float
    level: Level
    pose: int | None = None
    side: Side | None = None
    came_from: Level | None = None

    @property
    def seconds(self) -> float:
        return self.end_s - self.start_s

    @property
    def goes_down(self) -> bool:
        return self.came_from is not None and self.level.down and not self.came_from.down

    @property
    def gets_up(self) -> bool:
        return self.came_from is not None and self.came_from.down and not self.level.down


@dataclass(frozen=True, slots=True)
class Timeline:
    """A session piece by piece. It begins and ends on one's feet or a chair: getting up again is part of it."""

    pieces: tuple[Piece, ...]

    @property
    def seconds(self) -> float:
        return self.pieces[-1].end_s if self.pieces else 0.0

    @property
    def trips_down(self) -> int:
        return sum(piece.goes_down for piece in self.pieces)

    @property
    def trips_s(self) -> float:
        """What getting down to the floor and up again takes in all."""
        return sum(piece.seconds for piece in self.pieces if piece.goes_down or piece.gets_up)

    def of_pose(self, pose: int) -> float:
        """Seconds of a pose with getting into it."""
        return sum(piece.seconds for piece in self.pieces if piece.pose == pose)


def move_s(before: Level, after: Level, with_chair: bool) -> float:
    """What getting from one level to another takes."""
    if before is after:
        return 0.0
    seconds = 0.0
    if Level.BED in (before, after):
        seconds += BED_S
    if before.down != after.down:
        seconds += FLOOR_WITH_CHAIR_S if with_chair else FLOOR_S
    if Level.LYING in (before, after):
        seconds += LIE_DOWN_S
    return seconds or SIT_OR_STAND_S


def change_s(before: Part | None, after: Part) -> float:
    """Getting from one set-up into the next: what is to be fetched, the move, settling. ``None`` before the first."""
    there: Mapping[str, int] = before.props if before is not None else {}
    fetched = sum(max(0, count - there.get(prop, 0)) for prop, count in after.props.items())
    level = before.level if before is not None else Level.STANDING
    with_chair = after.with_chair or (before is not None and before.with_chair)
    return SETTLE_S + FETCH_S * fetched + move_s(level, after.level, with_chair)


def timeline(poses: Sequence[Pose], breath_s: float = CALM_BREATH_S) -> Timeline:
    """The pieces of a session in order; ``breath_s`` is the client's own breath. Rounds go side by side: left, right,
    left, right."""
    return Timeline(tuple(_pieces(poses, breath_s)))


def _pieces(poses: Sequence[Pose], breath_s: float) -> Iterator[Piece]:
    now, before = 0.0, None
    for number, pose in enumerate(poses):
        first = True
        for _round in range(max(part.rounds for part in pose.sides.values())):
            for side, part in pose.sides.items():
                if _round >= part.rounds:
                    continue
                again = before is part
                pause = BETWEEN_ROUNDS_S if again else change_s(before, part)
                if not first and not again:
                    pause += OTHER_SIDE_S - SETTLE_S
                came_from = before.level if before is not None else Level.STANDING
                yield Piece("change", now, now + pause, part.level, number, side, came_from)
                now += pause
                held = held_s(part, breath_s)
                yield Piece("hold", now, now + held, part.level, number, side)
                now, before, first = now + held, part, False
    if before is not None and (before.level.down or before.level is Level.BED):
        up = move_s(before.level, Level.STANDING, before.with_chair)
        yield Piece("change", now, now + up, Level.STANDING, came_from=before.level)


@dataclass(frozen=True, slots=True)
class Run:
    """Poses that follow each other and ask for one thing, from the first hold's beginning to the last one's end."""

    strain: Strain
    poses: tuple[int, ...]
    seconds: float


def runs(poses: Sequence[Pose], line: Timeline) -> Iterator[Run]:
    """Everything that lasts, hold after hold, until a hold that does not ask for it."""
    for strain in Strain:
        first: Piece | None = None
        last: Piece | None = None
        for piece in (each for each in line.pieces if each.kind == "hold"):
            assert piece.pose is not None
            if strain in poses[piece.pose].sides[piece.side].strains:
                first, last = first or piece, piece
            elif first is not None and last is not None:
                yield _run(strain, first, last)
                first = last = None
        if first is not None and last is not None:
            yield _run(strain, first, last)


def _run(strain: Strain, first: Piece, last: Piece) -> Run:
    assert first.pose is not None and last.pose is not None
    return Run(strain, tuple(range(first.pose, last.pose + 1)), last.end_s - first.start_s)
