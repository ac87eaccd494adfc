"""What every kind of record promises, whichever it is: a folder that stands by itself."""

from __future__ import annotations

import datetime as dt
import random
import re
from contextlib import suppress
from types import NoneType, UnionType
from typing import Any, ClassVar, Literal, Union, get_args, get_origin, get_type_hints
from unittest import TestCase

from asketa_core import KINDS, InputError, Kind, Side, Situation, entry_words, forms, limits_of, mind_of
from asketa_core.clientfile import ClientFile
from asketa_core.datafiles import Record
from asketa_core.limits.model import conditions_of, facts_behind, words_of
from asketa_core.records.forms import form_of
from asketa_core.records.kind import FOLDER, About
from asketa_core.texts import codes, has
from tests.speech import english
from tests.strategies import ROOM, TODAY, client


def bare(kind: Kind) -> ClientFile:
    """A client with one record of a kind of which nothing was said."""
    side = {} if kind.sides == "middle" else {"side": "left"}
    return client([{"id": "it", "kind": kind.code, "facts": {}, **side}])


class EveryKind(TestCase):
    def test_a_record_of_which_nothing_was_said_is_read_judged_and_told(self) -> None:
        for kind in KINDS.values():
            with self.subTest(kind=kind.code):
                file = bare(kind)
                (entry,) = file.entries
                at = Situation.of(file, TODAY, ROOM)
                limits_of(entry, file, TODAY, at.ranges)
                self.assertTrue(english(entry_words(entry, TODAY)))
                self.assertTrue([note for note in mind_of(at).notes if note.entry_id == "it"])

    def test_its_side_is_as_it_says(self) -> None:
        for kind in KINDS.values():
            raw: dict[str, Any] = {"id": "it", "kind": kind.code, "facts": {}}
            for side, fits in ((None, kind.sides != "sided"), (Side.LEFT, kind.sides != "middle")):
                with self.subTest(kind=kind.code, side=side):
                    try:
                        client([{**raw, **({} if side is None else {"side": side.value})}])
                        read = True
                    except InputError:
                        read = False
                    self.assertEqual(read, fits)

    def test_what_is_asked_can_be_answered_and_depends_on_what_was_asked_before(self) -> None:
        for kind in KINDS.values():
            asked: list[str] = []
            for question in kind.questions:
                with self.subTest(kind=kind.code, fact=question.fact):
                    self.assertIn(question.fact, kind.facts.model_fields)
                    for when in question.when:
                        self.assertIn(when.fact, asked)
                        answers, _ = (
                            words_of(kind.facts.model_fields[when.fact].annotation) if when.among else (set(), 0)
                        )
                        self.assertLessEqual(set(when.among), answers)
                asked.append(question.fact)

    def test_every_form_says_everything_in_words(self) -> None:
        for form in forms():
            with self.subTest(kind=form.code):
                for fact in form.schema["properties"].values():
                    self.assertTrue(english(fact["title"]))
                    for option in (*fact.get("oneOf", ()), *fact.get("items", {}).get("oneOf", ())):
                        self.assertTrue(english(option["title"]))
                self.assertLessEqual(set(form.offered_scopes), set(form.scopes))

    def test_every_condition_of_a_rule_that_may_be_unknown_has_words(self) -> None:
        for kind in KINDS.values():
            for row in kind.rows.rows:
                for key in row.when if row.everything is None else ():
                    hint = conditions_of(kind.asked_of)[key]
                    if "unknown" in str(hint) or "TriState" in str(hint):
                        for fact in facts_behind(kind.asked_of, key):
                            self.assertTrue(has("missing", kind.code, fact), f"{kind.code}: {row.code}: {fact}")

    def test_no_words_of_its_own_stand_unused_and_none_are_missing(self) -> None:
        for kind in KINDS.values():
            source = (FOLDER / kind.code / "__init__.py").read_text(encoding="utf-8")
            said = set(re.findall(r'about\.(?:said|waits_for)\(\s*"(\w+)"|KIND\.say\(\s*"mind",\s*"(\w+)"', source))
            found = {one or other for one, other in said} | set(
                re.findall(r'about\.pain\("(\w+)", "(\w+)"\)', source)[0] if 'about.pain("' in source else ()
            )
            found |= {"list_not_asked"} if "list_not_asked=" in source else set()
            at = ("records", kind.code, "mind")
            self.assertEqual(found, set(codes(*at) if has(*at) else ()), kind.code)

    def test_it_is_pinned_on_the_body(self) -> None:
        for kind in KINDS.values():
            x, y = kind.place
            self.assertTrue(0 <= x <= 50 and 0 <= y <= 212, kind.code)
            self.assertTrue(kind.sides != "middle" or x == 50, kind.code)

    def test_dates_that_lie_ahead_are_said_to(self) -> None:
        for kind in KINDS.values():
            self.assertLessEqual(set(kind.ahead), set(kind.facts.model_fields), kind.code)

    def test_a_record_that_ended_means_nothing_any_more(self) -> None:
        for kind in KINDS.values():
            (entry,) = bare(kind).entries
            ended = entry.model_copy(update={"until_date": TODAY - dt.timedelta(days=1)})
            file = bare(kind)
            self.assertEqual(limits_of(ended, file, TODAY, file.latest_ranges(TODAY)), [], kind.code)


