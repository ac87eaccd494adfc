"""Signing in: same answer for every wrong pair, throttled, and guarded by a CSRF token."""

from __future__ import annotations

from django.http import HttpResponse
from django.test import Client as Browser

from tests.base import PASSWORD, ApiTest


class SigningIn(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.browser = Browser(enforce_csrf_checks=True)
        self.browser.get("/api/auth/me")

    def sign_in_as(self, email: str, password: str, token: str | None = None) -> HttpResponse:
        sent = token if token is not None else self.browser.cookies["csrftoken"].value
        return self.browser.post(
            "/api/auth/sign-in", {"email": email, "password": password}, content_type="application/json",
            headers={"X-CSRFToken": sent},
        )  # fmt: skip

    def test_right_pair(self) -> None:
        answer = self.sign_in_as("Owner@Mill.example ", PASSWORD)
        self.assertEqual(answer.status_code, 200)
        self.assertEqual([p["name"] for p in answer.json()["practices"]], ["Mill"])
        self.assertTrue(self.browser.get("/api/auth/me").json()["signed_in"])

    def test_unknown_address_and_wrong_password_get_one_answer(self) -> None:
        unknown = self.sign_in_as("nobody@mill.example", PASSWORD)
        wrong = self.sign_in_as("owner@mill.example", "not-the-password")
        self.assertEqual((unknown.status_code, wrong.status_code), (403, 403))
        self.assertEqual(unknown.json(), wrong.json())

    def test_without_the_token_nothing_happens(self) -> None:
        self.assertEqual(self.sign_in_as("owner@mill.example", PASSWORD, token="wrong").status_code, 403)
        self.assertFalse(self.browser.get("/api/auth/me").json()["signed_in"])

    def test_too_many_tries_wait_even_with_the_right_password(self) -> None:
        for _ in range(5):
            self.sign_in_as("owner@mill.example", "not-the-password")
        answer = self.sign_in_as("owner@mill.example", PASSWORD)
        self.assertEqual(answer.status_code, 429)
        self.assertIn("minutes", answer.json()["message"])

    def test_signing_out(self) -> None:
        self.sign_in_as("owner@mill.example", PASSWORD)
        token = self.browser.cookies["csrftoken"].value
        self.browser.post("/api/auth/sign-out", content_type="application/json", headers={"X-CSRFToken": token})
        self.assertFalse(self.browser.get("/api/auth/me").json()["signed_in"])
