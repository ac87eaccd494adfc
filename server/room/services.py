"""Changes to the room's stock."""

from __future__ import annotations

from typing import Any

from django.db import transaction

from accounts.models import User
from asketa_core import Room, parse
from audit.models import record
from practices.models import Practice
from room.models import RoomProp


@transaction.atomic
def stock_room(practice: Practice, user: User, props: list[dict[str, Any]]) -> list[RoomProp]:
    """Add lines of stock; each is ``kind``, ``count``, optional ``name`` and own sizes.

    Raises ``InputError`` when the core would not accept the room.
    """
    parse(Room, {"props": [{"id": str(position), **prop} for position, prop in enumerate(props)]})
    found = []
    for position, prop in enumerate(props):
        sizes = {key: value for key, value in prop.items() if key not in ("kind", "count", "name")}
        row = RoomProp.objects.create(
            practice=practice, created_by=user, kind=prop["kind"], name=prop.get("name", ""), count=prop["count"],
            sizes=sizes, position=position,
        )  # fmt: skip
        record(row, "room.stocked", user)
        found.append(row)
    return found
