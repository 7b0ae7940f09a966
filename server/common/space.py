"""Room on the disk: some is reserved, so that what is there can still be read, changed back and deleted."""

from __future__ import annotations

import errno
import shutil
import sqlite3
from collections.abc import Callable

from django.conf import settings
from django.db import DatabaseError
from django.http import HttpRequest, HttpResponse, JsonResponse

#: What may be written into the reserve.
_GO_ON = ("/api/session/", "/api/changes/")

Responder = Callable[[HttpRequest], HttpResponse]

#: 507 Insufficient Storage (RFC 4918).
INSUFFICIENT_STORAGE = 507
DISK_FULL = (
    "The disk of the server is full or cannot be written to, so nothing can be saved just now. "
    "Whoever runs Dunefold has to make room."
)
_ERRNOS = {errno.ENOSPC, errno.EDQUOT, errno.EROFS, errno.EFBIG}
_CODES = {sqlite3.SQLITE_FULL, sqlite3.SQLITE_READONLY, sqlite3.SQLITE_IOERR, sqlite3.SQLITE_CANTOPEN}


def is_out_of_space(error: BaseException) -> bool:
    """Whether an error says that the disk is full or cannot be written to."""
    if isinstance(error, OSError):
        return error.errno in _ERRNOS
    if isinstance(error, DatabaseError):
        code = getattr(error.__cause__, "sqlite_errorcode", None)
        return code is not None and code & 0xFF in _CODES
    return False


def is_busy(error: BaseException) -> bool:
    """Whether an error says that others were writing to the database for too long."""
    code = getattr(error.__cause__, "sqlite_errorcode", None) if isinstance(error, DatabaseError) else None
    return code is not None and code & 0xFF in (sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED)


def has_room() -> bool:
    """Whether more than what is reserved is free where the data are."""
    try:
        return shutil.disk_usage(settings.DATA).free > settings.DISK_RESERVE
    except OSError:
        return False


def room_to_write(get_response: Responder) -> Responder:
    """Middleware: refuse what adds to the data while the disk is all but full. Reading, deleting, cancelling
    and signing in go on; whether a batch of changes adds anything, its service knows."""

    def middleware(request: HttpRequest) -> HttpResponse:
        goes_on = request.path in _GO_ON or request.path.endswith("/cancel/")
        if request.method in ("POST", "PUT", "PATCH") and not goes_on and not has_room():
            return JsonResponse({"detail": DISK_FULL}, status=INSUFFICIENT_STORAGE)
        return get_response(request)

    return middleware
