"""A practice with fifty clients for measuring a crowd, none like another. Prints who is to be signed in and opened."""

from __future__ import annotations

import datetime as dt
import json
import secrets
from typing import Any

from django.core.management.base import BaseCommand

from accounts.models import User
from clients.schemas import ClientIn, EntryEnvelope
from clients.services import create_client, record_entry
from common import clock
from measures.schemas import ReadingIn
from measures.services import store_readings
from practices.models import Membership, Practice
from practices.tenancy import opened
from room.services import stock_room

PEOPLE = 50
EMAIL = "crowd@weir-room.example"
ROOM = [
    {"kind": "chair", "count": 2, "seat_height_cm": 45, "arms": True},
    {"kind": "block", "count": 6},
    {"kind": "blanket", "count": 6},
    {"kind": "bolster", "count": 2},
    {"kind": "cushion", "count": 2},
]


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        practice = Practice.objects.create(name="The crowd")
        # Nobody knows it but who is told here.
        password = secrets.token_urlsafe(18)
        user = User.objects.create_user(EMAIL, password, full_name="Somebody of the crowd")
        Membership.objects.create(practice=practice, user=user, role="owner")
        today = clock.today(practice.time_zone)
        with opened(practice):
            stock_room(practice, user, ROOM)
            clients = [str(_somebody(practice, user, number, today)) for number in range(PEOPLE)]
        said = {"practice": str(practice.pk), "clients": clients, "email": EMAIL, "password": password}
        self.stdout.write(json.dumps(said))


def _somebody(practice: Practice, user: User, number: int, today: dt.date) -> object:
    client = create_client(practice, user, ClientIn(name=f"Number {number}"), today)
    readings = [
        ReadingIn(quantity="stature", value=150 + number),
        ReadingIn(quantity="weight", value=60 + number % 20),
        ReadingIn(quantity="hip_flexion", side="left", value=90 + number % 30, method="goniometer"),
    ]
    store_readings(client, user, readings, today, today)
    hip = {
        "date": today - dt.timedelta(days=30 + 3 * number), "approach": "posterior", "prosthesis": "total",
        "dislocated": "no", "abductor_repair": "no", "weight_bearing": "full", "trouble_since": "no",
    }  # fmt: skip
    knee = {"site": "front", "diagnosis": "kneecap", "operated": "no"}
    for kind, side, facts in (("hip_replacement", "right", hip), ("knee_pain", "left", knee)):
        entry = EntryEnvelope.model_validate({"entry": {"kind": kind, "side": side, "facts": facts}}).entry
        record_entry(client, user, entry, today)
    return client.pk
