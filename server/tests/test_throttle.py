"""Wrong passwords: how many are borne for a name, from an address, and for both together."""

from __future__ import annotations

from typing import Any

from django.test import Client as Browser
from django.test import TestCase, override_settings

from accounts.models import User
from accounts.throttle import client_address

PASSWORD = "a-long-test-password"


class SigningIn(TestCase):
    def setUp(self) -> None:
        for name in ("ada", "bo"):
            User.objects.create_user(f"{name}@mill.example", PASSWORD, full_name=name)

    def attempt(self, name: str, password: str = "wrong-password", address: str = "10.0.0.1", **more: Any) -> Any:
        browser = Browser(REMOTE_ADDR=address, **more)
        browser.get("/api/auth/me")
        body = {"email": f"{name}@mill.example", "password": password}
        return browser.post("/api/auth/sign-in", body, content_type="application/json")

    def test_five_for_one_name_from_one_address_lock_that_pair_only(self) -> None:
        statuses = [self.attempt("ada").status_code for _ in range(6)]
        self.assertEqual(statuses, [403, 403, 403, 403, 429, 429])
        self.assertEqual(self.attempt("ada", PASSWORD).status_code, 429)
        self.assertEqual(self.attempt("bo", PASSWORD).status_code, 200, "others behind the address go on")
        self.assertEqual(self.attempt("ada", PASSWORD, "10.0.0.2").status_code, 200, "and so does she elsewhere")

    def test_a_name_tried_from_many_addresses_is_locked_everywhere(self) -> None:
        for k in range(20):
            self.attempt("ada", address=f"10.0.1.{k}")
        self.assertEqual(self.attempt("ada", PASSWORD, "10.0.2.1").status_code, 429)
        self.assertEqual(self.attempt("bo", PASSWORD, "10.0.2.1").status_code, 200)

    def test_an_address_that_tries_many_names_is_locked_for_all(self) -> None:
        for k in range(50):
            self.attempt(f"nobody{k}")
        self.assertEqual(self.attempt("bo", PASSWORD).status_code, 429)
        self.assertEqual(self.attempt("bo", PASSWORD, "10.0.0.2").status_code, 200)

    def test_says_how_long_to_wait(self) -> None:
        for _ in range(5):
            response = self.attempt("ada")
        wait = int(response.headers["Retry-After"])
        self.assertTrue(500 < wait <= 600, wait)
        self.assertIn("Wait 10 minutes", response.json()["message"])

    def test_the_address_is_not_taken_from_a_strangers_header(self) -> None:
        for k in range(5):
            self.attempt("ada", HTTP_X_FORWARDED_FOR=f"10.9.9.{k}")
        self.assertEqual(self.attempt("ada", PASSWORD, HTTP_X_FORWARDED_FOR="10.9.9.99").status_code, 429)


class Proxies(TestCase):
    def address(self, forwarded: str | None) -> str:
        request = Browser(REMOTE_ADDR="192.0.2.1").get("/api/auth/me").wsgi_request
        if forwarded is not None:
            request.META["HTTP_X_FORWARDED_FOR"] = forwarded
        return client_address(request)

    def test_without_one_nothing_forwarded_is_believed(self) -> None:
        self.assertEqual(self.address("198.51.100.7"), "192.0.2.1")

    @override_settings(TRUSTED_PROXIES=1)
    def test_behind_one_its_own_entry_counts(self) -> None:
        self.assertEqual(self.address("203.0.113.5, 198.51.100.7"), "198.51.100.7")
        self.assertEqual(self.address("no address"), "192.0.2.1")
        self.assertEqual(self.address(None), "192.0.2.1")

    @override_settings(TRUSTED_PROXIES=2)
    def test_behind_two_the_one_before(self) -> None:
        self.assertEqual(self.address("203.0.113.5, 198.51.100.7, 198.51.100.8"), "198.51.100.7")


class Accounts(TestCase):
    def test_a_superuser_can_be_made(self) -> None:
        user = User.objects.create_superuser("root@mill.example", PASSWORD, full_name="Root")
        self.assertTrue(user.is_superuser)
        self.assertTrue(user.check_password(PASSWORD))
