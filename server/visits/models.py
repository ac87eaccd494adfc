"""Visits and what happened in them."""

from __future__ import annotations

from typing import Any, ClassVar

from django.db import models

from clients.models import SIDE_CHOICES, SIDE_KNOWN, Client
from common import clock
from practices.tenancy import PracticeRow, rows_by


class VisitQuerySet(models.QuerySet["Visit"]):
    def held(self) -> VisitQuerySet:
        """Visits in which something was done: a plan alone is none yet."""
        return self.filter(models.Exists(LoggedItem.objects.filter(visit=models.OuterRef("pk"))))


class Visit(PracticeRow):
    """One day with a client. ``plan`` lists what is to be done, in that order: a family, whether its place is ``fixed``
    and, for each side planned, its variation, set-up, dose and rounds. ``minutes`` is how long the day is meant to take,
    where somebody said so."""

    client = models.ForeignKey(Client, on_delete=models.PROTECT, related_name="visits")
    date = models.DateField()
    plan: Any = models.JSONField(default=list)
    minutes = models.PositiveSmallIntegerField(null=True)
    version = models.PositiveIntegerField(default=1)

    objects: ClassVar[Any] = rows_by(VisitQuerySet)

    class Meta:
        ordering = ["date"]
        constraints = [
            models.UniqueConstraint(fields=["client", "date"], name="one_visit_a_day"),
            models.CheckConstraint(
                condition=models.Q(minutes__isnull=True) | models.Q(minutes__gte=5, minutes__lte=480),
                name="visit_length_plausible",
            ),
        ]


class LoggedItemQuerySet(models.QuerySet["LoggedItem"]):
    def standing(self) -> LoggedItemQuerySet:
        """Items no correction has replaced."""
        return self.filter(replaced_by__isnull=True)


class LoggedItem(PracticeRow):
    """What happened on one side in one hold. The id comes from the device, so that sending twice
    stores once. What nobody said is null; no ``signs`` means that somebody looked and saw none. ``snapshot`` keeps what
    was known and judged at the time, and nothing that says of whom."""

    append_only = True

    visit = models.ForeignKey(Visit, on_delete=models.PROTECT, related_name="items")
    logged_at = models.DateTimeField(default=clock.now, editable=False)
    """When the hold was first logged: a correction keeps its place among the holds of its day."""
    replaces = models.OneToOneField("self", null=True, on_delete=models.PROTECT, related_name="replaced_by")
    variation = models.CharField(max_length=80)
    side = models.CharField(max_length=5, choices=SIDE_CHOICES)
    setup_planned: Any = models.JSONField(null=True)
    setup_used: Any = models.JSONField()
    dose_s = models.PositiveSmallIntegerField()
    held_s = models.PositiveSmallIntegerField(null=True)
    """Seconds really held, where a clock ran; ``dose_s`` is what was planned."""
    before = models.PositiveSmallIntegerField(null=True)
    during = models.PositiveSmallIntegerField()
    after = models.PositiveSmallIntegerField(null=True)
    kind = models.CharField(max_length=20, null=True)
    place = models.CharField(max_length=20, null=True)
    signs: Any = models.JSONField(null=True)
    snapshot: Any = models.JSONField()

    note: str = ""
    """Free words, kept with the person they are about; filled in where holds are read."""

    objects: ClassVar[Any] = rows_by(LoggedItemQuerySet)

    class Meta:
        ordering = ["logged_at", "id"]
        constraints = [
            models.CheckConstraint(condition=SIDE_KNOWN, name="item_side_known"),
            models.CheckConstraint(
                condition=models.Q(before__lte=10, during__lte=10, after__lte=10), name="discomfort_0_to_10"
            ),
            models.CheckConstraint(condition=models.Q(dose_s__gte=1, dose_s__lte=1200), name="dose_plausible"),
        ]

    @property
    def settled(self) -> bool | None:
        """The last answer about the next morning; ``None`` while it is open. Prefetch ``mornings``."""
        answers = [morning.settled for morning in self.mornings.all() if morning.settled is not None]
        return answers[-1] if answers else None

    @property
    def asked(self) -> bool:
        """Whether the next morning was asked about. Prefetch ``mornings``."""
        return len(self.mornings.all()) > 0


