"""What tests in a browser share: a live server with demo people, and a signed-in page."""

from __future__ import annotations

import datetime as dt
import os
import re
import threading
from pathlib import Path
from typing import Any, ClassVar

from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from django.core.cache import cache
from django.core.signals import request_finished, request_started
from playwright.sync_api import Browser, Page, Playwright, Route, expect, sync_playwright

from clients.models import Client
from clients.schemas import EntryEnvelope
from clients.services import record_entry
from common import clock
from demo import loader
from practices.models import Practice
from practices.tenancy import opened

CHROMIUM = "/usr/bin/chromium"
EMAIL, PASSWORD = "ottoline@weir-room.example", "weir-room-demo"
SLOW_MS = 60_000
QUIET_S = 0.1


def cut_off(route: Route) -> None:
    """Lets nothing through, as when the network is gone."""
    route.abort()


class Answering:
    """How many requests the live server is working on: it goes on with what a closed page no longer waits for."""

    def __init__(self) -> None:
        self._count = 0
        self._changed = threading.Condition()
        request_started.connect(self._begin, weak=False)
        request_finished.connect(self._end, weak=False)

    def _begin(self, **_: object) -> None:
        self._add(1)

    def _end(self, **_: object) -> None:
        self._add(-1)

    def _add(self, more: int) -> None:
        with self._changed:
            self._count += more
            self._changed.notify_all()

    def wait_for_none(self) -> None:
        """Return once nothing has been in work for a moment; what is would be in the way of emptying the tables."""
        with self._changed:
            done = self._changed.wait_for(lambda: self._count == 0, SLOW_MS / 1000)
            while done and self._changed.wait_for(lambda: self._count > 0, QUIET_S):
                done = self._changed.wait_for(lambda: self._count == 0, SLOW_MS / 1000)
        request_started.disconnect(self._begin)
        request_finished.disconnect(self._end)
        assert done, "the live server does not come to an end with a request"


class BrowserTest(StaticLiveServerTestCase):
    playwright: ClassVar[Playwright]
    browser: ClassVar[Browser]

    @classmethod
    def setUpClass(cls) -> None:
        # Playwright's own loop makes Django take the test thread for an asynchronous one.
        os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "1"
        super().setUpClass()
        cls.playwright = sync_playwright().start()
        cls.browser = cls.playwright.chromium.launch(executable_path=CHROMIUM)

    @classmethod
    def tearDownClass(cls) -> None:
        cls.browser.close()
        cls.playwright.stop()
        super().tearDownClass()

    def setUp(self) -> None:
        # Cleaned up last, when every page is closed.
        self.addCleanup(Answering().wait_for_none)
        cache.clear()
        loader.load(Path(__file__).parent / "people.yaml")
        context = self.browser.new_context(viewport={"width": 1280, "height": 800}, locale="en-GB")
        context.set_default_timeout(SLOW_MS)
        expect.set_options(timeout=SLOW_MS)
        self.page: Page = context.new_page()
        self.errors: list[str] = []
        self.page.on("pageerror", lambda error: self.errors.append(str(error)))
        self.addCleanup(context.close)

    def sign_in(self, password: str = PASSWORD) -> None:
        self.page.goto(self.live_server_url)
        self.page.get_by_label("E-mail address").fill(EMAIL)
        self.page.get_by_label("Password").fill(password)
        self.page.get_by_role("button", name="Sign in").click()

    def sign_in_to_clients(self) -> None:
        """Sign in and go to the list of clients."""
        self.sign_in()
        self.page.get_by_role("link", name="Clients", exact=True).click()
        self.page.get_by_role("button", name="New client").wait_for()

    def another_device(self) -> Page:
        """A page signed in elsewhere: nothing is shared with the first but the server."""
        state = self.page.context.storage_state()
        state["origins"] = []
        context = self.browser.new_context(storage_state=state)
        self.addCleanup(context.close)
        return context.new_page()

    def record(self, whom: str, entry: dict[str, Any]) -> None:
        """Record something of one of the Weir Room's clients."""
        practice = Practice.objects.get(name="The Weir Room")
        owner = practice.memberships.get(role="owner").user
        with opened(practice):
            client = Client.objects.known().get(person__name=whom)
            record_entry(
                client, owner, EntryEnvelope.model_validate({"entry": entry}).entry, clock.today(practice.time_zone)
            )

    def open_client(self, view: str) -> None:
        """Sign in and open one of Hartley Quill's views; ``address`` is what all of them begin with."""
        self.sign_in()
        self.page.get_by_role("link", name=re.compile("Hartley Quill")).click()
        self.page.wait_for_url(re.compile("/clients/[^/]+/"))
        self.address = re.sub(r"/clients/([^/]+)/.*", r"/clients/\1/", self.page.url)
        self.page.goto(self.address + view)

    def type_date(self, label: str, day: dt.date) -> None:
        """Type a date into a field of the open dialog, part by part as its order is."""
        field = self.page.get_by_role("dialog").get_by_role("group", name=label)
        field.get_by_role("spinbutton").first.click()
        self.page.keyboard.press("Control+a")
        self.page.keyboard.type(day.strftime("%d%m%Y"))

    def choose(self, label: str, option: str) -> None:
        """Choose from a list in the open dialog."""
        self.page.get_by_role("dialog").get_by_label(label).click()
        self.page.get_by_role("option", name=option, exact=True).click()
