"""The client file: out, in, and out again the same."""

from __future__ import annotations

import copy
import datetime as dt
import json
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st
from hypothesis.extra.django import TestCase as PropertyTest

from clients.models import Client
from common import clock
from exchange import services
from practices.tenancy import opened
from tests.base import ApiTest, House


def without_ids(file: dict[str, Any]) -> dict[str, Any]:
    """A file with every id replaced by its place, so that copies can be compared."""
    file = copy.deepcopy(file)
    places = {entry["id"]: f"entry {k}" for k, entry in enumerate(file["entries"])}
    file["client"]["id"] = "client"
    for entry in file["entries"]:
        entry["id"] = places[entry["id"]]
    for fact in file["daily"]:
        fact["entry_id"] = places[fact["entry_id"]]
    for k, response in enumerate(file["responses"]):
        response["id"] = f"response {k}"
    return file


class RoundTrip(ApiTest):
    def setUp(self) -> None:
        with clock.set_to(clock.now() - dt.timedelta(days=20)):
            super().setUp()
            entry = self.house.record_hip(surgeon_bend_deg=80.0)
            self.house.record_knee()
            given = {"who": "surgeon", "date": str(clock.today("Europe/London")), "scope": ["midline"]}
            self.post(self.url(f"/entries/{entry.pk}/clearances"), given)
            item = self.house.item(note="a good day", signs=["wobble"])
            self.post(self.url("/items"), item)
        with clock.set_to(clock.now() - dt.timedelta(days=19)):
            self.post(self.url(f"/items/{item.id}/morning"), {"settled": True})

    def exported(self, client: Any = None) -> dict[str, Any]:
        return json.loads(self.client.get(self.url("/file", client=client)).content)

    def bring_in(self, file: Any) -> Any:
        return self.post(f"/api/practices/{self.house.practice.pk}/clients/import", file)

    def test_comes_back_exactly(self) -> None:
        file = self.exported()
        self.assertEqual((len(file["entries"]), len(file["responses"])), (2, 1))
        answer = self.bring_in(file)
        self.assertEqual(answer.status_code, 201, answer.content)
        self.assertEqual(without_ids(self.exported(answer.json()["id"])), without_ids(file))

    def test_the_copy_is_judged_like_the_original(self) -> None:
        copy_id = self.bring_in(self.exported()).json()["id"]
        ours, theirs = (
            self.client.get(self.url("/ladders/figure_four", client=client)).json() for client in (None, copy_id)
        )
        self.assertEqual(ours, theirs)

    def test_the_file_name_says_nothing(self) -> None:
        answer = self.client.get(self.url("/file"))
        self.assertNotIn("Client of", answer["Content-Disposition"])

    def test_an_unknown_key_is_refused_with_its_path_and_nothing_is_stored(self) -> None:
        file = self.exported()
        file["entries"][0]["facts"]["aproach"] = "posterior"
        with opened(self.house.practice):
            before = Client.objects.count()
        problems = self.fields(self.bring_in(file))
        self.assertTrue(any(path.endswith("facts.aproach") for path in problems), problems)
        with opened(self.house.practice):
            self.assertEqual(Client.objects.count(), before)

    def test_implausible_values_and_strangers_are_refused(self) -> None:
        for change in (
            lambda f: f["body"][0].update(value=17),
            lambda f: f["ranges"][0].update(value_deg=400),
            lambda f: f["responses"][0].update(variation="figure_four.flying"),
            lambda f: f["responses"][0].update(date=str(self.house.today + dt.timedelta(days=400))),
            lambda f: f["daily"].append({"entry_id": "nobody", "date": "2026-01-01"}),
            lambda f: f.update(version=2),
        ):
            file = self.exported()
            change(file)
            self.assertEqual(self.bring_in(file).status_code, 422)


FACTS = st.fixed_dictionaries(
    {},
    optional={
        "approach": st.sampled_from(["posterior", "direct_anterior", "anterolateral", "lateral", "unknown"]),
        "date": st.dates(dt.date(2000, 1, 1), dt.date(2025, 12, 31)).map(str),
        "dislocated": st.sampled_from(["yes", "no", "unknown"]),
        "surgeon_bend_deg": st.floats(30, 140, allow_nan=False).map(lambda x: round(x, 1)),
    },
)
FILES = st.fixed_dictionaries(
    {
        "format": st.just("asketa-client"),
        "version": st.just(1),
        "client": st.fixed_dictionaries({"id": st.just("x"), "name": st.sampled_from(["Ada", "Bo", "Åse Ø"])}),
        "entries": st.lists(st.tuples(st.sampled_from(["left", "right"]), FACTS), max_size=2, unique_by=lambda row: row[0]).map(
            lambda rows: [
                {"id": str(k), "kind": "hip_replacement", "side": side, "facts": facts}
                for k, (side, facts) in enumerate(rows)
            ]
        ),
        "body": st.lists(
            st.builds(
                lambda value, date: {"quantity": "stature", "value": value, "date": str(date)},
                st.integers(120, 220), st.dates(dt.date(2020, 1, 1), dt.date(2025, 12, 31)),
            ),
            max_size=3,
            unique_by=lambda m: m["date"],
        ).map(lambda rows: sorted(rows, key=lambda m: m["date"])),
        "settings": st.fixed_dictionaries({"discomfort_allowed": st.integers(0, 5)}),
    }
)  # fmt: skip


class AnyFile(PropertyTest):
    def setUp(self) -> None:
        self.house = House("Mill", "owner@mill.example")

    @settings(max_examples=25)
    @given(FILES)
    def test_in_and_out_again_is_the_same(self, file: dict[str, Any]) -> None:
        with opened(self.house.practice):
            first = services.exported(services.imported(self.house.practice, self.house.user, file))
            second = services.exported(services.imported(self.house.practice, self.house.user, first))
        self.assertEqual(without_ids(first), without_ids(second))
        self.assertEqual(
            [e["facts"].get("date") for e in first["entries"]], [e["facts"].get("date") for e in file["entries"]]
        )
        self.assertEqual([m["value"] for m in first["body"]], [m["value"] for m in file["body"]])
