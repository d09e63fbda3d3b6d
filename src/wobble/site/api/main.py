"""The API, its errors and its OpenAPI document."""

from __future__ import annotations

import logging
import secrets
from typing import Any

from django.db import OperationalError
from django.http import HttpRequest, HttpResponse
from msgspec.structs import replace
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError
from ninja.openapi.schema import OpenAPISchema
from ninja.security import django_auth

from wobble.core.budget import GivenUp, TooMuch
from wobble.core.errors import DocumentError, LengthError, NotThere, SurveyError, WobbleError
from wobble.site import kept, room
from wobble.site.answers import Busy
from wobble.site.api import fit, gauge, hold, jobs, make, order, practice, session, setout, shelf, wire
from wobble.site.api import set as set_
from wobble.site.computing import Failed
from wobble.site.edits import Contradiction
from wobble.site.people import Unfit
from wobble.site.rebase import Clash

log = logging.getLogger(__name__)
STATUS: dict[type[WobbleError], int] = {
    NotThere: 404,
    Clash: 409,
    Busy: 429,
    TooMuch: 422,
    GivenUp: 499,
    Contradiction: 409,
    session.SignInRefused: 403,
    Unfit: 422,
    DocumentError: 422,
    LengthError: 422,
    SurveyError: 422,
}


class Api(NinjaAPI):
    """Ninja with the core's values among the schemas."""

    def get_openapi_schema(self, *args: Any, **kwargs: Any) -> OpenAPISchema:
        """Return the OpenAPI document."""
        schema = super().get_openapi_schema(*args, **kwargs)
        wire.fill(schema)
        return schema


api = Api(title="Wobble", version="1", auth=django_auth, openapi_url="openapi.json", docs_url=None)
api.add_router("/session", session.router)
api.add_router("/shelf", shelf.router)
api.add_router("/jobs", jobs.router)
api.add_router("/jobs", gauge.router)
api.add_router("/jobs", practice.router)
api.add_router("/jobs", fit.router)
api.add_router("/jobs", hold.router)
api.add_router("/jobs", setout.router)
api.add_router("/jobs", make.router)
api.add_router("/jobs", order.router)
api.add_router("/jobs", set_.router)
api.add_router("/starters", setout.starters)


@api.exception_handler(WobbleError)
def refuse(_request: HttpRequest, error: Any) -> HttpResponse:
    """Answer a core error with its status and its own words."""
    status = next((code for kind, code in STATUS.items() if isinstance(error, kind)), 422)
    fault = wire.Fault(code=error.code, message=error.message, mend=error.mend, path=error.path)
    if isinstance(error, Clash):
        fault = replace(fault, revision=error.revision, sides=error.sides)
    if isinstance(error, Contradiction):
        fault = replace(fault, theirs=error.theirs)
    return wire.answer(fault, status)


@api.exception_handler(HttpError)
def refuse_call(_request: HttpRequest, error: Any) -> HttpResponse:
    """Answer what the framework refuses; of a token that is not the session's the page can get a new one."""
    code = "token" if error.status_code == 403 else "refused"
    mend = "Load the page again, then do it again." if code == "token" else "Look at the call again."
    response = wire.answer(wire.Fault(code=code, message=f"{error}.", mend=mend), error.status_code)
    if code == "token":
        response["X-Wobble-Token"] = "stale"
    return response


@api.exception_handler(OperationalError)
def refuse_write(_request: HttpRequest, error: Any) -> HttpResponse:
    """Answer that the database cannot take it now: nothing of the call was stored."""
    log.error("The database refused: %s", error)
    if room.is_full(error):
        kept.clear()  # the next try may find room
        fault = wire.Fault(
            code="full",
            message="The server's disk is full; nothing of this was stored.",
            mend="Delete jobs that are done, or make room on the server. What is typed waits on this device.",
        )
        return wire.answer(fault, 507)
    return wire.answer(
        wire.Fault(code="busy", message="The server is writing much else.", mend="Try again in a moment."), 503
    )


@api.exception_handler(Failed)
@api.exception_handler(Exception)
def fail(request: HttpRequest, error: Any) -> HttpResponse:
    """Answer what nobody foresaw: logged under a number that the user sees."""
    number = error.message if isinstance(error, Failed) else secrets.token_hex(4)
    log.error("%s %s %s failed", number, request.method, request.path, exc_info=error)
    fault = wire.Fault(
        code="server",
        message=f"The server could not do that. It is noted as {number}.",
        mend="Try again; if it stays so, tell whoever keeps the server that number.",
    )
    return wire.answer(fault, 500)


@api.exception_handler(AuthenticationError)
def refuse_stranger(_request: HttpRequest, _error: Any) -> HttpResponse:
    """Answer who is not signed in."""
    fault = wire.Fault(code="signed-out", message="You are not signed in.", mend="Sign in, then do it again.")
    return wire.answer(fault, 401)
