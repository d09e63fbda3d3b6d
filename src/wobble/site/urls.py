"""Addresses: the API, and the front end's one page for all that is not a file."""

from __future__ import annotations

from django.conf import settings
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.urls import path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie

from wobble.site.api.main import api


@ensure_csrf_cookie
def page(_request: HttpRequest) -> HttpResponse:
    """Answer with the front end, which knows its own addresses."""
    index = settings.WEB / "index.html"
    if not index.is_file():
        return HttpResponse("The front end is not built yet: run ./run setup.", status=503, content_type="text/plain")
    return HttpResponse(index.read_bytes(), headers={"Cache-Control": "no-cache"})


def no_such_call(_request: HttpRequest) -> HttpResponse:
    """Answer an unknown API address in the API's own way."""
    return JsonResponse({"code": "not-found", "message": "There is no such call.", "mend": "", "path": ""}, status=404)


urlpatterns = [
    path("api/", api.urls),
    re_path(r"^api/", no_such_call),
    re_path(r"^(?!assets/|static/).*$", page),
]
