"""Coming in with a token (RFC 6750), and what may be done with one."""

from __future__ import annotations

from contextlib import suppress
from datetime import date
from typing import Any

from django.contrib.auth.models import User
from django.db import DatabaseError
from drf_spectacular.extensions import OpenApiAuthenticationExtension
from rest_framework.authentication import (
    BaseAuthentication,
    SessionAuthentication,
    get_authorization_header,
)
from rest_framework.exceptions import AuthenticationFailed
from rest_framework.permissions import SAFE_METHODS, BasePermission
from rest_framework.request import Request

from server.accounts.models import AccessToken, digest_of


class TokenAuthentication(BaseAuthentication):
    """Somebody who comes with `Authorization: Bearer` and one of their tokens."""

    def authenticate(self, request: Request) -> tuple[User, AccessToken] | None:
        kind, _, given = get_authorization_header(request).partition(b" ")
        if kind.lower() != b"bearer":
            return None
        digest = digest_of(given.strip().decode(errors="replace"))
        token = AccessToken.objects.select_related("user").filter(digest=digest).first()
        if token is None or not token.user.is_active:
            raise AuthenticationFailed("This token is unknown or was revoked. Make another in your account.")
        if token.last_used != date.today():
            # Who only reads is served from a full or read-only disk too.
            with suppress(DatabaseError):
                AccessToken.objects.filter(pk=token.pk).update(last_used=date.today())
        return token.user, token

    def authenticate_header(self, request: Request) -> str:
        return "Bearer"


class WithinScope(BasePermission):
    """A token that may only read changes nothing."""

    message = "This token may only read. Make one that may write, in your account."

    def has_permission(self, request: Request, view: Any) -> bool:
        token = request.auth
        if not isinstance(token, AccessToken) or request.method in SAFE_METHODS:
            return True
        return token.scope == AccessToken.Scope.WRITE


def from_this_site(request: Request) -> None:
    """Refuse what would sign somebody in from a form on another site, who is not signed in yet and so is not
    asked for anything else. Programs with a token come from no site.

    Raises:
        PermissionDenied: there is no token of this site with it.
    """
    if not isinstance(request.auth, AccessToken):
        SessionAuthentication().enforce_csrf(request)


class TokenScheme(OpenApiAuthenticationExtension):  # type: ignore[no-untyped-call]
    """How the API's description says that one comes in with a token."""

    target_class = TokenAuthentication
    name = "token"

    def get_security_definition(self, auto_schema: Any) -> dict[str, str]:
        return {"type": "http", "scheme": "bearer"}
