"""How the API says that something is wrong: one sentence in `detail`, and the fields that it is about."""

from __future__ import annotations

import logging
import uuid
from typing import Any

from django.db import IntegrityError
from rest_framework import status
from rest_framework.exceptions import APIException, ValidationError
from rest_framework.response import Response
from rest_framework.views import exception_handler, set_rollback

from drafting.errors import DraftingError
from server.common.requests import current_request
from server.common.space import DISK_FULL, INSUFFICIENT_STORAGE, is_busy, is_out_of_space

log = logging.getLogger(__name__)


class NoRoom(APIException):
    """The disk is all but full, and this would add to it."""

    status_code = INSUFFICIENT_STORAGE
    default_detail = DISK_FULL


class Unreadable(APIException):
    """What was sent could not be worked with: too large, too slow, or it brought the reader down."""

    status_code = status.HTTP_422_UNPROCESSABLE_ENTITY


class Conflict(APIException):
    """A write that was made from an older state than the one there is; `current` is the row as it is now."""

    status_code = status.HTTP_409_CONFLICT
    default_detail = (
        "This was changed elsewhere in the meantime. Check it as it is now, and make your change again."
    )

    def __init__(self, current: dict[str, Any], detail: str | None = None) -> None:
        super().__init__(detail)
        self.current = current


#: How errors are answered that are no part of a web framework, by their kinds; with their own words.
_ANSWERED: dict[type[Exception], int] = {}


def answer_with(kind: type[Exception], code: int) -> None:
    """Have errors of a kind answered with a status, and with what they say."""
    _ANSWERED[kind] = code


def logged(what: str, *arguments: Any) -> str:
    """Log the exception being handled under a reference, and a sentence for people that has it."""
    reference = current_request() or uuid.uuid4().hex[:8]
    log.exception(f"{what} failed, reference {reference}", *arguments)
    return (
        f"Something went wrong on the server. Try again; if it happens again, give the reference {reference} "
        "to whoever runs Dunefold."
    )


def problem_response(error: Exception, context: dict[str, Any]) -> Response:
    """What is wrong with a request, for people and for the interface alike."""
    if isinstance(error, DraftingError):
        set_rollback()
        return Response({"detail": str(error), "fields": error.fields}, status.HTTP_400_BAD_REQUEST)
    code = next((_ANSWERED[kind] for kind in type(error).__mro__ if kind in _ANSWERED), None)
    if code is not None:
        set_rollback()
        return Response({"detail": str(error), "fields": {}}, code)
    response = exception_handler(error, context)
    if response is None:
        return _fault(error, context)
    if isinstance(error, ValidationError):
        detail = error.detail
        fields = detail if isinstance(detail, dict) else {}
        response.data = {"detail": _sentence(detail), "fields": fields}
    if isinstance(error, Conflict):
        response.data = {"detail": str(error.detail), "current": error.current}
    return response


def _fault(error: Exception, context: dict[str, Any]) -> Response:
    """A fault of the server's. Its details go to the log."""
    set_rollback()
    if is_out_of_space(error):
        log.error("no room to write: %s", error)
        return Response({"detail": DISK_FULL}, INSUFFICIENT_STORAGE)
    if is_busy(error):
        detail = "Others are saving a lot just now. This is tried again shortly."
        return Response({"detail": detail}, status.HTTP_503_SERVICE_UNAVAILABLE, headers={"Retry-After": "1"})
    if isinstance(error, IntegrityError) and "UNIQUE" in str(error):
        detail = "Somebody else has just made one of the same name or number. Look at it, and try again."
        return Response({"detail": detail}, status.HTTP_409_CONFLICT)
    request = context["request"]
    return Response(
        {"detail": logged("%s %s", request.method, request.path)}, status.HTTP_500_INTERNAL_SERVER_ERROR
    )


def _sentence(detail: Any) -> str:
    """The first sentence of nested details, with the name of its field where that does not say it itself."""
    if isinstance(detail, dict):
        name, inner = next(iter(detail.items()))
        text = _sentence(inner)
        plain = str(name).replace("_", " ")
        return (
            text if name == "non_field_errors" or plain in text.lower() else f"{plain.capitalize()}: {text}"
        )
    if isinstance(detail, list):
        return _sentence(detail[0]) if detail else ""
    return str(detail)
