"""Reads about measures."""

from __future__ import annotations

from asketa_core import PLAUSIBLE_BODY, PLAUSIBLE_DEG, InputError, Quantity, Side, turning_out_from_tape, typical_range
from clients.models import Client
from common import clock
from engine.adapter import client_file
from measures.models import SEEN, TEST, Measure
from measures.schemas import MeasuredSide, MeasuresOut, RangeOut, ReadingOut, TapeIn, TapeOut


def measures_out(client: Client) -> MeasuresOut:
    """Every range on both sides with its readings, newest first, beside the population's figure."""
    date = clock.today(client.practice.time_zone)
    file = client_file(client)
    ranges = file.latest_ranges(date)
    rows = list(Measure.objects.filter(client=client).order_by("-date", "-created_at"))

    def readings(quantity: str, side: str | None) -> list[ReadingOut]:
        mine = [row for row in rows if row.quantity == quantity and row.side == side]
        return [ReadingOut.model_validate(row, from_attributes=True) for row in mine]

    def measured(quantity: Quantity, side: Side) -> MeasuredSide:
        known = ranges.get(quantity, side)
        return MeasuredSide(
            readings=readings(quantity.value, side.value),
            value=known.value_deg,
            error=known.error_deg,
            measured=known.measured,
        )

    def range_out(quantity: Quantity) -> RangeOut:
        typical = typical_range(quantity)
        return RangeOut(
            quantity=quantity,
            plausible_from=PLAUSIBLE_DEG[quantity][0],
            plausible_to=PLAUSIBLE_DEG[quantity][1],
            typical=typical.value_deg,
            typical_error=typical.error_deg,
            left=measured(quantity, Side.LEFT),
            right=measured(quantity, Side.RIGHT),
        )

    try:
        level_seat: float | None = file.latest_body(date).level_seat_cm
    except InputError:
        level_seat = None
    return MeasuresOut(
        body={quantity: readings(quantity, None) for quantity in PLAUSIBLE_BODY},
        level_seat_cm=level_seat,
        seen={
            what: {side: readings(what, side.value) for side in Side}
            for what in dict.fromkeys(
                [f"{TEST}moves_as_one", *(row.quantity for row in rows if row.quantity.startswith(SEEN))]
            )
        },
        ranges=[range_out(quantity) for quantity in Quantity],
    )


def turned_out(client: Client, tape: TapeIn) -> TapeOut:
    """A soles-together reading as degrees; ``InputError`` when this body's knee cannot be there."""
    date = clock.today(client.practice.time_zone)
    body = client_file(client).latest_body(date)
    found = turning_out_from_tape(body, tape.side, tape.knee_height_cm, tape.foot_distance_cm, tape.seat_height_cm)
    return TapeOut(value_deg=round(found.value_deg, 1), error_deg=round(found.error_deg, 1))
