"""Sessions and people as they were read last: each request asks who it comes from, and they are read again
once any of them has been written to the database. So what ends a session ends it at once."""

from __future__ import annotations

import copy
from typing import Any

from django.contrib.auth import get_user_model
from django.contrib.auth.backends import ModelBackend
from django.contrib.sessions.backends.db import SessionStore as StoredSessions
from django.contrib.sessions.models import Session
from django.utils import timezone

from server.common.written import remembered


class SessionStore(StoredSessions):
    """The sessions of browsers."""

    def _get_session_from_db(self) -> Session | None:
        read = super()._get_session_from_db  # type: ignore[misc]
        row = remembered(self.session_key, [Session], read)
        return row if row is None or row.expire_date > timezone.now() else read()


class Users(ModelBackend):
    """People who sign in with a password."""

    def get_user(self, user_id: Any) -> Any:
        # Each request has one of its own, which it may change.
        known = remembered(user_id, [get_user_model()], lambda: super(Users, self).get_user(user_id))
        return copy.copy(known)
