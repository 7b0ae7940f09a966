"""What is kept and logged when somebody signs in or out, or tries to."""

from __future__ import annotations

import logging
from typing import Any

from django.contrib.auth import signals
from django.contrib.auth.models import User
from django.http import HttpRequest

from server.accounts.models import SignedIn

_LOG = logging.getLogger("server.security")


def connect() -> None:
    signals.user_logged_in.connect(_signed_in, dispatch_uid="accounts: signed in")
    signals.user_logged_out.connect(_signed_out, dispatch_uid="accounts: signed out")
    signals.user_login_failed.connect(_refused, dispatch_uid="accounts: refused")


def _signed_in(request: HttpRequest, user: User, **_: Any) -> None:
    if request.session.session_key is None:
        request.session.save()
    SignedIn.objects.update_or_create(
        session=request.session.session_key,
        defaults={
            "user": user,
            "address": request.META.get("REMOTE_ADDR") or None,
            "browser": request.META.get("HTTP_USER_AGENT", "")[:300],
        },
    )
    _LOG.info("%s signed in from %s", user.get_username(), request.META.get("REMOTE_ADDR"))


def _signed_out(request: HttpRequest, user: User | None, **_: Any) -> None:
    SignedIn.objects.filter(session=request.session.session_key or "").delete()
    if user is not None:
        _LOG.info("%s signed out from %s", user.get_username(), request.META.get("REMOTE_ADDR"))


def _refused(credentials: dict[str, Any], request: HttpRequest | None = None, **_: Any) -> None:
    address = request.META.get("REMOTE_ADDR") if request is not None else None
    _LOG.warning("%r was refused from %s", str(credentials.get("username", ""))[:150], address)
