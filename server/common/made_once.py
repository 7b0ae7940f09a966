"""Answers that are the same for all who may see them, and take long to make: made once for each state of the
database, however many ask."""

from __future__ import annotations

import gzip
import json
import sqlite3
import threading
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from django.core.serializers.json import DjangoJSONEncoder
from django.db import connection
from django.http import HttpRequest, HttpResponse
from django.utils.cache import patch_vary_headers
from rest_framework.response import Response

#: As many are kept.
MAX_KEPT = 100


class _States:
    """A number that grows whenever anybody has written to the database. SQLite counts what other connections
    than this one have written."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._watching: dict[str, sqlite3.Connection] = {}
        self._seen: dict[str, int] = {}
        self._number = 0

    def now(self, database: str) -> int:
        with self._lock:
            watching = self._watching.get(database)
            if watching is None:
                watching = sqlite3.connect(f"file:{database}?mode=ro", uri=True, check_same_thread=False)
                self._watching = {database: watching}
            (written,) = watching.execute("PRAGMA data_version").fetchone()
            if self._seen.get(database) != written:
                self._seen = {database: written}
                self._number += 1
            return self._number


@dataclass
class _Kept:
    lock: threading.Lock = field(default_factory=threading.Lock)
    state: int = -1
    plain: bytes = b""
    packed: bytes = b""


_states = _States()
_lock = threading.Lock()
_kept: OrderedDict[Any, _Kept] = OrderedDict()


def json_made_once(request: HttpRequest, key: Any, make: Callable[[], Any]) -> HttpResponse:
    """Answer with what `make` gives, as JSON. It is asked again once anything was written since; who asks
    while it is at work waits for what it makes.

    Args:
        key: what the answer is of; nothing else may make a difference to it but the database.
    """
    if connection.in_atomic_block:
        # What is not committed yet is known to this request alone.
        return Response(make())
    try:
        state = _states.now(str(connection.settings_dict["NAME"]))
    except sqlite3.Error:
        # On a read-only disk it may not be told what was written; then each is made for itself.
        return Response(make())
    with _lock:
        kept = _kept.setdefault(key, _Kept())
        _kept.move_to_end(key)
        while len(_kept) > MAX_KEPT:
            _kept.popitem(last=False)
    with kept.lock:
        if kept.state < state:
            plain = _encoded(make())
            kept.state, kept.plain, kept.packed = state, plain, gzip.compress(plain, 1)
        return _answer(request, kept.plain, kept.packed)


def _encoded(made: Any) -> bytes:
    return json.dumps(made, cls=DjangoJSONEncoder, separators=(",", ":"), ensure_ascii=False).encode()


def _answer(request: HttpRequest, plain: bytes, packed: bytes) -> HttpResponse:
    takes_packed = "gzip" in request.headers.get("Accept-Encoding", "")
    response = HttpResponse(packed if takes_packed else plain, content_type="application/json")
    response.headers["Content-Encoding"] = "gzip" if takes_packed else "identity"
    patch_vary_headers(response, ["Accept-Encoding"])
    return response
