"""Answers that are the same for all who may see them, and take long to make: made once, however many ask, and
again when the database answers otherwise to what was asked of it then."""

from __future__ import annotations

import gzip
import hashlib
import json
import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable, Iterator, Mapping
from contextlib import closing, contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field
from typing import Any, TypeVar, cast

from django.core.serializers.json import DjangoJSONEncoder
from django.db import connection, transaction
from django.http import HttpRequest, HttpResponse
from django.utils.cache import patch_vary_headers
from rest_framework.response import Response

from server.common import beside
from server.common.written import State, state_now, tables_in, written_here

#: A query, and the values in it.
Question = tuple[str, tuple[Any, ...]]
#: Together they take no more memory than this; bytes.
MAX_BYTES = 100_000_000
#: So many parts are kept.
MAX_PARTS = 50
T = TypeVar("T")


@dataclass
class _Held:
    """Something that was made.

    Attributes:
        said: what the database had said for it to each question; None where something was written as well.
        written: how often each table had been written to when it last said so, or before.
    """

    said: Mapping[Question, bytes] | None = None
    written: Mapping[str, int] = field(default_factory=dict)

    def still_holds(self, written: Mapping[str, int]) -> bool:
        """Whether the database says the same as it did, which only what was written to since can do
        otherwise; `written` is how often each table has been."""
        if self.said is None:
            return False
        since = {table for table, number in written.items() if self.written.get(table) != number}
        asked = (each for each in self.said if not since.isdisjoint(tables_in(each[0])))
        if all(_said_to(each) == self.said[each] for each in asked):
            self.written = written
            return True
        return False


@dataclass
class _Kept(_Held):
    """JSON, plain and packed, and the number of the newest state that it is known to hold for."""

    lock: threading.Lock = field(default_factory=threading.Lock)
    state: int = -1
    plain: bytes = b""
    packed: bytes = b""


@dataclass
class _Part(_Held):
    """A part of what is made."""

    part: Any = None


class _Listener:
    """Notes what the database says while something is made. It is asked just before: where anything is
    written in between, what is made is newer than what is noted, and is made again."""

    def __init__(self) -> None:
        self._said: dict[Question, bytes] = {}
        self._wrote = False

    def __call__(self, execute: Any, sql: str, given: Any, many: bool, context: Any) -> Any:
        if sql.startswith("SELECT"):
            question = (sql, tuple(given or ()))
            if question not in self._said:
                self._said[question] = _said_to(question)
        else:
            self._wrote = True
        return execute(sql, given, many, context)

    def note(self, said: Mapping[Question, bytes]) -> None:
        """What the database still says for something that was made before."""
        self._said.update(said)

    @property
    def said(self) -> Mapping[Question, bytes] | None:
        return None if self._wrote else self._said


def _said_to(question: Question) -> bytes:
    """A hash of what the database says now."""
    # This thread may have asked nothing yet.
    connection.ensure_connection()
    with closing(connection.create_cursor()) as cursor:
        said = cursor.execute(*question).fetchall()
    return hashlib.blake2b(repr(said).encode(), digest_size=16).digest()


_lock = threading.Lock()
_kept: OrderedDict[Any, _Kept] = OrderedDict()
#: Of what is being made here just now.
_listening: ContextVar[_Listener | None] = ContextVar("listening", default=None)
_parts: dict[Any, _Part] = {}


def json_made_once(
    request: HttpRequest, make: Callable[..., Any], *given: Hashable, apart: bool = False
) -> HttpResponse:
    """Answer with what `make(*given)` gives, as JSON. It is asked again once the database says anything else
    to what it asked of it; who asks while it is at work waits for what it makes.

    Args:
        make: a function to which nothing makes a difference but what it is given and the database; of what it
            gives, bytes are JSON already.
        apart: whether it takes so long that it is made beside this process; then it is one of a module.
    """
    state = state_now()
    if state is None:
        return Response(_plain(make, *given))
    return _answer(request, *_at(state, apart, make, *given))