class MorningAnswer(PracticeRow):
    """Whether an item's discomfort had settled by the next morning; ``None`` when it was asked and no answer came."""

    append_only = True

    item = models.ForeignKey(LoggedItem, on_delete=models.PROTECT, related_name="mornings")
    settled = models.BooleanField(null=True)

    class Meta:
        ordering = ["created_at"]


class Incident(PracticeRow):
    """Something that went wrong on a day with a client; what, in free words, is kept with the person."""

    append_only = True

    visit = models.ForeignKey(Visit, on_delete=models.PROTECT, related_name="incidents")

    class Meta:
        ordering = ["created_at", "id"]


class VisitNote(PracticeRow):
    """That the therapist wrote something about a day with a client; the words are kept with the person, and the last of a
    visit are what stands."""

    append_only = True

    visit = models.ForeignKey(Visit, on_delete=models.PROTECT, related_name="note_rows")

    class Meta:
        ordering = ["created_at", "id"]


class AcceptedCaution(PracticeRow):
    """A caution on one ladder that a therapist takes on, or no longer does; why is kept with the person. It changes no
    verdict: it is told beside the caution. ``codes`` are the rules it is about; of the middle there is no side."""

    append_only = True

    client = models.ForeignKey(Client, on_delete=models.PROTECT, related_name="accepted_cautions")
    family = models.CharField(max_length=80)
    side = models.CharField(max_length=5, choices=SIDE_CHOICES, null=True)
    codes: Any = models.JSONField()
    withdrawn = models.BooleanField(default=False)

    class Meta:
        ordering = ["created_at", "id"]
        constraints = [
            models.CheckConstraint(condition=models.Q(side__isnull=True) | SIDE_KNOWN, name="accepted_side_known"),
        ]


class Trial(PracticeRow):
    """Two ways of one slot held briefly one after the other, and which was kept. ``setup`` is the first way whole, ``b`` the
    slot's other value; ``snapshot`` keeps what was judged of both."""

    append_only = True

    visit = models.ForeignKey(Visit, on_delete=models.PROTECT, related_name="trials")
    variation = models.CharField(max_length=80)
    side = models.CharField(max_length=5, choices=SIDE_CHOICES)
    slot = models.CharField(max_length=80)
    setup: Any = models.JSONField()
    a: Any = models.JSONField()
    b: Any = models.JSONField()
    felt_a = models.PositiveSmallIntegerField()
    felt_b = models.PositiveSmallIntegerField()
    kept = models.CharField(max_length=1, choices=[("a", "a"), ("b", "b")])
    snapshot: Any = models.JSONField()

    class Meta:
        ordering = ["visit__date", "created_at", "id"]
        constraints = [
            models.CheckConstraint(condition=SIDE_KNOWN, name="trial_side_known"),
            models.CheckConstraint(condition=models.Q(felt_a__lte=10, felt_b__lte=10), name="trial_felt_0_to_10"),
            models.CheckConstraint(condition=models.Q(kept__in=("a", "b")), name="trial_kept_known"),
        ]


DECISIONS = ("stay", "offer", "step_back", "leave_out", "as_computed")


class OwnDecision(PracticeRow):
    """What a therapist decided for next time on one side of a ladder in the place of what follows from the sessions. It
    counts until that side is worked on again, or until the next of these; why, in free words, is kept with the person."""

    append_only = True

    client = models.ForeignKey(Client, on_delete=models.PROTECT, related_name="own_decisions")
    family = models.CharField(max_length=80)
    side = models.CharField(max_length=5, choices=SIDE_CHOICES)
    action = models.CharField(max_length=12, choices=[(each, each) for each in DECISIONS])

    class Meta:
        ordering = ["created_at", "id"]
        constraints = [
            models.CheckConstraint(condition=SIDE_KNOWN, name="decision_side_known"),
            models.CheckConstraint(condition=models.Q(action__in=DECISIONS), name="decision_known"),
        ]
