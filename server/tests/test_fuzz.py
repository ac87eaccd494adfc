"""Nonsense at every address there is: refused in words, never an error of the server, and nothing that was there before
stops answering. ``ASKETA_FUZZ`` says how many rounds; each asks every address once."""

from __future__ import annotations

import json
import os
import random
import re
import urllib.parse
import uuid
from pathlib import Path
from typing import Any

from config.api import api
from tests.base import ApiTest

ROUNDS = int(os.environ.get("ASKETA_FUZZ", "5"))
SEED = int(os.environ.get("ASKETA_FUZZ_SEED", "20261127"))
SERVER_ERROR = 500
FIRST_ERROR = 400
# Signing in and out would end the session the rest is asked in; deleting has nothing to say.
LEFT_OUT = ("/api/auth/sign-in", "/api/auth/sign-out")

DATES = ("2026-11-01", "2020-02-29", "9999-12-31", "0001-01-01", "1900-01-01")
STRANGE: tuple[Any, ...] = (
    "\x00", "a\x00b", "\ud800", 10**400, -(10**30), float("inf"), float("nan"), None, [], {}, "x" * 200_000, True,
    "9999-12-31", "0000-00-00", "2026-13-45", [[[[[]]]]], {"a": {"b": {}}}, "\u202e", "١٢", "", -0.0, "1e5", 2**63, 2**31,
)  # fmt: skip
RAW = (
    b"", b"{", b"[]", b"null", b'"x"', b"\xff\xfe", b'{"a":\xff}', b"[" * 100_000, b'{"a":1e999999}', b'{"a":NaN}',
    b'{"a":' + b"9" * 5000 + b"}", b"\x00", b'{"a":"\\ud800"}',
)  # fmt: skip
SEGMENTS = ("%00", "..%2f", "'", "%ff", "%ED%A0%80", "x" * 900, "0", "None", "%F0%9F%98%80", "-1", "a.b.c")
QUERY = ("1", "x", "-5", "9" * 20, "\x00", "left", "2026-01-01", "NaN", "", "figure_four.block_flat", "typical")
KINDS = (
    "text/plain",
    "multipart/form-data",
    "application/json; charset=utf-16",
    "application/x-www-form-urlencoded",
    "",
)


VIEWS = ("", "/entries", "/measures", "/items", "/mat", "/responses", "/families", "/coming")
RELEASED = Path(__file__).parent / "data" / "0.1.0"


class Nonsense:
    """Bodies made from the API's own schema, then spoilt."""

    def __init__(self, schema: dict[str, Any], chance: random.Random, ids: list[str]) -> None:
        self.schema, self.chance, self.ids = schema, chance, ids

    def body(self, shape: dict[str, Any]) -> bytes:
        if self.chance.random() < 0.12:
            return self.chance.choice(RAW)
        value = self.made(shape)
        for _ in range(self.chance.randint(0, 2)):
            value = self.spoilt(value)
        return json.dumps(value).encode()

    def made(self, shape: dict[str, Any]) -> Any:
        """A value a schema allows, mostly."""
        while "$ref" in shape:
            shape = self.schema["components"]["schemas"][shape["$ref"].split("/")[-1]]
        choose = self.chance.choice
        for several in ("anyOf", "oneOf"):
            if several in shape:
                return self.made(choose(shape[several]))
        if "const" in shape:
            return shape["const"]
        if "enum" in shape:
            return choose(shape["enum"])
        match shape.get("type"):
            case "object":
                return self._object(shape)
            case "array":
                return [self.made(shape.get("items", {})) for _ in range(self.chance.randint(0, 3))]
            case "string":
                of_format = {"date": DATES, "uuid": self.ids}
                return choose(of_format.get(shape.get("format", ""), ("figure_four.block_flat", "x", "stature")))
            case "integer":
                return choose((0, 1, 5, 30, 60, 10**9, -1))
            case "number":
                return choose((0, 1.5, 45, 70, 1e308, -3))
            case "boolean":
                return self.chance.random() < 0.5
            case _:
                return choose((1, "a", None, {}))

    def _object(self, shape: dict[str, Any]) -> dict[str, Any]:
        needed = shape.get("required", ())
        made = {
            name: self.made(inner)
            for name, inner in shape.get("properties", {}).items()
            if name in needed or self.chance.random() < 0.6
        }
        more = shape.get("additionalProperties")
        if isinstance(more, dict):
            for name in self.chance.sample(("seat", "foot_block", "knee_deg", "x\x00"), 2):
                made[name] = self.made(more)
        return made

    def spoilt(self, value: Any) -> Any:
        """The same with something in it that does not belong there."""
        if isinstance(value, dict) and value and self.chance.random() < 0.8:
            name, how = self.chance.choice(list(value)), self.chance.random()
            if how < 0.15:
                return {key: inner for key, inner in value.items() if key != name}
            if how < 0.25:
                return {**value, self.chance.choice(("extra", "\x00", "__proto__", "id")): self.chance.choice(STRANGE)}
            return {**value, name: self.spoilt(value[name])}
        if isinstance(value, list) and value and self.chance.random() < 0.7:
            place = self.chance.randrange(len(value))
            return [self.spoilt(inner) if k == place else inner for k, inner in enumerate(value)]
        return self.chance.choice(STRANGE)


