"""Settling and judging the set-ups of a grid, and of what comes before and after a pose."""

from __future__ import annotations

import math
from typing import Any, NamedTuple

from numba import boolean, float64, int8, int64, void

from asketa_core.kernel.agenda import choose
from asketa_core.kernel.bounds import bound_leg
from asketa_core.kernel.codes import Read, Who
from asketa_core.kernel.compiled import compiled, entry, inlined
from asketa_core.kernel.judging import about, is_possible, judge_one, judge_some, missing, surely_bites, weigh_bounds
from asketa_core.kernel.posture import (
    LEVELS,
    MIDDLE,
    count_always,
    meet_everything,
    settle,
    settle_leg,
    settle_rest,
    settle_trunk,
)
from asketa_core.kernel.ranking import (
    goes_before,
    key_of,
    off_purpose,
    off_purpose_at_least,
    purpose_at_most,
    purpose_kept,
    shows_works,
)
from asketa_core.kernel.readings import show_leg
from asketa_core.kernel.records import (
    Before,
    Client,
    Desk,
    Found,
    Legs,
    Lifted,
    LimitTable,
    Record,
    Said,
    Setups,
    Tally,
)
from asketa_core.kernel.shared import FLAG_SIZE
from asketa_core.kernel.signatures import (
    BEFORE,
    CASES,
    CLIENT,
    DESK,
    FOUND,
    LEGS,
    LIFTED,
    LIMIT_TABLE,
    ONE_LEG,
    POSTURES,
    PROGRAMMES,
    SETUPS,
    TRADES,
)
from asketa_core.kernel.tally import CAUTION, begin, bite, clear, clear_sizes, count, keep, keep_said, weigh

NOTHING_FOUND = 2**62
"""A key behind that of every set-up: whatever is found first comes before it."""

UNCHOSEN = -1
"""How many limits are due before they are chosen."""


@entry(void(CLIENT, PROGRAMMES, float64[::1], CASES, float64, ONE_LEG, ONE_LEG, POSTURES))
def settle_posture(
    client: Client, programmes: Any, x: Any, cases: Any, lift_cm: float, left: Any, right: Any, postures: Any
) -> None:
    """One set-up by itself: its legs at the three ends of the ranges, and its posture. ``cases`` and ``postures`` hold
    one."""
    programme, posture = programmes[0], postures[0]
    settle_leg(client, programme, 0, x, lift_cm, left)
    settle_leg(client, programme, 1, x, lift_cm, right)
    count_always(programme, posture)
    settle(client, programme, x, cases[0], left, right, posture)


@compiled
def judge_leg(
    client: Client, programme: Record, side: int, xs: Any, table: LimitTable, phase: int, spares_gentle: bool, desk: Desk,
    legs: Any, settled: Any, said: Said, first: int, most_kept: Any,
) -> bool:  # fmt: skip
    """One leg for each case of what moves it, placed at the three ends of the ranges into ``legs``, and what it comes to by
    itself, into the rows from ``first`` on. What a limit said of the leg before is not said again."""
    posture, tally, agenda = desk.postures[0], desk.tally, desk.agenda[0]
    exempt, due = programme.exempt_from_band != 0, 0
    count_always(programme, posture)
    for read in range(len(posture.there)):
        for who in range(3):
            posture.there[read, who] = 0
    for at in range(len(xs)):
        settle_leg(client, programme, side, xs[at], 0.0, legs[at])
        for level in range(LEVELS):
            leg = legs[at, level]
            show_leg(client.bodies[0], programme, side, leg, xs[at], level, posture)
            posture.read[Read.HIP_USE_PERCENT, side, level] = leg.hip_use
            posture.read[Read.HIP_EXTENSION, side, level] = -math.inf
        meet_everything(posture)
        bound_leg(posture, client.seen, client.rom, programme, side, legs[at])
        if at == 0:
            due = choose(table, programme, phase, spares_gentle, posture, True, desk.places, settled, agenda)
        clear(tally)
        stage = said.stages[first + at]
        stage.margin = judge_some(table, desk.places, agenda[:due], posture, exempt, tally)
        if not keep_said(tally, said, first + at):
            return False
        # What only the worst end of the ranges passes may turn out to be missed by the middle as well, and what is missing
        # is summed up where both legs are seen.
        stage.possible, stage.missing = is_possible(posture), 0.0
        for worked in range(2):
            most_kept[at, worked] = purpose_at_most(programme, client.rom, worked, side, posture)
    return True


