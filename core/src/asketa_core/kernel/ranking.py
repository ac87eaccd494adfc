"""Which set-up is the better: how much of the client's range it keeps to work in, and the order of all."""

from __future__ import annotations

import math
from typing import Any

from numba import int64, void

from asketa_core.kernel.codes import Level, Who
from asketa_core.kernel.compiled import compiled, entry
from asketa_core.kernel.records import Record
from asketa_core.kernel.shared import PURPOSE_LEAST, PURPOSE_MOST, PURPOSE_TARGET_PERCENT
from asketa_core.kernel.signatures import OUTCOMES, TRADES
from asketa_core.kernel.vectors import clip

MOST_PERCENT = 100.0


@compiled
def purpose_kept(programme: Record, rom: Any, posture: Record) -> float:
    """Smallest demand as per cent of the client's range over what does the work. In shared shapes the side that is worked
    hardest counts: it is the one that must not be asked too much."""
    worked = kept_by(programme, rom, programme.worked, posture)
    if not programme.shared:
        return worked
    return max(worked, kept_by(programme, rom, 1 - programme.worked, posture))


@compiled
def kept_by(programme: Record, rom: Any, worked: int, posture: Record) -> float:
    """The same with one side as the worked one."""
    least = math.inf
    for at in range(programme.works):
        work = programme.work[at]
        if work.effort:
            least = min(least, PURPOSE_TARGET_PERCENT)
            continue
        side = 1 - worked if work.on_other else worked
        who = side if posture.there[work.read, side] else Who.WHOLE.value
        # A joint never gives more than it has: what is asked beyond is no purpose, but something to mind.
        least = min(least, share_of(work, rom, side, posture.read[work.read, who, Level.MIDDLE]), MOST_PERCENT)
    return least


@compiled
def share_of(work: Record, rom: Any, side: int, demand: float) -> float:
    """A demand as per cent of what the work is measured against: a fixed figure, a range, or by itself. Of a range that is
    not there it is no share; such shapes are not offered."""
    if work.of_deg > 0:
        return float(100.0 * demand / work.of_deg)
    if work.motion < 0:
        return demand
    own = rom[side, work.motion, Level.MIDDLE]
    return float(100.0 * demand / own) if own > 0 else math.inf


@compiled
def shows_works(programme: Record, posture: Record) -> bool:
    """Whether everything that does the work is to be read."""
    for at in range(programme.works):
        work = programme.work[at]
        for side in range(2):
            if not (work.effort or posture.there[work.read, side] or posture.there[work.read, Who.WHOLE]):
                return False
    return True


@compiled
def purpose_at_most(programme: Record, rom: Any, worked: int, side: int, posture: Record) -> float:
    """The most a set-up keeps, as far as one leg alone shows what does the work for a worked side."""
    least = math.inf
    for at in range(programme.works):
        work = programme.work[at]
        on = 1 - worked if work.on_other else worked
        if work.effort or on != side or not posture.there[work.read, on]:
            continue
        least = min(least, share_of(work, rom, on, posture.read[work.read, on, Level.MIDDLE]))
    return least


# What the order of set-ups comes to in one number: the better a set-up, the smaller. Margins and distances from what was
# last used tell apart what is equal in it.

STOP_BITS, SIZE_BITS, WAY_BITS, UNLIKE_BITS, PURPOSE_BITS, ITEM_BITS, STACK_BITS = 7, 12, 8, 4, 14, 8, 6
"""With one bit each for whether it is possible and whether something is asked these are 61."""


@compiled
def packed(number: int, value: int, bits: int) -> int:
    """A number with another one behind it, which takes so many bits at most."""
    return (number << bits) | min(value, (1 << bits) - 1)


@compiled
def key_of(outcome: Record, off_purpose: int, trade: Record) -> int:
    """Possible before impossible, then fewest stops, no question, least size of cautions, easiest to reach, both sides
    alike, purpose nearest its target, fewest items, fewest that lie on others.

    What has to be minded getting there weighs nothing, but of equals the easier to reach is the better. What one side needs
    less of does the other no harm: both are built alike unless that costs a caution.
    """
    key = packed(0 if outcome.possible else 1, outcome.stops, STOP_BITS)
    key = packed(key, 1 if outcome.asks > 0 else 0, 1)
    key = packed(key, int(outcome.whole_size * 2), SIZE_BITS)
    key = packed(key, outcome.on_the_way, WAY_BITS)
    key = packed(key, trade.unlike, UNLIKE_BITS)
    key = packed(key, off_purpose, PURPOSE_BITS)
    key = packed(key, trade.items, ITEM_BITS)
    return packed(key, trade.stacked, STACK_BITS)


FURTHEST = 1e6
"""Nothing is further off its purpose than this; what has none is."""

PURPOSE_STEP = 5.0
"""Shares inside that band and nearer together than this are one: no range is known better, and what is simpler to build
decides."""


@compiled
def off_purpose(percent: float) -> int:
    """How far a set-up is from the wanted share: inside the band in steps, outside it to the full per cent, and after all
    that are inside."""
    away = round(min(abs(percent - PURPOSE_TARGET_PERCENT), FURTHEST) * 10) / 10
    if PURPOSE_LEAST <= percent <= PURPOSE_MOST:
        return max(math.ceil(away / PURPOSE_STEP), 1)
    return 100 + round(away)


@entry(void(OUTCOMES, TRADES, int64[::1]))
def keys_of(outcomes: Any, trades: Any, keys: Any) -> None:
    """The key of every set-up of a grid."""
    for at in range(len(keys)):
        keys[at] = key_of(outcomes[at], off_purpose(outcomes[at].purpose), trades[at])


@compiled
def off_purpose_at_least(most_percent: float) -> int:
    """The same where a set-up keeps so much at most."""
    return off_purpose(most_percent) if most_percent < PURPOSE_LEAST else 1


@compiled
def goes_before(
    key: int, margin: float, away: float, row: int, best_key: int, best_margin: float, best_away: float, best_row: int
) -> bool:
    """Whether a set-up comes before another one: by its key, the larger margin, nearer to what is usual, by its row."""
    if key != best_key:
        return key < best_key
    one, other = round(clip(margin, -99.0, 99.0) * 10), round(clip(best_margin, -99.0, 99.0) * 10)
    if one != other:
        return one > other
    return row < best_row if away == best_away else away < best_away
