"""Who comes in: guessing is slowed down, the owner is not locked out, and every password keeps the rules."""

from __future__ import annotations

import json
from typing import Any

import pytest
from django.contrib.auth import get_user_model
from django.core.management import CommandError, call_command
from django.test import Client

from wobble.site.people import first_code

GOOD = "dusty hands on oak"


class Page:
    """A browser that nobody has signed in with yet, at some address."""

    def __init__(self, address: str = "127.0.0.1") -> None:
        self.client = Client(enforce_csrf_checks=True, REMOTE_ADDR=address)
        self.session = self.get("/session")[1]

    def get(self, path: str) -> tuple[int, Any]:
        answer = self.client.get(f"/api{path}")
        return answer.status_code, answer.json()

    def send(self, method: str, path: str, value: object) -> tuple[int, Any]:
        token = self.client.cookies["csrftoken"].value
        answer = self.client.generic(
            method, f"/api{path}", json.dumps(value), content_type="application/json", headers={"X-CSRFToken": token}
        )
        return answer.status_code, answer.json()

    def post(self, path: str, value: object) -> tuple[int, Any]:
        return self.send("POST", path, value)

    def sign_in(self, user: str, password: str) -> int:
        return self.post("/session", {"user": user, "password": password})[0]


@pytest.fixture(autouse=True)
def nobody(db, settings, tmp_path):
    """A server of its own, without anybody."""
    settings.DATA = tmp_path
    settings.DEMO = False


def first(user: str = "ines") -> Page:
    page = Page()
    assert page.post("/session/first", {"user": user, "password": GOOD})[0] == 200
    return page


def test_guessing_is_slowed_down_and_the_owner_comes_in_from_elsewhere():
    first()
    thief = Page("203.0.113.9")
    told = [thief.sign_in("ines", f"guess {n}") for n in range(10)]
    assert told[:7] == [403] * 7
    assert told[-1] == 429
    assert thief.sign_in("ines", GOOD) == 429, "the right one too, so that nothing is learnt"
    assert Page("203.0.113.10").sign_in("ines", GOOD) == 200


def test_a_failure_is_logged_with_name_and_address(caplog):
    first()
    Page("203.0.113.9").sign_in("ines", "guess")
    assert "ines" in caplog.text
    assert "203.0.113.9" in caplog.text


def test_the_first_user_is_made_on_the_machine_itself_or_by_the_code_and_once():
    elsewhere = Page("192.0.2.7")
    assert elsewhere.session["first"]
    assert not elsewhere.session["local"]
    status, fault = elsewhere.post("/session/first", {"user": "ines", "password": GOOD, "code": "0000"})
    assert (status, fault["path"]) == (422, "$.code")
    status, session = elsewhere.post("/session/first", {"user": "ines", "password": GOOD, "code": first_code()})
    assert (status, session["user"], session["admin"]) == (200, "ines", True)
    assert not Page().session["first"]
    assert Page().post("/session/first", {"user": "tomas", "password": GOOD})[0] == 404


def test_what_is_made_ready_is_told_once_the_code_while_there_is_nobody(capsys):
    call_command("prepare")
    assert first_code() in capsys.readouterr().out
    call_command("prepare", demo=True)
    call_command("prepare", demo=True)
    assert capsys.readouterr().out.splitlines() == ["Demo jobs made.", "Demo jobs are there."]
    call_command("prepare")
    assert first_code() in capsys.readouterr().out, "the demo's user has no password"
    first("tomas")
    call_command("prepare")
    assert capsys.readouterr().out == ""


def test_an_invitation_is_good_once_and_only_from_who_keeps_the_server():
    ines = first()
    path = ines.post("/session/invitations", {})[1]["path"]
    key = path.removeprefix("/join/")
    tomas = Page("192.0.2.8")
    assert tomas.get(f"/session/invitations/{key}") == (200, {"path": path, "user": None})
    status, session = tomas.post("/session/join", {"key": key, "user": "tomas", "password": GOOD})
    assert (status, session["user"], session["admin"]) == (200, "tomas", False)
    assert Page().post("/session/join", {"key": key, "user": "eve", "password": GOOD})[0] == 404
    assert tomas.post("/session/invitations", {})[0] == 422
    assert ines.get("/session/people")[1] == ["ines", "tomas"]
    assert tomas.get("/session/people")[1] == ["tomas"]


def test_a_forgotten_password_is_made_anew_by_a_link_and_ends_the_old_sessions():
    ines = first()
    key = ines.post("/session/invitations", {})[1]["path"].removeprefix("/join/")
    tomas = Page()
    tomas.post("/session/join", {"key": key, "user": "tomas", "password": GOOD})
    reset = ines.post("/session/invitations", {"whom": "tomas"})[1]
    assert reset["user"] == "tomas"
    again = Page()
    key = reset["path"].removeprefix("/join/")
    assert again.post("/session/join", {"key": key, "user": "", "password": "another good one"})[0] == 200
    assert tomas.get("/jobs")[0] == 401
    assert ines.post("/session/invitations", {"whom": "nobody"})[0] == 404


@pytest.mark.parametrize("easy", ["short", "password", "12345678", "tomasina"])
def test_every_way_to_a_password_keeps_the_rules(easy):
    refused = Page().post("/session/first", {"user": "tomasina", "password": easy})
    assert (refused[0], refused[1]["path"]) == (422, "$.password")
    ines = first()
    key = ines.post("/session/invitations", {})[1]["path"].removeprefix("/join/")
    assert Page().post("/session/join", {"key": key, "user": "tomasina", "password": easy})[0] == 422
    status, fault = ines.send(
        "PUT", "/session/password", {"old": GOOD, "password": easy if easy != "tomasina" else "ines"}
    )
    assert (status, fault["path"]) == (422, "$.password")
    assert not get_user_model().objects.filter(username="tomasina").exists()


def test_a_password_is_changed_by_who_knows_it():
    ines = first()
    wrong = ines.send("PUT", "/session/password", {"old": "guess", "password": "another good one"})
    assert (wrong[0], wrong[1]["path"]) == (422, "$.old")
    assert ines.send("PUT", "/session/password", {"old": GOOD, "password": "another good one"})[0] == 200
    assert ines.get("/jobs")[0] == 200, "this page goes on"
    assert Page().sign_in("ines", GOOD) == 403
    assert Page().sign_in("ines", "another good one") == 200


def test_the_command_makes_and_resets_by_the_same_rules(monkeypatch, capsys):
    monkeypatch.setattr("builtins.input", lambda: "short")
    with pytest.raises(CommandError, match="too short"):
        call_command("user", "ines", "--stdin")
    monkeypatch.setattr("builtins.input", lambda: GOOD)
    call_command("user", "ines", "--stdin")
    assert Page().sign_in("ines", GOOD) == 200
    monkeypatch.setattr("builtins.input", lambda: "another good one")
    call_command("user", "ines", "--stdin")
    assert "new password" in capsys.readouterr().out
    assert Page().sign_in("ines", "another good one") == 200


def test_a_large_body_is_no_sign_in():
    status, fault = Page().post("/session", {"user": "ines", "password": "x" * 9000})
    assert (status, fault["code"]) == (403, "sign-in")