@entry(
    boolean(
        CLIENT, PROGRAMMES, float64[:, ::1], float64[:, ::1], LIMIT_TABLE, int64, boolean, DESK, LEGS, int8[::1], BEFORE
    )
)  # fmt: skip
def judge_legs(
    client: Client, programmes: Any, left_xs: Any, right_xs: Any, table: LimitTable, phase: int, spares_gentle: bool,
    desk: Desk, legs: Legs, settled: Any, before: Before,
) -> bool:  # fmt: skip
    """Both legs for each case of what moves them, placed into ``legs``, and what they come to, into their rows of what was
    said before; false where those have no room for so much. ``settled`` is to say of every limit whether it is judged
    with a leg. ``programmes`` holds one: a record by itself is slow to hand over."""
    programme, said = programmes[0], before.said
    for which in range(len(settled)):
        settled[which] = 0
    return judge_leg(
        client, programme, 0, left_xs, table, phase, spares_gentle, desk, legs.left, settled, said, before.first[0],
        legs.left_kept,
    ) and judge_leg(
        client, programme, 1, right_xs, table, phase, spares_gentle, desk, legs.right, settled, said, before.first[1],
        legs.right_kept,
    )  # fmt: skip


@inlined
def key_so_far(tally: Tally, outcome: Record, off: int, trade: Record) -> int:
    """The key of a set-up from what was judged of it; whatever is judged later only adds to it."""
    count(tally, outcome)
    return key_of(outcome, off, trade)


@entry(void(PROGRAMMES, SETUPS, BEFORE, LEGS, TRADES, DESK, int64[::1]))
def bound_grid(
    programmes: Any, setups: Setups, before: Before, legs: Legs, trades: Any, desk: Desk, bounds: Any
) -> None:
    """The key each set-up has at the least. Its legs are among what was judged before."""
    programme, outcome, tally = programmes[0], desk.outcomes[0], desk.tally
    worked = programme.worked
    for at in range(len(bounds)):
        begin(tally, before, setups, at, outcome)
        left, right = legs.left_kept[setups.left_of[at]], legs.right_kept[setups.right_of[at]]
        kept = min(left[worked], right[worked])
        if programme.shared:
            kept = max(kept, min(left[1 - worked], right[1 - worked]))
        bounds[at] = key_so_far(tally, outcome, off_purpose_at_least(kept), trades[at])


@inlined
def falls_behind(tally: Tally, outcome: Record, off: int, trades: Any, at: int, best_key: int) -> bool:
    """Whether a set-up can no longer come before the best found so far."""
    return best_key < NOTHING_FOUND and key_so_far(tally, outcome, off, trades[at]) > best_key


class Part(NamedTuple):
    """The smallest margin of some limits in units of error, and whether the set-up fell behind before all were judged."""

    margin: float
    behind: bool


@inlined
def judge_while(
    table: LimitTable, places: Any, agenda: Any, posture: Record, exempt: bool, tally: Tally, outcome: Record, off: int,
    trades: Any, at: int, best_key: int,
) -> Part:  # fmt: skip
    """Limits on an agenda one by one, as long as the set-up can still come before the best. What one is left for goes to the
    front of the agenda: the next ones are likely to be left for the same."""
    nearest = math.inf
    if falls_behind(tally, outcome, off, trades, at, best_key):
        return Part(nearest, True)
    for due in range(len(agenda)):
        found = judge_one(table, agenda[due], places, posture, exempt, tally)
        nearest = min(nearest, found.margin)
        if found.severity > 0 and falls_behind(tally, outcome, off, trades, at, best_key):
            agenda[0], agenda[due] = agenda[due], agenda[0]
            return Part(nearest, True)
    return Part(nearest, False)


