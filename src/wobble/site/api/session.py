"""Signing in and out, with Django's own sessions."""

from __future__ import annotations

import os
from typing import Annotated, Any

import msgspec
from django.conf import settings
from django.contrib.auth import authenticate, get_user_model, login, logout, update_session_auth_hash
from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from ninja import Router
from ninja.utils import check_csrf

from wobble.core.errors import WobbleError
from wobble.site import people
from wobble.site.api.wire import Fault, answer, body, describe
from wobble.site.demo import DEMO_USER, make_demo

router = Router(tags=["session"])
BACKEND = "django.contrib.auth.backends.ModelBackend"
MOST_SIGN_IN = 8192


class SignInRefused(WobbleError):
    """The name and password do not go together, or there is no demo here."""

    code = "sign-in"


class Session(msgspec.Struct, frozen=True, kw_only=True):
    """Who is signed in, whether the demo is open, and the token that edits must carry.

    `admin` may invite others; `first` says that there is nobody yet, `local` that the page is on the machine itself.
    """

    user: str | None
    name: str
    demo: bool
    csrf: str
    admin: bool = False
    first: bool = False
    local: bool = False


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
            admin=bool(user.is_staff) if user.is_authenticated else False,
            first=not user.is_authenticated and not settings.DEMO and not people.anybody(),
            local=_local(request),
        )
    )


def _local(request: HttpRequest) -> bool:
    """Return whether a page is opened on the machine itself, and not through a proxy."""
    return people.address_of(request) in ("127.0.0.1", "::1") and not os.environ.get("WOBBLE_PROXY")


def _check_small(request: HttpRequest) -> None:
    if int(request.headers.get("Content-Length") or 0) > MOST_SIGN_IN:
        raise SignInRefused("That is too long for a name and a password.", mend="Send only those.")


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
    _check_small(request)
    asked = body(request, SignIn)
    user = authenticate(request, username=asked.user, password=asked.password)
    if user is None:
        raise SignInRefused("That name and password do not go together.", mend="Check both, then try again.")
    login(request, user)
    return _session(request)


class First(SignIn, frozen=True, kw_only=True):
    """The first user, and the code that the server printed where the page is on another machine."""

    code: Annotated[str, msgspec.Meta(max_length=100)] = ""


class Join(SignIn, frozen=True, kw_only=True):
    """An invitation, and who takes it; the name is not looked at where the link is for a new password."""

    key: Annotated[str, msgspec.Meta(max_length=64)]


class NewPassword(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A user's own new password."""

    old: Annotated[str, msgspec.Meta(max_length=1000)]
    password: Annotated[str, msgspec.Meta(max_length=1000)]


class Invite(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A link to make: for a new user, or for a new password of `whom`."""

    whom: Annotated[str, msgspec.Meta(max_length=150)] = ""


class Link(msgspec.Struct, frozen=True, kw_only=True):
    """A link that is good once, as its path on this site; `user` whose new password it is for."""

    path: str
    user: str | None = None


@router.post("/first", auth=None, openapi_extra=describe(takes=First, gives=Session), operation_id="make_first")
def make_first(request: HttpRequest) -> HttpResponse:
    """Make the first user, and sign in."""
    _check_token(request)
    _check_small(request)
    asked = body(request, First)
    user = people.make_first(asked.user, asked.password, code=asked.code, local=_local(request))
    login(request, user, BACKEND)
    return _session(request)


@router.get("/invitations/{key}", auth=None, openapi_extra=describe(gives=Link), operation_id="get_invitation")
def get_invitation(request: HttpRequest, key: str) -> HttpResponse:  # noqa: ARG001
    """Say what a link is for."""
    found = people.invited(key)
    return answer(Link(path=f"/join/{key}", user=found.user.get_username() if found.user else None))


@router.post("/invitations", openapi_extra=describe(takes=Invite, gives=Link), operation_id="invite")
def invite(request: HttpRequest) -> HttpResponse:
    """Make a link for a new user, or for somebody's new password."""
    asked = body(request, Invite)
    return answer(Link(path=f"/join/{people.invite(request.user, asked.whom)}", user=asked.whom or None))


@router.get("/people", openapi_extra=describe(gives=tuple[str, ...]), operation_id="list_people")
def list_people(request: HttpRequest) -> HttpResponse:
    """List who may sign in, for whoever keeps the server."""
    if not getattr(request.user, "is_staff", False):
        return answer([request.user.get_username()])
    return answer(list(get_user_model().objects.order_by("username").values_list("username", flat=True)))


@router.post("/join", auth=None, openapi_extra=describe(takes=Join, gives=Session), operation_id="join")
def join(request: HttpRequest) -> HttpResponse:
    """Take an invitation, and sign in."""
    _check_token(request)
    _check_small(request)
    asked = body(request, Join)
    login(request, people.join(asked.key, asked.user, asked.password), BACKEND)
    return _session(request)


@router.put("/password", openapi_extra=describe(takes=NewPassword, gives=Session), operation_id="put_password")
def put_password(request: HttpRequest) -> HttpResponse:
    """Change one's own password; other devices have to sign in again."""
    asked = body(request, NewPassword)
    if not request.user.check_password(asked.old):
        raise people.Unfit("That is not your password.", mend="Type the one that you sign in with.", path="$.old")
    people.set_password(request.user, asked.password)
    update_session_auth_hash(request, request.user)  # type: ignore[arg-type]
    return _session(request)


@router.post("/demo", auth=None, openapi_extra=describe(gives=Session), operation_id="open_demo")
def open_demo(request: HttpRequest) -> HttpResponse:
    """Sign in as the demo user, where the demo is open."""
    _check_token(request)
    if not settings.DEMO:
        raise SignInRefused("There is no demo here.", mend="Sign in with your name and password.")
    make_demo()
    login(request, get_user_model().objects.get(username=DEMO_USER), BACKEND)
    return _session(request)


def too_often(_request: HttpRequest, *_more: Any) -> HttpResponse:
    """Answer who gave too many wrong passwords for a name: the right one too, so that nothing is learnt from it."""
    mend = "Wait ten minutes, or sign in from elsewhere."
    return answer(Fault(code="too-often", message="Too many wrong passwords for this name from here.", mend=mend), 429)


@router.delete("", openapi_extra=describe(gives=Session), operation_id="sign_out")
def sign_out(request: HttpRequest) -> HttpResponse:
    """Sign out."""
    logout(request)
    return _session(request)
