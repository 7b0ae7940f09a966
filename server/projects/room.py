"""How much of the disk the files of one project may take."""

from __future__ import annotations

from django.conf import settings
from rest_framework import status
from rest_framework.exceptions import APIException

from server.common.pruning import size_of_all
from server.projects.models import Project


class ProjectFull(APIException):
    """A file that a project has no room for."""

    status_code = status.HTTP_413_REQUEST_ENTITY_TOO_LARGE


def require_room(project: Project, name: str, size: int) -> None:
    """Let a file of so many bytes come in, where there is room for it: a limit for each project keeps one
    from taking the disk of all (`DUNEFOLD_PROJECT_LIMIT`; 0 for none).

    Raises:
        ProjectFull: the project has as much as it may have.
    """
    if not settings.PROJECT_LIMIT:
        return
    taken = size_of_all(project)
    if taken + size > settings.PROJECT_LIMIT:
        raise ProjectFull(
            f"There is no room for “{name}” ({megabytes(size)}): the files of this project have "
            f"{megabytes(taken)} of the {megabytes(settings.PROJECT_LIMIT)} that it may have. Delete plots, "
            "scans or pictures that are done with, or ask whoever runs Dunefold for more."
        )


def megabytes(size: int) -> str:
    """A size of a file for people.

    >>> megabytes(3_500_000)
    '3.34 MB'
    """
    return f"{size / 1024 / 1024:.3g} MB"