@inlined
def surely_falls_behind(
    table: LimitTable, places: Any, agenda: Any, posture: Record, tally: Tally, outcome: Record, off: int, trades: Any,
    at: int, best_key: int,
) -> bool:  # fmt: skip
    """Whether what is surely said of a posture that is settled at the middle of the ranges alone already decides. It is in
    the tally then; whatever the other ends show only adds to it."""
    if falls_behind(tally, outcome, off, trades, at, best_key):
        return True
    for due in range(len(agenda)):
        limit = table.limits[agenda[due]]
        if surely_bites(limit, table.terms, places, posture):
            bite(tally, limit.kind, limit.severity)
            if limit.severity == CAUTION:
                weigh(tally, about(limit, table.terms, places), FLAG_SIZE)
            if falls_behind(tally, outcome, off, trades, at, best_key):
                agenda[0], agenda[due] = agenda[due], agenda[0]
                return True
    return False


@compiled
def add_posture(posture: Record, margin: float, outcome: Record) -> None:
    """Add what else a posture comes to, besides what the tally takes."""
    outcome.margin = min(outcome.margin, margin)
    outcome.possible = outcome.possible and is_possible(posture)
    outcome.missing = outcome.missing + missing(posture)


@compiled
def read_off(posture: Record, found: Found, at: int) -> None:
    """What a posture counts as, and the wanted read-outs."""
    for flag in range(len(found.marks)):
        for side in range(3):
            found.marks[flag, side] = found.marks[flag, side] or posture.marks[flag, side]
    for k in range(len(found.wanted)):
        for level in range(LEVELS):
            found.read[k, at, level] = posture.read[found.wanted[k, 0], found.wanted[k, 1], level]


@compiled
def judge_way(
    client: Client, programme: Record, setups: Setups, at: int, table: LimitTable, phase: int, spares_gentle: bool,
    left: Any, right: Any, lifted: Lifted, desk: Desk, due: int, outcome: Record,
) -> int:  # fmt: skip
    """The worked foot on its way into a pose, as high as it is lifted: said, and weighing nothing. ``left`` and ``right`` are
    the legs in the pose itself. Gives how many limits are ``due`` there, chosen when the first foot is lifted."""
    posture, exempt, x, case = desk.postures[0], programme.exempt_from_band != 0, setups.xs[at], setups.cases[at]
    of_left = programme.worked == Who.LEFT
    of_leg = setups.left_of[at] if of_left else setups.right_of[at]
    for lift in range(len(lifted.heights_cm)):
        leg = lifted.legs[lift, of_leg]
        if not lifted.placed[lift, of_leg]:
            settle_leg(client, programme, programme.worked, x, lifted.heights_cm[lift], leg)
            lifted.placed[lift, of_leg] = 1
        if of_left:
            settle(client, programme, x, case, leg, right, posture)
        else:
            settle(client, programme, x, case, left, leg, posture)
        if due == UNCHOSEN:
            due = choose(
                table, programme, phase, spares_gentle, posture, False, desk.places, desk.settled[1], desk.agenda[2]
            )
        clear_sizes(desk.of_way)
        nearest = judge_some(table, desk.places, desk.agenda[2, :due], posture, exempt, desk.of_way)
        weigh_bounds(posture, table.quantities, desk.of_way)
        add_posture(posture, nearest, outcome)
        outcome.on_the_way = outcome.on_the_way + desk.of_way.quantities[0]
    return due


