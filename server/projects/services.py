"""Making, changing, sharing and deleting projects."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from django.contrib.auth import get_user_model
from rest_framework.exceptions import PermissionDenied, ValidationError

from drafting.errors import SheetError
from server.accounts.models import Preferences
from server.common.rows import Memo, RowService
from server.projects.models import Membership, NamedRow, Project

_keepers: list[Callable[[Project], str]] = []


def register_keeper(why_kept: Callable[[Project], str]) -> None:
    """Have projects kept: `why_kept` says why one cannot be deleted, or nothing where it can."""
    _keepers.append(why_kept)


class ProjectService(RowService[Project]):
    model = Project
    to_project = "pk"

    def project_id(self, row: Project) -> Any:
        return row.pk

    def prepare(self, values: dict[str, Any], memo: Memo) -> None:
        preferences = getattr(values["owner"], "preferences", None)
        if preferences and preferences.titles != Preferences.Language.ENGLISH:
            values.setdefault("language", preferences.titles)

    def check_deletion(self, row: Project) -> None:
        for why_kept in _keepers:
            sentence = why_kept(row)
            if sentence:
                raise SheetError(sentence)


project_service = ProjectService()


class NamedRowService(RowService[Any]):
    """Rows that a project keeps by name. Those that are built in stay as they are."""

    def check(self, row: NamedRow, changed: set[str], memo: Memo) -> None:
        self._check_own(row)

    def check_deletion(self, row: NamedRow) -> None:
        self._check_own(row)
        users = self.users(row)
        if users:
            what = row._meta.verbose_name
            raise SheetError(
                f"“{row.name}” is the {what} of {', '.join(users)}. Give them another one first."
            )

    def users(self, row: NamedRow) -> list[str]:
        """What has this row, in words."""
        return []

    def _check_own(self, row: NamedRow) -> None:
        if row.built_in:
            raise SheetError(f"“{row.name}” is built in and cannot be changed. Make a copy and change that.")


def owned(project: Project, user: Any) -> Project:
    """The project, if it is one's own.

    Raises:
        PermissionDenied: it is shared with one.
    """
    if project.owner_id != user.pk:
        raise PermissionDenied("Only the owner of a project shares or deletes it.")
    return project


def share(project: Project, username: str, role: str) -> None:
    """Let somebody else work in a project, in a role; who does already has that role from now on."""
    Membership.objects.update_or_create(
        project=project, user=_other(project, username), defaults={"role": role}
    )


def unshare(project: Project, username: str) -> None:
    """No longer let somebody work in a project."""
    Membership.objects.filter(project=project, user=_other(project, username)).delete()


def _other(project: Project, username: str) -> Any:
    name = username.strip()
    other = get_user_model().objects.filter(username=name).exclude(pk=project.owner_id).first()
    if other is None:
        raise ValidationError({"username": f"There is no other person here with the sign-in name “{name}”."})
    return other
