"""Inviting people into a project by a link, whether they have an account or not."""

from __future__ import annotations

import secrets
from datetime import timedelta
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone
from rest_framework.exceptions import NotFound, ValidationError

from server.accounts.models import digest_of
from server.accounts.services import make_account
from server.projects.models import Invitation, Membership, Project

#: A link is good for so long, and once.
LASTS = timedelta(days=7)
#: Open ones of a project, so that nobody fills a table.
MAX_OPEN = 50
GONE = "This invitation has ended, was used, or was withdrawn. Ask whoever sent it for another."


def open_ones(project: Project | None = None) -> Any:
    """Invitations that can still be used, of one project or of all."""
    found = Invitation.objects.filter(used_by=None, until__gt=timezone.now()).select_related("project", "by")
    return found if project is None else found.filter(project=project)


def invite(project: Project, user: Any, role: str) -> tuple[Invitation, str]:
    """An invitation to a role, and its secret, which is told only now.

    Raises:
        ValidationError: there are very many that nobody has used.
    """
    if open_ones(project).count() >= MAX_OPEN:
        raise ValidationError("There are many open invitations. Withdraw those that are not needed.")
    secret = secrets.token_urlsafe(24)
    row = Invitation.objects.create(
        project=project, by=user, role=role, digest=digest_of(secret), until=timezone.now() + LASTS
    )
    return row, secret


def found(secret: str) -> Invitation:
    """The open invitation of a secret.

    Raises:
        NotFound: there is none.
    """
    row: Invitation | None = open_ones().filter(digest=digest_of(secret)).first()
    if row is None:
        raise NotFound(GONE)
    return row


@transaction.atomic
def accept(secret: str, user: User | None, username: str, password: str) -> tuple[Project, User]:
    """Let somebody into the project that they were invited to: who is signed in, or else a new account.

    Raises:
        NotFound: the invitation cannot be used.
        ValidationError: the name is taken, or the password too easily guessed.
    """
    row = found(secret)
    who = user or make_account(username, password)
    row.used_by, row.used = who, timezone.now()
    row.save(update_fields=["used_by", "used"])
    project = row.project
    if project.owner_id != who.pk:
        Membership.objects.get_or_create(project=project, user=who, defaults={"role": row.role})
    return project, who
