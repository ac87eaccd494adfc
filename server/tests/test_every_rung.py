"""Every rung on both sides through the API, clients of every kind in turn: Set up, its details, the mat, the card, the Library."""

from __future__ import annotations

import datetime as dt
from itertools import cycle
from typing import Any

from asketa_core import SIDES, standard_library
from clients.models import Client
from clients.schemas import ClientIn, EntryEnvelope
from clients.services import create_client, record_entry
from measures.schemas import ReadingIn
from measures.services import store_readings
from practices.tenancy import opened
from tests.base import ApiTest
from visits.models import Visit


class EveryRung(ApiTest):
    def somebody(self, kind: str | None, **facts: Any) -> Client:
        """A client with one record and a stature."""
        today, user = self.house.today, self.house.user
        with opened(self.house.practice):
            client = create_client(self.house.practice, user, ClientIn(name=f"With {kind}"), today)
            store_readings(client, user, [ReadingIn(quantity="stature", value=165)], today, today)
            if kind is not None:
                side = {} if kind in ("pregnancy", "bones") else {"side": "right"}
                said = {"entry": {"kind": kind, "facts": facts, **side}}
                record_entry(client, user, EntryEnvelope.model_validate(said).entry, today)
        return client

    def clients(self) -> list[Client]:
        today = self.house.today
        ago = lambda days: (today - dt.timedelta(days=days)).isoformat()  # noqa: E731
        stiff = self.somebody(None)
        lowest = [
            ReadingIn(quantity=quantity, side=side, value=value, method="goniometer")
            for quantity, value in (("hip_extension", -5), ("hip_adduction", 0), ("planted_dorsiflexion", 0))
            for side in SIDES
        ]
        with opened(self.house.practice):
            store_readings(stiff, self.house.user, lowest, today, today)
        return [
            self.somebody(None),
            self.somebody("hip_replacement", date=ago(63), approach="posterior", dislocated="no", trouble_since="no"),
            self.somebody("knee_pain", diagnosis="kneecap", operated="no"),
            self.somebody("pregnancy", due_date=(today + dt.timedelta(days=120)).isoformat(), ticks=["none"]),
            self.somebody("bones", t_score=-2.7, fractures=[]),
            self.somebody("groin_pinch", straight_deg=95, turned_out_deg=110),
            self.somebody("hamstrings", low_back="sore", leg_tingling="no"),
            stiff,
        ]

    def test_is_answered(self) -> None:
        clients = cycle(self.clients())
        planned = 0
        for rung in standard_library().variations():
            for side, client in zip(SIDES, clients, strict=False):
                where = f"{rung.id} {side} {client.person.name}"
                setup = self.answer(f"/setups/{rung.id}/{side}", client, where)
                first = setup["options"][0]["detail"] if setup["options"] else None
                body = {"setup": first["setup"] if first else {}}
                detail = self.post(self.url(f"/setups/{rung.id}/{side}", client=client.pk), body)
                self.assertEqual(detail.status_code, 200 if first else 404, where)
                card = self.answer(f"/library/variations/{rung.id}?side={side}", client, where)
                self.assertEqual(card["id"], rung.id)
                if first is not None and first["allowed"]:
                    plan = {"variation": rung.id, "side": side, "dose_s": setup["doses"][0]["seconds"], **body}
                    mat = self.post(self.url("/mat", client=client.pk), plan)
                    self.assertEqual(mat.status_code, 200, f"{where}: {mat.content[:300]!r}")
                    planned += 1
                    with opened(self.house.practice):
                        # One ladder on the plan at a time: an answer holds all of them.
                        Visit.objects.filter(client=client).delete()
        self.assertGreater(planned, 150)

    def answer(self, path: str, client: Client, where: str) -> Any:
        response = self.client.get(self.url(path, client=client.pk))
        self.assertEqual(response.status_code, 200, f"{where}: {response.content[:300]!r}")
        return response.json()
