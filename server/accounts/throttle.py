"""How many wrong passwords are borne: for one name from one address, for one name from everywhere, and for one address
whatever the names. Counting is django-axes'; the limits are three instead of one."""

from __future__ import annotations

import ipaddress
from typing import Any

from axes.handlers.database import AxesDatabaseHandler
from axes.helpers import get_cool_off
from django.conf import settings
from django.db.models import Max, Sum
from django.http import HttpRequest
from django.utils import timezone


class ByNameAndAddress(AxesDatabaseHandler):  # type: ignore[misc]
    """``settings.SIGN_IN_LIMITS`` goes with ``AXES_LOCKOUT_PARAMETERS``, one limit for each of its entries."""

    def _locking(self, request: HttpRequest, credentials: dict[str, Any] | None) -> list[Any]:
        """The counters that have reached their limits."""
        counters = self.get_user_attempts(request, credentials)
        return [
            attempts
            for attempts, limit in zip(counters, settings.SIGN_IN_LIMITS, strict=True)
            if (attempts.aggregate(n=Sum("failures_since_start"))["n"] or 0) >= limit
        ]

    def get_failures(self, request: HttpRequest, credentials: dict[str, Any] | None = None) -> int:
        """How many limits are reached; one is enough (``AXES_FAILURE_LIMIT``)."""
        return len(self._locking(request, credentials))

    def wait_s(self, request: HttpRequest, credentials: dict[str, Any] | None) -> int:
        """Seconds until every reached limit has cooled off; at least one."""
        last = [
            attempts.aggregate(last=Max("attempt_time"))["last"] for attempts in self._locking(request, credentials)
        ]
        cool_off = get_cool_off(request)
        assert cool_off is not None
        until = max((moment + cool_off for moment in last if moment is not None), default=timezone.now())
        return max(1, int((until - timezone.now()).total_seconds()))


def client_address(request: HttpRequest) -> str:
    """Where a request comes from. Behind trusted proxies (``ASKETA_TRUSTED_PROXIES`` says how many) the last of them
    that is not one's own wrote it down; what a stranger writes into the header counts for nothing."""
    direct: str = request.META.get("REMOTE_ADDR", "")
    hops: int = settings.TRUSTED_PROXIES
    if hops:
        passed = [part.strip() for part in request.META.get("HTTP_X_FORWARDED_FOR", "").split(",") if part.strip()]
        if len(passed) >= hops:
            try:
                return str(ipaddress.ip_address(passed[-hops]))
            except ValueError:
                return direct
    return direct
