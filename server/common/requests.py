"""Requests by name: an id that is in the answer and in all lines of the log about it, and a line for each."""

from __future__ import annotations

import logging
import re
import time
import uuid
from collections.abc import Callable
from contextvars import ContextVar

from django.http import HttpRequest, HttpResponse

log = logging.getLogger("server.requests")

HEADER = "X-Request-Id"
#: An id that a proxy gave, which is kept so that its log and ours can be laid side by side.
_GIVEN = re.compile(r"[A-Za-z0-9_.-]{8,64}")
#: In paths that lead somewhere without an account, the part that does: whoever reads the log is not let in.
_SECRET = re.compile(r"((?:^|/)(?:reviewed|review|invited|delivered)/)[^/]+")
_current: ContextVar[str] = ContextVar("request", default="")

Responder = Callable[[HttpRequest], HttpResponse]


def current_request() -> str:
    """The id of the request that is being answered; blank for none."""
    return _current.get()


def with_request_id(get_response: Responder) -> Responder:
    """Middleware: give each request an id, and log how it was answered."""

    def middleware(request: HttpRequest) -> HttpResponse:
        given = request.headers.get(HEADER, "")
        name = given if _GIVEN.fullmatch(given) else uuid.uuid4().hex[:12]
        token, began = _current.set(name), time.monotonic()
        try:
            response = get_response(request)
            response.headers[HEADER] = name
            if request.path.startswith("/api/"):
                _log(request, response.status_code, time.monotonic() - began)
            return response
        finally:
            _current.reset(token)

    return middleware


def masked(path: str) -> str:
    """A path without the secret of a link that is in it.

    >>> masked("/api/reviewed/kX3b9/comments/")
    '/api/reviewed/…/comments/'
    """
    return _SECRET.sub(r"\1…", path)


def _log(request: HttpRequest, status: int, took: float) -> None:
    user = getattr(request, "user", None)
    about = {
        "method": request.method,
        "path": masked(request.path),
        "status": status,
        "user": user.get_username() if user is not None else "",
        "address": request.META.get("REMOTE_ADDR", ""),
        "milliseconds": round(took * 1000),
    }
    log.info("%s %s %d", request.method, masked(request.path), status, extra=about)


class RequestFilter(logging.Filter):
    """Puts the id of the request into each record, and takes secrets out of it."""

    def filter(self, record: logging.LogRecord) -> bool:
        record.request_id = current_request()
        if isinstance(record.args, tuple):
            record.args = tuple(masked(each) if isinstance(each, str) else each for each in record.args)
        return True