@entry(
    void(
        CLIENT, PROGRAMMES, SETUPS, LIMIT_TABLE, int64, int64, boolean, BEFORE, LEGS, int8[::1], LIFTED, DESK, FOUND,
        int64[::1], int64[::1], TRADES, int64[::1],
    )
)  # fmt: skip
def judge_grid(
    client: Client, programmes: Any, setups: Setups, table: LimitTable, phase: int, way_phase: int, spares_gentle: bool,
    before: Before, legs: Legs, settled: Any, lifted: Lifted, desk: Desk, found: Found, sequence: Any, bounds: Any,
    trades: Any, best: Any,
) -> None:  # fmt: skip
    """Set-ups of a grid in a sequence; see ``Run``, which makes what is handed in.

    Each is judged in steps, what is known before it first: its legs and what goes before and after, then its trunk (at the
    middle of the ranges, then at all three ends), the rest of it, and last its way in. With ``bounds``, the key each has at
    the least, only the best is looked for: a set-up is left as soon as it cannot come before the best found so far, and
    ``best`` (1,) takes the row of that.
    """
    programme, posture, tally = programmes[0], desk.postures[0], desk.tally
    rom, exempt, places = client.rom, programme.exempt_from_band != 0, desk.places
    by_trunk, by_rest, by_way, works_shown = 0, 0, UNCHOSEN, False
    searching, best_key, best_row = len(bounds) > 0, NOTHING_FOUND, -1
    count_always(programme, posture)
    for which in range(len(settled)):
        desk.settled[0, which], desk.settled[1, which] = settled[which], 0
    for step in range(len(sequence)):
        at = sequence[step]
        if searching and bounds[at] > best_key:
            break
        x, case, outcome = setups.xs[at], setups.cases[at], found.outcomes[at % len(found.outcomes)]
        here, there = legs.left[setups.left_of[at]], legs.right[setups.right_of[at]]
        begin(tally, before, setups, at, outcome)
        if best_row >= 0 and works_shown:
            settle_trunk(client, programme, x, case, here, there, MIDDLE, MIDDLE + 1, posture)
            off = off_purpose(purpose_kept(programme, rom, posture))
            if surely_falls_behind(
                table, places, desk.agenda[0, :by_trunk], posture, tally, outcome, off, trades, at, best_key
            ):
                continue
        pad_cm = settle_trunk(client, programme, x, case, here, there, 0, LEVELS, posture)
        if step == 0:
            works_shown = shows_works(programme, posture)
            by_trunk = choose(
                table, programme, phase, spares_gentle, posture, False, places, desk.settled[0], desk.agenda[0]
            )
        off = off_purpose(purpose_kept(programme, rom, posture)) if searching and works_shown else 1
        upper = judge_while(
            table, places, desk.agenda[0, :by_trunk], posture, exempt, tally, outcome, off, trades, at, best_key
        )
        if upper.behind:
            continue
        settle_rest(client, programme, x, case, here, there, pad_cm, posture)
        if step == 0:
            by_rest = choose(
                table, programme, phase, spares_gentle, posture, False, places, desk.settled[0], desk.agenda[1]
            )
        outcome.purpose = purpose_kept(programme, rom, posture)
        off = off_purpose(outcome.purpose)
        weigh_bounds(posture, table.quantities, tally)
        lower = judge_while(
            table, places, desk.agenda[1, :by_rest], posture, exempt, tally, outcome, off, trades, at, best_key
        )
        if lower.behind:
            continue
        add_posture(posture, min(upper.margin, lower.margin), outcome)
        if not searching:
            read_off(posture, found, at)
        if len(lifted.heights_cm) > 0 and falls_behind(tally, outcome, off, trades, at, best_key):
            continue
        by_way = judge_way(
            client, programme, setups, at, table, way_phase, spares_gentle, here, there, lifted, desk, by_way, outcome
        )
        count(tally, outcome)
        if len(found.severities) > 0:
            keep(tally, found.severities[at], found.weights[at])
        if not searching:
            continue
        key, best_so_far = key_of(outcome, off, trades[at]), found.outcomes[best_row]
        if best_row < 0 or goes_before(
            key, outcome.margin, trades[at].away, at, best_key, best_so_far.margin, trades[best_row].away, best_row
        ):
            best_key, best_row, best[0] = key, at, at
