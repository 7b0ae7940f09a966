"""Sessions and people as they were read last: each request asks who it comes from, and they are read again
once any of them has been written to the database. So what ends a session ends it at once."""

from __future__ import annotations

import copy
import threading
from collections.abc import Callable, Hashable
from typing import Any, TypeVar, cast

from django.contrib.auth import get_user_model
from django.contrib.auth.backends import ModelBackend
from django.contrib.sessions.backends.db import SessionStore as StoredSessions
from django.contrib.sessions.models import Session
from django.db.models import Model
from django.utils import timezone

from server.common.written import state_now

T = TypeVar("T")
#: So many are remembered.
MAX_REMEMBERED = 1000

_lock = threading.Lock()
#: What was read, by what was asked for, with how often its table had been written to before.
_known: dict[tuple[type[Model], Hashable], tuple[Any, Any]] = {}


def remembered(key: Hashable, model: type[Model], read: Callable[[], T | None]) -> T | None:
    """What `read` gave since the table of a model was last written to, which nobody may change; what is not
    there is not remembered."""
    state = state_now()
    if state is None:
        return read()
    written = state.of([model._meta.db_table])
    with _lock:
        before, known = _known.get((model, key), (None, None))
    if before == written:
        return cast(T, known)
    found = read()
    if found is not None:
        with _lock:
            if len(_known) >= MAX_REMEMBERED:
                _known.clear()
            _known[model, key] = written, found
    return found


class SessionStore(StoredSessions):
    """The sessions of browsers."""

    def _get_session_from_db(self) -> Session | None:
        read = super()._get_session_from_db  # type: ignore[misc]
        row = remembered(self.session_key, Session, read)
        return row if row is None or row.expire_date > timezone.now() else read()


class Users(ModelBackend):
    """People who sign in with a password."""

    def get_user(self, user_id: Any) -> Any:
        # Each request has one of its own, which it may change.
        known = remembered(user_id, get_user_model(), lambda: super(Users, self).get_user(user_id))
        return copy.copy(known)