class Fuzz(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.client.raise_request_exception = False
        entry, item = self.house.record_hip(), self.house.item()
        self.post(self.url("/items"), item)
        when = {"date": self.house.today.isoformat(), "time": "10:15", "minutes": 45}
        booked = self.post(
            f"/api/practices/{self.house.practice.pk}/appointments", {**when, "client_id": str(self.house.client.pk)}
        )
        self.known = {
            "appointment_id": booked.json()["id"], "template_id": str(uuid.uuid4()),
            "practice_id": str(self.house.practice.pk), "client_id": str(self.house.client.pk),
            "entry_id": str(entry.pk), "item_id": str(item.id), "family_id": "figure_four",
            "variation_id": "figure_four.block_flat", "side": "left",
        }  # fmt: skip
        self.chance = random.Random(SEED)
        self.schema = json.loads(json.dumps(api.get_openapi_schema(), default=str))
        self.nonsense = Nonsense(self.schema, self.chance, [self.known["client_id"], self.known["entry_id"]])

    def address(self, path: str, parameters: list[dict[str, Any]]) -> str:
        for name in re.findall(r"\{(\w+)\}", path):
            odd = self.chance.random() < 0.12
            value = self.chance.choice(SEGMENTS) if odd else self.known[name]
            path = path.replace("{" + name + "}", urllib.parse.quote(value, safe="%"))
        query = [
            (each["name"], self.chance.choice(QUERY))
            for each in parameters
            if each["in"] == "query" and self.chance.random() < 0.7
        ]
        return f"{path}?{urllib.parse.urlencode(query)}" if query else path

    def test_every_address_takes_or_refuses_in_words(self) -> None:
        asked = [
            (path, method, operation)
            for path, methods in self.schema["paths"].items()
            for method, operation in methods.items()
            if path not in LEFT_OUT and method != "delete"
        ]
        self.assertGreater(len(asked), 30)
        for _ in range(ROUNDS):
            for path, method, operation in asked:
                address, more = self.address(path, operation.get("parameters", [])), {}
                if "requestBody" in operation:
                    (content,) = operation["requestBody"]["content"].values()
                    kind = self.chance.choice(KINDS) if self.chance.random() < 0.05 else "application/json"
                    more = {"data": self.nonsense.body(content["schema"]), "content_type": kind}
                with self.subTest(method=method, address=address[:200], **{k: v[:300] for k, v in more.items()}):
                    self.check(getattr(self.client, method)(address, **more))
        for view in VIEWS:
            self.assertEqual(self.client.get(self.url(view)).status_code, 200, view)
        # Nonsense may put somebody away; nobody is lost.
        search = f"/api/practices/{self.house.practice.pk}/clients/search"
        lists = [self.post(search, {"text": "", "archived": away}).json() for away in (False, True)]
        self.assertIn(str(self.house.client.pk), [client["id"] for every in lists for client in every])

    def test_spoilt_files_are_refused_or_can_be_worked_with(self) -> None:
        """What comes in can blank nothing: each view of such a client answers, and so does the list."""
        practice = f"/api/practices/{self.house.practice.pk}"
        clients = [json.loads(file.read_text(encoding="utf-8")) for file in sorted(RELEASED.glob("client-*.json"))]
        variation = json.loads((RELEASED / "variation.json").read_text(encoding="utf-8"))
        for _ in range(ROUNDS * 4):
            to, whole = self.chance.choice(
                (("clients/import", self.chance.choice(clients)), ("library/variations", variation))
            )
            for _ in range(self.chance.randint(1, 3)):
                whole = self.nonsense.spoilt(whole)
            body = json.dumps(whole).encode()
            with self.subTest(to=to, body=body[:300]):
                response = self.client.post(f"{practice}/{to}", body, content_type="application/json")
                self.check(response)
                if to == "clients/import" and response.status_code < FIRST_ERROR:
                    for view in VIEWS:
                        self.check(self.client.get(self.url(view, client=response.json()["id"])))
        self.assertEqual(self.post(f"{practice}/clients/search", {"text": ""}).status_code, 200)
        self.assertEqual(self.client.get(f"{practice}/library").status_code, 200)

    def check(self, response: Any) -> None:
        self.assertLess(response.status_code, SERVER_ERROR)
        if response.status_code >= FIRST_ERROR:
            self.assertLessEqual({"message", "code", "fields"}, set(response.json()))
