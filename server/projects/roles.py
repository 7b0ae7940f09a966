"""What people may do in a project, by their roles there."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, Literal

from rest_framework.exceptions import PermissionDenied
from rest_framework.permissions import SAFE_METHODS, BasePermission
from rest_framework.request import Request

from server.projects.models import Membership, Project

#: What can be done: look and plot; answer comments and let findings stand; change the set and issue it; sign
#: sheets as checked and approved; share and delete the project.
Ability = Literal["look", "check", "draw", "sign", "own"]
ROLES: dict[str, frozenset[Ability]] = {
    "owner": frozenset({"look", "check", "draw", "sign", "own"}),
    Membership.Role.DRAFTER: frozenset({"look", "check", "draw"}),
    Membership.Role.CHECKER: frozenset({"look", "check", "sign"}),
    Membership.Role.READER: frozenset({"look"}),
}
_WORDS: dict[Ability, str] = {
    "look": "look at it",
    "check": "check it",
    "draw": "change it",
    "sign": "sign its sheets as checked or approved",
    "own": "share or delete it",
}


def role_of(project: Project, user: Any) -> str:
    """The role of somebody in a project; blank for none."""
    if project.owner_id == user.pk:
        return "owner"
    row = Membership.objects.filter(project=project, user=user.pk).first()
    return row.role if row else ""


def may(project: Project, user: Any, ability: Ability) -> bool:
    """Whether somebody may do something in a project."""
    return ability in ROLES.get(role_of(project, user), frozenset())


def who_may(project: Project, ability: Ability) -> list[str]:
    """The names of those who may do something in a project, its owner first."""
    roles = [role for role, abilities in ROLES.items() if ability in abilities]
    rows = Membership.objects.filter(project=project, role__in=roles).select_related("user")
    return [project.owner.get_username(), *sorted(row.user.get_username() for row in rows)]


def require(project: Project, user: Any, abilities: Iterable[Ability]) -> None:
    """Refuse what somebody may not do, and say who may.

    Raises:
        PermissionDenied: their role does not allow it.
    """
    for ability in abilities:
        if not may(project, user, ability):
            role = role_of(project, user)
            names = ", ".join(who_may(project, ability))
            raise PermissionDenied(
                f"You are a {role} of “{project.name}” and cannot {_WORDS[ability]}. {names} can."
            )


def ability_for(request: Request) -> Ability:
    """What a request needs: to look, where it changes nothing or what is decided row by row; else what its
    view says; else to change the set."""
    view = (request.parser_context or {}).get("view")
    decided = getattr(view, "action", "") in getattr(view, "decided_by_kind", ())
    needs: Ability = getattr(view, "needs", "draw")
    return "look" if request.method in SAFE_METHODS or decided else needs


class WithinRole(BasePermission):
    """For one row of a project: whether one's role there allows what is done to it."""

    def has_object_permission(self, request: Request, view: Any, obj: Any) -> bool:
        to_project = getattr(view, "to_project", None)
        if to_project is None or request.method in SAFE_METHODS:
            return True
        at: Any = obj
        for name in () if to_project == "pk" else to_project.split("__"):
            at = getattr(at, name)
        if at is not None:
            require(at, request.user, [ability_for(request)])
        return True
