"""Loading the demo practices from ``people.yaml``, through the services the interface uses."""

from __future__ import annotations

import datetime as dt
import uuid
from pathlib import Path
from typing import Any

import yaml
from django.db import transaction

from accounts.models import User
from appointments.schemas import BookIn
from appointments.services import book
from asketa_core import NoGrid, Side, SlotValue, file_of, standard_library
from clients.models import Client
from clients.schemas import ClearanceIn, ClientIn, DailyIn, EntryEnvelope, WordIn
from clients.services import answer_daily, create_client, give_clearance, give_instruction, record_entry
from common import clock
from common.speech import words
from engine.answers import Today
from library.services import add
from measures.schemas import ReadingIn
from measures.services import store_readings
from practices.models import Membership, Practice
from practices.tenancy import opened
from room.services import stock_room
from visits.notes import write_note
from visits.schemas import ItemIn, PlanIn, TrialIn, VisitNoteIn
from visits.services import answer_morning, log_item, take_to_the_mat
from visits.trials import keep_trial

PEOPLE = Path(__file__).parent / "people.yaml"


def is_loaded() -> bool:
    return Practice.objects.exists()


@transaction.atomic
def load(path: Path = PEOPLE) -> list[str]:
    """Load every practice of the file; the names loaded. Dates count back from now."""
    raw = yaml.safe_load(path.read_text(encoding="utf-8"))
    return [_load_practice(practice) for practice in raw["practices"]]


def _load_practice(raw: dict[str, Any]) -> str:
    practice = Practice.objects.create(name=raw["name"], time_zone=raw["time_zone"])
    owner = None
    for member in raw["members"]:
        user = User.objects.create_user(member["email"], member["password"], full_name=member["full_name"])
        Membership.objects.create(practice=practice, user=user, role=member["role"])
        owner = owner or user
    assert owner is not None
    with opened(practice):
        stock_room(practice, owner, raw["room"])
        for variation in raw.get("variations", []):
            _add_variation(practice, owner, variation)
        for client in raw["clients"]:
            _Loader(practice, owner, client).load()
    return practice.name


def _add_variation(practice: Practice, user: User, raw: dict[str, Any]) -> None:
    """One of the practice's own variations, said as what it changes of the rung it stands below."""
    file = file_of(standard_library().variation(raw["after"]), raw["after"], words())
    slots = {name: {**file["variation"]["slots"][name], **change} for name, change in raw.get("slots", {}).items()}
    file["variation"] |= {**raw["variation"], "slots": {**file["variation"]["slots"], **slots}}
    add(practice, user, file)