def answers_to(hint: Any) -> list[Any]:
    """Some answers a fact may have, not knowing among them."""
    if get_origin(hint) in (Union, UnionType):
        return [None, *(answer for each in get_args(hint) if each is not NoneType for answer in answers_to(each))]
    if get_origin(hint) is Literal:
        return list(get_args(hint))
    if get_origin(hint) is tuple:
        return [[], *([each] for each in answers_to(get_args(hint)[0]))]
    if isinstance(hint, type) and issubclass(hint, Record):
        fields = get_type_hints(hint)
        return [{name: answers_to(each)[-1] for name, each in fields.items() if get_origin(each) is not ClassVar}]
    return {
        dt.date: [(TODAY - dt.timedelta(days=days)).isoformat() for days in (9, 200, 900)],
        int: [1, 2, 12, 30, 35, 95, 170],
        float: [-3.0, -1.5, 1.0, 3.0, 5.0, 20.0, 60.0],
        bool: [True, False],
    }[hint]


class NothingAskedInVain(TestCase):
    """Whoever answers a question has told something: some other answer would have changed what is said or allowed."""

    def told(self, kind: Kind, facts: dict[str, Any], cleared: bool) -> object:
        side = {} if kind.sides == "middle" else {"side": "left"}
        word = {"who": "doctor", "date": (TODAY - dt.timedelta(days=20)).isoformat(), "scope": list(kind.scopes)}
        entries = [{"id": "it", "kind": kind.code, "facts": facts, "clearances": [word] * cleared, **side}]
        file = client(entries, daily=[{"entry_id": "it", "date": TODAY.isoformat(), "pain_today": 2}])
        (entry,) = file.entries
        limits = limits_of(entry, file, TODAY, file.latest_ranges(TODAY))
        about = About(kind, entry, file, TODAY, limits)
        of_facts = (kind.operation, kind.pinch, kind.starting_choices, kind.list_not_asked)
        on_the_day = (kind.belly, kind.keeps_range, kind.allows_no_discomfort, kind.asked_today)
        return (
            limits,
            kind.label_on(entry, TODAY),
            [note.text for note in kind.mind(about)],
            kind.news(entry, TODAY),
            [ask(entry.facts) for ask in of_facts],
            list(kind.opens(entry.facts)),
            [ask(entry.facts, TODAY) for ask in on_the_day],
        )

    def matters(self, kind: Kind, fact: str, hints: dict[str, Any], chance: random.Random) -> bool:
        for _ in range(3000):
            # Half of them not answered: where everything is, one thing is easily hidden behind another.
            said = [each.fact for each in kind.questions if chance.random() < 0.5]
            others = {each: chance.choice(answers_to(hints[each])) for each in said}
            cleared, found = bool(kind.scopes) and chance.random() < 0.5, set()
            for answer in answers_to(hints[fact]):
                with suppress(InputError):
                    found.add(repr(self.told(kind, {**others, fact: answer}, cleared)))
            if len(found) > 1:
                return True
        return False

    def test_every_question(self) -> None:
        for kind in KINDS.values():
            hints = get_type_hints(kind.facts)
            chance = random.Random(kind.code)
            for question in kind.questions:
                with self.subTest(kind=kind.code, fact=question.fact):
                    self.assertTrue(self.matters(kind, question.fact, hints, chance))


class Forms(TestCase):
    def test_a_form_is_plain_json_schema_with_words(self) -> None:
        schema = form_of(KINDS["bones"]).schema
        self.assertEqual(schema["x-order"][0], "t_score")
        self.assertEqual(schema["properties"]["wall_to_head_cm"]["x-unit"], "cm")
        self.assertEqual(schema["properties"]["t_score_date"]["format"], "date")
        self.assertEqual(
            schema["properties"]["height_lost_how"]["x-when"], [{"fact": "height_lost_cm", "answered": True}]
        )
        columns = schema["properties"]["fractures"]["items"]["properties"]
        self.assertEqual(list(columns), ["bone", "date", "low_energy"])
        self.assertNotIn("$ref", str(schema))
