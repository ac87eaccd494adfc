"""The room's stock."""

from __future__ import annotations

import uuid

from ninja import Router

from common.permissions import Permission
from common.schemas import Output
from practices.tenancy import PracticeId, PracticeRequest, in_practice
from room.models import RoomProp

router = Router(tags=["room"])


class PropOut(Output):
    id: uuid.UUID
    kind: str
    name: str
    count: int
    sizes: dict[str, float | bool | str]


@router.get("/room", response=list[PropOut], operation_id="listRoom")
@in_practice(Permission.ROOM_READ)
def list_room(request: PracticeRequest, practice_id: PracticeId) -> list[PropOut]:
    """What the room has; the editor for it is not built yet."""
    return [PropOut.model_validate(prop, from_attributes=True) for prop in RoomProp.objects.all()]
