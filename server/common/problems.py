"""How the API says that something is wrong: one sentence in `detail`, and the fields that it is about."""

from __future__ import annotations

from typing import Any

from rest_framework import status
from rest_framework.exceptions import APIException, ValidationError
from rest_framework.response import Response
from rest_framework.views import exception_handler

from drafting.errors import DraftingError


class Conflict(APIException):
    """A write that was made from an older state than the one there is; `current` is the row as it is now."""

    status_code = status.HTTP_409_CONFLICT
    default_detail = (
        "This was changed elsewhere in the meantime. Check it as it is now, and make your change again."
    )

    def __init__(self, current: dict[str, Any], detail: str | None = None) -> None:
        super().__init__(detail)
        self.current = current


def problem_response(error: Exception, context: dict[str, Any]) -> Response | None:
    """What is wrong with a request, for people and for the interface alike."""
    if isinstance(error, DraftingError):
        return Response({"detail": str(error), "fields": error.fields}, status.HTTP_400_BAD_REQUEST)
    response = exception_handler(error, context)
    if response is None:
        return None
    if isinstance(error, ValidationError):
        detail = error.detail
        fields = detail if isinstance(detail, dict) else {}
        response.data = {"detail": _sentence(detail), "fields": fields}
    if isinstance(error, Conflict):
        response.data = {"detail": str(error.detail), "current": error.current}
    return response


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
