"""A server killed at any moment loses no hold and stores none twice. ``ASKETA_KILLS`` says how often it dies."""

from __future__ import annotations

import http.client
import json
import os
import random
import signal
import socket
import subprocess
import sys
import threading
import time
import uuid
from contextlib import suppress
from pathlib import Path
from typing import Any

from django.db import connection
from django.test import Client as Browser
from django.test import TransactionTestCase

from audit.models import AuditEvent
from practices.tenancy import opened
from tests.base import House
from visits.models import LoggedItem, Visit

KILLS = int(os.environ.get("ASKETA_KILLS", "2"))
SEED = 20261127
TOKEN = "t" * 32
# About what one log takes: kills fall before, in and after the work.
LONGEST_WAIT_S = 0.6


class Server:
    """The application in a process of its own against the tests' database."""

    def __init__(self, session: str) -> None:
        self.session = session
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port: int = probe.getsockname()[1]
        self.start()

    def start(self) -> None:
        self.process = subprocess.Popen(
            [sys.executable, "-m", "gunicorn", "config.wsgi:application", "--bind", f"127.0.0.1:{self.port}",
             "--workers", "1", "--threads", "2", "--log-level", "critical"],
            cwd=Path(__file__).parents[1],
            env={**os.environ, "ASKETA_DB_NAME": str(connection.settings_dict["NAME"])},
            start_new_session=True,
        )  # fmt: skip
        deadline = time.monotonic() + 60
        while time.monotonic() < deadline:
            with suppress(OSError, http.client.HTTPException):
                if self.send("GET", "/api/mark")[0] == 200:
                    return
            time.sleep(0.1)
        raise AssertionError("the server did not start")

    def kill(self) -> None:
        os.killpg(self.process.pid, signal.SIGKILL)
        self.process.wait()

    def send(self, method: str, path: str, body: Any = None) -> tuple[int, Any]:
        link = http.client.HTTPConnection("127.0.0.1", self.port, timeout=60)
        try:
            headers = {
                "Content-Type": "application/json", "X-CSRFToken": TOKEN,
                "Cookie": f"sessionid={self.session}; csrftoken={TOKEN}",
            }  # fmt: skip
            link.request(method, path, None if body is None else json.dumps(body), headers)
            answer = link.getresponse()
            return answer.status, json.loads(answer.read())
        finally:
            link.close()


class Kills(TransactionTestCase):
    def test_no_hold_is_lost_or_stored_twice(self) -> None:
        house = House("Mill", "owner@mill.example")
        browser = Browser()
        browser.force_login(house.user, backend="django.contrib.auth.backends.ModelBackend")
        server = Server(browser.cookies["sessionid"].value)
        self.addCleanup(server.kill)
        address = f"/api/practices/{house.practice.pk}/clients/{house.client.pk}/items"
        first = house.item().model_dump(mode="json", exclude_none=True)
        chance = random.Random(SEED)
        sent: dict[str, int] = {}
        for _ in range(KILLS):
            item = {
                **first,
                "id": str(uuid.UUID(int=chance.getrandbits(128), version=4)),
                "during": chance.randrange(4),
            }
            sent[item["id"]] = item["during"]

            def log(body: dict[str, Any] = item) -> None:
                with suppress(OSError, http.client.HTTPException):
                    server.send("POST", address, body)

            sending = threading.Thread(target=log)
            sending.start()
            time.sleep(chance.uniform(0, LONGEST_WAIT_S))
            server.kill()
            sending.join()
            server.start()
            # The device saw no answer, or does not trust the one it saw: it sends the same again.
            self.assertEqual(server.send("POST", address, item)[0], 201)
        with opened(house.practice):
            stored = {str(item.pk): item.during for item in LoggedItem.objects.all()}
            self.assertEqual(Visit.objects.count(), 1)
            logged = AuditEvent.objects.filter(action="item.logged").count()
        self.assertEqual(stored, sent)
        self.assertEqual(logged, KILLS)