def json_of_several(request: HttpRequest, several: Mapping[str, tuple[Any, ...]]) -> HttpResponse:
    """Answer with an object of several that are made once, by their names: each a function and what it is
    given, as to `json_made_once`."""
    state = state_now()
    if state is None:
        return Response({name: _plain(*each) for name, each in several.items()})
    parts = [f"{json.dumps(name)}:".encode() + _at(state, False, *each)[0] for name, each in several.items()]
    plain = b"{" + b",".join(parts) + b"}"
    return _answer(request, plain, gzip.compress(plain, 1))


def _plain(make: Callable[..., Any], *given: Hashable) -> Any:
    """What is made, without keeping it."""
    made = make(*given)
    return json.loads(made) if isinstance(made, bytes) else made


def _at(state: State, apart: bool, make: Callable[..., Any], *given: Hashable) -> tuple[bytes, bytes]:
    """What is made of a state, or of one since, as JSON: plain and packed."""
    key = (make, given)
    with _lock:
        kept = _kept.setdefault(key, _Kept())
        _kept.move_to_end(key)
    with kept.lock:
        # Whatever was written, it may have nothing to do with this.
        if kept.state < state.number and not kept.still_holds(state.written):
            made = beside.worked_out(_made, make, *given) if apart else _made(make, *given)
            kept.plain, kept.packed, kept.said, kept.written = made
            _thin_out()
        kept.state = max(kept.state, state.number)
        return kept.plain, kept.packed


def _thin_out() -> None:
    """Forget what was asked for longest ago, where all takes too much memory."""
    with _lock:
        size = sum(len(kept.plain) + len(kept.packed) for kept in _kept.values())
        while size > MAX_BYTES and len(_kept) > 1:
            _, oldest = _kept.popitem(last=False)
            size -= len(oldest.plain) + len(oldest.packed)


def _made(
    make: Callable[..., Any], *given: Hashable
) -> tuple[bytes, bytes, Mapping[Question, bytes] | None, Mapping[str, int]]:
    """What is made as JSON, packed as well, what the database had said for it, and how often each table had
    been written to."""
    listener = _Listener()
    with _of_one_state():
        written = written_here()
        with _heard_by(listener):
            plain = as_json(make(*given))
    return plain, gzip.compress(plain, 1), listener.said, written


def part_made_once(make: Callable[..., T], *given: Hashable) -> T:
    """What `make(*given)` gives, which nobody changes, as a part of what is made once: this process keeps it
    for the next time. Elsewhere it is just made.

    Args:
        make: a function to which nothing makes a difference but what it is given and the database.
    """
    outer = _listening.get()
    if outer is None:
        return make(*given)
    key, written = (make, given), written_here()
    known = _parts.get(key)
    if known is None or not known.still_holds(written):
        listener = _Listener()
        with _heard_by(listener):
            part = make(*given)
        known = _Part(listener.said, written, part)
        if len(_parts) >= MAX_PARTS:
            _parts.clear()
        _parts[key] = known
    outer.note(known.said or {})
    return cast(T, known.part)


@contextmanager
def _heard_by(listener: _Listener) -> Iterator[None]:
    token = _listening.set(listener)
    try:
        with connection.execute_wrapper(listener):
            yield
    finally:
        _listening.reset(token)


@contextmanager
def _of_one_state() -> Iterator[None]:
    """All that is read within is of one moment, whoever writes meanwhile, and nobody who writes is held up: a
    transaction is otherwise one that means to write (`transaction_mode`)."""
    connection.ensure_connection()
    database: Any = connection
    mode = database.transaction_mode
    database.transaction_mode = "DEFERRED"
    try:
        with transaction.atomic():
            yield
    finally:
        database.transaction_mode = mode


def as_json(made: Any) -> bytes:
    """Data as JSON; bytes are JSON already."""
    if isinstance(made, bytes):
        return made
    return json.dumps(made, cls=DjangoJSONEncoder, separators=(",", ":"), ensure_ascii=False).encode()


def _answer(request: HttpRequest, plain: bytes, packed: bytes) -> HttpResponse:
    takes_packed = "gzip" in request.headers.get("Accept-Encoding", "")
    response = HttpResponse(packed if takes_packed else plain, content_type="application/json")
    response.headers["Content-Encoding"] = "gzip" if takes_packed else "identity"
    patch_vary_headers(response, ["Accept-Encoding"])
    return response
