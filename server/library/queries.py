"""Reads for the Library: families and rungs, drawn for a typical body or for a client."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from django.http import Http404

from asketa_core import (
    Family,
    InputError,
    LaneAnswer,
    NoGrid,
    Room,
    Screened,
    Side,
    Situation,
    StackSlot,
    Variation,
    View,
    codes,
    cue_words,
    describe,
    detail_at,
    figure,
    file_of,
    found_by,
    hold_words,
    lane_answer_of,
    lane_view,
    less_support_words,
    lineage,
    no_stack_words,
    prop_words,
    recipe_lines,
    say,
    side_view,
    slot_words,
    todays,
    usual_closers,
)
from clients.models import Client
from common import clock
from common.speech import Text, words
from engine.answers import RULES_FINGERPRINT, Today, cached, digest
from engine.shelf import Shelf, practice_library
from library.models import OwnRung
from library.schemas import (
    CloserOut,
    CodeWords,
    Drawing,
    FamilyCards,
    OwnMark,
    OwnTrouble,
    RecipeLine,
    RetiredLine,
    RungCard,
    RungLine,
    ShelfFamily,
    ShelfOut,
    SlotLine,
    StepName,
    VariationOut,
    VersionOut,
    WordsOut,
)
from practices.models import Practice


@dataclass(frozen=True)
class Sitter:
    """Who the figures are drawn for: a client today, or a typical body in a well-stocked room."""

    shelf: Shelf
    situation: Situation
    today: Today | None

    @staticmethod
    def of(client: Client | None) -> Sitter:
        """``InputError`` when a client's stature is missing."""
        shelf = practice_library()
        if client is None:
            return Sitter(shelf, Situation.of_nobody(), None)
        today = Today.of(client)
        return Sitter(shelf, today.situation, today)

    @property
    def room(self) -> Room:
        return self.situation.room

    def lane(self, rung: Variation, side: Side) -> tuple[LaneAnswer, str]:
        """The verdict on a rung for one side and its figure."""
        if self.today is not None:
            return self.today.lane(rung, side), self.today.drawing(rung, side)

        def compute() -> tuple[LaneAnswer, str]:
            screened = self.situation.screen(rung, side)
            drawn = ""
            if not isinstance(screened, NoGrid):
                drawn = self.drawn(screened, screened.recommended, lane_view(rung, side), small=True)
            return lane_answer_of(rung, side, screened), drawn

        return cached("typical", _rung_key(rung), side, about=rung.family, compute=compute)

    def screen(self, rung: Variation, side: Side) -> Screened | NoGrid:
        return self.today.screen(rung, side) if self.today is not None else self.situation.screen(rung, side)

    def drawn(self, screened: Screened, row: int, view: View, *, small: bool) -> str:
        return figure(screened, self.situation.body, self.room, row, view, words(), small=small)


def _rung_key(rung: Variation) -> str:
    """A rung's content and the rules it is judged by: what an answer about nobody in particular depends on."""
    return digest(rung.model_dump_json() + RULES_FINGERPRINT["engine"])


def shelf_out() -> ShelfOut:
    """Everything in the library by family, with what of the practice's own is put away or cannot be read."""
    shelf = practice_library()
    return ShelfOut(
        families=[
            ShelfFamily(
                family=family.family,
                name=family.name,
                sanskrit=family.sanskrit or "",
                about=family.about,
                found_by=found_by(family),
                purposes=list(family.purposes),
                rungs=[
                    RungLine(id=rung.id, name=rung.name, short=rung.short, own=rung.id in shelf.own, props=_props(rung))
                    for rung in family.variations
                ],
            )
            for family in sorted(shelf.library.families.values(), key=lambda family: words().sort_key(family.name))
        ],
        troubles=[
            OwnTrouble(variation=variation, name=trouble.name, number=trouble.number, message=trouble.message)
            for variation, trouble in shelf.troubles.items()
        ],
        retired=[RetiredLine(variation=rung.id, name=rung.name) for rung in shelf.library.retired.values()],
    )


def _props(rung: Variation) -> list[Text]:
    """Kinds of props a rung may use, in words."""
    kinds = {kind for slot in rung.slots.values() if isinstance(slot, StackSlot) for kind in slot.kinds}
    chair = any(isinstance(slot, StackSlot) and slot.base == "chair" for slot in rung.slots.values())
    return [prop_words(kind) for kind in sorted(kinds | ({"chair"} if chair else set()))]


def family_cards(sitter: Sitter, family_id: str, side: Side) -> FamilyCards:
    family = _family(sitter, family_id)
    return FamilyCards(
        family=family.family,
        name=family.name,
        sanskrit=family.sanskrit or "",
        about=family.about,
        shared=family.shared,
        stature_cm=sitter.situation.body.stature_cm,
        rungs=[_card(sitter, rung, side) for rung in family.variations],
    )


def _card(sitter: Sitter, rung: Variation, side: Side) -> RungCard:
    answer, drawn = sitter.lane(rung, side)
    return RungCard(
        id=rung.id,
        name=rung.name,
        short=rung.short,
        own=rung.id in sitter.shelf.own,
        figure=drawn or None,
        verdict=answer.verdict if sitter.today is not None else None,
        reason=next(iter(_reasons(answer)), "") if sitter.today is not None or answer.best is None else "",
    )


def _reasons(answer: LaneAnswer) -> list[Text]:
    """Why a rung is closed; else what to mind in it."""
    if answer.best is None:
        return [answer.no_stack or ""]
    return list(answer.best.reasons)


def _family(sitter: Sitter, family_id: str) -> Family:
    family = sitter.shelf.library.families.get(family_id)
    if family is None:
        raise Http404
    return family


