"""An order for a session: what comes first and what belongs together.

Everything that is wanted of an order is a cost in seconds, and the cheapest order is looked for by a constraint solver.
Wishes are soft, so that an order is found whatever is planned; what the therapist fixed is not.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Any, get_args

from asketa_core.poses.library import Stage
from asketa_core.session.pose import CALM_BREATH_S, Level, Most, Pose, Strain
from asketa_core.session.timing import change_s, move_s, timeline

STAGES = get_args(Stage)

OUT_OF_STAGE = 900
"""What a pose costs before another that belongs earlier in a session, in seconds."""
TRIP = 240
"""What going down to the floor costs beyond its own time: it is a task of its own and should happen once."""
NOT_COUNTERED = 180
"""What a pose costs that wants a counter-pose and does not get the one that is planned."""
OVER_THE_MOST = 2
"""What each second costs that something lasts beyond its most."""

SOLVER_EFFORT = 4.0
"""The solver's own measure of work, about seconds; the same search on every machine."""

MOST_POSES = 40


def suggest(poses: Sequence[Pose], most: Mapping[Strain, Most], breath_s: float = CALM_BREATH_S) -> tuple[int, ...]:
    """The poses' places in the order suggested, fixed ones where they are. The order they stand in is kept where nothing
    is gained by another."""
    # The solver is heavy to load and wanted here alone.
    from ortools.sat.python import cp_model  # noqa: PLC0415

    if len(poses) > MOST_POSES:
        raise ValueError(f"at most {MOST_POSES} poses can be put in order")
    if len(poses) < 2:
        return tuple(range(len(poses)))
    model = cp_model.CpModel()
    at = [model.new_int_var(0, len(poses) - 1, f"at {pose}") for pose in range(len(poses))]
    model.add_all_different(at)
    follows = _arcs(model, poses, at)
    for place, pose in enumerate(poses):
        model.add_hint(at[place], place)
        if pose.fixed:
            model.add(at[place] == place)
    costs = [
        *_of_changes(poses, follows),
        *_of_stages(model, poses, at),
        *_of_counters(model, poses, follows),
        *_of_runs(model, poses, follows, most, breath_s),
        # Among orders as good as each other the one that moves least.
        *_of_moving(model, poses, at),
    ]
    model.minimize(sum(costs))
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = 1
    solver.parameters.max_deterministic_time = SOLVER_EFFORT
    status = solver.solve(model)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return tuple(range(len(poses)))
    return tuple(sorted(range(len(poses)), key=lambda pose: solver.value(at[pose])))


def _arcs(model: Any, poses: Sequence[Pose], at: Sequence[Any]) -> dict[tuple[int, int], Any]:
    """Whether one pose directly follows another, by both; ``-1`` stands for the beginning and the end."""
    count = len(poses)
    follows = {}
    arcs = []
    for before in range(-1, count):
        for after in range(-1, count):
            if before == after:
                continue
            arc = model.new_bool_var(f"{after} follows {before}")
            follows[before, after] = arc
            arcs.append((before + 1, after + 1, arc))
            if before >= 0 and after >= 0:
                model.add(at[after] == at[before] + 1).only_enforce_if(arc)
            elif after >= 0:
                model.add(at[after] == 0).only_enforce_if(arc)
            elif before >= 0:
                model.add(at[before] == count - 1).only_enforce_if(arc)
    model.add_circuit(arcs)
    return follows


def _of_changes(poses: Sequence[Pose], follows: Mapping[tuple[int, int], Any]) -> Iterator[Any]:
    for (before, after), arc in follows.items():
        last = poses[before].last if before >= 0 else None
        if after < 0:
            level = Level.STANDING if last is None else last.level
            seconds = move_s(level, Level.STANDING, last is not None and last.with_chair)
        else:
            first = poses[after].first
            seconds = change_s(last, first)
            if first.level.down and not (last is not None and last.level.down):
                seconds += TRIP
        yield round(seconds) * arc


def _of_stages(model: Any, poses: Sequence[Pose], at: Sequence[Any]) -> Iterator[Any]:
    stages = [STAGES.index(pose.stage) for pose in poses]
    for early, stage in enumerate(stages):
        for late, other in enumerate(stages):
            if stage < other and not (poses[early].fixed and poses[late].fixed):
                wrong = model.new_bool_var(f"{late} before {early}")
                model.add(at[early] < at[late]).only_enforce_if(wrong.negated())
                yield OUT_OF_STAGE * (other - stage) * wrong


def _of_counters(model: Any, poses: Sequence[Pose], follows: Mapping[tuple[int, int], Any]) -> Iterator[Any]:
    """A counter-pose comes directly after, or after others that want the same one."""
    for counter in sorted({each for pose in poses for each in pose.counters if pose.wants_counter}):
        here = [number for number, pose in enumerate(poses) if pose.family == counter]
        wanting = [
            number
            for number, pose in enumerate(poses)
            if pose.wants_counter and counter in pose.counters and number not in here
        ]
        if not here:
            continue
        done = {pose: model.new_bool_var(f"{pose} countered by {counter}") for pose in wanting}
        for pose in wanting:
            by_others = []
            for other in wanting:
                if other != pose:
                    together = model.new_bool_var(f"{pose} with {other}")
                    model.add_implication(together, follows[pose, other])
                    model.add_implication(together, done[other])
                    by_others.append(together)
            model.add(sum(follows[pose, each] for each in here) + sum(by_others) >= done[pose])
            yield NOT_COUNTERED * done[pose].negated()


def _of_runs(
    model: Any,
    poses: Sequence[Pose],
    follows: Mapping[tuple[int, int], Any],
    most: Mapping[Strain, Most],
    breath_s: float,
) -> Iterator[Any]:
    """What lasts from pose to pose, and costs beyond its most."""
    lasts = [round(timeline([pose], breath_s).seconds) for pose in poses]
    for strain, limit in most.items():
        asking = [number for number, pose in enumerate(poses) if strain in pose.strains]
        if sum(lasts[each] for each in asking) <= limit.seconds:
            continue
        whole = sum(lasts[each] for each in asking)
        so_far = {each: model.new_int_var(lasts[each], whole, f"{strain} at {each}") for each in asking}
        for before in asking:
            over = model.new_int_var(0, whole, f"{strain} over at {before}")
            model.add(over >= so_far[before] - round(limit.seconds))
            yield OVER_THE_MOST * over
            for after in asking:
                if before != after:
                    longer = so_far[after] >= so_far[before] + lasts[after]
                    model.add(longer).only_enforce_if(follows[before, after])


def _of_moving(model: Any, poses: Sequence[Pose], at: Sequence[Any]) -> Iterator[Any]:
    for place in range(len(poses)):
        moved = model.new_int_var(0, len(poses), f"{place} moved")
        model.add_abs_equality(moved, at[place] - place)
        yield moved
