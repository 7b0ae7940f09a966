"""Answering with a stored file, and what browsers may keep of answers."""

from __future__ import annotations

from collections.abc import AsyncIterator, Callable, Iterator

from asgiref.sync import sync_to_async
from django.core.handlers.asgi import ASGIRequest
from django.http import FileResponse, HttpRequest, HttpResponse, HttpResponseNotModified
from django.http.response import HttpResponseBase, StreamingHttpResponse
from django.utils.cache import patch_cache_control
from rest_framework.request import Request

from drafting.plotting.files import file_name
from server.common import storage

YEAR = 365 * 24 * 3600
#: The media type of a workbook.
XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
_TYPES = {"pdf": "application/pdf", "xlsx": XLSX}


def stored_gzip(request: Request, name: str, file: str, content_type: str) -> HttpResponseBase:
    """The stored, gzipped `file`, which a browser may keep under its `name`; not sent again to one that has
    it."""
    tag = f'"{name}"'
    if request.headers.get("If-None-Match") == tag:
        return HttpResponseNotModified()
    response = FileResponse(storage.path_of(file).open("rb"), content_type=content_type)
    response.headers["Content-Encoding"] = "gzip"
    response.headers["ETag"] = tag
    patch_cache_control(response, private=True, immutable=True, max_age=YEAR)
    return response


def api_is_not_stored(
    get_response: Callable[[HttpRequest], HttpResponse],
) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware: what the API answers stays in no cache, unless the answer says that it may."""

    def middleware(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        if request.path.startswith("/api/"):
            response.headers.setdefault("Cache-Control", "no-store")
        return response

    return middleware


def files_in_pieces(
    get_response: Callable[[HttpRequest], HttpResponseBase],
) -> Callable[[HttpRequest], HttpResponseBase]:
    """Middleware: a file is read piece by piece as it is fetched, and never held as a whole."""

    def middleware(request: HttpRequest) -> HttpResponseBase:
        response = get_response(request)
        if (
            isinstance(request, ASGIRequest)
            and isinstance(response, StreamingHttpResponse)
            and not response.is_async
        ):
            response.streaming_content = _pieces(iter(response))
        return response

    return middleware


async def _pieces(content: Iterator[bytes]) -> AsyncIterator[bytes]:
    def read() -> bytes:
        return next(content, b"")

    while piece := await sync_to_async(read)():
        yield piece


def made_file(data: bytes, name: str, form: str) -> HttpResponse:
    """A file that was just made, under a name for people."""
    response = HttpResponse(data, content_type=_TYPES.get(form, "application/octet-stream"))
    response.headers["Content-Disposition"] = f'attachment; filename="{file_name(name)}.{form}"'
    return response


def stored_file(file: str, content_type: str, name: str = "") -> FileResponse:
    """The stored `file`, under a name for people."""
    return FileResponse(storage.path_of(file).open("rb"), content_type=content_type, filename=name)
