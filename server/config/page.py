"""The one page of all stations, and the first answers that its script asks for: they come with it."""

from __future__ import annotations

import json
import re
from typing import Any
from urllib.parse import urlsplit

from django.http import HttpRequest, HttpResponse, QueryDict
from django.shortcuts import render
from django.urls import resolve
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie

#: A longer answer is asked for by the script: the page would be late. Bytes.
MAX_ANSWER = 100_000
_STATION = re.compile(r"/projects/(?P<project>[0-9a-f-]{36})/(?P<station>[a-z]+)")


@never_cache
@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """The page, with what `web/src/ahead.ts` begins with. What cannot be answered now is asked for again by
    the script, which says why."""
    answers = {address: _answer(request, address) for address in first_asked(request.path)}
    known = {address: answer for address, answer in answers.items() if answer is not None}
    return render(request, "index.html", {"answers": known})


def first_asked(path: str) -> list[str]:
    """What the script of the page at `path` asks first, as addresses of the API.

    Example:
        >>> first_asked("/projects/6f1c2a9e-8f0b-4c1d-9f57-3f6d2b7c1e10/views")[2:]
        ['/api/projects/6f1c2a9e-8f0b-4c1d-9f57-3f6d2b7c1e10/']
    """
    if path.startswith("/review/"):
        return []
    asked = ["/api/session/", "/api/account/preferences/"]
    if found := _STATION.match(path):
        asked.append(f"/api/projects/{found['project']}/")
        if found["station"] == "sheets":
            asked.append(f"/api/rows/?project={found['project']}&kinds=sheets&kinds=viewports")
    elif path == "/":
        asked.append("/api/projects/")
    return asked


def _answer(request: HttpRequest, address: str) -> Any:
    """What the API answers at an address to whoever asks for the page; None where that is no answer."""
    parts = urlsplit(address)
    inner: Any = HttpRequest()
    inner.method, inner.path, inner.GET = "GET", parts.path, QueryDict(parts.query)
    inner.META = {**request.META, "QUERY_STRING": parts.query, "HTTP_ACCEPT_ENCODING": "identity"}
    inner.COOKIES, inner.session, inner.user = request.COOKIES, request.session, request.user
    view, given, named = resolve(parts.path)
    response = view(inner, *given, **named)
    if hasattr(response, "render"):
        response.render()
    if response.status_code != 200 or len(response.content) > MAX_ANSWER:
        return None
    return json.loads(response.content)
