"""What server tests share: two practices, a signed-in client, and short ways to call the API."""

from __future__ import annotations

import datetime as dt
import uuid
from typing import Any

from django.conf import settings
from django.core.cache import cache
from django.db import connection
from django.http import HttpResponse
from django.test import TestCase

from accounts.models import User
from asketa_core import Side
from clients.models import Client
from clients.schemas import ClientIn, EntryEnvelope
from clients.services import create_client, record_entry
from common import clock
from engine.answers import Today
from measures.schemas import ReadingIn
from measures.services import store_readings
from practices.models import Membership, Practice
from practices.tenancy import opened
from room.services import stock_room
from visits.schemas import ItemIn

PASSWORD = "a-long-test-password"
ROOM = [
    {"kind": "chair", "count": 1, "seat_height_cm": 45, "arms": True},
    {"kind": "block", "count": 3},
    {"kind": "blanket", "count": 3},
]


def as_application() -> None:
    """From here to the end of the test the database lets through what it lets the running application do."""
    with connection.cursor() as cursor:
        cursor.execute(f"SET LOCAL ROLE {settings.APP_DB_ROLE}")


class House:
    """One practice with its owner, a room and one client with a replaced right hip."""

    def __init__(self, name: str, email: str) -> None:
        self.practice = Practice.objects.create(name=name)
        self.user = User.objects.create_user(email, PASSWORD, full_name=f"Owner of {name}")
        Membership.objects.create(practice=self.practice, user=self.user, role="owner")
        self.today = clock.today(self.practice.time_zone)
        with opened(self.practice):
            stock_room(self.practice, self.user, ROOM)
            self.client = create_client(
                self.practice, self.user, ClientIn(name=f"Client of {name}", occupation="weaver"), self.today
            )
            body = [ReadingIn(quantity="stature", value=172), ReadingIn(quantity="weight", value=70)]
            turning = [
                ReadingIn(quantity="open_external_rotation", side=side, value=60, method="goniometer") for side in Side
            ]
            store_readings(self.client, self.user, body + turning, self.today, self.today)

    def measured_before(self, days_ago: int = 30) -> None:
        """The stature known long enough for visits in the past."""
        day = self.today - dt.timedelta(days=days_ago)
        with opened(self.practice):
            store_readings(self.client, self.user, [ReadingIn(quantity="stature", value=172)], day, self.today)

    def record_hip(self, days_ago: int = 63, side: str = "right", **facts: Any) -> Any:
        known = {
            "date": self.today - dt.timedelta(days=days_ago), "approach": "posterior", "prosthesis": "total",
            "dislocated": "no", "abductor_repair": "no", "weight_bearing": "full", "trouble_since": "no",
        }  # fmt: skip
        entry = {"kind": "hip_replacement", "side": side, "facts": {**known, **facts}}
        data = EntryEnvelope.model_validate({"entry": entry}).entry
        with opened(self.practice):
            return record_entry(self.client, self.user, data, self.today)

    def record_knee(self, side: str = "left", **facts: Any) -> Any:
        known = {"site": "front", "diagnosis": "kneecap", "operated": "no"}
        entry = {"kind": "knee_pain", "side": side, "facts": {**known, **facts}}
        data = EntryEnvelope.model_validate({"entry": entry}).entry
        with opened(self.practice):
            return record_entry(self.client, self.user, data, self.today)

    def item(self, **changes: Any) -> ItemIn:
        """A log of the left side at the best set-up of the day."""
        with opened(self.practice):
            today = Today.of(Client.objects.known().select_related("practice").get(pk=self.client.pk))
            rung = today.library.variation(changes.pop("variation", "figure_four.block_flat"))
            screened = today.screen(rung, Side.LEFT)
        known: dict[str, Any] = {
            "id": uuid.uuid4(), "variation": rung.id, "side": "left", "setup_used": screened.grid.setup(screened.recommended),
            "dose_s": 40, "before": 0, "during": 1, "after": 0, "kind": "stretch", "place": "wanted", "signs": [],
        }  # fmt: skip
        return ItemIn(**{**known, **changes})


class ApiTest(TestCase):
    """Tests against the API as the owner of the first of two practices."""

    def setUp(self) -> None:
        cache.clear()
        self.house = House("Mill", "owner@mill.example")
        as_application()
        self.sign_in(self.house)

    def sign_in(self, house: House) -> None:
        self.client.force_login(house.user, backend="django.contrib.auth.backends.ModelBackend")

    def url(self, path: str = "", house: House | None = None, client: uuid.UUID | None = None) -> str:
        """An address below a client of a practice."""
        at = house or self.house
        return f"/api/practices/{at.practice.pk}/clients/{client or at.client.pk}{path}"

    def post(self, url: str, body: Any) -> HttpResponse:
        data = body.model_dump(mode="json", exclude_none=True) if hasattr(body, "model_dump") else body
        return self.client.post(url, data, content_type="application/json")

    def put(self, url: str, body: Any) -> HttpResponse:
        data = body.model_dump(mode="json", exclude_none=True) if hasattr(body, "model_dump") else body
        return self.client.put(url, data, content_type="application/json")

    def fields(self, response: HttpResponse) -> dict[str, str]:
        self.assertEqual(response.status_code, 422, response.content)
        return {field["field"]: field["message"] for field in response.json()["fields"]}