class _Loader:
    """One client's history, each part stored at the time it happened."""

    def __init__(self, practice: Practice, user: User, raw: dict[str, Any]) -> None:
        self._practice, self._user, self._raw = practice, user, raw
        self._noon = clock.local_now(practice.time_zone).replace(hour=11, minute=0, second=0, microsecond=0)

    def _at(self, days_ago: int) -> dt.datetime:
        return self._noon - dt.timedelta(days=days_ago)

    def load(self) -> None:
        raw = self._raw
        first = max([v["days_ago"] for v in raw["visits"]] + [raw.get("ranges", {}).get("days_ago", 0)]) + 1
        with clock.set_to(self._at(first)):
            today = self._at(first).date()
            about = {name: raw[name] for name in ("birth_date", "occupation", "goals", "contacts") if name in raw}
            data = ClientIn(name=raw["name"], **about)
            client = create_client(self._practice, self._user, data, today)
            body = [
                ReadingIn(quantity=name, value=value, note=raw.get("low_back", "") if name == "sitting_seat" else "")
                for name, value in raw["body"].items()
            ]
            store_readings(client, self._user, body, today, today)
        for entry in raw["entries"]:
            self._entry(client, entry, first)
        if "ranges" in raw:
            self._ranges(client, raw["ranges"])
        for visit in raw["visits"]:
            self._visit(client, visit)
        for appointment in raw.get("appointments", []):
            self._appointment(client, appointment)

    def _appointment(self, client: Client, raw: dict[str, Any]) -> None:
        data = BookIn(
            client_id=client.pk,
            date=self._at(-raw["days_ahead"]).date(),
            time=raw["time"],
            minutes=raw["minutes"],
            place=raw.get("place", ""),
            weeks=raw.get("weeks", 1),
        )
        book(client, self._user, data, self._noon.date())

    def _entry(self, client: Client, raw: dict[str, Any], recorded_days_ago: int) -> None:
        with clock.set_to(self._at(recorded_days_ago)):
            answers = {"kind": raw["kind"], "side": raw.get("side"), "facts": self._dated(raw["facts"])}
            recorded = EntryEnvelope.model_validate({"entry": answers}).entry
            entry = record_entry(client, self._user, recorded, self._noon.date())
        if "clearance" in raw:
            given = raw["clearance"]
            day = self._at(given["days_ago"])
            with clock.set_to(day):
                data = ClearanceIn(who=given["who"], date=day.date(), scope=given["scope"])
                give_clearance(entry, self._user, data, day.date())
        for word in raw.get("words", []):
            day = self._at(word["days_ago"])
            with clock.set_to(day):
                said = {name: value for name, value in word.items() if name != "days_ago"}
                give_instruction(entry, self._user, WordIn(date=day.date(), **said), day.date())
        # Asked at every visit: an older answer would count as unknown on the way.
        for days_ago in {v["days_ago"] for v in self._raw["visits"]} if "daily" in raw else ():
            answer = raw["daily"]
            day = self._at(days_ago)
            with clock.set_to(day):
                answer_daily(entry, self._user, DailyIn(**answer), day.date())

    def _dated(self, value: Any) -> Any:
        """Facts with ``{days_ago: n}`` turned into dates; a negative number lies ahead."""
        if isinstance(value, dict):
            if set(value) == {"days_ago"}:
                return self._at(value["days_ago"]).date()
            return {key: self._dated(each) for key, each in value.items()}
        return [self._dated(each) for each in value] if isinstance(value, list) else value

    def _ranges(self, client: Client, raw: dict[str, Any]) -> None:
        day = self._at(raw["days_ago"])
        readings = [
            ReadingIn(quantity=quantity, side=side, value=value, method=raw["method"], pelvis_held="yes")
            for side in Side
            for quantity, value in raw[side.value].items()
        ]
        with clock.set_to(day):
            store_readings(client, self._user, readings, day.date(), day.date())

    def _visit(self, client: Client, raw: dict[str, Any]) -> None:
        for position, item in enumerate(raw["items"]):
            moment = self._at(raw["days_ago"]) + dt.timedelta(minutes=5 * position)
            with clock.set_to(moment):
                logged = self._item(client, item)
                if "tried" in item:
                    self._trial(client, item)
            if "settled" in item:
                with clock.set_to(moment + dt.timedelta(days=1)):
                    answer_morning(client, self._user, logged, item["settled"])

        if "note" in raw:
            with clock.set_to(self._at(raw["days_ago"]) + dt.timedelta(hours=1)):
                write_note(Today.of(client), self._user, VisitNoteIn(text=raw["note"]))

    def _trial(self, client: Client, raw: dict[str, Any]) -> None:
        """Both ways of a slot, tried from the set-up that was used."""
        today, side, tried = Today.of(client), Side(raw["side"]), raw["tried"]
        setup = today.last_used(raw["variation"], side) or {}
        felt = {name: tried[name] for name in ("felt_a", "felt_b", "kept")}
        other = SlotValue(choice=tried["other"])
        said = {"variation": raw["variation"], "side": side, "slot": tried["slot"], "setup": setup, "other": other}
        keep_trial(today, self._user, TrialIn(id=uuid.uuid4(), **said, **felt))

    def _item(self, client: Client, raw: dict[str, Any]) -> uuid.UUID:
        today = Today.of(client)
        side = Side(raw["side"])
        screened = today.screen(today.library.variation(raw["variation"]), side)
        if isinstance(screened, NoGrid):
            raise ValueError(f"{raw['variation']} cannot be built in the demo room")
        last = today.last_used(raw["variation"], side)
        same_rung = any(r.variation == raw["variation"] and r.side is side for r in today.file.responses)
        setup = dict(last) if last is not None and same_rung else screened.grid.setup(screened.recommended)
        plan = PlanIn(variation=raw["variation"], side=side, setup=setup, dose_s=raw["dose_s"])
        take_to_the_mat(today, self._user, plan)
        item = ItemIn(
            id=uuid.uuid4(),
            variation=raw["variation"],
            side=side,
            setup_used=setup,
            dose_s=raw["dose_s"],
            held_s=raw.get("held_s", raw["dose_s"]),
            before=raw.get("before", 0),
            during=raw["during"],
            after=raw.get("after", 0),
            kind=raw["kind"],
            place=raw.get("place", "wanted"),
            signs=raw.get("signs", []),
            note=raw.get("note", ""),
        )
        return log_item(today, self._user, item).pk
