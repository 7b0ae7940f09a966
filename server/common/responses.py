"""Answering with a stored file."""

from __future__ import annotations

from django.http import FileResponse, HttpResponseNotModified
from django.http.response import HttpResponseBase
from django.utils.cache import patch_cache_control
from rest_framework.request import Request

from server.common import storage

YEAR = 365 * 24 * 3600


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


def stored_file(file: str, content_type: str, name: str = "") -> FileResponse:
    """The stored `file`, under a name for people."""
    return FileResponse(storage.path_of(file).open("rb"), content_type=content_type, filename=name)
