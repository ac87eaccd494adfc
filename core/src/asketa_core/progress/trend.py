"""One side of one ladder over time: how often in a row it was calm, the furthest calm step, and where discomfort goes.

The slope is the median of the slopes between all pairs of sessions (Theil 1950, Sen 1968), which one odd day does not
bend; its spread is Sen's interval from the variance of Kendall's S with ties. Few sessions say nothing, and it says so.
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from asketa_core.client.holds import SlotValue, Trial
from asketa_core.clinical import clinical
from asketa_core.poses.library import Library, Variation
from asketa_core.poses.recipe import StackSlot
from asketa_core.progress.responses import Judged, Tolerance
from asketa_core.progress.step import Step, as_kept, calm_in_a_row, sessions, step_of
from asketa_core.texts import NOTHING, Phrase, listed, say
from asketa_core.words.recipe import dose_words
from asketa_core.words.stacks import heights_words

LEAST_SESSIONS = round(clinical("trend.least", "sessions"))
LEAST_WEEKS = clinical("trend.span", "weeks")
NORMAL_95 = 1.959964
"""Two-sided 95 % quantile of the normal distribution."""


@dataclass(frozen=True, slots=True)
class Slope:
    """Change of discomfort in points of 10 a week, and between which values it may lie (95 %)."""

    per_week: float
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class Trend:
    """``calm_in_a_row`` counts the latest sessions at the present step, ``flares`` all there were; ``furthest`` is the furthest
    calm step and the session it was; ``slope`` is ``None`` while there is too little to tell."""

    sessions: int
    calm_in_a_row: int
    flares: int
    furthest: Judged | None
    slope: Slope | None


@dataclass(frozen=True, slots=True)
class Support:
    """What the body was held up by besides its seat, how high, cm, and which way of that there is less support."""

    label: Phrase
    height_cm: float
    less: str


def support_of(rung: Variation, setup: Mapping[str, SlotValue]) -> Support | None:
    """The highest support of a set-up besides its seat: a block under the foot takes more the higher it is, one under the
    knee gives more. ``None`` where nothing makes a difference."""
    found = [
        Support(rung.label_of(name), value.number, slot.less_support)
        for name, value in setup.items()
        if name != rung.recipe.seat_slot
        and value.number is not None
        and isinstance(slot := rung.setup_slots.get(name), StackSlot)
        and slot.less_support != "none"
    ]
    return max(found, key=lambda support: support.height_cm, default=None)


def trend_of(judged: Sequence[Judged], library: Library, trials: Sequence[Trial] = ()) -> Trend:
    """What the holds of one side and ladder come to, oldest first. ``trials`` say which way is kept, as for the next step:
    what is counted here is what the decision counts."""
    held = sessions(judged)
    return Trend(
        sessions=len(held),
        calm_in_a_row=calm_in_a_row(held, as_kept(held[-1].response, trials, library)[0]) if held else 0,
        flares=sum(each.tolerance is Tolerance.FLARE for each in held),
        furthest=furthest_calm(judged, library),
        slope=slope_of([(each.response.date.toordinal() / 7, each.response.during) for each in held]),
    )


def furthest_calm(judged: Sequence[Judged], library: Library) -> Judged | None:
    """The calm hold furthest up the ladder; of one rung the one with least support, then the longest, then the latest."""
    calm = [each for each in judged if each.tolerance is Tolerance.CALM]
    return max(calm, key=lambda each: _reached(step_of(each.response), library), default=None) if calm else None


def _reached(step: Step, library: Library) -> tuple[float, ...]:
    rung = library.variation(step.variation)
    ladder = [each.id for each in library.families[rung.family].variations] if rung.family in library.families else []
    # A rung put away has no place on the ladder any more: it counts before all that have.
    place = ladder.index(rung.id) if rung.id in ladder else -1
    less = 0.0
    for name, value in step.setup.items():
        slot = rung.setup_slots.get(name)
        if isinstance(slot, StackSlot) and value.number is not None and slot.less_support != "none":
            less += value.number if slot.less_support == "up" else -value.number
    return (place, less, step.dose_s)


def slope_of(points: Sequence[tuple[float, float]]) -> Slope | None:
    """The robust slope of (week, value) pairs with its spread; ``None`` for fewer sessions or weeks than tell anything."""
    weeks = [week for week, _ in points]
    if len(points) < LEAST_SESSIONS or max(weeks) - min(weeks) < LEAST_WEEKS:
        return None
    slopes = sorted(
        (later - earlier) / (then - before)
        for i, (before, earlier) in enumerate(points)
        for then, later in points[i + 1 :]
        if then != before
    )
    count = len(slopes)
    reach = NORMAL_95 * math.sqrt(_variance_of_s([value for _, value in points]))
    # Ranks of the interval's ends, rounded outward; with too few pairs the ends are the extremes there are.
    low = max(0, math.floor((count - reach) / 2) - 1)
    high = min(count - 1, math.ceil((count + reach) / 2))
    middle = count // 2
    median = slopes[middle] if count % 2 else (slopes[middle - 1] + slopes[middle]) / 2
    return Slope(median, slopes[low], slopes[high])


def _variance_of_s(values: Sequence[float]) -> float:
    """Variance of Kendall's S of some values against distinct times, with ties among the values."""

    def term(n: int) -> float:
        return n * (n - 1) * (2 * n + 5)

    return (term(len(values)) - sum(term(n) for n in Counter(values).values())) / 18


def slope_words(trend: Trend) -> Phrase:
    """Where discomfort goes, only as surely as it is known."""
    slope = trend.slope
    if slope is None:
        return say("trend", "too_little") if trend.sessions else NOTHING
    spread = {"low": _points(slope.low), "high": _points(slope.high)}
    if slope.low > 0 or slope.high < 0:
        code = "rising" if slope.per_week > 0 else "falling"
        return say("trend", code, points=round(abs(slope.per_week), 1), **spread)
    return say("trend", "level", **spread)


def _points(value: float) -> Phrase:
    rounded = round(abs(value), 1)
    if rounded == 0:
        return say("trend", "none")
    return say("trend", "more" if value > 0 else "less", n=rounded)


def furthest_words(trend: Trend, library: Library) -> Phrase:
    """The furthest calm step in a few words: 'on end, 60 s, seat 45 (14 November)'."""
    if trend.furthest is None:
        return NOTHING
    response = trend.furthest.response
    rung = library.variation(response.variation)
    step = listed([rung.short, dose_words(rung.hold, response.dose_s), heights_words(rung, response.setup)])
    return say("trend", "furthest", step=step, date=response.date)