def get_variation(shelf: Shelf, variation_id: str) -> Variation:
    """A variation offered or retired; 404 otherwise."""
    try:
        return shelf.library.variation(variation_id)
    except InputError as error:
        raise Http404 from error


def variation_out(sitter: Sitter, variation_id: str, side: Side) -> VariationOut:
    """One variation in full: recipe, words, and figures from every side."""
    rung = get_variation(sitter.shelf, variation_id)
    family = sitter.shelf.library.families[rung.family]
    client = sitter.today
    return VariationOut(
        id=rung.id,
        family=family.family,
        family_name=family.name,
        name=rung.name,
        sanskrit=rung.sanskrit or family.sanskrit or "",
        short=rung.short,
        shared=rung.shared,
        side=side,
        seen_from=rung.seen_from,
        hold=hold_words(rung.hold),
        recipe=[RecipeLine(about=line.about, words=line.words) for line in recipe_lines(rung)],
        slots=[
            SlotLine(name=name, label=slot.label, words=slot_words(slot), less_support=less_support_words(slot))
            for name, slot in rung.slots.items()
        ],
        cues=list(cue_words(rung)),
        watch=[say("watch", sign) for sign in rung.watched],
        tests=[say("limits", f"gate.{gate.code}", "therapist") for gate in rung.gates],
        counter=[say("recipe", "counter", which) for which in rung.counter],
        step_back=_step(next(sitter.shelf.library.steps(rung, "step_back"), None)),
        step_forward=_step(next(sitter.shelf.library.steps(rung, "step_forward"), None)),
        **_drawings(sitter, rung, side),
        verdict=client.lane(rung, side).verdict if client is not None else None,
        reasons=_reasons(client.lane(rung, side)) if client is not None else [],
        own=_mark(rung) if rung.id in sitter.shelf.own else None,
        # A copy stands below the rung it was made from; an own variation keeps its place.
        file=sitter.shelf.own[rung.id].file(words())
        if rung.id in sitter.shelf.own
        else file_of(rung, rung.id, words()),
    )


def _drawings(sitter: Sitter, rung: Variation, side: Side) -> dict[str, Any]:
    """A rung's set-up and its figures from every side."""

    def compute() -> dict[str, Any]:
        screened = sitter.screen(rung, side)
        if isinstance(screened, NoGrid):
            why = no_stack_words(screened)
            return {"line": "", "fetch": [], "home": [], "no_stack": why, "figure_words": "", "drawings": []}
        row = screened.recommended
        detail = detail_at(sitter.situation, screened, row)
        views = (side_view(rung, side), View.FRONT, View.BEHIND, View.ABOVE)
        return {
            "line": detail.whole_line,
            "fetch": detail.fetch,
            "home": detail.home,
            "no_stack": None,
            "figure_words": describe(screened, row),
            "drawings": [Drawing(view=view, figure=sitter.drawn(screened, row, view, small=False)) for view in views],
        }

    if sitter.today is not None:
        return sitter.today.cached("drawings", _rung_key(rung), side, about=f"drawings {rung.id}", compute=compute)
    return cached("typical", "drawings", _rung_key(rung), side, about=f"drawings {rung.id}", compute=compute)


def _step(rung: Variation | None) -> StepName | None:
    return StepName(id=rung.id, short=rung.short) if rung is not None else None


def _mark(rung: Variation) -> OwnMark:
    key = rung.id.split(".", maxsplit=1)[1]
    row = OwnRung.objects.standing().select_related("created_by", "practice").get(key=key)
    return OwnMark(
        number=row.number, after=row.content["after"], saved_on=_day(row), saved_by=_who(row), retired=row.retired
    )


def _day(row: OwnRung) -> Any:
    return clock.day_of(row.created_at, row.practice.time_zone)


def _who(row: OwnRung) -> str:
    return row.created_by.full_name if row.created_by is not None else ""


def variation_file(variation_id: str) -> dict[str, Any]:
    """A variation as a file another practice understands: it goes back to a rung everybody has."""
    shelf = practice_library()
    rung = get_variation(shelf, variation_id)
    if rung.id not in shelf.own:
        return file_of(rung, rung.id, words())
    return {**shelf.own[rung.id].file(words()), "after": lineage(shelf.own, rung.id)[-1]}


def closers(variation_id: str) -> list[CloserOut]:
    """What usually closes a variation. Slow the first time: every record is tried on every set-up."""
    rung = get_variation(practice_library(), variation_id)
    found = cached("closers", _rung_key(rung), compute=lambda: usual_closers(rung))
    return [CloserOut.model_validate(closer, from_attributes=True) for closer in found]


def words_out() -> WordsOut:
    return WordsOut(cues=code_words("cues"), watch=code_words("watch"))


def code_words(section: str) -> list[CodeWords]:
    """Every code of a plain section in its order, with its words."""
    return [CodeWords(code=code, words=say(section, code)) for code in codes(section)]


def versions(practice: Practice, variation_id: str) -> list[VersionOut]:
    """Every version of one of the practice's own variations, the latest first; 404 when there is none."""
    family, _, key = variation_id.partition(".")
    every = OwnRung.objects.filter(key=key).select_related("created_by").order_by("-number")
    rows = [row for row in every if row.content["family"] == family]
    if not rows:
        raise Http404
    return [
        VersionOut(
            id=row.pk,
            number=row.number,
            saved_on=clock.day_of(row.created_at, practice.time_zone),
            saved_by=_who(row),
            retired=row.retired,
            file=todays(row.content, practice_library().library),
        )
        for row in rows
    ]
