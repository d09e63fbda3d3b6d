"""Signing in and out, with Django's own sessions."""

from __future__ import annotations

from typing import Annotated

import msgspec
from django.conf import settings
from django.contrib.auth import authenticate, get_user_model, login, logout
from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from ninja import Router
from ninja.utils import check_csrf

from wobble.core.errors import WobbleError
from wobble.site.api.wire import answer, body, describe
from wobble.site.demo import DEMO_USER, make_demo

router = Router(tags=["session"])


class SignInRefused(WobbleError):
    """The name and password do not go together, or there is no demo here."""

    code = "sign-in"


class Session(msgspec.Struct, frozen=True, kw_only=True):
    """Who is signed in, whether the demo is open, and the token that edits must carry."""

    user: str | None
    name: str
    demo: bool
    csrf: str


class SignIn(msgspec.Struct, frozen=True, kw_only=True):
    """A name and its password."""

    user: Annotated[str, msgspec.Meta(max_length=150)]
    password: Annotated[str, msgspec.Meta(max_length=1000)]


def _session(request: HttpRequest) -> HttpResponse:
    user = request.user
    return answer(
        Session(
            user=user.get_username() if user.is_authenticated else None,
            name=(user.get_short_name() or user.get_username()) if user.is_authenticated else "",
            demo=settings.DEMO,
            csrf=get_token(request),
        )
    )


def _check_token(request: HttpRequest) -> None:
    if check_csrf(request):
        raise SignInRefused("The page is out of date.", mend="Load it again, then sign in.")


@router.get("", auth=None, openapi_extra=describe(gives=Session), operation_id="get_session")
def show(request: HttpRequest) -> HttpResponse:
    """Say who is signed in."""
    return _session(request)


@router.post("", auth=None, openapi_extra=describe(takes=SignIn, gives=Session), operation_id="sign_in")
def sign_in(request: HttpRequest) -> HttpResponse:
    """Sign in."""
    _check_token(request)
    asked = body(request, SignIn)
    user = authenticate(request, username=asked.user, password=asked.password)
    if user is None:
        raise SignInRefused("That name and password do not go together.", mend="Check both, then try again.")
    login(request, user)
    return _session(request)


@router.post("/demo", auth=None, openapi_extra=describe(gives=Session), operation_id="open_demo")
def open_demo(request: HttpRequest) -> HttpResponse:
    """Sign in as the demo user, where the demo is open."""
    _check_token(request)
    if not settings.DEMO:
        raise SignInRefused("There is no demo here.", mend="Sign in with your name and password.")
    make_demo()
    login(request, get_user_model().objects.get(username=DEMO_USER), "django.contrib.auth.backends.ModelBackend")
    return _session(request)


@router.delete("", openapi_extra=describe(gives=Session), operation_id="sign_out")
def sign_out(request: HttpRequest) -> HttpResponse:
    """Sign out."""
    logout(request)
    return _session(request)
