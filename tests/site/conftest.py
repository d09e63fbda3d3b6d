"""A client that speaks the API as the front end does: JSON, with the session's token on every edit."""

from __future__ import annotations

import json
from typing import Any

import pytest
from django.contrib.auth import get_user_model
from django.test import Client

from wobble.core.formats.document import write_job
from wobble.core.practice.gable import gable_workroom


class Api:
    """A signed-in user of the API; answers are (status, value)."""

    def __init__(self, name: str) -> None:
        self.user = get_user_model().objects.create_user(username=name, password="dusty hands")
        self.client = Client(enforce_csrf_checks=True)
        self.client.force_login(self.user)
        self.token = self.get("/session")[1]["csrf"]

    def get(self, path: str) -> tuple[int, Any]:
        return self._answer(self.client.get(f"/api{path}"))

    def send(self, method: str, path: str, value: Any = None, *, token: str | None = None) -> tuple[int, Any]:
        data = value if isinstance(value, bytes) else json.dumps(value).encode()
        response = self.client.generic(
            method,
            f"/api{path}",
            data,
            content_type="application/json",
            headers={"X-CSRFToken": self.token if token is None else token},
        )
        return self._answer(response)

    def post(self, path: str, value: Any = None) -> tuple[int, Any]:
        return self.send("POST", path, value)

    def put(self, path: str, value: Any) -> tuple[int, Any]:
        return self.send("PUT", path, value)

    def import_job(self, document: bytes | None = None) -> dict[str, Any]:
        status, stored = self.post("/jobs", document or write_job(gable_workroom()))
        assert status == 200, stored
        return dict(stored)

    @staticmethod
    def _answer(response: Any) -> tuple[int, Any]:
        return response.status_code, json.loads(response.content) if response.content else None


@pytest.fixture(autouse=True)
def own_folder(settings, tmp_path):
    """Answers that are kept are each test's own."""
    settings.DATA = tmp_path


@pytest.fixture
def ines(db):
    """A user."""
    return Api("ines")


@pytest.fixture
def tomas(db):
    """Another user."""
    return Api("tomas")
