"""A visit on the day a limit changes: what was open the day before gives way, and says why."""

from __future__ import annotations

import datetime as dt
import re
from typing import Any

from playwright.sync_api import Locator, expect

from clients.models import Client
from common import clock
from engine.answers import Today
from practices.models import Practice
from practices.tenancy import opened
from tests.browser.base import BrowserTest
from visits.schemas import ItemIn
from visits.services import log_item

FLAT, SHORT = "rest.calves", "calves on a chair"
DAYS_OF_A_PREGNANCY = 280
WEEK_20 = 140


class LimitChanges(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.tomorrow = clock.today("Europe/London") + dt.timedelta(days=1)
        due = self.tomorrow + dt.timedelta(days=DAYS_OF_A_PREGNANCY - WEEK_20)
        self.record("Hartley Quill", pregnancy(due))
        self.rested_flat_a_week_ago()

    def rested_flat_a_week_ago(self) -> None:
        practice = Practice.objects.get(name="The Weir Room")
        owner = practice.memberships.get(role="owner").user
        with opened(practice), clock.set_to(clock.now() - dt.timedelta(days=7)):
            today = Today.of(Client.objects.known().get(person__name="Hartley Quill"))
            said = {"variation": FLAT, "side": "left", "setup_used": {}, "dose_s": 300, "during": 0}
            calm: dict[str, Any] = {"kind": "calm", "place": "wanted", "signs": []}
            log_item(today, owner, ItemIn.model_validate({"id": "0" * 32, **said, **calm}))

    def rest(self) -> Locator:
        return self.page.get_by_role("listitem", name="Rest", exact=True)

    def plan_again(self) -> None:
        page = self.page
        page.goto(self.address + "plan")
        page.get_by_role("button", name=re.compile("^Same as")).click()
        expect(self.rest()).to_be_visible()

    def test_flat_on_the_back_the_day_before_week_twenty_and_on_it(self) -> None:
        page = self.page
        self.open_client("limits")
        self.plan_again()
        expect(self.rest()).to_contain_text(SHORT)
        # What comes is told ahead.
        page.goto(self.address + f"plan?date={self.tomorrow.isoformat()}")
        page.get_by_role("button", name=re.compile("^Same as")).click()
        expect(self.rest()).not_to_contain_text(SHORT)
        noon = dt.datetime.combine(self.tomorrow, dt.time(12), tzinfo=dt.UTC)
        with clock.set_for_everyone(noon):
            page.goto(self.address + "plan")
            expect(self.rest()).to_contain_text("From week 20 no quiet holds flat on the back.")
            page.goto(self.address + "mat")
            page.get_by_role("button", name="Begin").click()
            page.get_by_role("button", name="Skip").click()
            rest = page.get_by_role("region", name="both", exact=True)
            expect(rest).to_contain_text("on the side")
            rest.get_by_role("button", name="during 0, both").click()
            rest.get_by_role("button", name="Calm, where wanted").click()
            rest.get_by_role("button", name="Log both").click()
            page.goto(self.address + "responses")
            expect(page.get_by_role("row", name=re.compile("on the side"))).to_be_visible()
            page.wait_for_load_state("networkidle")
        self.assertEqual(self.errors, [])


def pregnancy(due: dt.date) -> dict[str, Any]:
    nothing = {
        "ticks": ["none"],
        "girdle_pain": "no",
        "unwell_lying_flat": "no",
        "blood_pressure_high": "no",
        "symptoms_now": ["none"],
    }
    return {"kind": "pregnancy", "facts": {"due_date": due.isoformat(), "babies": "one", **nothing}}
