"""Sessions and people as they were read last: each request asks who it comes from, and they are read again
once anything has been written to the database. So what ends a session ends it at once."""

from __future__ import annotations

import copy
import threading
from collections.abc import Callable, Hashable
from typing import Any, TypeVar

from django.contrib.auth.backends import ModelBackend
from django.contrib.sessions.backends.db import SessionStore as StoredSessions
from django.contrib.sessions.models import Session
from django.utils import timezone

from server.common.made_once import state_now

T = TypeVar("T")
#: So many are remembered of one state of the database.
MAX_REMEMBERED = 1000

_lock = threading.Lock()
_state = -1
_known: dict[Hashable, Any] = {}


def remembered(key: Hashable, read: Callable[[], T | None]) -> T | None:
    """What `read` gave since anything was last written, which nobody may change; what is not there is not
    remembered."""
    global _state
    state = state_now()
    if state is None:
        return read()
    with _lock:
        if _state != state or len(_known) > MAX_REMEMBERED:
            _known.clear()
            _state = state
        if key in _known:
            known: T = _known[key]
            return known
    found = read()
    if found is not None:
        with _lock:
            # What was written meanwhile may have changed it.
            if _state == state:
                _known[key] = found
    return found


class SessionStore(StoredSessions):
    """The sessions of browsers."""

    def _get_session_from_db(self) -> Session | None:
        read = super()._get_session_from_db  # type: ignore[misc]
        row = remembered((Session, self.session_key), read)
        return row if row is None or row.expire_date > timezone.now() else read()


class Users(ModelBackend):
    """People who sign in with a password."""

    def get_user(self, user_id: Any) -> Any:
        # Each request has one of its own, which it may change.
        return copy.copy(remembered((Users, user_id), lambda: super(Users, self).get_user(user_id)))
