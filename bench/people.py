"""People who are signed in without a browser."""

from __future__ import annotations

from typing import Any


def session_of(user: Any) -> str:
    """The key of a new session of somebody. Django is set up by then."""
    from django.contrib.auth import BACKEND_SESSION_KEY, HASH_SESSION_KEY, SESSION_KEY
    from django.contrib.sessions.backends.db import SessionStore

    session = SessionStore()
    session[SESSION_KEY] = str(user.pk)
    session[BACKEND_SESSION_KEY] = "server.accounts.remembered.Users"
    session[HASH_SESSION_KEY] = user.get_session_auth_hash()
    session.create()
    return str(session.session_key)
