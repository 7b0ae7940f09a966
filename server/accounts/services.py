"""What people do about their own accounts."""

from __future__ import annotations

from django.contrib.auth import update_session_auth_hash
from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.contrib.sessions.models import Session
from django.core.exceptions import ValidationError as DjangoValidationError
from django.db import transaction
from django.http import HttpRequest
from django.utils import timezone
from rest_framework.exceptions import ValidationError

from server.accounts.models import AccessToken, SignedIn, digest_of, new_token

#: So many tokens somebody can have.
MAX_TOKENS = 20


def change_password(request: HttpRequest, user: User, old: str, new: str) -> None:
    """Change somebody's password. All other browsers are signed out by it.

    Raises:
        ValidationError: the old one is wrong, or the new one is too easily guessed.
    """
    if not user.check_password(old):
        raise ValidationError("The old password is wrong.")
    try:
        validate_password(new, user)
    except DjangoValidationError as error:
        raise ValidationError(" ".join(error.messages)) from error
    user.set_password(new)
    with transaction.atomic():
        here = SignedIn.objects.filter(user=user, session=request.session.session_key).first()
        user.save()
        # A session is bound to the password that it was begun with; this one goes on, under another key.
        update_session_auth_hash(request, user)
        if here is not None:
            here.session = request.session.session_key or ""
            here.save()
        SignedIn.objects.filter(user=user).exclude(session=request.session.session_key or "").delete()


def make_account(username: str, password: str) -> User:
    """An account for somebody new.

    Raises:
        ValidationError: the name is taken or cannot be one, or the password is too easily guessed.
    """
    user = User(username=username.strip())
    try:
        user.full_clean(exclude=["password"])
        validate_password(password, user)
    except DjangoValidationError as error:
        raise ValidationError(" ".join(error.messages)) from error
    user.set_password(password)
    user.save()
    return user


def signed_in(user: User) -> list[SignedIn]:
    """Where somebody is signed in now."""
    rows = list(SignedIn.objects.filter(user=user))
    alive = set(
        Session.objects.filter(
            session_key__in=[row.session for row in rows], expire_date__gt=timezone.now()
        ).values_list("session_key", flat=True)
    )
    return [row for row in rows if row.session in alive]


def end(row: SignedIn) -> None:
    """Sign a browser out."""
    Session.objects.filter(session_key=row.session).delete()
    row.delete()


def make_token(user: User, name: str, scope: str) -> tuple[AccessToken, str]:
    """A new token, and what it says: that is not kept, and can be read this once.

    Raises:
        ValidationError: there are too many, or one has this name.
    """
    own = AccessToken.objects.filter(user=user)
    if own.count() >= MAX_TOKENS:
        raise ValidationError(f"There are {MAX_TOKENS} tokens already. Revoke one that is not used.")
    if own.filter(name=name).exists():
        raise ValidationError(f"“{name}” is the name of another token.")
    token = new_token()
    return AccessToken.objects.create(user=user, name=name, scope=scope, digest=digest_of(token)), token


def prune() -> None:
    """Sessions that are over, and what is kept of them."""
    Session.objects.filter(expire_date__lt=timezone.now()).delete()
    SignedIn.objects.exclude(session__in=Session.objects.values("session_key")).delete()
